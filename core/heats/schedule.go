package heats

import (
	"math"
	"sort"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
)

// Schedule turns the fractional heats of the run into the heats a smith counts:
// what is left of a heat goes to the next operation if it works the same hot
// stretch. It fills the plan's operations, heats and totals.
func Schedule(r *route.Route, p *plan.Plan, s *Settled) {
	p.Operations = steps(r, s.Ops)
	byOp := map[string]*plan.Step{}
	for i := range p.Operations {
		byOp[p.Operations[i].ID] = &p.Operations[i]
	}
	lit := count(r, p, s, byOp)
	drawJoined(r, p)
	total(r, p, byOp, lit)
	p.Totals.FractionalHeats = s.Trips
	rests(r, p)
	setMachines(p, s.Ops)
	for i := range p.Operations {
		st := &p.Operations[i]
		op := find(s.Ops, st.ID)
		if op == nil {
			continue
		}
		st.Readings = targetReadings(r, op, s)
		if st.Forging != nil {
			st.Forging.EdgeRatio, st.Forging.EdgeTurns = edgewise(r, s, op)
		}
		if plan.Tooled(op.Kind) {
			st.Forging.SpreadNeeded, st.Forging.SpreadGiven = spread(r, s, op)
		}
	}
}

// show draws the piece as it is after a heat that has worked up to this record.
func show(r *route.Route, s *Settled, cur *plan.HeatStep, now forge.Bar, h *forge.Heat) {
	cur.Shape = figure.Shape(r.Cells, forge.Cell{WidthMm: r.Bar.WidthMm, ThicknessMm: r.Bar.AreaMm2 / r.Bar.WidthMm}, now)
	was := now
	if op := find(s.Ops, h.Operation); op != nil {
		was = beforeOp(r, s, op)
	}
	cur.Readings = readings(cur.Shape, r.Cells, changedCells(was.Cells, now.Cells, h.First, h.Last))
	for i := range cur.Readings {
		cur.Readings[i].WithinMm = r.Req.Smith.MarksMm()
	}
	cur.HotFrom, cur.HotTo = extent(now, h.First, h.Last)
	hotWhereBent(r, cur, h.First, h.Last)
}

// total sums the heats up, and puts down to each operation its share of the trips that it is worked in.
func total(r *route.Route, p *plan.Plan, byOp map[string]*plan.Step, lit []fire) {
	struck, told := 0.0, 0
	for i := range p.Heats {
		h := &p.Heats[i]
		for _, part := range h.Parts {
			struck += part.Blows
		}
		all := int(math.Ceil(struck - 1e-6))
		h.Blows, told = all-told, all
		h.ScaleG = h.ScaleMm3 * steel.DensityGPerCm3 / 1000
		around := h.FireS + h.CarryS + h.BrushS
		t := around + h.WorkS
		h.FuelG = r.Req.Fire.FuelG(t)
		p.Totals.FuelG += h.FuelG
		h.HotSoFar = p.Totals.TimeS + p.Totals.CycleTimeS + t
		used := 0.0
		for _, u := range lit[i].used {
			used += u.share
		}
		for _, u := range lit[i].used {
			u.step.TimeS += around * u.share / used
		}
		if kind := byOp[h.Parts[0].Operation].Kind; isTreatment(kind) {
			if kind != string(forge.Harden) {
				p.Totals.Cycles++
			}
			p.Totals.CycleTimeS += t
			continue
		}
		p.Totals.Heats++
		p.Totals.TimeS += t
		p.Totals.Blows += h.Blows
	}
}

// find is the operation with this id, or nil.
func find(ops []*forge.Operation, id string) *forge.Operation {
	for _, op := range ops {
		if op.ID == id {
			return op
		}
	}
	return nil
}

// addPart adds the part of a record that is done in a heat.
func addPart(h *plan.HeatStep, rec *forge.Heat, take, from, to float64) *plan.Part {
	k := take / rec.Fraction
	h.WorkS += rec.WorkS * k
	h.ScaleMm3 += rec.ScaleMm3 * k
	if len(h.Parts) == 0 || rec.EndC < h.EndC {
		h.EndC = rec.EndC // the heat ends as cold as its coldest part
	}
	if n := len(h.Parts); n > 0 && h.Parts[n-1].Operation == rec.Operation {
		last := &h.Parts[n-1]
		last.FromShare, last.ToShare, last.Blows = math.Min(last.FromShare, from), math.Max(last.ToShare, to), last.Blows+rec.Blows*k
		last.WorkS += rec.WorkS * k
		last.LowC = rec.LowC
		return last
	}
	h.Parts = append(h.Parts, plan.Part{Operation: rec.Operation, LowC: rec.LowC, FromShare: from, ToShare: to, Blows: rec.Blows * k, WorkS: rec.WorkS * k})
	return &h.Parts[len(h.Parts)-1]
}

