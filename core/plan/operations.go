package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/steel"
	"coldember/core/stock"
)

// needsBreakDown: a bar this much thicker than the thickest part of the piece
// is first drawn down to it along its whole length.
const needsBreakDown = 1.5

// hotSlack lets a stretch be this share longer than the hot length before it is
// split: its ends are worked last.
const hotSlack = 0.05

// setDownShare of the tang, from the shoulder, is set down over the anvil's edge;
// the rest is drawn from there (judgement).
const setDownShare = 0.25

// route is the list of operations, with what the scale still to come adds to
// their targets left open.
type route struct {
	req   *Request
	cells []cell
	bar   stock.Start
	bend  forge.Bend
	down  forge.Target // the flat of the break-down
	steel steel.Grade
}

// newRoute cuts the forged shape into cells and sets what each is drawn to before
// bevels.
func newRoute(req *Request, bar stock.Start, f *blade.Body, zones []zone) *route {
	r := &route{req: req, bar: bar, cells: cellsOf(f, zones, req.CellCount, req.Choices.Method, req.seamMm())}
	if t := &req.Design.Tang; req.Forged == nil && (t.LoopMm > 0 || req.Design.TangKind == blade.WrappedTang) {
		for i := range r.cells {
			if c := &r.cells[i]; c.zone == ZoneTang {
				c.trace(f, zones, curledPerCell)
			}
		}
	}
	r.withinBar()
	return r
}

// seamMm is where a rod that stays is welded on, behind the shoulder; 0: none.
func (r *Request) seamMm() float64 {
	if r.Choices.Holding != WeldedRod || r.Forged != nil {
		return 0
	}
	return r.Design.Tang.WeldAtMm
}

// ofTheBar is the part of a zone that is of the bar, not of a rod welded on.
func (r *route) ofTheBar(zone string) (first, last int) {
	first, last = r.span(zone)
	for last >= first && last >= 0 && r.cells[last].rod {
		last--
	}
	return first, last
}

func (r *route) span(zones ...string) (first, last int) {
	first, last = -1, -1
	for i, c := range r.cells {
		for _, z := range zones {
			if c.zone == z {
				if first < 0 {
					first = i
				}
				last = i
			}
		}
	}
	return first, last
}

// operations in the smith's order, or else in that of the school.
func (r *route) operations() []*forge.Operation {
	var ops []*forge.Operation
	brings := map[*forge.Operation]stage{}
	add := func(k forge.Kind, face forge.Face, first, last int, to stage) *forge.Operation {
		op := &forge.Operation{ID: string(k), Kind: k, Face: face, First: first, Last: last, Passes: r.passes(first, last)}
		ops, brings[op] = append(ops, op), to
		return op
	}
	all := len(r.cells) - 1

	if r.bar.BendRadiusMm > 0 {
		add(forge.Straighten, forge.FlatFace, 0, all, asItIs).BendPer = 1 / r.bar.BendRadiusMm
	}
	r.weld(add, all)
	r.weldOn(add, all)
	if r.req.Choices.Corners != CornersLeft {
		add(forge.Corners, forge.FlatFace, 0, all, asItIs)
	}
	if first, last, ok := r.upset(); ok {
		add(forge.Upset, forge.FlatFace, first, last, gathered).FreeMm = r.freeMm(first, last)
	}
	p0, p1 := r.span(ZonePoint)
	b0, b1 := r.span(ZoneBlade)
	w, t := r.bar.WidthMm, r.bar.ThicknessMm
	thickest := 0.0
	for _, c := range r.cells {
		thickest = math.Max(thickest, c.preform.ThicknessMm)
	}
	if !r.isFlat() || t > needsBreakDown*thickest || r.req.Sizing.FirstThicknessMm > 0 {
		_, end := r.span(ZonePoint, ZoneBlade, ZoneRicasso)
		if down := r.flatten(w, t, thickest, end); down != nil {
			add(forge.BreakDown, r.faceFor(0, end, down.WidthMm, down.ThicknessMm), 0, end, flattened)
			r.down = *down
			w, t = down.WidthMm, down.ThicknessMm
		}
	}
	point := func() { add(forge.Point, r.faceFor(p0, p1, w, t), p0, p1, preformed) }
	if r.req.Choices.First != TangFirst {
		point()
	}
	if t0, t1 := r.ofTheBar(ZoneTang); t0 >= 0 {
		end := t0
		for mm := r.cells[t0].from + setDownShare*(r.cells[t1].to-r.cells[t0].from); end < t1 && r.cells[end+1].to <= mm+1e-9; {
			end++
		}
		add(forge.SetDown, forge.AnvilEdge, t0, end, finished)
		if t1 > end {
			add(forge.DrawTang, forge.PeenAcross, end+1, t1, finished)
		}
	}
	if r0, r1 := r.span(ZoneRicasso); r0 >= 0 {
		add(forge.SetUp, forge.FlatFace, r0, r1, bevelled)
		if mm := r.req.Design.Ricasso.NotchMm; mm > 0 && r.req.Choices.Notch == NotchForged && r.req.Forged == nil {
			op := add(forge.Notch, forge.RoundFace, r0, r1, finished)
			op.Support, op.Strokes = forge.BottomFuller, math.Ceil(notchStrokesAMm*mm)
		}
	}
	if r.req.Choices.First == TangFirst {
		point()
	}
	add(forge.Profile, r.faceFor(b0, b1, w, t), b0, b1, preformed)
	if r.bevelled() {
		if r.req.Choices.Curve == PreCurveFirst && r.bend.CurvaturePerMm > 0 {
			op := add(forge.PreCurve, forge.FlatFace, p0, b1, asItIs)
			op.BendPer, op.Turning = r.bend.CurvaturePerMm, forge.Turning{Brings: true, ToPerMm: -r.bend.CurvaturePerMm}
		}
		if r.req.Design.Grind.SwedgeFraction > 0 && r.req.Forged == nil {
			add(forge.Bevel, forge.BevelFace, p0, b1, bevelled).Turning.AddPerMm = r.sweepLeft()
			add(forge.FalseEdge, forge.BevelFace, p0, b1, finished)
		} else {
			add(forge.Bevel, forge.BevelFace, p0, b1, finished).Turning.AddPerMm = r.sweepLeft()
		}
	}
	correct := add(forge.Correct, forge.FlatFace, p0, b1, asItIs)
	correct.BendPer, correct.Turning.Brings = r.correction(), r.req.Choices.Curve != LetSweep
	_, faceEnd := r.span(ZonePoint, ZoneBlade, ZoneRicasso)
	add(forge.Planish, forge.FlatFace, 0, faceEnd, asItIs)
	if r0, r1 := r.span(ZoneRicasso); r.req.Choices.Stamp && r0 >= 0 {
		add(forge.Stamp, "", r0, r1, asItIs).Strokes = stampStrokes
	}
	r.tangEnd(add)
	if r.hardens() {
		add(forge.Harden, "", 0, all, asItIs).SoakC = r.steel.AustenitiseC
	}
	ops = inOrder(ops, r.req.Choices.Order)
	r.aim(ops, brings)
	r.takeTools(ops)
	return ops
}

