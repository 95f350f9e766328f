package forge

import (
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// Cell is a piece of the bar that moves together: volume never leaves it
// except as scale. Length is what volume and section leave.
type Cell struct {
	Zone        string
	VolumeMm3   float64
	WidthMm     float64
	ThicknessMm float64 // mean, area over width
	EdgeMm      float64
	SpineMm     float64
	TempC       float64
	ScaleMm     float64 // lost from each face so far
	CurvePerMm  float64 // of its centre line, away from the ricasso toward the spine
	TwistTurns  float64 // between its ends
	Steel       int     // 0: the shop's; else one more than its place among Bar.Steels
	decarb      thermal.DecarbClock
	hot         bool
}

// LengthMm is volume over area.
func (c *Cell) LengthMm() float64 { return c.VolumeMm3 / (c.WidthMm * c.ThicknessMm) }

// Decarb returns how deep the carbon is below fraction of the bar's under the
// scale, mm.
func (c *Cell) Decarb(fraction float64) float64 {
	_, left := c.decarb.Depth(fraction, c.ScaleMm)
	return left
}

// burnShare of its least dimension is the most that one heat may take from a
// cell: more, and the spot has burnt away.
const burnShare = 0.45

// scaleOff takes x mm from each face; the length stays, the section shrinks. A
// cell that would burn away is left as it is, and told of.
func (c *Cell) scaleOff(x float64) (lostMm3 float64, burnt bool) {
	l := c.LengthMm()
	if !(2*x <= burnShare*math.Min(c.WidthMm, c.ThicknessMm)) {
		return 0, true
	}
	before := c.VolumeMm3
	k := (c.ThicknessMm - 2*x) / c.ThicknessMm
	c.WidthMm -= 2 * x
	c.ThicknessMm -= 2 * x
	c.EdgeMm *= k
	c.SpineMm *= k
	c.ScaleMm += x
	c.VolumeMm3 = l * c.WidthMm * c.ThicknessMm
	return before - c.VolumeMm3, false
}

// Bar is the state of the piece: its cells from the point back.
type Bar struct {
	Cells  []Cell
	Steels []steel.Grade // of the cells that are not of the shop's: a bit, a rod, a layer
}

// VolumeMm3 is the sum over the cells.
func (b *Bar) VolumeMm3() float64 {
	v := 0.0
	for i := range b.Cells {
		v += b.Cells[i].VolumeMm3
	}
	return v
}

// Clone copies the state.
func (b *Bar) Clone() Bar { return Bar{Cells: append([]Cell(nil), b.Cells...), Steels: b.Steels} }

// Target is what an operation brings a cell to.
type Target struct {
	WidthMm     float64
	ThicknessMm float64
	EdgeMm      float64
	SpineMm     float64
}

// EffectiveStrain is √(⅔(εw²+εt²+εl²)) of carrying (w, t) to (w*, t*) at
// constant volume.
func EffectiveStrain(w, t, w1, t1 float64) float64 {
	return effective(math.Log(w1/w), math.Log(t1/t))
}

// effective is EffectiveStrain of the true strains of width and thickness.
func effective(ew, et float64) float64 {
	el := -(ew + et)
	return math.Sqrt(2. / 3 * (ew*ew + et*et + el*el))
}
