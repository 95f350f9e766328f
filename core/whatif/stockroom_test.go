package whatif_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryFormIsForgedFromItsOwnShape: what goes into the bar is there in the
// piece, the marks take it up, and what bends is straightened first.
func TestEveryFormIsForgedFromItsOwnShape(t *testing.T) {
	for name, c := range map[string]struct {
		piece stock.Item
		ops   []string
		prep  string
	}{
		"roller": {stock.Item{Form: stock.Roller, DiameterMm: 24, LengthMm: 36}, []string{"breakDown", "breakDown"}, "prep.tack"},
		"ball":   {stock.Item{Form: stock.Ball, DiameterMm: 38}, []string{"breakDown", "breakDown"}, "prep.tack"},
		"coil":   {stock.Item{Form: stock.Coil, WireDiameterMm: 13, MeanDiameterMm: 110, PitchMm: 40, Turns: 1.5}, []string{"straighten", "breakDown", "breakDown"}, "prep.cutTurns"},
		"leaf":   {stock.Item{Form: stock.Leaf, WidthMm: 30, ThicknessMm: 7, ChordMm: 400, RiseMm: 60}, []string{"straighten", "corners", "point"}, ""},
		"race":   {stock.Item{Form: stock.Race, OuterDiameterMm: 110, InnerDiameterMm: 90, WidthMm: 24}, []string{"straighten", "corners", "breakDown"}, "prep.cutRing"},
		"rasp":   {stock.Item{Form: stock.TaperedFlat, StartWidthMm: 30, EndWidthMm: 24, StartThicknessMm: 7, EndThicknessMm: 5, LengthMm: 250, TeethMm: .4}, []string{"corners"}, "prep.grindTeeth"},
		"disc":   {stock.Item{Form: stock.Disc, DiameterMm: 400, ThicknessMm: 5, ShareFraction: .5, StripWidthMm: 30}, []string{"corners"}, "prep.cutStrip"},
		"cable":  {stock.Item{Form: stock.Cable, DiameterMm: 25, LengthMm: 200, SolidFraction: .6}, []string{"weld", "corners"}, "prep.weldSolid"},
	} {
		p := plantest.Make(t, plantest.OnSalvage(c.piece))
		kinds := make([]string, len(p.Operations))
		for i, o := range p.Operations {
			kinds[i] = o.Kind
		}
		assert.Equal(t, c.ops, kinds[:len(c.ops)], name)
		start, err := c.piece.Even()
		require.NoError(t, err)
		assert.InDelta(t, start.LengthMm, p.Bar.AvailableMm, 1e-9, name)
		last := p.Bar.Marks[len(p.Bar.Marks)-1]
		assert.InDelta(t, p.Bar.CutLengthMm, last.ToMm, 4.5, "%s: marks, then trim and kerf", name)
		lost := p.Bar.StartMm3*(1-0) - p.Forged.VolumeMm3
		assert.Greater(t, lost, 0., name)
		if c.prep != "" {
			found := false
			for _, s := range p.Prep {
				found = found || s.Code == c.prep
			}
			assert.True(t, found, "%s wants %s", name, c.prep)
		}
		if kinds[0] == "straighten" {
			assert.Equal(t, "need.straightFirst", p.Operations[1].BecauseCode, name)
			assert.Greater(t, p.Operations[0].Hammer().Blows, 0., name)
		}
		if p.Bar.Down != nil {
			d := p.Bar.Down
			sum := d.Marks[len(d.Marks)-1].ToMm
			assert.InDelta(t, d.LengthMm, sum, 1e-9, name)
			assert.Less(t, d.ThicknessMm, p.Bar.ThicknessMm, name)
		}
	}
}

func TestATighterCoilTakesMoreStraightening(t *testing.T) {
	blows := func(mean float64) float64 {
		return plantest.Make(t, plantest.OnSalvage(stock.Item{Form: stock.Coil, WireDiameterMm: 13, MeanDiameterMm: mean, PitchMm: 40, Turns: 300 / mean})).Operations[0].Hammer().Blows
	}
	assert.Greater(t, blows(60), blows(150))
}

