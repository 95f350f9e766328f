package forge_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/forge"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/thermal"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func setup() forge.Setup {
	g, err := steel.Find("1084")
	if err != nil {
		panic(err)
	}
	return forge.Setup{Smith: forge.NewSmith(forge.Steady), Fire: forge.NewFire(), Steel: g}
}

func bar(n int, w, t float64) forge.Bar {
	b := forge.Bar{Cells: make([]forge.Cell, n)}
	for i := range b.Cells {
		b.Cells[i] = forge.Cell{Zone: "blade", VolumeMm3: w * t * 10, WidthMm: w, ThicknessMm: t, EdgeMm: t, SpineMm: t, TempC: 20}
	}
	return b
}

func draw(first, last int, w, t float64) *forge.Operation {
	op := &forge.Operation{ID: "draw", Kind: forge.Profile, Face: forge.PeenAcross, First: first, Last: last}
	for i := first; i <= last; i++ {
		op.Targets = append(op.Targets, forge.Target{WidthMm: w, ThicknessMm: t, EdgeMm: t, SpineMm: t})
	}
	return op
}

// parts are so many stretches of cells, each by its first.
func parts(first, last, n int) (out []int) {
	all := last - first + 1
	n = min(n, all)
	for k := range n {
		out = append(out, first+k*all/n)
	}
	return out
}

func run(t require.TestingT, s forge.Setup, b forge.Bar, ops ...*forge.Operation) *forge.Run {
	r, err := forge.NewRun(s, b)
	require.NoError(t, err)
	r.KeepStates = true
	for _, op := range ops {
		require.NoError(t, r.Do(op))
	}
	return r
}

// TestVolumeIsConserved, cell by cell and heat by heat: the hammer moves no steel from one
// cell to another, and what a cell has lost is the skin that scaled off all four of its
// sides, no thicker than the law gives for so long at that heat. What is not in the cells
// any more has been booked as
// scale, whatever the sequence of operations.
func TestVolumeIsConserved(t *testing.T) {
	kinds := []forge.Kind{forge.Straighten, forge.Corners, forge.Planish, forge.PreCurve, forge.Correct, forge.CutOff, forge.TangCurve}
	strokes := []forge.Kind{forge.Weld, forge.Notch, forge.Stamp, forge.Twist, forge.Loop, forge.Wrap, forge.WeldOn}
	shaping := []forge.Kind{forge.BreakDown, forge.Point, forge.SetDown, forge.DrawTang, forge.SetUp, forge.Profile, forge.Bevel, forge.FalseEdge}
	machines := []forge.MachineKind{"", forge.Striker, forge.PowerHammer, forge.Press, forge.RollingMill}
	rapid.Check(t, func(t *rapid.T) {
		b := bar(6, rapid.Float64Range(18, 40).Draw(t, "w"), rapid.Float64Range(4, 10).Draw(t, "t"))
		start := b.VolumeMm3()
		s := setup()
		if k := rapid.SampledFrom(machines).Draw(t, "machine"); k != "" {
			s.Smith.Machine = forge.NewMachine(k)
		}
		began := b.Clone()
		r, err := forge.NewRun(s, b)
		require.NoError(t, err)
		r.KeepStates = true
		for i := range rapid.IntRange(1, 4).Draw(t, "n") {
			first := rapid.IntRange(0, 5).Draw(t, "first")
			last := rapid.IntRange(first, 5).Draw(t, "last")
			var op *forge.Operation
			switch c := r.Bar.Cells[first]; rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				op = draw(first, last, c.WidthMm*rapid.Float64Range(.8, 1.15).Draw(t, "kw"), c.ThicknessMm*rapid.Float64Range(.7, .98).Draw(t, "kt"))
				op.Kind, op.Support = rapid.SampledFrom(shaping).Draw(t, "kind"), rapid.SampledFrom(forge.Supports()).Draw(t, "support")
				op.Face = rapid.SampledFrom([]forge.Face{forge.FlatFace, forge.RoundFace, forge.PeenAcross, forge.PeenAlong, forge.BevelFace, forge.AnvilEdge}).Draw(t, "face")
			case 1:
				op = draw(first, last, c.WidthMm*1.03, c.ThicknessMm*1.05)
				op.Kind, op.Face, op.FreeMm = forge.Upset, forge.FlatFace, c.LengthMm()*float64(last-first+1)
			case 2:
				op = &forge.Operation{Kind: rapid.SampledFrom(strokes).Draw(t, "kind"), First: first, Last: last, Stretches: parts(first, last, rapid.IntRange(1, 2).Draw(t, "passes")), Strokes: rapid.Float64Range(1, 30).Draw(t, "strokes")}
				op.Turning = forge.Turning{Brings: true, ToPerMm: .1, FromEnd: rapid.Bool().Draw(t, "fromEnd"), Turns: 2}
			default:
				op = &forge.Operation{Kind: rapid.SampledFrom(kinds).Draw(t, "kind"), First: first, Last: last, Stretches: parts(first, last, rapid.IntRange(1, 3).Draw(t, "passes")), BendPer: .002}
			}
			op.ID = string(rune('a' + i))
			require.NoError(t, r.Do(op))
		}
		require.NoError(t, r.Cycle("cycle", 870, 0))
		require.NoError(t, r.Harden("harden", 815, 300))
		booked := 0.0
		for _, h := range r.Heats {
			booked += h.ScaleMm3
			for i := range h.After.Cells {
				was, is := began.Cells[i], h.After.Cells[i]
				x, l := is.ScaleMm-was.ScaleMm, is.VolumeMm3/(is.WidthMm*is.ThicknessMm)
				skin := l * ((is.WidthMm+2*x)*(is.ThicknessMm+2*x) - is.WidthMm*is.ThicknessMm)
				require.InDelta(t, was.VolumeMm3-skin, is.VolumeMm3, 1e-9*was.VolumeMm3, "cell %d in %s", i, h.Operation)
				var most thermal.ScaleClock
				most.Add(math.Max(r.SoakC(), 950), h.FireS+h.CarryS+h.WorkS+h.BrushS+300, thermal.AtmosphereAir)
				require.LessOrEqual(t, x, most.LossMm())
				if i < h.First || i > h.Last {
					require.Zero(t, x, "what lies dull beside the fire does not scale")
				}
			}
			began = h.After
		}
		if rel := math.Abs(start-booked-r.Bar.VolumeMm3()) / start; rel > 1e-9 {
			t.Fatalf("lost %v of the volume", rel)
		}
	})
}

