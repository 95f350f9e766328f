package route_test

import (
	"math"
	"strings"
	"testing"

	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWorkOnEdgeGoesByTurns: light taps and flat blows while the bar is more than
// three times as wide as thick, and none from there on.
func TestWorkOnEdgeGoesByTurns(t *testing.T) {
	turns := func(w, thick float64) (point, tang int) {
		r := plantest.Request()
		r.Bar = plantest.Flat(w, thick, 900)
		p := plantest.Make(t, r)
		require.Empty(t, plantest.Warning(p, "warn.edgewiseFolds").Code)
		note := plantest.Warning(p, "warn.edgewise")
		require.Equal(t, plantest.StepOf(p, "tang").Hammer().EdgeTurns > 0, note.Code != "", "what goes by turns is said")
		return plantest.StepOf(p, "point").Hammer().EdgeTurns, plantest.StepOf(p, "tang").Hammer().EdgeTurns
	}
	point, tang := turns(25, 8.7)
	assert.Zero(t, point)
	assert.Zero(t, tang)
	point, tang = turns(25, 8)
	assert.Equal(t, 1, point)
	assert.Equal(t, 1, tang)
	point, tang = turns(25, 5)
	assert.GreaterOrEqual(t, tang, int(math.Ceil(math.Log(25./15)/.08)), "down to three times its thickness")
	assert.GreaterOrEqual(t, tang, point)
	wide, _ := turns(28, 5)
	assert.GreaterOrEqual(t, wide, point)
}

// TestTheSectionOfTheMomentCounts: what was made flat before is wider for its thickness than
// the bar was, and a preform that is narrowed from it goes by turns though the bar need not.
func TestTheSectionOfTheMomentCounts(t *testing.T) {
	r := plantest.Request()
	r.Bar = plantest.Flat(34, 14, 900) // not even three times as wide as thick
	p := plantest.Make(t, r)
	require.NotEmpty(t, plantest.StepOf(p, "breakDown").ID)
	point := plantest.StepOf(p, "point").Hammer()
	assert.Greater(t, point.EdgeRatio, 3.0)
	assert.Positive(t, point.EdgeTurns)
	found := false
	for _, w := range p.Warnings {
		found = found || strings.HasPrefix(w.Code, "warn.edgewise") && w.Where.Operation == "point"
	}
	assert.True(t, found, "and it is said there")
}
