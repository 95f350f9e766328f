package thermal_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/thermal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestStepAndTimeToAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, k := rapid.Float64Range(6, 60).Draw(t, "width"), rapid.Float64Range(2, 20).Draw(t, "thickness")
		from := rapid.Float64Range(900, 1150).Draw(t, "from")
		to := from - rapid.Float64Range(10, 120).Draw(t, "drop")
		for _, s := range []thermal.Surface{thermal.Air(), thermal.OnAnvil()} {
			sec, err := s.TimeTo(w, k, from, to)
			if err != nil {
				t.Fatal(err)
			}
			if got := s.Step(w, k, from, sec); math.Abs(got-to) > .5 {
				t.Fatalf("after %v s %v, want %v", sec, got, to)
			}
			coarse, err := s.CoarseTimeTo(w, k, from, to)
			if err != nil || math.Abs(coarse/sec-1) > .005 {
				t.Fatalf("coarse %v, fine %v (%v)", coarse, sec, err)
			}
		}
	})
}

func TestThinCellsCoolFirstAndTheAnvilDraws(t *testing.T) {
	time := func(s thermal.Surface, w, k float64) float64 {
		v, err := s.TimeTo(w, k, 1050, 850)
		require.NoError(t, err)
		return v
	}
	assert.Less(t, time(thermal.Air(), 25, 3), time(thermal.Air(), 25, 6))
	assert.Less(t, time(thermal.OnAnvil(), 25, 6), time(thermal.Air(), 25, 6))
}

func TestWhatCannotBeReachedIsSaid(t *testing.T) {
	for _, f := range []func() (float64, error){
		func() (float64, error) { return thermal.Forge(1000).TimeTo(25, 5, 20, 1100) },
		func() (float64, error) { return thermal.Air().TimeTo(25, 5, 900, 1000) },
		func() (float64, error) { return thermal.Air().TimeTo(25, 5, 900, 10) },
		func() (float64, error) { return thermal.Forge(1000).CoarseTimeTo(25, 5, 20, 1100) },
	} {
		_, err := f()
		var u *thermal.UnreachableError
		require.True(t, errors.As(err, &u))
	}
	same, err := thermal.Air().TimeTo(25, 5, 900, 900)
	require.NoError(t, err)
	assert.Zero(t, same)
}

func TestSpecificHeatIsContinuousButForItsPeak(t *testing.T) {
	for _, c := range []float64{600, 900} {
		assert.InDelta(t, thermal.SpecificHeat(c-.01), thermal.SpecificHeat(c+.01), 12, "%v", c)
	}
	assert.Greater(t, thermal.SpecificHeat(734.9), 4000.0, "the transformation")
	assert.InDelta(t, thermal.SpecificHeat(20), thermal.SpecificHeat(-10), 1e-9, "held below its range")
	assert.InDelta(t, 27.3, thermal.ConductivityWPerMK(900), 1e-9)
	assert.InDelta(t, 54-.0333*500, thermal.ConductivityWPerMK(500), 1e-9)
}

func TestScaleFollowsTheRootOfTimeAndTheAir(t *testing.T) {
	loss := func(s, a float64) float64 {
		var c thermal.ScaleClock
		c.Add(1100, s, a)
		return c.LossMm()
	}
	assert.InEpsilon(t, 2*loss(100, 1), loss(400, 1), 1e-9)
	assert.InEpsilon(t, .35*loss(100, 1), loss(100, .35), 1e-9)
	var two thermal.ScaleClock
	two.Add(1100, 60, 1)
	two.Add(1100, 40, 1)
	assert.InEpsilon(t, loss(100, 1), two.LossMm(), 1e-12)
}

func TestClocksFollowTheLaw(t *testing.T) {
	for _, c := range []float64{399.5, 400, 650.3, 812.7, 1099.99, 1499.5, 1600} {
		var s thermal.ScaleClock
		s.Add(c, 60, 1)
		want := math.Sqrt(thermal.ScaleRate(c)*60) * 55.845 / 15.999 / 7.85 * 10
		assert.InEpsilon(t, want, s.LossMm(), 1e-4, "%v", c)
	}
}

func TestDecarbCountsOnlyAusteniteAndShrinksUnderScale(t *testing.T) {
	var cold thermal.DecarbClock
	cold.Add(799, 1e5)
	d, left := cold.Depth(.9, .1)
	assert.InDelta(t, .1, d, 1e-12)
	assert.Zero(t, left)
	var hot thermal.DecarbClock
	hot.Add(1050, 1200)
	_, bare := hot.Depth(.9, 0)
	_, under := hot.Depth(.9, .15)
	assert.Greater(t, bare, .1)
	assert.Less(t, under, bare)
	var half thermal.DecarbClock
	half.AddShare(hot, .25)
	_, quarter := half.Depth(.9, 0)
	assert.InEpsilon(t, bare/2, quarter, 1e-9, "depth goes with the root of the time")
}
