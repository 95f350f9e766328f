package figure_test

import (
	"math"
	"slices"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABentTangIsAnArc of the radius that its rise over the chord asks for, drawn
// OnSalvage the finished blade and after the heat that bends it.
func TestABentTangIsAnArc(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.RodTang)
	straight := plantest.Make(t, r)
	r.Design.Tang.CurveMm = 4
	p := plantest.Make(t, r)
	k, long := r.Design.Tang.CurvePerMm(), r.Design.Tang.LengthMm
	drop, reach := (1-math.Cos(k*long))/k, math.Sin(k*long)/k
	end := func(st []plan.Station) (x, y float64) {
		tang := plantest.OfTang(st)
		x0, y0 := plantest.Middle(tang[0])
		x1, y1 := plantest.Middle(tang[len(tang)-1])
		return x1 - x0, y1 - y0
	}
	x, y := end(p.Drawing.Finished)
	assert.InDelta(t, reach, x, .01)
	assert.InDelta(t, -drop, y, .01, "toward the edge")
	_, before := end(straight.Drawing.Finished)
	assert.InDelta(t, 0, before, 1e-6)
	_, y = end(plantest.After(t, p, "tangCurve"))
	assert.InDelta(t, -drop, y, .1*drop, "the cells' middles reach a little less far")
	for _, s := range plantest.OfTang(plantest.After(t, p, "tangCurve")) {
		want, _ := r.Design.Tang.At(0)
		assert.LessOrEqual(t, s.HeightMm(), want+.1, "no section is stretched by the bending")
	}
}

// TestAnEyeClosesAndATwistTurns: the end of the rod comes round to where the eye
// begins, and the tang is turned so often.
func TestAnEyeClosesAndATwistTurns(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.RodTang)
	r.Design.Tang.LengthMm, r.Design.Tang.LoopMm, r.Design.Tang.TwistTurns = 150, 10, 3
	p := plantest.Make(t, r)
	rod := r.Design.Tang.LoopRodMm()
	for name, st := range map[string][]plan.Station{"finished": p.Drawing.Finished, "heat": plantest.After(t, p, "loop")} {
		tang := plantest.OfTang(st)
		x1, y1 := plantest.Middle(tang[len(tang)-1])
		least, lowest := math.Inf(1), 0.0
		for _, s := range tang[:len(tang)*3/4] {
			x, y := plantest.Middle(s)
			least = math.Min(least, math.Hypot(x1-x, y1-y))
		}
		for _, s := range tang {
			_, y := plantest.Middle(s)
			lowest = math.Min(lowest, y-y1)
		}
		assert.Less(t, least, 6.0, name)
		assert.InDelta(t, -rod/math.Pi, lowest, .25*rod/math.Pi, "%s: as deep as it is wide", name)
		assert.InDelta(t, 3*360, tang[len(tang)-1].TwistDeg, 30, name)
	}
	var longest float64
	for _, s := range p.Drawing.Finished {
		longest = math.Max(longest, s.XMm)
	}
	assert.InDelta(t, longest, p.Drawing.FinishedZones[len(p.Drawing.FinishedZones)-1].ToMm, 1e-9)
	r.Design.Tang.LoopMm, r.Design.Tang.TwistTurns = 0, 0
	straight := plantest.Make(t, r)
	plain, _ := figure.Solid(straight.Drawing.Finished)
	looped, _ := figure.Solid(p.Drawing.Finished)
	assert.InEpsilon(t, plain.VolumeMm3(), looped.VolumeMm3(), .01, "in the round it is as much steel")
}

// TestAWrappedTangComesBack to the ricasso, with its end free until then.
func TestAWrappedTangComesBack(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.WrappedTang)
	p := plantest.Make(t, r)
	assert.Equal(t, "cutOff", plantest.IDs(p)[len(plantest.IDs(p))-2])
	assert.Equal(t, "tang", plantest.StepOf(p, "wrap").After)
	for _, st := range [][]plan.Station{p.Drawing.Finished, plantest.After(t, p, "wrap")} {
		tang := plantest.OfTang(st)
		x0, y0 := plantest.Middle(tang[0])
		x1, y1 := plantest.Middle(tang[len(tang)-1])
		assert.InDelta(t, x0, x1, 12)
		assert.InDelta(t, 2*r.Design.Tang.TurnMm()/math.Pi, y0-y1, 6, "a half circle apart")
	}
	r.Design.SetTang(blade.RodTang)
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "wrap").ID)
}

// TestTheSweepIsSeen: a pre-curve lays the point toward the edge, the bevels bring it
// back; left to sweep it ends where it was foretold; corrected as it goes it never
// leaves the line.
func TestTheSweepIsSeen(t *testing.T) {
	r := plantest.Request()
	point := func(c plan.Curve, op string) float64 {
		r.Choices.Curve = c
		p := plantest.Make(t, r)
		_, y := plantest.Middle(plantest.After(t, p, op)[0])
		last := p.Heats[len(p.Heats)-1].Shape
		_, end := plantest.Middle(last[0])
		if c == plan.LetSweep {
			_, straight := plantest.Middle(p.Drawing.Forged[0])
			assert.Greater(t, end, straight)
			at := slices.IndexFunc(last, func(s plan.Station) bool { return s.HeightMm() > 5 }) // high enough that its lean is no rounding
			x0, y0 := last[at].Spine()
			x1, y1 := last[at].Edge()
			from := p.Drawing.ForgedZones[1].ToMm // the heel, from the point
			// an arc that comes so far ahead of the heel leans by the angle whose sine that is
			assert.InEpsilon(t, math.Asin(p.Bend.CurvaturePerMm*(from-last[at].XMm)), math.Atan2(x0-x1, y0-y1), .02, "it leans by curvature times length")
		}
		return y - end
	}
	rise := plantest.Make(t, r).Bend.RiseMm
	require.Greater(t, rise, 2.0)
	assert.InDelta(t, -rise, point(plan.PreCurveFirst, "preCurve"), .5*rise)
	assert.InDelta(t, 0, point(plan.PreCurveFirst, "bevel"), .05)
	assert.InDelta(t, 0, point(plan.CorrectAsYou, "bevel"), .05)
	assert.InDelta(t, 0, point(plan.LetSweep, "correct"), .05)
}

