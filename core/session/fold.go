package session

import (
	"math"

	"coldember/core/plan"
)

// Fold walks a course with a set of events, in any order of arrival.
func Fold(c *Course, events []Event) State {
	ordered := Order(events)
	off := clocks(ordered)
	live, undo := standing(ordered)
	f := folding{c: c, s: State{Phase: Ready, FromC: roomC, Trips: []Trip{}, Sittings: []Sitting{}, Told: []Told{}, Clocks: clockList(off), Events: len(ordered)}}
	if n := len(ordered); n > 0 {
		f.s.LastID = ordered[n-1].ID
	}
	if undo >= 0 {
		f.s.UndoID, f.s.UndoKind = ordered[undo].ID, ordered[undo].Kind
	}
	for i := range ordered {
		if live[i] {
			f.take(&ordered[i], ordered[i].AtMs+off[ordered[i].Device])
		}
	}
	return f.s
}

// roomC is how warm a cold piece is.
const roomC = 20

// standing tells which events stand, those taken back and the taking back itself left out,
// and which of them would be taken back next (−1: none).
func standing(ordered []Event) (live []bool, last int) {
	at := make(map[string]int, len(ordered))
	for i := range ordered {
		at[ordered[i].ID] = i
	}
	live, last = make([]bool, len(ordered)), -1
	back := make([]bool, len(ordered))
	for i := len(ordered) - 1; i >= 0; i-- {
		e := &ordered[i]
		if back[i] {
			continue
		}
		if e.Kind != Undo {
			live[i] = true
			if last < 0 {
				last = i
			}
			continue
		}
		if j, ok := at[e.Undoes]; ok && j < i {
			back[j] = true
		}
	}
	return live, last
}

type folding struct {
	c *Course
	s State
}

// trip is the heat in hand, or nil.
func (f *folding) trip() *Trip {
	if n := len(f.s.Trips); n > 0 {
		return &f.s.Trips[n-1]
	}
	return nil
}

func (f *folding) take(e *Event, ms int64) {
	if f.s.StartedMs == 0 {
		f.s.StartedMs = ms
	}
	switch e.Kind {
	case In:
		f.laidDown(ms, true)
		f.enter(InFire, ms)
	case Out:
		f.laidDown(ms, true)
		f.out(ms)
	case FirstBlow, LastBlow:
		f.blow(e.Kind, ms)
	case Done, Past:
		f.done(e, ms)
	case Back:
		f.back(e, ms)
	case NotYet:
		f.notYet(e, ms)
	case Break:
		f.laidDown(ms, false)
		f.enter(Away, ms)
		if n := len(f.s.Sittings); n > 0 {
			f.s.Sittings[n-1].ToMs = ms
		}
	case Resume:
		if f.s.Phase == Away || f.s.Phase == Ready {
			f.enter(Ready, ms)
			f.sit(ms)
		}
	case ToHarden:
		f.toHarden(ms)
	case Treated:
		f.treated(e, ms)
	case Completed:
		if e.Final == nil || !e.Final.OnlyTimes() {
			f.laidDown(ms, false)
			f.s.CompletedMs = ms
		}
		f.told(e, ms)
	case Read, Faulty, Noted, Pictured, Saw:
		if !e.saysNothing() {
			f.told(e, ms)
		}
	}
}

// saysNothing tells whether what an event was to tell is missing.
func (e *Event) saysNothing() bool {
	switch e.Kind {
	case Read:
		return e.Reading == nil
	case Faulty:
		return e.Fault == nil
	case Saw:
		return e.Seen.nothing() && e.Text == "" && e.Picture == ""
	}
	return false
}

// enter begins a phase; the piece is as hot as it then is. A course that is done stays so.
func (f *folding) enter(p Phase, ms int64) {
	f.s.FromC = f.tempC(ms)
	if f.s.Step >= len(f.c.Steps) && p != Away {
		p = Finished
	}
	if p == InFire || p == OutOf {
		f.sit(ms)
	}
	f.s.Phase, f.s.SinceMs = p, ms
}