func TestTheSmithMayChooseTheFirstBar(t *testing.T) {
	r := plantest.OnSalvage(stock.Item{Form: stock.Roller, DiameterMm: 24, LengthMm: 36})
	r.Sizing.FirstThicknessMm, r.Sizing.FirstWidthMm = 8, 22
	d := plantest.Make(t, r).Bar.Down
	require.NotNil(t, d)
	assert.InDelta(t, 8, d.ThicknessMm, .4, "and the scale still to come")
	assert.InDelta(t, 22, d.WidthMm, .4)
}

func TestHazardsStopAPlanUntilSeenToOrForGood(t *testing.T) {
	r := plantest.Request()
	r.Origin = plan.Origin{ID: "leafSpring", Hazards: []string{"tension", "galvanised"}}
	p := plantest.Make(t, r)
	assert.Equal(t, fact.Stop, plantest.Warning(p, "hazard.tension").Severity)
	assert.Equal(t, fact.Stop, plantest.Warning(p, "hazard.galvanised").Severity)
	r.Origin.Acknowledged = []string{"tension", "galvanised"}
	p = plantest.Make(t, r)
	assert.Equal(t, fact.Note, plantest.Warning(p, "hazard.tension").Severity)
	assert.Equal(t, fact.Stop, plantest.Warning(p, "hazard.galvanised").Severity, "for good")
}

func TestABeliefNarrowsTheWindow(t *testing.T) {
	r := plantest.Request()
	wide := plantest.Make(t, r)
	r.Origin.Window = &plan.Window{LowC: 900, HighC: 1050}
	p := plantest.Make(t, r)
	assert.InDelta(t, 1030, p.Totals.SoakC, 1e-9)
	assert.InDelta(t, 900, p.Totals.LowC, 1e-9)
	assert.Greater(t, p.Totals.FractionalHeats, wide.Totals.FractionalHeats)
	r.Origin.Window = &plan.Window{LowC: 1000, HighC: 1040}
	_, err := planner.Make(context.Background(), r)
	assert.ErrorContains(t, err, "forge.noWindow")
}

// TestTheSureLengthCoversWhatItSays: four fifths of the draws of another seed
// lie in its middle band, and the same seed gives the same answer.
func TestTheSureLengthCoversWhatItSays(t *testing.T) {
	ctx := context.Background()
	r := plantest.Request()
	tol := plan.UsualTolerances(r)
	s, err := whatif.BeSure(ctx, r, tol, 2000, 7)
	require.NoError(t, err)
	again, err := whatif.BeSure(ctx, r, tol, 2000, 7)
	require.NoError(t, err)
	assert.Equal(t, s, again)
	assert.Less(t, s.LowMm, s.P50Mm)
	assert.Less(t, s.P50Mm, s.P80Mm)
	assert.Less(t, s.P80Mm, s.HighMm)
	assert.Less(t, s.HighMm, s.P95Mm)
	assert.Less(t, s.FitErrorMm, .02*s.P50Mm)
	assert.InDelta(t, plantest.Make(t, r).Bar.CutLengthMm, s.P50Mm, .01*s.P50Mm)
	other, err := whatif.BeSure(ctx, r, tol, 20000, 99)
	require.NoError(t, err)
	covered := coverage(other, s)
	assert.InDelta(t, .8, covered, .02)
	sum := 0.0
	for _, v := range s.Sources {
		sum += v
	}
	assert.InDelta(t, 1, sum, 1e-9)
	salvaged := r
	salvaged.Origin.ID = stock.Origins()[len(stock.Origins())-1].ID
	assert.Greater(t, plan.UsualTolerances(salvaged).Form, tol.Form, "salvage is less like its measures")
}

// coverage is how much of a's draws lie in b's middle band, read off a's own
// quantiles; both ends are searched.
func coverage(a, b *whatif.Sure) float64 {
	return a.ShareBelow(b.HighMm) - a.ShareBelow(b.LowMm)
}

