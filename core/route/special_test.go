package route_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestASpecialWishIsAnOperation: each has its place, its heat and its strokes,
// and the blade stays the same size.
func TestASpecialWishIsAnOperation(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.RodTang)
	plain := plantest.Make(t, r)
	r.Choices.Stamp = true
	r.Design.Tang.TwistTurns, r.Design.Tang.CurveMm, r.Design.Tang.LoopMm = 3, 4, 8
	p := plantest.Make(t, r)
	assert.Equal(t, []string{"correct", "planish", "stamp", "twist", "tangCurve", "cutOff", "loop"}, plantest.IDs(p)[len(plantest.IDs(p))-7:])
	assert.InDelta(t, 12, plantest.StepOf(p, "twist").Hammer().Strokes, 1e-9, "four quarter turns each")
	assert.InDelta(t, 12, plantest.StepOf(p, "twist").Hammer().Blows, .01)
	loop := plantest.StepOf(p, "loop")
	assert.InEpsilon(t, math.Pi*(8+r.Design.Tang.ThicknessAtEndMm)/8, loop.Hammer().Strokes, 1e-9)
	assert.Equal(t, []string{plan.ZoneTang}, loop.Zones)
	for _, id := range []string{"stamp", "twist", "tangCurve", "loop"} {
		assert.Positive(t, plantest.StepOf(p, id).Heats, id)
		assert.NotEqual(t, "need.first", plantest.StepOf(p, id).BecauseCode, id)
	}
	assert.Greater(t, p.Totals.FractionalHeats, plain.Totals.FractionalHeats)
	assert.InEpsilon(t, plain.Forged.VolumeMm3, p.Forged.VolumeMm3, 1e-9)

	r.Design.SetTang(blade.HiddenTang)
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "twist").ID, "a tang within a handle is not twisted")
	r.Design.Tang.TwistTurns = 1
	assert.ErrorContains(t, r.Validate(), "design.tang.twistTurns")
}

func TestAFalseEdgeComesAfterTheBevels(t *testing.T) {
	r := plantest.Request()
	r.Design.Grind.SwedgeFraction, r.Design.Grind.SwedgeEdgeMm = .2, 1
	p := plantest.Make(t, r)
	edge := plantest.StepOf(p, "falseEdge")
	assert.Equal(t, "bevel", edge.After)
	assert.Positive(t, edge.Hammer().Blows)
	bevel := plantest.StepOf(p, "bevel").Readings
	require.NotEmpty(t, bevel)
	assert.Greater(t, bevel[1].ThicknessMm, edge.Readings[1].ThicknessMm, "the false edge takes the rest")
}

// TestOnlyAShortStretchIsUpset: up to three times the bar's thickness it is an
// operation, past that it would bend.
func TestOnlyAShortStretchIsUpset(t *testing.T) {
	r := plantest.Request()
	r.Bar.ThicknessMm = 6
	r.Design.Ricasso.HeightMm, r.Design.Ricasso.ThicknessMm = 24, 6.5
	r.Design.HeightMm = 24
	forged := func(mm float64) *plan.Plan {
		r.Design.Ricasso.LengthMm = mm
		return plantest.Make(t, r)
	}
	short := forged(12)
	w := plantest.Warning(short, "warn.upset")
	require.Equal(t, fact.Note, w.Severity)
	assert.LessOrEqual(t, w.Figures["freeMm"], w.Figures["limitMm"])
	assert.Positive(t, plantest.StepOf(short, "upset").Hammer().Blows)
	assert.Empty(t, plantest.Warning(short, "warn.ricassoThin").Code)
	long := forged(40)
	w = plantest.Warning(long, "warn.upsetBends")
	assert.Equal(t, fact.Warn, w.Severity)
	assert.NotEmpty(t, plantest.Warning(long, "warn.ricassoThin").Code, "so it cannot be done from this bar")
	assert.Greater(t, w.Figures["freeMm"], w.Figures["limitMm"])
	assert.Empty(t, plantest.StepOf(long, "upset").ID)
	r.Bar.ThicknessMm = w.Figures["freeMm"]
	assert.Empty(t, plantest.Warning(forged(40), "warn.upsetBends").Code)
}

// TestAFingerNotchIsDrivenIn where it is wished, over a fuller, and else cut later.
func TestAFingerNotchIsDrivenIn(t *testing.T) {
	r := plantest.Request()
	r.Choices.Notch = plan.NotchForged
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "notch").ID, "no notch, nothing to drive in")
	r.Design.Ricasso.NotchMm = 5
	p := plantest.Make(t, r)
	st := plantest.StepOf(p, "notch")
	assert.Equal(t, "ricasso", st.After)
	assert.InDelta(t, 10, st.Hammer().Strokes, 0)
	assert.Equal(t, "fuller", st.Hammer().Support)
	assert.Positive(t, st.Heats)
	r.Choices.Notch = plan.NotchCut
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "notch").ID)
	r.Choices.Notch = "bitten"
	assert.ErrorContains(t, r.Validate(), "choices.notch")
}
