package blade_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// full is a utility knife with a full tang.
func full() blade.Design {
	d := starterDesign("utility")
	d.SetTang(blade.FullTang)
	return d
}

// anyFull draws full tangs of every form, on any grip, moved by their nodes.
func anyFull(t *rapid.T) blade.Design {
	d := full().Scaled(rapid.Float64Range(.6, 2).Draw(t, "long"), rapid.Float64Range(.6, 1.8).Draw(t, "high"), rapid.Float64Range(.7, 1.4).Draw(t, "thick"))
	if rapid.Bool().Draw(t, "grip") {
		d.FitHand(rapid.Float64Range(70, 110).Draw(t, "breadth"), rapid.Float64Range(150, 220).Draw(t, "hand"))
		d.Handle.Bolster.LengthMm = rapid.Float64Range(0, 12).Draw(t, "bolster")
	}
	if forms := blade.TangForms(); rapid.Bool().Draw(t, "own") {
		require.True(t, d.TangForm(rapid.SampledFrom(forms).Draw(t, "form")))
		for i := range d.Tang.Outline.Edge {
			n := d.Tang.Outline.Edge[i]
			d.MoveNode(blade.TangBottom, i, n[0], n[1]-rapid.Float64Range(0, 2).Draw(t, "down"))
		}
	}
	return d
}

// simpson integrates over a stretch with so many steps, as nothing else here does.
func simpson(from, to float64, n int, f func(s float64) float64) (sum float64) {
	h := (to - from) / float64(2*n)
	for i := range 2*n + 1 {
		w := 4.0
		if i == 0 || i == 2*n {
			w = 1
		} else if i%2 == 0 {
			w = 2
		}
		sum += w * f(from+h*float64(i))
	}
	return sum * h / 3
}

// TestFullTangsAreTheSameInEveryReckoning: sections added up, the measure, and the solid that
// is exported agree to 0.1 %, of the finished tang and of the forged.
func TestFullTangsAreTheSameInEveryReckoning(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := anyFull(t)
		for _, b := range []blade.Blade{d.Blade(), d.Blade().Forged(blade.ThickAndGrind.Allowances(), 5)} {
			body, err := blade.New(b)
			require.NoError(t, err)
			tang := body.Blade.Tang
			sections := simpson(0, tang.LengthMm, 4000, func(s float64) float64 { h, k := tang.At(s); return h * k })
			assert.InEpsilon(t, sections, body.Measure().Zones["tang"], 5e-4)
			assert.InEpsilon(t, body.Measure().VolumeMm3, body.Mesh().VolumeMm3(), 1e-3)
			parts := 0.0
			for i := range 30 {
				parts += tang.VolumeMm3(tang.LengthMm*float64(i)/30, tang.LengthMm*float64(i+1)/30)
			}
			assert.InEpsilon(t, body.Measure().Zones["tang"], parts, 1e-4, "cut into cells")
		}
	})
}

// TestTheForgedTangHoldsTheFinishedOne with its allowances all round, and has no hollow that a
// hammer does not reach into.
func TestTheForgedTangHoldsTheFinishedOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := anyFull(t)
		a := blade.Allowances{FaceMm: .6, OutlineMm: rapid.Float64Range(0, 3).Draw(t, "outline"), ForgingEdgeMm: 2}
		fin, err := blade.New(d.Blade())
		require.NoError(t, err)
		fog, err := blade.New(d.Blade().Forged(a, 5))
		require.NoError(t, err)
		in, out := fin.Blade.Tang, fog.Blade.Tang
		level := a.OutlineMm // of the forged spine over the finished
		low := func(tang *blade.Tang, s float64) float64 { h, _ := tang.At(s); return -tang.TopMm(s) - h }
		const step = 1.0
		for s := 0.0; s <= in.LengthMm; s += step {
			steep := math.Abs(in.TopMm(s+.1)-in.TopMm(s-.1))/.2 + math.Abs(low(in, s+.1)-low(in, s-.1))/.2
			near := .05 * (1 + steep*steep) // of samples half a millimetre apart
			if s > in.LengthMm*.94 {
				near += .2 // where the butt is rounded off
			}
			assert.GreaterOrEqual(t, level-out.TopMm(s), -in.TopMm(s)+a.OutlineMm-near, "%v mm, above", s)
			assert.LessOrEqual(t, low(out, s)+level, low(in, s)-a.OutlineMm+near, "%v mm, below", s)
			if s < 2 || s > in.LengthMm-2 {
				continue
			}
			bend := (low(out, s-step) - 2*low(out, s) + low(out, s+step)) / step / step
			slope := (low(out, s+step) - low(out, s-step)) / 2 / step
			assert.LessOrEqual(t, -bend/math.Pow(1+slope*slope, 1.5), 1/25.+.06, "%v mm: a hollow of less than the hammer's radius", s)
		}
	})
}

// TestATangThatShowsIsAsHighAsItsGrip: fitted to a hand, a full tang is the grip's own outline.
func TestATangThatShowsIsAsHighAsItsGrip(t *testing.T) {
	d := full()
	d.FitHand(88, 188)
	tang := d.MadeTang()
	for _, s := range []float64{1, 30, d.Handle.LengthMm / 2, 100, d.Handle.LengthMm - 1} {
		h, _ := tang.At(s)
		assert.InDelta(t, d.Handle.HeightAt(s), h, .02, "%v mm", s)
	}
	plain := d
	plain.Handle = nil
	with, without := d.MadeTang(), plain.MadeTang()
	assert.Greater(t, with.VolumeMm3(0, with.LengthMm), 1.1*without.VolumeMm3(0, without.LengthMm))
	d.Handle.Bolster.LengthMm, d.Tang.LengthMm = 10, 140
	tang = d.MadeTang()
	h, _ := tang.At(5)
	assert.InDelta(t, d.Handle.FrontHeightMm, h, 1e-9, "under the bolster")
	h, _ = tang.At(139)
	assert.InDelta(t, d.Handle.ButtHeightMm, h, 1e-9, "behind the grip")
}

