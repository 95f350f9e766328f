package billet

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/section"
	"coldember/core/steel"
)

// Join is how bars of one pattern are welded to each other across the blade, an edge bar below them.
type Join struct {
	Bars        int
	Alternate   bool // every second one turns the other way
	EdgeSteelID string
	EdgeMm      float64 // of the bar's width; 0: none
	Way         EdgeWay
	EdgeThickMm float64 // of a wrap on each side, or of a bit at its open end
}

// EdgeWay is how the steel of the edge meets the rest.
type EdgeWay string

// Below lies the edge bar under the others; wrapped it is folded round the edge and reaches up both
// faces; in a cleft it is a wedge between them.
const (
	Below   EdgeWay = "below"
	Wrapped EdgeWay = "wrapped"
	Cleft   EdgeWay = "cleft"
)

// validateEdge reports what of an edge cannot be.
func (r *Recipe) validateEdge(c fact.Check) {
	fact.OneOf(c, "edgeWay", r.EdgeWay, "", Below, Wrapped, Cleft)
	c.Range("edgeMm", r.EdgeMm, 0, r.BarWidthMm*mostEdgeShare)
	c.Range("edgeThickMm", r.EdgeThickMm, 0, 80)
	if r.EdgeMm > 0 && r.EdgeWay == Wrapped {
		c.Range("edgeThickMm", r.EdgeThickMm, .3, math.Min(r.BarThicknessMm*.45, r.EdgeMm))
	}
	if r.EdgeMm > 0 && r.EdgeWay == Cleft {
		c.Range("edgeThickMm", r.EdgeThickMm, .3, r.BarThicknessMm*.9)
	}
}

// edgeMm2 is how much of the section of the bar the edge steel is.
func (r *Recipe) edgeMm2() float64 {
	switch {
	case r.EdgeMm <= 0:
		return 0
	case r.EdgeWay == Wrapped:
		return r.EdgeThickMm*r.BarThicknessMm + 2*r.EdgeThickMm*(r.EdgeMm-r.EdgeThickMm)
	case r.EdgeWay == Cleft:
		return r.EdgeThickMm * r.EdgeMm / 2
	}
	return r.EdgeMm * r.BarThicknessMm
}

// belowMm is how much of the width of the bar lies under the patterned bars.
func (r *Recipe) belowMm() float64 {
	j := Join{EdgeMm: r.EdgeMm, Way: r.EdgeWay, EdgeThickMm: r.EdgeThickMm}
	return j.belowMm()
}

func (j *Join) belowMm() float64 {
	switch {
	case j.EdgeMm <= 0 || j.Way == Cleft:
		return 0
	case j.Way == Wrapped:
		return j.EdgeThickMm
	}
	return j.EdgeMm
}

// Beside is whether a place so far up from the lower side of the bar and so deep in it (1: on the skin) is of
// the edge steel, and if not, how deep it lay in the body, which is squeezed aside by it.
func (j *Join) Beside(upMm, depthShare, barThickMm float64) (edge bool, inBody float64) {
	if j.EdgeMm <= 0 || upMm >= j.EdgeMm {
		return false, depthShare
	}
	share := math.Min(1, j.EdgeThickMm/barThickMm)
	switch j.Way {
	case Wrapped:
		core := 1 - 2*share
		return upMm < j.EdgeThickMm || depthShare > core, depthShare / math.Max(1e-9, core)
	case Cleft:
		wedge := share * (1 - math.Max(0, upMm)/j.EdgeMm)
		return depthShare < wedge, (depthShare - wedge) / math.Max(1e-9, 1-wedge)
	}
	return true, depthShare
}

// Bounds of a join (judgement): bars that lie side by side, the edge's share of the width, and the
// heats that it is welded in.
const (
	mostBeside    = 7
	mostEdgeShare = .7
	joinHeats     = 2
)

// patterned is the section of the bar that is of the pattern, mm².
func (r *Recipe) patterned() float64 { return r.BarWidthMm*r.BarThicknessMm - r.edgeMm2() }

