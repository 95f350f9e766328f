package section_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestAreasMatchClosedForms holds the quadrature against integrals done by hand.
func TestAreasMatchClosedForms(t *testing.T) {
	const h, ts, te, hb, r = 30.0, 4.0, 0.6, 18.0, 120.0
	segment := func(b float64) float64 { // area between a chord of length b and its arc
		half := math.Asin(b / 2 / r)
		return r * r * (2*half - math.Sin(2*half)) / 2
	}
	for name, c := range map[string]struct {
		s    section.Section
		area float64
	}{
		"rect":     {section.Section{Kind: section.Rect}, h * ts},
		"full":     {section.Section{Kind: section.Flat}, h * (ts + te) / 2},
		"chisel":   {section.Section{Kind: section.Chisel}, h * (ts + te) / 2},
		"part":     {section.Section{Kind: section.Flat, BevelHeightMm: hb}, hb*(ts+te)/2 + (h-hb)*ts},
		"convex":   {section.Section{Kind: section.Convex}, h * (te + (ts-te)*2/3)},
		"diamond":  {section.Section{Kind: section.Diamond}, h * (ts + te) / 2},
		"lens":     {section.Section{Kind: section.Lens}, h * (te + (ts-te)*2/3)},
		"hollow":   {section.Section{Kind: section.Hollow, WheelRadiusMm: r}, h*(ts+te)/2 - 2*segment(h)},
		"hollow b": {section.Section{Kind: section.Hollow, WheelRadiusMm: r, BevelHeightMm: hb}, hb*(ts+te)/2 - 2*segment(hb) + (h-hb)*ts},
		// a rectangle whose top 6 mm tapers to 1 mm
		"false edge": {section.Section{Kind: section.Rect, SwedgeHeightMm: 6, SwedgeEdgeMm: 1}, (h-6)*ts + 6*(ts+1)/2},
	} {
		c.s.HeightMm, c.s.SpineMm = h, ts
		if c.s.Kind != section.Rect {
			c.s.EdgeMm = te
		}
		require.NoError(t, c.s.Validate(), name)
		assert.InEpsilon(t, c.area, c.s.AreaMm2(), 1e-6, name)
	}
}

func TestMomentsOfARectangle(t *testing.T) {
	p := section.Section{Kind: section.Rect, HeightMm: 20, SpineMm: 4}.Properties()
	assert.InDelta(t, 10, p.CentroidMm, 1e-9)
	assert.InEpsilon(t, 4*20*20*20/12.0, p.EdgewiseMm4, 1e-9)
	assert.InEpsilon(t, 20*4*4*4/12.0, p.FlatwiseMm4, 1e-9)
	assert.InDelta(t, 4, p.LargestThickMm, 1e-9)
}

func TestImpossibleSectionsNameTheFieldAndTheLimit(t *testing.T) {
	for code, s := range map[string]section.Section{
		"section.height":        {Kind: section.Flat, SpineMm: 3},
		"section.spine":         {Kind: section.Flat, HeightMm: 20},
		"section.edge":          {Kind: section.Flat, HeightMm: 20, SpineMm: 3, EdgeMm: -1},
		"section.wheelTooSmall": {Kind: section.Hollow, HeightMm: 30, SpineMm: 4, EdgeMm: .5, WheelRadiusMm: 10},
		"section.facesCross":    {Kind: section.Hollow, HeightMm: 30, SpineMm: 2, EdgeMm: .2, WheelRadiusMm: 20},
	} {
		err := s.Validate()
		var se *section.Error
		require.True(t, errors.As(err, &se), code)
		assert.Equal(t, code, se.Code)
		assert.NotEmpty(t, se.Field)
	}
}

func drawSection(t *rapid.T) section.Section {
	return section.Section{
		Kind:     rapid.SampledFrom(section.Kinds()).Draw(t, "kind"),
		HeightMm: rapid.Float64Range(8, 80).Draw(t, "height"), SpineMm: rapid.Float64Range(2, 9).Draw(t, "spine"),
		EdgeMm: rapid.Float64Range(0.2, 1.9).Draw(t, "edge"), WheelRadiusMm: rapid.Float64Range(400, 2000).Draw(t, "wheel"),
	}
}

func TestEverySectionLiesWithinItsRectangle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawSection(t)
		if s.Validate() != nil {
			t.Skip("faces cross")
		}
		p := s.Properties()
		if p.AreaMm2 <= 0 || p.AreaMm2 > s.HeightMm*s.SpineMm*(1+1e-9) {
			t.Fatalf("area %v of %+v", p.AreaMm2, s)
		}
		if p.CentroidMm <= 0 || p.CentroidMm >= s.HeightMm {
			t.Fatalf("centroid %v of %+v", p.CentroidMm, s)
		}
		for i := range 20 {
			if v := s.ThicknessAt(s.HeightMm * float64(i) / 19); v < -1e-9 || v > s.SpineMm+1e-9 {
				t.Fatalf("thickness %v of %+v", v, s)
			}
		}
	})
}

func TestConvexHoldsMoreThanFlatHoldsMoreThanHollow(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawSection(t)
		area := func(k section.Kind) float64 { s.Kind = k; return s.AreaMm2() }
		c, f, h := area(section.Convex), area(section.Flat), area(section.Hollow)
		if !(c > f && f > h) {
			t.Fatalf("convex %v flat %v hollow %v", c, f, h)
		}
	})
}

func TestGroovesTakeTheirCircles(t *testing.T) {
	plain := section.Section{Kind: section.Rect, HeightMm: 30, SpineMm: 5}
	const c, d = 8.0, 0.8
	r := (c*c/4 + d*d) / (2 * d)
	half := math.Asin(c / 2 / r)
	circle := r * r * (2*half - math.Sin(2*half)) / 2
	both := plain
	both.Grooves = []section.Groove{{LowMm: 12, HighMm: 20, DepthMm: d}}
	require.NoError(t, both.Validate())
	assert.InEpsilon(t, plain.AreaMm2()-2*circle, both.AreaMm2(), 1e-7)
	assert.InDelta(t, 5-2*d, both.ThicknessAt(16), 1e-9)
	back := both
	back.Grooves = []section.Groove{{LowMm: 12, HighMm: 20, DepthMm: d, OneFace: true}}
	assert.InEpsilon(t, plain.AreaMm2()-circle, back.AreaMm2(), 1e-7)
	for code, g := range map[string]section.Groove{
		"section.groovePlace": {LowMm: 0, HighMm: 8, DepthMm: .5},
		"section.grooveDepth": {LowMm: 12, HighMm: 20, DepthMm: 2.6},
	} {
		bad := plain
		bad.Grooves = []section.Groove{g}
		var se *section.Error
		require.True(t, errors.As(bad.Validate(), &se))
		assert.Equal(t, code, se.Code)
		assert.Positive(t, se.LimitMm)
	}
}

func TestEdgeAngleOfAWedge(t *testing.T) {
	s := section.Section{Kind: section.Flat, HeightMm: 30, SpineMm: 3.5, EdgeMm: .5}
	assert.InDelta(t, 2*math.Atan(3./30/2)*180/math.Pi, s.EdgeAngleDeg(), 1e-9)
	thick := s
	thick.SpineMm = 5
	assert.Greater(t, thick.EdgeAngleDeg(), s.EdgeAngleDeg())
}
