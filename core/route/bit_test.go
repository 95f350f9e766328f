package route_test

import (
	"math"
	"slices"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// withBit is the utility knife of mild bar with an edge of another steel.
func withBit(k plan.BitKind) plan.Request {
	r := of("utility", plantest.Flat(30, 8, 600))
	r.SteelID, r.Choices.Harden = "1018", plan.HardenForged
	r.Bit = &plan.Bit{Kind: k, SteelID: "1084", LengthMm: 60, WidthMm: 14, ThicknessMm: 3}
	return r
}

// TestABitIsWeldedInFirst: opened or scarfed, welded, and all else forged with it; the bar is
// shorter by its steel, to the last cubic millimetre; it is hardened as the bit.
func TestABitIsWeldedInFirst(t *testing.T) {
	plain := withBit(plan.CleftBit)
	plain.Bit = nil
	all := func(p *plan.Plan) (ids []string) {
		for _, o := range p.Operations {
			ids = append(ids, o.ID)
		}
		return ids
	}
	before := plantest.Make(t, plain)
	assert.NotContains(t, all(before), "harden", "mild steel does not")
	for kind, opened := range map[plan.BitKind]string{plan.CleftBit: "slit", plan.WrappedBit: "slit", plan.EdgeBit: "scarf"} {
		r := withBit(kind)
		p := plantest.Make(t, r)
		ids := all(p)
		assert.Equal(t, []string{opened, "weldBit", "corners"}, ids[:3], kind)
		assert.Equal(t, "1084", p.Steel.ID)
		assert.LessOrEqual(t, p.Steel.ForgeHighC, 1150.0)
		assert.InDelta(t, 830, p.Steel.ForgeLowC, 1e-9, "the bit's, where the bit is worked")
		assert.Contains(t, ids, "harden")
		assert.Greater(t, plantest.StepOf(p, "weldBit").TargetC, 1140.0)

		sum, start := 0.0, 0.0
		for _, l := range p.Ledger {
			switch l.Code {
			case "ledger.finished", "ledger.grind", "ledger.bit", "ledger.spare", "ledger.scale", "ledger.trim", "ledger.kerf":
				sum += l.VolumeMm3
			case "ledger.start":
				start = l.VolumeMm3
			}
		}
		assert.InEpsilon(t, start, sum, 1e-6, "the ledger closes")
		assert.InDelta(t, r.Bit.VolumeMm3(), p.Bar.Bit.VolumeMm3, 1e-6)
		last := p.Bar.Marks[len(p.Bar.Marks)-1]
		assert.InDelta(t, p.Bar.CutLengthMm-r.Sizing.TrimMm-r.Sizing.KerfMm, last.ToMm, 1e-6)
		for i := 1; i < len(p.Bar.Marks); i++ {
			assert.InDelta(t, p.Bar.Marks[i-1].ToMm, p.Bar.Marks[i].FromMm, 1e-9)
			assert.Greater(t, p.Bar.Marks[i].ToMm, p.Bar.Marks[i].FromMm)
		}
		assert.Positive(t, p.Bar.Bit.ReachMm)
		assert.Positive(t, p.Bar.Bit.DepthMm)
		seams(t, p)
	}
	r := withBit(plan.CleftBit)
	r.Bit.SteelID = "1018"
	assert.ErrorContains(t, r.Validate(), "bit.soft")
	r.Bit.SteelID = "no such"
	assert.ErrorContains(t, r.Validate(), "bit.steelId")
}

// seams: the bit is seen in every heat from the one on that opens the bar for it, reaching along as the piece is
// drawn, and comes to lie where the plan says.
func seams(t *testing.T, p *plan.Plan) {
	seen, reach := false, 0.0
	for _, h := range p.Heats {
		if h.Joined == nil || len(h.Joined.Seam) == 0 {
			require.False(t, seen, "once welded in it is not gone")
			continue
		}
		if !seen {
			assert.Contains(t, []forge.Kind{forge.Slit, forge.Scarf, forge.WeldBit}, plan.KindOf(h.Parts[len(h.Parts)-1].Operation))
		}
		s := h.Joined.Seam
		seen = true
		assert.GreaterOrEqual(t, s[0][0], reach-.5, "drawn out with the bar")
		reach = s[0][0]
		assert.InDelta(t, h.Shape[0].XMm, s[len(s)-1][0], .01, "on to the point")
		assert.Greater(t, s[1][1], s[0][1], "up from the edge")
	}
	require.True(t, seen)
	end := p.Bar.Bit.ReachMm
	assert.InDelta(t, end, reach, 4, "but for the allowance at the point")
	assert.InDelta(t, reach, p.Drawing.Joined.Seam[0][0], 0)
}

// TestAPunchedHoleKeepsItsSteel: the bar is shorter by what goes into the swell, and the hole
// is in the forged solid.
func TestAPunchedHoleKeepsItsSteel(t *testing.T) {
	r := fullOf(blade.EvenTang, 32)
	r.Design.Tang.Holes = []blade.Hole{{AtMm: 60, DiameterMm: 10}}
	drilled := plantest.Make(t, r)
	r.Design.Tang.Holes[0].Made = blade.Punched
	p := plantest.Make(t, r)
	assert.NotContains(t, plantest.IDs(drilled), "punch")
	require.Contains(t, plantest.IDs(p), "punch")
	assert.Positive(t, plantest.StepOf(p, "punch").Heats)
	holed := 0
	for _, h := range p.Heats {
		if h.Joined != nil {
			holed++
			assert.InDelta(t, plantest.ZoneFrom(p.Drawing.ForgedZones, plan.ZoneTang)+60, h.Joined.Holes[0].XMm, 1)
		}
	}
	assert.Positive(t, holed)
	assert.Less(t, holed, len(p.Heats), "not before it is punched")
	assert.Nil(t, drilled.Drawing.Joined, "a hole is drilled when it is finished")
	_, thick := r.Design.Tang.At(60)
	assert.InDelta(t, .75*math.Pi*25*(thick+1.2), drilled.Forged.VolumeMm3-p.Forged.VolumeMm3, 12)
	assert.Less(t, p.Bar.CutLengthMm, drilled.Bar.CutLengthMm-1)
	_, forged, _, err := figure.BodiesOf(r)
	require.NoError(t, err)
	assert.InEpsilon(t, p.Forged.VolumeMm3, forged.Mesh().VolumeMm3(), 1e-3)
	cells := 0.0
	for _, v := range p.ForgedZones {
		cells += v
	}
	assert.InEpsilon(t, p.Forged.VolumeMm3, cells, 1e-4)
}

// TestAnEyeIsWeldedShut after it is turned, and a twist says what it costs: the closed form of
// a fibre that runs round the axis.
func TestAnEyeIsWeldedShut(t *testing.T) {
	r := of("utility", plantest.Flat(25, 10, 600))
	r.Design.Ricasso.ThicknessMm = 8 // a thinner rod is cold before it is on the anvil
	r.Design.SetTang(blade.RodTang)
	r.Design.Tang.LengthMm, r.Design.Tang.LoopMm, r.Design.Tang.TwistTurns = 160, 12, 3
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "weldLoop").ID)
	r.Design.Tang.LoopEnd = blade.WeldedLoop
	p := plantest.Make(t, r)
	at := func(id string) int {
		return slices.IndexFunc(p.Operations, func(o plan.Step) bool { return o.ID == id })
	}
	assert.Greater(t, at("weldLoop"), at("loop"))
	assert.Greater(t, plantest.StepOf(p, "weldLoop").TargetC, 1100.0)

	// while it is little: (2πn)²·r²/2L, r² = (h²+t²)/12
	tang := r.Design.Tang
	h, k := tang.At(80)
	round := 2 * math.Pi * tang.TwistTurns
	assert.InEpsilon(t, round*round*(h*h+k*k)/12/(2*tang.LengthMm), plantest.StepOf(p, "twist").Forging.ExtraMm, .08)
}

