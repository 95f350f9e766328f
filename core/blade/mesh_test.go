package blade_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestMeshesAreClosedOrientedAndOfTheSameVolume for every starter, finished and
// forged, and every grind.
func TestMeshesAreClosedOrientedAndOfTheSameVolume(t *testing.T) {
	var blades []blade.Blade
	for _, s := range blade.Starters() {
		blades = append(blades, s.Design.Blade(), s.Design.Blade().Forged(blade.ThickAndGrind.Allowances(), 6))
	}
	d := starterDesign("utility")
	for _, k := range section.Kinds() {
		d.Grind.Kind, d.Grind.WheelRadiusMm = k, 200
		blades = append(blades, d.Blade())
	}
	d.Grind.Kind = section.Flat
	d.Grind.Groove = blade.NewGroove("fuller", d)
	blades = append(blades, d.Blade())
	d.Grind.Groove, d.Ricasso.NotchMm, d.Grind.PlungeMm, d.Grind.PointBevelFraction = nil, 6, 8, .6
	blades = append(blades, d.Blade())
	for i, b := range blades {
		body, err := blade.New(b)
		require.NoError(t, err, i)
		m := body.Mesh()
		edges := map[[2]int]int{}
		for _, tr := range m.Triangles {
			for k := range 3 {
				edges[[2]int{tr[k], tr[(k+1)%3]}]++
			}
		}
		for e, n := range edges {
			if n != 1 || edges[[2]int{e[1], e[0]}] != 1 {
				t.Fatalf("blade %d: edge %v is in %d triangles one way and %d the other", i, e, n, edges[[2]int{e[1], e[0]}])
			}
		}
		assert.InEpsilon(t, body.Measure().VolumeMm3, m.VolumeMm3(), 1e-3, "blade %d", i)
	}
}

func BenchmarkMesh(b *testing.B) {
	body, err := blade.New(starterDesign("utility").Blade())
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		body.Mesh()
	}
}

// TestAGrooveLiesWhereItIsPut, and nowhere else along the blade.
func TestAGrooveLiesWhereItIsPut(t *testing.T) {
	d := starterDesign("utility")
	d.Grind.Groove = blade.NewGroove("fuller", d)
	d.Grind.Groove.FromMm, d.Grind.Groove.ToMm = 40, 70
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	for x, want := range map[float64]int{35: 0, 45: 1, 69: 1, 75: 0} {
		assert.Len(t, body.SectionAt(x).Grooves, want, "%v mm from the point", x)
	}
	assert.InDelta(t, d.Grind.Groove.DepthMm, body.SectionAt(55).Grooves[0].DepthMm, 1e-12)
	d.Grind.Groove.ToMm = 0
	body, err = blade.New(d.Blade())
	require.NoError(t, err)
	assert.Len(t, body.SectionAt(d.LengthMm-1).Grooves, 1, "to the heel")
	d.Grind.Groove.DepthMm = 0
	body, err = blade.New(d.Blade())
	require.NoError(t, err)
	assert.Empty(t, body.SectionAt(55).Grooves, "of no depth it is none")
}

// TestNoEdgeHasMoreThanTwoFaces, not even where one shell meets the next, as a reader of the file sees it: corners that lie at one place
// are one.
func TestNoEdgeHasMoreThanTwoFaces(t *testing.T) {
	for _, s := range blade.Starters() {
		for _, b := range []blade.Blade{s.Design.Blade(), s.Design.Blade().Forged(blade.ThickAndGrind.Allowances(), 6)} {
			body, err := blade.New(b)
			require.NoError(t, err, s.ID)
			m := body.BentMesh(s.Design.TangKind)
			at, faces := map[[3]float32]int{}, map[[2]int]int{}
			for _, f := range m.Triangles {
				var corners [3]int
				for k, v := range f {
					place := [3]float32{float32(m.Vertices[v][0]), float32(m.Vertices[v][1]), float32(m.Vertices[v][2])}
					if _, ok := at[place]; !ok {
						at[place] = len(at)
					}
					corners[k] = at[place]
				}
				if corners[0] == corners[1] || corners[1] == corners[2] || corners[2] == corners[0] {
					continue
				}
				for k := range 3 {
					a, b := corners[k], corners[(k+1)%3]
					faces[[2]int{min(a, b), max(a, b)}]++
				}
			}
			for e, n := range faces {
				require.LessOrEqual(t, n, 2, "%s: edge %v", s.ID, e)
			}
		}
	}
}
