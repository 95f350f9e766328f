package export

import (
	"math"
	"slices"
	"testing"

	"coldember/core/blade"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheSolidIsThePlans: what is exported as forged has the volume that the plan is made
// for, to a thousandth, whatever the blade, its tang and its bar.
func TestTheSolidIsThePlans(t *testing.T) {
	for _, s := range blade.Starters() {
		for _, k := range blade.TangKinds() {
			r := plantest.Request()
			r.Bar = plantest.Flat(math.Max(25, s.Design.HeightMm*.95), math.Max(6, s.Design.Ricasso.ThicknessMm+2), 900)
			r.Design, r.CellCount = s.Design, 6 // the shape does not hang on how finely it is forged
			r.Design.SetTang(k)
			if k == blade.RodTang {
				r.Design.Tang.CurveMm, r.Design.Tang.TwistTurns, r.Design.Tang.LoopMm = 4, 2, 8
				if r.Design.Tang.LengthMm/2/math.Pi < r.Design.Tang.ThicknessAtEndMm+8 { // too thick for an eye
					r.Design.Tang.LoopMm, r.Design.Tang.TwistTurns = 0, 1
				}
			}
			p := plantest.Make(t, r)
			sub := Subject{Design: r.Design, Allowances: r.Allowances, Piece: &r}
			fin, fog, _, err := sub.bodies()
			require.NoError(t, err)
			assert.InEpsilon(t, p.Forged.VolumeMm3, fog.BentMesh(k).VolumeMm3(), 1e-3, "%s, %s", s.ID, k)
			assert.InEpsilon(t, p.Finished.VolumeMm3, fin.BentMesh(k).VolumeMm3(), 2e-3, "%s, %s, finished", s.ID, k)
			drawn := 0.0
			for _, st := range p.Drawing.Forged {
				if st.Zone == plan.ZoneRicasso {
					drawn = st.ThicknessMm
				}
			}
			assert.LessOrEqual(t, drawn, r.Bar.ThicknessMm+1e-9)
			if fog.Blade.Ricasso != nil {
				assert.InDelta(t, drawn, fog.Blade.Ricasso.ThicknessMm, 1e-3, "drawing and solid are one shape")
			}
		}
	}
}

// TestABentTangIsBentEverywhere: the outline that is exported comes as far round as the
// drawing, and the solid with it.
func TestABentTangIsBentEverywhere(t *testing.T) {
	r := plantest.Request()
	r.Design.SetTang(blade.RodTang)
	r.Design.Tang.CurveMm, r.Design.Tang.LoopMm = 6, 8
	p := plantest.Make(t, r)
	s := Subject{Design: r.Design, Allowances: r.Allowances, Piece: &r}
	fin, fog, _, err := s.bodies()
	require.NoError(t, err)
	ls := Drawing(fin, fog, r.Design.TangKind)
	at := slices.IndexFunc(ls, func(l Loop) bool { return l.Layer == LayerTang })
	require.GreaterOrEqual(t, at, 0)
	var right, low, high float64 = 0, 1e9, -1e9
	for _, q := range ls[at].Points {
		right, low, high = math.Max(right, q[0]), math.Min(low, q[1]), math.Max(high, q[1])
	}
	var drawnRight, drawnLow, drawnHigh float64 = 0, 1e9, -1e9
	for _, st := range p.Drawing.Finished {
		if st.Zone != plan.ZoneTang {
			continue
		}
		for _, side := range []func() (float64, float64){st.Spine, st.Edge} {
			x, y := side()
			drawnRight, drawnLow, drawnHigh = math.Max(drawnRight, x), math.Min(drawnLow, y), math.Max(drawnHigh, y)
		}
	}
	assert.InDelta(t, drawnRight, right, .3)
	assert.InDelta(t, drawnLow, low, .3)
	assert.InDelta(t, drawnHigh, high, .3)
	straight := r.Design
	straight.Tang.CurveMm, straight.Tang.LoopMm = 0, 0
	assert.Less(t, right, fin.OverallMm()-5, "it is shorter than the rod it is bent from")
	meshRight := 0.0
	for _, v := range fin.BentMesh(r.Design.TangKind).Vertices {
		meshRight = math.Max(meshRight, v[0])
	}
	assert.InDelta(t, drawnRight, meshRight, .5)
}

// TestABentBladeIsDrawnFlatAndAsBent: the outline to cut by is the flat one, and its bend is
// beside it, as long along its middle as the blade.
func TestABentBladeIsDrawnFlatAndAsBent(t *testing.T) {
	d := plantest.Starter("spoon")
	sub := Subject{Design: d, Allowances: blade.ThickAndGrind.Allowances()}
	fin, fog, _, err := sub.bodies()
	require.NoError(t, err)
	ls := Drawing(fin, fog, d.TangKind)
	bent := ls[len(ls)-1]
	require.Equal(t, LayerBent, bent.Layer)
	n := len(bent.Points) / 2
	long := 0.0
	middle := func(i int) Point {
		a, b := bent.Points[i], bent.Points[len(bent.Points)-1-i]
		return Point{(a[0] + b[0]) / 2, (a[1] + b[1]) / 2}
	}
	for i := range n - 1 {
		a, b := middle(i), middle(i+1)
		long += math.Hypot(b[0]-a[0], b[1]-a[1])
	}
	assert.InEpsilon(t, d.LengthMm, long, .02)
	for _, p := range bent.Points {
		for _, l := range ls[:len(ls)-1] {
			lo, _ := bounds([]Loop{l})
			assert.Less(t, p[1], lo[1], "under the others")
		}
	}
	sub.Design.FlatBend = nil
	fin, fog, _, err = sub.bodies()
	require.NoError(t, err)
	for _, l := range Drawing(fin, fog, d.TangKind) {
		assert.NotEqual(t, LayerBent, l.Layer)
	}
}
