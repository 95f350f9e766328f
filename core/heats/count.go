package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// leastRest is the least part of a heat worth starting another operation in.
const leastRest = 0.15

// lastBlows is what of a heat a smith does not go back to the fire for at the end of a
// stretch (judgement): it means some ten degrees below the limit.
const lastBlows = 0.1

// lightEnd is what of a heat the end of one of heavy work is still worth for light taps,
// which go on a hundred degrees further (judgement: by the law of cooling nearer 0.7).
const lightEnd = 0.7

// fire is what a heat has been used for so far.
type fire struct {
	first, last int     // cells that it worked
	left, ends  float64 // of the heat, and of its end for light taps
	heavy       bool

	rec *forge.Heat // the last that it worked
	now forge.Bar   // the piece after it, as it is drawn
}

// count lays the records of the run into heats.
func count(r *route.Route, p *plan.Plan, s *Settled, byOp map[string]*plan.Step) {
	var lit []fire
	var before *forge.Heat
	s.laid = map[stretch]fires{}
	for i := range s.Run.Heats {
		h := &s.Run.Heats[i]
		step := byOp[h.Operation]
		addTo(step, h)
		todo, from, kind := h.Fraction, h.ShareFrom, forge.Kind(step.Kind)
		if k := endFor(r, lit, h, kind); k >= 0 {
			addCooling(&p.Heats[k], h, todo, s.Run.SoakC())
			part := addPart(&p.Heats[k], h, todo, from, h.ShareTo)
			lit[k].ends -= todo
			part.FromMm, part.ToMm = extent(lit[k].now, h.First, h.Last)
			limit(&p.Heats[k], part, h, lit[k].ends)
			straightened(r, p, s, lit[k:], i)
			continue
		}
		for todo > 1e-9 {
			room, begins, like := 0.0, before == nil || before.Operation != h.Operation || before.Pass != h.Pass, s.planned(h)
			if n := len(lit); n > 0 && (goesOn(r, before, h, byOp) || begins && like.shared) {
				room = lit[n-1].left
				if kind.Light() {
					room += lit[n-1].ends
				}
				if todo < lastBlows && !begins {
					room = math.Max(room, todo)
				}
			}
			if begins {
				room = like.room(room, math.Min(leastRest, todo), len(lit))
			}
			begun := len(lit)
			if room < math.Min(leastRest, todo) || room == 0 {
				p.Heats = append(p.Heats, plan.HeatStep{Number: len(p.Heats) + 1, StartC: h.StartC, FireS: fireOf(s.Run.Heats, i, from), CarryS: h.CarryS, BrushS: h.BrushS, Slow: slowest(r, s, i)})
				lit = append(lit, fire{first: h.First, last: h.Last, left: 1})
				room = 1
			}
			cur, f := &p.Heats[len(p.Heats)-1], &lit[len(lit)-1]
			take := math.Min(room, todo)
			if todo-take < like.tail(h, len(lit)) {
				take = todo // struck a little below the limit rather than going back for it
			}
			s.lay(h, begins, begun, len(lit))
			to := from + (h.ShareTo-h.ShareFrom)*take/h.Fraction
			addCooling(cur, h, take, math.Max(s.Run.SoakC(), step.TargetC))
			part := addPart(cur, h, take, from, to)
			below := take - f.left // what is struck below the limit is past it
			if kind.Light() {
				below -= f.ends
			}
			below = math.Max(0, below)
			f.takes(h, take, kind)
			ends := f.left - below
			if kind.Light() {
				ends += f.ends
			}
			limit(cur, part, h, ends)
			was := stateAt(r, s, i, (from-h.ShareFrom)/(h.ShareTo-h.ShareFrom))
			todo, from, before = todo-take, to, h
			f.rec, f.now = h, stateAt(r, s, i, (from-h.ShareFrom)/(h.ShareTo-h.ShareFrom))
			show(r, s, cur, f.now, h)
			part.FromMm, part.ToMm = extent(f.now, h.First, h.Last)
			part.Goal = goal(r, s, cur, was, f.now, h, part.Goal)
			cur.Cold = coldest(f.now, h)
		}
	}
}

// straightened bends the pieces that are drawn after these heats as record i of the run does,
// which was done at the end of the first of them.
func straightened(r *route.Route, p *plan.Plan, s *Settled, lit []fire, i int) {
	h := &s.Run.Heats[i]
	for k := range lit {
		f := &lit[k]
		for c := h.First; c <= h.Last; c++ {
			was := 0.0
			if i > 0 {
				was = s.Run.Heats[i-1].After.Cells[c].CurvePerMm
			}
			f.now.Cells[c].CurvePerMm += h.After.Cells[c].CurvePerMm - was
		}
		show(r, s, &p.Heats[len(p.Heats)-len(lit)+k], f.now, f.rec)
	}
}

// takes notes what a record took of a heat.
func (f *fire) takes(h *forge.Heat, share float64, k forge.Kind) {
	f.first, f.last = min(f.first, h.First), max(f.last, h.Last)
	if !k.Light() && !isTreatment(string(k)) && !f.heavy {
		f.heavy, f.ends = true, lightEnd
	}
	if f.left -= share; f.left < 0 {
		f.ends, f.left = math.Max(0, f.ends+f.left), 0
	}
}

// goesOn tells whether a record may go on in the heat of the one before.
func goesOn(r *route.Route, before, h *forge.Heat, byOp map[string]*plan.Step) bool {
	was, is := byOp[before.Operation], byOp[h.Operation]
	return !isTreatment(is.Kind) && !isTreatment(was.Kind) && was.TargetC == is.TargetC && sameFire(r, before, h)
}

// endFor is the heat at whose end a stretch is straightened: the last of heavy work that was
// hot there, if its end is not used up; −1 where there is none. A smith does not go back to
// the fire for a few taps.
func endFor(r *route.Route, lit []fire, h *forge.Heat, k forge.Kind) int {
	if k != forge.PreCurve && k != forge.Correct || h.ShareFrom > 0 || h.ShareTo < 1 {
		return -1
	}
	for i := len(lit) - 1; i >= 0; i-- {
		f := &lit[i]
		if !f.heavy {
			continue
		}
		if f.ends >= h.Fraction && together(r, min(f.first, h.First), max(f.last, h.Last), h) {
			return i
		}
		if f.first <= h.Last && f.last >= h.First {
			return -1 // what was done there later would undo it
		}
	}
	return -1
}
