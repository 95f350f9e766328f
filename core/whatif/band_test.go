package whatif_test

import (
	"encoding/json"
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
	// a beta by its definition: of two gamma draws, each half of so many squares, of thirty blows that were looked at
	gamma := func(shape float64) (sum float64) {
		for range int(math.Round(2 * shape)) {
			z := rng.NormFloat64()
			sum += z * z / 2
		}
		return sum
	}
	good, all := gamma(30*r.Smith.LandShare), gamma(30*(1-r.Smith.LandShare))
	r.Smith.LandShare = math.Max(.1, good/(good+all))
	r.Fire.ScaleFactor, r.Smith.SpreadFactor = off(.7), off(.12)
	r.Fire.TempC += 15 * rng.NormFloat64()
	pace := off(.12)
	r.Smith.RatePerS *= pace
	r.Fire.CarryS, r.Fire.BrushS = r.Fire.CarryS/pace, r.Fire.BrushS/pace
	return r
}

// TestFourInFiveHold: of pieces that are forged in worlds as unsure as the laws say they are, four in five lie within
// every range that was told before: of the plan, of what stands beside its totals, and of hundreds of draws. Five pieces, 1000
// worlds each with LONG=1, which tell it to a hundredth: 76 to 84 and that; else the first with fewer cells and worlds, which tell it to a thirtieth.
func TestFourInFiveHold(t *testing.T) {
	worlds, low, high := 250, .72, .88
	if os.Getenv("LONG") != "" {
		worlds, low, high = 1000, .75, .85
	}
	for name, r := range askedPieces(t) {
		if os.Getenv("LONG") == "" {
			if name != "Hunter" {
				continue
			}
			r.CellCount = 10
		}
		p, err := planner.Make(t.Context(), r)
		require.NoError(t, err)
		beside, err := whatif.BeWithin(t.Context(), r, whatif.UsualDoubt())
		require.NoError(t, err)
		drawn, err := whatif.Doubts(t.Context(), r, whatif.UsualDoubt(), nil, 0, 300, 7, 2)
		require.NoError(t, err)
		within, done := inWorlds(t, r, worlds, map[string]told{
			"length, of the plan": {whatif.Band{Low: p.Bar.LowMm, High: p.Bar.HighMm}, cutMm},
			"length":              {beside.CutMm, cutMm}, "heats": {beside.Heats, trips}, "blows": {beside.Blows, blows}, "minutes": {beside.TimeS, seconds}, "fuel": {beside.FuelG, grams},
			"length, drawn": {drawn.CutMm, cutMm}, "heats, drawn": {drawn.Heats, trips}, "blows, drawn": {drawn.Blows, blows}, "minutes, drawn": {drawn.TimeS, seconds}, "fuel, drawn": {drawn.FuelG, grams},
		})
		require.Greater(t, done, worlds*9/10, "a world in which it cannot be done is told of apart")
		for what, n := range within {
			share := float64(n) / float64(done)
			t.Logf("%s, %s: %.1f %% of %d", name, what, 100*share, done)
			assert.GreaterOrEqual(t, share, low, "%s, %s", name, what)
			assert.LessOrEqual(t, share, high, "%s, %s", name, what)
		}
	}
}

// told is a range that was told, and of which figure.
type told struct {
	whatif.Band
	of func(*plan.Plan) float64
}

func cutMm(p *plan.Plan) float64   { return p.Bar.CutLengthMm }
func trips(p *plan.Plan) float64   { return float64(p.Totals.Heats) }
func blows(p *plan.Plan) float64   { return float64(p.Totals.Blows) }
func seconds(p *plan.Plan) float64 { return p.Totals.TimeS }
func grams(p *plan.Plan) float64   { return p.Totals.FuelG }

// inWorlds forges a piece in so many worlds, and counts how often each range held.
func inWorlds(t *testing.T, r plan.Request, worlds int, ranges map[string]told) (map[string]int, int) {
	within, done := map[string]int{}, 0
	var mu sync.Mutex
	var wait sync.WaitGroup
	for w := range 2 {
		wait.Go(func() {
			for i := w; i < worlds; i += 2 {
				p, err := planner.Make(t.Context(), truth(r, rand.New(rand.NewPCG(99, uint64(i)))))
				if err != nil {
					continue
				}
				mu.Lock()
				done++
				for what, v := range ranges {
					if is := v.of(p); is >= v.Low && is <= v.High {
						within[what]++
					}
				}
				mu.Unlock()
			}
		})
	}
	wait.Wait()
	return within, done
}

// askedPieces are the five that working smiths were asked about.
func askedPieces(t *testing.T) map[string]plan.Request {
	raw, err := os.ReadFile("../planner/testdata/practice.json")
	require.NoError(t, err)
	var list struct {
		Pieces []struct {
			Name    string
			Request plan.Request
		}
	}
	require.NoError(t, json.Unmarshal(raw, &list))
	out := map[string]plan.Request{}
	for _, p := range list.Pieces {
		switch p.Name {
		case "Hunter", "Slim kitchen 150", "Kitchen 210, 1084", "Bowie 250", "Chopper 280":
			out[p.Name] = p.Request
		}
	}
	require.Len(t, out, 5)
	return out
}
