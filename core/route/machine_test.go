package route_test

import (
	"context"
	"errors"
	"math"
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPowerHammerDoesTheHeavyWork: the break-down takes a few heats where the
// hand takes many; what stays with the hand stays as it was.
func TestAPowerHammerDoesTheHeavyWork(t *testing.T) {
	hand, power := plantest.Make(t, plantest.Thick(nil)), plantest.Make(t, plantest.Thick(forge.NewMachine(forge.PowerHammer)))
	a, b := plantest.ByKind(hand), plantest.ByKind(power)
	require.Contains(t, a, "breakDown")
	assert.Less(t, b["breakDown"].Heats, a["breakDown"].Heats/2)
	assert.Less(t, power.Totals.TimeS, hand.Totals.TimeS)
	assert.Less(t, power.Bar.ScaleShare, hand.Bar.ScaleShare, "fewer heats, less scale")
	assert.Equal(t, "powerHammer", b["breakDown"].Hammer().Machine)
	assert.Contains(t, b["breakDown"].CautionCodes, "caution.machine")
	assert.Equal(t, "powerHammer", b["bevel"].Hammer().Machine, "its dies leave a flat")
	assert.Contains(t, b["bevel"].CautionCodes, "caution.machine")
	assert.Less(t, b["bevel"].Hammer().Blows, a["bevel"].Hammer().Blows/2)
	crowned := plantest.ByKind(plantest.Make(t, plantest.Thick(forge.NewMachine(forge.PowerHammer).WithDies(forge.CrownedDies))))
	assert.Empty(t, crowned["bevel"].Hammer().Machine, "these leave hollows")
	assert.NotContains(t, crowned["bevel"].CautionCodes, "caution.machine")
	assert.InEpsilon(t, a["bevel"].Hammer().Blows, crowned["bevel"].Hammer().Blows, .15, "the bevels stay with the hand")
	heavier := forge.NewMachine(forge.PowerHammer)
	heavier.TupKg = 50
	assert.Less(t, plantest.ByKind(plantest.Make(t, plantest.Thick(heavier)))["breakDown"].Hammer().Blows, b["breakDown"].Hammer().Blows)
	flatDies := forge.NewMachine(forge.PowerHammer)
	flatDies.BiteMm = 70
	assert.NotEqual(t, b["breakDown"].Hammer().Blows, plantest.ByKind(plantest.Make(t, plantest.Thick(flatDies)))["breakDown"].Hammer().Blows, "the dies' contact counts")
}

// TestAPressSqueezesAndStallsHonestly: one that is too weak is refused with the
// force that would do, and that does.
func TestAPressSqueezesAndStallsHonestly(t *testing.T) {
	p := plantest.Make(t, plantest.Thick(forge.NewMachine(forge.Press)))
	down := plantest.ByKind(p)["breakDown"]
	assert.Less(t, down.Hammer().Blows, plantest.ByKind(plantest.Make(t, plantest.Thick(nil)))["breakDown"].Hammer().Blows/5, "squeezes, not blows")
	weak := forge.NewMachine(forge.Press)
	weak.ForceKN = 12
	_, err := planner.Make(context.Background(), plantest.Thick(weak))
	var fe fact.FieldErrors
	require.True(t, errors.As(err, &fe), "%v", err)
	assert.Equal(t, "smith.machine.forceKN", fe[0].Field)
	assert.Equal(t, "forge.pressWeak", fe[0].Code)
	need := fe[0].Figures["needKN"]
	require.Greater(t, need, 12.)
	for range 6 { // what it meets further on may want a little more
		weak.ForceKN = need
		if _, err = planner.Make(context.Background(), plantest.Thick(weak)); err == nil {
			break
		}
		require.True(t, errors.As(err, &fe), "%v", err)
		require.Equal(t, "smith.machine.forceKN", fe[0].Field, "%v", err)
		require.Greater(t, fe[0].Figures["needKN"], need)
		need = fe[0].Figures["needKN"]
	}
	require.NoError(t, err)
	strong := forge.NewMachine(forge.Press)
	strong.ForceKN = 600
	assert.LessOrEqual(t, plantest.ByKind(plantest.Make(t, plantest.Thick(strong)))["breakDown"].Hammer().Blows, down.Hammer().Blows)
}

func TestAMachineIsAskedForFiguresThatCanBe(t *testing.T) {
	for field, spoil := range map[string]func(*forge.Machine){
		"smith.machine.kind":       func(m *forge.Machine) { m.Kind = "steam" },
		"smith.machine.dies":       func(m *forge.Machine) { m.Dies = "gold" },
		"smith.machine.tupKg":      func(m *forge.Machine) { m.TupKg = 9000 },
		"smith.machine.biteMm":     func(m *forge.Machine) { m.BiteMm = 0 },
		"smith.machine.ratePerS":   func(m *forge.Machine) { m.RatePerS = -1 },
		"smith.machine.speedMPerS": func(m *forge.Machine) { m.SpeedMPerS = 90 },
	} {
		m := forge.NewMachine(forge.PowerHammer)
		spoil(m)
		_, err := planner.Make(context.Background(), plantest.Thick(m))
		require.ErrorContains(t, err, field)
	}
	m := forge.NewMachine(forge.Press)
	m.ForceKN = 1
	_, err := planner.Make(context.Background(), plantest.Thick(m))
	require.ErrorContains(t, err, "smith.machine.forceKN")
}

// TestAStrikerDoublesTheHand in the heavy work, and tires as a hand does.
func TestAStrikerDoublesTheHand(t *testing.T) {
	hand, two := plantest.Make(t, plantest.Thick(nil)), plantest.Make(t, plantest.Thick(forge.NewMachine(forge.Striker)))
	a, b := plantest.ByKind(hand), plantest.ByKind(two)
	assert.Less(t, b["breakDown"].Hammer().Blows, a["breakDown"].Hammer().Blows*.6, "every other blow is a sledge's")
	assert.Less(t, b["breakDown"].Heats, a["breakDown"].Heats)
	assert.Contains(t, b["point"].CautionCodes, "caution.striker")
	assert.Empty(t, b["planish"].Hammer().Machine, "the rest is the hammer's")
	heavy := forge.NewMachine(forge.Striker)
	heavy.TupKg = 8
	assert.Less(t, plantest.ByKind(plantest.Make(t, plantest.Thick(heavy)))["breakDown"].Hammer().Blows, b["breakDown"].Hammer().Blows)
	assert.NotEmpty(t, plantest.Warning(two, "warn.tired").Code)
}

// TestRollsOnlyLengthen: they break down in passes of so much each, hardly spread,
// and leave every other operation to the hammer.
func TestRollsOnlyLengthen(t *testing.T) {
	m := forge.NewMachine(forge.RollingMill)
	p := plantest.Make(t, plantest.Thick(m))
	steps := plantest.ByKind(p)
	down := steps["breakDown"]
	require.Equal(t, "rollingMill", down.Hammer().Machine)
	assert.Contains(t, down.CautionCodes, "caution.rolls")
	for kind, st := range steps {
		assert.Equal(t, kind == "breakDown", st.Hammer().Machine == "rollingMill", kind)
	}
	last := down.Readings[len(down.Readings)-1]
	thin := math.Log(14 / last.ThicknessMm)
	assert.InDelta(t, forge.RollSpread*thin, math.Log(last.HeightMm/30), .02, "all but a twentieth goes into length")
	assert.InDelta(t, float64(down.Passes)*(14-last.ThicknessMm)/m.DraftMm, down.Hammer().Blows, float64(down.Passes)+1, "so many passes through the rolls")
	half := *m
	half.DraftMm /= 2
	assert.InEpsilon(t, 2*down.Hammer().Blows, plantest.ByKind(plantest.Make(t, plantest.Thick(&half)))["breakDown"].Hammer().Blows, .1)
	half.DraftMm = .09*m.RollMm/2 + .01
	_, err := planner.Make(context.Background(), plantest.Thick(&half))
	require.ErrorContains(t, err, "smith.machine.draftMm", "rolls do not grip more")
}

func TestOtherDiesBringTheirBite(t *testing.T) {
	for _, k := range []forge.MachineKind{forge.PowerHammer, forge.Press, forge.Striker} {
		seen := map[float64]bool{}
		for _, d := range forge.DiesList() {
			m := forge.NewMachine(k).WithDies(d)
			assert.Equal(t, d, m.Dies)
			seen[m.BiteMm] = true
		}
		assert.Len(t, seen, 3, k)
	}
}
