package planner_test

import (
	"testing"

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
