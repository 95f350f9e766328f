package blade_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestVolumeOfExactSolids(t *testing.T) {
	box := func(kind section.Kind, edge float64, thick ...blade.Node) blade.Blade {
		return blade.Blade{
			Outline:   blade.Outline{Spine: []blade.Node{{0, 0}, {100, 0}}, Edge: []blade.Node{{0, -30}, {100, -30}}, Join: blade.Straight},
			Thickness: thick, Grind: blade.Grind{Kind: kind, EdgeMm: edge, BevelFraction: 1},
		}
	}
	triangle := box(section.Rect, 0, blade.Node{0, 4}, blade.Node{100, 4})
	triangle.Outline.Edge = []blade.Node{{0, 0}, {100, -30}}
	cone := triangle
	cone.Thickness = []blade.Node{{0, 1}, {100, 4}} // ∫ 30·x/100·(1+3x/100) dx
	for name, c := range map[string]struct {
		b    blade.Blade
		want float64
	}{
		"prism":              {box(section.Rect, 0, blade.Node{0, 4}, blade.Node{100, 4}), 30 * 4 * 100},
		"tapered prism":      {box(section.Rect, 0, blade.Node{0, 2}, blade.Node{100, 4}), 30 * 3 * 100},
		"wedge":              {box(section.Flat, .5, blade.Node{0, 4}, blade.Node{100, 4}), 30 * 2.25 * 100},
		"tapered wedge":      {box(section.Flat, .5, blade.Node{0, 2}, blade.Node{100, 4}), 30 * (3 + .5) / 2 * 100},
		"triangle":           {triangle, 30 * 4 * 100 / 2},
		"triangle, tapering": {cone, 100 * 30 * (1./2 + 3./3)},
	} {
		body, err := blade.New(c.b)
		require.NoError(t, err, name)
		assert.InEpsilon(t, c.want, body.Measure().VolumeMm3, 5e-4, name)
	}
}

func TestTangVolumeLosesItsHoles(t *testing.T) {
	d := blade.Starters()[0].Design
	b := d.Blade()
	whole := measure(t, b)
	b.Tang.Holes = []blade.Hole{{AtMm: 30, DiameterMm: 5}}
	_, thick := b.Tang.At(30)
	assert.InDelta(t, math.Pi/4*25*thick, whole.VolumeMm3-measure(t, b).VolumeMm3, 1e-6)
}

func measure(t testing.TB, b blade.Blade) blade.Measures {
	t.Helper()
	body, err := blade.New(b)
	require.NoError(t, err)
	return body.Measure()
}

func TestStartersAreSoundAndZonesAddUp(t *testing.T) {
	seen := map[blade.Shape]bool{}
	for _, s := range blade.Starters() {
		c := fact.NewCheck()
		s.Design.Validate(c)
		require.NoError(t, c.Err(), s.ID)
		m := measure(t, s.Design.Blade())
		sum := 0.0
		for _, v := range m.Zones {
			sum += v
		}
		assert.InEpsilon(t, m.VolumeMm3, sum, 1e-9, s.ID)
		assert.InEpsilon(t, m.VolumeMm3*7.85/1000, m.MassG, 1e-9, s.ID)
		assert.Greater(t, m.BalanceFromPointMm, 0.2*m.OverallLengthMm, s.ID)
		assert.Less(t, m.BalanceFromPointMm, 0.8*m.OverallLengthMm, s.ID)
		seen[s.Design.Shape] = true
	}
	assert.Len(t, seen, len(blade.Shapes()), "a starter for every shape")
}

// drawDesign is any design that validates.
func drawDesign(t *rapid.T) blade.Design {
	d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
	d.Shape = rapid.SampledFrom(blade.Shapes()).Draw(t, "shape")
	d.LengthMm = rapid.Float64Range(40, 400).Draw(t, "length")
	d.HeightMm = rapid.Float64Range(15, 60).Draw(t, "height")
	d.SpineMm = rapid.Float64Range(2, 8).Draw(t, "spine")
	d.TipMm = rapid.Float64Range(1, d.SpineMm).Draw(t, "tip")
	d.Grind.Groove = nil // of a blade that was thicker
	return d
}

