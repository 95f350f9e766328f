package harden_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestNineSteelsFiveHardnesses: what is asked is what the oven leaves, or is said to be out of reach
// with what it comes to and which steels would do; from 260 to 370 °C it is said to turn brittle.
func TestNineSteelsFiveHardnesses(t *testing.T) {
	for _, id := range []string{"1045", "1075", "1084", "1095", "5160", "6150", "52100", "80CrV2", "O1"} {
		for _, want := range []float64{50, 55, 58, 60, 62} {
			c := of(t, id)
			c.Treatment.WantHardness = want
			a := harden.Advise(c)
			found := codes(a)
			t.Logf("%-7s %2.0f asked: %3.0f °C, %4.1f HRC (%s)%s", id, want, a.Temper.OvenC, a.Temper.HRC, a.Temper.Source, note(found))
			require.Positive(t, a.Temper.HRC)
			if _, out := found["harden.unreachable"]; out {
				assert.Less(t, a.Temper.MostHRC, want, "%s at %v", id, want)
				for _, f := range a.Findings {
					if f.Code == "harden.unreachable" {
						assert.InDelta(t, a.Temper.HRC, f.Figures["mostHrc"], .5)
						for _, other := range f.Steels {
							k := of(t, other)
							k.Treatment.WantHardness = want
							k.Treatment.Bath = harden.NewBath(harden.BathFor(k.Grade.Quench))
							assert.NotContains(t, codes(harden.Advise(k)), "harden.unreachable", "%s would not do for %v", other, want)
						}
					}
				}
			} else {
				assert.InDelta(t, want, a.Temper.HRC, .6, "%s at %v", id, want)
			}
			_, brittle := found["harden.embrittles"]
			assert.Equal(t, a.Temper.OvenC > 260 && a.Temper.OvenC <= 370, brittle, "%s at %v", id, want)
		}
	}
	for id, want := range map[string]float64{"1045": 62, "5160": 60} {
		c := of(t, id)
		c.Treatment.WantHardness = want
		assert.Contains(t, codes(harden.Advise(c)), "harden.unreachable", id)
	}
}

func note(found map[string]fact.Severity) (out string) {
	for _, c := range []string{"harden.unreachable", "harden.embrittles"} {
		if _, ok := found[c]; ok {
			out += ", " + c
		}
	}
	return out
}

// TestNoOilHardensDeeperThanWater, nor water deeper than brine, over all steels and thicknesses.
func TestNoOilHardensDeeperThanWater(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		d := rapid.Float64Range(3, 250).Draw(rt, "ideal diameter")
		share := rapid.SampledFrom([]float64{harden.Half, harden.Hard}).Draw(rt, "share")
		deep := func(c harden.BathClass) float64 {
			b := harden.NewBath(c)
			mm, err := harden.CriticalThicknessMm(d, b.SeverityPerIn, share, c.Fluid())
			require.NoError(rt, err)
			return mm
		}
		water := deep(harden.Water)
		assert.Less(rt, water, deep(harden.Brine))
		for _, c := range harden.BathClasses() {
			if c.Oil() {
				assert.Less(rt, deep(c), water, "%s", c)
			}
		}
		mm := rapid.Float64Range(.3, 60).Draw(rt, "thickness")
		at := func(c harden.BathClass) float64 {
			return harden.SeverityAt(harden.NewBath(c).SeverityPerIn, c.Fluid(), mm)
		}
		assert.Less(rt, at(harden.VeryFastOil), at(harden.Water))
		assert.Less(rt, at(harden.Water), at(harden.Brine))
	})
}

// TestWaterIsStoppedWhereItCracks: steels with chromium or that harden deep; a thin edge of much
// carbon is warned of, and the flash of oil stands at oils alone.
func TestWaterIsStoppedWhereItCracks(t *testing.T) {
	for _, g := range steel.Grades() {
		if g.AustenitiseC == 0 {
			continue
		}
		for _, class := range harden.BathClasses() {
			c := of(t, g.ID)
			c.Treatment.Bath = harden.NewBath(class)
			c.Profiles = wedge(.5, 2.2, 25, 9)
			a := harden.Advise(c)
			found := codes(a)
			stop := class.Watery() && (g.ChromiumPct >= .7 || a.IdealDiameterMm > 50)
			assert.Equal(t, stop, found["harden.waterDeep"] == fact.Stop, "%s in %s", g.ID, class)
			_, thin := found["harden.waterEdge"]
			assert.Equal(t, class.Watery() && g.CarbonPct >= .7, thin, "%s in %s", g.ID, class)
			_, plain := found["harden.waterThin"]
			assert.Equal(t, class.Watery(), plain, "%s in %s: 2.2 mm", g.ID, class)
			for _, s := range a.Steps {
				if s.ID == "quench" {
					assert.Equal(t, class.Oil(), len(s.Cautions) > 0 && s.Cautions[0] == "caution.quench", "%s", class)
				}
			}
		}
	}
}

