package blade_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestABentBladeKeepsItsSteel: whatever the form, its axis and the grind, the solid that is
// exported has the volume of the flat one, and lies as far out as an arc says.
func TestABentBladeKeepsItsSteel(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := starterDesign("spoon")
		d.Grind.Kind = rapid.SampledFrom([]section.Kind{section.Chisel, section.Flat, section.Lens}).Draw(t, "grind")
		d.FlatBend = &blade.FlatBend{
			RadiusMm: rapid.Float64Range(12, 120).Draw(t, "radius"), LongMm: rapid.Float64Range(10, 44).Draw(t, "long"),
			AxisDeg: rapid.Float64Range(60, 120).Draw(t, "axis"), Hollow: rapid.SampledFrom(blade.HollowFaces()).Draw(t, "hollow"),
		}
		valid(t, d)
		body, err := blade.New(d.Blade())
		require.NoError(t, err)
		assert.InEpsilon(t, body.Measure().VolumeMm3, body.BentMesh(d.TangKind).VolumeMm3(), 1e-3)
	})
}

// TestABendIsTheArcOfItsForm: across the blade, half round is twice the radius out and no
// further ahead than where it began; the blade keeps its length along the arc.
func TestABendIsTheArcOfItsForm(t *testing.T) {
	d := starterDesign("spoon")
	d.Grind.Kind, d.SpineMm, d.TipMm = section.Rect, 3, 3
	d.FlatBend = &blade.FlatBend{RadiusMm: 14, AxisDeg: 90, Hollow: blade.FlatInside}
	d.FlatBend.LongMm = math.Pi * d.FlatBend.MidRadiusMm(3)
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	b := body.BentBlade()
	assert.InDelta(t, 2*15.5, b.DepthMm, .02)
	assert.InDelta(t, 180, b.TurnDeg, 1e-9)
	assert.InDelta(t, d.LengthMm-d.FlatBend.LongMm+15.5+1.5, b.ReachMm, .05, "the outer face, a quarter round")
	assert.InDelta(t, 1.5/15.5, b.Strain, 1e-12)
	put := body.Bender()
	long, last := 0.0, put([3]float64{0, 0, 0})
	for x := .05; x <= d.LengthMm; x += .05 {
		p := put([3]float64{x, 0, 0})
		long += math.Hypot(math.Hypot(p[0]-last[0], p[1]-last[1]), p[2]-last[2])
		last = p
	}
	assert.InEpsilon(t, d.LengthMm, long, 2e-3)
	assert.Equal(t, [3]float64{60, 1, 2}, put([3]float64{60, 1, 2}), "its heel lies flat")
	d.FlatBend = nil
	body, err = blade.New(d.Blade())
	require.NoError(t, err)
	assert.Nil(t, body.BentBlade())
}

// TestTheHollowFaceIsTheOneThatIsChosen: the bevel of a chisel grind lies in front.
func TestTheHollowFaceIsTheOneThatIsChosen(t *testing.T) {
	for hollow, sign := range map[blade.HollowFace]float64{blade.BevelInside: 1, blade.FlatInside: -1} {
		d := starterDesign("spoon")
		d.FlatBend.Hollow = hollow
		body, err := blade.New(d.Blade())
		require.NoError(t, err)
		assert.Positive(t, sign*body.Bender()([3]float64{0, 0, 0})[2], hollow)
	}
}

// TestABladeThatCannotBeBentSoIsRefused: past its heel, too tight, more than half round.
func TestABladeThatCannotBeBentSoIsRefused(t *testing.T) {
	for field, bad := range map[string]func(f *blade.FlatBend){
		"flatBend.longMm":   func(f *blade.FlatBend) { f.LongMm = 80 },
		"flatBend.radiusMm": func(f *blade.FlatBend) { f.RadiusMm = 2 },
		"flatBend.axisDeg":  func(f *blade.FlatBend) { f.AxisDeg = 20 },
		"flatBend.hollow":   func(f *blade.FlatBend) { f.Hollow = "both" },
	} {
		d := starterDesign("spoon")
		bad(d.FlatBend)
		assert.ErrorContains(t, refused(d), field)
	}
	d := starterDesign("spoon")
	d.FlatBend.RadiusMm, d.FlatBend.LongMm = 6, 60
	assert.ErrorContains(t, refused(d), "flatBend.longMm", "more than round")
}

// TestTheLineOfABladeIsFound: a sickle is bent toward its edge, a long curved blade toward its
// spine, and a straight one not at all.
func TestTheLineOfABladeIsFound(t *testing.T) {
	line := func(id string) float64 {
		body, err := blade.New(starterDesign(id).Blade())
		require.NoError(t, err)
		return body.LinePerMm()
	}
	assert.Negative(t, line("sickle"))
	assert.Positive(t, line("longCurved"))
	assert.Zero(t, line("utility"))
	assert.Zero(t, line("longStraight"))
	d := starterDesign("longCurved")
	d.Outline = nil
	d.SetOutline(blade.Outline{Join: blade.Smooth, Spine: arc(680, 3000, 30), Edge: arc(680, 3000, 0)})
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.InEpsilon(t, 1/3000., body.LinePerMm(), .03, "a circle's own")
}

// arc are nodes of a circle that leaves the heel straight and rises to the point, so far up.
func arc(long, radius, up float64) (nodes []blade.Node) {
	for i := range 21 {
		x := long * float64(i) / 20
		s := long - x
		nodes = append(nodes, blade.Node{x, radius - math.Sqrt(radius*radius-s*s) + up})
	}
	return nodes
}

// TestAStopAheadOfTheHeel is a half-round in the edge: it is not in the forged shape.
func TestAStopAheadOfTheHeel(t *testing.T) {
	d := starterDesign("utility")
	before := measure(t, d.Blade())
	d.ChoilMm = 4
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	low := func(x float64) float64 { return body.EdgeY(x) }
	assert.InDelta(t, 4, low(d.LengthMm-4)-low(d.LengthMm), .01)
	assert.Less(t, body.Measure().VolumeMm3, before.VolumeMm3)
	assert.InEpsilon(t, body.Measure().VolumeMm3, body.Mesh().VolumeMm3(), 1e-3)
	fog, err := blade.New(d.Blade().Forged(blade.ThickAndGrind.Allowances(), 5))
	require.NoError(t, err)
	assert.Zero(t, fog.Blade.ChoilMm)
	d.ChoilMm = 40
	assert.ErrorContains(t, refused(d), "choilMm")
}

// TestAFalseEdgeRunsAsFarAsItIsSaid and then runs out.
func TestAFalseEdgeRunsAsFarAsItIsSaid(t *testing.T) {
	d := starterDesign("clip")
	require.Positive(t, d.Grind.SwedgeLongMm)
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	top := func(x float64) float64 { s := body.SectionAt(x); return s.ThicknessAt(s.HeightMm) / s.SpineMm }
	assert.Less(t, top(d.Grind.SwedgeLongMm/2), .5)
	assert.InDelta(t, 1, top(d.Grind.SwedgeLongMm+1), 1e-9)
	assert.InEpsilon(t, body.Measure().VolumeMm3, body.Mesh().VolumeMm3(), 1e-3)
}
