package planner_test

import (
	"context"
	"errors"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/section"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// anyBlade draws a blade of any kind: every outline, grind, tang and form, with what else a
// blade may have.
func anyBlade(rng *rand.Rand) blade.Design {
	in := func(low, high float64) float64 { return low + (high-low)*rng.Float64() }
	some := func() bool { return rng.IntN(3) == 0 }
	starters := blade.Starters()
	d := starters[rng.IntN(len(starters))].Design.Scaled(in(.8, 1.25), in(.85, 1.15), in(.85, 1.15))
	d.Shape = blade.Shapes()[rng.IntN(len(blade.Shapes()))]
	d.Grind.Kind, d.Grind.Groove, d.Grind.WheelRadiusMm = section.Kinds()[rng.IntN(len(section.Kinds()))], nil, 400
	if rng.IntN(2) == 0 {
		d.Grind.BevelSide = blade.LeftBevel
	}
	d.Grind.PlungeMm = in(0, 8)
	if some() {
		d.Grind.SwedgeFraction, d.Grind.SwedgeEdgeMm, d.Grind.SwedgeLongMm = in(.1, .4), 1, d.LengthMm*in(.2, .9)
	}
	if some() {
		d.ChoilMm = in(1, 4)
	}
	if some() {
		d.Ricasso.NotchMm = in(1, math.Min(d.Ricasso.LengthMm, d.Ricasso.HeightMm)/2)
	}
	if some() {
		d.Ricasso.RiseMm = in(0, 3)
	}
	d.SetTang(blade.TangKinds()[rng.IntN(len(blade.TangKinds()))])
	switch {
	case d.TangKind == blade.FullTang && rng.IntN(2) == 0:
		d.TangForm(blade.TangForms()[rng.IntN(len(blade.TangForms()))])
	case d.TangKind == blade.FullTang && some():
		d.FitHand(in(75, 105), in(160, 215))
	case d.TangKind.Bare():
		d.Tang.CurveMm, d.Tang.TwistTurns = in(0, 6), in(0, 3)
	}
	if some() {
		d.AddHole()
		for i := range d.Tang.Holes {
			if some() {
				d.Tang.Holes[i].Made = blade.Punched
			}
		}
	}
	if some() {
		d.AddSlot()
	}
	if d.FlatBend = nil; some() && d.LengthMm < 200 {
		d.FlatBend = blade.NewFlatBend(d)
		d.FlatBend.AxisDeg, d.FlatBend.LongMm = in(80, 100), d.LengthMm*in(.2, .5)
		d.FlatBend.RadiusMm = math.Max(d.FlatBend.LongMm, 6*d.SpineMm)
	}
	return d
}

// TestAnyBladeIsOneShape: sections added up, solid and plan have one volume, to a thousandth;
// marks and ledger close to a millionth; drawing and solid lie in the same box; and what
// crosses itself is refused. Thirty blades with every run, three hundred with LONG=1.
func TestAnyBladeIsOneShape(t *testing.T) {
	planned := 0
	for i := range draws(300) {
		rng := rand.New(rand.NewPCG(uint64(i), 77)) //nolint:gosec // the same with every run
		d := anyBlade(rng)
		r := plan.NewRequest(d, steel.Grades()[5].ID, plantest.Flat(60, math.Ceil(d.Ricasso.ThicknessMm)+4, 2000), "steady")
		r.CellCount = 40
		p, err := planner.Make(context.Background(), r)
		var fe fact.FieldErrors
		if errors.As(err, &fe) {
			continue // said where, and why
		}
		require.NoError(t, err, i)
		planned++
		fin, fog, _, err := figure.BodiesOf(r)
		require.NoError(t, err, i)
		for _, b := range []*blade.Body{fin, fog} {
			zones := figure.ZonesOf(b)
			sum, n := 0.0, 6000
			for k := range n {
				if s, ok := figure.SliceAt(b, zones, b.OverallMm()*(float64(k)+.5)/float64(n)); ok {
					sum += s.AreaMm2 * b.OverallMm() / float64(n)
				}
			}
			for _, h := range b.Blade.Tang.Holes {
				_, thick := b.Blade.Tang.At(h.AtMm)
				sum -= h.AreaMm2() * thick
			}
			whole := b.Measure().VolumeMm3
			assert.InEpsilon(t, sum, whole, 1e-3, "%d: sections", i)
			assert.InEpsilon(t, whole, b.Mesh().VolumeMm3(), 1e-3, "%d: solid", i)
			assert.InEpsilon(t, whole, b.BentMesh(d.TangKind).VolumeMm3(), 1e-3, "%d: solid as it is bent", i)
		}
		cells := 0.0
		for _, v := range p.ForgedZones {
			cells += v
		}
		assert.InEpsilon(t, fog.Measure().VolumeMm3, cells, 1e-3, "%d: the plan", i)
		assert.NoError(t, sound(p, r), "%d", i)
		for k := 1; k < len(p.Bar.Marks); k++ {
			assert.InDelta(t, p.Bar.Marks[k-1].ToMm, p.Bar.Marks[k].FromMm, 1e-6*p.Bar.CutLengthMm, "%d", i)
		}
		trim, kerf := r.EndsMm()
		assert.InDelta(t, p.Bar.CutLengthMm, p.Bar.Marks[len(p.Bar.Marks)-1].ToMm+trim+kerf, 1e-6*p.Bar.CutLengthMm, "%d", i)

		var low, high, drawnLow, drawnHigh float64
		for _, v := range fin.Mesh().Vertices {
			low, high = math.Min(low, v[1]-fin.SpineY(fin.LengthMm())), math.Max(high, v[1]-fin.SpineY(fin.LengthMm()))
		}
		for _, s := range figure.Drawn(fin, fog, figure.ZonesOf(fog)).Finished {
			y := fin.SpineY(fin.LengthMm())
			drawnLow, drawnHigh = math.Min(drawnLow, s.EdgeY-y), math.Max(drawnHigh, s.SpineY-y)
		}
		assert.InDelta(t, low, drawnLow, .6, "%d: drawing and solid", i)
		assert.InDelta(t, high, drawnHigh, .6, "%d: drawing and solid", i)
	}
	assert.Greater(t, planned, draws(300)/2, "most of them can be made")
}
