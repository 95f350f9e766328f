package harden

import (
	"math"

	"coldember/core/steel"
)

// Tempered is what tempering leaves.
type Tempered struct {
	AsQuenchedHRC float64 `json:"asQuenchedHrc,omitempty"`
	OvenC         float64 `json:"ovenC"`
	HRC           float64 `json:"hrc,omitempty" doc:"0: outside of what the grade's table answers for"`
	LowHRC        float64 `json:"lowHrc,omitempty" doc:"where the oven swings hot"`
	HighHRC       float64 `json:"highHrc,omitempty"`
	ColourC       float64 `json:"colourC" doc:"one hour at which makes the same: its colour on bright steel"`
	LowestC       float64 `json:"lowestC,omitempty" doc:"of the settings that are answered for, at these hours"`
	HighestC      float64 `json:"highestC,omitempty"`
}

// The grade's table of hardness goes from one hour at 200 °C to one at 260.
const (
	tableLowC  = 200.0
	tableHighC = 260.0
)

// Temper is what an oven at a setting, or the setting that comes to a hardness, leaves of a
// grade after all its times. Where the table has no answer none is given. Hollomon and Jaffe's
// parameter; times at one temperature add their hours.
func Temper(g steel.Grade, t Treatment, wantHRC float64) Tempered {
	hours := t.Hours * float64(max(1, t.Times))
	out := Tempered{OvenC: t.OvenC}
	if len(g.HRC) == 4 {
		out.AsQuenchedHRC = g.HRC[0]
		out.LowestC = steel.SameTemperC(steel.HollomonJaffe(tableLowC, 1), hours)
		out.HighestC = steel.SameTemperC(steel.HollomonJaffe(tableHighC, 1), hours)
	}
	hrc := func(c float64) float64 {
		// what is read off a table ends where the table does, with a hair for rounding
		one := steel.OneHourEquivalentC(steel.HollomonJaffe(c, hours))
		v, ok := g.HardnessHRC(math.Max(tableLowC, math.Min(tableHighC, one)))
		if !ok || one < tableLowC-tableSlackC || one > tableHighC+tableSlackC {
			return 0
		}
		return v
	}
	if out.OvenC == 0 {
		out.OvenC = ovenFor(g, hrc, out, wantHRC)
	}
	if out.OvenC == 0 {
		return out
	}
	out.ColourC = steel.OneHourEquivalentC(steel.HollomonJaffe(out.OvenC, hours))
	out.HRC, out.LowHRC, out.HighHRC = hrc(out.OvenC), hrc(out.OvenC+t.SwingK), hrc(out.OvenC-t.SwingK)
	return out
}

// tableSlackC is by how little a setting may lie outside of the table.
const tableSlackC = .5

// ovenFor is the setting, to the next five degrees, that comes to a hardness: the end of the table
// that is nearer where it has none such.
func ovenFor(g steel.Grade, hrc func(float64) float64, t Tempered, want float64) float64 {
	if len(g.HRC) != 4 {
		return 0
	}
	if want == 0 {
		want = g.HRC[2]
	}
	lo, hi := t.LowestC, t.HighestC
	for range 50 {
		if mid := (lo + hi) / 2; hrc(mid) > want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return math.Max(math.Ceil(t.LowestC/settingC), math.Min(math.Floor(t.HighestC/settingC), math.Round((lo+hi)/2/settingC))) * settingC
}

// settingC is how finely an oven is set.
const settingC = 5
