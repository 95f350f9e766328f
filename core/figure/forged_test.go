package figure_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/section"

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
