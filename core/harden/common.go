package harden

import (
	"math"
	"sort"

	"coldember/core/steel"
)

// Load is a blade that wants tempering.
type Load struct {
	ID        string
	Grade     steel.Grade
	Treatment Treatment
	WantHRC   float64
}

// Setting is what a load is tempered at together with others, and what that leaves.
type Setting struct {
	OvenC float64 `json:"ovenC"`
	OwnC  float64 `json:"ownC" doc:"that it would be at by itself"`
	HRC   float64 `json:"hrc,omitempty"`
}

// nearHRC is by how much a blade may come out other than wanted for the sake of a common setting
// (judgement: no file and few testers tell it).
const nearHRC = 1.0

// stretch is the settings that a load may be at.
type stretch struct {
	load   *Load
	own    float64
	lo, hi float64
}

// Common puts loads of one way and time at as few settings as leave each within nearHRC of what is
// wanted, and each of those at the setting that is nearest to what its loads would have by
// themselves. A load whose setting was typed keeps it. Loads without an answer have none.
func Common(loads []Load) map[string]Setting {
	out := map[string]Setting{}
	alike := map[[3]any][]stretch{}
	for i := range loads {
		l := &loads[i]
		own := Temper(l.Grade, l.Treatment, l.WantHRC)
		if own.OvenC <= 0 {
			continue
		}
		s := stretch{l, own.OvenC, own.OvenC, own.OvenC}
		if l.Treatment.OvenC == 0 && own.HRC > 0 {
			s.lo, s.hi = spanOf(l, own)
		}
		out[l.ID] = Setting{own.OvenC, own.OvenC, own.HRC}
		key := [3]any{l.Treatment.By(), l.Treatment.Hours, l.Treatment.Times}
		alike[key] = append(alike[key], s)
	}
	for _, all := range alike {
		sort.SliceStable(all, func(i, j int) bool { return all[i].hi < all[j].hi })
		for len(all) > 0 { // the fewest settings that meet every stretch: by the one that ends first
			var in, rest []stretch
			for _, s := range all {
				if s.lo <= all[0].hi {
					in = append(in, s)
				} else {
					rest = append(rest, s)
				}
			}
			c := meet(in)
			for _, s := range in {
				t := s.load.Treatment
				t.OvenC = c
				out[s.load.ID] = Setting{c, s.own, Temper(s.load.Grade, t, s.load.WantHRC).HRC}
			}
			all = rest
		}
	}
	return out
}

// meet is the setting within all stretches that is nearest to the mean of their own.
func meet(in []stretch) float64 {
	lo, hi, sum := in[0].lo, in[0].hi, 0.0
	for _, s := range in {
		lo, hi, sum = math.Max(lo, s.lo), math.Min(hi, s.hi), sum+s.own
	}
	c := math.Round(sum/float64(len(in))/settingC) * settingC
	return math.Max(lo, math.Min(hi, c))
}

// spanOf is from which to which setting a load comes out near enough.
func spanOf(l *Load, own Tempered) (lo, hi float64) {
	near := func(c float64) bool {
		t := l.Treatment
		t.OvenC = c
		hrc := Temper(l.Grade, t, l.WantHRC).HRC
		return hrc > 0 && math.Abs(hrc-own.HRC) <= nearHRC
	}
	for lo = own.OvenC; near(lo - settingC); {
		lo -= settingC
	}
	for hi = own.OvenC; near(hi + settingC); {
		hi += settingC
	}
	return lo, hi
}
