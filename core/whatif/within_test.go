package whatif_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWithinIsWhatDrawingTells: the band by two plans a source is that of hundreds of drawn plans, to a seventh of its
// figures; less doubt narrows it, and none leaves the figure alone.
func TestWithinIsWhatDrawingTells(t *testing.T) {
	ctx := context.Background()
	for name, r := range map[string]plan.Request{"utility": plantest.Request(), "reference": plantest.Sanity(25, 5)} {
		r.CellCount = 12
		drawn, err := whatif.Doubts(ctx, r, whatif.UsualDoubt(), nil, 0, 300, 11, 0)
		require.NoError(t, err)
		told, err := whatif.BeWithin(ctx, r, whatif.UsualDoubt())
		require.NoError(t, err)
		for figure, b := range map[string][2]whatif.Band{
			"heats": {told.Heats, drawn.Heats}, "blows": {told.Blows, drawn.Blows}, "time": {told.TimeS, drawn.TimeS}, "fuel": {told.FuelG, drawn.FuelG}, "bar": {told.CutMm, drawn.CutMm},
		} {
			assert.Less(t, b[0].Low, b[0].Mid, name, figure)
			assert.Greater(t, b[0].High, b[0].Mid, name, figure)
			assert.InDelta(t, 0, math.Log(b[0].Low/b[1].Low), .15, "%s %s %v %v", name, figure, b[0], b[1])
			assert.InDelta(t, 0, math.Log(b[0].High/b[1].High), .15, "%s %s %v %v", name, figure, b[0], b[1])
		}
		surer := whatif.UsualDoubt()
		surer.Energy, surer.Flow, surer.Redundant, surer.Scale = .05, .05, .05, .2
		narrow, err := whatif.BeWithin(ctx, r, surer)
		require.NoError(t, err)
		assert.Less(t, narrow.Blows.High-narrow.Blows.Low, told.Blows.High-told.Blows.Low)
		none, err := whatif.BeWithin(ctx, r, whatif.Doubt{})
		require.NoError(t, err)
		assert.InEpsilon(t, none.Blows.Low, none.Blows.High, .03, "no doubt, no band")
	}
	r := plantest.Request()
	r.Design.LengthMm = -1
	_, err := whatif.BeWithin(ctx, r, whatif.UsualDoubt())
	require.Error(t, err)
	gone, cancel := context.WithCancel(ctx)
	cancel()
	_, err = whatif.BeWithin(gone, plantest.Request(), whatif.UsualDoubt())
	require.ErrorIs(t, err, context.Canceled)
}

func BenchmarkWithin(b *testing.B) {
	r := plantest.Request()
	for b.Loop() {
		_, err := whatif.BeWithin(context.Background(), r, whatif.UsualDoubt())
		require.NoError(b, err)
	}
}
