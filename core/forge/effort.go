package forge

import (
	"math"

	"coldember/core/steel"
)

// Tool is what meets the steel at a stroke: BiteMm of contact along the way that the steel
// flows, BreadthMm across it, and, where it differs, the contact that sets how much goes
// into width (a peen laid along the bar spreads by its length).
type Tool struct {
	BiteMm, BreadthMm, SpreadMm float64
	Crowned                     bool // as faces and peens of hammers are, a little; dies are flat
}

// crownMm is the contact of a crowned face on steel of one millimetre: it bears over the chord of its dent, which
// goes with the root of how deep that is, and so of the height (judgement: 4–8; a face of 100 mm radius that
// dents .04 of the height bears on 5.7).
const crownMm = 5.5

// Bears is the contact along the bar on steel of this height, mm.
func (t Tool) Bears(heightMm float64) float64 {
	if t.Crowned {
		return math.Min(t.BiteMm, crownMm*math.Sqrt(heightMm))
	}
	return t.BiteMm
}

// Spread is the share of the thinning that this tool sends into the width of a piece.
func (t Tool) Spread(widthMm float64) float64 {
	s, _ := Spread(t.SpreadMm, widthMm)
	return s
}

// over is the tool with another support under the piece: less of it bears.
func (t Tool) over(s Support) Tool {
	t.BiteMm *= s.Share()
	t.SpreadMm *= s.Share()
	return t
}

// SpreadOf is the share of the thinning that goes into width by what works an operation:
// the machine where it does such work, else the face with what lies under the piece.
func (h Smith) SpreadOf(op *Operation, widthMm float64) float64 {
	switch m := op.Machine; {
	case m != nil && m.Kind == RollingMill:
		return RollSpread
	case m != nil:
		return m.Tool().Spread(widthMm) * factor(h.SpreadFactor)
	}
	return h.Tool(op.Face).over(op.Support).Spread(widthMm) * factor(h.SpreadFactor)
}

// effort is what one cell still owes an operation: effective strain by strokes on its faces
// and by strokes on edge, to which it is turned for what is narrowed. Work that bends or
// shears is of a volume, bulk.
type effort struct {
	flat, edge float64
	bulkMm3    float64
	bulk       float64 // its strain
	bulkQ      float64

	widthMm, thicknessMm   float64 // as the heat begins
	logWidth, logThickness float64 // of what they come to by its end
	logRate                float64 // of the rate of strain over ten a second
	powered                float64 // (strain/.2)^n of all that is owed
	overFrom               float64 // the share past which the strain was not measured

	stress, workMPa float64 // of the last stroke
}

// strain is all that the cell is strained by.
func (e *effort) strain() float64 { return e.flat + e.edge + e.bulk }

// owe fills what the worked cells owe, for a share of an operation that remains.
func (r *Run) owe(op *Operation, d *drive, rec *Heat, remaining float64) {
	for i := rec.First; i <= rec.Last; i++ {
		c := &r.Bar.Cells[i]
		var to *Target
		if op.Targets != nil {
			to = &op.Targets[i-op.First]
		}
		e := op.effort(d, c, to, remaining)
		e.widthMm, e.thicknessMm = c.WidthMm, c.ThicknessMm
		heightMm := c.ThicknessMm
		if all := e.flat + e.edge; all > 0 {
			heightMm = (e.flat*c.ThicknessMm + e.edge*c.WidthMm) / all
		}
		e.logRate = math.Log(math.Min(mostRatePerS, d.speedMPerS*1000/(2*heightMm)) / 10)
		if s := e.strain(); s > 0 {
			e.powered = math.Exp(r.flows[c.Steel].held.Exponent * math.Log(s/bracketStrain))
			e.overFrom = steel.MaxStrain / s
			r.outOfRange = r.outOfRange || s > steel.MaxStrain
		}
		r.work[i] = e
	}
}

// mostRatePerS is how far the law of flow is carried beyond the rates that it was measured at, 1/s.
const mostRatePerS = 1000.0

// bracketStrain is the strain that the law of flow is stated at.
const bracketStrain = 0.2

// NearlySquare is up to how wide for its thickness a bar is drawn by turns (judgement).
const NearlySquare = 1.6

// turns solves how much strain on the faces and on edge brings a section by ew in width and
// et in thickness (true strains), where strokes on the faces send the share s into width,
// and those on edge the share se into thickness: ew = s·flat − edge, et = −flat + se·edge.
// What has to be narrowed alone is struck on edge alone.
func turns(ew, et, s, se float64) (flat, edge float64) {
	edge = -(ew + s*et) / (1 - s*se)
	switch {
	case edge <= 0:
		return math.Max(math.Abs(et), math.Abs(ew)), 0
	case se*edge-et < 0:
		return 0, math.Max(math.Abs(ew), math.Abs(et))
	}
	return se*edge - et, edge
}

// effort of a cell for its target (nil where the section is kept).
func (op *Operation) effort(d *drive, c *Cell, to *Target, remaining float64) effort {
	switch op.Kind {
	case PreCurve, Correct, TangCurve, LineCurve: // bent edgewise: the outermost fibre by w/2R, half of that on the mean
		return effort{bulkMm3: c.VolumeMm3 * remaining, bulk: math.Abs(op.BendPer) * c.WidthMm / 4, bulkQ: 1}
	case Straighten, FormFlat: // bent flatwise out of its curve, or into it
		return effort{bulkMm3: c.VolumeMm3 * remaining, bulk: math.Abs(op.BendPer) * c.ThicknessMm / 4, bulkQ: 1}
	case CutOff: // sheared through half the thickness from both sides
		return effort{bulkMm3: c.WidthMm * c.ThicknessMm * c.ThicknessMm / 2 * remaining, bulk: shearShare, bulkQ: shearQ}
	}
	if to == nil {
		return effort{}
	}
	ew, et := math.Log(to.WidthMm/c.WidthMm), math.Log(to.ThicknessMm/c.ThicknessMm)
	e := effort{logWidth: ew, logThickness: et}
	if op.Kind == Upset { // struck on its end, as high as it stands free
		e.bulkMm3, e.bulk = c.VolumeMm3, EffectiveStrain(c.WidthMm, c.ThicknessMm, to.WidthMm, to.ThicknessMm)
		e.bulkQ = Redundancy(op.FreeMm, math.Sqrt(c.WidthMm*c.ThicknessMm))
		return e
	}
	if op.Kind == BreakDown && ew < 0 && c.WidthMm < NearlySquare*c.ThicknessMm { // drawn by turns: what spreads under one stroke the next has to take back
		e.flat, e.edge = turns(ew, et, d.face.Spread(c.WidthMm), d.onEdge.Spread(c.ThicknessMm))
		return e
	}
	// no more is gained one way than is struck from the other
	ew, et = math.Min(ew, math.Max(0, -et)), math.Min(et, math.Max(0, -ew))
	eff := effective(ew, et)
	if ew < 0 { // what is narrowed is struck on edge
		e.edge = eff * -ew / (-ew + math.Abs(et) + 1e-12)
	}
	e.flat = eff - e.edge
	return e
}
