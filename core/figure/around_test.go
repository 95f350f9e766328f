package figure_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func area(loop []blade.Node) (a float64) {
	for i, p := range loop {
		q := loop[(i+1)%len(loop)]
		a += (p[0]*q[1] - q[0]*p[1]) / 2
	}
	return math.Abs(a)
}

// TestWhatIsCutOutHoldsTheForgedShape: the whole outline is as long as the body and has the
// area of its stations; the preform cut out of a sheet has the steel that is forged, no more
// and no less, and is shorter.
func TestWhatIsCutOutHoldsTheForgedShape(t *testing.T) {
	for _, s := range blade.Starters() {
		_, forged, _, err := figure.Bodies(s.Design, blade.ThickAndGrind.Allowances())
		require.NoError(t, err)
		loop := figure.Around(forged, .05)
		low, high := math.Inf(1), math.Inf(-1)
		for _, n := range loop {
			low, high = math.Min(low, n[0]), math.Max(high, n[0])
		}
		assert.InDelta(t, forged.OverallMm(), high-low, .1, s.ID)
		want := 0.0
		const n = 4000
		zones := figure.ZonesOf(forged)
		for i := range n {
			if p, ok := figure.SliceAt(forged, zones, forged.OverallMm()*(float64(i)+.5)/n); ok {
				want += p.HeightMm * forged.OverallMm() / n
			}
		}
		assert.InEpsilon(t, want, area(loop), 3e-3, s.ID)

		thick := forged.ThickestMm()
		blank := figure.Preform(forged, thick, .05)
		assert.InEpsilon(t, forged.Measure().VolumeMm3, area(blank)*thick, .012, "%s: its steel", s.ID)
		long := 0.0
		for _, p := range blank {
			long = math.Max(long, p[0])
		}
		assert.Less(t, long, high-low, s.ID)
	}
}
