package planner_test

import (
	"context"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/route"
	"coldember/core/section"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drop is a full flat blade with a drop point.
func drop(lengthMm, heightMm, spineMm float64) blade.Design {
	d := blade.Design{
		Shape: blade.Drop, LengthMm: lengthMm, HeightMm: heightMm, SpineMm: spineMm, TipMm: spineMm / 2,
		Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: .5},
		Ricasso: blade.Ricasso{LengthMm: 14, HeightMm: heightMm * .85, ThicknessMm: spineMm + .4}, Tang: blade.Tang{LengthMm: 100},
	}
	d.SetTang(blade.HiddenTang)
	return d
}

// squeezed is a slim kitchen knife from a square of thirty.
func squeezed(m *forge.Machine) plan.Request {
	d := drop(300, 45, 2.6)
	d.Ricasso.HeightMm = 25
	d.SetTang(blade.HiddenTang)
	r := plan.NewRequest(d, "52100", stock.Item{Form: stock.Square, SideMm: 30, LengthMm: 600}, forge.Steady)
	r.Smith.Machine = m
	return r
}

func between[T int | float64](t *testing.T, low, high, v T, what string) {
	t.Helper()
	assert.GreaterOrEqual(t, v, low, what)
	assert.LessOrEqual(t, v, high, what)
}

// TestFiguresThatAPractitionerBelieves for a steady hand with a hammer of 1.1 kg: each range
// is what such work is known to take, wide enough for hands and fires to differ.
func TestFiguresThatAPractitionerBelieves(t *testing.T) {
	reference := func(w, thick float64) plan.Totals {
		r := plantest.Sanity(w, thick)
		r.Smith = forge.NewSmith(forge.Steady)
		return plantest.Make(t, r).Totals
	}
	near := reference(25, 5)
	between(t, 10, 20, near.Heats, "a bar near its shape: an evening's heats")
	between(t, 300, 550, near.Blows, "some twenty blows to a heat of so thin a bar")
	between(t, 14*60., 30*60., near.TimeS, "under half an hour at fire and anvil")
	between(t, 16, 32, reference(38, 9.5).Heats, "three times the section has to be moved first")

	p := plantest.Make(t, plan.NewRequest(drop(105, 28, 4), "1084", plantest.Flat(25, 6, 900), forge.Steady))
	between(t, 10, 20, p.Totals.Heats, "a hunter from a bar that suits it")
	between(t, 300, 650, p.Totals.Blows, "and no fewer blows than go over it")

	p = plantest.Make(t, squeezed(forge.NewMachine(forge.Press)))
	squeezes := 0.0
	for _, o := range p.Operations {
		if o.Kind == string(forge.BreakDown) {
			require.Equal(t, string(forge.Press), o.Hammer().Machine)
			squeezes += o.Hammer().Blows
		}
	}
	between(t, 80, 400, squeezes, "twenty millimetres of die go along thirty of square many times, both ways")
	between(t, 15, 45, p.Totals.Heats, "thin steel chills between dies, and bevels are the hammer's")
	hammer := forge.NewMachine(forge.PowerHammer)
	hammer.TupKg = 50
	between(t, 6, 35, plantest.Make(t, squeezed(hammer)).Totals.Heats, "fast, and hot from its own work")
	byHand := plantest.Make(t, squeezed(nil))
	assert.True(t, byHand.Totals.Heats > 45 || byHand.Obstacle().Code != "", "nobody draws that by hand alone: %d heats", byHand.Totals.Heats)
}

// TestABroadBladeIsToldWhatItsBarReaches: forty millimetres of peen spread a wide bar by
// two fifths of what it thins.
func TestABroadBladeIsToldWhatItsBarReaches(t *testing.T) {
	r := plan.NewRequest(drop(150, 70, 4), "1075", plantest.Flat(45, 6, 800), forge.Steady)
	w := plantest.TooNarrow(plantest.Make(t, r))
	require.Equal(t, fact.Stop, w.Severity)
	between(t, 52, 60, w.Figures["reachMm"], "of seventy")
}

