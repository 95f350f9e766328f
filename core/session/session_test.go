package session_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/session"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// began is when sessions of the tests begin.
const began = 1_700_000_000_000

func course(t testing.TB) (*session.Course, *plan.Plan) {
	req := plantest.Request()
	p, err := planner.Make(context.Background(), req)
	require.NoError(t, err)
	c := session.Freeze(&req, p, planner.TreatmentSteps(&req, p))
	require.NoError(t, c.Validate())
	return &c, p
}

// screen tells events as one device does.
type screen struct {
	name   string
	events []session.Event
	saw    string
	ms     int64
}

func (s *screen) tell(afterS float64, e session.Event) session.Event {
	s.ms += int64(afterS * 1000)
	e.Device, e.Seq, e.Saw, e.AtMs = s.name, len(s.events)+1, s.saw, s.ms
	e.ID = fmt.Sprintf("%s-%d", s.name, e.Seq)
	s.events, s.saw = append(s.events, e), e.ID
	return e
}

func (s *screen) kind(afterS float64, k session.Kind) session.Event {
	return s.tell(afterS, session.Event{Kind: k})
}

// walk goes through a whole course as planned, by what one touch makes.
func walk(t testing.TB, c *session.Course) *screen {
	s := &screen{name: "shelf", ms: began}
	for range 4 * len(c.Steps) {
		st := session.Fold(c, s.events)
		v := st.Show(c, s.ms)
		k := st.Next(c, &v)
		if k == "" {
			return s
		}
		after := 1.0
		switch v.Phase {
		case session.InFire:
			after = v.LeftS
		case session.OutOf:
			after = c.Steps[v.Step].WorkS
			if len(st.Trips[len(st.Trips)-1].Steps) == 0 {
				after += c.HeatOf(v.Step).CarryS
			}
		}
		s.kind(math.Max(.2, after), k)
	}
	t.Fatal("it never ends")
	return nil
}

func TestACourseHasEveryStepOfThePlan(t *testing.T) {
	c, p := course(t)
	assert.Equal(t, plan.LawsVersion, c.Laws)
	require.Len(t, c.Heats, len(p.Heats))
	n, blows := 0, 0.0
	for i, h := range p.Heats {
		for k, part := range h.Parts {
			s := &c.Steps[n]
			assert.Equal(t, [2]any{i + 1, part.Operation}, [2]any{s.Heat, s.Operation})
			assert.Equal(t, fmt.Sprintf("%d-%d", i+1, k+1), s.ID)
			assert.LessOrEqual(t, s.FromMm, s.ToMm)
			if s.Goal != nil {
				assert.Greater(t, s.Goal.Mm, 0.0)
				assert.Greater(t, math.Abs(s.Goal.Mm-s.Goal.FromMm), .05, "%s: a figure that the step changes", s.ID)
			}
			blows += part.Blows
			n++
		}
	}
	assert.Len(t, c.Steps, n)
	assert.InDelta(t, p.Totals.Blows, blows, float64(len(p.Heats)))
	b, err := json.Marshal(c)
	require.NoError(t, err)
	var back session.Course
	require.NoError(t, json.Unmarshal(b, &back))
	again, err := json.Marshal(back)
	require.NoError(t, err)
	assert.JSONEq(t, string(b), string(again), "it is stored as it is")
	assert.Less(t, len(b), 600_000)
}

// TestAWholeCourseIsWalked: one touch a step, two to a heat, nothing else.
func TestAWholeCourseIsWalked(t *testing.T) {
	c, p := course(t)
	s := walk(t, c)
	st := session.Fold(c, s.events)
	assert.Equal(t, session.Finished, st.Phase)
	assert.Len(t, st.Trips, len(p.Heats), "as many heats as were planned")
	assert.Len(t, st.Sittings, 1)
	assert.Equal(t, len(c.Steps)+len(c.Heats)+1, len(s.events), "one touch a step, one a heat out of the fire, one to begin")
	b := session.BookOf(c, s.events)
	assert.True(t, b.Finished)
	assert.Equal(t, len(p.Heats), b.Totals.Heats+b.Totals.Cycles)
	assert.Equal(t, p.Totals.Heats, b.Totals.PlanHeats)
	assert.InEpsilon(t, b.Totals.PlanBlows, b.Totals.Blows, .05, "by the pace of the plan")
	for _, o := range b.Operations {
		assert.True(t, o.Done, o.Operation)
		assert.InDelta(t, o.PlanHeats, o.Heats, .35, o.Operation)
	}
}