// TestUnknownSteelGetsACoupon: never "does not harden"; what was tried already is used.
func TestUnknownSteelGetsACoupon(t *testing.T) {
	for _, id := range []string{"unknown-spring", "unknown-tool", "unknown-bearing"} {
		a := harden.Advise(of(t, id))
		assert.True(t, a.Hardens)
		assert.False(t, a.Known)
		assert.NotContains(t, codes(a), "harden.none")
		assert.Contains(t, codes(a), "harden.coupon")
		assert.InDelta(t, 800, a.AustenitiseC, 0)
		assert.Equal(t, harden.FastOil, a.Bath.Class)
		assert.Equal(t, "coupon-1", a.Steps[0].ID, id)
		assert.InDelta(t, 200, a.Temper.OvenC, 0)
		assert.Zero(t, a.Temper.HRC, "nobody knows")
	}
	tried := func(results harden.Tried) harden.Advice {
		c := of(t, "unknown-spring")
		c.Tried = results
		return harden.Advise(c)
	}
	proved := tried(harden.Tried{"oilQuench": "skates", "snap": "fineGrey"})
	assert.Contains(t, codes(proved), "harden.couponProved")
	assert.NotEqual(t, "coupon-1", proved.Steps[0].ID, "it was done")
	filed := tried(harden.Tried{"oilQuench": "skates"})
	assert.Contains(t, codes(filed), "harden.couponFiled", "it hardens, and nobody saw its grain")
	assert.Equal(t, "coupon-1", filed.Steps[0].ID)
	assert.InDelta(t, 770, tried(harden.Tried{"oilQuench": "skates", "snap": "coarse"}).AustenitiseC, 0, "cooler, it came out coarse")
	assert.InDelta(t, 830, tried(harden.Tried{"oilQuench": "bites"}).AustenitiseC, 0, "hotter, it stayed soft")
	none := tried(harden.Tried{"oilQuench": "bites", "waterQuench": "bites"})
	assert.False(t, none.Hardens)
	assert.Equal(t, fact.Stop, codes(none)["harden.couponNo"])
	assert.Contains(t, codes(tried(harden.Tried{"airCool": "skates"})), "harden.couponAir")
}

// TestTimeToStraighten: by default the edge leaves with twenty seconds where that can be with the
// spine below the nose; where it cannot that comes first, and the clamp is in the temper.
func TestTimeToStraighten(t *testing.T) {
	thin := of(t, "1084")
	thin.Profiles = wedge(.5, 3, 30, 9)
	a := harden.Advise(thin)
	assert.GreaterOrEqual(t, a.WindowEdgeS, 20.0)
	assert.Less(t, a.WindowEdgeS, 35.0, "no hotter than it takes")
	assert.LessOrEqual(t, a.SpineOutC, 540.5)
	chopper := of(t, "5160")
	chopper.Profiles = wedge(.7, 6, 50, 9)
	b := harden.Advise(chopper)
	assert.Zero(t, b.WindowEdgeS)
	require.NotEmpty(t, b.Findings)
	assert.Equal(t, "harden.noWindow", b.Findings[0].Code, "it stands first")
	assert.LessOrEqual(t, b.SpineOutC, 540.5, "and the spine is hard all the same")
	said := map[string]bool{}
	for _, s := range b.Steps {
		for _, c := range s.Codes {
			said[c] = true
		}
	}
	assert.True(t, said["treat.clampInTemper"] && said["treat.clamped"], "planned where it is done")
	rapid.Check(t, func(rt *rapid.T) {
		g := rapid.SampledFrom(steel.Grades()).Draw(rt, "grade")
		if g.AustenitiseC == 0 {
			return
		}
		c := of(t, g.ID)
		c.Profiles = wedge(rapid.Float64Range(.3, 1.2).Draw(rt, "edge"), rapid.Float64Range(1.5, 9).Draw(rt, "spine"), 30, 5)
		a := harden.Advise(c)
		if g.AirHardensMm == 0 {
			assert.LessOrEqual(rt, a.SpineOutC, 540.6, "%s", g.ID)
		}
		_, none := codes(a)["harden.noWindow"]
		_, short := codes(a)["harden.shortWindow"]
		assert.Equal(rt, a.WindowEdgeS < 19.5, none || short, "%s: %.1f s", g.ID, a.WindowEdgeS)
	})
}

// TestAirIsNoNormalisingForWhatHardensInIt.
func TestAirIsNoNormalisingForWhatHardensInIt(t *testing.T) {
	c := of(t, "O1")
	assert.Contains(t, codes(harden.Advise(c)), "harden.airCycles")
	for i := range c.Cycles {
		c.Cycles[i].Slow = true
	}
	slow := harden.Advise(c)
	assert.NotContains(t, codes(slow), "harden.airCycles")
	for i := range c.Cycles {
		c.Cycles[i].Slow = false
	}
	assert.GreaterOrEqual(t, harden.Advise(c).CyclesOwed, slow.CyclesOwed)
	assert.NotContains(t, codes(harden.Advise(of(t, "1084"))), "harden.airCycles")
}
