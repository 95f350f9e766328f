package plan_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// at is the height and thickness of a shape at x mm from the point, within a
// zone; ok is false outside it.
func at(shape []plan.Station, zone string, x float64) (height, thickness float64, ok bool) {
	for i := 1; i < len(shape); i++ {
		a, b := shape[i-1], shape[i]
		if a.Zone != zone || b.Zone != zone || x < a.XMm || x > b.XMm || a.XMm == b.XMm {
			continue
		}
		f := (x - a.XMm) / (b.XMm - a.XMm)
		mix := func(p, q float64) float64 { return p + (q-p)*f }
		return mix(a.SpineY-a.EdgeY, b.SpineY-b.EdgeY), mix(a.ThicknessMm, b.ThicknessMm), true
	}
	return 0, 0, false
}

// TestTheLastHeatIsTheForgedShape within five hundredths of a millimetre, however
// it is forged: every target carried the scale that was still to come.
func TestTheLastHeatIsTheForgedShape(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := request()
		r.CellCount = 40
		r.Design.LengthMm = rapid.Float64Range(80, 140).Draw(t, "length")
		r.Bar.ThicknessMm = rapid.Float64Range(5.5, 8).Draw(t, "bar")
		r.Smith = r.Smith.WithSkill(rapid.SampledFrom(forge.Skills()).Draw(t, "skill"))
		r.Choices.Method = rapid.SampledFrom([]forge.Method{forge.PinchOut, forge.PushIn}).Draw(t, "method")
		r.Choices.First = rapid.SampledFrom([]plan.First{plan.PointFirst, plan.TangFirst}).Draw(t, "first")
		p := makePlan(t, r)
		last := p.Heats[p.Totals.Heats-1].Shape
		compared := 0
		for _, s := range last {
			h, k, ok := at(p.Drawing.Forged, s.Zone, s.XMm)
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
		r := request()
		r.Design.Grind.Kind = k
		r.Bar = flat(30, 6, 900)
		p := makePlan(t, r)
		assert.InDelta(t, 0, p.Bend.CurvaturePerMm, 1e-6, k)
		assert.Empty(t, stepOf(p, "preCurve").ID, k)
		assert.Positive(t, stepOf(p, "bevel").Blows, k)
		assert.Empty(t, warning(p, "warn.sweep").Code, k)
	}
}