func TestVolumeGrowsWithTheCubeOfTheScale(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := drawDesign(t)
		d.Grind.Kind = rapid.SampledFrom([]section.Kind{section.Flat, section.Convex, section.Lens}).Draw(t, "kind")
		k := rapid.Float64Range(.6, 1.8).Draw(t, "k")
		big := d
		big.LengthMm, big.HeightMm, big.SpineMm, big.TipMm = d.LengthMm*k, d.HeightMm*k, d.SpineMm*k, d.TipMm*k
		big.Grind.EdgeMm, big.Grind.SwedgeLongMm, big.Grind.PlungeMm, big.ChoilMm = d.Grind.EdgeMm*k, d.Grind.SwedgeLongMm*k, d.Grind.PlungeMm*k, d.ChoilMm*k
		big.Grind.SwedgeEdgeMm *= k
		if g := d.Grind.Groove; g != nil {
			big.Grind.Groove = &blade.Groove{LowFraction: g.LowFraction, HighFraction: g.HighFraction, Faces: g.Faces, DepthMm: g.DepthMm * k, FromMm: g.FromMm * k, ToMm: g.ToMm * k}
		}
		blank := func(d blade.Design) float64 {
			b := d.Blade()
			b.Ricasso, b.Tang = nil, nil
			body, err := blade.New(b)
			if err != nil {
				t.Fatal(err)
			}
			return body.Measure().VolumeMm3
		}
		if r := blank(big) / blank(d) / (k * k * k); math.Abs(r-1) > 1e-6 {
			t.Fatalf("ratio %v", r)
		}
	})
}

func TestForgedShapeHoldsTheFinishedBlade(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := drawDesign(t)
		a := blade.Allowances{FaceMm: rapid.Float64Range(0, 1).Draw(t, "face"), OutlineMm: rapid.Float64Range(0.1, 3).Draw(t, "outline"), ForgingEdgeMm: rapid.Float64Range(1, 3).Draw(t, "edge")}
		b := d.Blade()
		fin, err := blade.New(b)
		if err != nil {
			t.Skip("faces cross")
		}
		f := b.Forged(a, 0)
		fog, err := blade.New(f)
		if err != nil {
			t.Fatal(err)
		}
		for i := 1; i < 40; i++ {
			x := fin.LengthMm() * float64(i) / 40
			s, g := fin.SectionAt(x), fog.SectionAt(x+a.OutlineMm)
			// at right angles to the outline, so at least as much straight up and down; a
			// little for the curve between its nodes
			if g.HeightMm < s.HeightMm+2*a.OutlineMm-.02 || g.SpineMm < s.SpineMm+2*a.FaceMm-1e-6 || g.EdgeMm < a.ForgingEdgeMm-1e-9 {
				t.Fatalf("at %v: %+v does not hold %+v", x, g, s)
			}
		}
	})
}

// TestTheAllowanceIsMetAllRound: as far from the finished outline at a steep front as
// along a straight spine, whatever the shape.
func TestTheAllowanceIsMetAllRound(t *testing.T) {
	for _, s := range blade.Starters() {
		b := s.Design.Blade()
		fin, err := blade.New(b)
		require.NoError(t, err)
		const p = 1.5
		fog, err := blade.New(b.Forged(blade.Allowances{FaceMm: .4, OutlineMm: p, ForgingEdgeMm: 2}, 0))
		require.NoError(t, err)
		near := func(x, y float64, curve func(float64) float64) float64 {
			least := math.Inf(1)
			for u := math.Max(0, x-2*p); u <= x+4*p; u += .01 {
				least = math.Min(least, math.Hypot(u-x-p, curve(math.Min(u, fog.LengthMm()))-y))
			}
			return least
		}
		for i := 1; i < 60; i++ {
			x := fin.LengthMm() * math.Pow(float64(i)/60, 2) * .97
			for side, c := range map[string][2]func(float64) float64{"spine": {fin.SpineY, fog.SpineY}, "edge": {fin.EdgeY, fog.EdgeY}} {
				d := near(x, c[0](x), c[1])
				least := .9 * p
				if x < p/4 {
					least = .8 * p // the very point is a chamfer
				}
				assert.GreaterOrEqual(t, d, least, "%s, %s, %v mm from the point", s.ID, side, x)
				assert.LessOrEqual(t, d, 1.1*p, "%s, %s, %v mm from the point", s.ID, side, x)
			}
		}
	}
}