// TestTheSureLengthAgreesWithTheClosedForm where only the forged volume is
// uncertain: then the length is linear in a normal deviate.
func TestTheSureLengthAgreesWithTheClosedForm(t *testing.T) {
	r := plantest.Request()
	s, err := whatif.BeSure(context.Background(), r, whatif.Tolerances{Forged: .05}, 4000, 3)
	require.NoError(t, err)
	p := plantest.Make(t, r)
	mean := p.Bar.CutLengthMm - r.Sizing.TrimMm - r.Sizing.KerfMm
	for q, z := range map[float64]float64{s.P50Mm: 0, s.P80Mm: .8416212, s.P95Mm: 1.6448536, s.HighMm: 1.2815516} {
		assert.InEpsilon(t, mean*(1+.05*z)+r.Sizing.TrimMm+r.Sizing.KerfMm, q, 1e-3)
	}
	least := mean*(1-p.Bar.LossFraction) + r.Sizing.TrimMm + r.Sizing.KerfMm
	assert.InDelta(t, math.Max(least, mean*(1-.05*1.2815516)+r.Sizing.TrimMm+r.Sizing.KerfMm), s.LowMm, 1e-3*least, "never under what is forged")
	assert.InDelta(t, 1, s.Sources["forged"], 1e-12)
	exact, err := whatif.BeSure(context.Background(), r, whatif.Tolerances{}, 500, 3)
	require.NoError(t, err)
	assert.InDelta(t, exact.LowMm, exact.P95Mm, 1e-9, "nothing uncertain, one length")
	for _, bad := range []whatif.Tolerances{{WidthMm: -1}, {Loss: 7}, {Form: math.NaN()}} {
		_, err := whatif.BeSure(context.Background(), r, bad, 500, 3)
		require.Error(t, err)
	}
	_, err = whatif.BeSure(context.Background(), r, whatif.Tolerances{}, 5, 3)
	require.ErrorContains(t, err, "runs")
}

// rack is so many pieces of mixed stock.
func rack(n int) []whatif.Candidate {
	rng := rand.New(rand.NewPCG(5, 5))
	var out []whatif.Candidate
	for i := range n {
		c := whatif.Candidate{ID: fmt.Sprintf("piece-%03d", i), SteelID: "1084", Certain: 1, CostPerG: .01}
		switch i % 4 {
		case 0, 1:
			c.Piece = plantest.Flat(15+40*rng.Float64(), 3+8*rng.Float64(), 60+900*rng.Float64())
		case 2:
			c.Piece = stock.Item{Form: stock.Round, DiameterMm: 8 + 25*rng.Float64(), LengthMm: 50 + 300*rng.Float64()}
		default:
			c.Piece = stock.Item{Form: stock.Leaf, WidthMm: 40 + 30*rng.Float64(), ThicknessMm: 6 + 4*rng.Float64(), ChordMm: 500, RiseMm: 60}
			c.Certain, c.Origin = .6, plan.Origin{ID: "leafSpring", Hazards: []string{"tension"}}
		}
		out = append(out, c)
	}
	return out
}

func TestTheRackIsRanked(t *testing.T) {
	r := plantest.Request()
	list := rack(60)
	list = append(list, whatif.Candidate{ID: "chain", SteelID: "1018", Piece: stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 900}, Origin: plan.Origin{ID: "chain", Hazards: []string{"galvanised"}}})
	out, err := whatif.Rank(context.Background(), r, list)
	require.NoError(t, err)
	require.Len(t, out, len(list))
	planned, class := 0, 0
	for i, x := range out {
		now := 0
		switch {
		case x.Refused:
			now = 3
		case !x.Feasible:
			now = 2
		case !x.Planned:
			now = 1
		}
		assert.GreaterOrEqual(t, now, class, "planned, screened, infeasible, refused")
		if now == class && i > 0 && now == 0 {
			assert.GreaterOrEqual(t, x.Score, out[i-1].Score)
		}
		class = now
		if x.Planned {
			planned++
			assert.Positive(t, x.Heats)
			assert.Empty(t, x.Obstacle.Code)
		} else if !x.Feasible {
			assert.NotEmpty(t, x.Obstacle.Code, "why not is said")
		}
	}
	assert.Equal(t, 10, planned)
	assert.Equal(t, "chain", out[len(out)-1].ID, "what must not into the fire comes last")
	for _, x := range out[:3] { // screening agrees with the whole plan
		for _, c := range list {
			if c.ID == x.ID {
				whole := r
				whole.Bar, whole.SteelID, whole.Origin = c.Piece, c.SteelID, c.Origin
				assert.InDelta(t, plantest.Make(t, whole).Bar.CutLengthMm, x.CutMm, 1e-9)
			}
		}
	}
}

