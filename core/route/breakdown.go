package route

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
)

// The break-down of what is not a thin flat already.
const (
	needsBreakDown = 2.2  // times the thickest part of the piece: a thicker flat is drawn down first
	widerThanBlade = 1.1  // times the highest zone that it becomes: the flat is no wider
	squareOver     = 1.05 // a square is drawn to another only where that is so much less
	squareRounds   = 6    // to a square and its own spread
)

// breakDown draws a thick or unflat bar down to a flat first; it returns the section
// that the blade is then drawn from. A lump goes by turns to the square that spreads to
// the flat that is wanted, so that nothing is made wide only to be narrowed on edge; from
// there each zone is flattened to what it needs.
func (r *Route) breakDown(l *list) (widthMm, thicknessMm float64) {
	w, t := r.Bar.WidthMm, r.Bar.ThicknessMm
	if r.Req.SawnOut() {
		return w, t
	}
	if r.isFlat() && t <= needsBreakDown*r.thickest(plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso, plan.ZoneTang) && r.Req.Sizing.FirstThicknessMm == 0 {
		return w, t
	}
	_, end := r.span(plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso)
	blade := r.flat(w, t, plan.ZonePoint, plan.ZoneBlade)
	if blade == nil {
		return w, t
	}
	if side, ok := r.square(w, t); ok {
		r.Square = side
		_, all := r.ofTheBar(plan.ZoneTang)
		l.add(forge.BreakDown, forge.PeenAcross, 0, max(end, all), squared)
		w, t = side, side
		blade = r.flat(w, t, plan.ZonePoint, plan.ZoneBlade)
	}
	r.Flat = make([]forge.Target, len(r.Cells))
	for i := range r.Cells[:end+1] {
		r.Flat[i] = *blade
		if r.Cells[i].Zone == plan.ZoneRicasso {
			if own := r.flat(w, t, plan.ZoneRicasso); own != nil {
				r.Flat[i] = *own
			}
		}
	}
	l.draw(forge.BreakDown, 0, end, blade.WidthMm, blade.ThicknessMm, flattened)
	return blade.WidthMm, blade.ThicknessMm
}

// square is the side of the square that spreads by itself to the blade's flat, where it is
// enough less than a lump of w × t.
func (r *Route) square(w, t float64) (side float64, ok bool) {
	op := r.downOp()
	if m := op.Machine; w > forge.NearlySquare*t || m != nil && m.Kind == forge.RollingMill || r.Req.Sizing.FirstWidthMm > 0 {
		return 0, false
	}
	thick, highest := r.Req.Sizing.FirstThicknessMm, r.most(func(t forge.Target) float64 { return t.WidthMm }, []string{plan.ZonePoint, plan.ZoneBlade})
	if thick == 0 {
		thick = r.thickest(plan.ZonePoint, plan.ZoneBlade)
	}
	side = math.Sqrt(w * t)
	for range squareRounds {
		s := r.Req.Smith.SpreadOf(op, side)
		side = math.Pow(highest*math.Pow(thick, s), 1/(1+s))
	}
	return side, side*squareOver < math.Sqrt(w*t) && side > thick
}

// downOp is a break-down as the planner has it worked.
func (r *Route) downOp() *forge.Operation {
	op := &forge.Operation{Kind: forge.BreakDown, Face: forge.PeenAcross}
	if m := r.Req.Smith.Machine; m.Does(op.Kind) {
		op.Machine = m
	}
	return op
}

// thickest of these zones before bevels.
func (r *Route) thickest(zones ...string) (mm float64) {
	return r.most(func(t forge.Target) float64 { return t.ThicknessMm }, zones)
}

func (r *Route) most(of func(forge.Target) float64, zones []string) (v float64) {
	for _, c := range r.Cells {
		for _, z := range zones {
			if c.Zone == z {
				v = math.Max(v, of(c.Preform))
			}
		}
	}
	return v
}

// flat is what these zones are first drawn to from w × t: as thick as their thickest part,
// and as wide as the faces make it that suit the highest, but no wider than a tenth over
// it; nil where they are as thick already. A flat of the smith's own comes before that.
func (r *Route) flat(w, t float64, zones ...string) *forge.Target {
	thick := r.thickest(zones...)
	if own := r.Req.Sizing.FirstThicknessMm; own > 0 {
		thick = own
	}
	if thick >= t {
		return nil
	}
	wide := r.Req.Sizing.FirstWidthMm
	if wide == 0 {
		highest, strain := r.most(func(t forge.Target) float64 { return t.WidthMm }, zones), math.Log(t/thick)
		op := r.downOp()
		s := r.Req.Smith.SpreadOf(op, w)
		if m := op.Machine; m == nil || m.Kind != forge.RollingMill {
			s = math.Max(s, math.Min(r.Req.Smith.MostSpread(forge.PinchOut, w), math.Log(highest/w)/strain))
		}
		wide = w * math.Exp(s*strain)
		if m := op.Machine; m == nil || m.Kind != forge.RollingMill { // rolls cannot narrow
			wide = math.Min(wide, math.Max(highest*widerThanBlade, thick))
		}
	}
	return &forge.Target{WidthMm: wide, ThicknessMm: thick, EdgeMm: thick, SpineMm: thick}
}

// isFlat tells whether the piece comes as a flat already.
func (r *Route) isFlat() bool {
	switch r.Req.Bar.Form {
	case stock.Flat, stock.Leaf, stock.TaperedFlat, stock.Disc, stock.Race, stock.Layers:
		return true
	}
	return false
}
