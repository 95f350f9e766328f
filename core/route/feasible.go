package route

import (
	"math"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
)

// Bands of the spread needed. Below lengthenBelow no face spreads so little:
// the width has to be held by blows on edge.
const (
	lengthenBelow = 0.23
	eitherBelow   = 0.40
	NoStrain      = 1e-6
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
	Way               plan.Way
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
	case r.AreaRatio < 1 || (r.StrainWidth > NoStrain && r.StrainThickness <= NoStrain):
		r.Way = plan.UpsetIt
	case r.StrainWidth <= NoStrain:
		r.Way = plan.NarrowIt
		r.Feasible = true
	default:
		r.SpreadNeeded = r.StrainWidth / r.StrainThickness
		r.Feasible = r.SpreadNeeded <= reachable*(1+rounding)
		switch {
		case !r.Feasible:
			r.Way = plan.TooNarrow
		case r.SpreadNeeded < lengthenBelow:
			r.Way = plan.Lengthen
		case r.SpreadNeeded < eitherBelow:
			r.Way = plan.Either
		default:
			r.Way = plan.SpreadIt
		}
	}
	return r
}

// Feasibility looks along the forged shape from the bar's section. The blade is
// reached by peening along while drawing and by the bevelling school's spread
// after; whichever face the smith takes, the larger of the two is within reach
// unless the school forbids it.
// With w0 0 every station begins as wide as it is to be.
func Feasibility(f *blade.Body, zones []figure.Zone, w0, t0 float64, h forge.Smith, m forge.Method) []plan.Feasibility {
	const n = 40
	var out []plan.Feasibility
	reach := h.MostSpread(m, math.Max(w0, 1))
	for i := range n {
		x := f.OverallMm() * (float64(i) + 0.5) / n
		s, ok := figure.SliceAt(f, zones, x)
		if !ok {
			continue
		}
		from := w0
		if from == 0 {
			from = s.HeightMm
		}
		r := ReachOf(from, t0, s.HeightMm, s.AreaMm2/s.HeightMm, reach)
		if w0 == 0 && r.Way == plan.NarrowIt {
			r.Way = plan.Lengthen
		}
		out = append(out, plan.Feasibility{
			XMm: x, HeightMm: s.HeightMm, MeanThicknessMm: s.AreaMm2 / s.HeightMm, AreaRatio: r.AreaRatio,
			SpreadNeeded: r.SpreadNeeded, SpreadReachable: reach, ReachableHeightMm: r.ReachableHeightMm, Way: r.Way,
		})
	}
	return out
}

// widthFor is the width from w0 on that spreads to a height while it is thinned by a true
// strain: the wider it is, the less any tool spreads it.
func widthFor(heightMm, thinned, w0 float64, spread func(widthMm float64) float64) float64 {
	low, high := w0, heightMm
	for range bisections {
		if mid := (low + high) / 2; mid*math.Exp(spread(mid)*thinned) < heightMm {
			low = mid
		} else {
			high = mid
		}
	}
	return high
}

// bisections halve the way to a width until nothing is left of it.
const bisections = 50

// BarThatReaches finds the bar width at this thickness (0: no width will), and the
// thickness at this width, from which every station can be reached.
func BarThatReaches(along []plan.Feasibility, h forge.Smith, m forge.Method, w0, t0 float64) (widthMm, thicknessMm float64) {
	possible := true
	for _, f := range along {
		widthMm = math.Max(widthMm, f.HeightMm*f.MeanThicknessMm/t0)
		thicknessMm = math.Max(thicknessMm, f.HeightMm*f.MeanThicknessMm/w0)
		if f.HeightMm <= w0 {
			continue // it is narrowed there, and thickens by itself
		}
		thinned := math.Log(t0 / f.MeanThicknessMm)
		possible = possible && thinned > -NoStrain
		widthMm = math.Max(widthMm, widthFor(f.HeightMm, math.Max(0, thinned), w0, func(w float64) float64 { return h.MostSpread(m, w) }))
		thicknessMm = math.Max(thicknessMm, f.MeanThicknessMm*math.Exp(math.Log(f.HeightMm/w0)/f.SpreadReachable))
	}
	if !possible {
		widthMm = 0
	}
	return widthMm, thicknessMm
}
