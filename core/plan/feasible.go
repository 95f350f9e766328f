package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
)

// Way is which way the steel must be moved at a station.
type Way string

// The ways. TooNarrow outranks every band of spread.
const (
	Lengthen  Way = "lengthen"
	Either    Way = "either"
	SpreadIt  Way = "spread"
	NarrowIt  Way = "narrow"
	UpsetIt   Way = "upset"
	TooNarrow Way = "tooNarrow"
)

// Bands of the spread needed. Below lengthenBelow no face spreads so little:
// the width has to be held by blows on edge.
const (
	lengthenBelow = 0.23
	eitherBelow   = 0.40
	noStrain      = 1e-6
)

// rounding of the last digits is no reason to call a bar too narrow: a ricasso is
// thinned by just what it spreads.
const rounding = 1e-9

// Reach is what a bar can be forged to.
type Reach struct {
	SpreadNeeded      float64
	SpreadReachable   float64
	ReachableHeightMm float64
	AreaRatio         float64
	StrainWidth       float64
	StrainThickness   float64
	Way               Way
	Feasible          bool
}

// ReachOf answers whether a bar (w0 × t0) can be forged to a height at a mean
// thickness with this spread reachable. SpreadNeeded is 0 where it is not a
// number: narrowing or upsetting is wanted there.
func ReachOf(w0, t0, heightMm, meanMm, reachable float64) Reach {
	r := Reach{
		SpreadReachable: reachable, AreaRatio: w0 * t0 / (heightMm * meanMm),
		StrainThickness: math.Log(t0 / meanMm), StrainWidth: math.Log(heightMm / w0),
	}
	r.ReachableHeightMm = w0 * math.Exp(reachable*r.StrainThickness)
	switch {
	case r.AreaRatio < 1 || (r.StrainWidth > noStrain && r.StrainThickness <= noStrain):
		r.Way = UpsetIt
	case r.StrainWidth <= noStrain:
		r.Way = NarrowIt
		r.Feasible = true
	default:
		r.SpreadNeeded = r.StrainWidth / r.StrainThickness
		r.Feasible = r.SpreadNeeded <= reachable*(1+rounding)
		switch {
		case !r.Feasible:
			r.Way = TooNarrow
		case r.SpreadNeeded < lengthenBelow:
			r.Way = Lengthen
		case r.SpreadNeeded < eitherBelow:
			r.Way = Either
		default:
			r.Way = SpreadIt
		}
	}
	return r
}

// Feasibility is the reach at one station of the forged shape.
type Feasibility struct {
	XMm               float64 `json:"xMm"`
	HeightMm          float64 `json:"heightMm"`
	MeanThicknessMm   float64 `json:"meanThicknessMm"`
	AreaRatio         float64 `json:"areaRatio"`
	SpreadNeeded      float64 `json:"spreadNeeded"`
	SpreadReachable   float64 `json:"spreadReachable"`
	ReachableHeightMm float64 `json:"reachableHeightMm"`
	Way               Way     `json:"way" enum:"lengthen,either,spread,narrow,upset,tooNarrow"`
}

// feasibility looks along the forged shape from the bar's section. The blade is
// reached by peening along while drawing and by the bevelling school's spread
// after; whichever face the smith takes, the larger of the two is within reach
// unless the school forbids it.
func feasibility(f *blade.Body, zones []zone, w0, t0 float64, m forge.Method) []Feasibility {
	const n = 40
	var out []Feasibility
	reach := forge.MostSpread(m, w0)
	for i := range n {
		x := f.OverallMm() * (float64(i) + 0.5) / n
		s, ok := sliceAt(f, zones, x)
		if !ok {
			continue
		}
		r := ReachOf(w0, t0, s.height, s.area/s.height, reach)
		out = append(out, Feasibility{
			XMm: x, HeightMm: s.height, MeanThicknessMm: s.area / s.height, AreaRatio: r.AreaRatio,
			SpreadNeeded: r.SpreadNeeded, SpreadReachable: reach, ReachableHeightMm: r.ReachableHeightMm, Way: r.Way,
		})
	}
	return out
}