// sit begins a sitting where none goes on.
func (f *folding) sit(ms int64) {
	if n := len(f.s.Sittings); n == 0 || f.s.Sittings[n-1].ToMs != 0 {
		f.s.Sittings = append(f.s.Sittings, Sitting{FromMs: ms})
	}
}

// tempC is how hot the piece is at a time.
func (f *folding) tempC(ms int64) float64 {
	s := seconds(f.s.SinceMs, ms)
	h := f.c.HeatOf(f.s.Step)
	switch f.s.Phase {
	case InFire:
		if h == nil {
			return f.s.FromC
		}
		return f.c.heated(h, f.s.FromC, s)
	case OutOf:
		if t := f.trip(); t != nil {
			return f.cooling().atC(s)
		}
	case Ready, Away, Finished:
		if h != nil {
			return lyingC(h.Slow, f.s.FromC, s)
		}
	}
	return f.s.FromC
}

// cooling is of the heat in hand.
func (f *folding) cooling() *cooling { return f.s.cooling(f.c) }

func (s *State) cooling(c *Course) *cooling {
	step := min(s.Step, len(c.Steps)-1)
	t := &s.Trips[len(s.Trips)-1]
	h := c.HeatOf(step)
	st := &c.Steps[step]
	if t.Heat != h.Number { // it goes on in a heat that was begun for an earlier step
		if first := c.heat(t.Heat); first != nil {
			k := coolingOf(first, &Step{LimitS: first.LimitS, LowC: st.LowC}, t.OutC, s.times(st.Heat))
			return &k
		}
	}
	k := coolingOf(h, st, t.OutC, s.times(st.Heat))
	return &k
}

// lastsS is how long the heat in hand lasts for all that is still to be done in it: light taps
// go on when it is too cold for heavy work.
func (s *State) lastsS(c *Course) float64 {
	k := s.cooling(c)
	for i := s.Step; i < len(c.Steps) && c.Steps[i].Heat == c.Steps[min(s.Step, len(c.Steps)-1)].Heat; i++ {
		k.limitS = math.Max(k.limitS, c.Steps[i].LimitS)
	}
	return k.wholeS()
}

// times is how much slower the piece cools than was planned: as it was last measured near
// where it goes cold, against what was planned there.
func (s *State) times(heat int) float64 {
	for i := len(s.Told) - 1; i >= 0; i-- {
		r := &s.Told[i]
		if r.Kind != Read || r.Reading == nil || r.Reading.Quantity != Quantity(plan.Thickness) || !r.Wanted || r.OfHeat < heat-lastsHeats || r.WantMm <= 0 {
			continue
		}
		return math.Max(leastTimes, math.Min(1/leastTimes, r.Reading.Mm/r.WantMm))
	}
	return 1
}

// A thickness that was read tells of so many heats to come, and changes the time by no more
// than to so much (beyond, it was read of another place).
const (
	lastsHeats = 3
	leastTimes = .5
)

// laidDown ends a heat of which nobody said that it ended: by an event that cannot come
// within one.
func (f *folding) laidDown(ms int64, assumed bool) {
	t := f.trip()
	if f.s.Phase != OutOf || t == nil || t.EndMs != 0 {
		return
	}
	end := ms
	if assumed {
		// all of the heat was used, and no more than that: nobody strikes cold steel on
		if lasts := f.s.SinceMs + int64(f.s.lastsS(f.c)*1000); lasts < end {
			end = lasts
		}
		t.Assumed = true
		for heat := t.heatInHand(f); f.s.Step < len(f.c.Steps) && f.c.Steps[f.s.Step].Heat == heat; {
			f.step(Taken{Step: f.s.Step, AtMs: end})
		}
	}
	f.end(end)
}

