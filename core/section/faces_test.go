package section_test

import (
	"math"
	"testing"

	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// TestFacesAreAsFarApartAsTheSectionIsThick, whatever its grind and grooves; the back of a
// blade ground on one side is flat but for the groove in it.
func TestFacesAreAsFarApartAsTheSectionIsThick(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := section.Section{
			Kind: rapid.SampledFrom(section.Kinds()).Draw(t, "kind"), HeightMm: 30, SpineMm: rapid.Float64Range(2, 6).Draw(t, "spine"), EdgeMm: .5, WheelRadiusMm: 300,
			BevelHeightMm: rapid.Float64Range(5, 30).Draw(t, "bevel"), SwedgeHeightMm: rapid.Float64Range(0, 8).Draw(t, "swedge"), SwedgeEdgeMm: 1,
		}
		if rapid.Bool().Draw(t, "groove") {
			s.Grooves = []section.Groove{{LowMm: 8, HighMm: 24, DepthMm: .3, OneFace: rapid.Bool().Draw(t, "back")}}
		}
		for y := 0.0; y <= 30; y += 1.5 {
			front, back := s.FacesAt(y)
			assert.InDelta(t, s.ThicknessAt(y), front-back, 1e-9)
			inBack := len(s.Grooves) > 0 && y > 8 && y < 24
			if s.Kind.OneSided() && !inBack {
				assert.InDelta(t, -s.SpineMm/2, back, 1e-9, "the back lies flat at %v", y)
			}
		}
		if s.Kind.OneSided() && len(s.Grooves) > 0 && s.Grooves[0].OneFace {
			_, back := s.FacesAt(16)
			assert.InDelta(t, .3-s.SpineMm/2, back, 1e-9, "the hollow is in the back")
		}
	})
}

// TestABevelIsSetByItsChord: closed forms of each kind.
func TestABevelIsSetByItsChord(t *testing.T) {
	s := section.Section{Kind: section.Flat, HeightMm: 30, SpineMm: 4, EdgeMm: 1, BevelHeightMm: 20}
	deg := func(rise, run float64) float64 { return math.Atan(rise/run) * 180 / math.Pi }
	a, h := s.Set()
	assert.InDelta(t, deg(1.5, 20), a, 1e-12)
	assert.InDelta(t, 20, h, 1e-12)
	s.Kind = section.Chisel
	a, _ = s.Set()
	assert.InDelta(t, deg(3, 20), a, 1e-12, "all of it on one side")
	s.Kind = section.Diamond
	a, h = s.Set()
	assert.InDelta(t, deg(1.5, 15), a, 1e-12)
	assert.InDelta(t, 15, h, 1e-12)
	s.Kind = section.Rect
	a, h = s.Set()
	assert.Zero(t, a+h)
	s.SwedgeHeightMm, s.SwedgeEdgeMm = 6, 1
	a, h = s.BackSet()
	assert.InDelta(t, deg(1.5, 6), a, 1e-12)
	assert.InDelta(t, 6, h, 1e-12)
}