// TestAnyOutlineGrows: whatever nodes and corners it has, the grown one can be made,
// keeps its heel, and has the finished one inside it.
func TestAnyOutlineGrows(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		side := func(name string, low, high float64) (nodes []blade.Node, corners []int) {
			nodes = append(nodes, blade.Node{0, 0})
			n := rapid.IntRange(1, 7).Draw(t, name)
			for i := range n {
				x := 160 * (float64(i) + 1) / float64(n)
				if i+1 < n {
					x -= rapid.Float64Range(0, 15).Draw(t, name+"X")
				}
				nodes = append(nodes, blade.Node{x, rapid.Float64Range(low, high).Draw(t, name+"Y")})
				if i+1 < n && rapid.Bool().Draw(t, name+"Corner") {
					corners = append(corners, i+1)
				}
			}
			return nodes, corners
		}
		d := blade.Starters()[0].Design
		b := d.Blade()
		b.Outline = blade.Outline{Join: rapid.SampledFrom([]blade.Join{blade.Straight, blade.Smooth}).Draw(t, "join")}
		b.Outline.Spine, b.Outline.SpineCorners = side("spine", 2, 14)
		b.Outline.Edge, b.Outline.EdgeCorners = side("edge", -34, -6)
		b.Thickness = []blade.Node{{0, 2}, {160, 4}}
		fin, err := blade.New(b)
		if err != nil {
			t.Skip("no blade")
		}
		z := blade.ZoneAllowances{SpineMm: rapid.Float64Range(0, 3).Draw(t, "s"), EdgeMm: rapid.Float64Range(0, 3).Draw(t, "e"), PointMm: rapid.Float64Range(0, 3).Draw(t, "p")}
		fog, err := blade.New(b.Forged(blade.Allowances{ForgingEdgeMm: 1, Zones: &z}, 0))
		if err != nil {
			t.Fatal(err)
		}
		if got := fog.LengthMm() - fin.LengthMm() - z.PointMm; math.Abs(got) > 1e-9 {
			t.Fatalf("the heel moved by %v", got)
		}
		for x := 4.0; x < 156; x += 3 {
			// at right angles: on the flank of a spike a hundredth is a tenth straight up
			across := func(y func(float64) float64) float64 { return 1 / math.Hypot(1, (y(x+.01)-y(x-.01))/.02) }
			up, down := (fog.SpineY(x+z.PointMm)-fin.SpineY(x))*across(fin.SpineY), (fin.EdgeY(x)-fog.EdgeY(x+z.PointMm))*across(fin.EdgeY)
			if up < -.1 || down < -.1 { // a little for the curve between its nodes
				t.Fatalf("at %v: %v over the spine, %v under the edge", x, up, down)
			}
		}
	})
}

func TestRicassoStaysAtTheBar(t *testing.T) {
	b := blade.Starters()[0].Design.Blade() // ricasso 3.8
	a := blade.Allowances{FaceMm: .4, OutlineMm: 1, ForgingEdgeMm: 2}
	assert.InDelta(t, 5.0, b.Forged(a, 5).Ricasso.ThicknessMm, 1e-9, "kept at a bar a little thicker")
	assert.InDelta(t, 4.6, b.Forged(a, 8).Ricasso.ThicknessMm, 1e-9, "drawn down from a much thicker one")
	assert.InDelta(t, 4.0, b.Forged(a, 4).Ricasso.ThicknessMm, 1e-9, "never asked to be thicker than the bar")
}