// TestTheCountdownIsTheEngines: where a heat of the engine ended by the cold, its clock ends
// within a fifth of a second of it, and on the way it is as hot as the engine said.
func TestTheCountdownIsTheEngines(t *testing.T) {
	for _, req := range []plan.Request{plantest.Request(), plantest.Slicer(plantest.Flat(40, 6, 610)), plantest.Sanity(38, 9.5)} {
		p, err := planner.Make(context.Background(), req)
		require.NoError(t, err)
		c := session.Freeze(&req, p, planner.TreatmentSteps(&req, p))
		full := 0
		s := &screen{name: "shelf", ms: began}
		for i := range p.Heats {
			h := &p.Heats[i]
			cool := c.Steps[c.Heats[i].First].Cycle
			st := session.Fold(&c, s.events)
			v := st.Show(&c, s.ms)
			s.kind(math.Max(.1, v.LeftS+1), st.Next(&c, &v))
			if v.Phase == session.Ready {
				st = session.Fold(&c, s.events)
				v = st.Show(&c, s.ms)
				s.kind(v.LeftS+1, session.Out)
			}
			st = session.Fold(&c, s.events)
			if cut := c.Steps[c.Heats[i].Last]; !cool && len(h.Parts) == 1 && math.Abs(h.EndC-cut.LowC) < .5 {
				full++
				v = st.Show(&c, s.ms)
				assert.InDelta(t, h.CarryS+h.WorkS, v.LeftS-(v.WholeS-v.LeftS), 40, "heat %d", h.Number) // the order of it
				end := crossing(h.Curve, cut.LowC+.1)
				v = st.Show(&c, s.ms+int64(1000*end))
				if part := h.Parts[0]; math.Abs(part.LimitS-(h.CarryS+h.WorkS)) < .01 {
					assert.InDelta(t, 0, v.LeftS, .2, "heat %d", h.Number)
				}
			}
			for _, m := range h.Curve {
				v = st.Show(&c, s.ms+int64(1000*m.S))
				assert.InDelta(t, m.C, v.NowC, 1, "heat %d after %.1f s", h.Number, m.S)
			}
			for range c.Heats[i].Last - c.Heats[i].First {
				s.kind(1, session.Done)
			}
			s.kind(1, session.Back)
		}
		assert.Positive(t, full)
	}
}

// crossing is when a curve comes to a temperature.
func crossing(curve []plan.Moment, c float64) float64 {
	for i := 1; i < len(curve); i++ {
		if a, b := curve[i-1], curve[i]; b.C <= c {
			if a.C == b.C {
				return b.S
			}
			return a.S + (b.S-a.S)*(a.C-c)/(a.C-b.C)
		}
	}
	return curve[len(curve)-1].S
}

// TestAColderThinnerPieceLastsLess: what came out too early, or is thinner than planned, is
// cold sooner, by the law.
func TestAColderThinnerPieceLastsLess(t *testing.T) {
	c, _ := course(t)
	begin := func(fireS float64) (*screen, session.View) {
		s := &screen{name: "shelf", ms: began}
		s.kind(0, session.In)
		s.kind(fireS, session.Out)
		st := session.Fold(c, s.events)
		return s, st.Show(c, s.ms)
	}
	_, whole := begin(600)
	_, early := begin(c.Heats[0].FireS * .6)
	assert.InDelta(t, c.Heats[0].SoakC, whole.NowC, 1)
	assert.Less(t, early.NowC, whole.NowC-20)
	assert.Less(t, early.LeftS, whole.LeftS-2)
	s, _ := begin(600)
	want, ok := c.PlannedMm("thickness", 1, 40)
	require.True(t, ok)
	s.tell(1, session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: "thickness", Mm: want * .8, AtMm: 40}})
	st := session.Fold(c, s.events)
	thin := st.Show(c, s.ms)
	assert.InDelta(t, whole.WholeS*.8, thin.WholeS, .3)
}

