package whatif_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/planner/plantest"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestBackwardAgreesWithForward: the largest blade of a pattern is made of the piece, planned forward,
// and one a thousandth larger every way is not. Where the steel is what limits it, all but a thousandth is
// used, or what steps in the plan itself where its last heat is just used up.
func TestBackwardAgreesWithForward(t *testing.T) {
	for name, p := range map[string]stock.Item{
		"roller": {Form: stock.Roller, DiameterMm: 24, LengthMm: 36},
		"ball":   {Form: stock.Ball, DiameterMm: 38},
		"stub":   {Form: stock.Flat, WidthMm: 30, ThicknessMm: 8, LengthMm: 70},
	} {
		r := plantest.OnSalvage(p)
		r.CellCount = 20
		f, err := whatif.Largest(context.Background(), r, whatif.AnyWay())
		require.NoError(t, err, name)
		r.Design = f.Design
		forward := plantest.Make(t, r)
		assert.Empty(t, forward.Obstacle().Code, name)
		r.Design = plantest.OnSalvage(p).Design.Scaled(f.Length*1.001, f.Height*1.001, f.Thickness*1.001)
		more := plantest.Make(t, r)
		assert.NotEmpty(t, more.Obstacle().Code, "%s: a thousandth more does not fit", name)
		if f.Limit == "volume" {
			step := (more.Bar.CutLengthMm-forward.Bar.CutLengthMm)/forward.Bar.CutLengthMm - .003
			assert.InEpsilon(t, forward.Bar.AvailableMm, forward.Bar.CutLengthMm, 1e-3+math.Max(0, step), name)
			assert.Less(t, step, .003, "%s: what a sweep of plans may step by", name)
		}
	}
}

func TestOnlyWhatIsFreeScales(t *testing.T) {
	r := plantest.OnSalvage(stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 120})
	f, err := whatif.Largest(context.Background(), r, whatif.Freedom{Length: whatif.Axis{Free: true, Lowest: .5, Highest: 3}})
	require.NoError(t, err)
	assert.InDelta(t, r.Design.HeightMm, f.Design.HeightMm, 1e-9)
	assert.InDelta(t, r.Design.SpineMm, f.Design.SpineMm, 1e-9)
	assert.NotEqual(t, r.Design.LengthMm, f.Design.LengthMm)
	capped, err := whatif.Largest(context.Background(), r, whatif.Freedom{Length: whatif.Axis{Free: true, Lowest: .5, Highest: 1.01}})
	require.NoError(t, err)
	assert.Equal(t, "limits", capped.Limit)
	_, err = whatif.Largest(context.Background(), r, whatif.Freedom{})
	require.ErrorContains(t, err, "plan.nothingFree")
	tiny := plantest.OnSalvage(stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 12})
	_, err = whatif.Largest(context.Background(), tiny, whatif.Freedom{Length: whatif.Axis{Free: true, Lowest: .9, Highest: 3}})
	var none *whatif.NoFitError
	require.ErrorAs(t, err, &none)
	assert.Equal(t, "warn.volumeShort", none.Why.Code)
}

func TestUniformFactor(t *testing.T) {
	k, used := whatif.UniformFactor(1000, 10000, .2)
	assert.InDelta(t, 8000, used, 1e-9)
	assert.InDelta(t, 2, k, 1e-12)
}

func BenchmarkLargest(b *testing.B) {
	r := plantest.OnSalvage(stock.Item{Form: stock.Roller, DiameterMm: 24, LengthMm: 36})
	for b.Loop() {
		_, err := whatif.Largest(context.Background(), r, whatif.AnyWay())
		require.NoError(b, err)
	}
}
