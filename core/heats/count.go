package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// fire is what a trip has been used for so far.
type fire struct {
	left, ends float64 // of the heat, and of its end for light taps; left is under nothing where it was struck below the limit
	used       []use

	rec *forge.Heat // the last that it worked
	now forge.Bar   // the piece after it, as it is drawn
}

// use is what of a trip went to an operation, on these cells.
type use struct {
	step        *plan.Step
	share       float64
	first, last int
}

// laying fills in the heats of a plan.
type laying struct {
	r    *route.Route
	p    *plan.Plan
	s    *Settled
	byOp map[string]*plan.Step
	lit  []fire // one a heat
}

// count lays the records of the run into trips, as they are taken.
func count(r *route.Route, p *plan.Plan, s *Settled, byOp map[string]*plan.Step) []fire {
	c := countingOf(r, s, sharp)
	l := laying{r: r, p: p, s: s, byOp: byOp}
	last := make([]int, len(c.all)) // trip of each spell
	s.laid = map[stretch]tally{}
	told := c.count()
	for k := range told {
		b, t := &c.all[k], &told[k]
		h := &s.Run.Heats[b.i0]
		s.laid[stretch{h.Operation, h.Pass}] = *t
		byOp[h.Operation].Heats += t.cost
		for i := b.i0; i <= b.i1; i++ {
			addTo(byOp[h.Operation], &s.Run.Heats[i])
		}
		if t.end >= 0 {
			if last[k] = last[t.end]; !c.trued || b.kind != forge.Correct || !l.trues(b) {
				l.atEnd(b, last[k], 0, 1)
			}
			continue
		}
		takes := t.takes(b, c.goesOn(k))
		l.spell(b, takes, t.room > 0)
		last[k] = len(l.lit) - 1
	}
	return l.lit
}

// goesOn tells whether the spell after spell k begins in its last trip.
func (c *counting) goesOn(k int) bool {
	for next := k + 1; next < len(c.out); next++ {
		if c.out[next].end < 0 {
			return c.out[next].room > 0
		}
	}
	return false
}

// takes is how much of each trip a spell takes; the first is the one before it where it has room there.
// Where too few blows are left for the last, and nothing else is done in it, they are shared with the
// one before.
func (t *tally) takes(b *spell, goesOn bool) (out []float64) {
	n := int(math.Round(t.opens))
	if n == 0 { // a crumb of it is worked off there too
		return []float64{b.heats}
	}
	if t.room > 0 {
		out = append(out, t.room)
	}
	rest := b.heats - t.room
	for i := range n {
		take := math.Max(1, rest/float64(n)) // what is worked off below the limit is shared by all
		if i == n-1 {
			take = rest - float64(i)*take
		}
		out = append(out, take)
	}
	if m := len(out); n > 1 && b.hand && !goesOn && out[m-1]*b.blows/b.heats < fewestOfTrip {
		both := (out[m-1] + out[m-2]) / 2
		out[m-1], out[m-2] = both, both
	}
	return out
}

// spell lays a spell into trips by how much of each it takes.
func (l *laying) spell(b *spell, takes []float64, goesOn bool) {
	if !goesOn {
		l.open(b.i0, l.s.Run.Heats[b.i0].ShareFrom)
	}
	room := takes[0]
	for i := b.i0; i <= b.i1; i++ {
		h := &l.s.Run.Heats[i]
		from, left := h.ShareFrom, h.Fraction
		for left > 1e-9 {
			if room < 1e-9 && len(takes) > 1 {
				takes = takes[1:]
				room = takes[0]
				l.open(i, from)
			}
			take := left
			if len(takes) > 1 {
				take = math.Min(room, left)
			}
			to := from + (h.ShareTo-h.ShareFrom)*take/h.Fraction
			l.part(b, i, take, from, to)
			from, left, room = to, left-take, room-take
		}
	}
}

// open begins a trip with record i at a share of its operation's stretch.
func (l *laying) open(i int, from float64) {
	h := &l.s.Run.Heats[i]
	l.p.Heats = append(l.p.Heats, plan.HeatStep{Number: len(l.p.Heats) + 1, StartC: h.StartC, FireS: fireOf(l.s.Run.Heats, i, from), CarryS: h.CarryS, BrushS: h.BrushS, Slow: slowest(l.r, l.s, i)})
	l.lit = append(l.lit, fire{left: 1})
}

