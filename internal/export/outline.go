package export

import (
	"math"
	"slices"

	"coldember/core/blade"
)

// Point is a point of a drawing, mm.
type Point [2]float64

// Loop is a closed outline of one layer of a drawing.
type Loop struct {
	Layer  string
	Points []Point
}

// Layers of a drawn blade.
const (
	LayerFinished = "finished"
	LayerForged   = "forged"
	LayerRicasso  = "ricasso"
	LayerTang     = "tang"
	LayerHole     = "hole"
	LayerBent     = "bent" // a blade bent flatwise, seen from its spine: a template for the bend
)

// curveStepMm is how finely a curve is followed: a smooth curve of a knife stays
// within a hundredth of a millimetre of its chords.
const curveStepMm = 0.5

// bentSteps is how finely the sides of a bent tang are followed.
const bentSteps = 160

// loops draws a body: blade proper, ricasso and tang, each closed, the tang as it is bent.
func loops(b *blade.Body, layer string, kind blade.TangKind) []Loop {
	var up, down []Point
	l := b.LengthMm()
	n := int(l/curveStepMm) + 40
	xs := b.Breaks()
	for i := range n + 1 {
		u := float64(i) / float64(n)
		xs = append(xs, l*u*u*(3-2*u)) // dense at point and heel
	}
	slices.Sort(xs)
	for _, x := range slices.CompactFunc(xs, func(a, b float64) bool { return math.Abs(a-b) < 1e-6 }) {
		up = append(up, Point{x, b.SpineY(x)})
		down = append(down, Point{x, b.EdgeY(x)})
	}
	out := []Loop{{layer, closed(up, down)}}
	heel := b.SpineY(l)
	if r := b.Blade.Ricasso; r != nil {
		top := heel + r.RiseMm
		around := []Point{{l, top}, {l + r.LengthMm, top}}
		xs := r.Stations()
		for i := len(xs) - 1; i >= 0; i-- {
			around = append(around, Point{l + xs[i], top - r.HeightAt(xs[i])})
		}
		out = append(out, Loop{LayerRicasso, around})
		l += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		y0 := heel + t.CentreMm(0)
		line := t.Centreline(kind)
		put := func(s, y float64) Point {
			if line == nil {
				return Point{l + s, y}
			}
			out, up := line.At(s).Off(y - y0)
			return Point{l + out, y0 + up}
		}
		along := t.Stations(curveStepMm)
		if line != nil && t.Outline == nil {
			along = nil
			for i := range bentSteps + 1 {
				along = append(along, t.LengthMm*float64(i)/bentSteps)
			}
		}
		var top, bottom []Point
		for _, s := range along {
			h, _ := t.At(s)
			y := heel - t.TopMm(s)
			top, bottom = append(top, put(s, y)), append(bottom, put(s, y-h))
		}
		slices.Reverse(bottom)
		out = append(out, Loop{LayerTang, append(top, bottom...)})
		for _, hole := range t.Holes {
			mouth := hole.Mouth()
			around := make([]Point, len(mouth))
			for i, n := range mouth {
				around[i] = put(n[0], heel+t.CentreMm(hole.AtMm)+n[1])
			}
			out = append(out, Loop{LayerHole, around})
		}
	}
	return out
}

// closed joins two curves that start at the point.
func closed(up, down []Point) []Point {
	out := append([]Point(nil), up...)
	for i := len(down) - 1; i >= 0; i-- {
		if i == 0 && down[0] == up[0] {
			break
		}
		out = append(out, down[i])
	}
	return out
}

// Drawing is the finished blade and its forged shape as closed outlines, heel
// on heel: the finished blade lies within the forged one.
func Drawing(finished, forged *blade.Body, tang blade.TangKind) []Loop {
	around := loops(forged, LayerForged, tang)[0]
	shift := finished.LengthMm() - forged.LengthMm()
	up := finished.SpineY(finished.LengthMm()) - forged.SpineY(forged.LengthMm())
	if o := forged.SpineY(forged.LengthMm()) - forged.EdgeY(forged.LengthMm()) - finished.SpineY(finished.LengthMm()) + finished.EdgeY(finished.LengthMm()); o > 0 {
		up += o / 2
	}
	for i := range around.Points {
		around.Points[i][0] += shift
		around.Points[i][1] += up
	}
	out := append(loops(finished, LayerFinished, tang), around)
	if bent := finished.BentBlade(); bent != nil {
		lo, _ := bounds(out)
		top := math.Inf(-1)
		for _, n := range bent.Spine {
			top = math.Max(top, n[1])
		}
		loop := Loop{Layer: LayerBent}
		for _, n := range bent.Spine {
			loop.Points = append(loop.Points, Point{n[0], n[1] - top + lo[1] - bentBelowMm})
		}
		out = append(out, loop)
	}
	return out
}

// bentBelowMm is how far under the flat blade its bend is drawn.
const bentBelowMm = 12.0

// bounds of a drawing.
func bounds(ls []Loop) (lo, hi Point) {
	if len(ls) == 0 {
		return lo, hi
	}
	lo, hi = ls[0].Points[0], ls[0].Points[0]
	for _, l := range ls {
		for _, p := range l.Points {
			for k := range 2 {
				lo[k], hi[k] = min(lo[k], p[k]), max(hi[k], p[k])
			}
		}
	}
	return lo, hi
}
