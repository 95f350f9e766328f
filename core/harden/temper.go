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
	AskedC        float64 `json:"askedC,omitempty" doc:"the setting that what is usual for the use would take: hotter than is sound"`
	MostHRC       float64 `json:"mostHrc,omitempty" doc:"the coolest that a blade is tempered at leaves so much"`
	// Source is where the hardness comes from: the grade's table, or its composition.
	Source steel.TemperSource `json:"source,omitempty" enum:"table,composition"`
}

// LeastTemperC is the coolest that a blade is tempered at: under it a quenched edge keeps most of its
// brittleness (judgement: ovens are set to 175–260 °C). A cooler setting is answered for where it is
// chosen.
const LeastTemperC = 175.0

// What is usual for a use, and not asked for, is not tempered in the brittle range where so much harder
// will do (judgement: 240–260 °C, as hot as a kitchen oven goes; 1–2 HRC).
const (
	soundC    = 250.0
	harderHRC = 2.0
)

// Temper is what an oven at a setting, or the setting that comes to a hardness, leaves of a grade
// after all its times. Where nothing is known none is given. Hollomon and Jaffe's parameter; times
// at one temperature add their hours.
func Temper(g steel.Grade, t Treatment, wantHRC float64) Tempered {
	hours := t.Hours * float64(max(1, t.Times))
	out := Tempered{OvenC: t.OvenC}
	if len(g.HRC) == 4 {
		out.AsQuenchedHRC = g.HRC[0]
		out.LowestC = steel.SameTemperC(steel.HollomonJaffe(steel.TemperLeastC, 1), hours)
		out.HighestC = steel.SameTemperC(steel.HollomonJaffe(steel.TemperMostC, 1), hours)
	}
	hrc := func(c float64) float64 {
		v, ok := g.HardnessHRC(steel.OneHourEquivalentC(steel.HollomonJaffe(c, hours)))
		if !ok {
			return 0
		}
		return v
	}
	switch {
	case out.OvenC != 0:
	case g.Assumed: // to begin with, by a coupon
		out.OvenC = couponOvenC
	default:
		out.OvenC = ovenFor(g, hrc, out, wantHRC)
		if c := math.Floor(soundC/settingC) * settingC; t.WantHardness == 0 && out.OvenC > c && hrc(c)-hrc(out.OvenC) <= harderHRC {
			out.AskedC, out.OvenC = out.OvenC, c
		}
	}
	out.MostHRC = hrc(math.Max(LeastTemperC, math.Ceil(out.LowestC/settingC)*settingC))
	if out.OvenC == 0 {
		return out
	}
	out.ColourC = steel.OneHourEquivalentC(steel.HollomonJaffe(out.OvenC, hours))
	out.HRC, out.LowHRC, out.HighHRC = hrc(out.OvenC), hrc(out.OvenC+t.SwingK), hrc(out.OvenC-t.SwingK)
	out.Source = g.TemperSourceAt(out.ColourC)
	return out
}

// ovenFor is the setting, to the next five degrees, that comes to a hardness: the end of what a
// blade is tempered at that is nearer where none does.
func ovenFor(g steel.Grade, hrc func(float64) float64, t Tempered, want float64) float64 {
	if len(g.HRC) != 4 {
		return 0
	}
	if want == 0 {
		want = g.HRC[2]
	}
	least, most := math.Ceil(math.Max(LeastTemperC, t.LowestC)/settingC)*settingC, math.Floor(t.HighestC/settingC)*settingC
	best := least
	for c := least; c <= most; c += settingC {
		if math.Abs(hrc(c)-want) < math.Abs(hrc(best)-want) {
			best = c
		}
	}
	return best
}

// settingC is how finely an oven is set.
const settingC = 5
