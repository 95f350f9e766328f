package session

import (
	"math"

	"coldember/core/plan"
)

// Phase is where the piece is.
type Phase string

// The phases.
const (
	Ready    Phase = "ready" // cold, before the first heat of a sitting
	InFire   Phase = "fire"
	OutOf    Phase = "out"
	Away     Phase = "away" // work was broken off
	Finished Phase = "finished"
)

// Taken is a step as it was worked in one trip.
type Taken struct {
	Step   int    `json:"step"`
	Event  string `json:"event,omitempty" doc:"that ended it"`
	AtMs   int64  `json:"atMs"`
	Side   Side   `json:"side,omitempty"`
	Blows  int    `json:"blows,omitempty" doc:"where they were counted"`
	NotYet bool   `json:"notYet,omitempty" doc:"it was not done"`
	Past   bool   `json:"past,omitempty" doc:"it went past its figure"`
}

// Trip is one heat as it was taken. Times are nought where nothing told them.
type Trip struct {
	Number  int     `json:"number"`
	Heat    int     `json:"heat" doc:"of the course, as it began"`
	Sitting int     `json:"sitting"`
	InMs    int64   `json:"inMs,omitempty"`
	OutMs   int64   `json:"outMs"`
	FirstMs int64   `json:"firstMs,omitempty"`
	LastMs  int64   `json:"lastMs,omitempty"`
	EndMs   int64   `json:"endMs,omitempty" doc:"back in the fire, or laid down"`
	Assumed bool    `json:"assumed,omitempty" doc:"nobody said that it went back: it was taken as cold"`
	OutC    float64 `json:"outC" doc:"as hot as it came out"`
	EndC    float64 `json:"endC,omitempty"`
	Steps   []Taken `json:"steps"`
}

// Sitting is a stretch of work without a break.
type Sitting struct {
	FromMs int64 `json:"fromMs"`
	ToMs   int64 `json:"toMs,omitempty"`
	Heats  int   `json:"heats"`
}

// Told is an event that is kept as it was told: a reading, fault, note or picture, with the
// step and the heat that it belongs to.
type Told struct {
	Event
	OnMs    int64   `json:"onMs" doc:"the time, clocks set right"`
	OfStep  int     `json:"ofStep"`
	OfTrip  int     `json:"ofTrip" doc:"0: before the first"`
	OfHeat  int     `json:"ofHeat" doc:"of the course"`
	WantMm  float64 `json:"wantMm,omitempty" doc:"what was planned there"`
	Wanted  bool    `json:"wanted,omitempty"`
	Within  bool    `json:"within,omitempty" doc:"as near as it had to be"`
	DifferM float64 `json:"differMm,omitempty"`
}

// State is what a session has come to.
type State struct {
	Phase    Phase     `json:"phase" enum:"ready,fire,out,away,finished"`
	Step     int       `json:"step" doc:"in hand; as many as there are once all is done"`
	SinceMs  int64     `json:"sinceMs" doc:"when the phase began"`
	FromC    float64   `json:"fromC" doc:"how hot the piece was then"`
	Trips    []Trip    `json:"trips"`
	Sittings []Sitting `json:"sittings"`
	Told     []Told    `json:"told"`
	Clocks   []Clock   `json:"clocks"`
	Events   int       `json:"events"`
	LastID   string    `json:"lastId,omitempty" doc:"the last event, that the next has seen"`
	UndoID   string    `json:"undoId,omitempty" doc:"what would be taken back"`
	UndoKind Kind      `json:"undoKind,omitempty"`
	Sides    [2]int    `json:"sides" doc:"how often each side was worked: the mark's, the other"`
	FuelG    float64   `json:"fuelG,omitempty" doc:"left when it was last looked"`
	FuelAtMs int64     `json:"fuelAtMs,omitempty"`
	// StartedMs is when the session began, 0 before.
	StartedMs int64 `json:"startedMs,omitempty"`
}

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
	case Read, Faulty, Noted, Pictured:
		if e.Kind == Read && e.Reading == nil || e.Kind == Faulty && e.Fault == nil {
			return // says nothing
		}
		f.told(e, ms)
	}
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
			k := coolingOf(first, &Step{LimitS: first.LimitS, LowC: st.LowC}, t.OutC, s.times(c, st.Heat))
			return &k
		}
	}
	k := coolingOf(h, st, t.OutC, s.times(c, st.Heat))
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
func (s *State) times(c *Course, heat int) float64 {
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
	if k.Side == MarkSide {
		f.s.Sides[0]++
	} else if k.Side == OtherSide {
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

// told keeps a reading, fault, note or picture with the step that it is of: the one it names,
// that in hand while the piece is out, or the one that was done last.
func (f *folding) told(e *Event, ms int64) {
	step := f.s.Step
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

// seconds between two times, never below nought.
func seconds(fromMs, toMs int64) float64 { return math.Max(0, float64(toMs-fromMs)/1000) }
