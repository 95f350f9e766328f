package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/thermal"
)

// limit sets when a part of a heat, and with it the heat, is too cold to go on: what is left
// of the heat is worth as many seconds as it would last at this work; less than nothing is left where its last blows
// are struck below the limit.
func limit(h *plan.HeatStep, part *plan.Part, rec *forge.Heat, left float64) {
	part.LimitS = h.CarryS + h.WorkS + left*rec.WorkS/rec.Fraction
	h.LimitS = math.Max(h.LimitS, part.LimitS)
}

// slowest is the worked spot that record i waits for in the fire, as it goes in.
func slowest(r *route.Route, s *Settled, i int) plan.Slab {
	rec := &s.Run.Heats[i]
	was := startBar(r, s.StartMm3)
	if i > 0 {
		was = s.Run.Heats[i-1].Next
		if len(was.Cells) == 0 {
			was = s.Run.Heats[i-1].After
		}
	}
	return spot(was, rec, func(c *forge.Cell) float64 { return c.WidthMm * c.ThicknessMm / (c.WidthMm + c.ThicknessMm) })
}

// coldest is the worked spot that is thinnest for its surface after a record.
func coldest(now forge.Bar, rec *forge.Heat) plan.Slab {
	return spot(now, rec, func(c *forge.Cell) float64 { return -c.WidthMm * c.ThicknessMm / (c.WidthMm + c.ThicknessMm) })
}

// spot is the worked cell with the most of something.
func spot(b forge.Bar, rec *forge.Heat, of func(*forge.Cell) float64) plan.Slab {
	best, most := &b.Cells[rec.First], math.Inf(-1)
	for i := rec.First; i <= rec.Last; i++ {
		if v := of(&b.Cells[i]); v > most {
			best, most = &b.Cells[i], v
		}
	}
	return plan.Slab{WidthMm: best.WidthMm, ThicknessMm: best.ThicknessMm, FromC: best.TempC}
}

// toldMm is the least change that is a figure to aim for at the anvil (judgement).
const toldMm = 0.1

// goal is the figure that a record changes most in this heat, at the middle of what it
// changes; what the same step of the heat was to reach before is was. There is none where
// no caliper tells the change.
func goal(r *route.Route, s *Settled, h *plan.HeatStep, begun, now forge.Bar, rec *forge.Heat, was *plan.Goal) *plan.Goal {
	best, most, at := plan.Height, leastChange, -1
	if op := find(s.Ops, rec.Operation); op == nil {
		return nil // a cycle changes nothing on purpose
	} else if rise := r.PreCurveMm(); op.Kind == forge.PreCurve && rise > toldMm {
		return &plan.Goal{Measure: plan.Rise, Mm: rise, Zone: plan.ZonePoint, WithinMm: r.Req.Smith.MarksMm()}
	}
	for i := rec.First; i <= rec.Last; i++ {
		a, b := &begun.Cells[i], &now.Cells[i]
		for _, m := range []struct {
			is       plan.Measure
			from, to float64
		}{{plan.Height, a.WidthMm, b.WidthMm}, {plan.Thickness, a.SpineMm, b.SpineMm}, {plan.EdgeThickness, a.EdgeMm, b.EdgeMm}} {
			if d := math.Abs(math.Log(m.to / m.from)); math.Abs(m.to-m.from) > toldMm && d > most*1.02 { // of equals the first
				best, most, at = m.is, d, i
			}
		}
	}
	if at < 0 {
		return was
	}
	begins := 0 // of the cell's stations
	for i := range at {
		begins += len(r.Cells[i].Drawn)
	}
	st := &h.Shape[(begins+begins+len(r.Cells[at].Drawn)-1)/2]
	a := &begun.Cells[at]
	g := &plan.Goal{Measure: best, AtMm: st.XMm, Zone: st.Zone, WithinMm: r.Req.Smith.MarksMm()}
	switch best { // what is reached is what the calipers say of the piece as it is drawn
	case plan.Height:
		g.FromMm, g.Mm = a.WidthMm, st.HeightMm()
	case plan.Thickness:
		g.FromMm, g.Mm = a.SpineMm, st.ThicknessMm
	case plan.EdgeThickness:
		if g.FromMm, g.Mm = a.EdgeMm, st.EdgeMm; g.Mm == 0 {
			g.Mm = st.ThicknessMm
		}
	}
	if was != nil && was.Measure == g.Measure {
		g.FromMm = was.FromMm
	}
	g.HotMm, g.FromHotMm, g.AtHotMm = thermal.Hot(g.Mm, st.TempC), thermal.Hot(g.FromMm, st.TempC), plan.HotX(h.Shape, g.AtMm)
	return g
}
