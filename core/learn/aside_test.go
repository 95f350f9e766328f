package learn_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/learn"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/session"
	"coldember/core/simulate"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// said are records of one factor, one a ratio.
func said(ratios ...float64) (out []learn.Record) {
	for i, r := range ratios {
		out = append(out, learn.Record{Session: fmt.Sprint(i), Of: "yard", Kind: learn.Blow, AtMs: int64(i + 1), Ratio: r, Counts: true})
	}
	return out
}

func blows(t *testing.T, choice learn.Choice, ratios ...float64) learn.Lesson {
	return lesson(t, learn.Book(said(ratios...), map[string]learn.Choice{"blow|yard": choice}), learn.Blow)
}

// TestOneLieMovesNothing: a piece that says three times what it was, or a third, moves a factor by less than a
// twentieth, wherever it stands among the others, against what they say without it.
func TestOneLieMovesNothing(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	for range 2000 {
		arm := math.Exp(.3 * rng.NormFloat64())
		arm = math.Max(.55, math.Min(1.7, arm))
		honest := make([]float64, 3+rng.IntN(9))
		for i := range honest {
			honest[i] = arm * math.Exp(.07*rng.NormFloat64())
		}
		without := blows(t, learn.Choice{}, honest...)
		at, lie := rng.IntN(len(honest)+1), arm*3
		if rng.IntN(2) == 0 {
			lie = arm / 3
		}
		told := append(append(append([]float64{}, honest[:at]...), lie), honest[at:]...)
		with := blows(t, learn.Choice{}, told...)
		require.Less(t, math.Abs(math.Log(with.Factor.Factor/without.Factor.Factor)), .05, "%v of %v", told, arm)
		require.Equal(t, "learn.asks", with.Records[at].Why)
	}
}

// TestTwoThatAgreeCount: a true beginner is believed from the second piece on; what the shop says of a piece that it
// was asked about goes before.
func TestTwoThatAgreeCount(t *testing.T) {
	assert.Equal(t, 0, blows(t, learn.Choice{}, .42).N, "one is asked about")
	both := blows(t, learn.Choice{}, .42, .46)
	assert.Equal(t, 2, both.N)
	assert.Less(t, both.Factor.Factor, .75)
	assert.Equal(t, 0, blows(t, learn.Choice{}, .42, 2.4).N, "that differ say nothing")
	assert.Equal(t, 5, blows(t, learn.Choice{}, 1, 1.1, .95, 2.4, 2.5).N)
	assert.Equal(t, 4, blows(t, learn.Choice{}, 1, 1.1, .95, 2.4, 1.02).N)

	yes := learn.Choice{}.Answered(learn.Answer{Session: "0", Counts: true})
	assert.Equal(t, 1, blows(t, yes, .42).N)
	assert.True(t, blows(t, yes, .42).Records[0].Asked)
	no := yes.Answered(learn.Answer{Session: "0", Counts: false})
	assert.Len(t, no.Answers, 1, "what was said last")
	assert.Equal(t, "learn.left", blows(t, no, .9).Records[0].Why)
	fault := said(1.1)
	fault[0].Counts, fault[0].Why = false, "learn.fault"
	b := learn.Book(fault, map[string]learn.Choice{"blow|yard": yes})
	assert.Equal(t, 0, b[0].N, "an answer does not mend a fault")
}

// TestAWeakArmIsBelieved to within a fifth after five pieces, on the mean of some smiths with one.
func TestAWeakArmIsBelieved(t *testing.T) {
	off := 0.0
	const smiths = 4
	for seed := range uint64(smiths) {
		smith := simulate.NewSmith(5+seed, simulate.Within)
		smith.Energy = .63
		records, _ := made(t, smith, 5, simulate.Wish{})
		blow := lesson(t, learn.Book(records, nil), learn.Blow)
		assert.Equal(t, 5, blow.N)
		off += math.Abs(math.Log(blow.Factor.Factor/.63)) / smiths
	}
	assert.Less(t, off, math.Log(1.2))
}

// TestForecastAndLogCountAlike: of a smith who is exactly on plan the log says what was forecast, cycles with it.
func TestForecastAndLogCountAlike(t *testing.T) {
	req := plantest.Request()
	req.CellCount = 30
	on := simulate.Smith{Energy: 1, Scale: 1, Spread: 1, Pace: 1}
	sum, n := 0.0, 0
	for k := range 4 {
		p, err := on.Forge(context.Background(), req, k)
		require.NoError(t, err)
		b := session.BookOf(p.Course(), p.Tell(simulate.Wish{Device: "d", BeginMs: 1e9}))
		for _, r := range learn.Records(learn.Worked{Session: "s", Smith: "yard", Course: p.Course(), Book: &b, Request: &req}) {
			if r.Kind == learn.Time {
				sum, n = sum+math.Log(r.Ratio), n+1
			}
		}
	}
	require.Equal(t, 4, n)
	assert.InDelta(t, 0, sum/float64(n), .08)
	p, err := planner.Make(context.Background(), req)
	require.NoError(t, err)
	assert.Greater(t, p.Totals.LastsS(), p.Totals.TimeS, "the cycles are in it")
}

// TestSimulatedTeachesNothing in a shop that is not.
func TestSimulatedTeachesNothing(t *testing.T) {
	for _, r := range learn.Simulated(said(1.2, 1.3)) {
		assert.False(t, r.Counts)
		assert.Equal(t, "learn.simulated", r.Why)
	}
	e := session.Event{Device: session.StandIn + "yard"}
	assert.True(t, e.ByStandIn())
	e = session.Event{Device: "bench", Reading: &session.Reading{By: session.StandIn + "caliper"}}
	assert.True(t, e.ByStandIn())
	e.Reading.By = "caliper"
	assert.False(t, e.ByStandIn())
}
