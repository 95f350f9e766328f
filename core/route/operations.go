package route

import (
	"math"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/core/stock"
)

// setDownShare of the tang, from the shoulder, is set down over the anvil's edge;
// the rest is drawn from there (judgement).
const setDownShare = 0.25

// Route is the list of operations, with what the scale still to come adds to
// their targets left open.
type Route struct {
	Req    *plan.Request
	Cells  []figure.Cell
	Bar    stock.EvenBar
	Bend   forge.Bend
	Square float64        // side of the square that a lump is first drawn to; 0: none
	Flat   []forge.Target // of each cell, the flat of the break-down
	Steel  steel.Grade
	Body   steel.Grade // behind a bit
	tang   *blade.Tang // to be forged

	LinePerMm float64 // curvature of the blade's line edgewise
	bladeMm   float64 // that is bevelled
}

// New cuts the forged shape into cells and sets what each is drawn to before
// bevels.
func New(req *plan.Request, bar stock.EvenBar, f *blade.Body, zones []figure.Zone) *Route {
	bevels := func(widthMm float64) float64 { return req.Smith.BevelSpread(req.Choices.Method, widthMm) }
	r := &Route{bladeMm: f.LengthMm(), Req: req, Bar: bar, Cells: figure.CellsOf(f, zones, req.CellCount, bevels, req.SeamMm()), tang: f.Blade.Tang}
	if req.Forged == nil && !req.SawnOut() { // what is sawn out has its line
		r.LinePerMm = f.LinePerMm()
	}
	if t := &req.Design.Tang; req.Forged == nil && (t.LoopMm > 0 || req.Design.TangKind == blade.WrappedTang) {
		for i := range r.Cells {
			if c := &r.Cells[i]; c.Zone == plan.ZoneTang {
				c.Trace(f, zones, figure.CurledPerCell)
			}
		}
	}
	if req.SawnOut() {
		r.blank()
	} else {
		r.withinBar()
	}
	return r
}

// ofTheBar is the part of a zone that is of the bar, not of a rod welded on.
func (r *Route) ofTheBar(zone string) (first, last int) {
	first, last = r.span(zone)
	for last >= first && last >= 0 && r.Cells[last].Rod {
		last--
	}
	return first, last
}

// span is from the first cell of these zones to the last; −1 where there is none.
func (r *Route) span(zones ...string) (first, last int) {
	first, last = -1, -1
	for i, c := range r.Cells {
		for _, z := range zones {
			if c.Zone == z {
				if first < 0 {
					first = i
				}
				last = i
			}
		}
	}
	return first, last
}

// list gathers operations and how far each brings its cells.
type list struct {
	route  *Route
	ops    []*forge.Operation
	brings map[*forge.Operation]stage
	count  map[forge.Kind]int
}

// add puts an operation behind the others, with an id of its own.
func (l *list) add(k forge.Kind, face forge.Face, first, last int, to stage) *forge.Operation {
	l.count[k]++
	op := &forge.Operation{ID: plan.OperationID(k, l.count[k]), Kind: k, Face: face, First: first, Last: last}
	l.ops, l.brings[op] = append(l.ops, op), to
	return op
}

// draw adds an operation that draws a stretch from w × t by the faces that suit.
func (l *list) draw(k forge.Kind, first, last int, w, t float64, to stage) {
	face, flat := l.route.faceFor(first, last, w, t)
	op := l.add(k, face, first, last, to)
	op.Mixes, op.FlatShare = true, flat
}

