package hour_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/hour"
	"coldember/core/steel"
	"coldember/core/thermal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hidden is a smith at a forge that an hour is to find out.
type hidden struct {
	arm, spread, scale, emissivity, fuelKgPerH float64
	fireC                                      float64
	rng                                        *rand.Rand
}

func draw(seed uint64) hidden {
	rng := rand.New(rand.NewPCG(seed, 0xb0))
	within := func(low, high float64) float64 { return low + (high-low)*rng.Float64() }
	off := 1.1
	if rng.IntN(2) == 0 {
		off = .9
	}
	return hidden{within(.6, 1.5), within(.85, 1.15), within(.5, 1.6), off, within(.5, 1.5), 1200 + within(-80, 80), rng}
}

// measures is the hour of a hidden smith, with calipers that are off by .15 mm and scales by a gram: fifteen to thirty
// blows that land or do not, one by one, in cells of their own; a bar that cools in steps of its own.
func (s *hidden) measures(t require.TestingT) hour.Hour {
	h := hour.New("Ida")
	near := func(mm float64) (mean float64) { // in three places
		for range 3 {
			mean += math.Round((mm+.15*s.rng.NormFloat64())*10) / 10 / 3
		}
		return mean
	}
	smith, fire := forge.NewSmith(forge.Steady), forge.NewFire()
	fire.TempC = s.fireC
	grade, err := steel.Find(h.SteelID)
	require.NoError(t, err)
	grade.ForgeHighC, grade.ForgeLowC = math.Max(grade.ForgeHighC, s.fireC), 750

	// what it took to thin a stretch by a third or so, in ten cells
	h.StretchMm = 30
	fire.HotLengthMm = 200
	as := smith
	as.EnergyFactor, as.SpreadFactor = s.arm, s.spread
	share := as.SpreadOf(&forge.Operation{Kind: forge.Profile, Face: h.Face}, h.WidthMm)
	strain := .42 * math.Sqrt(s.arm)
	to := forge.Target{WidthMm: h.WidthMm * math.Exp(share*strain), ThicknessMm: h.ThicknessMm * math.Exp(-strain)}
	to.EdgeMm, to.SpineMm = to.ThicknessMm, to.ThicknessMm
	bar, op := forge.Bar{}, forge.Operation{ID: "hour", Kind: forge.Profile, Face: h.Face}
	for i := range 10 {
		bar.Cells = append(bar.Cells, forge.Cell{Zone: "blade", VolumeMm3: h.StretchMm * h.WidthMm * h.ThicknessMm / 10, WidthMm: h.WidthMm, ThicknessMm: h.ThicknessMm, EdgeMm: h.ThicknessMm, SpineMm: h.ThicknessMm, TempC: 20})
		op.Targets, op.Last = append(op.Targets, to), i
	}
	run, err := forge.NewRun(forge.Setup{Smith: as, Fire: fire, Steel: grade, ByBlow: forge.Evenly}, bar)
	require.NoError(t, err)
	require.NoError(t, run.Do(&op))
	for i := range run.Heats {
		h.Blows, h.LastedS = h.Blows+run.Heats[i].Blows, h.LastedS+run.Heats[i].WorkS
	}
	h.Blows, h.LastedS = math.Round(h.Blows), math.Round(h.LastedS)
	done := run.Bar.Cells[5]
	h.AfterThicknessMm, h.AfterWidthMm = near(done.ThicknessMm), near(done.WidthMm)

	// a magnet, by a bar that radiates more or less than the law has it; and a bucket
	air := thermal.Air()
	air.Emissivity *= s.emissivity
	hot := s.fireC - forge.UnderForgeC
	h.MagnetS, err = air.TimeTo(h.WidthMm, h.ThicknessMm, hot, 770)
	require.NoError(t, err)
	h.MagnetS = math.Round(h.MagnetS + .7*s.rng.NormFloat64())
	h.HotKg, h.WaterKg = .35, 2.5
	joule := 0.0
	for c := 46.0; c < hot; c++ { // down to the warm water
		joule += h.HotKg * thermal.SpecificHeat(c+.5)
	}
	h.WaterRiseK = math.Round(10*(joule*(.98+.015*s.rng.NormFloat64())/(h.WaterKg*4186)+.2*s.rng.NormFloat64())) / 10
	h.GlowMm = math.Round(110 + 5*s.rng.NormFloat64())

	// three heats of ten minutes, the scale brushed off; and the bottle
	in, c, clock := thermal.Forge(s.fireC), 20.0, thermal.ScaleClock{}
	for range 6000 {
		c = in.Step(h.FlatWidthMm, h.FlatThicknessMm, c, .1)
		clock.Add(c, .1, fire.Atmosphere)
	}
	for range 100 {
		c = thermal.Air().Step(h.FlatWidthMm, h.FlatThicknessMm, c, .1)
		clock.Add(c, .1, 1)
	}
	h.Heats, h.HeatS = 3, 600
	gram := func(kg float64) float64 { return math.Round(kg*1000+s.rng.NormFloat64()) / 1000 }
	lost := 3 * s.scale * clock.LossMm() * 2 * (h.FlatWidthMm + h.FlatThicknessMm) * h.GlowMm * 7.85e-6 * math.Exp(.05*s.rng.NormFloat64())
	h.BeforeKg = gram(.6)
	h.AfterKg = gram(.6 - lost)
	h.FuelBeforeKg, h.FuelS = gram(11), 3600
	h.FuelAfterKg = gram(11 - s.fuelKgPerH)
	return h
}

