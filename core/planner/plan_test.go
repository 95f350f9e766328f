package planner_test

import (
	"context"
	"errors"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/section"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestReferencePieceFallsInItsRange(t *testing.T) {
	p := plantest.Make(t, plantest.Sanity(25, 5))
	assert.InDelta(t, 14700, p.Forged.VolumeMm3, 50)
	between(t, 118, 128, p.Bar.CutLengthMm, "from 25 × 5")
	between(t, .05, .08, p.Bar.ScaleShare, "burns off")
	heavy := plantest.Make(t, plantest.Sanity(38, 9.5))
	between(t, 43, 46, heavy.Bar.CutLengthMm, "from 38 × 9.5")
	assert.Greater(t, heavy.Bar.ScaleShare, p.Bar.ScaleShare, "a heavier bar is longer in the fire")
}

// TestNothingIsFixed: steel, hammer and bar each change the blows, the seconds
// and the temperatures of operations.
func TestNothingIsFixed(t *testing.T) {
	base := plantest.Make(t, plantest.Request())
	for name, change := range map[string]func(*plan.Request){
		"steel":  func(r *plan.Request) { r.SteelID = "O1" },
		"hammer": func(r *plan.Request) { r.Smith = r.Smith.WithHammerKg(1.8) },
		"bar":    func(r *plan.Request) { r.Bar = plantest.Flat(25, 7, 1000) },
		"hand":   func(r *plan.Request) { r.Smith = r.Smith.WithSkill(forge.Learning) },
		"fire":   func(r *plan.Request) { r.Fire.TempC = 1080 },
	} {
		r := plantest.Request()
		change(&r)
		p := plantest.Make(t, r)
		blows, seconds, temps, compared := 0, 0, 0, 0
		for _, o := range p.Operations {
			for _, b := range base.Operations {
				if o.ID != b.ID || o.Kind == "normalise" {
					continue
				}
				compared++
				if o.Hammer().Blows != b.Hammer().Blows {
					blows++
				}
				if o.TimeS != b.TimeS {
					seconds++
				}
				if o.StartC != b.StartC || o.EndC != b.EndC {
					temps++
				}
			}
		}
		require.Greater(t, compared, 6, name)
		assert.GreaterOrEqual(t, blows, 4, "%s changes the blows of whatever is work; what is only gone over stays", name)
		assert.GreaterOrEqual(t, seconds, compared-1, "%s changes the seconds of every operation; what is only gone over may stay", name)
		assert.Positive(t, temps, "%s changes temperatures", name)
		assert.NotEqual(t, base.Bar.CutLengthMm, p.Bar.CutLengthMm, name)
	}
}

func TestMarksLedgerAndZonesAgree(t *testing.T) {
	for _, mode := range []plan.LossMode{plan.ComputedLoss, plan.ThumbLoss} {
		r := plantest.Request()
		r.Sizing.LossMode = mode
		p := plantest.Make(t, r)
		m := p.Bar.Marks
		require.Len(t, m, 4)
		assert.Zero(t, m[0].FromMm)
		for i := 1; i < len(m); i++ {
			assert.InDelta(t, m[i-1].ToMm, m[i].FromMm, 1e-9)
		}
		assert.InDelta(t, p.Bar.CutLengthMm, m[3].ToMm+r.Sizing.TrimMm+r.Sizing.KerfMm, 1e-9)
		sum := 0.0
		for _, l := range p.Ledger {
			switch l.Code {
			case "ledger.start":
				assert.InEpsilon(t, sum, l.VolumeMm3, 1e-9, mode)
				assert.InEpsilon(t, p.Bar.CutLengthMm, l.BarMm, 1e-9)
			case "ledger.forged":
				assert.InEpsilon(t, sum, l.VolumeMm3, 1e-9, mode)
			default:
				sum += l.VolumeMm3
			}
		}
		zones := 0.0
		for _, v := range p.ForgedZones {
			zones += v
		}
		assert.InEpsilon(t, p.Forged.VolumeMm3, zones, 1e-6)
	}
	r := plantest.Request()
	r.Sizing.LossMode, r.Sizing.ThumbLossFraction = plan.ThumbLoss, .2
	p := plantest.Make(t, r)
	assert.InEpsilon(t, p.Forged.VolumeMm3/.8/p.Bar.AreaMm2+3.5, p.Bar.CutLengthMm, 1e-9, "the thumb rule sizes the bar by itself")
	assert.Less(t, p.Bar.ScaleShare, .15, "and the heats still say what they compute")
}