// Operations in the smith's order, or else in that of the school.
func (r *Route) Operations() []*forge.Operation {
	l := &list{route: r, brings: map[*forge.Operation]stage{}, count: map[forge.Kind]int{}}
	r.makeReady(l)
	w, t := r.breakDown(l)
	if r.Req.Choices.ForgedFirst() == plan.TangFirst {
		r.tangAndRicasso(l)
		r.point(l, w, t)
		r.profile(l, w, t)
	} else {
		r.point(l, w, t)
		tapers := r.Req.Smith.Machine.Does(forge.Point)
		if tapers { // a few strokes are no heat of their own: it goes on along the blade while that is hot
			r.profile(l, w, t)
		}
		r.tangAndRicasso(l)
		if !tapers {
			r.profile(l, w, t)
		}
	}
	r.blade(l)
	r.tangEnd(l)
	if r.Hardens() {
		l.add(forge.Harden, "", 0, len(r.Cells)-1, asItIs).SoakC = r.Steel.AustenitiseC
	}
	r.behindBit(l.ops)
	l.ops = inOrder(l.ops, r.Req.Choices.Order)
	r.aim(l.ops, l.brings)
	r.takeTools(l.ops)
	return l.ops
}

// makeReady straightens, welds, breaks corners and upsets: what makes a bar of it
// that can be drawn.
func (r *Route) makeReady(l *list) {
	all := len(r.Cells) - 1
	if r.Bar.BendRadiusMm > 0 {
		l.add(forge.Straighten, forge.FlatFace, 0, all, asItIs).BendPer = 1 / r.Bar.BendRadiusMm
	}
	r.weld(l, all)
	r.weldOn(l, all)
	r.weldBit(l)
	if r.Req.Choices.Corners != plan.CornersLeft && !r.Req.Bar.IsRound() {
		l.add(forge.Corners, forge.FlatFace, 0, all, asItIs)
	}
	if first, last, ok := r.Upset(); ok {
		l.add(forge.Upset, forge.FlatFace, first, last, gathered).FreeMm = r.FreeMm(first, last)
	}
}

func (r *Route) point(l *list, w, t float64) {
	first, last := r.span(plan.ZonePoint)
	l.draw(forge.Point, first, last, w, t, preformed)
}

// tangAndRicasso sets the shoulder down, draws the tang behind it and trues the
// ricasso before it.
func (r *Route) tangAndRicasso(l *list) {
	if t0, t1 := r.ofTheBar(plan.ZoneTang); t0 >= 0 {
		end := t0
		for mm := r.Cells[t0].FromMm + setDownShare*(r.Cells[t1].ToMm-r.Cells[t0].FromMm); end < t1 && r.Cells[end+1].ToMm <= mm+1e-9; {
			end++
		}
		switch {
		case r.Req.SawnOut():
			l.add(forge.DrawTang, forge.FlatFace, t0, t1, finished)
		case r.Req.Design.TangKind == blade.FullTang && r.Req.Forged == nil:
			r.fullTang(l, t0, t1)
		default:
			l.add(forge.SetDown, forge.AnvilEdge, t0, end, finished)
			if t1 > end {
				l.add(forge.DrawTang, forge.PeenAcross, end+1, t1, finished)
			}
		}
	}
	r0, r1 := r.span(plan.ZoneRicasso)
	if r0 < 0 {
		return
	}
	l.add(forge.SetUp, forge.FlatFace, r0, r1, bevelled)
	if mm := r.Req.Design.Ricasso.NotchMm; mm > 0 && r.Req.Choices.Notch == plan.NotchForged && r.Req.Forged == nil {
		op := l.add(forge.Notch, forge.RoundFace, r0, r1, finished)
		op.Support, op.Strokes = forge.BottomFuller, math.Ceil(notchStrokesAMm*mm)
	}
	r.tangNotches(l)
}

// profile draws the blade to its preform.
func (r *Route) profile(l *list, w, t float64) {
	b0, b1 := r.span(plan.ZoneBlade)
	l.draw(forge.Profile, b0, b1, w, t, preformed)
}

