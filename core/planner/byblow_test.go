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

// TestAPlanFollowedBlowByBlow comes to what the plan says, of every starter: by a hand whose blows land evenly to its heats within
// 3 %, counted in parts as they follow each other, of all together within 1 %; to its whole heats within 3 % or one of nine plans in
// ten, of none beyond 6 % or one; to its sections within a tenth of a millimetre. By hands that are drawn to the heats of all together
// within 3 %, to the sections alike, and always the same for a seed.
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
		assert.InDelta(t, 1, struckS(w)/struckS(p), .06, name)
		planned, came = planned+struckS(p), came+struckS(w)
		_, w = follow(name, r, 1)
		drawn += struckS(w)
	}
	t.Logf("at the anvil: %.0f s planned, %.0f evenly, %.0f drawn; %d of %d near", planned, came, drawn, near, len(pieces))
	assert.GreaterOrEqual(t, near, len(pieces)*9/10)
	assert.InDelta(t, 1, came/planned, .01)
	assert.InDelta(t, 1, drawn/planned, .03)
	_, first, err := planner.BlowByBlow(context.Background(), pieces["utility"], 1)
	require.NoError(t, err)
	_, again, err := planner.BlowByBlow(context.Background(), pieces["utility"], 1)
	require.NoError(t, err)
	assert.Equal(t, first.Totals, again.Totals, "drawn by the seed")
}

// struckS is the time at the anvil of all forging heats.
func struckS(p *plan.Plan) (s float64) {
	for _, h := range p.Heats[:p.Totals.Heats] {
		s += h.WorkS
	}
	return s
}

// BenchmarkFollowedElsewhere tells how well a plan is followed blow by blow on pieces that the way of striking was not chosen by:
// plans, those whose heats (counted in parts, as they follow each other) are within 3 %, those whose whole heats are within 3 % or
// one, heats over those planned, the worst of a plan, and how far any section is off, mm. No way of striking was tried on these
// plans; whoever tries one on them takes others here.
func BenchmarkFollowedElsewhere(b *testing.B) {
	for b.Loop() {
		var plans, within, orOne, planned, came, worst, offMm float64
		for _, c := range []struct {
			steel           string
			wideMm, thickMm float64
			hand            forge.Skill
		}{{"W1", 45, 7, forge.Learning}, {"1095", 40, 8, forge.Steady}, {"5160", 32, 6, forge.Sure}, {"1075", 30, 9, forge.Steady}, {"80CrV2", 60, 6, forge.Sure}, {"O1", 38, 10, forge.Learning}} {
			for _, s := range blade.Starters() {
				r := plan.NewRequest(s.Design, c.steel, plantest.Flat(c.wideMm, c.thickMm, 1600), c.hand)
				if _, err := planner.Make(context.Background(), r); err != nil {
					continue // no plan, nothing to follow
				}
				p, w, err := planner.BlowByBlow(context.Background(), r, forge.Evenly)
				require.NoError(b, err, s.ID)
				heats := float64(p.Totals.Heats)
				off := math.Abs(float64(w.Totals.Heats) - heats)
				plans, planned, came = plans+1, planned+p.Totals.FractionalHeats, came+w.Totals.FractionalHeats
				parts := math.Abs(w.Totals.FractionalHeats/p.Totals.FractionalHeats - 1)
				if parts <= .03 {
					within++
				}
				if off <= math.Max(1, .03*heats) {
					orOne++
				}
				worst = math.Max(worst, parts)
				was, is := p.Heats[p.Totals.Heats-1].Shape, w.Heats[w.Totals.Heats-1].Shape
				for i := 1; i < len(was)-1; i++ {
					offMm = math.Max(offMm, math.Max(math.Abs(was[i].HeightMm()-is[i].HeightMm()), math.Abs(was[i].ThicknessMm-is[i].ThicknessMm)))
				}
			}
		}
		b.ReportMetric(plans, "plans")
		b.ReportMetric(within, "within-3%")
		b.ReportMetric(orOne, "or-one-heat")
		b.ReportMetric(came/planned, "heats/planned")
		b.ReportMetric(worst, "worst")
		b.ReportMetric(offMm, "mm-off")
	}
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
