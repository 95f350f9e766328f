package steel_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestEveryGradeIsSound(t *testing.T) {
	seen := map[string]bool{}
	for _, g := range steel.Grades() {
		assert.False(t, seen[g.ID], g.ID)
		seen[g.ID] = true
		assert.Greater(t, g.ForgeHighC-g.ForgeLowC, 150.0, "%s has a window", g.ID)
		assert.InDelta(t, 1, g.FlowFactor, .25, g.ID)
		assert.NotEmpty(t, g.Quench, g.ID)
		assert.Positive(t, g.ManganesePct, "%s has a composition", g.ID)
		alloyed := g.ManganesePct + g.SiliconPct + g.NickelPct + g.ChromiumPct + g.MolybdenumPct + g.VanadiumPct
		assert.Less(t, alloyed, 4., "%s is a low-alloy steel", g.ID)
		assert.Equal(t, g.Assumed, g.Standard == "", "%s: of a standard, or of nobody knows what", g.ID)
		if len(g.HRC) > 0 {
			require.Len(t, g.HRC, 4, g.ID)
			for i := 1; i < 4; i++ {
				assert.Less(t, g.HRC[i], g.HRC[i-1]+.1, "%s softens as it is tempered hotter", g.ID)
			}
		}
		if g.Assumed {
			assert.Zero(t, g.AustenitiseC, "%s: nobody knows its hardening before a coupon", g.ID)
		}
	}
	assert.Len(t, seen, 25)
}

func TestFindForgivesCaseAndRefusesTheUnknown(t *testing.T) {
	g, err := steel.Find(" 80crv2 ")
	require.NoError(t, err)
	assert.Equal(t, "80CrV2", g.ID)
	_, err = steel.Find("mithril")
	var u *steel.UnknownError
	require.True(t, errors.As(err, &u))
	assert.Equal(t, "mithril", u.ID)
}

func TestNormalisingDescends(t *testing.T) {
	g, err := steel.Find("1084")
	require.NoError(t, err)
	assert.Equal(t, []float64{870, 830, 800}, g.NormalisingC())
	iron, err := steel.Find("wrought-iron")
	require.NoError(t, err)
	assert.Nil(t, iron.NormalisingC())
}

func TestHardnessIsNotInvented(t *testing.T) {
	g, err := steel.Find("1084")
	require.NoError(t, err)
	for _, c := range []float64{149, 551} {
		_, ok := g.HardnessHRC(c)
		assert.False(t, ok)
	}
	h, ok := g.HardnessHRC(215)
	assert.True(t, ok)
	assert.InDelta(t, 60.5, h, 1e-9)
	mild, err := steel.Find("1018")
	require.NoError(t, err)
	_, ok = mild.HardnessHRC(220)
	assert.False(t, ok)
}

func TestHotterSteelIsSofterAndFasterBlowsMeetMore(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := rapid.Float64Range(.1, 1.1).Draw(t, "carbon")
		temp := rapid.Float64Range(860, 1150).Draw(t, "temp")
		strain := rapid.Float64Range(.05, .65).Draw(t, "strain")
		a, hot := steel.NewFlow(c, temp, 50), steel.NewFlow(c, temp+40, 50)
		if hot.StressMPa(strain) >= a.StressMPa(strain) {
			t.Fatalf("hotter is not softer at %v", temp)
		}
		if steel.NewFlow(c, temp, 100).StressMPa(strain) <= a.StressMPa(strain) {
			t.Fatalf("faster does not meet more at %v", temp)
		}
	})
}

// TestIntegralIsTheAreaUnderTheCurve checks it and the coefficients that the
// forging loop uses against plain summation.
func TestIntegralIsTheAreaUnderTheCurve(t *testing.T) {
	f := steel.NewFlow(.8, 1000, 100)
	for _, to := range []float64{.02, .2, .69, 1.1} {
		const n = 200000
		sum := 0.0
		for i := range n {
			sum += f.StressMPa(to*(float64(i)+.5)/n) * to / n
		}
		assert.InEpsilon(t, sum, f.BaseMPa*f.Integral(to), 1e-4, "to %v", to)
		assert.InEpsilon(t, f.BaseMPa*f.Integral(to)/to, f.MeanStressMPa(to), 1e-12)
		if to <= steel.MaxStrain {
			for _, q := range []float64{.1, .5, 1} {
				a, b := steel.Coefficients(f.Exponent, to)
				assert.InEpsilon(t, f.Integral(q*to), a*math.Pow(q, f.Exponent+1)-b*q*q, 1e-12)
			}
		}
	}
	assert.Zero(t, f.MeanStressMPa(0))
}

func TestOutOfRangeIsSaid(t *testing.T) {
	assert.True(t, steel.NewFlow(.8, 1000, 100).InRange)
	assert.True(t, steel.NewFlow(.8, 1000, .1).InRange)
	assert.False(t, steel.NewFlow(.8, 1000, 400).InRange, "hand hammering is extrapolated")
	assert.False(t, steel.NewFlow(.8, 650, 10).InRange)
	assert.False(t, steel.NewFlow(.02, 1000, 10).InRange)
}

func TestEqualTempersHaveEqualParameters(t *testing.T) {
	p := steel.HollomonJaffe(200, 2)
	assert.Greater(t, p, steel.HollomonJaffe(200, 1))
	assert.InDelta(t, p, steel.HollomonJaffe(steel.OneHourEquivalentC(p), 1), 1e-9)
}

// TestEveryGradeHasItsBath: what hardens has an oil of its class, warm enough, and what
// does not has none.
func TestEveryGradeHasItsBath(t *testing.T) {
	known := map[steel.Quench]bool{}
	for _, q := range steel.Quenches() {
		known[q] = true
	}
	for _, g := range steel.Grades() {
		require.True(t, known[g.Quench], "%s: %q", g.ID, g.Quench)
		low, high, ok := g.Quench.BathC()
		assert.Equal(t, g.AustenitiseC > 0, ok, g.ID)
		if ok {
			assert.GreaterOrEqual(t, low, 20.0, g.ID)
			assert.LessOrEqual(t, high, 60.0, g.ID)
			assert.Less(t, low, high, g.ID)
			assert.Positive(t, g.SoakMin, g.ID)
		}
	}
}

// TestAShortTouchTempersHotter: the shorter it lasts, the hotter it takes for the same.
func TestAShortTouchTempersHotter(t *testing.T) {
	p := steel.HollomonJaffe(200, 2)
	last := 0.0
	for _, h := range []float64{2, 1, .1, 1. / 3600} {
		c := steel.SameTemperC(p, h)
		assert.InDelta(t, p, steel.HollomonJaffe(c, h), 1e-12)
		assert.Greater(t, c, last)
		last = c
	}
	assert.InDelta(t, steel.OneHourEquivalentC(p), steel.SameTemperC(p, 1), 1e-9)
}
