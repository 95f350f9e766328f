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

// TestABevelSetToAnAngleReachesItsHeight, and the other way round.
func TestABevelSetToAnAngleReachesItsHeight(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := starterDesign("chisel")
		d.Grind.Kind = rapid.SampledFrom([]section.Kind{section.Chisel, section.Flat, section.Convex}).Draw(t, "kind")
		deg := rapid.Float64Range(0, 60).Draw(t, "deg")
		was := d.Grind.BevelFraction
		low, high, ok := d.SetBevel(deg)
		require.Equal(t, deg >= low && deg <= high, ok)
		if !ok {
			assert.InDelta(t, was, d.Grind.BevelFraction, 0)
			return
		}
		assert.InDelta(t, deg, d.BevelSetDeg(), 1e-9)
		valid(t, d)
	})
	d := starterDesign("leafDagger")
	_, _, ok := d.SetBevel(10)
	assert.False(t, ok, "its bevels meet in the middle")
}

// TestAHollowedBackIsOfItsWheel: as deep as the wheel's sagitta over the local height, in the
// back alone, on the left or on the right.
func TestAHollowedBackIsOfItsWheel(t *testing.T) {
	for _, radius := range []float64{60, 400, 3000, 20000} {
		d := starterDesign("chisel")
		d.Grind.Groove = blade.NewGroove("back", d)
		d.Grind.Groove.WheelRadiusMm, d.Grind.Groove.LowFraction, d.Grind.Groove.HighFraction = radius, .3, .6
		valid(t, d)
		body, err := blade.New(d.Blade())
		require.NoError(t, err)
		s := body.SectionAt(d.LengthMm - 10)
		c := .3 * s.HeightMm
		assert.InEpsilon(t, radius-math.Sqrt(radius*radius-c*c/4), s.Grooves[0].DepthMm, 1e-9)
		assert.InEpsilon(t, body.Measure().VolumeMm3, body.Mesh().VolumeMm3(), 1e-3, "%v", radius)
	}
	d := starterDesign("chisel")
	d.Grind.Groove = blade.NewGroove("back", d)
	d.Grind.Groove.WheelRadiusMm = 3
	assert.ErrorContains(t, refused(d), "wheelRadiusMm")
	// mirrored, not moved
	d = starterDesign("chisel")
	right, err := blade.New(d.Blade())
	require.NoError(t, err)
	d.Grind.BevelSide = blade.LeftBevel
	left, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.InEpsilon(t, right.Mesh().VolumeMm3(), left.Mesh().VolumeMm3(), 1e-4)
	extent := func(b *blade.Body) (low, high float64) {
		for _, v := range b.Mesh().Vertices[:50] {
			low, high = math.Min(low, v[2]), math.Max(high, v[2])
		}
		return low, high
	}
	low, high := extent(right)
	low2, high2 := extent(left)
	assert.InDelta(t, high, -low2, 1e-12)
	assert.InDelta(t, low, -high2, 1e-12)
}