// part does what of record i of a spell is taken of the last trip.
func (l *laying) part(b *spell, i int, take, from, to float64) {
	h := &l.s.Run.Heats[i]
	step := l.byOp[h.Operation]
	cur, f := &l.p.Heats[len(l.p.Heats)-1], &l.lit[len(l.lit)-1]
	addCooling(cur, h, take, math.Max(l.s.Run.SoakC(), step.TargetC))
	part := addPart(cur, h, take, from, to)
	f.takes(b, h, take, step)
	left := f.left
	if forge.Kind(step.Kind).Light() {
		left += f.ends
	} else if left < 0 {
		cur.EndC = math.Min(cur.EndC, colder(h, -left))
		if n := len(cur.Curve); n > 0 {
			cur.Curve[n-1].C = math.Min(cur.Curve[n-1].C, math.Round(cur.EndC))
		}
	}
	limit(cur, part, h, left)
	was := stateAt(l.r, l.s, i, (from-h.ShareFrom)/(h.ShareTo-h.ShareFrom))
	f.rec, f.now = h, stateAt(l.r, l.s, i, (to-h.ShareFrom)/(h.ShareTo-h.ShareFrom))
	show(l.r, l.s, cur, f.now, h)
	part.FromMm, part.ToMm = extent(f.now, h.First, h.Last)
	part.Goal = goal(l.r, l.s, cur, was, f.now, h, part.Goal)
	cur.Cold = coldest(f.now, h)
}

// atEnd does a share of a spell at the end of a trip.
func (l *laying) atEnd(b *spell, trip int, from, to float64) {
	cur, f := &l.p.Heats[trip], &l.lit[trip]
	done := 0.0 // heats of the records before
	for i := b.i0; i <= b.i1; i++ {
		h := &l.s.Run.Heats[i]
		begin, end := math.Max(0, from*b.heats-done), math.Min(h.Fraction, to*b.heats-done)
		done += h.Fraction
		take := end - begin
		if take <= 0 {
			continue
		}
		addCooling(cur, h, take, l.s.Run.SoakC())
		span := (h.ShareTo - h.ShareFrom) / h.Fraction
		part := addPart(cur, h, take, h.ShareFrom+begin*span, h.ShareFrom+end*span)
		f.ends -= take
		f.used = append(f.used, use{l.byOp[h.Operation], take, h.First, h.Last})
		part.FromMm, part.ToMm = extent(f.now, h.First, h.Last)
		limit(cur, part, h, math.Max(0, f.ends))
	}
	if to == 1 {
		for i := b.i0; i <= b.i1; i++ {
			l.straightened(i, trip)
		}
	}
}

// trues does a correction at the ends of the trips in which its cells were bevelled, as much at each as
// was bevelled there; false where there is none.
func (l *laying) trues(b *spell) bool {
	var trips []int
	var shares []float64
	all := 0.0
	for k := range l.lit {
		s := 0.0
		for _, u := range l.lit[k].used {
			if forge.Kind(u.step.Kind).Bevels() && u.first <= b.last && u.last >= b.first {
				s += u.share
			}
		}
		if s > 0 {
			trips, shares, all = append(trips, k), append(shares, s), all+s
		}
	}
	from := 0.0
	for i, k := range trips {
		to := from + shares[i]/all
		if i == len(trips)-1 {
			to = 1
		}
		l.atEnd(b, k, from, to)
		from = to
	}
	return len(trips) > 0
}

// straightened bends the pieces that are drawn after a trip and those after it as record i of the run
// does, which was done at its end.
func (l *laying) straightened(i, trip int) {
	h := &l.s.Run.Heats[i]
	for k := trip; k < len(l.lit); k++ {
		f := &l.lit[k]
		for c := h.First; c <= h.Last; c++ {
			was := 0.0
			if i > 0 {
				was = l.s.Run.Heats[i-1].After.Cells[c].CurvePerMm
			}
			f.now.Cells[c].CurvePerMm += h.After.Cells[c].CurvePerMm - was
		}
		show(l.r, l.s, &l.p.Heats[k], f.now, f.rec)
	}
}

// takes notes what a record took of a trip.
func (f *fire) takes(b *spell, h *forge.Heat, share float64, step *plan.Step) {
	if n := len(f.used); n > 0 && f.used[n-1].step == step && f.used[n-1].first == h.First {
		f.used[n-1].share += share
	} else {
		f.used = append(f.used, use{step, share, h.First, h.Last})
	}
	if !b.kind.Light() && !b.treats {
		f.ends = b.ends
	}
	f.left -= share
	if b.kind.Light() && f.left < 0 {
		f.ends, f.left = math.Max(0, f.ends+f.left), 0
	}
}

// colder is how cold the coldest spot is at the end of a trip that went on for so much of a heat below
// the limit, by how it cooled last.
func colder(h *forge.Heat, over float64) float64 {
	n := len(h.Curve)
	if n < 2 {
		return h.LowC
	}
	a, b := h.Curve[n-2], h.Curve[n-1]
	perS := math.Max(0, a[1]-b[1]) / math.Max(1e-9, b[0]-a[0])
	return h.LowC - perS*over*h.WorkS/h.Fraction
}