func TestBadOutlinesAreNamedWhereTheyAre(t *testing.T) {
	good := func() blade.Blade {
		return blade.Blade{
			Outline:   blade.Outline{Spine: []blade.Node{{0, 0}, {100, 0}}, Edge: []blade.Node{{0, 0}, {100, -30}}},
			Thickness: []blade.Node{{0, 2}, {100, 4}}, Grind: blade.Grind{Kind: section.Flat, EdgeMm: .5},
		}
	}
	for code, spoil := range map[string]func(*blade.Blade){
		"blade.outlinesCross": func(b *blade.Blade) { b.Outline.Edge = []blade.Node{{0, -20}, {50, 10}, {100, -20}} },
		"blade.fewNodes":      func(b *blade.Blade) { b.Outline.Spine = b.Outline.Spine[:1] },
		"blade.nodesOrder":    func(b *blade.Blade) { b.Outline.Spine = []blade.Node{{0, 0}, {60, 0}, {50, 0}} },
		"blade.heelsDiffer":   func(b *blade.Blade) { b.Outline.Edge = []blade.Node{{0, 0}, {90, -30}} },
		"blade.thickness":     func(b *blade.Blade) { b.Thickness = []blade.Node{{0, -1}, {100, 4}} },
		"blade.facesCross": func(b *blade.Blade) {
			b.Outline.Edge = []blade.Node{{0, -30}, {100, -30}}
			b.Grind = blade.Grind{Kind: section.Hollow, EdgeMm: .2, WheelRadiusMm: 20}
		},
	} {
		b := good()
		spoil(&b)
		_, err := blade.New(b)
		var be *blade.Error
		require.True(t, errors.As(err, &be), code)
		assert.Equal(t, code, be.Code)
		assert.NotEmpty(t, be.Field)
	}
	nan := good()
	nan.Outline.Spine[1][1] = math.NaN()
	_, err := blade.New(nan)
	require.Error(t, err)
}

func TestAbsurdDesignsAreRefusedFieldByField(t *testing.T) {
	d := blade.Starters()[0].Design
	d.LengthMm, d.SpineMm, d.HeightMm, d.Shape = 5000, .01, math.NaN(), "cleaver-ish"
	c := fact.NewCheck()
	d.Validate(c.Within("design"))
	var fe fact.FieldErrors
	require.True(t, errors.As(c.Err(), &fe))
	got := map[string]fact.FieldError{}
	for _, f := range fe {
		got[f.Field] = f
	}
	for _, f := range []string{"design.lengthMm", "design.spineMm", "design.heightMm", "design.shape"} {
		assert.Contains(t, got, f)
	}
	assert.InDelta(t, 1200, got["design.lengthMm"].Figures["highest"], 1e-9)
}

func TestAllowancesKnowTheirSchool(t *testing.T) {
	hunter := blade.Design{LengthMm: 95, HeightMm: 26}
	hook := blade.Design{LengthMm: 45, HeightMm: 12}
	for _, s := range blade.Schools() {
		assert.Equal(t, s.Allowances(), s.AllowancesFor(&hunter))
		small := s.AllowancesFor(&hook)
		assert.Equal(t, s, small.School(&hook))
		assert.Less(t, small.OutlineMm, s.Allowances().OutlineMm*.7)
		assert.Equal(t, s.Allowances(), small.Follow(&hook, &hunter), "a preset goes with the size")
		assert.Equal(t, small, s.Allowances().Follow(&hunter, &hook))
	}
	a := blade.ForgeClose.Allowances()
	a.FaceMm += .05
	assert.Equal(t, blade.OwnSchool, a.School(&hunter))
	assert.Equal(t, a, a.Follow(&hunter, &hook), "a smith's own stay")
}

func BenchmarkMeasure(b *testing.B) {
	body, err := blade.New(blade.Starters()[0].Design.Blade())
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		body.Measure()
	}
}