// TestHopesWork: every way out that is said to work leads to a plan without an
// obstacle.
func TestHopesWork(t *testing.T) {
	r := plantest.Slicer(plantest.Flat(32, 4, 500))
	r.CellCount = 24
	hopes, err := whatif.Hopes(context.Background(), r)
	require.NoError(t, err)
	codes := map[string]whatif.Hope{}
	for _, h := range hopes {
		codes[h.Code] = h
	}
	for _, want := range []string{"hope.wider", "hope.thicker", "hope.lower", "hope.fold"} {
		require.Contains(t, codes, want)
	}
	assert.True(t, codes["hope.wider"].Works)
	assert.True(t, codes["hope.thicker"].Works)
	assert.True(t, codes["hope.lower"].Works)
	wide, low := r, r
	wide.Bar.WidthMm = codes["hope.wider"].Mm
	assert.Empty(t, plantest.TooNarrow(plantest.Make(t, wide)).Code)
	low.Design.HeightMm = codes["hope.lower"].Mm
	assert.Empty(t, plantest.Make(t, low).Obstacle().Code)
	low.Design.HeightMm += 1
	assert.NotEmpty(t, plantest.Make(t, low).Obstacle().Code, "and a millimetre more is too much")
	roomy := plantest.Request()
	roomy.Bar = plantest.Flat(30, 6, 900)
	none, err := whatif.Hopes(context.Background(), roomy)
	require.NoError(t, err)
	assert.Empty(t, none)
	push := plantest.Slicer(plantest.Flat(38, 6, 610))
	push.Choices.Method = forge.PushIn
	hopes, err = whatif.Hopes(context.Background(), push)
	require.NoError(t, err)
	for _, h := range hopes {
		if h.Code == "hope.pinchOut" {
			pinch := push
			pinch.Choices.Method = forge.PinchOut
			assert.Equal(t, h.Works, plantest.Make(t, pinch).Obstacle().Code == "")
		}
	}
	short, err := whatif.Hopes(context.Background(), plantest.Slicer(plantest.Flat(40, 6, 120)))
	require.NoError(t, err)
	found := false
	for _, h := range short {
		found = found || h.Code == "hope.shorter" && h.Works
	}
	assert.True(t, found, "too short a bar gives a shorter blade")
}

func TestAMillimetreMoreCostsBar(t *testing.T) {
	costs, err := whatif.Costs(context.Background(), plantest.Request())
	require.NoError(t, err)
	require.Len(t, costs, 5)
	for _, c := range costs {
		assert.Greater(t, c.BarMm, 0., c.Field)
		assert.Greater(t, c.MassG, 0., c.Field)
	}
	longer, shorter := plantest.Request(), plantest.Request()
	longer.Design.LengthMm += 3
	shorter.Design.LengthMm -= 3
	assert.InDelta(t, (plantest.Make(t, longer).Bar.CutLengthMm-plantest.Make(t, shorter).Bar.CutLengthMm)/6, costs[0].BarMm, 1e-9)
}

func BenchmarkBeSure2000(b *testing.B) {
	r := plantest.Request()
	for b.Loop() {
		_, err := whatif.BeSure(context.Background(), r, plan.UsualTolerances(r), 2000, 1)
		require.NoError(b, err)
	}
}

func BenchmarkRank200(b *testing.B) {
	r, list := plantest.Request(), rack(200)
	for b.Loop() {
		_, err := whatif.Rank(context.Background(), r, list)
		require.NoError(b, err)
	}
}

// TestWarningAndWaysOutTellOfOneBar: what a warning says would do, what its remedy takes and
// what the ways out offer is one figure.
func TestWarningAndWaysOutTellOfOneBar(t *testing.T) {
	told := 0
	for _, w := range []float64{22, 26, 30, 34, 38} {
		r := plantest.Slicer(plantest.Flat(w, 4, 700))
		r.CellCount = 24
		warned := plantest.TooNarrow(plantest.Make(t, r))
		hopes, err := whatif.Hopes(t.Context(), r)
		require.NoError(t, err)
		for _, h := range hopes {
			switch {
			case h.Code == "hope.wider" && warned.Figures["widthMm"] > 0:
				told++
				assert.InDelta(t, warned.Figures["widthMm"], h.Mm, 0, "%v mm", w)
				require.NotNil(t, warned.Remedy)
				assert.InDelta(t, h.Mm, warned.Remedy.Mm, 0, "%v mm", w)
			case h.Code == "hope.thicker" && warned.Code != "":
				assert.GreaterOrEqual(t, h.Mm, warned.Figures["thicknessMm"], "a plan may ask for more, never for less")
			}
		}
	}
	assert.Positive(t, told)
}
