package finish_test

import (
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/section"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func codes(list []fact.Warning) map[string]fact.Severity {
	out := map[string]fact.Severity{}
	for _, f := range list {
		out[f.Code] = f.Severity
	}
	return out
}

// handled is a design with a handle and a guard on it.
func handled(d blade.Design) blade.Design {
	d.Handle = blade.NewHandle(d)
	d.Handle.Guard.LengthMm = 6
	return d
}

// TestTheSlotIsTheTangs at the shoulder, a little under, its chain within it and no hole into the
// next.
func TestTheSlotIsTheTangs(t *testing.T) {
	d := handled(hidden(t))
	w := work(t, d, finish.Choices{})
	h := finish.HandleOf(w, 4)
	require.Len(t, h.Slots, 1)
	s := h.Slots[0]
	assert.InDelta(t, d.Tang.HeightAtShoulderMm-.1, s.LengthMm, 1e-9)
	assert.InDelta(t, d.Tang.ThicknessAtShoulderMm-.1, s.WidthMm, 1e-9)
	rapid.Check(t, func(rt *rapid.T) {
		d := d
		d.Tang.HeightAtShoulderMm = rapid.Float64Range(6, 24).Draw(rt, "high")
		d.Tang.ThicknessAtShoulderMm = rapid.Float64Range(2, 8).Draw(rt, "thick")
		s := finish.HandleOf(&finish.Work{Design: d, Steel: w.Steel}, 4).Slots[0]
		assert.Less(rt, s.DrillMm, s.WidthMm)
		if s.Holes > 1 {
			assert.GreaterOrEqual(rt, s.PitchMm, s.DrillMm+.3-1e-9)
			assert.LessOrEqual(rt, s.DrillMm+float64(s.Holes-1)*s.PitchMm, s.LengthMm)
		}
	})
}

// TestWhatCannotBeFittedIsTold with what would do.
func TestWhatCannotBeFittedIsTold(t *testing.T) {
	for code, change := range map[string]func(*blade.Design, *finish.Choices){
		"finish.slotShows":   func(d *blade.Design, _ *finish.Choices) { d.Tang.HeightAtShoulderMm = d.Ricasso.HeightMm - .5 },
		"finish.slotThrough": func(d *blade.Design, _ *finish.Choices) { d.Handle.Guard.HeightMm = d.Tang.HeightAtShoulderMm },
		"finish.slotWide":    func(d *blade.Design, _ *finish.Choices) { d.Handle.Guard.WidthMm = d.Tang.ThicknessAtShoulderMm + 1 },
		"finish.tangShort":   func(d *blade.Design, _ *finish.Choices) { d.Handle.Guard.LengthMm = d.Tang.LengthMm + 1 },
		"finish.tangThrough": func(d *blade.Design, _ *finish.Choices) { d.Handle.LengthMm = d.Tang.LengthMm - 20 },
		"finish.coreThick":   func(d *blade.Design, c *finish.Choices) { c.Fit, d.Handle.WidthMm = finish.Core, 14 },
		"finish.blockSmall": func(_ *blade.Design, c *finish.Choices) {
			c.Block = finish.Block{LengthMm: 90, HeightMm: 30, WidthMm: 30}
		},
	} {
		d := handled(hidden(t))
		var c finish.Choices
		clean := codes(finish.HandleOf(work(t, d, c), 4).Findings)
		assert.NotContains(t, clean, code)
		change(&d, &c)
		h := finish.HandleOf(&finish.Work{Design: d, Steel: work(t, handled(hidden(t)), c).Steel, Choices: c}, 4)
		assert.Contains(t, codes(h.Findings), code)
	}
	assert.Equal(t, fact.Stop, codes(finish.HandleOf(work(t, handled(hidden(t)), finish.Choices{}), -1).Findings)["finish.wallThin"], "a handle thinner than its tang")
}

func full(t testing.TB) blade.Design {
	for _, s := range blade.Starters() {
		if s.Design.TangKind == blade.FullTang {
			return handled(s.Design)
		}
	}
	t.Fatal("no starter with a full tang")
	return blade.Design{}
}