// flatten is the flat that a thick or unflat bar is first drawn to: as thick as
// the thickest part, as wide as a face makes it that suits the blade.
func (r *route) flatten(w, t, thickest float64, last int) *forge.Target {
	if own := r.req.Sizing.FirstThicknessMm; own > 0 {
		thickest = own
	}
	if thickest >= t {
		return nil
	}
	want := 0.0
	for _, c := range r.cells[:last+1] {
		want = math.Max(want, c.preform.WidthMm)
	}
	strain := math.Log(t / thickest)
	least, _ := forge.Spread(r.req.Smith.PeenBiteMm, w)
	most, _ := forge.Spread(1.5*w, w)
	s := math.Max(least, math.Min(most, math.Log(want/w)/strain))
	if m := r.req.Smith.Machine; m != nil && m.Kind == forge.RollingMill {
		s = forge.RollSpread
	}
	if own := r.req.Sizing.FirstWidthMm; own > 0 {
		return &forge.Target{WidthMm: own, ThicknessMm: thickest, EdgeMm: thickest, SpineMm: thickest}
	}
	return &forge.Target{WidthMm: w * math.Exp(s*strain), ThicknessMm: thickest, EdgeMm: thickest, SpineMm: thickest}
}

// isFlat tells whether the piece comes as a flat already.
func (r *route) isFlat() bool {
	switch r.req.Bar.Form {
	case stock.Flat, stock.Leaf, stock.TaperedFlat, stock.Disc, stock.Race, stock.Layers:
		return true
	}
	return false
}

// faceFor picks the face by the spread that the stretch needs from w × t to its
// preform.
func (r *route) faceFor(first, last int, w, t float64) forge.Face {
	need, n := 0.0, 0.0
	for _, c := range r.cells[first : last+1] {
		if et := math.Log(t / c.preform.ThicknessMm); et > noStrain {
			need += math.Log(c.preform.WidthMm/w) / et
			n++
		}
	}
	switch {
	case n == 0 || need/n < lengthenBelow:
		return forge.PeenAcross
	case need/n < eitherBelow:
		return forge.FlatFace
	default:
		return forge.PeenAlong
	}
}

// passes is how many stretches of the hot length the forged range makes.
func (r *route) passes(first, last int) int {
	l := r.cells[last].to - r.cells[first].from
	return max(1, int(math.Ceil(l/r.req.Fire.HotLengthMm-hotSlack)))
}

// bevelled tells whether any stretch is thinner at the edge than at the spine.
func (r *route) bevelled() bool {
	for _, c := range r.cells {
		if c.final.ThicknessMm < c.preform.ThicknessMm-1e-9 {
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
func (r *route) sweepLeft() float64 {
	if r.req.Choices.Curve == CorrectAsYou {
		return 0
	}
	return r.bend.CurvaturePerMm
}

func (r *route) correction() float64 {
	hand := handBendPerMm
	if r.req.Smith.Skill == forge.Learning {
		hand = handBendLearner
	}
	switch r.req.Choices.Curve {
	case CorrectAsYou:
		return math.Abs(r.bend.CurvaturePerMm) + hand
	case LetSweep:
		return hand
	default:
		return residualShare*math.Abs(r.bend.CurvaturePerMm) + hand
	}
}
