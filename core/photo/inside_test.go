package photo_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/photo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// slab is a straight blank.
func slab(long, top, bottom float64) *photo.Silhouette {
	s := &photo.Silhouette{LengthMm: long, Seen: 1}
	for x := 0.0; x <= long; x += .5 {
		s.Along = append(s.Along, photo.Across{XMm: x, TopMm: top, BottomMm: bottom, Seen: true})
	}
	return s
}

func box() [][2]float64 {
	const long, high = 150.0, 20.0
	var out [][2]float64
	for x := 0.0; x <= long; x += long / 40 {
		out = append(out, [2]float64{x, high / 2})
	}
	for x := long; x >= 0; x -= long / 40 {
		out = append(out, [2]float64{x, -high / 2})
	}
	return out
}

// TestAnOutlineIsLaidIntoABlank: a box in a box has closed forms for where it is nearest, slid, lifted and turned.
func TestAnOutlineIsLaidIntoABlank(t *testing.T) {
	ctx, s := context.Background(), slab(200, 80, 110)
	for _, c := range []struct {
		l    photo.Lie
		want float64
	}{
		{photo.Lie{SlideMm: 10}, 5},
		{photo.Lie{SlideMm: 10, LiftMm: 3}, 2},
		{photo.Lie{SlideMm: 2}, 2},
		{photo.Lie{SlideMm: 10, LiftMm: -7}, -2},
		{photo.Lie{SlideMm: -4}, -4},
		{photo.Lie{SlideMm: 10, TurnDeg: 1}, 15 - 150*math.Sin(math.Pi/180) - 10*math.Cos(math.Pi/180)},
	} {
		in, err := s.Lay(ctx, box(), c.l, false)
		require.NoError(t, err)
		assert.InDelta(t, c.want, in.LeastMm, 1e-6, c.l)
	}
	in, err := s.Lay(ctx, box(), photo.Lie{SlideMm: -30, LiftMm: 4, TurnDeg: 3}, true)
	require.NoError(t, err)
	assert.InDelta(t, 5, in.LeastMm, .05, "it cannot lie better than even")
	assert.Less(t, math.Abs(in.LiftMm), .1)
}

// TestABladeIsFoundWhereItWasCutFrom: a blank that is a blade grown by so much holds it with as much to spare, wherever
// and however it lies; a blade that is too large is told.
func TestABladeIsFoundWhereItWasCutFrom(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	for range 4 {
		long, high, turn := 140+80*rng.Float64(), 24+10*rng.Float64(), (rng.Float64()-.5)*8
		var blade [][2]float64
		at := func(x float64) (float64, float64) {
			u := x / long
			return high / 2 * math.Sqrt(math.Min(1, 5*u)), -high / 2 * math.Pow(math.Min(1, 2*u), .6)
		}
		for x := 0.0; x <= long; x += long / 60 {
			y, _ := at(x)
			blade = append(blade, [2]float64{x, y})
		}
		for x := long; x >= 0; x -= long / 60 {
			_, y := at(x)
			blade = append(blade, [2]float64{x, y})
		}
		const spare = 2.0
		var dense [][2]float64 // its rim, turned
		sin, cos := math.Sincos(turn * math.Pi / 180)
		for i, p := range blade {
			q := blade[(i+1)%len(blade)]
			for k := 0.0; k < 1; k += .05 {
				x, y := p[0]+k*(q[0]-p[0]), p[1]+k*(q[1]-p[1])
				dense = append(dense, [2]float64{x*cos - y*sin, x*sin + y*cos})
			}
		}
		s := &photo.Silhouette{Seen: 1}
		for x := -40.0; x <= long+40; x += .1 {
			top, bottom := math.Inf(-1), math.Inf(1)
			for _, p := range dense { // grown by a disc
				if d := spare*spare - (p[0]-x)*(p[0]-x); d >= 0 {
					top, bottom = math.Max(top, p[1]+math.Sqrt(d)), math.Min(bottom, p[1]-math.Sqrt(d))
				}
			}
			if top > bottom {
				s.Along = append(s.Along, photo.Across{XMm: x + 40, TopMm: 100 - top, BottomMm: 100 - bottom, Seen: true})
			}
		}
		in, err := s.Lay(context.Background(), blade, photo.Lie{}, true)
		require.NoError(t, err)
		truth, err := s.Lay(context.Background(), blade, photo.Lie{SlideMm: 40 - s.Along[0].XMm, LiftMm: (s.Along[len(s.Along)/2].TopMm+s.Along[len(s.Along)/2].BottomMm)/2 - 100, TurnDeg: turn}, false)
		require.NoError(t, err)
		assert.InDelta(t, spare, truth.LeastMm, .12, "places stand .1 mm apart")
		assert.Greater(t, in.LeastMm, truth.LeastMm-.1)
		large := make([][2]float64, len(blade))
		for i, p := range blade {
			large[i] = [2]float64{p[0], p[1] * 1.4}
		}
		in, err = s.Lay(context.Background(), large, photo.Lie{}, true)
		require.NoError(t, err)
		assert.Negative(t, in.LeastMm)
	}
}

// TestWhatWasNotSeenIsMarked, and what is no silhouette is refused.
func TestWhatWasNotSeenIsMarked(t *testing.T) {
	ctx, s := context.Background(), slab(200, 80, 110)
	for i := range s.Along {
		if x := s.Along[i].XMm; x > 60 && x < 90 {
			s.Along[i] = photo.Across{XMm: x}
		}
	}
	in, err := s.Lay(ctx, box(), photo.Lie{SlideMm: 10}, false)
	require.NoError(t, err)
	assert.InDelta(t, 5, in.LeastMm, 1e-6)
	assert.InDelta(t, 29.5, in.HiddenMm, .6)
	for _, bad := range []*photo.Silhouette{{}, {Along: []photo.Across{{XMm: 2, Seen: true}, {XMm: 1, Seen: true}}}, {Along: []photo.Across{{XMm: 1, TopMm: 3, Seen: true}, {XMm: 2, BottomMm: math.NaN(), Seen: true}}}} {
		_, err := bad.Lay(ctx, box(), photo.Lie{}, false)
		require.Error(t, err)
	}
	_, err = s.Lay(ctx, box(), photo.Lie{SlideMm: math.NaN()}, true)
	require.Error(t, err)
	gone, stop := context.WithCancel(ctx)
	stop()
	_, err = s.Lay(gone, box(), photo.Lie{}, true)
	assert.ErrorIs(t, err, context.Canceled)
}