// joined fills in length and mass of the bar: the pattern is as long as its volume gives, its edge is
// laid to that, and welding them burns both.
func (o *Outcome) joined(r *Recipe, fire forge.Fire, last *State, w *weldings) {
	o.LengthMm = last.VolumeMm3 / r.patterned()
	edge := r.edgeMm2() * o.LengthMm
	whole := last.VolumeMm3 + edge
	o.LaidG = grams(o.States[0].VolumeMm3 + edge)
	if g, err := steel.Find(r.Stack[0].SteelID); err == nil && (r.Beside > 1 || edge > 0) {
		f := r.burn(fire, g, joinHeats, whole, r.BarWidthMm, r.BarThicknessMm, w)
		o.JoinedG = grams(whole * f)
		o.LengthMm *= 1 - f
		whole *= 1 - f
	}
	o.MassG = grams(whole)
}

// across is where a place of the whole bar, from its middle, lies in the bar of the pattern that it
// is of, and whether that one turns the other way.
func (b *Blade) across(y float64) (in float64, other bool) {
	n, w := float64(max(1, b.Join.Bars)), b.Bar.ForgedWidthMm
	up := y + b.wide()/2 - b.Join.belowMm() // over the seam with the edge
	i := math.Max(0, math.Min(n-1, math.Floor(up/w)))
	return up - (i+.5)*w, b.Join.Alternate && math.Mod(i, 2) == 1
}

// wide is the whole bar.
func (b *Blade) wide() float64 {
	return b.Bar.ForgedWidthMm*float64(max(1, b.Join.Bars)) + b.Join.belowMm()
}

// LeastSeamMm is how far above the edge a seam stays at the least, so that it is never in it, however
// often the edge is ground anew (judgement).
const LeastSeamMm = 2.0

// seamStations are looked at along a blade.
const seamStations = 60

// Seam is how far above the finished edge the edge bar ends at the least, mm, and where, as far as
// the blade is half as high as it gets; ok is false where it has none. Negative: the pattern is at the edge there.
func (b *Blade) Seam() (upMm, atMm float64, ok bool) {
	if b.Join.EdgeMm <= 0 {
		return 0, 0, false
	}
	_, eaten := b.gone()
	upMm = math.Inf(1)
	tall := 0.0
	for i := range seamStations {
		tall = math.Max(tall, b.Finished.SectionAt(b.Finished.LengthMm()*(float64(i)+.5)/seamStations).HeightMm)
	}
	for i := range seamStations {
		x := b.Finished.LengthMm() * (float64(i) + .5) / seamStations
		xf := b.forgedX(x)
		if xf < 0 || xf > b.Forged.LengthMm() {
			continue
		}
		if b.Finished.SectionAt(x).HeightMm < tall/2 {
			continue // toward the point all of it runs together, and the edge bar with it
		}
		forged := b.Forged.SectionAt(xf)
		high := forged.HeightMm
		// across = (up/high − ½)·wide·(1 − eaten) comes to the seam at −wide/2 + edge
		share := .5 + (b.Join.EdgeMm/b.wide()-.5)/(1-eaten)
		up := share*high - b.inForged(x, xf, 0)
		if b.Join.Way == Wrapped || b.Join.Way == Cleft {
			up = b.endsAt(x, xf, &forged, up)
		}
		if up < upMm {
			upMm, atMm = up, x
		}
	}
	return upMm, atMm, !math.IsInf(upMm, 1)
}

// endsAt is how far up from the finished edge the faces show the edge steel at a station, whole: the
// lower of both, no more than so far. A wrap is ground through from the edge up as a rule, a bit in a cleft comes out
// of the body there.
func (b *Blade) endsAt(x, xf float64, forged *section.Section, mostMm float64) float64 {
	const steps = 200
	fin := b.Finished.SectionAt(x)
	_, eaten := b.gone()
	for i := range steps {
		y := math.Min(mostMm, fin.HeightMm) * float64(i) / steps
		at := b.inForged(x, xf, y)
		half := b.whole(forged, at) / 2
		front, back := fin.FacesAt(y)
		up := (at/forged.HeightMm-.5)*b.wide()*(1-eaten) + b.wide()/2
		for _, d := range []float64{depth(front-b.DeeperMm, half), depth(-back-b.DeeperMm, half)} {
			if edge, _ := b.Join.Beside(up, math.Abs(d), b.Bar.ForgedThicknessMm); !edge {
				return y
			}
		}
	}
	return mostMm
}
