package forge

import (
	"math"
	"slices"
	"testing"

	"coldember/core/thermal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestHeatFlowsAlongButIsNotMade: what one cell loses its neighbours gain, and
// no cell leaves the range that was there, whatever the step.
func TestHeatFlowsAlongButIsNotMade(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 30).Draw(t, "cells")
		cells, temps := make([]Cell, n), make([]float64, n)
		capacity, before := make([]float64, n), 0.0
		for i := range cells {
			w, k, l := rapid.Float64Range(2, 40).Draw(t, "w"), rapid.Float64Range(.5, 12).Draw(t, "t"), rapid.Float64Range(.2, 20).Draw(t, "l")
			cells[i] = Cell{WidthMm: w, ThicknessMm: k, VolumeMm3: w * k * l}
			temps[i] = rapid.Float64Range(300, 1200).Draw(t, "c")
			capacity[i] = thermal.DensityKgPerM3 * 1e-9 * cells[i].VolumeMm3 * thermal.SpecificHeat(temps[i])
			before += capacity[i] * temps[i]
		}
		lo, hi := slices.Min(temps), slices.Max(temps)
		k := newConductor(n)
		k.lay(cells)
		k.step(temps, rapid.Float64Range(.01, 60).Draw(t, "dt"))
		after := 0.0
		for i, c := range temps {
			after += capacity[i] * c
			require.GreaterOrEqual(t, c, lo-1e-6)
			require.LessOrEqual(t, c, hi+1e-6)
		}
		require.InEpsilon(t, before, after, 1e-9)
	})
}

// TestTwoCellsComeTogetherAsTheClosedFormSays: their difference falls as
// exp(−2Gt/C), which backward Euler meets in small steps.
func TestTwoCellsComeTogetherAsTheClosedFormSays(t *testing.T) {
	cell := Cell{WidthMm: 20, ThicknessMm: 5, VolumeMm3: 1000} // 10 mm long
	cells, temps := []Cell{cell, cell}, []float64{1010, 1000}
	const seconds, steps = 4.0, 4000
	k := newConductor(2)
	k.lay(cells)
	for range steps {
		k.step(temps, seconds/steps)
	}
	c := thermal.DensityKgPerM3 * 1e-9 * 1000 * thermal.SpecificHeat(1005)
	g := thermal.ConductivityWPerMK(1005) / 1000 * 100 / 10
	assert.InEpsilon(t, 10*math.Exp(-2*g/c*seconds), temps[0]-temps[1], 2e-3)
	one := []float64{900}
	k.lay(cells[:1])
	k.step(one, 5)
	assert.InDelta(t, 900, one[0], 0, "alone, nothing flows")
}

// TestHeatRunsIntoWhatLiesBeyond the hot stretch: less and less away from it, no
// hotter than its end, and none of it out of the worked cells.
func TestHeatRunsIntoWhatLiesBeyond(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		const n = 12
		cells := make([]Cell, n)
		for i := range cells {
			w, k, l := rapid.Float64Range(10, 40).Draw(t, "w"), rapid.Float64Range(2, 12).Draw(t, "t"), rapid.Float64Range(1, 8).Draw(t, "l")
			cells[i] = Cell{WidthMm: w, ThicknessMm: k, VolumeMm3: w * k * l, TempC: 20}
		}
		first := rapid.IntRange(0, n-2).Draw(t, "first")
		last := rapid.IntRange(first, n-1).Draw(t, "last")
		for i := first; i <= last; i++ {
			cells[i].hot, cells[i].TempC = true, 1000
		}
		r := &Run{Bar: Bar{Cells: cells}, beyond: newConductor(n), temps: make([]float64, n)}
		r.spill(rapid.Float64Range(.1, 90).Draw(t, "dt"))
		for i := range cells {
			c := cells[i].TempC
			switch {
			case i >= first && i <= last:
				require.InDelta(t, 1000, c, 0)
			case i < first:
				require.LessOrEqual(t, c, cells[i+1].TempC+1e-9)
				require.Greater(t, c, 20-1e-9)
			default:
				require.LessOrEqual(t, c, cells[i-1].TempC+1e-9)
				require.Greater(t, c, 20-1e-9)
			}
		}
		if first > 0 {
			require.Greater(t, cells[first-1].TempC, 20.0)
		}
	})
}
