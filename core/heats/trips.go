package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/route"
)

// How trips between fire and anvil are filled (judgement; each with what is plausible).
const (
	leastRest    = 0.35 // of a heat is worth beginning another operation in (.15–.35)
	crumb        = 0.25 // of a heat, and no more, is worked off at the end of the trip before (.15–.25)
	fewestOfTrip = 6.0  // blows by hand are worth a trip (5–8)
	lightEnd     = 0.7  // of a heat are a hundred degrees more worth for light taps at the end of other work (.5–1)
	crumbReach   = 0.3  // of the hot length may a crumb lie beyond it: it is worked dull (.2–.4)
)

// How sharp the count is that sizes the bar: over so much of a heat, and so much of the hot length, what a
// smith decides outright goes over evenly (judgement: as little as leaves no step in the bar).
const (
	softHeat   = 0.75
	softLength = 0.25
)

// spell is one stretch of one operation as the run worked it: records i0 to i1, which come to so many
// heats and blows.
type spell struct {
	i0, i1      int
	first, last int
	heats       float64
	blows       float64
	below       float64 // of a heat that is worked off below the limit at the end of each trip
	ends        float64 // of a heat that the end of one of its heavy work is worth for light taps
	kind        forge.Kind
	soakC       float64 // its own; 0: that of all
	treats      bool    // a cycle or the hardening
	hand        bool
	bends       bool
	lone        bool // a cut or a bend, which has a trip of its own if it must
	begins      bool // anew: not taken up in the middle of its operation
}

// tally is how a spell is laid into trips.
type tally struct {
	room  float64 // of the last trip before it that it begins in
	opens float64 // trips of its own
	cost  float64 // trips that are put down to it; all of them sum to the trips
	end   int     // the spell at the end of whose last trip it is done; −1: none
	ends  float64 // of its last trip, for light taps
	heavy bool    // its last trip has had heavy work
}

// decision is how a count decides: as a smith does, or evenly over a width, as sizes the bar.
type decision bool

// The two.
const (
	sharp decision = false
	soft  decision = true
)

// yes is 1 where v is above nothing and else 0; softly it goes over from 0 to 1 within a width around nothing.
func (d decision) yes(v, width float64) float64 {
	if d == sharp {
		if v > 1e-9 {
			return 1
		}
		return 0
	}
	x := math.Max(0, math.Min(1, v/width+.5))
	return x * x * (3 - 2*x)
}

// opens is how many trips more so many heats take than those that there are; of each trip some may be worked
// off below the limit, together no more than a crumb.
func (d decision) opens(heats, below float64, there int) (n float64) {
	for m := there; ; m++ {
		over := heats - float64(m) - math.Min(crumb, below*math.Max(1, float64(m)))
		if over < -softHeat {
			return n
		}
		width := softHeat
		if m == 0 { // nothing takes no trip
			width = math.Max(2*below, softHeat/2)
			over = heats - width/2
			if d == sharp {
				over = heats - below
			}
		}
		n += d.yes(over, width)
	}
}

// spells are those of a run, in their order.
func spells(run *forge.Run, ops []*forge.Operation) (out []spell) {
	for i := range run.Heats {
		h := &run.Heats[i]
		if n := len(out); n > 0 && !out[n-1].treats && run.Heats[i-1].Operation == h.Operation && run.Heats[i-1].Pass == h.Pass {
			s := &out[n-1]
			s.i1, s.heats, s.blows = i, s.heats+h.Fraction, s.blows+h.Blows
			continue
		}
		s := spell{i0: i, i1: i, first: h.First, last: h.Last, heats: h.Fraction, blows: h.Blows, begins: h.ShareFrom == 0}
		op := find(ops, h.Operation)
		if s.treats = op == nil || op.Kind == forge.Harden; !s.treats {
			s.kind, s.soakC, s.hand = op.Kind, op.SoakC, op.Machine == nil
			s.bends = op.Targets == nil && op.BendPer != 0
			s.lone = s.bends || op.Kind == forge.CutOff || op.Strokes > 0
			s.below = belowOf(run, h, op.Kind)
			if !op.Kind.Light() {
				s.ends = lightEnd * math.Max(0, h.LowC-forge.UnderLow(run.Setup.LowC(), forge.LightUnderC)) / forge.LightUnderC
			}
		}
		out = append(out, s)
	}
	return out
}

