package billet

import (
	"math"

	"coldember/core/forge"
	"coldember/core/steel"
)

// Join is how bars of one pattern are welded to each other across the blade, an edge bar below them.
type Join struct {
	Bars        int
	Alternate   bool // every second one turns the other way
	EdgeSteelID string
	EdgeMm      float64 // of the bar's width; 0: none
}

// Bounds of a join (judgement): bars that lie side by side, the edge's share of the width, and the
// heats that it is welded in.
const (
	mostBeside    = 7
	mostEdgeShare = .7
	joinHeats     = 2
)

// patterned is the section of the bar that is of the pattern, mm².
func (r *Recipe) patterned() float64 { return (r.BarWidthMm - r.EdgeMm) * r.BarThicknessMm }

// joined fills in length and mass of the bar: the pattern is as long as its volume gives, its edge is
// laid to that, and welding them burns both.
func (o *Outcome) joined(r *Recipe, fire forge.Fire, last *State, w *weldings) {
	o.LengthMm = last.VolumeMm3 / r.patterned()
	edge := r.EdgeMm * r.BarThicknessMm * o.LengthMm
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
// is of, and whether that one turns the other way; edge: it is of the edge bar.
func (b *Blade) across(y float64) (in float64, other, edge bool) {
	n, w := float64(max(1, b.Join.Bars)), b.Bar.ForgedWidthMm
	up := y + b.wide()/2 - b.Join.EdgeMm // over the seam with the edge
	if up < 0 && b.Join.EdgeMm > 0 {
		return 0, false, true
	}
	i := math.Max(0, math.Min(n-1, math.Floor(up/w)))
	return up - (i+.5)*w, b.Join.Alternate && math.Mod(i, 2) == 1, false
}

// wide is the whole bar.
func (b *Blade) wide() float64 {
	return b.Bar.ForgedWidthMm*float64(max(1, b.Join.Bars)) + b.Join.EdgeMm
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
		high := b.Forged.SectionAt(xf).HeightMm
		// across = (up/high − ½)·wide·(1 − eaten) comes to the seam at −wide/2 + edge
		share := .5 + (b.Join.EdgeMm/b.wide()-.5)/(1-eaten)
		if up := share*high - b.inForged(x, xf, 0); up < upMm {
			upMm, atMm = up, x
		}
	}
	return upMm, atMm, !math.IsInf(upMm, 1)
}
