package review_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOneCauseIsOneFinding: of whatever piece, each code stands once, with the places it is found at and the figures of the
// worst; and what only follows from a bar that cannot give the blade is not told beside that.
func TestOneCauseIsOneFinding(t *testing.T) {
	r := plantest.Request()
	r.Bar = plantest.Flat(26, 3.5, 1000)
	r.Design = plantest.Starter("kitchenSlicer")
	p := plantest.Make(t, r)
	count := map[string]int{}
	for _, w := range p.Warnings {
		count[w.Code]++
	}
	for code, n := range count {
		assert.Equal(t, 1, n, code)
	}
	require.Contains(t, count, "warn.tooNarrowUpset")
	assert.NotContains(t, count, "warn.upsetBends", "it would not have to be upset from a bar that is wide enough")
	folds := plantest.Warning(p, "warn.edgewiseFolds")
	require.NotEmpty(t, folds.Code)
	assert.Contains(t, folds.Zones(), plan.ZoneTang, "of the tang's own making")
	worst := 0.0
	for _, st := range p.Operations {
		if z := st.Zones[0]; z == plan.ZoneTang || z == plan.ZoneRicasso {
			worst = max(worst, st.Hammer().EdgeRatio)
		}
	}
	assert.InDelta(t, worst, folds.Figures["ratio"], .05)

	two := fact.Warning{Where: fact.Where{Zone: "tang"}, Also: []fact.Where{{Zone: "blade"}, {Zone: "tang"}, {Operation: "bevel"}}}
	assert.Equal(t, []string{"tang", "blade"}, two.Zones())
}
