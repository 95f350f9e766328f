package route_test

import (
	"slices"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// of is a starter from a bar.
func of(id string, bar stock.Item) plan.Request {
	r := plantest.Request()
	r.Design, r.Bar = plantest.Starter(id), bar
	return r
}

// TestABentBladeIsFormedWhenAllElseIsDone: hot over a mandrel, after planishing and before
// cycles and hardening; the quench says what it asks for.
func TestABentBladeIsFormedWhenAllElseIsDone(t *testing.T) {
	r := of("spoon", plantest.Flat(20, 4, 600))
	r.SteelID, r.Choices.Harden = "1084", plan.HardenForged
	p := plantest.Make(t, r)
	ids := plantest.IDs(p)
	form := slices.Index(ids, "formFlat")
	require.Positive(t, form)
	assert.Greater(t, form, slices.Index(ids, "planish"))
	step := plantest.StepOf(p, "formFlat")
	assert.Positive(t, step.Heats)
	assert.Positive(t, step.Hammer().Strokes+step.Hammer().Blows)
	assert.Contains(t, plantest.StepOf(p, "harden").CautionCodes, "caution.bentQuench")
	require.NotNil(t, p.Drawing.Bent)
	assert.InDelta(t, 32, p.Drawing.Bent.FormMm, 1e-9)

	tight := r
	bend := *r.Design.FlatBend
	bend.RadiusMm, bend.LongMm = 6, 20
	tight.Design.FlatBend = &bend
	assert.Greater(t, plantest.StepOf(plantest.Make(t, tight), "formFlat").Hammer().Blows, 0.0)
	assert.Equal(t, "warn.formTight", plantest.Warning(plantest.Make(t, tight), "warn.formTight").Code)
}

// TestABladeIsBentToItsLine before the bevels make its edge too thin to be struck; a straight
// one is not.
func TestABladeIsBentToItsLine(t *testing.T) {
	ids := plantest.IDs(plantest.Make(t, of("sickle", plantest.Flat(30, 6, 600))))
	require.Contains(t, ids, "lineCurve")
	assert.Less(t, slices.Index(ids, "lineCurve"), slices.Index(ids, "bevel"))
	assert.Greater(t, slices.Index(ids, "lineCurve"), slices.Index(ids, "profile"))
	assert.NotContains(t, plantest.IDs(plantest.Make(t, of("utility", plantest.Flat(25, 5, 600)))), "lineCurve")
}

// TestAnIntegralBolsterComesOutOfTheBar: from a bar as thick as it is, blade and tang are drawn
// down and the bolster keeps its thickness; from a thinner one it cannot.
func TestAnIntegralBolsterComesOutOfTheBar(t *testing.T) {
	p := plantest.Make(t, of("integral", plantest.Flat(32, 16, 300)))
	d := plantest.Starter("integral")
	last := p.Heats[p.Totals.Heats-1].Shape
	var ricasso, blade float64
	for _, s := range last {
		switch s.Zone {
		case plan.ZoneRicasso:
			ricasso = max(ricasso, s.ThicknessMm)
		case plan.ZoneBlade:
			blade = max(blade, s.ThicknessMm)
		}
	}
	assert.GreaterOrEqual(t, ricasso, d.Ricasso.ThicknessMm)
	assert.Less(t, blade, 8.0)
	assert.Empty(t, plantest.Warning(p, "warn.ricassoThin").Code)
	high := 0.0
	for _, s := range p.Drawing.Finished {
		if s.Zone == plan.ZoneRicasso {
			high = max(high, s.SpineY)
		}
	}
	assert.InDelta(t, d.Ricasso.RiseMm, high, 1e-9, "it stands over the spine")
	thin := plantest.Make(t, of("integral", plantest.Flat(32, 8, 300)))
	assert.NotEmpty(t, plantest.Warning(thin, "warn.upset").Code, "it is short enough to be upset")
	long := of("integral", plantest.Flat(32, 8, 300))
	long.Design.Ricasso.LengthMm = 60
	assert.NotEmpty(t, plantest.Warning(plantest.Make(t, long), "warn.ricassoThin").Code)
}
