package whatif_test

import (
	"context"
	"math"
	"math/rand/v2"
	"os"
	"sync"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// truth is the piece of work in a world that is drawn with the stated spreads, by another
// way than the bands are: blow, steel and friction each by itself, and the share of good
// blows as so many of thirty that are looked at.
func truth(r plan.Request, rng *rand.Rand) plan.Request {
	off := func(log float64) float64 { return math.Exp(log * rng.NormFloat64()) }
	g := plantest.SteelOf(r)
	g.FlowFactor *= off(.2) // of the steel
	g.FlowFactor *= off(.2) // of friction, which stands beside it
	r.Steel = &g
	r.Smith.SpeedMPerS *= math.Sqrt(off(.2))
	// a beta by its definition: of two gamma draws, each a sum of exponentials
	gamma := func(n int) (sum float64) {
		for range n {
			sum -= math.Log(1 - rng.Float64())
		}
		return sum
	}
	good, all := gamma(24), gamma(6) // four fifths of thirty
	r.Smith.LandShare = good / (good + all)
	r.Fire.ScaleFactor, r.Smith.SpreadFactor = off(.7), off(.12)
	r.Fire.TempC += 15 * rng.NormFloat64()
	pace := off(.12)
	r.Smith.RatePerS *= pace
	r.Fire.CarryS, r.Fire.BrushS = r.Fire.CarryS/pace, r.Fire.BrushS/pace
	return r
}

// TestFourInFiveHold: of two thousand pieces (with LONG=1; else five hundred) forged in worlds as unsure as the laws
// say they are, about four in five lie within the band that was told before.
func TestFourInFiveHold(t *testing.T) {
	ctx := context.Background()
	r := plantest.Request()
	r.CellCount, r.Smith = 10, r.Smith.WithSkill("sure") // its upside is not cut off
	known, worlds := 250, 500
	low, high := .72, .88 // so few draws tell it to a thirtieth
	if os.Getenv("LONG") != "" {
		known, worlds, low, high = 1000, 2000, .76, .84
	}
	told, err := whatif.Doubts(ctx, r, whatif.UsualDoubt(), nil, 0, known, 7, 2)
	require.NoError(t, err)
	within := map[string]int{}
	done := 0
	var mu sync.Mutex
	var wait sync.WaitGroup
	for w := range 2 {
		wait.Go(func() {
			for i := w; i < worlds; i += 2 {
				p, err := planner.Make(ctx, truth(r, rand.New(rand.NewPCG(99, uint64(i)))))
				if err != nil {
					continue // a world in which it cannot be done: told of apart
				}
				mu.Lock()
				done++
				for name, v := range map[string]struct {
					band  whatif.Band
					value float64
				}{
					"time": {told.TimeS, p.Totals.TimeS}, "bar": {told.CutMm, p.Bar.CutLengthMm}, "fuel": {told.FuelG, p.Totals.FuelG},
				} {
					if v.value >= v.band.Low && v.value <= v.band.High {
						within[name]++
					}
				}
				mu.Unlock()
			}
		})
	}
	wait.Wait()
	require.Greater(t, done, worlds*9/10)
	for name, n := range within {
		share := float64(n) / float64(done)
		assert.Greater(t, share, low, name)
		assert.Less(t, share, high, name)
	}
	sure := 0
	for i := range 200 { // some hands are surer than they were thought
		if truth(r, rand.New(rand.NewPCG(3, uint64(i)))).Smith.LandShare > .9 {
			sure++
		}
	}
	assert.Positive(t, sure)
}
