package harden_test

import (
	"testing"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wedge is a blade of full flat grind: from edge to spine at even heights, the same along it.
func wedge(edge, spine, height float64, n int) []harden.Profile {
	out := make([]harden.Profile, n)
	for i := range out {
		t := make([]float64, 41)
		for k := range t {
			t[k] = edge + (spine-edge)*float64(k)/40
		}
		out[i] = harden.Profile{XMm: 200 * float64(i) / float64(n), HeightMm: height, ThicknessMm: t}
	}
	return out
}

// of is a usual case of a grade.
func of(t testing.TB, id string) harden.Case {
	g, err := steel.Find(id)
	require.NoError(t, err)
	return harden.Case{
		Grade: g, Treatment: harden.NewTreatment(g), WantHRC: 60, Profiles: wedge(.5, 7, 30, 9), LengthMm: 120, MassG: 120,
		Forging: []harden.Hold{{TempC: 1130, TimeS: 40}, {TempC: 1130, TimeS: 30}, {TempC: 1130, TimeS: 30}},
		Cycles:  []harden.Hold{{TempC: 870, TimeS: 60}, {TempC: 830, TimeS: 60}, {TempC: 800, TimeS: 60}},
	}
}

func codes(a harden.Advice) map[string]fact.Severity {
	out := map[string]fact.Severity{}
	for _, f := range a.Findings {
		out[f.Code] = f.Severity
	}
	return out
}

// TestTwelveChangesEachMoveWhatTheyMust, and leave alone what they have nothing to do with.
func TestTwelveChangesEachMoveWhatTheyMust(t *testing.T) {
	thin := func(id string) harden.Case {
		c := of(t, id)
		c.Profiles = wedge(.5, 3.4, 30, 9)
		return c
	}
	base := harden.Advise(thin("1084"))
	assert.Empty(t, base.Findings, "a plain steel in the bath that it is made for")
	type parts struct{ depth, window, temper, grain, bath, edge bool }
	moved := func(a harden.Advice) parts {
		return parts{
			depth: a.HardMm != base.HardMm || a.Line[4].HardMm != base.Line[4].HardMm, window: a.WindowEdgeS != base.WindowEdgeS || a.WindowSpineS != base.WindowSpineS,
			temper: a.Temper != base.Temper, grain: a.Grain[len(a.Grain)-1] != base.Grain[len(base.Grain)-1] || a.CyclesOwed != base.CyclesOwed,
			bath: a.InBathS != base.InBathS || a.OilRiseC != base.OilRiseC, edge: a.EdgeAtQuenchMm != base.EdgeAtQuenchMm,
		}
	}
	for _, c := range []struct {
		what   string
		change func(*harden.Case)
		moves  parts
		finds  string
	}{
		{"steel", func(c *harden.Case) { *c = thin("5160") }, parts{depth: true, window: true, temper: true, grain: true, bath: true, edge: true}, "harden.soakForge"},
		{"a slower bath", func(c *harden.Case) { c.Treatment.Bath = harden.NewBath(harden.StillOil) }, parts{depth: true, window: true, bath: true, edge: true}, ""},
		{"thickness at the quench", func(c *harden.Case) { c.Treatment.EdgeAtQuenchMm = 2 }, parts{window: true, bath: true, edge: true}, ""},
		{"edge only", func(c *harden.Case) { c.Treatment.DipMm = 6 }, parts{depth: true, window: true}, ""},
		{"oven swing", func(c *harden.Case) { c.Treatment.SwingK = 25 }, parts{temper: true}, ""},
		{"wanted hardness", func(c *harden.Case) { c.Treatment.WantHardness = 58.5 }, parts{temper: true}, ""},
		{"hours", func(c *harden.Case) { c.Treatment.Hours = 1 }, parts{temper: true}, ""},
		{"one cycle", func(c *harden.Case) { c.Cycles = nil }, parts{grain: true}, "harden.cyclesOwed"},
		{"holes, in water", func(c *harden.Case) { c.Holes, c.Treatment.Bath = true, harden.NewBath(harden.Water) }, parts{depth: true, window: true, bath: true, edge: true}, "harden.holes"},
		{"length", func(c *harden.Case) { c.LengthMm = 400 }, parts{window: true, bath: true, edge: true}, ""},
		{"a heavier blade", func(c *harden.Case) { c.MassG *= 2 }, parts{bath: true}, ""},
		{"warm oil, a small tank", func(c *harden.Case) { c.Treatment.Bath.WarmC, c.Treatment.Bath.VolumeL = 70, 3 }, parts{window: true, bath: true}, "harden.oilWarm"},
		{"out colder", func(c *harden.Case) { c.Treatment.OutC = 150 }, parts{window: true, bath: true}, "harden.noWindow"},
		{"ground on one side", func(c *harden.Case) { c.OneSided = true }, parts{}, "harden.unequal"},
	} {
		k := thin("1084")
		c.change(&k)
		a := harden.Advise(k)
		assert.Equal(t, c.moves, moved(a), c.what)
		if c.finds != "" {
			assert.Contains(t, codes(a), c.finds, c.what)
		}
	}
	thick, thicker := of(t, "W1"), of(t, "W1")
	thicker.Treatment.EdgeAtQuenchMm = 2
	assert.NotEqual(t, harden.Advise(thick).Line[4].HardMm, harden.Advise(thicker).Line[4].HardMm, "a thicker edge moves the line of a shallow steel")
	kiln := of(t, "5160")
	kiln.Treatment.Kiln = true
	assert.NotContains(t, codes(harden.Advise(kiln)), "harden.soakForge")
}

// TestAShallowSteelLeavesALine of its own accord in a slow bath, and a deep one hardens through.
func TestAShallowSteelLeavesALine(t *testing.T) {
	shallow := of(t, "W1")
	a := harden.Advise(shallow)
	mid := a.Line[4]
	assert.Greater(t, mid.HardMm, 1.0)
	assert.Less(t, mid.HardMm, mid.HeightMm-3)
	assert.LessOrEqual(t, mid.SureMm, mid.HardMm)
	assert.LessOrEqual(t, mid.HardMm, mid.MostMm)
	assert.LessOrEqual(t, mid.HardMm, mid.MixedMm)
	deep := harden.Advise(of(t, "52100"))
	assert.InDelta(t, 30, deep.Line[4].HardMm, 0)
}

// TestWhatDoesNotHardenIsToldSo, with what would do; of what nobody knows a coupon comes first.
func TestWhatDoesNotHardenIsToldSo(t *testing.T) {
	a := harden.Advise(of(t, "1018"))
	assert.False(t, a.Hardens)
	assert.Contains(t, codes(a), "harden.none")
	soft := of(t, "1095")
	soft.Treatment.Bath = harden.NewBath(harden.StillAir)
	got := codes(harden.Advise(soft))
	assert.Equal(t, fact.Stop, got["harden.edgeSoft"])
	unknown := harden.Advise(of(t, "unknown-spring"))
	assert.False(t, unknown.Hardens && unknown.Known)
}

// TestTheOvenComesToTheHardness that is wanted, wherever the table answers.
func TestTheOvenComesToTheHardness(t *testing.T) {
	for _, g := range steel.Grades() {
		if len(g.HRC) != 4 {
			continue
		}
		for want := g.HRC[3]; want <= g.HRC[1]; want += .5 {
			got := harden.Temper(g, harden.NewTreatment(g), want)
			require.Positive(t, got.HRC, "%s at %v", g.ID, want)
			assert.InDelta(t, want, got.HRC, .7, "%s: an oven is set to five degrees", g.ID)
			assert.LessOrEqual(t, got.LowHRC, got.HRC)
		}
	}
}

// BenchmarkLine200 is the temper line of two hundred stations.
func BenchmarkLine200(b *testing.B) {
	c := of(b, "1084")
	c.Profiles = wedge(.5, 7, 30, 200)
	for b.Loop() {
		harden.Advise(c)
	}
}

// TestHeatIsDrawnFromTheSpine: a hotter spine tempers the edge sooner, a small one never, and a
// blade that was quenched whole has none to give.
func TestHeatIsDrawnFromTheSpine(t *testing.T) {
	c := of(t, "1084")
	_, err := harden.DrawFromSpine(c, 450)
	var wrong *harden.RangeError
	require.ErrorAs(t, err, &wrong)
	assert.Equal(t, "dipMm", wrong.Field)
	c.Treatment.DipMm, c.Treatment.OutC = 10, 60
	some, err := harden.DrawFromSpine(c, 480)
	require.NoError(t, err)
	more, err := harden.DrawFromSpine(c, 600)
	require.NoError(t, err)
	assert.Greater(t, some.WantC, some.HourC, "for a minute it has to be hotter")
	assert.Positive(t, more.CoolAtS)
	if some.CoolAtS > 0 {
		assert.Less(t, more.CoolAtS, some.CoolAtS)
	}
	assert.Greater(t, more.MostEdgeC, some.MostEdgeC)
	none, err := harden.DrawFromSpine(c, 220)
	require.NoError(t, err)
	assert.Zero(t, none.CoolAtS, "there is not heat enough")
	assert.Len(t, none.EdgeC, len(none.SpineC))
}

// TestWhatGoesAnotherWay is answered for this blade: what is told and what is not.
func TestWhatGoesAnotherWay(t *testing.T) {
	told := func(a harden.Advice, when string) map[string]harden.MendDo {
		out := map[string]harden.MendDo{}
		for _, m := range a.Mends {
			for _, d := range m.Do {
				if m.When == when {
					out[d.Code] = d
				}
			}
		}
		return out
	}
	usual := harden.Advise(of(t, "1084"))
	soft := told(usual, "soft")
	assert.Equal(t, harden.VeryFastOil, soft["mend.bath"].Bath, "the next bath, and no water")
	assert.Contains(t, soft, "mend.heat")
	assert.InDelta(t, 120, told(usual, "warped")["mend.clamp"].LongMm, 0)
	slim := of(t, "1084")
	slim.Profiles = wedge(.5, 3.4, 30, 9)
	assert.Contains(t, told(harden.Advise(slim), "warped"), "mend.window", "while there is one")
	assert.Contains(t, told(usual, "warped"), "mend.spine")
	for _, no := range []string{"mend.oil", "mend.edge", "mend.cycles", "mend.holes"} {
		assert.NotContains(t, told(usual, "cracked"), no)
	}

	k := of(t, "1084")
	k.Treatment.Bath, k.Treatment.Kiln, k.Treatment.OutC, k.Treatment.EdgeAtQuenchMm = harden.NewBath(harden.Brine), true, 60, .5
	k.Holes, k.OneSided, k.Cycles, k.Profiles = true, true, nil, wedge(.4, 3, 30, 9)
	a := harden.Advise(k)
	assert.NotContains(t, told(a, "soft"), "mend.heat")
	assert.NotContains(t, told(a, "soft"), "mend.bath", "nothing is faster than brine")
	assert.NotContains(t, told(a, "warped"), "mend.window")
	assert.NotContains(t, told(a, "warped"), "mend.spine")
	assert.Contains(t, told(a, "warped"), "mend.oneSided")
	for _, yes := range []string{"mend.oil", "mend.edge", "mend.cycles", "mend.holes"} {
		assert.Contains(t, told(a, "cracked"), yes)
	}
}

// TestABladeLongerThanItsTank or its oven is told so, from the first millimetre.
func TestABladeLongerThanItsTank(t *testing.T) {
	k := of(t, "1084")
	k.Profiles = wedge(.5, 3.4, 30, 9)
	k.Treatment.Bath.LongMm, k.Treatment.OvenMm = 120, 120
	assert.Empty(t, harden.Advise(k).Findings)
	k.LengthMm = 121
	got := codes(harden.Advise(k))
	assert.Equal(t, fact.Stop, got["harden.longBath"])
	assert.Equal(t, fact.Warn, got["harden.longOven"])
	k.Treatment.Bath = harden.NewBath(harden.StillAir)
	k.Treatment.Bath.LongMm = 100
	assert.NotContains(t, codes(harden.Advise(k)), "harden.longBath", "air is as long as the room")
}
