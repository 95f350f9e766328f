package heats_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestMachinesChangeOnTheWay: drawn under the hammer, spread on crowned dies, evened out in
// the press; what is changed costs its minutes, and a press is told how far to close.
func TestMachinesChangeOnTheWay(t *testing.T) {
	r := plantest.Thick(forge.NewMachine(forge.PowerHammer))
	r.Prices.HourPrice = 60
	plain := plantest.Make(t, r)
	assert.Zero(t, plain.Totals.DieChanges)
	r.Choices.Tools = []plan.ToolUse{
		{Operation: "breakDown", By: plan.By(forge.PowerHammer)},
		{Operation: "point", By: plan.By(forge.PowerHammer), Dies: forge.CrownedDies},
		{Operation: "tang", By: plan.ByHand},
		{Operation: "profile", By: plan.By(forge.Press), Dies: forge.FlatDies},
	}
	p := plantest.Make(t, r)
	by := plantest.ByKind(p)
	assert.Equal(t, "powerHammer", by["breakDown"].Hammer().Machine)
	assert.True(t, by["point"].Hammer().NewDies)
	assert.Equal(t, forge.CrownedDies, by["point"].Hammer().Dies)
	assert.Empty(t, by["tang"].Hammer().Machine)
	press := by["profile"].Hammer()
	require.Equal(t, "press", press.Machine)
	assert.False(t, press.NewDies, "a machine begins with the dies of its first work")
	thinnest := 99.
	for _, x := range by["profile"].Readings {
		thinnest = min(thinnest, x.ThicknessMm)
	}
	assert.InDelta(t, thinnest, press.StopMm, .15)
	assert.Positive(t, press.TaperMm, "a distal taper is pressed to a stop that opens")
	assert.Positive(t, p.Totals.DieChanges)
	assert.InDelta(t, 180*float64(p.Totals.DieChanges), p.Totals.DieChangeS, 0)
	hours := (p.Totals.TimeS + p.Totals.CycleTimeS + p.Totals.DieChangeS) / 3600
	assert.InEpsilon(t, 60*hours, p.Totals.Money.Time, 1e-9)
	r.Choices.Tools[3].By = "bulldozer"
	assert.ErrorContains(t, r.Validate(), "choices.tools.profile.by")
}

// TestAMachineStraightens where the smith asks, on its flat dies, and only then; rolls and what
// bends or cuts it does not do.
func TestAMachineStraightens(t *testing.T) {
	r := plantest.Thick(forge.NewMachine(forge.PowerHammer))
	r.Bar = stock.Item{Form: stock.Leaf, WidthMm: 30, ThicknessMm: 14, ChordMm: 600, RiseMm: 60}
	by := plantest.ByKind(plantest.Make(t, r))
	require.Contains(t, by, "straighten")
	assert.Empty(t, by["straighten"].Hammer().Machine, "by hand until it is asked for")
	assert.True(t, by["straighten"].Hammer().Heavy, "a machine may do it")
	for _, kind := range []forge.MachineKind{forge.Press, forge.PowerHammer, forge.Striker} {
		r.Choices.Tools = []plan.ToolUse{
			{Operation: "straighten", By: plan.By(kind)},
			{Operation: "correct", By: plan.By(kind)},
			{Operation: "planish", By: plan.By(kind)},
			{Operation: "bevel", By: plan.By(kind)},
		}
		p := plantest.Make(t, r)
		now := plantest.ByKind(p)
		for _, op := range []string{"straighten", "correct", "planish"} {
			f := now[op].Hammer()
			require.Equal(t, string(kind), f.Machine, op)
			assert.Equal(t, forge.FlatDies, f.Dies)
			assert.Positive(t, f.Blows)
			assert.Less(t, f.Blows, by[op].Hammer().Blows, "dies cover more than a hammer's face")
		}
		assert.Equal(t, kind != forge.Striker, now["bevel"].Hammer().Machine == string(kind), "a sledge does not bevel")
		assert.Equal(t, by["straighten"].Readings, now["straighten"].Readings, "its shape is what it was")
	}
	r.Choices.Tools = []plan.ToolUse{{Operation: "straighten", By: plan.By(forge.RollingMill)}}
	assert.Empty(t, plantest.ByKind(plantest.Make(t, r))["straighten"].Hammer().Machine)
}