// TestARodSpreadsMoreThanABar: under a long peen nearly all of it goes sideways.
func TestARodSpreadsMoreThanABar(t *testing.T) {
	bar, err := stock.Item{Form: stock.Round, DiameterMm: 7, LengthMm: 500}.Even()
	require.NoError(t, err)
	most := forge.NewSmith(forge.Steady).MostSpread(forge.PinchOut, bar.WidthMm)
	reach := route.ReachOf(bar.WidthMm, bar.ThicknessMm, 12, 2.5, most).ReachableHeightMm
	between(t, 11, 13.5, reach, "at two and a half thick")
}

// TestALumpIsNotMadeWideToBeNarrowed: a ball goes by turns to the square that spreads to
// the blade, so that once it is flat hardly a blow falls on its narrow side.
func TestALumpIsNotMadeWideToBeNarrowed(t *testing.T) {
	d := drop(85, 20, 2.5)
	d.SetTang(blade.FullTang)
	d.Tang.LengthMm = 70
	r := plan.NewRequest(d, "52100", stock.Item{Form: stock.Ball, DiameterMm: 35}, forge.Steady)
	r.Allowances, r.Choices.Holding = blade.ForgeClose.Allowances(), plan.WeldedRod
	p, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	assert.Empty(t, p.Obstacle().Code, "%v", p.Obstacle())
	require.NotNil(t, p.Bar.Down)
	flat, edge, all := false, 0.0, 0.0
	for _, o := range p.Operations {
		if f := o.Forging; f != nil && flat {
			edge, all = edge+f.EdgeBlows, all+f.Blows
		}
		flat = flat || o.ID == "breakDown" // the square; from here on it gets flat
	}
	require.Greater(t, all, 100.)
	assert.Less(t, edge, all/10)
}

// TestAFewTapsAreNoHeat: a blade that is nearly straight is straightened at the end of the
// heats that bevelled it.
func TestAFewTapsAreNoHeat(t *testing.T) {
	p := plantest.Make(t, squeezed(forge.NewMachine(forge.PowerHammer)))
	taps, own := 0.0, 0
	for _, h := range p.Heats {
		only := true
		for _, part := range h.Parts {
			k := plan.KindOf(part.Operation)
			if k == forge.Correct || k == forge.PreCurve {
				taps += part.Blows
			} else {
				only = false
			}
		}
		if only {
			own++
		}
	}
	assert.Greater(t, taps, 12.)
	assert.LessOrEqual(t, own, 2, "where nothing was hot there before")
	assert.InDelta(t, plantest.StepOf(p, "correct").Hammer().Blows+plantest.StepOf(p, "preCurve").Hammer().Blows, taps, .01, "none is lost")
}

// TestPassesAreThoseOfLeastTime: shorter stretches than the fire makes hot, of every length down to half of
// it, save no more than a trip of some thirty on any piece, and cost more on nearly all.
func TestPassesAreThoseOfLeastTime(t *testing.T) {
	pieces := map[string]plan.Request{"utility": plantest.Request(), "reference": plantest.Sanity(25, 5), "heavy": plantest.Sanity(38, 9.5), "slicer": plantest.Slicer(plantest.Flat(40, 6, 610))}
	for _, s := range blade.Starters()[:12] {
		pieces[s.ID] = plan.NewRequest(s.Design, "80CrV2", plantest.Flat(40, 6, 800), forge.Steady)
	}
	quicker, all := 0, 0
	for name, r := range pieces {
		least := plantest.Make(t, r).Totals.TimeS
		for _, share := range []float64{.9, .75, .6, .5} {
			shorter := r
			shorter.Fire.HotLengthMm *= share
			took := plantest.Make(t, shorter).Totals.TimeS
			assert.Greater(t, took, .97*least, "%s in stretches of %.0f %%", name, 100*share)
			all++
			if took < least {
				quicker++
			}
		}
	}
	assert.LessOrEqual(t, float64(quicker), float64(all)/10)
}
