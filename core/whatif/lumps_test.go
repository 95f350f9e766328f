package whatif_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// lump draws a piece of salvage of any form.
func lump(t *rapid.T) stock.Item {
	f := func(lo, hi float64, name string) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) }
	forms := []stock.Form{stock.Ball, stock.Roller, stock.TaperedRound, stock.TaperedFlat, stock.Coil, stock.Leaf, stock.Race, stock.Disc, stock.Cable, stock.Chain, stock.Layers}
	p := stock.Usual(rapid.SampledFrom(forms).Draw(t, "form"))
	k := f(.7, 1.4, "size")
	for _, v := range []*float64{
		&p.WidthMm, &p.ThicknessMm, &p.DiameterMm, &p.LengthMm, &p.StartDiameterMm, &p.EndDiameterMm, &p.StartWidthMm, &p.EndWidthMm, &p.StartThicknessMm,
		&p.EndThicknessMm, &p.WireDiameterMm, &p.MeanDiameterMm, &p.PitchMm, &p.ChordMm, &p.RiseMm, &p.OuterDiameterMm, &p.InnerDiameterMm, &p.StripWidthMm, &p.LinkLengthMm, &p.LinkWidthMm,
	} {
		*v *= k
	}
	return p
}

// TestAnyLumpKeepsItsVolume: what goes in is the forged shape, what burns off,
// trim and kerf; marks run in order to the length that is cut, on the piece and
// OnSalvage the bar that comes of it.
func TestAnyLumpKeepsItsVolume(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := plantest.OnSalvage(lump(t))
		r.CellCount = 14
		r.Smith = forge.NewSmith(rapid.SampledFrom(forge.Skills()).Draw(t, "skill"))
		p, err := planner.Make(context.Background(), r)
		var fe fact.FieldErrors
		if errors.As(err, &fe) { // too small to move or to become it: said by name
			require.NotEmpty(t, fe[0].Field)
			return
		}
		require.NoError(t, err)
		start, err := r.Bar.Even()
		require.NoError(t, err)
		burnt := 0.0
		for _, h := range p.Heats {
			if !strings.HasPrefix(h.Parts[0].Operation, "cycle") {
				burnt += h.ScaleMm3
			}
		}
		trim, kerf := r.EndsMm()
		whole := r.Bar.Form == stock.Ball || r.Bar.Form == stock.Roller
		require.Equal(t, whole, trim == 0 && kerf == 0, "nothing is cut where nothing is left")
		require.Equal(t, whole || r.Choices.Holding == plan.Tongs, plantest.StepOf(p, "cutOff").ID == "")
		for _, l := range p.Ledger {
			require.False(t, whole && (l.Code == "ledger.trim" || l.Code == "ledger.kerf"))
		}
		ends := (trim + kerf) * start.AreaMm2
		// where loss and length cycle, the longer bar is taken, and it is said where
		// it is more than a tenth of a millimetre
		unsettled := max(.1, plantest.Warning(p, "warn.unsettled").Figures["byMm"]) / p.Bar.CutLengthMm
		require.InEpsilon(t, p.Bar.StartMm3, p.Forged.VolumeMm3+burnt+ends, 2e-3+unsettled)
		for name, marks := range map[string][]plan.Mark{"piece": p.Bar.Marks, "bar": downMarks(p)} {
			x := 0.0
			for _, m := range marks {
				require.InDelta(t, x, m.FromMm, 1e-6, name)
				require.Greater(t, m.ToMm, m.FromMm, name)
				x = m.ToMm
			}
		}
		require.InDelta(t, p.Bar.AvailableMm-p.Bar.CutLengthMm, p.Bar.LeftMm, 1e-9)
	})
}

func downMarks(p *plan.Plan) []plan.Mark {
	if p.Bar.Down == nil {
		return nil
	}
	return p.Bar.Down.Marks
}