// TestPinsKeepClear of edges, front and end.
func TestPinsKeepClear(t *testing.T) {
	d := full(t)
	d.Handle.Guard.LengthMm = 0
	d.Tang.Holes = []blade.Hole{{AtMm: 30, DiameterMm: 5}, {AtMm: d.Tang.LengthMm - 30, DiameterMm: 5}}
	h := finish.HandleOf(work(t, d, finish.Choices{}), 4)
	require.NotNil(t, h.Scales)
	require.Len(t, h.Scales.Pins, 2)
	assert.InDelta(t, d.Handle.WidthMm+1.5, h.Scales.Pins[0].LengthMm, 1e-9)
	for code, hole := range map[string]blade.Hole{
		"finish.pinFront": {AtMm: 8, DiameterMm: 5}, "finish.pinEnd": {AtMm: d.Tang.LengthMm - 8, DiameterMm: 5}, "finish.pinEdge": {AtMm: 40, DiameterMm: 5, OffMm: d.Tang.HeightAtShoulderMm/2 - 3},
	} {
		d.Tang.Holes = []blade.Hole{hole}
		assert.Contains(t, codes(finish.HandleOf(&finish.Work{Design: d, Steel: work(t, full(t), finish.Choices{}).Steel}, 4).Findings), code)
	}
}

// TestTheAngleGivesTheBevelBack: the height at which a bevel of this angle stops is where it meets
// the flat.
func TestTheAngleGivesTheBevelBack(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		s := section.Section{Kind: section.Flat, HeightMm: rapid.Float64Range(12, 60).Draw(rt, "h"), SpineMm: rapid.Float64Range(1.5, 8).Draw(rt, "ts"), EdgeMm: rapid.Float64Range(.1, 1).Draw(rt, "te")}
		s.BevelHeightMm = s.HeightMm * rapid.Float64Range(.2, 1).Draw(rt, "f")
		deg, high := s.Set()
		rise := math.Tan(deg*math.Pi/180) * high
		assert.InDelta(rt, (s.SpineMm-s.EdgeMm)/2, rise, 1e-9)
		assert.InDelta(rt, s.BevelHeightMm, high, 1e-9)
	})
}

// TestTheEdgeBevelMeetsItsFaces: the sharpened bevel ends where a line of its angle from the edge
// meets the ground face, looked for here by halving.
func TestTheEdgeBevelMeetsItsFaces(t *testing.T) {
	for _, st := range blade.Starters() {
		k := st.Design.Grind.Kind
		if k != section.Flat {
			continue
		}
		w := work(t, st.Design, finish.Choices{EdgeDeg: 18})
		e := finish.EdgeOf(w)
		sec := w.Steel.Finished.SectionAt(w.Steel.Finished.LengthMm() / 2)
		lo, hi := 0.0, 10.0
		for range 80 {
			// the edge is drawn down to nothing below the face's own lowest point
			mid := (lo + hi) / 2
			if math.Tan(18*math.Pi/180)*mid < sec.ThicknessAt(math.Min(mid, sec.HeightMm))/2 {
				lo = mid
			} else {
				hi = mid
			}
		}
		assert.InDelta(t, lo/math.Cos(18*math.Pi/180), e.BevelMm, .02*e.BevelMm+.01, st.ID)
	}
}

// TestStepsFollowTheWork: the order, what is left out once it is hard, and what surfaces ask for.
func TestStepsFollowTheWork(t *testing.T) {
	d := handled(hidden(t))
	ids := func(c finish.Choices, layered bool) (out []string) {
		w := work(t, d, c)
		w.Layered = layered
		for _, s := range finish.Steps(w) {
			out = append(out, s.ID)
			assert.LessOrEqual(t, s.LowMin, s.Minutes)
			assert.GreaterOrEqual(t, s.HighMin, s.Minutes)
		}
		return out
	}
	usual := ids(finish.Choices{}, false)
	assert.Equal(t, []string{"profile", "flats", "scribe", "bevels", "along", "hard-60", "hard-120", "hard-220", "hidden", "mark", "guard", "bore", "notches", "trial", "glue", "shape", "edge", "look"}, usual)
	assert.Contains(t, ids(finish.Choices{}, true), "etch")
	assert.NotContains(t, ids(finish.Choices{Hardened: true}, false), "bevels")
	assert.NotContains(t, ids(finish.Choices{}, false), "etch", "nobody asked for it")
	assert.Contains(t, ids(finish.Choices{Surface: finish.Satin400}, false), "sand-400")
	assert.NotContains(t, ids(finish.Choices{Surface: finish.Satin400}, false), "sand-600")
	assert.Contains(t, ids(finish.Choices{Surface: finish.Mirror}, false), "buff")
	assert.Contains(t, ids(finish.Choices{Surface: finish.AsForged}, false), "brush")
	assert.Contains(t, ids(finish.Choices{Cover: finish.Leather}, false), "sheath")
	minutes := func(c finish.Choices) (sum float64) {
		for _, s := range finish.Steps(work(t, d, c)) {
			sum += s.Minutes
		}
		return sum
	}
	assert.Greater(t, minutes(finish.Choices{Worn: true}), minutes(finish.Choices{}), "worn belts take longer")
}

