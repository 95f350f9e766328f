package route_test

import (
	"math"
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
	point, tang := turns(25, 25./3)
	assert.Zero(t, point)
	assert.Zero(t, tang)
	point, tang = turns(25, 8.3)
	assert.Equal(t, 1, point)
	assert.Equal(t, 1, tang)
	point, tang = turns(25, 5)
	want := math.Ceil(math.Log(25./15) / .08)
	assert.InDelta(t, want, tang, 0, "down to three times its thickness")
	assert.GreaterOrEqual(t, tang, point)
	wide, _ := turns(28, 5)
	assert.GreaterOrEqual(t, wide, point)
	r := plantest.Request()
	for _, st := range plantest.Make(t, r).Operations {
		if st.Kind != "point" && st.Kind != "tang" {
			assert.Zero(t, st.Hammer().EdgeTurns, st.Kind)
		}
	}
}
