package blade_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func valid(t require.TestingT, d blade.Design) {
	c := fact.NewCheck()
	d.Validate(c)
	require.NoError(t, c.Err())
}

func TestAPresetBecomesAFewNodesOfTheSameBlade(t *testing.T) {
	for _, s := range blade.Starters() {
		d := s.Design
		before := measure(t, d.Blade())
		o := d.OwnOutline()
		assert.Less(t, len(o.Spine)+len(o.Edge), 22, s.ID)
		d.SetOutline(o)
		valid(t, d)
		assert.Equal(t, blade.Own, d.Shape)
		assert.InDelta(t, s.Design.LengthMm, d.LengthMm, 1e-9)
		assert.InDelta(t, s.Design.HeightMm, d.HeightMm, 1e-9)
		assert.InEpsilon(t, before.VolumeMm3, measure(t, d.Blade()).VolumeMm3, 5e-3, s.ID)
	}
}

func TestAnOwnOutlineScalesWithLengthAndHeight(t *testing.T) {
	d := starterDesign("utility")
	require.True(t, d.MoveNode(blade.EdgeSide, 1, d.OwnOutline().Edge[1][0], -12.5))
	at := d.OwnOutline().Edge[1]
	d.LengthMm *= 2
	d.HeightMm *= 1.5
	scaled := d.OwnOutline().Edge[1]
	assert.InDelta(t, at[0]*2, scaled[0], 1e-9)
	assert.InDelta(t, at[1]*1.5, scaled[1], 1e-9)
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.InDelta(t, d.LengthMm, body.LengthMm(), 1e-9)
}

func starterDesign(id string) blade.Design {
	for _, s := range blade.Starters() {
		if s.ID == id {
			return s.Design
		}
	}
	panic(id)
}

func TestNodesAreMovedAddedTakenOutAndTurned(t *testing.T) {
	d := starterDesign("camp")
	n := len(d.OwnOutline().Edge)
	before := measure(t, d.Blade())
	require.True(t, d.AddNode(blade.EdgeSide, 120))
	o := d.OwnOutline()
	require.Len(t, o.Edge, n+1)
	assert.InEpsilon(t, before.VolumeMm3, measure(t, d.Blade()).VolumeMm3, 5e-3, "a node on the curve changes nothing much")
	i := 0
	for k, p := range o.Edge {
		if math.Abs(p[0]-120) < 1e-9 {
			i = k
		}
	}
	require.Positive(t, i)
	require.True(t, d.MoveNode(blade.EdgeSide, i, 118, -45))
	assert.Greater(t, measure(t, d.Blade()).VolumeMm3, before.VolumeMm3)
	require.True(t, d.ToggleCorner(blade.EdgeSide, i))
	assert.Equal(t, []int{i}, d.OwnOutline().EdgeCorners)
	require.True(t, d.AddNode(blade.EdgeSide, 20))
	assert.Equal(t, []int{i + 1}, d.OwnOutline().EdgeCorners, "a corner stays with its node")
	require.True(t, d.DeleteNode(blade.EdgeSide, 1))
	assert.Equal(t, []int{i}, d.OwnOutline().EdgeCorners)
	require.True(t, d.ToggleCorner(blade.EdgeSide, i))
	assert.Empty(t, d.OwnOutline().EdgeCorners)
	last := len(d.OwnOutline().Edge) - 1
	assert.False(t, d.DeleteNode(blade.EdgeSide, 0))
	assert.False(t, d.DeleteNode(blade.EdgeSide, last))
	assert.False(t, d.ToggleCorner(blade.SpineSide, 99))
	assert.False(t, d.MoveNode(blade.SpineSide, -1, 0, 0))
	assert.False(t, d.AddNode(blade.SpineSide, 5000))
	require.True(t, d.MoveNode(blade.EdgeSide, last, 999, -50))
	assert.InDelta(t, 180, d.LengthMm, 1e-9, "the heel keeps its place")
	assert.InDelta(t, 50, d.HeightMm, 1e-9)
	valid(t, d)
}

