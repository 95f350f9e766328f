package route

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
)

// Figures of the work that is counted in strokes: judgement.
const (
	stampStrokes    = 2.0 // set, and struck
	notchStrokesAMm = 2.0 // of depth
	strokesATurn    = 4.0 // of the wrench
	loopMmAStroke   = 8.0 // of rod round the bar
	punchStrokesAMm = 1.5 // of thickness, from both sides
	driftStrokesAMm = 0.6 // of the hole's width
	upsetLengthOver = 3.0 // free length over the bar's lesser side: beyond, it bends
	upsetOver       = 1.01
)

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
func (r *Route) weld(l *list, all int) {
	if f := r.Req.Bar.Form; f != stock.Cable && f != stock.Layers {
		return
	}
	r.atWeldingHeat(l.add(forge.Weld, forge.FlatFace, 0, all, asItIs))
}

// atWeldingHeat gives an operation its temperatures, and blows enough to go over its
// stretch of the bar twice.
func (r *Route) atWeldingHeat(op *forge.Operation) {
	op.SoakC = math.Max(weldLeastC, math.Min(r.Req.Fire.TempC-forge.UnderForgeC, math.Min(weldMostC, math.Max(weldUsualC, r.Steel.ForgeHighC+weldOverC))))
	op.LowC = op.SoakC - weldWindowC
	length := 0.0
	for i := op.First; i <= op.Last; i++ {
		if r.Cells[i].Rod {
			length += r.Cells[i].ToMm - r.Cells[i].FromMm
		} else {
			length += r.Cells[i].VolumeMm3 / r.Bar.AreaMm2
		}
	}
	op.Strokes = math.Ceil(weldTwice * length / (weldBlowStep * r.Req.Smith.FaceMm))
}

// scarfMm of bar, and of rod, lie on each other where they are welded in the fire
// (judgement: three or four times as long as thick).
const (
	scarfMm      = 20.0
	scarfStrokes = 8.0 // of both faces, its thin lips last (judgement)
)

// weldOn makes one piece of the bar's end and a rod, in the fire.
func (r *Route) weldOn(l *list, all int) {
	if r.Req.Choices.Holding != plan.WeldedRod || r.Req.Choices.RodWeld != plan.InTheFire || r.Req.Forged != nil {
		return
	}
	first, last := all, all
	seam := r.Cells[all].ToMm
	for i := range r.Cells {
		if r.Cells[i].Rod {
			first, last, seam = i-1, i, r.Cells[i].FromMm
			break
		}
	}
	onBar := func() float64 { return r.Cells[first].VolumeMm3 / r.Bar.AreaMm2 }
	for lap := onBar(); lap < scarfMm && first > 0 && r.Cells[first-1].Zone == plan.ZoneTang; lap += onBar() {
		first-- // but never into the ricasso
	}
	for last < all && r.Cells[last].ToMm-seam < scarfMm {
		last++
	}
	op := l.add(forge.WeldOn, forge.FlatFace, first, last, asItIs)
	r.atWeldingHeat(op)
	op.Strokes = math.Max(op.Strokes, scarfStrokes)
}

// tangEnd is what is done to the tang once it is drawn, and the cut, which has
// to free its end before a loop is turned.
func (r *Route) tangEnd(l *list) {
	t, t0, t1 := &r.Req.Design.Tang, 0, 0
	if t0, t1 = r.span(plan.ZoneTang); t0 < 0 || r.Req.Forged != nil {
		t0 = -1
	}
	if t0 >= 0 && t.TwistTurns > 0 {
		op := l.add(forge.Twist, "", t0, t1, asItIs)
		op.Strokes, op.Turning.Turns = strokesATurn*t.TwistTurns, t.TwistTurns
	}
	if t0 >= 0 && t.CurveMm > 0 {
		op := l.add(forge.TangCurve, forge.FlatFace, t0, t1, asItIs)
		op.BendPer, op.Turning = t.CurvePerMm(), forge.Turning{Brings: true, ToPerMm: -t.CurvePerMm()}
	}
	if t0 >= 0 && t.CurveMm == 0 && r.tang != nil && !r.Req.SawnOut() {
		if k := r.tang.LinePerMm(); k > 0 {
			l.add(forge.TangCurve, forge.FlatFace, t0, t1, asItIs).BendPer = k
		}
	}
	r.punch(l, t0, t1)
	if all := len(r.Cells) - 1; r.Req.Choices.Holding != plan.Tongs && !r.Req.CutsNothing() {
		l.add(forge.CutOff, forge.AnvilEdge, all, all, asItIs)
	}
	if t0 >= 0 && t.LoopMm > 0 {
		rod, first := t.LoopRodMm(), t1
		for end := r.Cells[t1].ToMm; first > t0 && end-(r.Cells[first].FromMm+r.Cells[first-1].FromMm)/2 < rod; {
			first--
		}
		loop := l.add(forge.Loop, "", first, t1, asItIs)
		loop.Strokes, loop.BendPer = rod/loopMmAStroke, 2/(t.LoopMm+t.ThicknessAtEndMm)
		loop.Turning = forge.Turning{Brings: true, FromEnd: true, ToPerMm: -2 * math.Pi / (r.Cells[t1].ToMm - r.Cells[first].FromMm)}
		if t.LoopEnd == blade.WeldedLoop {
			r.atWeldingHeat(l.add(forge.WeldLoop, forge.FlatFace, first, t1, asItIs))
		}
	}
	if t0 >= 0 && r.Req.Design.TangKind == blade.WrappedTang {
		r.wrap(l, t0, t1)
	}
}