// TestTheEdgeStaysUnderItsTemper: the time to dip is the law's, shorter for a lower temper.
func TestTheEdgeStaysUnderItsTemper(t *testing.T) {
	d := hidden(t)
	dip := func(temper float64) float64 {
		w := work(t, d, finish.Choices{})
		w.TemperC = temper
		for _, s := range finish.Steps(w) {
			if s.ID == "hard-60" {
				return s.DipS
			}
		}
		return -1
	}
	assert.Positive(t, dip(200))
	assert.Greater(t, dip(250), dip(200))
	assert.InEpsilon(t, (250.-30-20)/(200.-30-20), dip(250)/dip(200), 1e-9)
	assert.Zero(t, dip(0), "nobody knows its temper")
	_, err := finish.DipS(3, 5, 10, 20)
	var wrong *finish.RangeError
	require.ErrorAs(t, err, &wrong)
	assert.Equal(t, "limitC", wrong.Field)
}

// TestTheSheathGoesRound: wide enough for the blade where it is highest, closed, and longer than
// it.
func TestTheSheathGoesRound(t *testing.T) {
	for _, s := range blade.Starters() {
		w := work(t, s.Design, finish.Choices{Cover: finish.Leather})
		out := finish.SheathOf(w)
		assert.Greater(t, out.LongMm, s.Design.LengthMm, s.ID)
		assert.Greater(t, out.WrapMm, 2*s.Design.HeightMm, s.ID)
		assert.GreaterOrEqual(t, out.WeltMm, w.Steel.Finished.ThickestMm()-1e-9)
	}
	assert.Empty(t, finish.SheathOf(work(t, hidden(t), finish.Choices{})).Template)
}

// TestTheAccountAddsUp and its doubt is less than that of its parts together.
func TestTheAccountAddsUp(t *testing.T) {
	steps := finish.Steps(work(t, handled(hidden(t)), finish.Choices{}))
	a := finish.AccountOf(steps, finish.Before{ForgeMin: 30, CyclesMin: 10, HardenMin: 20, Steel: 3, Fuel: 2, HourPrice: 30}, finish.Prices{BeltPrice: 5, BlockPrice: 20, MarginShare: .1})
	sum, low, high := 0.0, 0.0, 0.0
	for _, h := range a.Hours {
		sum, low, high = sum+h.Min, low+h.Low, high+h.High
	}
	assert.InDelta(t, sum, a.Min, 1e-9)
	assert.Greater(t, a.Low, low)
	assert.Less(t, a.High, high)
	assert.InDelta(t, 3+2+math.Ceil(a.Belts)*5+20+sum/60*30, a.Cost, 1e-9)
	assert.InDelta(t, math.Ceil(a.Cost*1.1), a.Price, 0)
	assert.Zero(t, finish.PromiseDays(&a, finish.Queue{}))
	soon, late := finish.PromiseDays(&a, finish.Queue{HoursPerWeek: 14}), finish.PromiseDays(&a, finish.Queue{HoursPerWeek: 14, AheadMin: 1200})
	assert.Greater(t, late, soon)
}

// BenchmarkMap of 200 × 50 points, with readings and pits.
func BenchmarkMap(b *testing.B) {
	d := hidden(b)
	w := work(b, d, finish.Choices{Readings: []finish.Reading{{XMm: 30, YMm: 10, ThicknessMm: 3}, {XMm: 60, YMm: 10, ThicknessMm: 3.4}}})
	for b.Loop() {
		w.Steel.Off(200, 50, []finish.Pit{{XMm: 40, YMm: 12, Face: finish.Front, DepthMm: .4}})
	}
}
