package planner_test

import (
	"testing"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/planner"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAHollowReachesWhatLiesDeeper: where loops or stars lie deeper than the faces, a hollow is offered
// that shows them once it is taken, with the wall that it leaves; none that leaves too thin a wall.
func TestAHollowReachesWhatLiesDeeper(t *testing.T) {
	offered, refused := 0, 0
	for _, face := range []float64{.1, .3, .6, 1} {
		for _, spine := range []float64{3.5, 5, 7, 9} {
			d := blade.Starters()[0].Design
			d.SpineMm, d.TipMm, d.HeightMm = spine, spine*.7, 34
			d.Ricasso.ThicknessMm = spine
			r := asked(d, "1084")
			r.Allowances.FaceMm = face
			recipe := billet.NewRecipe("1084", "15N20")
			recipe.Turns, recipe.Pattern = 8, billet.Twist
			recipe.BarWidthMm, recipe.BarThicknessMm = 34, spine+2
			r.Billet = &recipe
			p, err := planner.Make(t.Context(), r)
			if err != nil {
				continue
			}
			wishes, err := planner.Wishes(&r, p)
			require.NoError(t, err)
			for _, w := range wishes {
				lo, hi, deep := billet.Shown(w.Want)
				if !deep || w.Shows || w.Now <= hi {
					assert.Nil(t, w.Hollow, "nothing lies deeper")
					continue
				}
				if w.Hollow == nil {
					refused++
					continue
				}
				offered++
				assert.GreaterOrEqual(t, w.Hollow.WallMm, 1.0)
				taken := r
				taken.Design = planner.HollowOf(r.Design, w.Hollow.DepthMm)
				again, err := planner.Make(t.Context(), taken)
				require.NoError(t, err, "it can be taken")
				b, ok, err := planner.Etched(&taken, again, 0, false)
				require.NoError(t, err)
				require.True(t, ok)
				share, shown := b.Depth()
				assert.LessOrEqual(t, share, hi+.02, "%s", w.Want)
				if share >= lo {
					assert.Equal(t, w.Want, shown)
				}
			}
		}
	}
	assert.Greater(t, offered, 3)
	t.Logf("%d offered, %d would leave too thin a wall", offered, refused)
}
