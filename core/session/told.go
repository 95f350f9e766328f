package session

import (
	"math"

	"coldember/core/plan"
)

// told keeps a reading, fault, note or picture with the step that it is of: the one it names,
// that in hand while the piece is out, or the one that was done last.
func (f *folding) told(e *Event, ms int64) {
	step := f.s.Step
	if f.c.TreatAt(e.Step) >= 0 {
		f.s.Told = append(f.s.Told, Told{Event: *e, OnMs: ms, OfStep: len(f.c.Steps) - 1, OfTrip: len(f.s.Trips)})
		return
	}
	if named := f.c.StepAt(e.Step); e.Step != "" && named >= 0 {
		step = named
	} else if f.s.Phase != OutOf && step > 0 {
		step--
	}
	t := Told{Event: *e, OnMs: ms, OfStep: min(step, len(f.c.Steps)-1), OfTrip: len(f.s.Trips)}
	if t.OfStep >= 0 && t.OfStep < len(f.c.Steps) {
		t.OfHeat = f.c.Steps[t.OfStep].Heat
	}
	if r := e.Reading; e.Kind == Read && r != nil {
		if r.Hot && r.Mm > 0 {
			cold := *r
			cold.Mm, cold.ReadMm = f.c.coldOf(r, t.OfHeat), r.Mm
			r, t.Reading = &cold, &cold
		}
		if r.Quantity == Fuel {
			f.s.FuelG, f.s.FuelAtMs = r.MassG, ms
		}
		if want, ok := f.wanted(r, t.OfStep, t.OfHeat); ok {
			t.WantMm, t.Wanted, t.DifferM = want, true, r.Mm-want
			t.Within = math.Abs(t.DifferM) <= f.within(t.OfStep)
		}
	}
	f.s.Told = append(f.s.Told, t)
}

// wanted is what a reading should have been: the figure of its step where it was read there,
// else what was planned at its place.
func (f *folding) wanted(r *Reading, step, heat int) (mm float64, ok bool) {
	if step >= 0 && step < len(f.c.Steps) {
		if g := f.c.Steps[step].Goal; g != nil && Quantity(g.Measure) == r.Quantity && (g.Measure == plan.Rise || math.Abs(g.AtMm-r.AtMm) <= sameMm) {
			return g.Mm, true
		}
	}
	return f.c.PlannedMm(r.Quantity, heat, r.AtMm)
}

// sameMm is as near as a place is found again with a rule.
const sameMm = 2

// within is how near the calipers have to be at a step.
func (f *folding) within(step int) float64 {
	if step >= 0 && step < len(f.c.Steps) {
		if g := f.c.Steps[step].Goal; g != nil {
			return g.WithinMm
		}
	}
	return usualWithinMm
}

// usualWithinMm is how near calipers are of a step without a figure of its own (judgement).
const usualWithinMm = .5