// TestAnOperationEndsAtItsTargets: no cell below its own, but for the scale that
// fell since it was done.
func TestAnOperationEndsAtItsTargets(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, k := rapid.Float64Range(18, 40).Draw(t, "w"), rapid.Float64Range(4, 10).Draw(t, "t")
		op := draw(0, rapid.IntRange(0, 3).Draw(t, "last"), w*rapid.Float64Range(.8, 1.1).Draw(t, "kw"), k*rapid.Float64Range(.6, .95).Draw(t, "kt"))
		op.Stretches = parts(0, op.Last, rapid.IntRange(1, 3).Draw(t, "passes"))
		r := run(t, setup(), bar(4, w, k), op)
		last := r.Heats[len(r.Heats)-1]
		require.InDelta(t, 1, last.ShareTo, 1e-9)
		for i, c := range last.After.Cells[:op.Last+1] {
			since := 2 * (c.ScaleMm - r.DoneAt["draw"][i])
			require.InDelta(t, op.Targets[i].WidthMm, c.WidthMm+since, 1e-6)
			require.InDelta(t, op.Targets[i].ThicknessMm, c.ThicknessMm+since, 1e-6)
		}
	})
}

func heats(r *forge.Run) float64 {
	n := 0.0
	for _, h := range r.Heats {
		n += h.Fraction
	}
	return n
}

// TestMoreEnergyNeverNeedsMoreHeats and a hotter lower limit never fewer.
func TestMoreEnergyNeverNeedsMoreHeats(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, k := rapid.Float64Range(20, 40).Draw(t, "w"), rapid.Float64Range(5, 10).Draw(t, "t")
		count := func(change func(*forge.Setup)) float64 {
			s := setup()
			change(&s)
			return heats(run(t, s, bar(5, w, k), draw(0, 4, w*.95, k*.6)))
		}
		plain := count(func(*forge.Setup) {})
		if heavy := count(func(s *forge.Setup) { s.Smith.HammerKg *= 1.3 }); heavy > plain+1e-6 {
			t.Fatalf("a heavier hammer took %v heats, not %v", heavy, plain)
		}
		if narrow := count(func(s *forge.Setup) { s.Steel.ForgeLowC += 40 }); narrow < plain-1e-6 {
			t.Fatalf("a narrower window took %v heats, not %v", narrow, plain)
		}
	})
}

