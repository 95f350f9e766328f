package whatif_test

import (
	"context"
	"testing"

	"coldember/core/planner/plantest"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestBackwardAgreesWithForward: the largest blade of a pattern uses the piece
// up to a thousandth of its volume, planned forward.
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
		if f.Limit == "volume" {
			assert.InEpsilon(t, forward.Bar.AvailableMm, forward.Bar.CutLengthMm, 1e-3, name)
		}
		if f.Limit == "heat" { // a thousandth more every way takes a heat of work more, and what that scales
			at := plantest.OnSalvage(p).Design
			r.Design = at.Scaled(f.Length*1.001, f.Height*1.001, f.Thickness*1.001)
			more := plantest.Make(t, r)
			assert.NotEmpty(t, more.Obstacle().Code, name)
			assert.Greater(t, more.Totals.FractionalHeats, forward.Totals.FractionalHeats*1.003+.05, name)
			assert.Greater(t, more.Bar.CutLengthMm, forward.Bar.CutLengthMm*1.004, name)
			assert.InEpsilon(t, forward.Bar.AvailableMm, forward.Bar.CutLengthMm, 3e-3, name)
		}
		r.Design = plantest.OnSalvage(p).Design.Scaled(f.Length*1.01, f.Height*1.01, f.Thickness*1.01)
		assert.NotEmpty(t, plantest.Make(t, r).Obstacle().Code, "%s: a hundredth more does not fit", name)
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
