package finish_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/harden"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// work is a starter as forged, with what was found at the grinder.
func work(t testing.TB, d blade.Design, c finish.Choices) *finish.Work {
	s := steelOf(t, d, blade.ThickAndGrind.Allowances())
	s.Readings, s.KeepsFlats = c.Readings, c.SurfaceOf(false) == finish.AsForged
	left := harden.Left{EdgeMm: 1, FaceMm: c.LeftForAfterMm(false)}
	if c.Hardened {
		s.Ground = &finish.Ground{Body: s.Finished, Left: left}
		left.AsItIs = true
	}
	return &finish.Work{Design: d, Steel: *s, Choices: c, QuenchEdgeMm: 1, Left: left, TemperC: 200, HandleHides: true}
}

func hidden(t testing.TB) blade.Design {
	for _, s := range blade.Starters() {
		if s.Design.TangKind == blade.HiddenTang && s.Design.FlatBend == nil && !s.Design.Grind.Kind.OneSided() {
			return s.Design
		}
	}
	t.Fatal("no starter with a hidden tang")
	return blade.Design{}
}

// TestAnotherPlanForAPittedBlade: a pit deeper than the allowance is told, and what is offered
// holds; one that comes out leaves the plan as it was.
func TestAnotherPlanForAPittedBlade(t *testing.T) {
	d := hidden(t)
	clean := work(t, d, finish.Choices{})
	m := clean.Steel.Off(40, 9, []finish.Pit{{XMm: d.LengthMm * .6, YMm: d.HeightMm * .7, Face: finish.Back, DepthMm: .2}})
	require.Len(t, m.Pits, 1)
	allowance := m.Pits[0].AllowanceMm
	assert.Positive(t, allowance)
	assert.InDelta(t, allowance-.2, m.Pits[0].LeftMm, 1e-12)
	assert.Nil(t, m.Short)
	w := work(t, d, finish.Choices{Pits: []finish.Pit{{XMm: d.LengthMm * .6, YMm: d.HeightMm * .7, Face: finish.Back, DepthMm: allowance + .3}}})
	ways := finish.Still(w, nil)
	require.Greater(t, len(ways), 2)
	kinds := map[string]finish.Way{}
	for i, way := range ways {
		kinds[way.What] = way
		if i > 0 {
			assert.GreaterOrEqual(t, way.GivenUp, ways[i-1].GivenUp, "by how little is given up")
		}
	}
	assert.NotContains(t, kinds, "asPlanned")
	require.Contains(t, kinds, "thinner")
	thin := kinds["thinner"]
	is, err := blade.New(thin.Design.Blade())
	require.NoError(t, err)
	here := func(b *blade.Body) float64 { s := b.SectionAt(d.LengthMm * .6); return s.ThicknessAt(d.HeightMm * .7) }
	assert.InDelta(t, .35, (here(w.Steel.Finished)-here(is))/2, .05, "there by what the pit is too deep, to the next step")
	assert.Less(t, thin.MassG, work(t, d, finish.Choices{}).Steel.Finished.Assemble(d).MassG)
	assert.Equal(t, "reforge", ways[len(ways)-1].What)
	assert.True(t, ways[len(ways)-1].Heat)
	w.Choices.Pits[0].DepthMm = allowance - .05
	ways = finish.Still(w, nil)
	require.Len(t, ways, 1)
	assert.Equal(t, "asPlanned", ways[0].What)
}

// TestNothingIsOfferedThatDoesNotFit: whatever was measured, each way holds by the readings and
// pits as they are, looked at here and not by the code that made it.
func TestNothingIsOfferedThatDoesNotFit(t *testing.T) {
	starters := blade.Starters()
	rapid.Check(t, func(rt *rapid.T) {
		d := rapid.SampledFrom(starters).Draw(rt, "starter").Design
		if d.FlatBend != nil {
			rt.Skip("bent flatwise it is measured flat")
		}
		base := work(t, d, finish.Choices{})
		var c finish.Choices
		for range rapid.IntRange(0, 3).Draw(rt, "readings") {
			x := d.LengthMm * rapid.Float64Range(.1, .95).Draw(rt, "x")
			h := base.Steel.Finished.SectionAt(x).HeightMm
			y := h * rapid.Float64Range(.3, 1).Draw(rt, "y")
			is, _, ok := base.Steel.AsIs(x, y)
			if !ok {
				continue
			}
			c.Readings = append(c.Readings, finish.Reading{XMm: x, YMm: y, ThicknessMm: is * rapid.Float64Range(.6, 1.1).Draw(rt, "share")})
		}
		for range rapid.IntRange(0, 2).Draw(rt, "pits") {
			x := d.LengthMm * rapid.Float64Range(.1, .95).Draw(rt, "px")
			c.Pits = append(c.Pits, finish.Pit{
				XMm: x, YMm: base.Steel.Finished.SectionAt(x).HeightMm * rapid.Float64Range(.2, .95).Draw(rt, "py"),
				Face: rapid.SampledFrom([]finish.Face{finish.Front, finish.Back}).Draw(rt, "face"), DepthMm: rapid.Float64Range(.05, 1.2).Draw(rt, "deep"),
			})
		}
		w := work(t, d, c)
		for _, way := range finish.Still(w, []finish.Other{{Name: "other", Design: starters[0].Design}}) {
			if way.Heat {
				continue
			}
			body, err := blade.New(way.Design.Blade())
			require.NoError(rt, err)
			for i, q := range way.Readings {
				assert.InDelta(rt, c.Readings[i].ThicknessMm, q.ThicknessMm, 0, "steel does not grow")
				if q.XMm < 0 || q.XMm > body.LengthMm() {
					continue
				}
				if sec := body.SectionAt(q.XMm); q.YMm >= 0 && q.YMm <= sec.HeightMm {
					assert.LessOrEqual(rt, sec.ThicknessAt(q.YMm), q.ThicknessMm+.041, "%s at %v", way.What, q)
				}
			}
			assert.LessOrEqual(rt, way.Design.LengthMm, d.LengthMm*1.05+1e-9)
			if way.What == "asPlanned" {
				for _, p := range base.Steel.Off(2, 2, c.Pits).Pits {
					if len(c.Readings) == 0 {
						assert.True(rt, p.Outside || p.LeftMm >= 0, "a pit deeper than the allowance is always told")
					}
				}
			}
		}
	})
}

// TestMoreSteelNeverOffersLess: the best way of a thicker blade gives up no more.
func TestMoreSteelNeverOffersLess(t *testing.T) {
	d := hidden(t)
	last := math.Inf(1)
	for _, share := range []float64{.7, .8, .9, 1, 1.1} {
		base := work(t, d, finish.Choices{})
		is, _, _ := base.Steel.AsIs(d.LengthMm/2, d.HeightMm*.8)
		w := work(t, d, finish.Choices{Readings: []finish.Reading{{XMm: d.LengthMm / 2, YMm: d.HeightMm * .8, ThicknessMm: is * share}}})
		best := finish.Still(w, nil)[0]
		assert.LessOrEqual(t, best.GivenUp, last+1e-9, "%v", share)
		last = best.GivenUp
	}
}
