package whatif

import (
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAQuickHandIsQuickAtEverything: it strikes faster and carries and brushes in less
// time, by the same share.
func TestAQuickHandIsQuickAtEverything(t *testing.T) {
	req := plan.NewRequest(blade.Starters()[0].Design, "1084", stock.Usual(stock.Flat), forge.Steady)
	quicker := 0
	for n := range uint64(60) {
		got, err := Doubt{Pace: .12}.Draw(req, rand.New(rand.NewPCG(1, n)).Float64)
		require.NoError(t, err)
		pace := got.Smith.RatePerS / req.Smith.RatePerS
		assert.InEpsilon(t, req.Fire.CarryS/pace, got.Fire.CarryS, 1e-9)
		assert.InEpsilon(t, req.Fire.BrushS/pace, got.Fire.BrushS, 1e-9)
		assert.Equal(t, req.Smith.LandShare, got.Smith.LandShare, "nothing else is in doubt here")
		if pace > 1 {
			quicker++
		}
	}
	assert.InDelta(t, 30, quicker, 15)
}

// TestAQuantileIsThatShareOfTheDraws, also between two of them.
func TestAQuantileIsThatShareOfTheDraws(t *testing.T) {
	list := make([]float64, 2000)
	for i := range list {
		list[i] = math.Sqrt(float64(i))
	}
	for _, p := range []float64{.1, .25, .5, .8003, .9, .95} {
		q, below := quantile(list, p), 0.0
		for _, v := range list {
			if v <= q {
				below++
			}
		}
		assert.InDelta(t, p, below/2000, 1./2000+1e-12)
	}
	assert.InDelta(t, 1.5, quantile([]float64{1, 2}, .75), 1e-12, "straight between its members")
}

// TestWhatWasSeenToIsNoHazardAnyMore in the ranking: it costs the piece no place.
func TestWhatWasSeenToIsNoHazardAnyMore(t *testing.T) {
	req := plan.NewRequest(blade.Starters()[0].Design, "1084", stock.Usual(stock.Flat), forge.Steady)
	c := Candidate{ID: "a", Piece: stock.Item{Form: stock.Flat, WidthMm: 30, ThicknessMm: 6, LengthMm: 500}, SteelID: "1084", Origin: plan.Origin{Hazards: []string{"coating", "tension"}}, Certain: 1}
	score := func(seen ...string) (int, float64) {
		c.Origin.Acknowledged = seen
		r, err := screen(req, c)
		require.NoError(t, err)
		return r.Hazards, r.Score
	}
	n2, s2 := score()
	n1, s1 := score("coating")
	n0, s0 := score("coating", "tension")
	assert.Equal(t, []int{2, 1, 0}, []int{n2, n1, n0})
	assert.InDelta(t, minutesHazard, s2-s1, 1e-9)
	assert.InDelta(t, minutesHazard, s1-s0, 1e-9)
}