// heatInHand is the heat of the course that the step in hand belongs to.
func (t *Trip) heatInHand(f *folding) int {
	if f.s.Step < len(f.c.Steps) {
		return f.c.Steps[f.s.Step].Heat
	}
	return t.Heat
}

// end ends the heat in hand.
func (f *folding) end(ms int64) {
	t := f.trip()
	if t == nil || t.EndMs != 0 {
		return
	}
	was := f.s.Step
	f.s.Step = min(was, len(f.c.Steps)-1)
	t.EndC = f.tempC(ms)
	f.s.Step = was
	t.EndMs = ms
	f.s.FromC, f.s.SinceMs = t.EndC, ms
	if f.s.Phase == OutOf {
		f.s.Phase = InFire
	}
}

func (f *folding) out(ms int64) {
	if f.s.Phase == Finished || f.s.Step >= len(f.c.Steps) {
		return
	}
	h := f.c.HeatOf(f.s.Step)
	t := Trip{Number: len(f.s.Trips) + 1, Heat: h.Number, OutMs: ms, OutC: h.SoakC, Steps: []Taken{}}
	if f.s.Phase == InFire {
		t.InMs = f.s.SinceMs
		t.OutC = f.tempC(ms)
	}
	f.sit(ms)
	t.Sitting = len(f.s.Sittings)
	f.s.Sittings[t.Sitting-1].Heats++
	f.s.Trips = append(f.s.Trips, t)
	f.s.Phase, f.s.SinceMs, f.s.FromC = OutOf, ms, t.OutC
}

func (f *folding) blow(k Kind, ms int64) {
	t := f.trip()
	if f.s.Phase != OutOf || t == nil {
		return
	}
	if k == LastBlow {
		t.LastMs = ms
	} else if t.FirstMs == 0 {
		t.FirstMs = ms
	}
}

// step notes that the step in hand was worked, and goes on to the next unless it is not done.
func (f *folding) step(k Taken) {
	if t := f.trip(); t != nil {
		t.Steps = append(t.Steps, k)
	}
	switch k.Side {
	case MarkSide:
		f.s.Sides[0]++
	case OtherSide:
		f.s.Sides[1]++
	}
	if !k.NotYet {
		f.s.Step++
	}
}

func (f *folding) done(e *Event, ms int64) {
	if f.s.Step >= len(f.c.Steps) || e.Step != "" && e.Step != f.c.Steps[f.s.Step].ID {
		return // it was said of a step that is done already, on another screen
	}
	f.step(Taken{Step: f.s.Step, Event: e.ID, AtMs: ms, Side: e.Side, Blows: e.Blows, Past: e.Kind == Past})
	if f.s.Step >= len(f.c.Steps) {
		f.end(ms)
		f.enter(Finished, ms)
	}
}

func (f *folding) back(e *Event, ms int64) {
	if f.s.Phase != OutOf {
		if f.s.Phase == Ready || f.s.Phase == Away {
			f.enter(InFire, ms)
		}
		return
	}
	at := f.s.Step
	if at < len(f.c.Steps) && (e.Step == "" || e.Step == f.c.Steps[at].ID) {
		k := Taken{Step: at, Event: e.ID, AtMs: ms, Side: e.Side, Blows: e.Blows}
		f.step(k)
	}
	f.end(ms)
	f.enter(InFire, ms)
}

func (f *folding) notYet(e *Event, ms int64) {
	if f.s.Phase != OutOf {
		return
	}
	if at := f.s.Step; at < len(f.c.Steps) && (e.Step == "" || e.Step == f.c.Steps[at].ID) {
		f.step(Taken{Step: at, Event: e.ID, AtMs: ms, Side: e.Side, Blows: e.Blows, NotYet: true})
	}
	f.end(ms)
	f.enter(InFire, ms)
}

// seconds between two times, never below nought.
func seconds(fromMs, toMs int64) float64 { return math.Max(0, float64(toMs-fromMs)/1000) }
