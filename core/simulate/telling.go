package simulate

import (
	"math"
	"strconv"

	"coldember/core/plan"
	"coldember/core/session"
)

// Wish is how a session is told.
type Wish struct {
	Device  string
	BeginMs int64
	Heats   int           // that are taken; 0: to the end
	Faults  map[int]Fault // after which heat something goes wrong
	Breaks  map[int]int64 // after which heat work is broken off, and for how long, ms
	Every   int           // calipers come out every so many heats; 0: every third
	Note    string        // said last
	Hardens bool          // and is hardened and tempered, once it is forged
}

// Fault is something that goes wrong at will.
type Fault struct {
	session.Fault
	Text string
}

// usualEvery is how often calipers come out.
const usualEvery = 3

// telling is a session on its way.
type telling struct {
	p     *Piece
	w     Wish
	out   []session.Event
	ms    int64
	step  int  // of the course, in hand
	begun bool // and something of it done
}

// Tell tells a session as a screen at the anvil would: every event with its time, the steps
// that were done, those that took another heat, readings against the plan, the weight before
// and after.
func (p *Piece) Tell(w Wish) []session.Event {
	t := &telling{p: p, w: w, ms: w.BeginMs}
	if t.w.Every <= 0 {
		t.w.Every = usualEvery
	}
	heats := len(p.was.Heats)
	if w.Heats > 0 {
		heats = min(heats, w.Heats)
	}
	t.say(session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: session.Weight, MassG: math.Round(p.course.StartG*2) / 2}})
	t.say(session.Event{Kind: session.In})
	for n := 1; n <= heats && t.step < len(p.course.Steps); n++ {
		t.heat(n)
		t.between(n, heats)
	}
	if w.Note != "" {
		t.say(session.Event{Kind: session.Noted, Text: w.Note})
	}
	if w.Hardens && t.step >= len(p.course.Steps) && len(p.course.Treatment) > 0 {
		t.treat()
	}
	if t.step < len(p.course.Steps) && w.Heats > 0 {
		t.pass(20)
		t.say(session.Event{Kind: session.Break})
	}
	return t.out
}

func (t *telling) pass(s float64) { t.ms += int64(math.Max(0, s) * 1000) }

func (t *telling) say(e session.Event) {
	e.Device, e.Seq, e.AtMs = t.w.Device, len(t.out)+1, t.ms
	e.ID = t.w.Device + "-" + strconv.Itoa(e.Seq)
	if n := len(t.out); n > 0 {
		e.Saw = t.out[n-1].ID
	}
	t.out = append(t.out, e)
}

// heat tells heat n as it really goes: which steps of the course it does, and what is left.
func (t *telling) heat(n int) {
	h, steps := &t.p.was.Heats[n-1], t.p.course.Steps
	t.pass(h.FireS)
	t.say(session.Event{Kind: session.Out})
	t.pass(h.CarryS)
	if h.Blows > 0 {
		t.say(session.Event{Kind: session.FirstBlow})
	}
	type did struct {
		step  int
		blows float64
	}
	var done []did
	owed, atS := 0.0, 0.0 // blows of the step in hand, and when the last step was done
	spent := 0.0
	for i := range h.Parts {
		part := &h.Parts[i]
		from, to := t.p.shares[n-1][i][0], t.p.shares[n-1][i][1]
		whole := to - from
		for t.step < len(steps) && steps[t.step].Operation == part.Operation && steps[t.step].ToShare <= to+shareSlack {
			k := share(steps[t.step].ToShare-from, whole)
			owed += part.Blows * k
			spent += part.WorkS * k
			from = steps[t.step].ToShare
			done = append(done, did{t.step, owed})
			t.pass(spent - atS)
			if len(done) > 1 {
				t.ended(session.Done, done[len(done)-2].step, done[len(done)-2].blows)
			}
			atS, owed = spent, 0
			t.step++
		}
		k := share(to-from, whole)
		owed += part.Blows * k
		spent += part.WorkS * k
	}
	t.begun = owed >= 1
	t.pass(spent - atS)
	if h.Blows > 0 {
		t.say(session.Event{Kind: session.LastBlow})
	}
	t.pass(1)
	switch last := len(done) - 1; {
	case last < 0:
		t.ended(session.NotYet, t.step, owed)
	case t.step >= len(steps) || steps[done[last].step].Heat != stepHeat(steps, t.step) || owed < 1:
		kind := session.Back
		if t.step >= len(steps) {
			kind = session.Done
		}
		t.ended(kind, done[last].step, done[last].blows+owed)
	default: // the next was begun in this heat, and is not done
		t.ended(session.Done, done[last].step, done[last].blows)
		t.ended(session.NotYet, t.step, owed)
	}
}

