package route_test

import (
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestARodThatStaysIsNotOfTheBar: the bar is shorter by what the rod gives to the
// tang, which is drawn only as far as the seam.
func TestARodThatStaysIsNotOfTheBar(t *testing.T) {
	r := plantest.Request()
	r.Choices.Holding = plan.WeldedRod
	whole := plantest.Make(t, r)
	assert.Zero(t, whole.Bar.RodMm3, "a rod that is cut off again")
	r.Design.Tang.WeldAtMm = 40
	p := plantest.Make(t, r)
	assert.InDelta(t, r.Design.Tang.LengthMm-40, p.Bar.RodMm, 1e-9)
	assert.InEpsilon(t, whole.Forged.VolumeMm3, p.Forged.VolumeMm3, 1e-9, "the same blade")
	assert.InEpsilon(t, whole.Bar.CutLengthMm-p.Bar.RodMm3/p.Bar.AreaMm2, p.Bar.CutLengthMm, .02)
	assert.Less(t, plantest.StepOf(p, "tang").Hammer().Blows, plantest.StepOf(whole, "tang").Hammer().Blows)
	burnt := 0.0
	for _, h := range p.Heats[:p.Totals.Heats] {
		burnt += h.ScaleMm3
	}
	ends := (r.Sizing.TrimMm + r.Sizing.KerfMm) * p.Bar.AreaMm2
	require.InEpsilon(t, p.Bar.StartMm3, p.Forged.VolumeMm3-p.Bar.RodMm3+burnt+ends, 3e-3, "and what the rod itself scales")

	assert.InDelta(t, p.Bar.LossFraction, p.Bar.ScaleShare, 1e-4, "the loss is the bar's: what the rod scales, no bar has to give")

	sum := 0.0
	for _, l := range p.Ledger {
		if !l.Total || l.Code == "ledger.finished" {
			sum += l.VolumeMm3
		}
	}
	assert.InEpsilon(t, p.Bar.StartMm3, sum, 1e-9, "the ledger adds up to the bar")
	require.Len(t, p.Prep, 1)
	assert.Equal(t, "prep.weldTang", p.Prep[0].Code)
	assert.InDelta(t, p.Bar.RodMm, p.Prep[0].Figures["lengthMm"], 1e-9)

	last := p.Heats[p.Totals.Heats-1].Shape
	for _, s := range last {
		if h, k, ok := plantest.At(p.Drawing.Forged, s.Zone, s.XMm); ok && s.Zone == plan.ZoneTang {
			assert.InDelta(t, h, s.SpineY-s.EdgeY, .05)
			assert.InDelta(t, k, s.ThicknessMm, .05)
		}
	}
	r.CellCount = 120
	assert.InEpsilon(t, p.Bar.CutLengthMm, plantest.Make(t, r).Bar.CutLengthMm, .01, "however finely it is cut")
	r.Choices.Holding = plan.WholeBar
	assert.Zero(t, plantest.Make(t, r).Bar.RodMm3, "no rod, no seam")
}

// TestARodIsWeldedOnInTheFire where that is wished: the first heat of all, over bar
// and rod beside the seam, at a welding heat.
func TestARodIsWeldedOnInTheFire(t *testing.T) {
	r := plantest.Request()
	r.Choices.Holding, r.Choices.RodWeld = plan.WeldedRod, plan.InTheFire
	for _, at := range []float64{0, 40} {
		r.Design.Tang.WeldAtMm = at
		p := plantest.Make(t, r)
		st := p.Operations[0]
		require.Equal(t, "weldOn", st.ID)
		assert.Equal(t, []string{plan.ZoneTang}, st.Zones)
		assert.Contains(t, st.CautionCodes, "caution.flux")
		assert.GreaterOrEqual(t, st.Hammer().Strokes, 2.0)
		assert.InDelta(t, st.Hammer().Strokes, st.Hammer().Blows, .01)
		assert.Equal(t, "weldOn", p.Heats[0].Parts[0].Operation)
		assert.Equal(t, "need.rodFirst", plantest.StepOf(p, "corners").BecauseCode)
		assert.Contains(t, p.Prep[0].Code, "Fire")
		h := p.Heats[0]
		seam := p.Bar.CutLengthMm - r.Sizing.TrimMm - r.Sizing.KerfMm
		assert.LessOrEqual(t, h.HotFrom, seam-10, "the bar's end")
		assert.Less(t, h.HotTo-h.HotFrom, 90.0, "no more than the lap")
	}
	r.Choices.RodWeld = plan.ByArc
	assert.Empty(t, plantest.StepOf(plantest.Make(t, r), "weldOn").ID)
}
