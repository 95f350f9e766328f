package learn

import (
	"fmt"
	"math"
	"slices"
	"sort"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/session"
)

// Worked is a piece in the book.
type Worked struct {
	Session string // its id
	Name    string // of the piece
	Smith   string
	Course  *session.Course
	Book    *session.Book
	Request *plan.Request
}

// Record is what one piece says of one kind: what was over what the laws alone had planned. Where it does
// not count, Why is a code that says why not.
type Record struct {
	Session string  `json:"session"`
	Piece   string  `json:"piece"`
	Of      string  `json:"of" doc:"the smith, or of the forge its figures"`
	Kind    Kind    `json:"kind" enum:"blow,scale,spread,bend,heats,time,loss,grind,sand,fit"`
	AtMs    int64   `json:"atMs"`
	Ratio   float64 `json:"ratio"`
	Counts  bool    `json:"counts"`
	Why     string  `json:"why,omitempty"`
	Asked   bool    `json:"asked,omitempty" doc:"somebody said whether it counts"`
}

// What a record is to have at the least (judgement).
const (
	leastBlows   = 60   // that were counted
	leastLostG   = 4.0  // of scale, or the scale's half gram decides
	leastThin    = .2   // true strain in thickness
	leastGain    = .05  // and in width
	leastRiseMm  = 1.0  // of sweep
	mostRatio    = 5.   // farther off something else went on, whatever else says so
	leastPaceMin = 10.  // of steps at the bench: a single short one tells of nothing
	mostStopped  = 5    // heats whose stop is told
	nearMm       = 2.0  // of each other height and thickness are of one place
	leastTrips   = 6    // for how an arm falls off
	knownFrom    = 2    // pieces, from which an arm is known
	leastShare   = .6   // of the blows of heavy work
	graved       = 1e-9 // less than nothing was planned
)

// ForgeOf names a forge by its figures.
func ForgeOf(f forge.Fire) string {
	return fmt.Sprintf("%.0f °C / %.2f / %.0f mm", f.TempC, f.Atmosphere, f.HotLengthMm)
}

// Records are what a piece says, one a kind that it says anything of; those that do not count are told with why.
func Records(w Worked) []Record {
	t := telling{w: &w, used: w.Request.Used(), out: []Record{}}
	if t.used == nil {
		t.used = &plan.Learned{}
	}
	if len(w.Book.Faults) > 0 {
		t.wrong = "learn.fault"
	}
	if !w.Book.Finished {
		t.unfinished = "learn.unfinished"
	}
	t.blows()
	t.totals()
	t.weights()
	if ratio, ok := spread(w.Course, w.Book); ok {
		t.add(Spread, ratio, t.used.Spread, t.wrong)
	}
	if ratio, ok := bend(w.Book); ok {
		t.add(Bend, ratio, t.used.Bend, t.wrong)
	}
	t.paces()
	return t.out
}

// paces are what the steps of finishing that were timed took over what the table estimates for them.
func (t *telling) paces() {
	type sum struct{ min, law float64 }
	sums := map[Kind]*sum{}
	timed := map[string]bool{}
	for _, told := range t.w.Book.Final {
		for _, k := range told.Final.Took {
			s := sums[Kind(k.Pace)]
			if s == nil {
				s = &sum{}
				sums[Kind(k.Pace)] = s
			}
			if s.min += k.Min; !timed[k.Step] { // a step that took two evenings is still one step
				s.law, timed[k.Step] = s.law+k.LawMin, true
			}
		}
	}
	for _, k := range []Kind{Grinding, Sanding, Fitting} {
		if s := sums[k]; s != nil && s.law > 0 {
			few := ""
			if s.law < leastPaceMin {
				few = "learn.fewMinutes"
			}
			t.add(k, s.min/s.law, nil, few)
		}
	}
}

// telling is a piece that is asked what it says.
type telling struct {
	w                         *Worked
	used                      *plan.Learned
	wrong, unfinished, before string // why it does not count
	out                       []Record
}

// add is a record, where anything can be told; a plan that was made with what was learned before is brought back to the law.
func (t *telling) add(k Kind, ratio float64, was *plan.Taught, whys ...string) {
	if was != nil && enters(k) {
		ratio *= was.Factor
	}
	if !(ratio > 0 && ratio < 1e6) {
		return
	}
	b := t.w.Book
	r := Record{Session: t.w.Session, Piece: t.w.Name, Of: t.w.Smith, Kind: k, AtMs: max(b.LastMs, b.StartedMs), Ratio: ratio, Why: first(whys...)}
	if k.ByForge() {
		r.Of = ForgeOf(t.w.Request.Fire)
	}
	if r.Why == "" && !(ratio > 1/mostRatio && ratio < mostRatio) {
		r.Why = "learn.far"
	}
	r.Counts = r.Why == ""
	t.out = append(t.out, r)
}

// first of some reasons.
func first(whys ...string) string {
	for _, y := range whys {
		if y != "" {
			return y
		}
	}
	return ""
}

func (t *telling) blows() {
	planned, blows, why := counted(t.w.Course, t.w.Book)
	if planned < leastBlows || blows <= 0 {
		if t.w.Book.Finished {
			t.add(Blow, 1, nil, "learn.notCounted")
		}
		return
	}
	why = first(why, t.wrong)
	t.add(Blow, planned/blows, t.used.Blow, why)
	if why == "" && (t.used.Blow == nil || t.used.Blow.N < knownFrom && !t.used.Blow.Measured) {
		t.before = "learn.before" // its plan did not know this arm yet: what it missed is learned as blows
	}
}

