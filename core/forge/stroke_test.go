package forge_test

import (
	"math"
	"testing"

	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestNoStrokeDoesMoreThanItCan: neither past its target, nor more than three tenths of the
// height, nor with more energy or force than there is; what it does is the law's.
func TestNoStrokeDoesMoreThanItCan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := forge.Stroke{
			HeightMm: rapid.Float64Range(1, 60).Draw(t, "height"), BiteMm: rapid.Float64Range(5, 80).Draw(t, "bite"),
			BreadthMm: rapid.Float64Range(2, 80).Draw(t, "breadth"), StressMPa: rapid.Float64Range(30, 300).Draw(t, "stress"),
			TempC: rapid.Float64Range(700, 1200).Draw(t, "temp"),
		}
		s.TargetMm = s.HeightMm * rapid.Float64Range(.3, 1.1).Draw(t, "target")
		if rapid.Bool().Draw(t, "press") {
			s.ForceKN = rapid.Float64Range(10, 2000).Draw(t, "force")
		} else {
			s.UsefulJ = rapid.Float64Range(1, 3000).Draw(t, "energy")
		}
		got := s.Strike()
		require.Equal(t, got, s.Strike(), "the same stroke does the same")
		require.LessOrEqual(t, got.HeightAfterMm, s.HeightMm)
		require.GreaterOrEqual(t, got.HeightAfterMm, math.Min(s.HeightMm, s.TargetMm)-1e-9)
		require.GreaterOrEqual(t, got.HeightAfterMm, .7*s.HeightMm-1e-9)
		require.InDelta(t, math.Log(s.HeightMm/got.HeightAfterMm), got.Strain, 1e-12)
		if got.Stalls {
			require.Zero(t, got.Strain)
			return
		}
		volume := s.BiteMm * s.BreadthMm * s.HeightMm
		if s.UsefulJ > 0 {
			require.LessOrEqual(t, forge.WorkJ(volume, got.Strain, s.StressMPa, forge.Redundancy(s.HeightMm, s.BiteMm)), s.UsefulJ*(1+1e-9))
			more := s
			more.UsefulJ *= 1.5
			require.LessOrEqual(t, more.Strike().HeightAfterMm, got.HeightAfterMm+1e-12, "a harder blow never does less")
		} else {
			require.LessOrEqual(t, got.ForceKN, s.ForceKN*(1+1e-9))
			require.LessOrEqual(t, got.BiteMm, s.BiteMm)
		}
		if got.Strain > 0 {
			require.Positive(t, got.RiseC)
		}
	})
}

// TestCoverageIsACount of whole strokes that overlap by a fifth.
func TestCoverageIsACount(t *testing.T) {
	assert.InDelta(t, 1, forge.Coverage(.1, .1, 20, 20, 1), 0)
	assert.InDelta(t, 5, forge.Coverage(80, 20, 20, 20, 1), 0, "sixteen at a time")
	assert.InDelta(t, 6, forge.Coverage(80.1, 20, 20, 20, 1), 0)
	assert.InDelta(t, 24, forge.Coverage(80.1, 21, 20, 20, 2), 0)
}

// TestAHeavyHammerIsSlower but carries more; what a smith has set stays.
func TestAHeavyHammerIsSlower(t *testing.T) {
	hammers := forge.UsualHammers()
	light, heavy := forge.NewSmith(forge.Sure).WithHammer(hammers["light"]), forge.NewSmith(forge.Sure).WithHammer(hammers["heavy"])
	assert.Greater(t, light.SpeedMPerS, heavy.SpeedMPerS)
	assert.Greater(t, light.RatePerS, heavy.RatePerS)
	assert.Less(t, light.UsefulJ(), heavy.UsefulJ())
	own := forge.NewSmith(forge.Sure)
	own.SpeedMPerS = 5
	assert.InDelta(t, 5, own.WithHammer(hammers["heavy"]).SpeedMPerS, 0)
	back := heavy.WithHammer(hammers["usual"])
	assert.InDelta(t, 7, back.SpeedMPerS, 1e-9)
	assert.InDelta(t, 1.8, back.RatePerS, 1e-9)
}

// TestBlowsAreTheGreaterOfWorkAndCover: a trifle is still gone over, and much work is
// counted by its energy.
func TestBlowsAreTheGreaterOfWorkAndCover(t *testing.T) {
	blows := func(op *forge.Operation) (n float64) {
		r := run(t, setup(), bar(4, 30, 6), op)
		for _, h := range r.Heats {
			n += h.Blows
		}
		return n
	}
	trifle := draw(0, 3, 30.01, 5.99)
	trifle.Stretches = []int{0}
	peen := forge.NewSmith(forge.Steady).Tool(forge.PeenAcross)
	assert.InDelta(t, forge.Coverage(40, 30, peen.BiteMm, peen.BreadthMm, 2), blows(trifle), .01)
	planish := &forge.Operation{ID: "planish", Kind: forge.Planish, Last: 3}
	assert.InDelta(t, forge.Coverage(40, 30, 27, 27, 2), blows(planish), .01)
	half, all := draw(0, 3, 31, 4.8), draw(0, 3, 32, 3.9)
	assert.Greater(t, blows(half), forge.Coverage(40, 30, peen.BiteMm, peen.BreadthMm, 2))
	assert.Greater(t, blows(all), 1.7*blows(half))
}

// TestAStoneIsNoAnvil: each stand-in is known again by its figures, and one of the smith's
// own is none of them.
func TestAStoneIsNoAnvil(t *testing.T) {
	h := forge.NewSmith(forge.Sure)
	assert.Equal(t, "anvil", h.AnvilID())
	for id, a := range forge.UsualAnvils() {
		on := h.WithAnvil(a)
		assert.Equal(t, id, on.AnvilID())
		assert.LessOrEqual(t, on.UsefulJ(), h.UsefulJ()*1.05, id)
		assert.GreaterOrEqual(t, on.MarksMm(), h.MarksMm(), id)
	}
	h.AnvilKg = 77
	assert.Empty(t, h.AnvilID())
}
