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

// TestAPlanFollowedBlowByBlow comes to what the plan says: its heats within 3 % over some pieces and two of any of them, its
// time within 5 %, and its sections within an eighth of a millimetre; and always the same for a hand.
func TestAPlanFollowedBlowByBlow(t *testing.T) {
	pieces := map[string]plan.Request{"utility": plantest.Request(), "reference": plantest.Sanity(25, 5), "slicer": plantest.Slicer(plantest.Flat(40, 6, 610))}
	for _, s := range blade.Starters()[1:6] {
		pieces[s.ID] = plan.NewRequest(s.Design, "80CrV2", plantest.Flat(40, 6, 800), forge.Steady)
	}
	var planned, came, plannedS, cameS float64
	for name, r := range pieces {
		for seed := uint64(1); seed < 3; seed++ {
			p, w, err := planner.BlowByBlow(context.Background(), r, seed)
			require.NoError(t, err, name)
			assert.InDelta(t, p.Totals.Heats, w.Totals.Heats, 2, name)
			planned, came = planned+float64(p.Totals.Heats), came+float64(w.Totals.Heats)
			plannedS, cameS = plannedS+p.Totals.TimeS, cameS+w.Totals.TimeS
			a, b := p.Heats[p.Totals.Heats-1].Shape, w.Heats[w.Totals.Heats-1].Shape
			require.Len(t, b, len(a), name)
			for i := range a {
				assert.InDelta(t, a[i].HeightMm(), b[i].HeightMm(), .125, "%s %d", name, i)
				assert.InDelta(t, a[i].ThicknessMm, b[i].ThicknessMm, .125, "%s %d", name, i)
			}
			if seed == 1 {
				_, again, err := planner.BlowByBlow(context.Background(), r, seed)
				require.NoError(t, err)
				assert.Equal(t, w.Totals, again.Totals, "drawn by the seed")
			}
		}
	}
	assert.Less(t, math.Abs(came/planned-1), .03, "heats %.0f of %.0f", came, planned)
	assert.Less(t, math.Abs(cameS/plannedS-1), .05)
}