func TestOperationsComeInTheOrderOfTheirNeeds(t *testing.T) {
	p := plantest.Make(t, plantest.Request())
	at := map[string]int{}
	for i, o := range p.Operations {
		at[o.ID] = i
		assert.NotEmpty(t, o.BecauseCode, o.ID)
		if o.After != "" {
			before, ok := at[o.After]
			require.True(t, ok, "%s comes after %s", o.ID, o.After)
			assert.Less(t, before, i)
		}
	}
	for _, pair := range [][2]string{{"corners", "point"}, {"point", "tang"}, {"profile", "bevel"}, {"preCurve", "bevel"}, {"bevel", "planish"}, {"planish", "cutOff"}, {"cutOff", "cycle1"}, {"cycle1", "cycle3"}} {
		assert.Less(t, at[pair[0]], at[pair[1]], "%v", pair)
	}
	caution := map[string]bool{}
	for _, o := range p.Operations {
		for _, c := range o.CautionCodes {
			caution[c] = true
		}
	}
	for _, c := range []string{"caution.eyesEars", "caution.fire", "caution.easedEdge", "caution.sharpFromNow", "caution.hotCut", "caution.hotLooksCold"} {
		assert.True(t, caution[c], c)
	}
}

func TestHeatsAddUpToTheOperations(t *testing.T) {
	p := plantest.Make(t, plantest.Request())
	perOp, share := map[string]float64{}, map[string]float64{}
	for i, h := range p.Heats {
		assert.Equal(t, i+1, h.Number)
		assert.NotEmpty(t, h.Shape)
		assert.LessOrEqual(t, h.HotTo, h.Shape[len(h.Shape)-1].XMm+.1, "what is hot lies on the piece")
		assert.Less(t, h.HotFrom, h.HotTo)
		for _, part := range h.Parts {
			perOp[part.Operation] += part.Blows
			assert.InDelta(t, part.ToShare-part.FromShare, math.Abs(part.ToShare-part.FromShare), 1e-9)
			share[part.Operation] = math.Max(share[part.Operation], part.ToShare)
		}
	}
	for _, o := range p.Operations {
		assert.InDelta(t, o.Hammer().Blows, perOp[o.ID], 1e-6, o.ID)
		assert.InDelta(t, 1, share[o.ID], 1e-9, "%s is finished", o.ID)
	}
	assert.Equal(t, len(p.Heats), p.Totals.Heats+p.Totals.Cycles)
	assert.GreaterOrEqual(t, float64(p.Totals.Heats), math.Ceil(p.Totals.FractionalHeats)-1)
	last := p.Heats[p.Totals.Heats-1].Shape
	assert.InDelta(t, p.Forged.OverallLengthMm, last[len(last)-1].XMm, 4, "the last forging heat ends near the forged shape")
}

func TestChoicesChangeTheRoute(t *testing.T) {
	has := func(p *plan.Plan, id string) bool {
		for _, o := range p.Operations {
			if o.ID == id {
				return true
			}
		}
		return false
	}
	r := plantest.Request()
	r.Choices.Holding, r.Choices.Curve, r.Choices.Cycles = plan.Tongs, plan.CorrectAsYou, plan.Once
	p := plantest.Make(t, r)
	assert.False(t, has(p, "cutOff"), "a piece cut to length is not cut off")
	assert.False(t, has(p, "preCurve"))
	assert.Equal(t, 1, p.Totals.Cycles)
	assert.Equal(t, "warn.sweep", plantest.Warning(p, "warn.sweep").Code, "the sweep is told")
	round := plantest.Request()
	round.Bar = stock.Item{Form: stock.Round, DiameterMm: 14, LengthMm: 400}
	assert.True(t, has(plantest.Make(t, round), "breakDown"), "a round is drawn to a flat first")
	iron := plantest.Request()
	iron.SteelID = "wrought-iron"
	assert.Zero(t, plantest.Make(t, iron).Totals.Cycles, "iron is not normalised")
	push := plantest.Request()
	push.Choices.Method = forge.PushIn
	assert.Less(t, reachable(plantest.Make(t, push)), reachable(plantest.Make(t, plantest.Request())), "pushing in reaches less width")
}

func reachable(p *plan.Plan) float64 { return p.Feasibility[0].SpreadReachable }

// TestTheLedgerTellsEveryAllowance: its parts are all that lies between
// finished blade and forged shape.
func TestTheLedgerTellsEveryAllowance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := plantest.Request()
		r.CellCount = 12
		z := r.Allowances.ByZone()
		z.PointFaceMm = rapid.Float64Range(0, 1).Draw(t, "pointFace")
		z.SpineMm = rapid.Float64Range(0, 2).Draw(t, "spine")
		z.PointMm = rapid.Float64Range(0, 2).Draw(t, "point")
		r.Allowances.Zones = &z
		r.Design.Ricasso.NotchMm = rapid.Float64Range(0, 4).Draw(t, "notch")
		r.Choices.Taper = rapid.SampledFrom([]plan.Taper{plan.ForgedTaper, plan.GroundTaper}).Draw(t, "taper")
		p, err := planner.Make(context.Background(), r)
		require.NoError(t, err)
		grind := p.Ledger[1]
		require.Equal(t, "ledger.grind", grind.Code)
		sum := 0.0
		for _, part := range grind.Parts {
			sum += part.VolumeMm3
		}
		require.InDelta(t, grind.VolumeMm3, sum, 1e-4*p.Forged.VolumeMm3)
		require.Equal(t, blade.OwnSchool, p.School)
	})
}

