package blade_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/section"
	"coldember/core/steel"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// plain is a blade of constant height and thickness: what changes along it can
// be integrated by hand.
func plain() blade.Blade {
	return blade.Blade{
		Outline:   blade.Outline{Spine: []blade.Node{{0, 0}, {100, 0}}, Edge: []blade.Node{{0, -30}, {100, -30}}},
		Thickness: []blade.Node{{0, 4}, {100, 4}},
		Grind:     blade.Grind{Kind: section.Flat, EdgeMm: 1},
	}
}

func TestAGrindThatChangesAlongTheBlade(t *testing.T) {
	const whole = 30 * 100 * 2.5 // flat from 4 to 1
	b := plain()
	b.Grind.PlungeMm = 12
	// the step of the plunge is half run out on average
	assert.InEpsilon(t, whole+30*12*.5*1.5, measure(t, b).VolumeMm3, 1e-9)
	body, err := blade.New(b)
	require.NoError(t, err)
	assert.InDelta(t, 4, body.SectionAt(100).ThicknessAt(0), 1e-12, "as thick as the spine at the heel")
	assert.InDelta(t, 1, body.SectionAt(88).ThicknessAt(0), 1e-12, "untouched where it begins")

	b = plain()
	b.Grind.BevelFraction, b.Grind.PointBevelFraction = .5, 1
	// below a bevel of β·h a wedge of β·h·(4−1)/2 is missing from the full section
	assert.InEpsilon(t, 30*100*(4-.75*1.5), measure(t, b).VolumeMm3, 1e-9)

	b = plain()
	b.Grind.PointEdgeMm = 2
	assert.InEpsilon(t, 30*100*(4+1.5)/2, measure(t, b).VolumeMm3, 1e-9)
}

func TestATaperRunsThroughItsNodes(t *testing.T) {
	d := starterDesign("utility")
	require.True(t, d.AddTaperNode(40))
	require.True(t, d.AddTaperNode(70))
	require.False(t, d.AddTaperNode(40.2), "on a node")
	require.True(t, d.MoveTaperNode(0, 42, 3.4))
	require.True(t, d.MoveTaperNode(1, 72, 3.6))
	valid(t, d)
	assert.InDelta(t, 3.4, d.ThicknessAt(42), 1e-9)
	assert.InDelta(t, 3.6, d.ThicknessAt(72), 1e-9)
	last := d.ThicknessAt(0)
	for x := 1.0; x <= d.LengthMm; x++ {
		assert.GreaterOrEqual(t, d.ThicknessAt(x), last-1e-9, "monotone nodes, monotone taper, at %.0f", x)
		last = d.ThicknessAt(x)
	}
	d.LengthMm *= 2
	assert.InDelta(t, 3.4, d.ThicknessAt(84), 1e-9, "nodes scale with the length")
	require.True(t, d.DeleteTaperNode(0))
	assert.Len(t, d.TaperNodes, 1)
	d.TaperNodes[0].AtFraction = 1.2
	assert.ErrorContains(t, invalid(d), "taperNodes.0")
}

func TestANotchIsTakenOutOfTheRicasso(t *testing.T) {
	d := starterDesign("utility")
	before := measure(t, d.Blade())
	d.Ricasso.NotchMm = 6
	valid(t, d)
	assert.InEpsilon(t, before.VolumeMm3-math.Pi*18*d.Ricasso.ThicknessMm, measure(t, d.Blade()).VolumeMm3, 1e-9)
	forged := d.Blade().Forged(blade.ForgeClose.Allowances(), 0)
	assert.Zero(t, forged.Ricasso.NotchMm, "cut after forging")
	d.Ricasso.NotchMm = d.Ricasso.HeightMm
	assert.ErrorContains(t, invalid(d), "ricasso.notchMm")
}

// TestAHandleWeighsWhatItsSolidWeighs: a straight grip in brass over a straight
// tang.
func TestAHandleWeighsWhatItsSolidWeighs(t *testing.T) {
	d := starterDesign("utility")
	d.Tang = blade.Tang{LengthMm: 80, HeightAtShoulderMm: 10, HeightAtEndMm: 10, ThicknessAtShoulderMm: 4, ThicknessAtEndMm: 4, DropMm: 8}
	d.Handle = &blade.Handle{LengthMm: 100, FrontHeightMm: 28, MidHeightMm: 28, ButtHeightMm: 28, WidthMm: 20, TopDropMm: -1, Material: "hardwood"}
	d.Handle.Guard = blade.Fitting{LengthMm: 5, HeightMm: 40, WidthMm: 20, Material: "brass"}
	d.Handle.Pommel = blade.Fitting{LengthMm: 10, HeightMm: 20, WidthMm: 20, Material: "steel"}
	valid(t, d)
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	a, bare := body.Assemble(d), body.Measure()
	// the box of a superellipse of exponent 3 is filled to Γ(4/3)²/Γ(5/3)
	fill := math.Pow(math.Gamma(4./3), 2) / math.Gamma(5./3)
	grip := (28*20*fill*100 - 10*4*75) * .7 / 1000
	guard := (5*40*20 - 5*10*4) * 8.5 / 1000
	pommel := 10 * 20 * 20 * steel.DensityGPerCm3 / 1000
	assert.InEpsilon(t, grip, a.HandleG, 2e-3)
	assert.InEpsilon(t, guard+pommel, a.FittingsG, 1e-9)
	assert.InEpsilon(t, bare.MassG+grip+guard+pommel, a.MassG, 1e-3)
	// its axis lies 13 below the spine, in the middle of the tang (8 + 5)
	assert.InDelta(t, 10*math.Cbrt(1-5.*5*5/14/14/14)-2, a.LeastWallMm, 1e-9, "beside the tang's corners it is nearest")
	assert.InDelta(t, -1, a.StepMm, 1e-12)
	heavier := d
	h := *d.Handle
	h.Pommel.LengthMm = 30
	heavier.Handle = &h
	assert.Greater(t, body.Assemble(heavier).BalanceFromPointMm, a.BalanceFromPointMm, "a pommel draws the balance back")
	low := d
	h2 := *d.Handle
	h2.ButtDropMm = 20
	low.Handle = &h2
	assert.Greater(t, body.Assemble(low).PointAngleDeg-a.PointAngleDeg, -20.)
	assert.Less(t, body.Assemble(low).PointAngleDeg, a.PointAngleDeg, "a grip that falls points higher, so the point lies lower against it")
}