func stepHeat(steps []session.Step, i int) int {
	if i < len(steps) {
		return steps[i].Heat
	}
	return 0
}

// shareSlack is by how little a share is short of what was planned and still done.
const shareSlack = .02

func share(a, b float64) float64 {
	if b <= 0 {
		return 1
	}
	return math.Max(0, math.Min(1, a/b))
}

// ended says what became of a step, with the blows that were counted.
func (t *telling) ended(k session.Kind, step int, blows float64) {
	e := session.Event{Kind: k, Blows: int(math.Round(blows))}
	if step < len(t.p.course.Steps) {
		st := &t.p.course.Steps[step]
		e.Step = st.ID
		if st.Sides {
			e.Side = session.MarkSide
			if len(t.out)%2 == 0 {
				e.Side = session.OtherSide
			}
		}
	}
	t.say(e)
}

// between tells what is done while the piece is in the fire after heat n.
func (t *telling) between(n, of int) {
	c := &t.p.course
	if n%t.w.Every == 0 || n == of || t.step >= len(c.Steps) {
		t.measure(n)
	}
	if f, ok := t.w.Faults[n]; ok {
		fault := f.Fault
		t.pass(5)
		t.say(session.Event{Kind: session.Faulty, Fault: &fault, Text: f.Text})
	}
	if forMs, ok := t.w.Breaks[n]; ok && n < of {
		t.pass(15)
		t.say(session.Event{Kind: session.Break})
		t.ms += forMs
		t.say(session.Event{Kind: session.In})
	}
	if t.step >= len(c.Steps) {
		t.pass(600)
		t.say(session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: session.Weight, MassG: t.p.Weigh(n)}})
	}
}

// measure puts the calipers where the step that was done last has its figure, if nothing was
// struck there since; on a piece that is done, to the blade near its point, its middle and its
// heel.
func (t *telling) measure(n int) {
	c := &t.p.course
	if t.step >= len(c.Steps) {
		t.stations(n)
		return
	}
	if t.begun {
		return
	}
	for i := t.step - 1; i >= 0; i-- {
		g := c.Steps[i].Goal
		if g == nil || g.Measure == plan.Rise {
			continue
		}
		if mm, ok := t.p.Caliper(n, g.Measure, t.p.own(n, c.Steps[i].Heat, g.AtMm)); ok {
			t.pass(6)
			t.say(session.Event{Kind: session.Read, Step: c.Steps[i].ID, Reading: &session.Reading{Quantity: session.Quantity(g.Measure), Mm: mm, AtMm: math.Round(g.AtMm)}})
		}
		return
	}
}

// stations reads the blade at three places, both ways.
func (t *telling) stations(n int) {
	c := &t.p.course
	last := &c.Heats[len(c.Heats)-1]
	from, to := zone(last.Shape, plan.ZoneBlade)
	for _, share := range []float64{.15, .5, .85} {
		at := math.Round(from + share*(to-from))
		for _, m := range []plan.Measure{plan.Height, plan.Thickness} {
			if mm, ok := t.p.Caliper(n, m, t.p.own(n, last.Number, at)); ok {
				t.pass(5)
				t.say(session.Event{Kind: session.Read, Step: c.Steps[len(c.Steps)-1].ID, Reading: &session.Reading{Quantity: session.Quantity(m), Mm: mm, AtMm: at}})
			}
		}
	}
}

// zone is where a zone lies on a shape.
func zone(shape []plan.Station, name string) (from, to float64) {
	from = math.Inf(1)
	for i := range shape {
		if s := &shape[i]; s.Zone == name {
			from, to = math.Min(from, s.XMm), math.Max(to, s.XMm)
		}
	}
	return from, to
}

// own is where a place of the planned piece after one of its heats lies on the real piece after
// heat n: as far along the same zone.
func (p *Piece) own(n, heat int, atMm float64) float64 {
	planned, own := p.course.Heats[heat-1].Shape, p.was.Heats[n-1].Shape
	for _, name := range []string{plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso, plan.ZoneTang} {
		a0, a1 := zone(planned, name)
		b0, b1 := zone(own, name)
		if atMm <= a1 && a1 > a0 && b1 > b0 {
			return b0 + (b1-b0)*math.Max(0, (atMm-a0)/(a1-a0))
		}
	}
	return atMm
}
