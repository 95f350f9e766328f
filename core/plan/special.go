package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/stock"
)

// Figures of the work that is counted in strokes: judgement.
const (
	stampStrokes    = 2.0 // set, and struck
	notchStrokesAMm = 2.0 // of depth
	strokesATurn    = 4.0 // of the wrench
	loopMmAStroke   = 8.0 // of rod round the bar
	upsetLengthOver = 3.0 // free length over the bar's lesser side: beyond, it bends
	upsetOver       = 1.01
)

type adding func(k forge.Kind, face forge.Face, first, last int, to stage) *forge.Operation

// Welding heat: above the steel's forging range, as hot as the forge gives
// (judgement; pairs differ), and down to where a weld no longer takes.
const (
	weldOverC    = 50.0
	weldLeastC   = 1130.0
	weldUsualC   = 1150.0
	weldMostC    = 1260.0
	weldWindowC  = 90.0
	weldTwice    = 2.0 // from end to end
	weldBlowStep = 0.7 // of the face, along the bar
)

// weld makes one piece of layers or strands: lightly and quickly, twice over.
func (r *route) weld(add adding, all int) {
	if f := r.req.Bar.Form; f != stock.Cable && f != stock.Layers {
		return
	}
	r.atWeldingHeat(add(forge.Weld, forge.FlatFace, 0, all, asItIs))
}

// atWeldingHeat gives an operation its temperatures, and blows enough to go over its
// stretch of the bar twice.
func (r *route) atWeldingHeat(op *forge.Operation) {
	op.SoakC = math.Max(weldLeastC, math.Min(r.req.Fire.TempC-forge.UnderForgeC, math.Min(weldMostC, math.Max(weldUsualC, r.steel.ForgeHighC+weldOverC))))
	op.LowC = op.SoakC - weldWindowC
	length := 0.0
	for i := op.First; i <= op.Last; i++ {
		if r.cells[i].rod {
			length += r.cells[i].to - r.cells[i].from
		} else {
			length += r.cells[i].volume / r.bar.AreaMm2
		}
	}
	op.Strokes = math.Ceil(weldTwice * length / (weldBlowStep * r.req.Smith.FaceMm))
}

// RodWeld is how a rod is welded on.
type RodWeld string

// ByArc is done cold, before the first fire; InTheFire is a heat, scarf on scarf.
const (
	ByArc     RodWeld = "arc"
	InTheFire RodWeld = "fire"
)

// scarfMm of bar, and of rod, lie on each other where they are welded in the fire
// (judgement: three or four times as long as thick).
const (
	scarfMm      = 20.0
	scarfStrokes = 8.0 // of both faces, its thin lips last (judgement)
)

// weldOn makes one piece of the bar's end and a rod, in the fire.
func (r *route) weldOn(add adding, all int) {
	if r.req.Choices.Holding != WeldedRod || r.req.Choices.RodWeld != InTheFire || r.req.Forged != nil {
		return
	}
	first, last := all, all
	seam := r.cells[all].to
	for i := range r.cells {
		if r.cells[i].rod {
			first, last, seam = i-1, i, r.cells[i].from
			break
		}
	}
	onBar := func() float64 { return r.cells[first].volume / r.bar.AreaMm2 }
	for lap := onBar(); lap < scarfMm && first > 0 && r.cells[first-1].zone == ZoneTang; lap += onBar() {
		first-- // but never into the ricasso
	}
	for last < all && r.cells[last].to-seam < scarfMm {
		last++
	}
	op := add(forge.WeldOn, forge.FlatFace, first, last, asItIs)
	r.atWeldingHeat(op)
	op.Strokes = math.Max(op.Strokes, scarfStrokes)
}

// tangEnd is what is done to the tang once it is drawn, and the cut, which has
// to free its end before a loop is turned.
func (r *route) tangEnd(add adding) {
	t, t0, t1 := &r.req.Design.Tang, 0, 0
	if t0, t1 = r.span(ZoneTang); t0 < 0 || r.req.Forged != nil {
		t0 = -1
	}
	if t0 >= 0 && t.TwistTurns > 0 {
		op := add(forge.Twist, "", t0, t1, asItIs)
		op.Strokes, op.Turning.Turns = strokesATurn*t.TwistTurns, t.TwistTurns
	}
	if t0 >= 0 && t.CurveMm > 0 {
		op := add(forge.TangCurve, forge.FlatFace, t0, t1, asItIs)
		op.BendPer, op.Turning = t.CurvePerMm(), forge.Turning{Brings: true, ToPerMm: -t.CurvePerMm()}
	}
	if all := len(r.cells) - 1; r.req.Choices.Holding != Tongs {
		add(forge.CutOff, forge.AnvilEdge, all, all, asItIs)
	}
	if t0 >= 0 && t.LoopMm > 0 {
		rod, first := t.LoopRodMm(), t1
		for end := r.cells[t1].to; first > t0 && end-(r.cells[first].from+r.cells[first-1].from)/2 < rod; {
			first--
		}
		loop := add(forge.Loop, "", first, t1, asItIs)
		loop.Strokes, loop.BendPer = rod/loopMmAStroke, 2/(t.LoopMm+t.ThicknessAtEndMm)
		loop.Turning = forge.Turning{Brings: true, FromEnd: true, ToPerMm: -2 * math.Pi / (r.cells[t1].to - r.cells[first].from)}
	}
	if t0 >= 0 && r.req.Design.TangKind == blade.WrappedTang {
		r.wrap(add, t0, t1)
	}
}