func TestTemperaturesStayBetweenShopAndSoak(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := setup()
		s.Fire.TempC = rapid.Float64Range(1050, 1300).Draw(t, "fire")
		w, k := rapid.Float64Range(18, 40).Draw(t, "w"), rapid.Float64Range(4, 10).Draw(t, "t")
		first := rapid.IntRange(0, 4).Draw(t, "first")
		r := run(t, s, bar(5, w, k), draw(first, 4, w*.9, k*.8))
		for _, h := range r.Heats {
			require.LessOrEqual(t, h.StartC, r.SoakC()+1e-6)
			require.GreaterOrEqual(t, h.EndC, h.LowC-1e-6)
			require.GreaterOrEqual(t, h.LowC, forge.UnderLow(r.Setup.Steel.ForgeLowC, forge.GentleUnderC))
			require.LessOrEqual(t, h.EndC, h.StartC)
			require.Positive(t, h.FireS)
			for _, c := range h.After.Cells {
				require.Greater(t, c.TempC, 15.0)
				require.LessOrEqual(t, c.TempC, r.SoakC()+1e-6)
			}
		}
		require.True(t, r.OutOfRange(), "hand hammering is faster than was measured")
	})
}

func TestSoakStaysUnderSteelAndForge(t *testing.T) {
	s := setup() // steel to 1150, forge 1200
	c, err := s.SoakC()
	require.NoError(t, err)
	assert.InDelta(t, 1130, c, 1e-9)
	s.Fire.TempC = 1100
	c, err = s.SoakC()
	require.NoError(t, err)
	assert.InDelta(t, 1070, c, 1e-9)
	s.Fire.TempC = 900
	_, err = s.SoakC()
	var w *forge.WindowError
	require.True(t, errors.As(err, &w))
	assert.InDelta(t, 910, w.NeedForgeC, 1e-9)
	s.Fire.TempC = w.NeedForgeC
	_, err = s.SoakC()
	require.NoError(t, err, "the forge it names would do")
	s.Steel.ForgeHighC = s.Steel.ForgeLowC + 60
	_, err = s.SoakC()
	require.True(t, errors.As(err, &w))
	assert.Zero(t, w.NeedForgeC, "no forge will")
}

func TestAPowerlessSmithIsTold(t *testing.T) {
	s := setup()
	s.Smith.LandShare, s.Smith.HammerKg, s.Smith.SpeedMPerS = .1, .2, 1
	r, err := forge.NewRun(s, bar(8, 80, 40))
	require.NoError(t, err)
	var stall *forge.StallError
	require.True(t, errors.As(r.Do(draw(0, 7, 60, 20)), &stall))
	assert.Equal(t, "draw", stall.Operation)
}

func TestACycleScalesButDoesNotShape(t *testing.T) {
	r := run(t, setup(), bar(3, 25, 5))
	require.NoError(t, r.Cycle("cycle1", 870, 0))
	require.Len(t, r.Heats, 1)
	h := r.Heats[0]
	assert.Zero(t, h.Blows)
	assert.Positive(t, h.ScaleMm3)
	assert.InDelta(t, 480, h.EndC, 1e-9)
	var w *forge.WindowError
	r.Setup.Fire.TempC = 850
	require.True(t, errors.As(r.Cycle("cycle2", 870, 0), &w), "a forge colder than the cycle is refused")
}

func TestSpreadOfFaces(t *testing.T) {
	h := forge.NewSmith(forge.Steady)
	at := func(f forge.Face, widthMm float64) float64 { return h.Tool(f).Spread(widthMm) }
	assert.Less(t, at(forge.PeenAcross, 30), at(forge.FlatFace, 30))
	assert.Less(t, at(forge.RoundFace, 30), at(forge.FlatFace, 30), "a rounded face by its contact")
	assert.Less(t, at(forge.FlatFace, 30), at(forge.PeenAlong, 30))
	h.PeenLengthMm = 60
	assert.Less(t, forge.NewSmith(forge.Steady).Tool(forge.PeenAlong).Spread(30), at(forge.PeenAlong, 30), "a longer peen spreads more")
	assert.Less(t, h.MostSpread(forge.PinchOut, 60), h.MostSpread(forge.PinchOut, 30), "and any less on a wider bar")
	under := &forge.Operation{Kind: forge.Profile, Face: forge.FlatFace, Support: forge.OverHorn}
	assert.Less(t, h.SpreadOf(under, 30), at(forge.FlatFace, 30))
	_, ok := forge.Spread(100, 30)
	assert.False(t, ok, "past the measured ratio")
	joins, _ := forge.Spread(45.0001, 30)
	most, _ := forge.Spread(45, 30)
	assert.InDelta(t, most, joins, 1e-5)
	assert.Less(t, forge.BevelSpread(forge.PushIn, 22, 30), forge.BevelSpread(forge.PinchOut, 22, 30), "pushing in widens less")
}