func (t *telling) totals() {
	sum, c := &t.w.Book.Totals, t.w.Course
	if sum.PlanHeats > 0 && sum.Heats > 0 {
		t.add(Heats, float64(sum.Heats)/float64(sum.PlanHeats), nil, t.unfinished, t.wrong, t.before)
	}
	if planned := c.Totals.LastsS(); planned > 0 && sum.LastsS > 0 && t.w.Book.Finished {
		t.add(Time, sum.LastsS/planned, nil, t.wrong, t.before)
	}
}

func (t *telling) weights() {
	lost, planned, ok := weighed(t.w.Book)
	if !ok {
		return
	}
	light, law := "", planned
	if s := t.used.Scale; s != nil { // by the law, or a forge that scales little would be the less believed for it
		law /= s.Factor
	}
	if law < leastLostG {
		light = "learn.light"
	}
	t.add(Loss, lost/planned, nil, t.unfinished, t.wrong, light)
	if sum := &t.w.Book.Totals; sum.PlanHeats > 0 && sum.Heats > 0 {
		t.add(Scale, lost/planned*float64(sum.PlanHeats)/float64(sum.Heats), t.used.Scale, t.unfinished, t.wrong, light)
	}
}

// enters tells whether a kind enters the engine, so that a plan made with it is not of the law alone.
func enters(k Kind) bool { return k == Blow || k == Scale || k == Spread || k == Bend }

// counted sums the blows of the heavy work that a hand did, where every one of them was counted, with
// what the plan had for it.
func counted(c *session.Course, b *session.Book) (planned, blows float64, why string) {
	of := map[int]float64{}
	bad, done, past := map[int]bool{}, map[int]bool{}, false
	for i := range b.Heats {
		for _, k := range b.Heats[i].Steps {
			of[k.Step] += float64(k.Blows)
			bad[k.Step] = bad[k.Step] || k.Blows == 0 && !k.NotYet
			done[k.Step] = done[k.Step] || !k.NotYet
			past = past || k.Past
		}
	}
	all := 0.0
	for i := range c.Steps {
		st := &c.Steps[i]
		if st.Machine != "" || st.Strokes || !forge.Kind(st.Kind).Heavy() && forge.Kind(st.Kind) != forge.Bevel || i >= b.Step {
			continue
		}
		all += float64(st.Blows)
		if done[i] && !bad[i] && of[i] > 0 {
			planned, blows = planned+float64(st.Blows), blows+of[i]
		}
	}
	switch {
	case past:
		why = "learn.past"
	case planned < leastShare*all:
		why = "learn.notCounted"
	}
	return planned, blows, why
}

// weighed is what was lost between the first weighing and the last, and what was planned for it.
func weighed(b *session.Book) (lostG, plannedG float64, ok bool) {
	first := 0.0
	for _, r := range b.Readings {
		if r.Reading.Quantity == session.Weight && r.OfTrip == 0 {
			first = r.Reading.MassG
			break
		}
	}
	if first <= 0 || b.Totals.WeightG <= 0 || b.Totals.PlanG <= 0 || b.StartG <= 0 {
		return 0, 0, false
	}
	lostG, plannedG = first-b.Totals.WeightG, b.StartG-b.Totals.PlanG
	return lostG, plannedG, plannedG > graved && lostG > 0
}

// spread is how much of the thinning went into width over what was planned, where height and thickness
// were read at one place of the blade: the mean of the logarithms.
func spread(c *session.Course, b *session.Book) (float64, bool) {
	sum, n := 0.0, 0.0
	w0, t0 := c.Bar.WidthMm, c.Bar.ThicknessMm
	for _, h := range b.Measured {
		if h.Quantity != session.Quantity(plan.Height) {
			continue
		}
		for _, t := range b.Measured {
			if t.Quantity != session.Quantity(plan.Thickness) || math.Abs(t.AtMm-h.AtMm) > nearMm || t.Heat != h.Heat {
				continue
			}
			was, planned := math.Log(h.Mm/w0)/math.Log(t0/t.Mm), math.Log(h.WantMm/w0)/math.Log(t0/t.WantMm)
			if math.Log(t0/t.WantMm) < leastThin || math.Log(h.WantMm/w0) < leastGain || !(was > 0) || !(planned > 0) {
				continue
			}
			sum, n = sum+math.Log(was/planned), n+1
		}
	}
	if n == 0 {
		return 0, false
	}
	return math.Exp(sum / n), true
}

// bend is the rise that was read over the rise that was planned, on the mean.
func bend(b *session.Book) (float64, bool) {
	sum, n := 0.0, 0.0
	for _, r := range b.Readings {
		if r.Reading.Quantity == session.Quantity(plan.Rise) && r.Wanted && math.Abs(r.WantMm) >= leastRiseMm && r.Reading.Mm/r.WantMm > 0 {
			sum, n = sum+math.Log(r.Reading.Mm/r.WantMm), n+1
		}
	}
	if n == 0 {
		return 0, false
	}
	return math.Exp(sum / n), true
}

// InOrder sorts records by time, those of one time by session and kind, so that any order gives the same.
func InOrder(records []Record) []Record {
	out := append([]Record{}, records...)
	sort.SliceStable(out, func(i, j int) bool {
		a, b := &out[i], &out[j]
		switch {
		case a.AtMs != b.AtMs:
			return a.AtMs < b.AtMs
		case a.Session != b.Session:
			return a.Session < b.Session
		}
		return a.Kind < b.Kind
	})
	return out
}

// Simulated are records of a log that is simulated, in a shop that is not: none of them counts.
func Simulated(records []Record) []Record {
	out := slices.Clone(records)
	for i := range out {
		out[i].Counts, out[i].Why = false, "learn.simulated"
	}
	return out
}
