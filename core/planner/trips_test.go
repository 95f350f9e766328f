package planner_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
)

// anyPiece is a piece as somebody might forge it.
func anyPiece(rng *rand.Rand) plan.Request {
	starters := blade.Starters()
	d := starters[rng.IntN(len(starters))].Design.Scaled(.8+.4*rng.Float64(), .9+.2*rng.Float64(), .9+.2*rng.Float64())
	of := func(list ...string) string { return list[rng.IntN(len(list))] }
	bar := plantest.Flat(math.Max(18, d.HeightMm*(.75+.2*rng.Float64())), math.Max(4, d.SpineMm*(1.3+.8*rng.Float64())), 3000)
	r := plan.NewRequest(d, of("1084", "1095", "5160", "80CrV2", "52100", "W1", "O1"), bar, forge.Skill(of("learning", "steady", "sure")))
	if rng.IntN(4) == 0 {
		r.Smith.Machine = forge.NewMachine(forge.PowerHammer)
	}
	r.Choices.Curve = plan.Curve(of(string(plan.PreCurveFirst), string(plan.CorrectAsYou), string(plan.LetSweep)))
	return r
}

// TestTripsAddUp: heats, operations and totals tell the same trips, seconds, scale and fuel, and the ledger has what they
// burn off.
func TestTripsAddUp(t *testing.T) {
	rng := rand.New(rand.NewPCG(16, 1))
	for range 40 {
		r := anyPiece(rng)
		p, err := planner.Make(t.Context(), r)
		if err != nil {
			continue
		}
		var opTrips, opS, opMm3, opBlows, s, mm3, fuelG, blows, ofHeats float64
		for _, st := range p.Operations {
			opS, opMm3, opBlows = opS+st.TimeS, opMm3+st.ScaleMm3, opBlows+st.Hammer().Blows
			if st.Forging != nil {
				opTrips += st.Heats
			}
		}
		for _, h := range p.Heats {
			s, mm3, fuelG, blows = s+h.FireS+h.CarryS+h.WorkS+h.BrushS, mm3+h.ScaleMm3, fuelG+h.FuelG, blows+float64(h.Blows)
			if h.Number <= p.Totals.Heats {
				ofHeats += h.ScaleMm3
			}
		}
		name := r.SteelID + " " + string(r.Design.Shape)
		assert.InDelta(t, float64(p.Totals.Heats), opTrips, 1e-6, name)
		assert.InDelta(t, p.Totals.TimeS+p.Totals.CycleTimeS, s, 1e-6, name)
		assert.InDelta(t, s, opS, 1e-6, name)
		assert.InDelta(t, mm3, opMm3, 1e-6, name)
		assert.InDelta(t, p.Totals.FuelG, fuelG, 1e-6, name)
		assert.InDelta(t, r.Fire.FuelKgPerH/3.6*s, fuelG, 1e-6, "%s: the burner burns while the steel is on the anvil", name)
		assert.InDelta(t, float64(p.Totals.Blows), opBlows, 1, name)
		assert.InDelta(t, float64(p.Totals.Blows), blows, 1e-9, name)
		for _, l := range p.Ledger {
			if l.Code == "ledger.scale" {
				assert.InDelta(t, l.VolumeMm3, ofHeats, 1e-4*p.Forged.VolumeMm3, "%s: less than that is not told as left over", name)
			}
		}
	}
}

// TestTheBarIsSizedForTheTripsThatAreTaken, as near as a count without steps comes to one with them.
func TestTheBarIsSizedForTheTripsThatAreTaken(t *testing.T) {
	rng := rand.New(rand.NewPCG(16, 2))
	plans, near, off := 0., 0., 0.
	for range 40 {
		p, err := planner.Make(t.Context(), anyPiece(rng))
		if err != nil {
			continue
		}
		n := float64(p.Totals.Heats)
		plans++
		off += (p.Totals.FractionalHeats - n) / n
		if math.Abs(p.Totals.FractionalHeats-n) <= math.Max(.75, .05*n) {
			near++
		}
	}
	assert.Greater(t, plans, 20.)
	assert.GreaterOrEqual(t, near, .8*plans, "%v of %v", near, plans)
	assert.InDelta(t, 0, off/plans, .03, "and neither way on the mean")
}

// TestNobodyGoesToTheFireForACrumb: by hand hardly any trip has under six blows but for a cut or a bend.
func TestNobodyGoesToTheFireForACrumb(t *testing.T) {
	rng := rand.New(rand.NewPCG(16, 3))
	trips, crumbs := 0., 0.
	for range 40 {
		r := anyPiece(rng)
		p, err := planner.Make(t.Context(), r)
		if err != nil {
			continue
		}
		for _, h := range p.Heats[:p.Totals.Heats] {
			trips++
			lone := false
			for _, part := range h.Parts {
				st := plantest.StepOf(p, part.Operation).Hammer()
				lone = lone || st.Machine != "" || st.Strokes > 0 || st.BendPerMm != 0 || plan.KindOf(part.Operation) == forge.CutOff
			}
			if h.Blows < 6 && !lone {
				crumbs++
			}
		}
	}
	assert.Less(t, crumbs, .03*trips, "%v of %v", crumbs, trips)
}

// TestAHotterForgeBurnsMore, by what it radiates, whatever it was measured at.
func TestAHotterForgeBurnsMore(t *testing.T) {
	f := forge.NewFire()
	for c, times := range map[float64]float64{1100: .75, 1200: 1, 1300: 1.3} {
		f.TempC = c
		assert.InDelta(t, times*.9, f.FuelKgPerHAt(), .01)
	}
	f = forge.Fire{TempC: 1250, FuelKgPerH: 2}
	assert.InDelta(t, 2., f.FuelKgPerHAt(), 1e-9, "where nobody said how hot it was, it was as hot as it is")
	up := f.AtLeast(1300)
	assert.Equal(t, 1250., up.FuelAtC)
	assert.Greater(t, up.FuelG(60), f.FuelG(60))
	assert.Equal(t, f, f.AtLeast(1200))
}