// wrap folds a long tang back on itself round a bar, in the middle.
func (r *route) wrap(add adding, t0, t1 int) {
	t := &r.req.Design.Tang
	front := r.cells[t0].from + (t.LengthMm-t.TurnMm())/2
	first, last := t0, t1
	for first < t1 && (r.cells[first].from+r.cells[first].to)/2 < front {
		first++
	}
	for last > first && (r.cells[last].from+r.cells[last].to)/2 > front+t.TurnMm() {
		last--
	}
	long := r.cells[last].to - r.cells[first].from
	op := add(forge.Wrap, "", first, last, asItIs)
	op.Strokes, op.BendPer = math.Ceil(long/loopMmAStroke), math.Pi/long
	op.Turning = forge.Turning{Brings: true, ToPerMm: -math.Pi / long}
}

// withinBar narrows the preforms that ask for a little more section than the bar
// has where the finished section does not: what bevelling spreads as a rule they
// leave to it and a little more.
func (r *route) withinBar() {
	for i := range r.cells {
		c := &r.cells[i]
		if c.final.WidthMm*c.final.ThicknessMm <= r.bar.AreaMm2 && c.preform.ThicknessMm <= r.bar.ThicknessMm {
			c.preform.WidthMm = math.Min(c.preform.WidthMm, r.bar.AreaMm2/c.preform.ThicknessMm)
		}
	}
}

// short is the stretch that the bar is too small for, from its first cell to its
// last.
func (r *route) short() (first, last int) {
	first, last = -1, -1
	for i := range r.cells {
		if p := r.cells[i].preform; !r.cells[i].rod && p.WidthMm*p.ThicknessMm > r.bar.AreaMm2*upsetOver {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	return first, last
}

// rodMm3 is what a rod gives to the tang.
func (r *route) rodMm3() (v float64) {
	for i := range r.cells {
		if r.cells[i].rod {
			v += r.cells[i].volume
		}
	}
	return v
}

// freeMm is how long the stretch is on the bar.
func (r *route) freeMm(first, last int) float64 {
	v := 0.0
	for i := first; i <= last; i++ {
		v += r.cells[i].volume
	}
	return v / r.bar.AreaMm2
}

// upset is the stretch to be upset, where it is short enough not to bend.
func (r *route) upset() (first, last int, ok bool) {
	first, last = r.short()
	return first, last, first >= 0 && r.freeMm(first, last) <= r.upsetLimitMm()
}

func (r *route) upsetLimitMm() float64 {
	return upsetLengthOver * math.Min(r.bar.WidthMm, r.bar.ThicknessMm)
}

// gathered is the bar's own section grown to the area that a cell asks for.
func (r *route) gathered(i int) forge.Target {
	p := r.cells[i].preform
	k := math.Sqrt(math.Max(1, p.WidthMm*p.ThicknessMm/(r.bar.WidthMm*r.bar.ThicknessMm)))
	t := r.bar.ThicknessMm * k
	return forge.Target{WidthMm: r.bar.WidthMm * k, ThicknessMm: t, EdgeMm: t, SpineMm: t}
}

// warnUpset: a stretch to be upset; or one that stands too long for it, which is
// why the bar is too light there.
func (r *route) warnUpset(add adder) {
	first, last := r.short()
	if first < 0 {
		return
	}
	f := fact.Figures{"freeMm": r.freeMm(first, last), "limitMm": r.upsetLimitMm()}
	at := fact.Where{Zone: r.cells[first].zone, Operation: string(forge.Upset), FromMm: r.cells[first].from, ToMm: r.cells[last].to}
	if f["freeMm"] > f["limitMm"] {
		at.Operation = ""
		for i := first; i <= last; i++ {
			f["needMm"] = math.Max(f["needMm"], r.cells[i].preform.WidthMm*r.cells[i].preform.ThicknessMm/r.bar.WidthMm)
		}
		add("warn.upsetBends", fact.Warn, at, f)
		return
	}
	add("warn.upset", fact.Note, at, f)
}