func TestTheThinnestWallIsFoundWhereItIs(t *testing.T) {
	d := starterDesign("utility")
	d.Tang = blade.Tang{LengthMm: 80, HeightAtShoulderMm: 20, HeightAtEndMm: 8, ThicknessAtShoulderMm: 4, ThicknessAtEndMm: 3, DropMm: 1}
	d.Handle = &blade.Handle{LengthMm: 100, FrontHeightMm: 24, MidHeightMm: 24, ButtHeightMm: 24, WidthMm: 22, Material: "horn"}
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	a := body.Assemble(d)
	assert.InDelta(t, 1, a.LeastWallMm, .1, "only 1 mm above the tang at the shoulder")
	assert.Less(t, a.WallAtMm, 2.)
	full := starterDesign("camp")
	full.Handle = blade.NewHandle(full)
	body, err = blade.New(full.Blade())
	require.NoError(t, err)
	assert.InDelta(t, (full.Handle.WidthMm-full.Tang.ThicknessAtShoulderMm)/2, body.Assemble(full).LeastWallMm, .05, "a scale beside a full tang")
}

func TestAWrappedTangIsFoldedBack(t *testing.T) {
	d := starterDesign("utility")
	d.SetTang(blade.WrappedTang)
	valid(t, d)
	d.Tang.HeightAtEndMm, d.Tang.ThicknessAtEndMm = d.Tang.HeightAtShoulderMm, d.Tang.ThicknessAtShoulderMm
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	a, m := body.Assemble(d), body.Measure()
	assert.InEpsilon(t, m.MassG, a.MassG, 1e-12, "nothing is added")
	// both straight halves of an even tang have their middle at half their length, the
	// half circle between them at 2r/π past their end
	turn := d.Tang.TurnMm()
	half := (d.Tang.LengthMm - turn) / 2
	middle := (half*half + turn*(half+2*turn/math.Pi/math.Pi)) / d.Tang.LengthMm
	moved := m.Zones["tang"] / m.VolumeMm3 * (d.Tang.LengthMm/2 - middle)
	assert.InDelta(t, m.BalanceFromPointMm-moved, a.BalanceFromPointMm, .005)
	d.SetTang(blade.HiddenTang)
	assert.InDelta(t, starterDesign("utility").Tang.LengthMm, d.Tang.LengthMm, 1e-9, "and back again")
}

func TestEveryTangKindIsABladeAndFitsAHand(t *testing.T) {
	for _, k := range blade.TangKinds() {
		d := starterDesign("camp")
		d.SetTang(k)
		valid(t, d)
		d.FitHand(90, 190)
		valid(t, d)
		if k.Bare() {
			assert.Nil(t, d.Handle)
			assert.Equal(t, k == blade.RodTang, d.AddHole(), "a rod is hung by one")
			continue
		}
		assert.InDelta(t, 115, d.Handle.LengthMm, 1e-9, "a palm and room at both ends")
		small := d
		small.FitHand(75, 165)
		assert.Less(t, small.Handle.WidthMm, d.Handle.WidthMm)
		assert.Less(t, small.Tang.LengthMm, d.Tang.LengthMm)
		require.True(t, d.AddHole())
		require.True(t, d.AddHole())
		valid(t, d)
		assert.Greater(t, d.Tang.Holes[1].AtMm, d.Tang.Holes[0].AtMm)
		require.True(t, d.DeleteHole(0))
		assert.Len(t, d.Tang.Holes, 1)
	}
}

func TestAllowancesByZone(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
		a := blade.Allowances{
			FaceMm: rapid.Float64Range(0, 2).Draw(t, "face"), OutlineMm: rapid.Float64Range(0, 3).Draw(t, "outline"),
			ForgingEdgeMm: rapid.Float64Range(.5, 3).Draw(t, "edge"),
		}
		same := a
		z := a.ByZone()
		same.Zones = &z
		require.Equal(t, d.Blade().Forged(a, 5), d.Blade().Forged(same, 5), "the same figures, the same shape")
		z.PointMm += .5
		z.SpineMm += .5
		z.TangFaceMm += .2
		more, err := blade.New(d.Blade().Forged(same, 0))
		require.NoError(t, err)
		less, err := blade.New(d.Blade().Forged(a, 0))
		require.NoError(t, err)
		require.Greater(t, more.Measure().VolumeMm3, less.Measure().VolumeMm3)
	})
}

func invalid(d blade.Design) error {
	c := fact.NewCheck()
	d.Validate(c)
	return c.Err()
}