// TestPrepTellsWhatTheFormAsksFor, and nothing for a plain bar.
func TestPrepTellsWhatTheFormAsksFor(t *testing.T) {
	plain := plantest.Request()
	assert.Empty(t, plantest.Make(t, plain).Prep)
	plain.Choices.Holding = plan.WeldedRod
	p := plantest.Make(t, plain)
	require.Len(t, p.Prep, 1)
	assert.Equal(t, "prep.weldRod", p.Prep[0].Code)
	assert.Equal(t, []string{"caution.welding"}, p.Prep[0].CautionCodes)
	assert.Equal(t, "warn.rodWeld", plantest.Warning(p, "warn.rodWeld").Code, "where does the weld lie")
	plain.Design.Tang.WeldAtMm = 60
	assert.Empty(t, plantest.Warning(plantest.Make(t, plain), "warn.rodWeld").Code)
	dead := plantest.Request()
	dead.Bar.Dead = []stock.Dead{{FromMm: 100, ToMm: 130, Why: "hole"}}
	p = plantest.Make(t, dead)
	require.Len(t, p.Prep, 1)
	assert.Equal(t, "prep.cutOut", p.Prep[0].Code)
	assert.InDelta(t, 130, p.Bar.FromMm, 1e-9, "it is cut behind the hole")
	file := plantest.OnSalvage(stock.Item{Form: stock.TaperedFlat, StartWidthMm: 30, EndWidthMm: 30, StartThicknessMm: 7, EndThicknessMm: 7, LengthMm: 250, TeethMm: .5})
	p = plantest.Make(t, file)
	last := p.Ledger[len(p.Ledger)-1]
	require.Equal(t, "ledger.prep", last.Code)
	assert.InEpsilon(t, 30*1*p.Bar.CutLengthMm, last.VolumeMm3, 1e-6, "the teeth of as much as is cut")
}

// TestScreeningNeverPromisesWhatAPlanForbids: a candidate that is planned has no
// obstacle, one that is screened out has one in its whole plan too.
func TestScreeningNeverPromisesWhatAPlanForbids(t *testing.T) {
	r := plantest.Request()
	out, err := whatif.Rank(context.Background(), r, rack(24))
	require.NoError(t, err)
	list := map[string]whatif.Candidate{}
	for _, c := range rack(24) {
		list[c.ID] = c
	}
	for _, x := range out {
		whole := r
		c := list[x.ID]
		whole.Bar, whole.SteelID, whole.Origin = c.Piece, c.SteelID, c.Origin
		p, err := planner.Make(context.Background(), whole)
		if err != nil {
			assert.False(t, x.Feasible, x.ID)
			continue
		}
		if x.Planned {
			assert.Empty(t, p.Obstacle().Code, x.ID)
		}
	}
}

func TestAScaledPatternKeepsItsParts(t *testing.T) {
	d := plantest.Starter("utility")
	require.True(t, d.AddTaperNode(50))
	d.Grind.PlungeMm, d.Grind.PointEdgeMm, d.Ricasso.NotchMm, d.Tang.WeldAtMm = 8, .8, 4, 60
	require.True(t, d.AddHole())
	d.Handle = blade.NewHandle(d)
	s := d.Scaled(2, 1.5, .8)
	assert.InDelta(t, 16, s.Grind.PlungeMm, 1e-9)
	assert.InDelta(t, .64, s.Grind.PointEdgeMm, 1e-9)
	assert.InDelta(t, 6, s.Ricasso.NotchMm, 1e-9)
	assert.InDelta(t, 120, s.Tang.WeldAtMm, 1e-9)
	assert.InDelta(t, d.TaperNodes[0].AtFraction, s.TaperNodes[0].AtFraction, 1e-12)
	assert.InDelta(t, d.TaperNodes[0].ThicknessMm*.8, s.TaperNodes[0].ThicknessMm, 1e-12)
	assert.InDelta(t, d.Tang.Holes[0].AtMm*2, s.Tang.Holes[0].AtMm, 1e-9)
	assert.Equal(t, d.Handle, s.Handle, "the hand does not grow")
	assert.InDelta(t, 50, d.TaperNodes[0].AtFraction*d.LengthMm, 1e-9, "and the pattern itself stays")
}