// found is how many of hidden smiths an hour finds, and how often the four fifths of what it says hold what is.
type found struct{ arm, fire, scale, fuel, in, all, smiths float64 }

func finds(t require.TestingT, smiths uint64) (f found) {
	f.smiths = float64(smiths)
	yes := func(ok bool) float64 {
		if ok {
			return 1
		}
		return 0
	}
	const tenth = 1.2815515655446004
	for seed := range smiths {
		s := draw(seed)
		h := s.measures(t)
		got := hour.Read(&h, forge.NewSmith(forge.Steady), forge.NewFire())
		require.NotNil(t, got.Blow)
		require.NotNil(t, got.TempC)
		require.NotNil(t, got.Scale)
		f.arm += yes(math.Abs(got.Blow.Factor/s.arm-1) <= .1)
		f.fire += yes(math.Abs(got.TempC.Is-s.fireC) <= 30)
		// what a heat takes by what was found, over what it takes: a fire that is told hotter has the lesser factor
		scale := got.Scale.Factor / s.scale * math.Sqrt(thermal.ScaleRate(got.TempC.Is)/thermal.ScaleRate(s.fireC))
		f.scale += yes(math.Abs(scale-1) <= .15)
		f.fuel += yes(math.Abs(got.FuelKgPerH.Is/s.fuelKgPerH-1) <= .15)
		for _, in := range []bool{
			math.Abs(math.Log(got.Blow.Factor/s.arm)) <= tenth*got.Blow.SdLog,
			math.Abs(got.TempC.Is-s.fireC) <= tenth*got.TempC.Sd,
			math.Abs(math.Log(scale)) <= tenth*got.Scale.SdLog,
		} {
			f.in, f.all = f.in+yes(in), f.all+1
		}
	}
	return f
}

// TestAnHourFindsHiddenSmiths: four in five of them to a tenth of their arm, 30 °C of their fire, and 15 % of scale and fuel.
func TestAnHourFindsHiddenSmiths(t *testing.T) {
	f := finds(t, 40)
	t.Logf("arm %.0f, fire %.0f, scale %.0f, fuel %.0f of %.0f; %.1f %% of what is lies in its band", f.arm, f.fire, f.scale, f.fuel, f.smiths, 100*f.in/f.all)
	for name, n := range map[string]float64{"arm": f.arm, "fire": f.fire, "scale": f.scale, "fuel": f.fuel} {
		assert.GreaterOrEqual(t, n, .8*f.smiths, name)
	}
}

// TestNothingMeasuredTellsNothing, and what cannot be is refused at its field.
func TestNothingMeasuredTellsNothing(t *testing.T) {
	h := hour.New("Ida")
	c := fact.NewCheck()
	h.Validate(c)
	require.NoError(t, c.Err())
	assert.Equal(t, hour.Tells{}, hour.Read(&h, forge.NewSmith(forge.Steady), forge.NewFire()))
	slip := hour.New("Ida") // thirty blows do not thin it by a hair: a slip of the keyboard
	slip.StretchMm, slip.Blows, slip.LastedS, slip.AfterWidthMm, slip.AfterThicknessMm = 30, 30, 17, 16.1, 9.9
	told := hour.Read(&slip, forge.NewSmith(forge.Steady), forge.NewFire())
	assert.Nil(t, told.Blow)
	assert.Contains(t, told.Doubtful, "blow")
	for field, set := range map[string]func(*hour.Hour){
		"afterThicknessMm": func(h *hour.Hour) { h.AfterThicknessMm = 13 },
		"afterKg":          func(h *hour.Hour) { h.BeforeKg, h.AfterKg = .5, .6 },
		"fuelAfterKg":      func(h *hour.Hour) { h.FuelBeforeKg, h.FuelAfterKg = 5, 6 },
		"magnetS":          func(h *hour.Hour) { h.MagnetS = math.NaN() },
		"steelId":          func(h *hour.Hour) { h.SteelID = "mithril" },
		"face":             func(h *hour.Hour) { h.Face = "nose" },
	} {
		h := hour.New("Ida")
		set(&h)
		c := fact.NewCheck()
		h.Validate(c)
		var fields fact.FieldErrors
		require.ErrorAs(t, c.Err(), &fields, field)
		assert.True(t, slices.ContainsFunc(fields, func(f fact.FieldError) bool { return f.Field == field }), field)
	}
}

// BenchmarkHour is 400 hidden smiths, and what an hour finds of them.
func BenchmarkHour(b *testing.B) {
	var f found
	for b.Loop() {
		f = finds(b, 400)
	}
	for name, n := range map[string]float64{"%arm-to-10%": f.arm, "%fire-to-30C": f.fire, "%scale-to-15%": f.scale, "%fuel-to-15%": f.fuel} {
		b.ReportMetric(100*n/f.smiths, name)
	}
	b.ReportMetric(100*f.in/f.all, "%in-band")
}