// TestADrivenNotchIsForged: its steel is not in the bar, and nothing of it is cut
// later; the ricasso is whole until it is driven in.
func TestADrivenNotchIsForged(t *testing.T) {
	r := plantest.Request()
	r.Design.Ricasso.LengthMm, r.Design.Ricasso.NotchMm = 24, 5
	cut := plantest.Make(t, r)
	r.Choices.Notch = plan.NotchForged
	driven := plantest.Make(t, r)
	taken := math.Pi / 2 * 25 * driven.ForgedZones[plan.ZoneRicasso] / (24*r.Design.Ricasso.HeightMm + 24*2*r.Allowances.OutlineMm - math.Pi/2*25)
	assert.InEpsilon(t, taken, cut.Forged.VolumeMm3-driven.Forged.VolumeMm3, 1e-6)
	assert.InEpsilon(t, driven.Forged.VolumeMm3, driven.ForgedZones[plan.ZonePoint]+driven.ForgedZones[plan.ZoneBlade]+driven.ForgedZones[plan.ZoneRicasso]+driven.ForgedZones[plan.ZoneTang], 1e-3)
	assert.Less(t, driven.Bar.CutLengthMm, cut.Bar.CutLengthMm)
	codes := func(p *plan.Plan) (out []string) {
		for _, l := range p.Ledger {
			for _, part := range l.Parts {
				out = append(out, part.Code)
			}
		}
		return out
	}
	assert.Contains(t, codes(cut), "ledger.cutLater")
	assert.NotContains(t, codes(driven), "ledger.cutLater")
	lowest := func(p *plan.Plan) float64 {
		least := math.Inf(1)
		for _, s := range p.Heats[len(p.Heats)-1].Shape {
			if s.Zone == plan.ZoneRicasso {
				least = math.Min(least, s.HeightMm())
			}
		}
		return least
	}
	assert.InDelta(t, 5, lowest(cut)-lowest(driven), .3)
}

// TestTheHandleBendsWithItsTang: no wall is lost by it, and the holes stay in the
// tang.
func TestTheHandleBendsWithItsTang(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.FullTang)
	r.Design.AddHole()
	plantest.Handle(&r)
	straight := plantest.Make(t, r)
	r.Design.Tang.CurveMm = 5
	p := plantest.Make(t, r)
	require.Len(t, p.Drawing.Handle, len(straight.Drawing.Handle))
	butt := func(p *plan.Plan) (lowest float64) {
		for _, n := range p.Drawing.Handle[len(p.Drawing.Handle)-1].Outline {
			lowest = math.Min(lowest, n[1])
		}
		return lowest
	}
	k, long := r.Design.Tang.CurvePerMm(), r.Design.Tang.LengthMm
	assert.InDelta(t, (1-math.Cos(k*long))/k, butt(straight)-butt(p), 4)
	assert.InDelta(t, straight.Whole.LeastWallMm, p.Whole.LeastWallMm, 1e-9)
	assert.Less(t, p.Drawing.Push.Butt[1], straight.Drawing.Push.Butt[1]-5)
	assert.Greater(t, math.Abs(straight.Whole.PointAngleDeg-p.Whole.PointAngleDeg), 3.0, "the push is turned with it")
	r.Design.Tang.CurveMm = 1e-6
	assert.InDelta(t, straight.Whole.PointAngleDeg, plantest.Make(t, r).Whole.PointAngleDeg, .1, "by the same measure")
	hole, tang := p.Drawing.Holes[0], plantest.OfTang(p.Drawing.Finished)
	least := math.Inf(1)
	for _, s := range tang {
		x, y := plantest.Middle(s)
		least = math.Min(least, math.Hypot(x-hole.XMm, y-hole.YMm))
	}
	assert.Less(t, least, 2.0, "still on the centre line")
}

// TestStretchesRunIntoEachOther: where one has been worked and the next not yet, the drawing
// has no step but at a shoulder.
func TestStretchesRunIntoEachOther(t *testing.T) {
	r := plantest.Request()
	r.Bar, r.Fire.HotLengthMm = plantest.Flat(30, 9, 900), 45 // many stretches
	p := plantest.Make(t, r)
	met, worked := 0, 0
	for _, h := range p.Heats {
		for i := 1; i < len(h.Shape); i++ {
			a, b := h.Shape[i-1], h.Shape[i]
			if b.Zone == plan.ZoneTang && a.Zone != b.Zone || b.Zone == plan.ZoneRicasso && a.Zone != b.Zone || a.SpineX != nil || math.Abs(a.XMm-b.XMm) > .03 {
				continue
			}
			met++
			assert.InDelta(t, a.HeightMm(), b.HeightMm(), .01)
			assert.InDelta(t, a.ThicknessMm, b.ThicknessMm, .01)
			if i > 1 && math.Abs(h.Shape[i-2].ThicknessMm-b.ThicknessMm) > .3 {
				worked++
			}
		}
	}
	assert.Greater(t, met, 300)
	assert.Positive(t, worked, "somewhere a worked stretch meets one that is not")
}