// belowOf is how much of a heat is worked off below the limit of a record: as far as steel is still worked.
func belowOf(run *forge.Run, h *forge.Heat, k forge.Kind) float64 {
	coldest := forge.ColdestC
	if !k.Light() && !k.Gentle() {
		coldest = math.Max(coldest, run.Setup.LowC()-forge.EndUnderC)
	}
	falls := crumb * endFall * (h.StartC - h.LowC) // by what it falls meanwhile
	return crumb * math.Max(0, math.Min(1, (h.LowC-coldest)/math.Max(1e-9, falls)))
}

// endFall is how fast a piece cools at the end of a heat, over the mean of it (judgement; by the law of
// cooling .5–.7).
const endFall = 0.6

// small tells how surely a spell is not worth a trip of its own.
func (d decision) small(s *spell) float64 {
	few := 0.0
	if s.hand {
		few = d.yes(fewestOfTrip-s.blows, fewestOfTrip*softHeat)
	}
	return math.Max(few, d.yes(crumb-s.heats, crumb))
}

// counting lays the spells of a run into trips.
type counting struct {
	run     *forge.Run
	hotMm   float64
	all     []spell
	out     []tally
	decide  decision
	trued   bool     // every heat of the bevels is trued at its end
	follows *Settled // the plan whose trips are kept to; nil: none
}

func countingOf(r *route.Route, s *Settled, d decision) counting {
	return counting{run: s.Run, hotMm: r.Req.Fire.HotLengthMm, all: spells(s.Run, s.Ops), trued: r.TruedEveryHeat(), decide: d, follows: s.follows}
}

// together is how surely a spell comes to heat with one before it, as the piece is after its first record:
// all of the cells lie within the hot length, of a crumb a little beyond it. Little tells how surely what is
// done there so far is one.
func (c *counting) together(before, k, first, last int, little float64) float64 {
	a, b := &c.all[before], &c.all[k]
	if a.treats || b.treats || a.soakC != b.soakC {
		return 0
	}
	little = math.Max(little, c.decide.small(b))
	reach := forge.HotSlack + little*(crumbReach-forge.HotSlack)
	mm := 0.0
	for _, cell := range c.run.Heats[b.i0].After.Cells[first : last+1] {
		mm += cell.LengthMm()
	}
	return c.decide.yes(c.hotMm*(1+reach)-mm, softLength*c.hotMm)
}

// trip is the last one so far.
type trip struct {
	opener, last int // the spell that opened it, and that which was last in it; −1: there is none
	from, to     int // cells that were worked in it
	left, ends   float64
	heavy        bool
}

// count lays them: what is left of a trip goes to the next spell that comes to heat with it; a crumb is
// worked off in the trip before; a few taps are done at the end of heavy work that was hot there.
func (c *counting) count() []tally {
	c.out = make([]tally, len(c.all))
	now := trip{last: -1}
	for k := range c.all {
		s, t := &c.all[k], &c.out[k]
		t.end = -1
		if s.treats {
			t.opens, t.cost, now.last = 1, 1, -1
			continue
		}
		atEnd := 0.0
		switch {
		case s.kind == forge.Correct && c.trued:
			t.end, atEnd = c.bevelFor(k)
		case s.kind == forge.PreCurve || s.kind == forge.Correct:
			t.end, atEnd = c.endFor(k)
		}
		after := c.lay(k, &now, 1-atEnd)
		if atEnd > 0 {
			end, used := &c.out[t.end], atEnd*s.heats
			end.ends, end.cost, t.cost = math.Max(0, end.ends-used), end.cost-used, t.cost+used
			if now.last == t.end {
				now.ends = math.Max(0, now.ends-used)
			}
		}
		if atEnd >= .5 {
			after.opener, after.last, after.from, after.to, after.heavy = now.opener, now.last, now.from, now.to, now.heavy
		}
		after.left, after.ends = now.left*atEnd+after.left*(1-atEnd), now.ends*atEnd+after.ends*(1-atEnd)
		now = after
	}
	return c.out
}