func TestBevelsSweepTowardTheSpine(t *testing.T) {
	s := section.Section{Kind: section.Flat, HeightMm: 30, SpineMm: 5, EdgeMm: 2}
	b := forge.BevelBend(s, 5, .4, forge.BendFactor, 120)
	assert.Positive(t, b.RiseMm)
	assert.Greater(t, b.RiseMm, forge.BevelBend(s, 5, .55, forge.BendFactor, 120).RiseMm, "what spreads does not lengthen")
	straight := forge.BevelBend(section.Section{Kind: section.Rect, HeightMm: 30, SpineMm: 5}, 5, .4, forge.BendFactor, 120)
	assert.Zero(t, straight.CurvaturePerMm)
	double := forge.BevelBend(section.Section{Kind: section.Diamond, HeightMm: 30, SpineMm: 5, EdgeMm: 2}, 5, .4, forge.BendFactor, 120)
	assert.InDelta(t, 0, double.RiseMm, 1e-6, "two edges balance")
}

func TestSkillSetsTheHandAndLeavesTheTools(t *testing.T) {
	h := forge.NewSmith(forge.Learning)
	h.HammerKg = 1.7
	sure := h.WithSkill(forge.Sure)
	assert.InDelta(t, 1.7, sure.HammerKg, 1e-12)
	assert.Greater(t, sure.UsefulJ(), h.UsefulJ())
	assert.InDelta(t, h.SpeedMPerS, sure.SpeedMPerS, 0, "one arm, however sure")
}

// TestStraighteningTakesTheWorkOfItsCurve: the strain of the outermost fibre is
// half the thickness over the radius, so that twice the radius takes about half
// the work, and the section stays.
func TestStraighteningTakesTheWorkOfItsCurve(t *testing.T) {
	blows := func(radius float64) float64 {
		b := bar(4, 12, 12)
		r := run(t, setup(), b, &forge.Operation{ID: "s", Kind: forge.Straighten, First: 0, Last: 3, BendPer: 1 / radius})
		for _, c := range r.Bar.Cells {
			assert.InDelta(t, 12, c.WidthMm, .3, "but for its scale")
		}
		n := 0.0
		for _, h := range r.Heats {
			n += h.Blows
		}
		return n
	}
	tight, wide := blows(50), blows(100)
	assert.Greater(t, tight, 1.6*wide)
	assert.Less(t, tight, 2.8*wide)
}

// TestTheEdgeScalesWithTheRest: a thin edge is thinner after a heat by as much as the
// whole section, or a bevelled blade would keep the edge it had.
func TestTheEdgeScalesWithTheRest(t *testing.T) {
	b := forge.Bar{Cells: []forge.Cell{{Zone: "blade", VolumeMm3: 3000, WidthMm: 28, ThicknessMm: 3.1, EdgeMm: 2, SpineMm: 4.2, TempC: 20}}}
	r, err := forge.NewRun(setup(), b)
	require.NoError(t, err)
	require.NoError(t, r.Cycle("cycle", 870, 0))
	c := r.Bar.Cells[0]
	require.Positive(t, c.ScaleMm)
	assert.InEpsilon(t, c.ThicknessMm/3.1, c.EdgeMm/2, 1e-9)
	assert.InEpsilon(t, c.ThicknessMm/3.1, c.SpineMm/4.2, 1e-9)
}

// TestWhatIsLeftOfAHeatIsNotLost: an operation that needs a part of a heat leaves the
// piece as cold as a whole one does, since the next takes what is left of it. The first
// fire of the next would be too short otherwise.
func TestWhatIsLeftOfAHeatIsNotLost(t *testing.T) {
	b := bar(6, 25, 6)
	r, err := forge.NewRun(setup(), b)
	require.NoError(t, err)
	require.NoError(t, r.Do(&forge.Operation{ID: "correct", Kind: forge.Correct, Last: 5, BendPer: .0005}))
	require.Len(t, r.Heats, 1)
	require.Less(t, r.Heats[0].Fraction, .9)
	coldest := math.Inf(1)
	for _, c := range r.Bar.Cells {
		coldest = math.Min(coldest, c.TempC)
	}
	assert.LessOrEqual(t, coldest, r.Setup.LowC())
	assert.Greater(t, coldest, r.Setup.LowC()-100-60, "light taps go on a hundred degrees further, and it is brushed")
}
