package route_test

import (
	"math"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fullOf is a piece with a full tang of a form, from a bar of this width.
func fullOf(f blade.TangForm, width float64) plan.Request {
	r := plantest.Request()
	r.Design.SetTang(blade.FullTang)
	if f != "" {
		r.Design.TangForm(f)
	}
	r.Bar = plantest.Flat(width, 6, 900)
	return r
}

// TestAFullTangIsForgedToItsOutline: widened where it is higher than the bar, drawn where it
// is lower, its line bent, and no shoulder set down where there is none.
func TestAFullTangIsForgedToItsOutline(t *testing.T) {
	ids := func(r plan.Request) string { return strings.Join(plantest.IDs(plantest.Make(t, r)), " ") }
	even := ids(fullOf(blade.EvenTang, 32))
	assert.NotContains(t, even, "setDown", "no step to the ricasso")
	assert.NotContains(t, even, "widenTang")
	assert.Contains(t, ids(fullOf(blade.HookedTang, 28)), "widenTang")
	assert.NotContains(t, ids(fullOf(blade.HookedTang, 60)), "widenTang", "the bar is wider than its butt")
	assert.Contains(t, ids(fullOf(blade.DroppedTang, 40)), "tangCurve", "its line is bent")
	low := fullOf(blade.EvenTang, 32)
	low.Design.Tang.HeightAtShoulderMm = low.Design.Ricasso.HeightMm - 6
	assert.Contains(t, ids(low), "setDown", "a step is set down")

	r := fullOf(blade.HookedTang, 28)
	p := plantest.Make(t, r)
	last := p.Heats[p.Totals.Heats-1].Shape
	_, forged, _, err := figure.BodiesOf(r)
	require.NoError(t, err)
	most := 0.0
	for _, s := range plantest.OfTang(last) {
		most = math.Max(most, s.SpineY-s.EdgeY)
	}
	assert.InEpsilon(t, forged.Blade.Tang.HighestMm(0, 1e3), most, .03, "it is drawn as it comes out")
}

// TestABarIsAsLongAsItsFullTangAsks: what the bar gives is the volume of the solid that is
// exported, its ends and what burns off, for every kind of tang.
func TestABarIsAsLongAsItsFullTangAsks(t *testing.T) {
	check := func(name string, r plan.Request) {
		p := plantest.Make(t, r)
		_, forged, _, err := figure.BodiesOf(r)
		require.NoError(t, err, name)
		solid := forged.BentMesh(r.Design.TangKind).VolumeMm3()
		trim, kerf := r.EndsMm()
		net := p.Bar.StartMm3 - (trim+kerf)*p.Bar.AreaMm2
		for _, l := range p.Ledger {
			switch l.Code {
			case "ledger.scale", "ledger.thumb", "ledger.spare":
				net -= l.VolumeMm3
			case "ledger.rod":
				net += l.VolumeMm3
			}
		}
		assert.InEpsilon(t, solid, net, 1e-3, name)
	}
	for _, k := range blade.TangKinds() {
		r := plantest.Request()
		r.Design.SetTang(k)
		check(string(k), r)
	}
	for _, f := range blade.TangForms() {
		check(string(f), fullOf(f, 32))
	}
	r := fullOf("", 32)
	r.Design.FitHand(88, 188)
	check("by a grip", r)
}

// TestNotchesInATangAreDrivenInOrCutLater, and their steel is then in the bar or not.
func TestNotchesInATangAreDrivenInOrCutLater(t *testing.T) {
	cut := fullOf(blade.NotchedTang, 32)
	driven := cut
	driven.Choices.Notch = plan.NotchForged
	a, b := plantest.Make(t, cut), plantest.Make(t, driven)
	assert.NotContains(t, plantest.IDs(a), "notch")
	require.Contains(t, plantest.IDs(b), "notch")
	notch := plantest.StepOf(b, "notch")
	assert.Equal(t, []string{plan.ZoneTang}, notch.Zones)
	assert.Greater(t, notch.Hammer().Strokes, 5.0)
	assert.Greater(t, a.Forged.Zones["tang"], b.Forged.Zones["tang"]*1.01)
	lowest := func(p *plan.Plan, op string) (least float64) {
		least = 1e3
		tang := plantest.OfTang(plantest.After(t, p, op))
		for _, s := range tang[:len(tang)/2] {
			least = math.Min(least, s.SpineY-s.EdgeY)
		}
		return least
	}
	assert.Less(t, lowest(b, "notch"), lowest(a, "ricasso")-2, "what is cut later is not there yet")
}