// lay lays a share of spell k into trips, of which one is there, and answers the last then.
func (c *counting) lay(k int, now *trip, share float64) trip {
	s, t := &c.all[k], &c.out[k]
	has, goes := 0.0, 0.0
	if now.last >= 0 && s.begins {
		if has = now.left; s.kind.Light() {
			has += now.ends
		}
		little := c.decide.yes(now.left-(1-crumb), softHeat)
		goes = c.together(now.last, k, min(now.from, s.first), max(now.to, s.last), little) * c.decide.yes(has-math.Min(leastRest, s.heats)+1e-6, leastRest)
	}
	told := c.planned(s)
	if told != nil {
		goes = 0
		if told.room > 0 && has > 0 {
			goes = 1
		}
	}
	room := goes * math.Min(has, s.heats)
	rest := s.heats - room
	opens := goes*c.decide.opens(rest, s.below, 0) + (1-goes)*(1+c.decide.opens(rest, s.below, 1))
	if told != nil && rest <= told.opens+keptBlows && rest > told.opens-1+leastBlows && told.opens+goes > 0 {
		opens = told.opens
	}
	t.room, t.opens = room*share, opens*share
	t.cost = t.room + t.opens
	if now.last >= 0 {
		c.out[now.opener].cost -= t.room
	}
	anew := math.Min(1, opens)
	out := trip{opener: k, last: k, from: s.first, to: s.last, ends: s.ends, heavy: !s.kind.Light()}
	if anew < .5 {
		out.opener, out.from, out.to, out.heavy = now.opener, min(now.from, s.first), max(now.to, s.last), out.heavy || now.heavy
	}
	if s.kind.Light() && out.heavy {
		out.ends = now.ends
	}
	over := anew*(opens-rest) + (1-anew)*(now.left-s.heats)
	out.left, out.ends = math.Max(0, over), math.Max(0, out.ends+math.Min(0, over))
	t.ends, t.heavy = out.ends, out.heavy
	return out
}

// endFor is the last spell of heavy work at whose end spell k is done, and how surely.
func (c *counting) endFor(k int) (int, float64) {
	s := &c.all[k]
	if s.i0 != s.i1 || !s.begins || c.run.Heats[s.i0].ShareTo < 1 {
		return -1, 0
	}
	for j := k - 1; j >= 0; j-- {
		b := &c.all[j]
		if b.treats || !c.out[j].heavy || c.out[j].end >= 0 {
			continue
		}
		if p := c.decide.yes(c.out[j].ends-s.heats+1e-6, crumb) * c.together(j, k, min(b.first, s.first), max(b.last, s.last), 0); p > 0 {
			return j, p
		}
		if b.first <= s.last && b.last >= s.first {
			return -1, 0 // what was done there later would undo it
		}
	}
	return -1, 0
}

// bevelFor is the last spell of bevels that spell k trues, one heat after the other.
func (c *counting) bevelFor(k int) (int, float64) {
	for j := k - 1; j >= 0; j-- {
		if b := &c.all[j]; b.bevels() && b.first <= c.all[k].last && b.last >= c.all[k].first {
			return j, 1
		}
	}
	return c.endFor(k)
}

func (s *spell) bevels() bool { return s.kind.Bevels() }

// weighed is what the run counts of each heat that a spell is worked in, so that what burns off goes with
// the trips and follows the work without steps.
func (s *Settled) weighed(r *route.Route) weights {
	c := countingOf(r, s, soft)
	out := weights{}
	s.Trips = 0
	for k, t := range c.count() {
		b := &c.all[k]
		if b.treats {
			continue
		}
		s.Trips += t.cost
		h := &s.Run.Heats[b.i0]
		out[stretch{h.Operation, h.Pass}] = t.cost / b.heats
	}
	return out
}