// TestARodIsPunchedToHang near its end, once.
func TestARodIsPunchedToHang(t *testing.T) {
	r := of("utility", plantest.Flat(25, 8, 600))
	r.Design.SetTang(blade.RodTang)
	require.True(t, r.Design.AddHole())
	assert.False(t, r.Design.AddHole(), "one is enough")
	p := plantest.Make(t, r)
	assert.Contains(t, plantest.IDs(p), "punch")
	_, forged, _, err := figure.BodiesOf(r)
	require.NoError(t, err)
	assert.InEpsilon(t, p.Forged.VolumeMm3, forged.Mesh().VolumeMm3(), 1e-3)
	r.Design.SetTang(blade.WrappedTang)
	assert.False(t, r.Design.AddHole())
}

// TestTheWindowBelongsToTheWorkInHand: wrought iron splits where it is worked at the heats of steel, and the steel burns at those of the
// iron. Where only the iron is worked it has its own window; with a bit the whole takes at most a third more heats.
func TestTheWindowBelongsToTheWorkInHand(t *testing.T) {
	plain := plantest.Request()
	plain.SteelID = "wrought-iron"
	with := plain
	with.Bit = withBit(plan.CleftBit).Bit
	without, p := plantest.Make(t, plain), plantest.Make(t, with)
	assert.LessOrEqual(t, float64(p.Totals.Heats), float64(without.Totals.Heats)*4/3)
	assert.Less(t, p.Bar.LossFraction, without.Bar.LossFraction+.03)
	tang, bevel := plantest.StepOf(p, "tang"), plantest.StepOf(p, "bevel")
	assert.GreaterOrEqual(t, tang.Forging.LowC, 1000.0, "iron alone")
	assert.Greater(t, tang.StartC, bevel.StartC, "and hotter than the edge may be")
	assert.Less(t, bevel.Forging.LowC, 1000.0, "the edge is steel")
	assert.InEpsilon(t, plantest.StepOf(without, "tang").Heats, tang.Heats, .2, "the tang is the same work")
}
