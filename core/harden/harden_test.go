package harden_test

import (
	"math"
	"testing"

	"coldember/core/harden"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestThePlateIsHalfCold where the law says so: an independent explicit simulation of a plate in
// a bath of that severity loses half of its heat when the series does.
func TestThePlateIsHalfCold(t *testing.T) {
	for _, bi := range []float64{.05, .3, 1, 5, 40} {
		const n = 80
		temp := make([]float64, n) // the middle first
		for i := range temp {
			temp[i] = 1
		}
		dx, fo := 1.0/n, 0.0
		dt := .2 * dx * dx
		for temp[0] > .5 {
			was := append([]float64{}, temp...)
			for i := range temp {
				left := was[max(0, i-1)]
				right := 0.0
				if i+1 < n {
					right = (was[i+1] - was[i]) / dx
				} else {
					right = -was[i] * bi / (1 + bi*dx/2)
				}
				in := 0.0
				if i > 0 {
					in = (was[i] - left) / dx
				}
				temp[i] += dt / dx * (right - in)
			}
			fo += dt
		}
		assert.InEpsilon(t, fo, harden.FoPlate(bi), .006, "Biot %v", bi)
	}
}

// TestDeeperInAFasterBath, with more alloy and with less asked for.
func TestDeeperInAFasterBath(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := harden.Steel{CarbonPct: rapid.Float64Range(.3, 1.1).Draw(t, "c"), Composition: steel.Composition{ManganesePct: rapid.Float64Range(.2, 1.5).Draw(t, "mn"), ChromiumPct: rapid.Float64Range(0, 1.5).Draw(t, "cr")}}
		h := rapid.Float64Range(.05, 2).Draw(t, "h")
		at := func(s harden.Steel, h, share float64, f harden.Fluid) float64 {
			d, err := harden.CriticalThicknessMm(harden.IdealDiameterMm(s), h, share, f)
			if err != nil {
				t.Fatal(err)
			}
			return d
		}
		fluid := rapid.SampledFrom([]harden.Fluid{harden.Dry, harden.OilFluid, harden.WaterFluid}).Draw(t, "fluid")
		base := at(s, h, harden.Hard, fluid)
		more := s
		more.ManganesePct += .2
		if at(s, h*1.3, harden.Hard, fluid) <= base || at(more, h, harden.Hard, fluid) <= base || at(s, h, harden.Half, fluid) <= base {
			t.Fatalf("%+v in %v: no deeper than %v", s, h, base)
		}
	})
}

// TestWhatALawIsNotForIsRefused.
func TestWhatALawIsNotForIsRefused(t *testing.T) {
	_, err := harden.CriticalThicknessMm(30, .5, .7, harden.OilFluid)
	var wrong *harden.RangeError
	require.ErrorAs(t, err, &wrong)
	assert.Equal(t, "martensiteShare", wrong.Field)
	_, err = harden.CriticalThicknessMm(math.NaN(), .5, harden.Hard, harden.OilFluid)
	require.ErrorAs(t, err, &wrong)
	_, err = harden.Spine{HeightMm: 30, HotFromMm: 40, HotC: 300, ColdC: 20}.SlabC(3, 0, 1)
	require.ErrorAs(t, err, &wrong)
	assert.Equal(t, "hotFromMm", wrong.Field)
}

// TestTheWedgeIsTheSeriesWhereItIsEven: finite volumes against the cosine series, and no heat is
// made or lost but to the air.
func TestTheWedgeIsTheSeriesWhereItIsEven(t *testing.T) {
	s := harden.Spine{HeightMm: 60, HotFromMm: 24, HotC: 420, ColdC: 40}
	even := make([]float64, 150)
	for i := range even {
		even[i] = 5
	}
	d, err := s.Run(even, 60, .05, nil)
	require.NoError(t, err)
	for _, row := range []int{200, 600, 1200} {
		for i, y := range d.YMm {
			want, err := s.SlabC(5, y, float64(row)*d.StepS)
			require.NoError(t, err)
			assert.InDelta(t, want, d.TempC[row][i], 1, "%.0f mm after %.0f s", y, float64(row)*d.StepS)
		}
	}
	none := func(float64) float64 { return 0 }
	wedge := make([]float64, 80)
	heat := func(row []float64) (sum float64) {
		for i := range row {
			sum += row[i] * wedge[i]
		}
		return sum
	}
	for i := range wedge {
		wedge[i] = .6 + 3*float64(i)/79
	}
	w, err := s.Run(wedge, 120, .5, none)
	require.NoError(t, err)
	assert.InEpsilon(t, heat(w.TempC[0]), heat(w.TempC[len(w.TempC)-1]), 1e-9)
}

// TestAWedgesEdgeIsHotSooner than a slab's of its mean thickness.
func TestAWedgesEdgeIsHotSooner(t *testing.T) {
	s := harden.Spine{HeightMm: 40, HotFromMm: 22, HotC: 420, ColdC: 40}
	wedge, slab := make([]float64, 80), make([]float64, 80)
	for i := range wedge {
		wedge[i], slab[i] = .6+4.4*float64(i)/79, 2.8
	}
	w, err := s.Run(wedge, 40, .25, nil)
	require.NoError(t, err)
	e, err := s.Run(slab, 40, .25, nil)
	require.NoError(t, err)
	assert.Greater(t, w.TempC[120][0], e.TempC[120][0]+15)
}

// TestGrainBeginsAnewAtEachCrossing, so that the last cycle sets what is left.
func TestGrainBeginsAnewAtEachCrossing(t *testing.T) {
	holds := []harden.Hold{
		{TempC: 1120, TimeS: 300, Fresh: true},
		{TempC: 1100, TimeS: 200},
		{TempC: 870, TimeS: 120, Fresh: true},
		{TempC: 830, TimeS: 120, Fresh: true},
		{TempC: 800, TimeS: 120, Fresh: true},
		{TempC: 650, TimeS: 3600, Fresh: true},
	}
	got := harden.GrainAfter(holds, 745)
	assert.Greater(t, got[1], got[0])
	assert.Less(t, got[2], got[1]/3)
	assert.Less(t, got[4], got[3])
	assert.InDelta(t, got[4], got[5], 0, "below the critical point nothing grows")
	one := harden.GrainAfter(holds[2:3], 745)
	assert.InDelta(t, one[0], got[2], 0, "what was before is forgotten")
}

// TestTheBathTakesLongerFromThickSteel, and never cools below itself.
func TestTheBathTakesLongerFromThickSteel(t *testing.T) {
	thin, ok := harden.BathS(.5, harden.OilFluid, 2, 810, 200, 55)
	require.True(t, ok)
	thick, ok := harden.BathS(.5, harden.OilFluid, 6, 810, 200, 55)
	require.True(t, ok)
	assert.Greater(t, thick, 2.9*thin)
	_, ok = harden.BathS(.5, harden.OilFluid, 2, 810, 50, 55)
	assert.False(t, ok)
}

// TestCriticalPointsAreWhereTheTablesHaveThem.
func TestCriticalPointsAreWhereTheTablesHaveThem(t *testing.T) {
	for id, want := range map[string]float64{"1084": 725, "52100": 755, "5160": 740, "15N20": 695} {
		g, err := steel.Find(id)
		require.NoError(t, err)
		low, high := harden.CriticalC(harden.SteelOf(g))
		assert.InDelta(t, want, low, 25, id)
		assert.GreaterOrEqual(t, high, low)
		assert.Greater(t, g.AustenitiseC, low, "%s hardens from above it", id)
	}
}