// TestATangIsFormedAndMovedByNodes as the blade is.
func TestATangIsFormedAndMovedByNodes(t *testing.T) {
	d := full()
	assert.False(t, d.TangForm("no such"))
	require.True(t, d.TangForm(blade.HookedTang))
	made := d.MadeTang()
	most, at := 0.0, 0.0
	for s := 0.0; s < d.Tang.LengthMm; s++ {
		if h, _ := made.At(s); h > most {
			most, at = h, s
		}
	}
	assert.Greater(t, most, d.Ricasso.HeightMm*1.15, "wider than the ricasso")
	assert.Greater(t, at, d.Tang.LengthMm*.85, "at the butt")

	n := len(d.Tang.Outline.Spine)
	require.True(t, d.AddNode(blade.TangTop, 50))
	require.Len(t, d.Tang.Outline.Spine, n+1)
	require.True(t, d.MoveNode(blade.TangTop, 2, 52, 6))
	made = d.MadeTang()
	assert.InDelta(t, -6, made.TopMm(52), 1e-9)
	require.True(t, d.ToggleCorner(blade.TangTop, 2))
	require.True(t, d.DeleteNode(blade.TangTop, 2))
	assert.Empty(t, d.Tang.Outline.SpineCorners)
	d.Tang.LengthMm *= 2
	assert.InDelta(t, d.Tang.LengthMm, d.TangOutline().Spine[len(d.TangOutline().Spine)-1][0], 1e-9, "it is as long as the tang")

	hidden := d
	hidden.SetTang(blade.HiddenTang)
	assert.Nil(t, hidden.TangOutline())
	assert.False(t, hidden.AddNode(blade.TangTop, 30), "no such side")
	d.ClearTangOutline()
	assert.Nil(t, d.Tang.Outline)
	valid(t, d)
}

// TestSlotsMakeATangLighter, by their mouth through its local thickness, and stay in the steel.
func TestSlotsMakeATangLighter(t *testing.T) {
	d := full()
	whole := d.MadeTang()
	require.True(t, d.AddSlot())
	d.Tang.ThicknessAtEndMm = d.Tang.ThicknessAtShoulderMm
	h := d.Tang.Holes[0]
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	slotted := body.Measure().Zones["tang"]
	d.Tang.Holes[0].LongMm = 0
	round, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.InEpsilon(t, (h.LongMm-h.DiameterMm)*h.DiameterMm*d.Tang.ThicknessAtShoulderMm, round.Measure().Zones["tang"]-slotted, 1e-9)
	area := 0.0
	mouth := h.Mouth()
	for i, p := range mouth {
		q := mouth[(i+1)%len(mouth)]
		area += (p[0]*q[1] - q[0]*p[1]) / 2
	}
	assert.InEpsilon(t, h.AreaMm2(), area, 5e-3, "as it is drawn")
	high, _ := whole.At(h.AtMm)
	assert.InDelta(t, (high-h.DiameterMm)/2, whole.RimMm(h), .6, "beside it")

	d.Tang.Holes[0] = h
	valid(t, d)
	d.Tang.Holes[0].OffMm = d.Ricasso.HeightMm / 2
	assert.ErrorContains(t, refused(d), "offMm", "out of the tang")
	d.Tang.Holes[0] = blade.Hole{AtMm: 10, DiameterMm: 8, LongMm: 40}
	assert.ErrorContains(t, refused(d), "atMm", "into the ricasso")
	d.Tang.Holes = []blade.Hole{{AtMm: 50, DiameterMm: 6, LongMm: 30}, {AtMm: 66, DiameterMm: 5}}
	assert.ErrorContains(t, refused(d), "holesMeet")
	d.Tang.Holes[1].AtMm = 74
	valid(t, d)
	d.SetTang(blade.HiddenTang)
	assert.Equal(t, []blade.Hole{{AtMm: 74, DiameterMm: 5}}, d.Tang.Holes, "pins stay, slots do not")
	assert.False(t, d.AddSlot())
}

// TestABadTangOutlineIsRefused where it is wrong.
func TestABadTangOutlineIsRefused(t *testing.T) {
	for name, bad := range map[string]func(o *blade.Outline){
		"fewNodes":    func(o *blade.Outline) { o.Spine = o.Spine[:1] },
		"nodesOrder":  func(o *blade.Outline) { o.Spine[1][0] = o.Spine[2][0] + 1 },
		"tangCrosses": func(o *blade.Outline) { o.Spine[2][1] = -60 },
		"buttsDiffer": func(o *blade.Outline) { o.Edge[len(o.Edge)-1][0] += 5 },
	} {
		d := full()
		require.True(t, d.TangForm(blade.SwellTang))
		bad(d.Tang.Outline)
		err := refused(d)
		if err == nil {
			_, err = blade.New(d.Blade())
		}
		assert.ErrorContains(t, err, "blade."+name)
	}
	d := full()
	require.True(t, d.TangForm(blade.SwellTang))
	d.TangKind = blade.HiddenTang
	assert.ErrorContains(t, refused(d), "tangOutlineFull")
}

// refused is what Validate finds.
func refused(d blade.Design) error {
	c := fact.NewCheck()
	d.Validate(c)
	return c.Err()
}
