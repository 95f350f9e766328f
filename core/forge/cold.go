package forge

import "math"

// How cold one may work, °C under the steel's lower limit (judgement: thin steel at dull
// red gives to light blows and does not crack, and smiths do so; each with what is plausible).
const (
	LightUnderC  = 100.0 // corners, straightening, planishing hardly strain (80–120)
	GentleUnderC = 100.0 // profile, bevels, false edges and points by gentle strokes (60–100)
	EndUnderC    = 60.0  // what is left of anything at the end of a trip (40–80)
	ColdestC     = 740.0 // and never under this: from here on carbon steel is no longer all austenite (720–760)
)

// A stroke of this mean strain or less is gentle; from it on to noLonger the limit comes up
// to the steel's own, so that a little more hammer is no step (judgement: .05–.07).
const (
	GentleStrain = 0.06
	noLonger     = 0.08
)

// Gentle tells whether operations of this kind may go on below the lower limit, as long as
// their strokes are gentle.
func (k Kind) Gentle() bool { return k == Profile || k == Bevel || k == FalseEdge || k == Point }

// UnderC is how far below the steel's lower limit an operation of this kind may go on, by
// the mean strain of its strokes.
func (k Kind) UnderC(strain float64) float64 {
	switch {
	case k.Light():
		return LightUnderC
	case k.Gentle():
		return GentleUnderC * math.Max(0, math.Min(1, (noLonger-strain)/(noLonger-GentleStrain)))
	}
	return 0
}

// UnderLow is so far below the lower limit as the coldest that steel is worked allows.
func UnderLow(lowC, byC float64) float64 { return math.Max(math.Min(lowC, ColdestC), lowC-byC) }

// lowOf is where a stretch of an operation stops: its own figure, or the setup's, which
// light and gentle work may go below but for a smith's own. What the stretch owes is known.
func (r *Run) lowOf(op *Operation, d *drive, rec *Heat, remaining float64) float64 {
	low, by := r.Setup.LowC(), r.Setup.Fire.StopsByC
	if op.SteelLowC > 0 {
		low = op.SteelLowC
	}
	switch {
	case op.LowC > 0:
		return op.LowC + by
	case r.Setup.Fire.StopC > 0:
		return low + by
	case !op.Kind.Gentle():
		return UnderLow(low, op.Kind.UnderC(0)) + by
	}
	return UnderLow(low, op.Kind.UnderC(r.strainOfStroke(op, d, rec, low, remaining))) + by
}

// strainOfStroke is the mean true strain that the strokes of a stretch leave under them, as
// it is worked at tempC; those that do not land well leave none.
func (r *Run) strainOfStroke(op *Operation, d *drive, rec *Heat, tempC, remaining float64) float64 {
	strained := 0.0 // times the strokes that cover it once
	patches := func(strain, volumeMm3, heightMm, breadthMm float64, t Tool) {
		strained += strain * volumeMm3 / (heightMm * t.Bears(heightMm) * math.Min(t.BreadthMm, breadthMm))
	}
	for i := rec.First; i <= rec.Last; i++ {
		e, v := &r.work[i], r.Bar.Cells[i].VolumeMm3
		patches(e.flat, v, e.thicknessMm, e.widthMm, d.face)
		patches(e.edge, v, e.widthMm, e.thicknessMm, d.onEdge)
	}
	if strained == 0 {
		return 0
	}
	strokes := math.Max(r.strokesOwedAt(tempC, d, rec)/d.lands, op.floor(rec.Pass)*remaining)
	return strained / strokes
}

// floor is the fewest strokes of a stretch, where they are known.
func (op *Operation) floor(pass int) float64 {
	if pass < len(op.Floors) {
		return op.Floors[pass]
	}
	return 0
}
