package review_test

import (
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func profileBy(f forge.Face, s forge.Support) []plan.ToolUse {
	return []plan.ToolUse{{Operation: "profile", Face: f, Support: s}}
}

// stout is a ricasso that may be thicker than its bar of 6 mm.
func stout(r *plan.Request, thickMm, longMm float64) {
	r.Bar.ThicknessMm = 6
	r.Design.HeightMm, r.Design.Ricasso.HeightMm = 24, 24
	r.Design.Ricasso.ThicknessMm, r.Design.Ricasso.LengthMm = thickMm, longMm
}

// endless is a cleaver out of a slab, with a hammer of so many kg: ten hours at the fire, or more.
func endless(r *plan.Request, hammerKg float64) {
	*r = plan.NewRequest(plantest.Starter("cleaver"), "O1", plantest.Flat(50, 25, 1000), forge.Learning)
	r.Design.LengthMm, r.Fire.HotLengthMm, r.Smith = 300, 40, r.Smith.WithHammerKg(hammerKg)
}

// sawnOf is sawn out of a strip of so much width.
func sawnOf(r *plan.Request, widthMm float64) {
	r.Choices.Start, r.Bar = plan.FromSheet, plantest.Flat(widthMm, 5, 900)
}

// low is a blade of so much height, bent down before its bevels.
func low(r *plan.Request, heightMm float64) {
	r.Choices.Curve = plan.PreCurveFirst
	r.Design.HeightMm, r.Design.Ricasso.HeightMm = heightMm, math.Min(r.Design.Ricasso.HeightMm, heightMm)
}

// atTheirLimit is every warning that a request can have just not, and just: inside
// its limit, and outside.
func atTheirLimit(t *testing.T) map[string]struct{ in, out func(*plan.Request) } {
	p := plantest.Make(t, plantest.Request())
	// the thickness at which the end is twice as long as it is thick
	blunt := math.Sqrt(p.Bar.Marks[0].ToMm * 25 * 5 / (2 * 25))
	thin := plantest.Request()
	thin.Bar.ThicknessMm = 3.6
	bit := func(long, wide float64) *plan.Bit {
		return &plan.Bit{Kind: plan.CleftBit, SteelID: "1084", LengthMm: long, WidthMm: wide, ThicknessMm: 2}
	}
	bitReaches := (p.ForgedZones[plan.ZonePoint] + p.ForgedZones[plan.ZoneBlade]) / (p.Bar.AreaMm2 + 12*2)
	withBit := plantest.Request()
	withBit.Bit = bit(90, 12)
	deepEnough := 12 * (6 + withBit.Allowances.OutlineMm) / (plantest.Make(t, withBit).Bar.Bit.DepthMm + withBit.Allowances.OutlineMm)
	thickest := 0.0 // where the blade is higher than a bar of 25
	for _, f := range plantest.Make(t, thin).Feasibility {
		if f.HeightMm > 25 {
			thickest = math.Max(thickest, f.MeanThicknessMm)
		}
	}
	lump := plantest.Request()
	lump.Bar.ThicknessMm = 12
	heavy := plantest.Warning(plantest.Make(t, lump), "warn.barHeavy").Figures
	return map[string]struct{ in, out func(*plan.Request) }{
		"warn.volumeShort": {
			func(r *plan.Request) { r.Bar.LengthMm = p.Bar.CutLengthMm + .1 },
			func(r *plan.Request) { r.Bar.LengthMm = p.Bar.CutLengthMm - .1 },
		},
		"warn.edgeThin": {
			func(r *plan.Request) { r.Allowances.ForgingEdgeMm = 1.5 },
			func(r *plan.Request) { r.Allowances.ForgingEdgeMm = 1.49 },
		},
		"warn.ricassoThin": {
			func(r *plan.Request) { r.Design.Ricasso.LengthMm, r.Design.Ricasso.ThicknessMm = 30, 5 },
			func(r *plan.Request) { r.Design.Ricasso.LengthMm, r.Design.Ricasso.ThicknessMm = 30, 5.01 }, // too long to upset
		},
		"warn.decarb": {
			func(r *plan.Request) { r.Allowances.FaceMm = p.Totals.DecarbMm + .1 },
			func(r *plan.Request) { r.Allowances.FaceMm = .01 },
		},
		"warn.tangWall": {
			func(r *plan.Request) { r.Design.Ricasso.HeightMm, r.Design.Tang.HeightAtShoulderMm = 24, 20 },
			func(r *plan.Request) { r.Design.Ricasso.HeightMm, r.Design.Tang.HeightAtShoulderMm = 24, 20.1 },
		},
		"warn.handleWall": {
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = r.Design.Tang.DropMm - 3 },
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = r.Design.Tang.DropMm - 2.8 },
		},
		"warn.shoulderSharp": {
			func(r *plan.Request) { r.Design.Tang.ShoulderRadiusMm = 1.5 },
			func(r *plan.Request) { r.Design.Tang.ShoulderRadiusMm = 1.4 },
		},
		"warn.weldSeam": {
			func(r *plan.Request) { r.Design.Tang.WeldAtMm = 25 },
			func(r *plan.Request) { r.Design.Tang.WeldAtMm = 24.9 },
		},
		"warn.holeShoulder": {
			func(r *plan.Request) { r.Design.Tang.Holes = []blade.Hole{{AtMm: 14, DiameterMm: 4}} },
			func(r *plan.Request) { r.Design.Tang.Holes = []blade.Hole{{AtMm: 13.9, DiameterMm: 4}} },
		},
		"warn.holeRim": {
			func(r *plan.Request) { r.Design.Tang.Holes = []blade.Hole{{AtMm: 20, DiameterMm: 4}} },
			func(r *plan.Request) { r.Design.Tang.Holes = []blade.Hole{{AtMm: 80, DiameterMm: 5}} },
		},
		"warn.tangLong": {
			func(r *plan.Request) { plantest.Handle(r).LengthMm = r.Design.Tang.LengthMm },
			func(r *plan.Request) { plantest.Handle(r).LengthMm = r.Design.Tang.LengthMm - 1 },
		},
		"warn.tangShort": {
			func(r *plan.Request) { plantest.Handle(r).LengthMm = r.Design.Tang.LengthMm * 2 },
			func(r *plan.Request) { plantest.Handle(r).LengthMm = r.Design.Tang.LengthMm*2 + 1 },
		},
		"warn.spineStepDown": {
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = 1.5 },
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = 1.6 },
		},
		"warn.spineStepUp": {
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = -1.5 },
			func(r *plan.Request) { plantest.Handle(r).TopDropMm = -1.6 },
		},
		"warn.pointLow": {
			func(r *plan.Request) { plantest.Handle(r).ButtDropMm = 0 },
			func(r *plan.Request) { plantest.Handle(r).ButtDropMm = 60 },
		},
		"warn.pointHigh": {
			func(r *plan.Request) { plantest.Handle(r).ButtDropMm = 0 },
			func(r *plan.Request) { plantest.Handle(r).ButtDropMm = -60 },
		},
		"warn.tooNarrow": {
			func(r *plan.Request) { r.Bar = plantest.Flat(25.3, 4.8, 900) },
			func(r *plan.Request) { r.Bar = plantest.Flat(25.2, 4.8, 900) },
		},
		"warn.hopeless": {
			func(r *plan.Request) { endless(r, .25) },
			func(r *plan.Request) { endless(r, .21) },
		},
		"warn.hopelessBlows": {
			func(r *plan.Request) { r.Fire.SoakC = 920 },
			func(r *plan.Request) { r.Fire.SoakC = 910 },
		},
		"warn.tooNarrowUpset": {
			func(r *plan.Request) { r.Bar = plantest.Flat(30.6, 3.5, 900) },
			func(r *plan.Request) { r.Bar = plantest.Flat(30.4, 3.5, 900) },
		},
		"warn.tooLight": { // there is nothing to spread with
			func(r *plan.Request) { r.Bar = plantest.Flat(25, thickest+.02, 900) },
			func(r *plan.Request) { r.Bar = plantest.Flat(25, thickest-.02, 900) },
		},
		"warn.barThin": {
			func(r *plan.Request) { r.Design.SpineMm = 3.8 },  // .6 on each face of a bar of 5
			func(r *plan.Request) { r.Design.SpineMm = 3.85 }, // the middle of its thickest cell
		},
		"warn.barHeavy": {
			func(r *plan.Request) { r.Bar.ThicknessMm = heavy["needMm"] * heavy["limit"] },
			func(r *plan.Request) { r.Bar.ThicknessMm = heavy["needMm"]*heavy["limit"] + .01 },
		},
		"warn.gouge": {
			func(r *plan.Request) { r.Bar.ThicknessMm, r.Allowances.FaceMm = 6, r.Smith.Skill.MarksMm() },
			func(r *plan.Request) { r.Bar.ThicknessMm, r.Allowances.FaceMm = 6, r.Smith.Skill.MarksMm()-.01 },
		},
		"warn.fullTangShort": {
			func(r *plan.Request) {
				r.Design.SetTang(blade.FullTang)
				r.Design.Tang.LengthMm = plantest.Handle(r).LengthMm
			},
			func(r *plan.Request) {
				r.Design.SetTang(blade.FullTang)
				r.Design.Tang.LengthMm = plantest.Handle(r).LengthMm - 1
			},
		},
		"warn.hiddenHole": {
			func(r *plan.Request) { r.Design.SetTang(blade.FullTang); r.Design.AddHole() },
			func(r *plan.Request) { r.Design.Tang.Holes = []blade.Hole{{AtMm: 20, DiameterMm: 4}} },
		},
		"warn.rodWeld": {
			func(r *plan.Request) { r.Choices.Holding, r.Design.Tang.WeldAtMm = plan.WeldedRod, 60 },
			func(r *plan.Request) { r.Choices.Holding = plan.WeldedRod },
		},
		"warn.weldHeat": {
			func(r *plan.Request) { r.Choices.Holding = plan.WeldedRod },
			func(r *plan.Request) { r.Choices.Holding, r.Choices.RodWeld = plan.WeldedRod, plan.InTheFire },
		},
		"warn.bitShort": {
			func(r *plan.Request) { r.Bit = bit(bitReaches*1.001, 12) },
			func(r *plan.Request) { r.Bit = bit(bitReaches*.999, 12) },
		},
		"warn.bitShallow": {
			func(r *plan.Request) { r.Bit = bit(90, deepEnough+.01) },
			func(r *plan.Request) { r.Bit = bit(90, deepEnough-.01) },
		},
		"warn.formTight": {
			func(r *plan.Request) {
				r.Design.FlatBend = &blade.FlatBend{RadiusMm: 3.6 * (1/.15 - 1) / 2, LongMm: 30, AxisDeg: 90, Hollow: blade.FlatInside}
				r.Design.TipMm, r.Design.SpineMm = 3.6, 3.6
			},
			func(r *plan.Request) {
				r.Design.FlatBend = &blade.FlatBend{RadiusMm: 3.6*(1/.15-1)/2 - .1, LongMm: 30, AxisDeg: 90, Hollow: blade.FlatInside}
				r.Design.TipMm, r.Design.SpineMm = 3.6, 3.6
			},
		},
		"warn.sweep": {
			func(r *plan.Request) { r.Choices.Curve = plan.PreCurveFirst },
			func(r *plan.Request) { r.Choices.Curve = plan.LetSweep },
		},
		"warn.blankWide": {
			func(r *plan.Request) { sawnOf(r, 33) },
			func(r *plan.Request) { sawnOf(r, 20) },
		},
		"warn.preCurveMost": {
			func(r *plan.Request) { low(r, 20) },
			func(r *plan.Request) { low(r, 19) },
		},
		"warn.faceSpread": {
			func(r *plan.Request) {
				*r = plantest.Slicer(plantest.Flat(40, 6, 610))
				r.Choices.Tools = profileBy(forge.PeenAlong, "")
			},
			func(r *plan.Request) {
				*r = plantest.Slicer(plantest.Flat(40, 6, 610))
				r.Choices.Tools = profileBy(forge.PeenAcross, forge.OverHorn)
			},
		},
		"warn.upset": {
			func(r *plan.Request) { stout(r, 5, 12) },
			func(r *plan.Request) { stout(r, 6.5, 12) },
		},
		"warn.upsetBends": {
			func(r *plan.Request) { stout(r, 6.5, 12) },
			func(r *plan.Request) { stout(r, 6.5, 40) },
		},
		"warn.tired": {
			func(*plan.Request) {},
			func(r *plan.Request) { *r = plantest.Thick(nil) },
		},
		"warn.shortHeat": {
			func(r *plan.Request) { r.Fire.TempC = 1140 },
			func(r *plan.Request) { r.Fire.TempC = 1000 },
		},
		"warn.noHardening": {
			func(r *plan.Request) { r.Choices.Harden = plan.HardenForged },
			func(r *plan.Request) { r.Choices.Harden, r.SteelID = plan.HardenForged, "1018" },
		},
		"warn.longSoak": {
			func(r *plan.Request) { r.Choices.Harden, r.SteelID = plan.HardenForged, "1084" }, // 5 min
			func(r *plan.Request) { r.Choices.Harden = plan.HardenForged },                    // 8 min
		},
		"warn.grindHot": {
			func(r *plan.Request) { r.Choices.Harden = plan.HardenForged; plantest.ForgedEdge(r, 1.5) },
			func(r *plan.Request) { r.Choices.Harden = plan.HardenForged; plantest.ForgedEdge(r, 1.51) },
		},
		"warn.patternDeep": {
			func(r *plan.Request) {
				r.Bar.ThicknessMm, r.Choices.SteelPattern, r.Allowances.FaceMm = 8, plan.LoopsQuarterDeep, r.Design.SpineMm/2
			},
			func(r *plan.Request) {
				r.Bar.ThicknessMm, r.Choices.SteelPattern, r.Allowances.FaceMm = 8, plan.LoopsQuarterDeep, r.Design.SpineMm/2-.01
			},
		},
		"warn.order.nothingHotAfterHardening": {
			func(r *plan.Request) { r.Choices.Harden = plan.HardenForged },
			func(r *plan.Request) {
				r.Choices.Harden, r.Choices.Order, r.Choices.Forced = plan.HardenForged, []string{"planish", "harden", "cutOff"}, true
			},
		},
		"warn.airHardens": {
			func(r *plan.Request) { r.SteelID = "O1" },
			func(r *plan.Request) { r.SteelID = "unknown-tool" },
		},
		"warn.assumedSteel": {
			func(r *plan.Request) { r.SteelID = "5160" },
			func(r *plan.Request) { r.SteelID = "unknown-spring" },
		},
		"warn.lip": {
			func(r *plan.Request) { r.Choices.Corners, r.Bar = plan.CornersLeft, plantest.Flat(25, blunt*1.03, 900) },
			func(r *plan.Request) { r.Choices.Corners, r.Bar = plan.CornersLeft, plantest.Flat(25, blunt*.97, 900) },
		},
		"warn.hot": {
			func(r *plan.Request) { r.Fire.SoakC = p.Steel.ForgeHighC },
			func(r *plan.Request) { r.Fire.SoakC = p.Steel.ForgeHighC + 1 },
		},
		"warn.burning": {
			func(r *plan.Request) { r.Fire.TempC, r.Fire.SoakC = 1400, p.Steel.ForgeHighC+120 },
			func(r *plan.Request) { r.Fire.TempC, r.Fire.SoakC = 1400, p.Steel.ForgeHighC+121 },
		},
		"warn.cold": {
			func(r *plan.Request) { r.Fire.StopC = p.Steel.ForgeLowC },
			func(r *plan.Request) { r.Fire.StopC = p.Steel.ForgeLowC - 1 },
		},
		"warn.order.cornersBeforePoint": {
			func(r *plan.Request) { r.Choices.Order, r.Choices.Forced = []string{"corners", "point"}, true },
			func(r *plan.Request) { r.Choices.Order, r.Choices.Forced = []string{"point", "corners"}, true },
		},
		"warn.edgewise": {
			func(r *plan.Request) { r.Bar = plantest.Flat(25, 8.7, 900) },
			func(r *plan.Request) { r.Bar = plantest.Flat(25, 8, 900) },
		},
		"warn.edgewiseFolds": {
			func(r *plan.Request) { r.Bar = plantest.Flat(28, 4.9, 900) },
			func(r *plan.Request) { r.Bar = plantest.Flat(28, 4.5, 900) },
		},
		"warn.thickSection": {
			func(r *plan.Request) { r.Bar = stock.Item{Form: stock.Square, SideMm: 25, LengthMm: 300} },
			func(r *plan.Request) { r.Bar = stock.Item{Form: stock.Square, SideMm: 25.1, LengthMm: 300} },
		},
	}
}

