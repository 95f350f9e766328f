package finish_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// steelOf is a starter as it is forged and as it is finished.
func steelOf(t testing.TB, d blade.Design, a blade.Allowances) *finish.Steel {
	t.Helper()
	b := d.Blade()
	fin, err := blade.New(b)
	require.NoError(t, err)
	forged, err := blade.New(fin.Blade.Forged(a, 6))
	require.NoError(t, err)
	return &finish.Steel{Forged: forged, Finished: fin}
}

// TestWhatIsGroundOffTheFacesIsTheMap: the volume of the faces is that of the map, added up square by square.
func TestWhatIsGroundOffTheFacesIsTheMap(t *testing.T) {
	for _, p := range blade.Starters() {
		const nx, ny = 400, 60
		s := steelOf(t, p.Design, blade.ThickAndGrind.Allowances())
		m := s.Off(nx, ny, nil)
		sum := 0.0
		for i := 1; i < nx; i++ {
			for k := 1; k < ny; k++ {
				off := 0.0
				for _, at := range [][2]int{{i - 1, k - 1}, {i - 1, k}, {i, k - 1}, {i, k}} {
					off += (m.Front[at[0]][at[1]] + m.Back[at[0]][at[1]]) / 4
				}
				sum += off * (m.XMm[i] - m.XMm[i-1]) * (m.HeightMm[i] + m.HeightMm[i-1]) / 2 / (ny - 1)
			}
		}
		faces := 0.0
		for _, r := range m.Regions {
			if r.What == "faces" && r.Zone == "blade" {
				faces = r.VolumeMm3
			}
		}
		assert.InEpsilon(t, sum, faces, .01, p.ID)
	}
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
		s := steelOf(t, p.Design, a)
		m := s.Off(20, 8, nil)
		sum := 0.0
		for _, r := range m.Regions {
			sum += r.VolumeMm3
		}
		want := s.Forged.Measure().VolumeMm3 - s.Finished.Measure().VolumeMm3
		assert.InEpsilon(rt, want, sum-m.MissingG/steel.DensityGPerCm3*1000, 1e-6, "%s", p.ID)
		if p.ID != "integral" { // its ricasso is thicker than this bar
			assert.Less(rt, m.MissingG, max(.01, 1e-4*s.Finished.Measure().MassG), "%s: a hair at the very point", p.ID)
		}
	})
}

// TestAPlungeIsFollowed: no part of the smooth step turns more sharply than the radius that is told.
func TestAPlungeIsFollowed(t *testing.T) {
	long, deep := 9.0, 2.1
	sharpest := 1e9
	y := func(x float64) float64 { v := x / long; return deep * v * v * (3 - 2*v) }
	const h = 1e-3
	for x := h; x < long-h; x += .01 {
		bend := math.Abs(y(x+h)-2*y(x)+y(x-h)) / (h * h)
		slope := (y(x+h) - y(x-h)) / (2 * h)
		sharpest = math.Min(sharpest, math.Pow(1+slope*slope, 1.5)/bend)
	}
	assert.InEpsilon(t, sharpest, finish.PlungeRadiusMm(long, deep), .01)
}