func TestADeepBladeNeedsAWideBar(t *testing.T) {
	w := plantest.TooNarrow(plantest.Make(t, plantest.Slicer(plantest.Flat(32, 4, 500))))
	require.Equal(t, fact.Stop, w.Severity)
	assert.Less(t, w.Where.FromMm, w.Where.ToMm)
	assert.Greater(t, w.Figures["heightMm"], w.Figures["reachMm"])
	assert.Empty(t, plantest.TooNarrow(plantest.Make(t, plantest.Slicer(plantest.Flat(40, 6, 610)))).Code, "the wide bar works")
}

// TestTheRemedyClearsTheWarning: a bar of the width or thickness that is named
// will do, the next smaller that is sold will not.
func TestTheRemedyClearsTheWarning(t *testing.T) {
	for _, bar := range []stock.Item{plantest.Flat(32, 4, 500), plantest.Flat(36, 5, 500), plantest.Flat(30, 6, 500)} {
		w := plantest.TooNarrow(plantest.Make(t, plantest.Slicer(bar)))
		require.NotEmpty(t, w.Code, "%+v", bar)
		thick := bar
		thick.ThicknessMm = w.Figures["thicknessMm"]
		assert.Empty(t, plantest.TooNarrow(plantest.Make(t, plantest.Slicer(thick))).Code, "%+v", thick)
		thick.ThicknessMm = w.Figures["thicknessMm"] - .5 // the next that is sold
		assert.NotEmpty(t, plantest.TooNarrow(plantest.Make(t, plantest.Slicer(thick))).Code, "%+v", thick)
		wide := bar
		wide.WidthMm = w.Figures["widthMm"]
		require.Greater(t, wide.WidthMm, bar.WidthMm)
		assert.Empty(t, plantest.TooNarrow(plantest.Make(t, plantest.Slicer(wide))).Code, "%+v", wide)
	}
}

func TestASpineThickerThanTheBarIsRefusedByName(t *testing.T) {
	r := plantest.Request()
	r.Design.SpineMm = 4.2 // with 0.6 left on each face: 5.4 over a bar of 5
	w := plantest.Warning(plantest.Make(t, r), "warn.barThin")
	require.Equal(t, fact.Stop, w.Severity)
	r.Bar.ThicknessMm = w.Figures["needMm"]
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), "warn.barThin").Code, "the thickness it names would do")
}

func TestWhatCannotBeIsSaidFieldByField(t *testing.T) {
	for field, spoil := range map[string]func(*plan.Request){
		"design.lengthMm":          func(r *plan.Request) { r.Design.LengthMm = 5000 },
		"design.spineMm":           func(r *plan.Request) { r.Design.SpineMm = .01 },
		"design.heightMm":          func(r *plan.Request) { r.Design.HeightMm = -3 },
		"steelId":                  func(r *plan.Request) { r.SteelID = "unobtainium" },
		"bar.widthMm":              func(r *plan.Request) { r.Bar.WidthMm = 0 },
		"bar.wireDiameterMm":       func(r *plan.Request) { r.Bar.Form = stock.Coil },
		"bar.form":                 func(r *plan.Request) { r.Bar = stock.Item{Form: stock.Tube, DiameterMm: 30, WallMm: 3, LengthMm: 200} },
		"bar.dead":                 func(r *plan.Request) { r.Bar.Dead = []stock.Dead{{FromMm: 0, ToMm: 5000, Why: "wear"}} },
		"bar.sideMm":               func(r *plan.Request) { r.Bar.Form = stock.Square },
		"bar.diameterMm":           func(r *plan.Request) { r.Bar.Form = stock.Round },
		"bar.acrossFlatsMm":        func(r *plan.Request) { r.Bar.Form = stock.Hex },
		"smith.hammerKg":           func(r *plan.Request) { r.Smith.HammerKg = math.NaN() },
		"fire.tempC":               func(r *plan.Request) { r.Fire.TempC = 820 },
		"sizing.thumbLossFraction": func(r *plan.Request) { r.Sizing.ThumbLossFraction = 1 },
		"choices.method":           func(r *plan.Request) { r.Choices.Method = "wish" },
		"design.grind.wheelRadiusMm": func(r *plan.Request) {
			r.Design.Grind = blade.Grind{Kind: section.Hollow, BevelFraction: 1, EdgeMm: .1, WheelRadiusMm: 20}
		},
	} {
		r := plantest.Request()
		spoil(&r)
		_, err := planner.Make(context.Background(), r)
		var fe fact.FieldErrors
		require.True(t, errors.As(err, &fe), "%s: %v", field, err)
		fields := make([]string, len(fe))
		for i, f := range fe {
			fields[i] = f.Field
		}
		assert.Contains(t, fields, field)
	}
}

