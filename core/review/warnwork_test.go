package review_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABarThatIsTooHeavyIsSaid with what its work costs, and which would do.
func TestABarThatIsTooHeavyIsSaid(t *testing.T) {
	r := plantest.Request()
	r.Bar.ThicknessMm = 12
	w := plantest.Warning(plantest.Make(t, r), "warn.barHeavy")
	need, limit := w.Figures["needMm"], w.Figures["limit"]
	require.NotNil(t, w.Remedy)
	assert.Equal(t, fact.Note, w.Severity)
	assert.Positive(t, w.Figures["heats"])
	r.Bar.ThicknessMm = need*limit + .01
	heavy := plantest.Make(t, r)
	assert.NotEmpty(t, plantest.Warning(heavy, "warn.barHeavy").Code)
	r.Bar.ThicknessMm = need * limit
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), "warn.barHeavy").Code)
	assert.Equal(t, "bar.thicknessMm", w.Remedy.Field)
	r.Bar.ThicknessMm = w.Remedy.Mm
	light := plantest.Make(t, r)
	for _, code := range []string{"warn.barHeavy", "warn.barThin", "warn.ricassoThin", "warn.tooLight", "warn.upset"} {
		assert.Empty(t, plantest.Warning(light, code).Code, code)
	}
	assert.Less(t, light.Totals.TimeS, heavy.Totals.TimeS)
}

// TestTheArmRestsByWhatItHasSwung since the last rest, and not where a machine
// does the heavy work.
func TestTheArmRestsByWhatItHasSwung(t *testing.T) {
	const restAfterKg = 440
	heavy := plantest.Thick(nil)
	p := plantest.Make(t, heavy)
	w := plantest.Warning(p, "warn.tired")
	swung, rests := 0.0, 0.0
	for i, h := range p.Heats[:p.Totals.Heats] {
		before := swung
		for _, part := range h.Parts {
			swung += part.Blows * heavy.Smith.HammerKg
		}
		if last := i+1 == p.Totals.Heats; !last {
			require.Equal(t, swung > restAfterKg, h.Rest, "heat %d: %v kg", h.Number, swung)
		}
		if !h.Rest {
			continue
		}
		require.LessOrEqual(t, before, float64(restAfterKg), "no later than it should")
		if rests++; rests == 1 {
			assert.InDelta(t, h.Number, w.Figures["heat"], 0)
		}
		swung = 0
	}
	require.Positive(t, rests)
	assert.InDelta(t, rests, w.Figures["rests"], 0)
	assert.Empty(t, plantest.Warning(plantest.Make(t, plantest.Request()), "warn.tired").Code, "a light piece")
	machine := plantest.Make(t, plantest.Thick(forge.NewMachine(forge.PowerHammer)))
	assert.Empty(t, plantest.Warning(machine, "warn.tired").Code, "the machine does not tire")
}

// TestAGougeDeeperThanWhatIsLeftIsSaid at the ricasso, by what it is short of.
func TestAGougeDeeperThanWhatIsLeftIsSaid(t *testing.T) {
	r := plantest.Request()
	marks := r.Smith.Skill.MarksMm()
	with := func(face, bar float64) (plan.Request, fact.Warning) {
		q := r
		q.Allowances.FaceMm = face
		q.Bar.ThicknessMm = bar
		return q, plantest.Warning(plantest.Make(t, q), "warn.gouge")
	}
	_, w := with(marks, 6)
	assert.Empty(t, w.Code)
	q, w := with(marks-.01, 6)
	require.Equal(t, "allowances.faceMm", w.Remedy.Field)
	q.Allowances.FaceMm = w.Remedy.Mm
	assert.Empty(t, plantest.Warning(plantest.Make(t, q), "warn.gouge").Code)

	enough := r.Design.Ricasso.ThicknessMm + 2*marks
	_, w = with(.5, enough)
	assert.Empty(t, w.Code)
	q, w = with(.5, enough-.02)
	require.Equal(t, "bar.thicknessMm", w.Remedy.Field)
	q.Bar.ThicknessMm = w.Remedy.Mm
	assert.Empty(t, plantest.Warning(plantest.Make(t, q), "warn.gouge").Code)

	z := r.Allowances.ByZone()
	z.RicassoFaceMm = marks / 2
	r.Allowances.Zones = &z
	q, w = with(.5, 6)
	require.Equal(t, "allowances.zones.ricassoFaceMm", w.Remedy.Field)
	z.RicassoFaceMm = w.Remedy.Mm
	assert.Empty(t, plantest.Warning(plantest.Make(t, q), "warn.gouge").Code)
	z.RicassoFaceMm = marks / 2
	q, w = with(.5, enough-.02)
	require.Len(t, w.Remedy.And, 1, "two things at once")
	clears(t, q, w)
}

// TestAShortHeatIsSaid where the fire leaves less than six seconds at the anvil;
// a hotter fire, where there is one, mends it.
func TestAShortHeatIsSaid(t *testing.T) {
	r := plantest.Request()
	var short fact.Warning
	for r.Fire.TempC = 1140; short.Code == ""; r.Fire.TempC -= 10 {
		p := plantest.Make(t, r)
		short = plantest.Warning(p, "warn.shortHeat")
		for _, h := range p.Heats[:p.Totals.Heats] {
			if short.Code == "" && len(h.Parts) == 1 && h.Parts[0].ToShare < 1 {
				require.GreaterOrEqual(t, h.WorkS, 6-1e-9, "heat %d", h.Number)
			}
		}
	}
	assert.Less(t, short.Figures["workS"], 6.0)
	require.NotNil(t, short.Remedy)
	require.Equal(t, "fire.tempC", short.Remedy.Field)
	r.Fire.TempC = degrees(t, short.Remedy.Text)
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), "warn.shortHeat").Code)

	r.Fire.SoakC = 960
	own := plantest.Warning(plantest.Make(t, r), "warn.shortHeat")
	require.Equal(t, "fire.soakC", own.Remedy.Field)
	r.Fire.SoakC = degrees(t, own.Remedy.Text)
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), "warn.shortHeat").Code)
}

// TestTheTimeTooHotIsTold: none where nothing is, and more in every heat the hotter it is taken.
func TestTheTimeTooHotIsTold(t *testing.T) {
	r := plantest.Request()
	r.Fire.TempC = 1300
	high := plantest.Make(t, r).Steel.ForgeHighC
	last := 0.0
	for _, over := range []float64{5, 40, 80} {
		r.Fire.SoakC = high + over
		p := plantest.Make(t, r)
		f := plantest.Warning(p, "warn.hot").Figures
		assert.Greater(t, f["aboveS"]/f["heats"], last, "%v over", over)
		assert.Less(t, f["aboveS"], p.Totals.TimeS)
		assert.InDelta(t, 3, f["cycles"], 0)
		last = f["aboveS"] / f["heats"]
	}
	r.Choices.Cycles = plan.Once
	assert.InDelta(t, 1, plantest.Warning(plantest.Make(t, r), "warn.hot").Figures["cycles"], 0)
}
