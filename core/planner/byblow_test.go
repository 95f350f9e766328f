package planner_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPlanFollowedBlowByBlow comes to what the plan says, of every starter: by a hand whose blows land evenly its heats within
// 3 % or one heat of four plans in five, of none beyond 6 %, of all together within 2.5 %; its sections within a tenth of a
// millimetre. These are the pieces that the way of striking was chosen by, and the bounds were set by what it came to: on others it
// agrees less well (docs/laws.md). By hands that are drawn the heats of all together come within 6 %, and always the same for a seed.
func TestAPlanFollowedBlowByBlow(t *testing.T) {
	pieces := map[string]plan.Request{"utility": plantest.Request(), "reference": plantest.Sanity(25, 5), "slicer": plantest.Slicer(plantest.Flat(40, 6, 610))}
	for i, s := range blade.Starters()[1:] {
		if i < 6 || !testing.Short() {
			pieces[s.ID] = plan.NewRequest(s.Design, "80CrV2", plantest.Flat(40, 6, 1600), forge.Steady)
		}
	}
	follow := func(name string, r plan.Request, seed uint64) (p, w *plan.Plan) {
		p, w, err := planner.BlowByBlow(context.Background(), r, seed)
		require.NoError(t, err, name)
		a, b := p.Heats[p.Totals.Heats-1].Shape, w.Heats[w.Totals.Heats-1].Shape
		require.Len(t, b, len(a), name)
		for i := 1; i < len(a)-1; i++ { // the two ends are drawn on from the cells by their slope
			assert.InDelta(t, a[i].HeightMm(), b[i].HeightMm(), .1, "%s %d", name, i)
			assert.InDelta(t, a[i].ThicknessMm, b[i].ThicknessMm, .1, "%s %d", name, i)
		}
		return p, w
	}
	var planned, came, drawn float64
	near := 0
	for name, r := range pieces {
		p, w := follow(name, r, forge.Evenly)
		off := math.Abs(float64(w.Totals.Heats - p.Totals.Heats))
		if off <= math.Max(1, .03*float64(p.Totals.Heats)) {
			near++
		}
		assert.LessOrEqual(t, off, math.Max(1, .06*float64(p.Totals.Heats)), name)
		assert.InDelta(t, 1, w.Totals.FractionalHeats/p.Totals.FractionalHeats, .06, name)
		planned, came = planned+p.Totals.FractionalHeats, came+w.Totals.FractionalHeats
		_, w = follow(name, r, 1)
		drawn += w.Totals.FractionalHeats
	}
	t.Logf("heats: %.1f planned, %.1f evenly, %.1f drawn; %d of %d near", planned, came, drawn, near, len(pieces))
	assert.GreaterOrEqual(t, near, len(pieces)*4/5)
	assert.InDelta(t, 1, came/planned, .025)
	assert.InDelta(t, 1, drawn/planned, .06)
	_, first, err := planner.BlowByBlow(context.Background(), pieces["utility"], 1)
	require.NoError(t, err)
	_, again, err := planner.BlowByBlow(context.Background(), pieces["utility"], 1)
	require.NoError(t, err)
	assert.Equal(t, first.Totals, again.Totals, "drawn by the seed")
}

// TestThePlanAgainIsThePlan: the same hands on the same bar come to the very same heats and sections.
func TestThePlanAgainIsThePlan(t *testing.T) {
	for name, r := range map[string]plan.Request{"utility": plantest.Request(), "reference": plantest.Sanity(25, 5), "slicer": plantest.Slicer(plantest.Flat(40, 6, 610))} {
		p, was, err := planner.InOtherHands(context.Background(), r, r)
		require.NoError(t, err, name)
		assert.Equal(t, p.Totals.FractionalHeats, was.Totals.FractionalHeats, name)
		assert.Equal(t, p.Totals.Blows, was.Totals.Blows, name)
		assert.Equal(t, p.Heats[p.Totals.Heats-1].Shape, was.Heats[p.Totals.Heats-1].Shape, name)
	}
}