// punch makes the holes that are punched hot: through from both sides, then drifted.
func (r *Route) punch(l *list, t0, t1 int) {
	if t0 < 0 {
		return
	}
	shoulder := r.Cells[t0].FromMm
	for _, h := range r.Req.Design.Tang.Holes {
		if h.Made != blade.Punched {
			continue
		}
		first, last := t0, t1
		for first < t1 && r.Cells[first].ToMm-shoulder < h.AtMm-h.HalfMm() {
			first++
		}
		for last > first && r.Cells[last].FromMm-shoulder > h.AtMm+h.HalfMm() {
			last--
		}
		op := l.add(forge.Punch, "", first, last, asItIs)
		op.Strokes = math.Ceil(punchStrokesAMm*r.Cells[first].Final.ThicknessMm + driftStrokesAMm*h.DiameterMm)
	}
}

// wrap folds a long tang back on itself round a bar, in the middle.
func (r *Route) wrap(l *list, t0, t1 int) {
	t := &r.Req.Design.Tang
	front := r.Cells[t0].FromMm + (t.LengthMm-t.TurnMm())/2
	first, last := t0, t1
	for first < t1 && (r.Cells[first].FromMm+r.Cells[first].ToMm)/2 < front {
		first++
	}
	for last > first && (r.Cells[last].FromMm+r.Cells[last].ToMm)/2 > front+t.TurnMm() {
		last--
	}
	long := r.Cells[last].ToMm - r.Cells[first].FromMm
	op := l.add(forge.Wrap, "", first, last, asItIs)
	op.Strokes, op.BendPer = math.Ceil(long/loopMmAStroke), math.Pi/long
	op.Turning = forge.Turning{Brings: true, ToPerMm: -math.Pi / long}
}

// formFlat bends the end of a blade flatwise over a form, at full heat and with a mallet, when
// all else of it is done.
func (r *Route) formFlat(l *list, p0, b1 int) {
	f := r.Req.Design.FlatBend
	if f == nil || r.Req.Forged != nil {
		return
	}
	last := p0
	for last < b1 && r.Cells[last].ToMm < f.LongMm {
		last++
	}
	l.add(forge.FormFlat, forge.FlatFace, p0, last, asItIs).BendPer = 1 / f.MidRadiusMm(r.Req.Design.SpineMm)
}

// withinBar narrows the preforms that ask for a little more section than the bar
// has where the finished section does not: what bevelling spreads as a rule they
// leave to it and a little more.
func (r *Route) withinBar() {
	for i := range r.Cells {
		c := &r.Cells[i]
		if c.Final.WidthMm*c.Final.ThicknessMm <= r.Bar.AreaMm2 && c.Preform.ThicknessMm <= r.Bar.ThicknessMm {
			c.Preform.WidthMm = math.Min(c.Preform.WidthMm, r.Bar.AreaMm2/c.Preform.ThicknessMm)
		}
	}
}

// Short is the stretch that the bar is too small for, from its first cell to its
// last.
func (r *Route) Short() (first, last int) {
	first, last = -1, -1
	for i := range r.Cells {
		if p := r.Cells[i].Preform; !r.Cells[i].Rod && p.WidthMm*p.ThicknessMm > r.Bar.AreaMm2*upsetOver {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	return first, last
}

// RodMm3 is what a rod gives to the tang.
func (r *Route) RodMm3() (v float64) {
	for i := range r.Cells {
		if r.Cells[i].Rod {
			v += r.Cells[i].VolumeMm3
		}
	}
	return v
}

// FreeMm is how long the stretch is on the bar.
func (r *Route) FreeMm(first, last int) float64 {
	v := 0.0
	for i := first; i <= last; i++ {
		v += r.Cells[i].VolumeMm3
	}
	return v / r.Bar.AreaMm2
}

// Upset is the stretch to be upset, where it is short enough not to bend.
func (r *Route) Upset() (first, last int, ok bool) {
	first, last = r.Short()
	return first, last, first >= 0 && r.FreeMm(first, last) <= r.UpsetLimitMm()
}

// UpsetLimitMm is how long a stretch may stand free before it bends instead.
func (r *Route) UpsetLimitMm() float64 {
	return upsetLengthOver * math.Min(r.Bar.WidthMm, r.Bar.ThicknessMm)
}

// gathered is the bar's own section grown to the area that a cell asks for.
func (r *Route) gathered(i int) forge.Target {
	p := r.Cells[i].Preform
	k := math.Sqrt(math.Max(1, p.WidthMm*p.ThicknessMm/(r.Bar.WidthMm*r.Bar.ThicknessMm)))
	t := r.Bar.ThicknessMm * k
	return forge.Target{WidthMm: r.Bar.WidthMm * k, ThicknessMm: t, EdgeMm: t, SpineMm: t}
}
