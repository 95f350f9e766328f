package planner_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
)

// TestWhatHelpsHelps: machines, a striker, a heavier hammer and a longer fire change a plan the right way, and by what a smith
// would believe.
func TestWhatHelpsHelps(t *testing.T) {
	with := func(change func(*plan.Request)) *plan.Plan {
		r := plantest.Request()
		r.SteelID = "1084"
		change(&r)
		p := plantest.Make(t, r)
		t.Logf("%3d heats of %4.1f, %4d blows, %4.1f min, %3.1f %% lost", p.Totals.Heats, p.Totals.FractionalHeats, p.Totals.Blows, p.Totals.TimeS/60, 100*p.Bar.LossFraction)
		return p
	}
	by := func(k forge.MachineKind) *plan.Plan {
		return with(func(r *plan.Request) { r.Smith.Machine = forge.NewMachine(k) })
	}
	hand, striker, power, press := with(func(*plan.Request) {}), by(forge.Striker), by(forge.PowerHammer), by(forge.Press)
	between(t, .4, .6, float64(power.Totals.Heats)/float64(hand.Totals.Heats), "a power hammer takes about half of the heats")
	between(t, .2, .6, float64(power.Totals.Blows)/float64(hand.Totals.Blows), "and far fewer blows")
	between(t, .6, .95, float64(press.Totals.TimeS)/float64(hand.Totals.TimeS), "a press is slow and strong")
	between(t, .6, .95, float64(striker.Totals.Heats)/float64(hand.Totals.Heats), "a striker saves some")
	assert.Less(t, power.Bar.CutLengthMm, striker.Bar.CutLengthMm, "fewer heats, less scale")
	assert.Less(t, striker.Bar.CutLengthMm, hand.Bar.CutLengthMm)

	last := with(func(r *plan.Request) { r.Fire.HotLengthMm = 60 })
	for _, mm := range []float64{80, 110, 150, 220} {
		p := with(func(r *plan.Request) { r.Fire.HotLengthMm = mm })
		assert.LessOrEqual(t, p.Totals.Heats, last.Totals.Heats, "%.0f mm hot", mm)
		last = p
	}
	between(t, .55, .85, float64(last.Totals.Heats)/float64(with(func(r *plan.Request) { r.Fire.HotLengthMm = 60 }).Totals.Heats), "from a small fire to a long one")
	light, heavy := with(func(r *plan.Request) { r.Smith = r.Smith.WithHammerKg(.8) }), with(func(r *plan.Request) { r.Smith = r.Smith.WithHammerKg(1.8) })
	between(t, .6, .85, float64(heavy.Totals.Blows)/float64(light.Totals.Blows), "more than twice the hammer, a third fewer blows: the arm goes with it")
}

// TestMachinesLeaveNoCrumbs: hardly a trip to a machine does less than a fifth of what the trip can. A point that nothing
// else comes to heat with is one; they are one in twenty.
func TestMachinesLeaveNoCrumbs(t *testing.T) {
	trips, crumbs := 0, 0
	for _, s := range blade.Starters() {
		for _, k := range []forge.MachineKind{forge.PowerHammer, forge.Press} {
			r := plan.NewRequest(s.Design, "1084", plantest.Flat(math.Ceil(s.Design.HeightMm+4), 6, 900), forge.Steady)
			r.Smith.Machine = forge.NewMachine(k)
			p := plantest.Make(t, r)
			if p.Obstacle().Code != "" {
				continue
			}
			for _, h := range p.Heats {
				machine, share := false, 0.0
				for _, part := range h.Parts {
					op := plantest.StepOf(p, part.Operation)
					machine = machine || op.Hammer().Machine != ""
					if part.LimitS > 0 {
						share += part.WorkS / part.LimitS
					}
				}
				if !machine {
					continue
				}
				if trips++; share < .2 {
					crumbs++
					t.Logf("%s, %s: heat %d of %d does %.0f %% of what it can", s.ID, k, h.Number, len(p.Heats), share*100)
				}
			}
		}
	}
	t.Logf("%d of %d trips", crumbs, trips)
	assert.Greater(t, trips, 150)
	assert.LessOrEqual(t, crumbs, trips/15)
}
