package finish_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/finish"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// steelOf is a starter as it is forged and as it is finished.
func steelOf(t testing.TB, d blade.Design, a blade.Allowances, barMm float64) *finish.Steel {
	t.Helper()
	b := d.Blade()
	fin, err := blade.New(b)
	require.NoError(t, err)
	forged, err := blade.New(fin.Blade.Forged(a, barMm))
	require.NoError(t, err)
	return &finish.Steel{Forged: forged, Finished: fin}
}

// TestWhatIsGroundOffIsForgedLessFinished for every starter and allowance: the regions come to the
// difference of the two bodies.
func TestWhatIsGroundOffIsForgedLessFinished(t *testing.T) {
	starters := blade.Starters()
	rapid.Check(t, func(rt *rapid.T) {
		p := rapid.SampledFrom(starters).Draw(rt, "starter")
		a := blade.Allowances{
			FaceMm: rapid.Float64Range(.1, .8).Draw(rt, "face"), OutlineMm: rapid.Float64Range(.2, 2).Draw(rt, "outline"), ForgingEdgeMm: rapid.Float64Range(1.5, 3).Draw(rt, "edge"),
		}
		s := steelOf(t, p.Design, a, 6)
		m := s.Off(20, 8, nil)
		sum := 0.0
		for _, r := range m.Regions {
			sum += r.VolumeMm3
		}
		want := s.Forged.Measure().VolumeMm3 - s.Finished.Measure().VolumeMm3
		assert.InEpsilon(rt, want, sum, 1e-6, "%s", p.ID)
	})
}
