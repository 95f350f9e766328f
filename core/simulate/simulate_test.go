package simulate_test

import (
	"context"
	"fmt"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/session"
	"coldember/core/simulate"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const began = 1_700_000_000_000

func piece(t testing.TB, seed uint64) *simulate.Piece {
	p, err := simulate.New(context.Background(), plantest.Request(), seed)
	require.NoError(t, err)
	return p
}

// TestAHiddenPieceIsForgedToItsEnd: whatever hands are drawn, the session that is told walks
// the whole course, takes as many heats as the piece does, and everything in it can be.
func TestAHiddenPieceIsForgedToItsEnd(t *testing.T) {
	longer, other := 0, 0
	for seed := range uint64(12) {
		p := piece(t, seed)
		c := p.Course()
		events := p.Tell(simulate.Wish{Device: "shelf", BeginMs: began})
		for _, e := range events {
			require.NoError(t, e.Validate(c), e.String())
		}
		s := session.Fold(c, events)
		assert.Equal(t, session.Finished, s.Phase, "seed %d", seed)
		assert.Len(t, s.Trips, p.Heats(), "seed %d", seed)
		b := session.BookOf(c, events)
		if p.Heats() != len(p.Planned.Heats) {
			other++
		}
		if p.Heats() > len(p.Planned.Heats) {
			longer++
		}
		assert.Positive(t, b.Totals.Readings)
		assert.InEpsilon(t, c.ForgedG, b.Totals.WeightG, .3, "scaled by its own fire")
		for _, h := range b.Heats {
			assert.LessOrEqual(t, h.WorkS, p.ColdS(h.Number)+3, "nobody strikes cold steel")
		}
	}
	assert.Greater(t, other, 6, "no two hands are alike")
	assert.Greater(t, longer, 0)
	assert.Less(t, longer, 12)
}

// TestItsFiguresAreItsOwn: the same for a seed, others for another, and calipers that are asked
// twice say the same.
func TestItsFiguresAreItsOwn(t *testing.T) {
	a, b, c := piece(t, 1), piece(t, 1), piece(t, 2)
	assert.Equal(t, a.Tell(simulate.Wish{Device: "a", BeginMs: began}), b.Tell(simulate.Wish{Device: "a", BeginMs: began}))
	assert.NotEqual(t, a.Weigh(3), c.Weigh(3))
	x, ok := a.Caliper(3, plan.Height, 40)
	require.True(t, ok)
	y, _ := a.Caliper(3, plan.Height, 40)
	assert.InDelta(t, x, y, 0)
	_, ok = a.Caliper(3, plan.Height, 4000)
	assert.False(t, ok)
	assert.InDelta(t, a.Pyrometer(2, 0), a.Planned.Totals.SoakC, 80)
	assert.Less(t, a.Pyrometer(2, a.ColdS(2)), a.Pyrometer(2, 0))
}

// TestItBreaksOffAndFails at will.
func TestItBreaksOffAndFails(t *testing.T) {
	p := piece(t, 3)
	events := p.Tell(simulate.Wish{
		Device: "a", BeginMs: began, Heats: 6, Note: "fuel gone", Breaks: map[int]int64{2: 3 * 24 * 3600_000},
		Faults: map[int]simulate.Fault{4: {Fault: session.Fault{Kind: "lip", AtMm: 3}, Text: "at the point"}},
	})
	s := session.Fold(p.Course(), events)
	assert.Equal(t, session.Away, s.Phase)
	assert.Len(t, s.Trips, 6)
	assert.Len(t, s.Sittings, 2)
	b := session.BookOf(p.Course(), events)
	require.Len(t, b.Faults, 1)
	assert.Equal(t, session.FaultKind("lip"), b.Faults[0].Fault.Kind)
	assert.Equal(t, 4, b.Faults[0].OfTrip)
	assert.Less(t, b.Totals.LastsS, 24*3600.0)
}

func Example() {
	p, err := simulate.New(context.Background(), plantest.Request(), 7)
	if err != nil {
		panic(err)
	}
	events := p.Tell(simulate.Wish{Device: "shelf", BeginMs: began})
	s := session.Fold(p.Course(), events)
	fmt.Println(s.Phase, len(s.Trips) == p.Heats())
	// Output: finished true
}

// TestItIsHardenedToo: every step of the treatment is told in its order, with what was seen near
// what was advised, and what is told is taken.
func TestItIsHardenedToo(t *testing.T) {
	p := piece(t, 7)
	c := p.Course()
	events := p.Tell(simulate.Wish{Device: "sim", BeginMs: 1_700_000_000_000, Hardens: true})
	for i := range events {
		require.NoError(t, events[i].Validate(c))
	}
	b := session.BookOf(c, events)
	require.Len(t, b.Treatment, len(c.Treatment))
	for i, told := range b.Treatment {
		assert.Equal(t, c.Treatment[i].ID, told.Step)
		if told.Step == "soak" {
			assert.InDelta(t, c.Treatment[i].Figures["austenitiseC"], told.Seen.TempC, 60)
		}
	}
	s := session.Fold(c, events)
	v := s.Show(c, 1_800_000_000_000)
	assert.True(t, v.Treated)
}
