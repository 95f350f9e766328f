package whatif_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatIsSoldForgesTheStarters: every starter that any size forges comes from the one that takes least of time and waste, and
// its figures are those of the plan on it.
func TestWhatIsSoldForgesTheStarters(t *testing.T) {
	found := 0
	for _, s := range blade.Starters() {
		req := plan.NewRequest(s.Design, "1084", stock.Item{}, forge.Steady)
		bar, best, err := whatif.OfSold(t.Context(), req, "1084")
		require.NoError(t, err, s.ID)
		t.Log(s.ID, bar.WidthMm, bar.ThicknessMm, best.Feasible, best.Obstacle.Code, best.Heats, best.TimeS)
		if !best.Feasible {
			assert.NotEmpty(t, best.Obstacle.Code, s.ID)
			continue
		}
		found++
		req.Bar, req.SteelID = bar, "1084"
		p, err := planner.Make(t.Context(), req)
		require.NoError(t, err, s.ID)
		assert.Empty(t, p.Obstacle().Code, s.ID)
		assert.Equal(t, p.Totals.Heats, best.Heats, s.ID)
		assert.InDelta(t, p.Bar.CutLengthMm, best.CutMm, 1e-9, s.ID)
	}
	assert.Greater(t, found, len(blade.Starters())*3/4)
}
