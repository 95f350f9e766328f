package whatif_test

import (
	"context"
	"testing"

	"coldember/core/planner/plantest"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheTotalsHaveTheirBands: around the plan, the same for a seed however the
// draws are shared out or called in parts, wider with more doubt.
func TestTheTotalsHaveTheirBands(t *testing.T) {
	ctx := context.Background()
	r := plantest.Request()
	r.CellCount = 16
	whole, err := whatif.Doubts(ctx, r, whatif.UsualDoubt(), nil, 0, 60, 5, 2)
	require.NoError(t, err)
	assert.Equal(t, 60, len(whole.Samples)+whole.Failed)
	part, err := whatif.Doubts(ctx, r, whatif.UsualDoubt(), nil, 0, 25, 5, 1)
	require.NoError(t, err)
	part, err = whatif.Doubts(ctx, r, whatif.UsualDoubt(), part.Samples, 25, 35, 5, 3)
	require.NoError(t, err)
	assert.Equal(t, whole.Samples, part.Samples)
	assert.Equal(t, whole.TimeS, part.TimeS)
	p := plantest.Make(t, r)
	for name, b := range map[string]whatif.Band{"heats": whole.Heats, "blows": whole.Blows, "time": whole.TimeS, "fuel": whole.FuelG, "cut": whole.CutMm} {
		assert.LessOrEqual(t, b.Low, b.Mid, name)
		assert.LessOrEqual(t, b.Mid, b.High, name)
	}
	assert.Less(t, whole.TimeS.Low, p.Totals.TimeS)
	assert.Greater(t, whole.TimeS.High, p.Totals.TimeS)
	sure, err := whatif.Doubts(ctx, r, whatif.Doubt{}, nil, 0, 10, 5, 2)
	require.NoError(t, err)
	assert.InDelta(t, p.Totals.TimeS, sure.TimeS.Low, 1e-9, "without doubt, the plan itself")
	assert.InDelta(t, sure.TimeS.Low, sure.TimeS.High, 1e-9)
	_, err = whatif.Doubts(ctx, r, whatif.Doubt{}, nil, 0, 0, 5, 2)
	require.ErrorContains(t, err, "draws")
	gone, cancel := context.WithCancel(ctx)
	cancel()
	_, err = whatif.Doubts(gone, r, whatif.UsualDoubt(), nil, 0, 500, 5, 2)
	require.ErrorIs(t, err, context.Canceled)
}

func BenchmarkDoubts500(b *testing.B) {
	r := plantest.Request()
	for b.Loop() {
		_, err := whatif.Doubts(context.Background(), r, whatif.UsualDoubt(), nil, 0, 500, 1, 2)
		require.NoError(b, err)
	}
}
