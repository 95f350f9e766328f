package figure_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/section"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestTheLastHeatIsTheForgedShape within five hundredths of a millimetre, however
// it is forged: every target carried the scale that was still to come.
func TestTheLastHeatIsTheForgedShape(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := plantest.Request()
		r.CellCount = 40
		r.Design.LengthMm = rapid.Float64Range(80, 140).Draw(t, "length")
		r.Bar.ThicknessMm = rapid.Float64Range(5.5, 8).Draw(t, "bar")
		r.Smith = r.Smith.WithSkill(rapid.SampledFrom(forge.Skills()).Draw(t, "skill"))
		r.Choices.Method = rapid.SampledFrom([]forge.Method{forge.PinchOut, forge.PushIn}).Draw(t, "method")
		r.Choices.First = rapid.SampledFrom([]plan.First{plan.PointFirst, plan.TangFirst}).Draw(t, "first")
		p := plantest.Make(t, r)
		last := p.Heats[p.Totals.Heats-1].Shape
		compared := 0
		for _, s := range last {
			h, k, ok := plantest.At(p.Drawing.Forged, s.Zone, s.XMm)
			if !ok || s.Zone == plan.ZonePoint { // the point runs out to nothing
				continue
			}
			compared++
			require.InDelta(t, h, s.SpineY-s.EdgeY, .05, "height %v mm from the point, %s", s.XMm, s.Zone)
			require.InDelta(t, k, s.ThicknessMm, .05, "thickness %v mm from the point, %s", s.XMm, s.Zone)
		}
		require.Greater(t, compared, 30)
	})
}

// TestTwoEdgesDoNotSweep: bevelled alike on both, a blade stays straight, and is
// not curved before.
func TestTwoEdgesDoNotSweep(t *testing.T) {
	for _, k := range []section.Kind{section.Diamond, section.Lens} {
		r := plantest.Request()
		r.Design.Grind.Kind = k
		r.Bar = plantest.Flat(30, 6, 900)
		p := plantest.Make(t, r)
		assert.InDelta(t, 0, p.Bend.CurvaturePerMm, 1e-6, k)
		assert.Empty(t, plantest.StepOf(p, "preCurve").ID, k)
		assert.Positive(t, plantest.StepOf(p, "bevel").Hammer().Blows, k)
		assert.Empty(t, plantest.Warning(p, "warn.sweep").Code, k)
	}
}

// TestTheBladeRunsIntoItsRicasso: where the ricasso is left at its bar, a little thicker than the blade at the heel, there is no
// step between them in the drawing, in the round, or in the plan; a shoulder that is asked for stays.
func TestTheBladeRunsIntoItsRicasso(t *testing.T) {
	ran, steps, higher := 0, 0, 0
	for _, s := range blade.Starters() {
		if s.Design.Ricasso.LengthMm == 0 {
			continue
		}
		for _, thick := range []float64{3.5, 4, 4.5, 5, 5.5, 6, 7, 8} {
			req := plan.NewRequest(s.Design, "1084", stock.Item{Form: stock.Flat, WidthMm: 40, ThicknessMm: thick, LengthMm: 1000}, forge.Steady)
			bar, err := req.Bar.Even()
			require.NoError(t, err)
			b, err := blade.New(figure.ForgedShape(req, s.Design.Blade(), bar))
			if err != nil || b.Blade.Ricasso == nil {
				continue
			}
			heel := b.SectionAt(b.LengthMm() - 1e-6).SpineMm
			over := b.Blade.Ricasso.ThicknessMm - heel
			if over < -.01 {
				continue // the bar is too thin for this blade, and the plan says so
			}
			if over > .6 {
				steps++
				continue
			}
			if b.SectionAt(b.LengthMm()).HeightMm > bar.WidthMm {
				higher++ // spread as far as the steel goes: what is left of a step is what it cannot fill
				continue
			}
			assert.LessOrEqual(t, over, .01, "%s from %g", s.ID, thick)
			ran++
			var last *plan.Station
			for _, st := range figure.Drawn(b, b, figure.ZonesOf(b)).Forged {
				if last != nil && last.Zone != st.Zone && st.Zone == plan.ZoneRicasso {
					assert.InDelta(t, last.ThicknessMm, st.ThicknessMm, .02, "%s from %g, drawn", s.ID, thick)
				}
				last = &st
			}
		}
	}
	assert.Greater(t, ran, 40)
	assert.Greater(t, steps, 10)
	assert.Greater(t, higher, 5)
}