// fireOf is the fire of a heat that begins at a share of record i. Where the
// record was begun in the heat before, its stretch has been hot already: what is
// left of it comes back to heat as fast as the record after it does.
func fireOf(heats []forge.Heat, i int, from float64) float64 {
	h := &heats[i]
	if from > h.ShareFrom && i+1 < len(heats) {
		if next := &heats[i+1]; next.Operation == h.Operation && next.Pass == h.Pass {
			return math.Min(h.FireS, next.FireS)
		}
	}
	return h.FireS
}

// addCooling adds the cooling of the part of a record that is taken: from the fire
// where the heat is new, and on toward the record's end where it goes on.
func addCooling(h *plan.HeatStep, rec *forge.Heat, take, soakC float64) {
	if len(rec.Curve) == 0 {
		return
	}
	lasts := rec.WorkS * take / rec.Fraction
	if len(h.Curve) == 0 {
		h.Curve = []plan.Moment{{C: soakC}}
		for _, m := range rec.Curve {
			if m[0] < lasts {
				coolTo(h, h.CarryS+m[0], m[1])
			}
		}
	}
	at := h.CarryS + h.WorkS + lasts
	end := rec.EndC
	if k := sort.Search(len(rec.Curve), func(i int) bool { return rec.Curve[i][0] >= lasts }); h.WorkS == 0 && k < len(rec.Curve) {
		end = rec.Curve[k][1]
	}
	coolTo(h, at, end)
}

func coolTo(h *plan.HeatStep, s, c float64) {
	last := h.Curve[len(h.Curve)-1]
	h.Curve = append(h.Curve, plan.Moment{S: math.Max(last.S, math.Round(s*100)/100), C: math.Min(last.C, math.Round(c))})
}

// addTo adds a record to what its step takes, but for its share of the trips.
func addTo(s *plan.Step, h *forge.Heat) {
	if s.StartC == 0 {
		s.StartC = h.StartC
	}
	if f := s.Forging; f != nil {
		f.Blows, f.EdgeBlows = f.Blows+h.Blows, f.EdgeBlows+h.EdgeBlows
		if f.LowC == 0 || h.LowC < f.LowC {
			f.LowC = h.LowC
		}
	}
	s.EndC = h.EndC
	s.TimeS += h.WorkS
	s.ScaleMm3 += h.ScaleMm3
}

// stateAt is the bar part of the way through heat i of the run.
func stateAt(r *route.Route, s *Settled, i int, part float64) forge.Bar {
	after := s.Run.Heats[i].After.Clone()
	if part >= 1-1e-9 {
		return after
	}
	for k := range after.Cells {
		from := forge.Cell{WidthMm: r.Bar.WidthMm, ThicknessMm: r.Bar.ThicknessMm, VolumeMm3: s.StartMm3[k], EdgeMm: r.Bar.ThicknessMm, SpineMm: r.Bar.ThicknessMm}
		if i > 0 {
			from = s.Run.Heats[i-1].After.Cells[k]
		}
		c := &after.Cells[k]
		mix := func(a, b float64) float64 { return a + (b-a)*part }
		c.WidthMm, c.ThicknessMm, c.VolumeMm3 = mix(from.WidthMm, c.WidthMm), mix(from.ThicknessMm, c.ThicknessMm), mix(from.VolumeMm3, c.VolumeMm3)
		c.EdgeMm, c.SpineMm = mix(from.EdgeMm, c.EdgeMm), mix(from.SpineMm, c.SpineMm)
		c.CurvePerMm, c.TwistTurns = mix(from.CurvePerMm, c.CurvePerMm), mix(from.TwistTurns, c.TwistTurns)
	}
	return after
}

// extent is where the worked cells lie on the piece as it is.
func extent(b forge.Bar, first, last int) (from, to float64) {
	x := 0.0
	for i := range b.Cells {
		if i == first {
			from = x
		}
		x += b.Cells[i].LengthMm()
		if i == last {
			to = x
		}
	}
	return from, to
}

// hotWhereBent moves the mark of a stretch that is bent to where it lies.
func hotWhereBent(r *route.Route, h *plan.HeatStep, first, last int) {
	from, to := 0, 0
	for i := range r.Cells[:last+1] {
		if to += len(r.Cells[i].Drawn); i < first {
			from = to
		}
	}
	part := h.Shape[from:to]
	low, high, bent := math.Inf(1), math.Inf(-1), false
	for i := range part {
		low, high, bent = math.Min(low, part[i].XMm), math.Max(high, part[i].XMm), bent || part[i].SpineX != nil
	}
	if bent {
		h.HotFrom, h.HotTo = low, high
	}
}