func TestACancelledPlanGivesNothing(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	p, err := planner.Make(ctx, plantest.Request())
	require.ErrorIs(t, err, context.Canceled)
	assert.Nil(t, p)
}

func TestTheSuggestionCoversSkinAndMarks(t *testing.T) {
	for _, k := range forge.Skills() {
		r := plantest.Request()
		r.Smith = r.Smith.WithSkill(k)
		p := plantest.Make(t, r)
		s := p.Suggested
		assert.GreaterOrEqual(t, s.FaceMm, s.DecarbMm+s.MarksMm-1e-9)
		assert.Less(t, s.FaceMm, s.DecarbMm+s.MarksMm+.1)
		assert.InDelta(t, p.Totals.DecarbMm, s.DecarbMm, 0)
		r.Allowances.FaceMm = s.FaceMm
		taken := plantest.Make(t, r)
		assert.Empty(t, plantest.Warning(taken, "warn.decarb").Code, "taking it clears the warning")
		assert.InDelta(t, s.FaceMm, taken.Suggested.FaceMm, 1e-9, "and asks for nothing more")
	}
}

// TestTheSchoolsOfOrderAndTaper plan the same blade another way round.
func TestTheSchoolsOfOrderAndTaper(t *testing.T) {
	kinds := func(p *plan.Plan) map[string]int {
		at := map[string]int{}
		for i, o := range p.Operations {
			at[o.Kind] = i + 1
		}
		return at
	}
	r := plantest.Request()
	first := plantest.Make(t, r)
	assert.Less(t, kinds(first)["point"], kinds(first)["tang"])
	assert.Equal(t, plan.PointFirst, first.SuggestFirst, "a long bar")
	r.Choices.First = plan.TangFirst
	second := plantest.Make(t, r)
	at := kinds(second)
	assert.Less(t, at["tang"], at["point"])
	assert.Less(t, at["point"], at["profile"])
	for _, o := range second.Operations {
		if o.Kind == "point" {
			assert.Equal(t, "need.pointFromWhatIsLeft", o.BecauseCode)
		}
	}
	assert.InEpsilon(t, first.Bar.CutLengthMm, second.Bar.CutLengthMm, .03, "both plan the same blade")
	r.Bar.LengthMm = first.Bar.CutLengthMm * 1.1
	assert.Equal(t, plan.TangFirst, plantest.Make(t, r).SuggestFirst, "little to spare")

	ground := plantest.Request()
	ground.Choices.Taper = plan.GroundTaper
	p := plantest.Make(t, ground)
	assert.Greater(t, p.Forged.VolumeMm3, first.Forged.VolumeMm3, "the taper is left for the grinder")
	assert.InDelta(t, first.Finished.VolumeMm3, p.Finished.VolumeMm3, 1e-9)
}

// TestASlowAnnealComesAfterOneCycle: from above the critical point, or held below
// it where much carbon would come out coarse.
func TestASlowAnnealComesAfterOneCycle(t *testing.T) {
	for steelID, c := range map[string]float64{"1075": 760, "52100": 680, "O1": 680, "L6": 680} {
		r := plantest.Request()
		r.SteelID, r.Choices.Cycles = steelID, plan.SlowAnneal
		p := plantest.Make(t, r)
		assert.Equal(t, 2, p.Totals.Cycles, steelID)
		last := p.Operations[len(p.Operations)-1]
		assert.Equal(t, "anneal", last.Kind)
		assert.InDelta(t, c, last.TargetC, 1e-9, steelID)
		assert.Contains(t, last.CautionCodes, "caution.hotLooksCold")
	}
	iron := plantest.Request()
	iron.SteelID, iron.Choices.Cycles = "wrought-iron", plan.SlowAnneal
	assert.Zero(t, plantest.Make(t, iron).Totals.Cycles)
}

// TestAQuarterOfTheCutLeftOverIsScarce: with less the tang first tells what is left for
// the blade; with more the point fixes its length.
func TestAQuarterOfTheCutLeftOverIsScarce(t *testing.T) {
	r := plantest.Request()
	cut := plantest.Make(t, r).Bar.CutLengthMm
	for share, want := range map[float64]plan.First{.05: plan.TangFirst, .2: plan.TangFirst, .3: plan.PointFirst, .45: plan.PointFirst, 2: plan.PointFirst} {
		r.Bar.LengthMm = cut * (1 + share)
		assert.Equal(t, want, plantest.Make(t, r).SuggestFirst, "%v of the cut is left over", share)
	}
}