// blade bevels the blade, and trues what comes of that.
func (r *Route) blade(l *list) {
	p0, _ := r.span(plan.ZonePoint)
	_, b1 := r.span(plan.ZoneBlade)
	if r.LinePerMm != 0 { // bent to its line while the edge is still thick enough to be struck
		l.add(forge.LineCurve, forge.FlatFace, p0, b1, asItIs).BendPer = r.LinePerMm
	}
	if r.bevelled() {
		if k := r.preCurve(); k > 0 {
			op := l.add(forge.PreCurve, forge.FlatFace, p0, b1, asItIs)
			op.BendPer, op.Turning = k, forge.Turning{Brings: true, ToPerMm: -k}
		}
		swedge := r.Req.Design.Grind.SwedgeFraction > 0 && r.Req.Forged == nil
		to := finished
		if swedge {
			to = bevelled
		}
		l.add(forge.Bevel, forge.BevelFace, p0, b1, to).Turning.AddPerMm = r.sweepLeft()
		if swedge {
			l.add(forge.FalseEdge, forge.BevelFace, p0, b1, finished)
		}
	}
	correct := l.add(forge.Correct, forge.FlatFace, p0, b1, asItIs)
	correct.BendPer, correct.Turning.Brings = r.correction(), r.Req.Choices.Curve != plan.LetSweep
	_, faceEnd := r.span(plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso)
	l.add(forge.Planish, forge.FlatFace, 0, faceEnd, asItIs)
	r.formFlat(l, p0, b1)
	if r0, r1 := r.span(plan.ZoneRicasso); r.Req.Choices.Stamp && r0 >= 0 {
		l.add(forge.Stamp, "", r0, r1, asItIs).Strokes = stampStrokes
	}
}

// faceFor picks the face by the spread that the stretch needs from w × t to its preform, and
// how much of the work the flat face does: none where the steel is to go one way only, all of
// it half-way, so that a little more width never changes the work by a step.
func (r *Route) faceFor(first, last int, w, t float64) (f forge.Face, flatShare float64) {
	need, n := 0.0, 0.0
	for _, c := range r.Cells[first : last+1] {
		if et := math.Log(t / c.Preform.ThicknessMm); et > NoStrain {
			need += math.Log(c.Preform.WidthMm/w) / et
			n++
		}
	}
	if n == 0 {
		return forge.PeenAcross, 0
	}
	need /= n
	const half = (eitherBelow - lengthenBelow) / 2
	flatShare = math.Max(0, 1-math.Abs(need-(lengthenBelow+half))/half)
	switch {
	case need < lengthenBelow:
		return forge.PeenAcross, 0
	case need < eitherBelow:
		return forge.FlatFace, flatShare
	default:
		return forge.PeenAlong, 0
	}
}

// bevelled tells whether any stretch is thinner at the edge than at the spine.
func (r *Route) bevelled() bool {
	for _, c := range r.Cells {
		if c.Final.ThicknessMm < c.Preform.ThicknessMm-1e-9 {
			return true
		}
	}
	return false
}

// Residual curvature to take out after bevelling: all of the sweep where the
// smith corrects as they go, a share of it where it was met by a pre-curve, and
// what a hand leaves anyway (judgement, by skill).
const (
	residualShare   = 0.2
	handBendPerMm   = 0.0004
	handBendLearner = 0.0008
)

// sweepLeft is the curvature that bevelling leaves: none where every heat is
// corrected as it goes.
func (r *Route) sweepLeft() float64 {
	if r.truedEveryHeat() {
		return 0
	}
	return r.Bend.CurvaturePerMm
}

func (r *Route) correction() float64 {
	hand := handBendPerMm
	if r.Req.Smith.Skill == forge.Learning {
		hand = handBendLearner
	}
	k := math.Abs(r.Bend.CurvaturePerMm)
	switch {
	case r.truedEveryHeat():
		return k + hand
	case r.Req.Choices.Curve == plan.LetSweep:
		return hand
	default: // what a pre-curve did not meet, and a share of what it did
		met := r.preCurve()
		return k - met + residualShare*met + hand
	}
}

// ZonesIn are the zones of a range of cells, from the point back.
func (r *Route) ZonesIn(first, last int) []string {
	var out []string
	for _, c := range r.Cells[first : last+1] {
		if len(out) == 0 || out[len(out)-1] != c.Zone {
			out = append(out, c.Zone)
		}
	}
	return out
}
