package steel_test

import (
	"testing"

	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// handbook is the table of steels as the house has it: carbon and what is named beside it, the
// forging window, normalising, hardening with its soak, hardness as quenched and after an hour at
// 200, 230 and 260 °C, and how much stiffer it is hot.
var handbook = []struct {
	id                    string
	c, mn, si, ni, cr, v  float64
	low, high, norm, aust float64
	soak                  float64
	quench                steel.Quench
	hrc                   []float64
	flow                  float64
}{
	{"1018", .18, 0, 0, 0, 0, 0, 850, 1260, 920, 0, 0, steel.NoQuench, nil, 1},
	{"1045", .45, 0, 0, 0, 0, 0, 850, 1230, 880, 840, 3, steel.WaterOrVeryFast, []float64{57, 53, 51, 50}, 1},
	{"1060", .6, 0, 0, 0, 0, 0, 840, 1180, 880, 815, 3, steel.FastOil, []float64{62, 58, 57, 55}, 1},
	{"1075", .75, .6, 0, 0, 0, 0, 830, 1150, 870, 805, 5, steel.FastOil, []float64{64, 60, 59, 57}, 1},
	{"1084", .84, .75, 0, 0, 0, 0, 830, 1150, 870, 805, 5, steel.FastOil, []float64{65, 61, 60, 58}, 1},
	{"1095", .95, .4, 0, 0, 0, 0, 820, 1120, 870, 795, 5, steel.VeryFastOil, []float64{66, 62, 61, 59}, 1},
	{"W1", 1, 0, 0, 0, 0, 0, 820, 1070, 870, 790, 5, steel.VeryFastOrBrine, []float64{66, 62, 61, 59}, 1},
	{"W2", 1, 0, 0, 0, 0, .2, 820, 1070, 870, 795, 5, steel.VeryFastOil, []float64{66, 62, 61, 59}, 1.03},
	{"5160", .6, 0, 0, 0, .8, 0, 860, 1180, 870, 840, 8, steel.MediumOil, []float64{62, 59, 58, 56}, 1.08},
	{"9260", .6, 0, 2, 0, 0, 0, 870, 1150, 900, 870, 8, steel.MediumOil, []float64{62, 60, 59, 57}, 1.12},
	{"6150", .5, 0, 0, 0, 1, .15, 860, 1180, 900, 860, 8, steel.MediumOil, []float64{60, 56, 55, 54}, 1.08},
	{"52100", 1, 0, 0, 0, 1.5, 0, 870, 1120, 900, 810, 15, steel.MediumToFast, []float64{65, 61, 60, 59}, 1.15},
	{"80CrV2", .8, 0, 0, 0, .5, .2, 850, 1100, 870, 820, 8, steel.MediumToFast, []float64{64, 61, 60, 58}, 1.08},
	{"15N20", .75, 0, 0, 2, 0, 0, 850, 1150, 870, 805, 5, steel.MediumToFast, []float64{64, 60, 59, 57}, 1.08},
	{"L6", .72, 0, 0, 1.6, .8, 0, 850, 1090, 870, 815, 8, steel.MediumOil, []float64{63, 59, 58, 57}, 1.12},
	{"O1", .95, 1.2, 0, 0, .5, 0, 850, 1050, 870, 805, 15, steel.MediumOil, []float64{64, 61, 60, 59}, 1.2},
	{"wrought-iron", .05, 0, 0, 0, 0, 0, 1000, 1320, 0, 0, 0, steel.NoQuench, nil, .9},
	{"unknown-spring", .6, 0, 0, 0, 0, 0, 870, 1150, 870, 0, 0, steel.ByCoupon, nil, 1.12},
	{"unknown-tool", .95, 0, 0, 0, 0, 0, 850, 1050, 870, 0, 0, steel.ByCoupon, nil, 1.2},
	{"unknown-bearing", 1, 0, 0, 0, 0, 0, 870, 1120, 900, 0, 0, steel.ByCoupon, nil, 1.15},
}

// TestTheTableIsTheHandbooks in every figure that it names.
func TestTheTableIsTheHandbooks(t *testing.T) {
	for _, h := range handbook {
		g, err := steel.Find(h.id)
		require.NoError(t, err)
		assert.InDelta(t, h.c, g.CarbonPct, 1e-9, h.id)
		for name, pair := range map[string][2]float64{"Mn": {h.mn, g.ManganesePct}, "Si": {h.si, g.SiliconPct}, "Ni": {h.ni, g.NickelPct}, "Cr": {h.cr, g.ChromiumPct}, "V": {h.v, g.VanadiumPct}} {
			if pair[0] > 0 {
				assert.InDelta(t, pair[0], pair[1], 1e-9, "%s %s", h.id, name)
			}
		}
		assert.Equal(t, []float64{h.low, h.high, h.norm, h.aust, h.soak, h.flow}, []float64{g.ForgeLowC, g.ForgeHighC, g.NormaliseC, g.AustenitiseC, g.SoakMin, g.FlowFactor}, h.id)
		assert.Equal(t, h.quench, g.Quench, h.id)
		assert.Equal(t, h.hrc, g.HRC, h.id)
	}
	bearing, err := steel.Find("52100")
	require.NoError(t, err)
	assert.InDelta(t, 15, bearing.NormaliseMin, 0, "held to dissolve its carbides")
}

// TestEveryGradeSoftensEvenly from 150 to 550 °C: never harder as it is tempered hotter, nowhere by a
// leap, its table where it has one, and as hard as such steels are known to come out.
func TestEveryGradeSoftensEvenly(t *testing.T) {
	for _, g := range steel.Grades() {
		if len(g.HRC) != 4 {
			_, ok := g.HardnessHRC(220)
			assert.False(t, ok, g.ID)
			continue
		}
		last := g.HRC[0]
		for c := steel.TemperLeastC; c <= steel.TemperMostC; c++ {
			h, ok := g.HardnessHRC(c)
			require.True(t, ok)
			assert.Less(t, h, last, "%s at %v", g.ID, c)
			assert.Less(t, last-h, 3.3, "%s at %v", g.ID, c)
			last = h
		}
		for i, c := range []float64{200, 230, 260} {
			h, _ := g.HardnessHRC(c)
			assert.InDelta(t, g.HRC[i+1], h, 1e-9, "%s at %v", g.ID, c)
		}
		assert.Less(t, last, 45.0, "%s at 550", g.ID)
	}
	for _, k := range []struct {
		id     string
		c, hrc float64
	}{{"1095", 315, 55}, {"1084", 425, 45}, {"5160", 425, 45}, {"5160", 315, 53}, {"9260", 425, 48}, {"O1", 315, 56}, {"52100", 370, 53}, {"1045", 425, 39}} {
		g, err := steel.Find(k.id)
		require.NoError(t, err)
		h, _ := g.HardnessHRC(k.c)
		assert.InDelta(t, k.hrc, h, 2.5, "%s at %v", k.id, k.c)
	}
}

// TestRockwellOfVickers at places of ASTM E140.
func TestRockwellOfVickers(t *testing.T) {
	for hv, hrc := range map[float64]float64{238: 20, 302: 30, 392: 40, 513: 50, 697: 60, 940: 68} {
		assert.InDelta(t, hrc, steel.RockwellC(hv), 1e-9)
	}
}

// TestACertificateNamesItsGrade: the composition of each known grade is taken for a grade of the same,
// and one of none is not.
func TestACertificateNamesItsGrade(t *testing.T) {
	for _, g := range steel.Grades() {
		if g.Assumed {
			continue
		}
		like, ok := steel.Like(steel.AnalysisOf(g))
		require.True(t, ok, g.ID)
		assert.InDelta(t, g.CarbonPct, like.CarbonPct, .06, g.ID)
		assert.Equal(t, g.Composition, like.Composition, g.ID)
	}
	_, ok := steel.Like(steel.Analysis{CarbonPct: .7, Composition: steel.Composition{ManganesePct: .4, SiliconPct: .5, ChromiumPct: 13}})
	assert.False(t, ok, "stainless is none of them")
}
