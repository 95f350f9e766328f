package route_test

import (
	"context"
	"errors"
	"math"
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/route"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestHardeningFromTheForgeComesLast: after the cycles, at the steel's own heat and
// soak, and it does not change what bar is needed.
func TestHardeningFromTheForgeComesLast(t *testing.T) {
	r := plantest.Request()
	later := plantest.Make(t, r)
	assert.Empty(t, plantest.StepOf(later, "harden").ID)
	r.Choices.Harden = plan.HardenForged
	p := plantest.Make(t, r)
	st := p.Operations[len(p.Operations)-1]
	assert.Equal(t, "harden", st.ID)
	assert.InDelta(t, p.Steel.AustenitiseC, st.TargetC, 0)
	assert.InDelta(t, p.Steel.SoakMin*60, st.Fire().SoakS, 0)
	assert.Contains(t, st.CautionCodes, "caution.quench")
	last := p.Heats[len(p.Heats)-1]
	assert.Equal(t, "harden", last.Parts[0].Operation)
	assert.Greater(t, last.FireS, st.Fire().SoakS)
	assert.Greater(t, last.ScaleMm3, 0.0)
	assert.InDelta(t, later.Bar.CutLengthMm, p.Bar.CutLengthMm, 0)
	assert.Equal(t, later.Totals.Heats, p.Totals.Heats)
	assert.Equal(t, later.Totals.Cycles, p.Totals.Cycles)
	assert.Greater(t, p.Totals.CycleTimeS, later.Totals.CycleTimeS+st.Fire().SoakS)
	assert.Greater(t, p.Totals.DecarbMm, later.Totals.DecarbMm, "its soak counts for the skin")
}

// TestNothingHotAfterHardening: refused with that sentence; forced, the cycles and the
// hardening come where they are asked for, and what they scale sizes the bar.
func TestNothingHotAfterHardening(t *testing.T) {
	r := plantest.Request()
	r.Choices.Harden, r.Choices.Order = plan.HardenForged, []string{"correct", "planish", "harden", "cutOff"}
	_, err := planner.Make(context.Background(), r)
	var fe fact.FieldErrors
	require.True(t, errors.As(err, &fe), "%v", err)
	require.Len(t, fe, 1)
	assert.Equal(t, "need.nothingHotAfterHardening", fe[0].Code)
	r.Choices.Forced = true
	p := plantest.Make(t, r)
	var order []string
	for _, o := range p.Operations[len(p.Operations)-6:] {
		order = append(order, o.ID)
	}
	assert.Equal(t, []string{"planish", "cycle1", "cycle2", "cycle3", "harden", "cutOff"}, order)
	assert.Equal(t, "cutOff", p.Heats[len(p.Heats)-1].Parts[0].Operation)
	w := plantest.Warning(p, "warn.order.nothingHotAfterHardening")
	assert.Equal(t, "cutOff", w.Where.Operation)
	assert.Greater(t, w.Figures["soakC"], w.Figures["limitC"])
	r.Choices.Order, r.Choices.Forced = nil, false
	assert.Greater(t, p.Bar.CutLengthMm, plantest.Make(t, r).Bar.CutLengthMm)
}

// TestATouchOfTheWheelDrawsTheTemper by the same law as the temper itself.
func TestATouchOfTheWheelDrawsTheTemper(t *testing.T) {
	r := plantest.Request()
	r.Choices.Harden = plan.HardenForged
	f := plantest.Warning(plantest.Make(t, r), "warn.grindHot").Figures
	assert.InDelta(t, steel.HollomonJaffe(f["temperC"], 2), steel.HollomonJaffe(f["flashC"], 1./3600), 1e-9)
	assert.Greater(t, f["flashC"], f["temperC"])
	assert.Greater(t, f["edgeMm"], f["finishedMm"])
	r.Design.Grind.PlungeMm = 20
	assert.InDelta(t, f["edgeMm"], plantest.Warning(plantest.Make(t, r), "warn.grindHot").Figures["edgeMm"], 1e-9, "where the bevel runs out is no edge")
	plantest.ForgedEdge(&r, 1.5)
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), "warn.grindHot").Code)
}

// TestAPatternLiesAsDeepAsItsShare of what is forged; near the middle it asks for more
// than can be left.
func TestAPatternLiesAsDeepAsItsShare(t *testing.T) {
	r := plantest.Request()
	r.Choices.SteelPattern = plan.LoopsQuarterDeep
	w := plantest.Warning(plantest.Make(t, r), "warn.patternDeep")
	assert.InEpsilon(t, w.Figures["forgedMm"]/4, w.Figures["depthMm"], 1e-9)
	assert.InEpsilon(t, r.Allowances.FaceMm, w.Figures["groundMm"], 1e-6)
	assert.InEpsilon(t, r.Design.SpineMm/2, w.Figures["needMm"], 1e-6, "half as thick again on either side")
	require.NotNil(t, w.Remedy)
	assert.InDelta(t, math.Ceil(w.Figures["needMm"]*20-1e-9)/20, w.Remedy.Mm, 1e-9, "rounded up to the twentieth")
	r.Choices.SteelPattern = plan.StarsNearMiddle
	w = plantest.Warning(plantest.Make(t, r), "warn.patternDeep")
	assert.Greater(t, w.Figures["needMm"], 4.0)
	assert.Nil(t, w.Remedy)
}

// TestSoftening stands after the cycles and below where any steel turns, once.
func TestSoftening(t *testing.T) {
	for _, g := range steel.Grades() {
		for _, school := range []plan.Cycles{plan.Descending, plan.Equal, plan.Once, plan.SlowAnneal} {
			without := route.ThermalCycles(plan.Choices{Cycles: school}, g)
			with := route.ThermalCycles(plan.Choices{Cycles: school, Soften: true}, g)
			last := with[len(with)-1]
			if n := len(without); n > 0 && without[n-1].Kind == route.KindAnneal {
				assert.Equal(t, without, with, "%s is soft already", g.ID)
				continue
			}
			assert.Equal(t, append([]route.Cycle{}, without...), with[:len(with)-1])
			assert.Equal(t, route.KindSoften, last.Kind)
			assert.Less(t, last.TempC, 700.0)
			assert.Positive(t, last.HoldS)
		}
	}
}