// elsewhere are the warnings that have a test of their own.
var elsewhere = map[string]string{
	"warn.unsettled": "TestAnyLumpKeepsItsVolume allows for it: rounds that go on disputing cannot be asked for",
}

// wordsOnly are the warnings that no one field would clear.
var wordsOnly = map[string]bool{
	"warn.weldHeat": true, "warn.thickSection": true, "warn.hiddenHole": true, "warn.assumedSteel": true, "warn.tired": true,
	"warn.edgewise": true, "warn.upset": true, "warn.rodWeld": true, "warn.longSoak": true, "warn.pointHigh": true, "warn.pointLow": true, "warn.airHardens": true,
}

// TestWarningsKnowTheirLimit: just inside nothing, just outside the warning with its
// figure, and where it has a remedy, that clears it.
func TestWarningsKnowTheirLimit(t *testing.T) {
	for code, c := range atTheirLimit(t) {
		in, out := plantest.Request(), plantest.Request()
		c.in(&in)
		c.out(&out)
		assert.Empty(t, plantest.Warning(plantest.Make(t, in), code).Code, "%s, inside", code)
		w := plantest.Warning(plantest.Make(t, out), code)
		require.Equal(t, code, w.Code, "%s, outside", code)
		assert.Equal(t, wordsOnly[code], w.Remedy == nil, "%s: remedy %v", code, w.Remedy)
		clears(t, out, w)
		if w.Remedy != nil && strings.HasPrefix(w.Remedy.Field, "bar.") {
			assert.InDelta(t, math.Round(2*w.Remedy.Mm), 2*w.Remedy.Mm, 1e-9, "%s: a bar that is sold", code)
		}
	}
}

// TestEveryWarningIsTriedAtItsLimit reads the code of the planner for what it warns of.
func TestEveryWarningIsTriedAtItsLimit(t *testing.T) {
	files, err := filepath.Glob("*.go")
	require.NoError(t, err)
	code := regexp.MustCompile(`"(warn\.[A-Za-z.]*[A-Za-z])"`)
	tried, found := atTheirLimit(t), 0
	for _, f := range files {
		if strings.HasSuffix(f, "_test.go") {
			continue
		}
		src, err := os.ReadFile(f)
		require.NoError(t, err)
		for _, m := range code.FindAllStringSubmatch(string(src), -1) {
			found++
			if _, ok := tried[m[1]]; !ok {
				assert.NotEmpty(t, elsewhere[m[1]], "%s is never tried at its limit", m[1])
			}
		}
	}
	assert.Greater(t, found, 40)
}