// TestOneTouchAHeatIsEnough: who only touches as the piece comes out is taken to have used
// each heat up.
func TestOneTouchAHeatIsEnough(t *testing.T) {
	c, p := course(t)
	s := &screen{name: "shelf", ms: began}
	for range p.Heats {
		s.kind(200, session.Out)
	}
	st := session.Fold(c, s.events)
	assert.Len(t, st.Trips, len(p.Heats))
	assert.GreaterOrEqual(t, st.Step, len(c.Steps)-3)
	for _, trip := range st.Trips[:len(st.Trips)-1] {
		assert.True(t, trip.Assumed)
		assert.Greater(t, trip.EndMs, trip.OutMs)
	}
	v := st.Show(c, s.ms+600_000)
	assert.Equal(t, session.Finished, v.Phase)
}

// TestWhatWasNotDoneIsDoneAgain: the step stays, what followed it in the heat waits, and going
// back takes it back.
func TestWhatWasNotDoneIsDoneAgain(t *testing.T) {
	c, _ := course(t)
	s := &screen{name: "shelf", ms: began}
	s.kind(0, session.In)
	s.kind(130, session.Out)
	again := s.kind(9, session.NotYet)
	st := session.Fold(c, s.events)
	assert.Equal(t, [2]any{0, session.InFire}, [2]any{st.Step, st.Phase})
	assert.True(t, st.Trips[0].Steps[0].NotYet)
	s.tell(1, session.Event{Kind: session.Undo, Undoes: again.ID})
	st = session.Fold(c, s.events)
	assert.Equal(t, session.OutOf, st.Phase, "as it was")
	assert.Equal(t, session.Out, st.UndoKind)
	undo := s.events[len(s.events)-1]
	s.tell(1, session.Event{Kind: session.Undo, Undoes: undo.ID})
	st = session.Fold(c, s.events)
	assert.Equal(t, session.InFire, st.Phase, "and what was taken back can be had again")
}

// TestABreakIsComeBackFrom: the next week it is where it was, cold, and a new sitting.
func TestABreakIsComeBackFrom(t *testing.T) {
	c, _ := course(t)
	s := &screen{name: "shelf", ms: began}
	for _, k := range []session.Kind{session.In, session.Out, session.Back, session.Out, session.Done} {
		s.kind(60, k)
	}
	s.kind(5, session.Break)
	st := session.Fold(c, s.events)
	v := st.Show(c, s.ms+7*24*3600*1000)
	assert.Equal(t, session.Away, v.Phase)
	assert.Equal(t, 2, v.Step)
	assert.InDelta(t, 20, v.NowC, 2)
	s.ms += 7 * 24 * 3600 * 1000
	s.kind(0, session.In)
	st = session.Fold(c, s.events)
	assert.Len(t, st.Sittings, 2)
	v = st.Show(c, s.ms)
	assert.InDelta(t, 20, v.NowC, 2)
	assert.Greater(t, v.LeftS, c.HeatOf(2).FireS*.8, "cold steel takes longer")
	b := session.BookOf(c, s.events)
	assert.Less(t, b.Totals.LastsS, 3600.0, "the week is no time at the fire")
}