func TestACornerTurnsSharply(t *testing.T) {
	d := starterDesign("camp")
	d.SetOutline(blade.Outline{Join: blade.Smooth, Spine: []blade.Node{{0, 0}, {180, 0}}, Edge: []blade.Node{{0, 0}, {60, -38}, {180, -38}}})
	smooth := measure(t, d.Blade()).VolumeMm3
	require.True(t, d.ToggleCorner(blade.EdgeSide, 1))
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.InDelta(t, -19, body.EdgeY(30), 1e-9, "two straight lines meet there")
	assert.Less(t, measure(t, d.Blade()).VolumeMm3, smooth)
	f := d.Blade().Forged(blade.Allowances{FaceMm: .5, OutlineMm: 1, ForgingEdgeMm: 2}, 0)
	require.Len(t, f.Outline.EdgeCorners, 1, "the forged outline keeps the corner")
	corner := f.Outline.Edge[f.Outline.EdgeCorners[0]]
	half := math.Atan2(38, 60) / 2
	assert.InDelta(t, 61-math.Tan(half), corner[0], 1e-2)
	assert.InDelta(t, -39, corner[1], 1e-2)
}

func TestMirroredBladesAreSymmetric(t *testing.T) {
	d := starterDesign("boat")
	d.Mirror()
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	for x := 5.0; x < body.LengthMm(); x += 10 {
		assert.InDelta(t, -d.HeightMm/2, (body.SpineY(x)+body.EdgeY(x))/2, 1e-6)
	}
}

func TestCrossedNodesAreRefusedWhereTheyCross(t *testing.T) {
	d := starterDesign("utility")
	o := d.OwnOutline()
	require.True(t, d.MoveNode(blade.EdgeSide, len(o.Edge)/2, o.Edge[len(o.Edge)/2][0], 20))
	_, err := blade.New(d.Blade())
	var be *blade.Error
	require.True(t, errors.As(err, &be))
	assert.Equal(t, "blade.outlinesCross", be.Code)
	assert.Positive(t, be.AtMm)
	d = starterDesign("utility")
	require.True(t, d.MoveNode(blade.EdgeSide, 1, 99, -10))
	_, err = blade.New(d.Blade())
	require.True(t, errors.As(err, &be))
	assert.Equal(t, "blade.nodesOrder", be.Code)
}

// TestAnyEditLeavesAWholeOutline: whatever is done to it, an outline keeps its
// ends, its length and nodes in bounds.
func TestAnyEditLeavesAWholeOutline(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
		length := d.LengthMm
		for range rapid.IntRange(1, 12).Draw(t, "n") {
			s := rapid.SampledFrom([]blade.Side{blade.SpineSide, blade.EdgeSide}).Draw(t, "side")
			i := rapid.IntRange(0, 12).Draw(t, "i")
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				d.AddNode(s, rapid.Float64Range(0, length).Draw(t, "x"))
			case 1:
				d.DeleteNode(s, i)
			case 2:
				d.ToggleCorner(s, i)
			default:
				o := d.OwnOutline()
				nodes := map[blade.Side][]blade.Node{blade.SpineSide: o.Spine, blade.EdgeSide: o.Edge}[s]
				if i < len(nodes) {
					d.MoveNode(s, i, nodes[i][0], nodes[i][1]+rapid.Float64Range(-.5, .5).Draw(t, "dy"))
				}
			}
			valid(t, d)
			if math.Abs(d.LengthMm-length) > 1e-9 {
				t.Fatalf("the length went from %v to %v", length, d.LengthMm)
			}
		}
	})
}

func TestDistalTaperRunsThroughItsThreeFigures(t *testing.T) {
	d := starterDesign("utility")
	straight := measure(t, d.Blade()).VolumeMm3
	d.MidMm = 3.6 // 3.0 would be straight
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	for share, want := range map[float64]float64{0.0001: d.TipMm, .5: 3.6, 1: d.SpineMm} {
		assert.InDelta(t, want, body.SectionAt(share*d.LengthMm).SpineMm, .01)
	}
	assert.Greater(t, measure(t, d.Blade()).VolumeMm3, straight, "a convex taper holds more steel")
	valid(t, d)
	d.MidMm = 99
	c := fact.NewCheck()
	d.Validate(c)
	require.Error(t, c.Err())
}

func TestScalingMultipliesTheVolume(t *testing.T) {
	for _, s := range blade.Starters() {
		if s.Design.Grind.Kind == "hollow" {
			continue // its wheel keeps its size
		}
		s.Design.Tang.Holes = nil // pins keep their size, slots their round ends
		d := s.Design.Scaled(1.2, 1.1, .9)
		assert.InEpsilon(t, measure(t, s.Design.Blade()).VolumeMm3*1.2*1.1*.9, measure(t, d.Blade()).VolumeMm3, 1e-3, s.ID)
		valid(t, d)
	}
}
