package route_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/route"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestThreeThicknessesStandFree, no more: past three times its lesser side an upset end
// bends over instead.
func TestThreeThicknessesStandFree(t *testing.T) {
	r := plantest.Request()
	r.Bar.ThicknessMm = 6
	start, err := r.Bar.Even()
	require.NoError(t, err)
	body, err := blade.New(figure.ForgedShape(r, r.Design.Blade(), start))
	require.NoError(t, err)
	assert.InDelta(t, 18, route.New(&r, start, body, figure.ZonesOf(body)).UpsetLimitMm(), 1e-12)
}

// TestSteelsThatCoarsenAreSoftenedJustBelowCritical: let fall slowly from above, O1, L6 and
// what has over 0.9 % of carbon get coarse carbides; plain steels are let fall.
func TestSteelsThatCoarsenAreSoftenedJustBelowCritical(t *testing.T) {
	for id, want := range map[string]float64{"O1": 680, "L6": 680, "1095": 680, "W1": 680, "52100": 680, "1084": 760, "1075": 760, "5160": 760} {
		g, err := steel.Find(id)
		require.NoError(t, err)
		c := route.ThermalCycles(plan.Choices{Cycles: plan.SlowAnneal}, g)
		require.NotEmpty(t, c, id)
		assert.Equal(t, route.Cycle{Kind: route.KindAnneal, TempC: want}, c[len(c)-1], id)
	}
}

// TestTwoOfAKindHaveIdsOfTheirOwn, which tools and orders refer to.
func TestTwoOfAKindHaveIdsOfTheirOwn(t *testing.T) {
	for n, want := range map[int]string{1: "twist", 2: "twist2", 13: "twist13"} {
		id := plan.OperationID(forge.Twist, n)
		assert.Equal(t, want, id)
		assert.Equal(t, forge.Twist, plan.KindOf(id))
	}
	r := plantest.Request()
	r.Choices.Tools = []plan.ToolUse{{Operation: "profile2", Face: forge.PeenAcross}}
	assert.Equal(t, plantest.StepOf(plantest.Make(t, plantest.Request()), "profile").Forging.Face, plantest.StepOf(plantest.Make(t, r), "profile").Forging.Face, "the second's tool is not the first's")
	seen := map[string]bool{}
	for _, o := range plantest.Make(t, r).Operations {
		assert.False(t, seen[o.ID], o.ID)
		seen[o.ID] = true
	}
}