// TestReadingsAreHeldAgainstThePlan: at the place where they were read.
func TestReadingsAreHeldAgainstThePlan(t *testing.T) {
	c, _ := course(t)
	s := walk(t, c)
	last := c.Heats[len(c.Heats)-1]
	want, ok := c.PlannedMm("height", last.Number, 60)
	require.True(t, ok)
	s.tell(5, session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: "height", Mm: want + .1, AtMm: 60}})
	s.tell(5, session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: "thickness", Mm: 9, AtMm: 60}})
	s.tell(5, session.Event{Kind: session.Read, Reading: &session.Reading{Quantity: session.Weight, MassG: c.ForgedG}})
	b := session.BookOf(c, s.events)
	require.Len(t, b.Readings, 3)
	assert.True(t, b.Readings[0].Within)
	assert.False(t, b.Readings[1].Within)
	assert.Len(t, b.Measured, 2)
	assert.InEpsilon(t, c.ForgedG, b.Totals.PlanG, .12, "the weight that the plan leaves")
}

// TestWhatCannotBeIsToldOf: another unit, a place that is none, a step of another plan.
func TestWhatCannotBeIsToldOf(t *testing.T) {
	c, _ := course(t)
	for field, e := range map[string]session.Event{
		"reading.mm":       {Kind: session.Read, Reading: &session.Reading{Quantity: "height", Mm: 2540, AtMm: 20}},
		"reading.atMm":     {Kind: session.Read, Reading: &session.Reading{Quantity: "height", Mm: 25, AtMm: 4000}},
		"reading.massG":    {Kind: session.Read, Reading: &session.Reading{Quantity: session.Weight, MassG: 9000}},
		"reading.quantity": {Kind: session.Read},
		"step":             {Kind: session.Out, Step: "99-9"},
		"kind":             {Kind: "boiled"},
		"fault.kind":       {Kind: session.Faulty, Fault: &session.Fault{Kind: "sad"}},
		"undoes":           {Kind: session.Undo},
		"text":             {Kind: session.Noted},
	} {
		e.ID, e.Device, e.Seq, e.AtMs = "a-1", "a", 1, began
		var wrong fact.FieldErrors
		require.ErrorAs(t, e.Validate(c), &wrong, field)
		assert.Equal(t, field, wrong[0].Field)
	}
	ok := session.Event{ID: "a-1", Device: "a", Seq: 1, AtMs: began, Kind: session.Read, Reading: &session.Reading{Quantity: "height", Mm: 24, AtMm: 30}}
	assert.NoError(t, ok.Validate(c))
}

// TestAClockThatIsOffOrdersNothing: two screens an hour apart tell one story, and its times are
// those of the server.
func TestAClockThatIsOffOrdersNothing(t *testing.T) {
	c, _ := course(t)
	a := &screen{name: "a", ms: began}
	b := &screen{name: "b", ms: began - 3600_000}
	a.kind(0, session.In)
	b.saw = a.saw
	b.ms += 100_000
	b.kind(0, session.Out)
	a.saw, a.ms = b.saw, began+112_000
	a.kind(0, session.Back)
	for i := range b.events {
		b.events[i].OffMs = 3600_000
	}
	events := append(append([]session.Event{}, b.events...), a.events...)
	st := session.Fold(c, events)
	require.Len(t, st.Trips, 1)
	assert.Equal(t, int64(began+100_000), st.Trips[0].OutMs)
	assert.Equal(t, int64(began+112_000), st.Trips[0].EndMs)
	require.Len(t, st.Clocks, 1)
	assert.True(t, st.Clocks[0].Wrong)
}

// TestWhatIsToldLaterBurnsNothing: the fire of a piece that is forged is out, whatever is told of it days later.
func TestWhatIsToldLaterBurnsNothing(t *testing.T) {
	c, _ := course(t)
	s := walk(t, c)
	before := session.BookOf(c, s.events).Totals
	s.kind(3*24*3600, session.Noted)
	after := session.BookOf(c, s.events)
	assert.Greater(t, after.LastMs, s.ms-1000)
	assert.InDelta(t, before.FuelG, after.Totals.FuelG, 1e-9)
	assert.Positive(t, after.Totals.FuelG)
	assert.Less(t, after.Totals.FuelG, 3*after.Totals.PlanFuelG)
}
