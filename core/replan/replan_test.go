package replan_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/replan"
	"coldember/core/session"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// after is a piece after so many heats of its plan.
func after(t require.TestingT, req plan.Request, heat int) (*plan.Plan, replan.Now) {
	p := plantest.Make(t, req)
	c := session.Freeze(&req, p, nil)
	return p, replan.At(&c, heat, c.Heats[heat-1].Last+1)
}

// stations reads a shape at so many places, changed by f.
func stations(n replan.Now, count int, f func(x float64, s *replan.Place)) []replan.Place {
	long := n.Shape[len(n.Shape)-1].XMm
	var out []replan.Place
	for i := range count {
		x := long * (float64(i) + .5) / float64(count)
		best := n.Shape[0]
		for _, s := range n.Shape {
			if math.Abs(s.XMm-x) < math.Abs(best.XMm-x) {
				best = s
			}
		}
		s := replan.Place{AtMm: best.XMm, HeightMm: best.HeightMm(), ThicknessMm: best.ThicknessMm}
		if len(out) > 0 && s.AtMm <= out[len(out)-1].AtMm {
			continue
		}
		if f != nil {
			f(x, &s)
		}
		out = append(out, s)
	}
	return out
}

func still(t require.TestingT, req plan.Request, m replan.Measured, n replan.Now) *replan.Remains {
	r, err := replan.Still(context.Background(), req, m, n, nil)
	require.NoError(t, err)
	return r
}

// TestAPieceAsPlannedStaysAsPlanned, at any moment: nothing is short, and as many heats are left, within one.
func TestAPieceAsPlannedStaysAsPlanned(t *testing.T) {
	req := plantest.Request()
	whole := plantest.Make(t, req)
	for heat := 2; heat < len(whole.Heats)-3; heat += 2 {
		p, n := after(t, req, heat)
		r := still(t, req, replan.Measured{Stations: stations(n, 12, nil)}, n)
		require.Len(t, r.Ways, 1, "heat %d, worst %+v", heat, r.Worst)
		assert.Equal(t, "asPlanned", r.Ways[0].What)
		assert.InDelta(t, p.Totals.Heats-heat, r.Ways[0].Heats, 1.01, "after heat %d", heat)
		assert.True(t, r.Enough)
		assert.InDelta(t, req.Design.LengthMm, r.StopMm, req.Design.LengthMm*.03)
	}
}

// TestAWeighingAloneSays whether there is steel enough, and where to stop.
func TestAWeighingAloneSays(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 6)
	r := still(t, req, replan.Measured{Stations: stations(n, 3, nil)}, n)
	light := still(t, req, replan.Measured{WeightG: r.CaliperG * .85}, n)
	assert.False(t, light.Enough)
	assert.Less(t, light.StopMm, req.Design.LengthMm*.9)
	assert.Greater(t, light.StopMm, req.Design.LengthMm*.5)
	assert.True(t, still(t, req, replan.Measured{WeightG: r.CaliperG}, n).Enough)
}

// TestStationsAreMet: the piece as it is goes through every station, and weighs what the scale says.
func TestStationsAreMet(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 8)
	rng := rand.New(rand.NewPCG(5, 6))
	met := 0
	for range 8 {
		m := replan.Measured{Stations: stations(n, 6, func(_ float64, s *replan.Place) {
			s.HeightMm *= .93 + .12*rng.Float64()
			s.ThicknessMm *= .9 + .12*rng.Float64()
		})}
		r := still(t, req, m, n)
		for _, s := range m.Stations {
			k := 1
			for k < len(r.AsIs)-1 && r.AsIs[k].XMm < s.AtMm {
				k++
			}
			a, b := &r.AsIs[k-1], &r.AsIs[k]
			if a.Zone != b.Zone || math.Abs(a.HeightMm()-b.HeightMm()) > .05*a.HeightMm() {
				continue // a step lies between them
			}
			u := (s.AtMm - a.XMm) / (b.XMm - a.XMm)
			if u < 0 || u > 1 {
				continue
			}
			met++
			high, thick := a.HeightMm()+u*(b.HeightMm()-a.HeightMm()), a.ThicknessMm+u*(b.ThicknessMm-a.ThicknessMm)
			if s.AtMm > r.AsIs[0].XMm+3 { // the very point has no height to speak of
				assert.InEpsilon(t, s.HeightMm, high, .01)
				assert.InEpsilon(t, s.ThicknessMm, thick, .01)
			}
		}
		m.WeightG, m.Trust = r.CaliperG*1.03, replan.TrustWeight
		assert.InEpsilon(t, m.WeightG, still(t, req, m, n).MassG, 1e-9)
	}
	assert.Greater(t, met, 30)
}

func what(r *replan.Remains) map[string]replan.Way {
	out := map[string]replan.Way{}
	for _, w := range r.Ways {
		out[w.What] = w
	}
	return out
}

// TestWorkedCases: what a smith meets, and what is then offered.
func TestWorkedCases(t *testing.T) {
	req := plantest.Request()
	heat := 9
	_, n := after(t, req, heat)
	long := n.Shape[len(n.Shape)-1].XMm
	t.Run("a deep blow in the middle of the blade", func(t *testing.T) {
		r := still(t, req, replan.Measured{LengthMm: long * 1.01, Stations: stations(n, 40, func(x float64, s *replan.Place) {
			if math.Abs(x-long*.35) < long*.02 {
				s.ThicknessMm *= .75
			}
		})}, n)
		ways := what(r)
		require.NotContains(t, ways, "asPlanned")
		require.NotNil(t, r.Worst)
		assert.InDelta(t, long*.35, r.Worst.AtMm, long*.03)
		assert.Equal(t, "replan.cannotHeal", r.Heal.Code, "too far from an end to be driven up")
		assert.NotContains(t, ways, "heal")
		require.NotEmpty(t, r.Ways)
		for i, w := range r.Ways {
			assert.Positive(t, w.Heats, w.What)
			if i > 0 {
				assert.GreaterOrEqual(t, w.GivenUp, r.Ways[i-1].GivenUp)
			}
		}
	})
	t.Run("a bar that came out short", func(t *testing.T) {
		_, n := after(t, req, 2)
		r := still(t, req, replan.Measured{Stations: stations(n, 10, nil), WeightG: n.VolumeMm3 * 7.85e-3 * .88, Trust: replan.TrustWeight}, n)
		assert.False(t, r.Enough)
		ways := what(r)
		require.Contains(t, ways, "shorter")
		assert.Less(t, ways["shorter"].Design.LengthMm, req.Design.LengthMm)
		assert.Equal(t, "replan.tooLittle", r.Heal.Code)
	})
	t.Run("a point burnt off", func(t *testing.T) {
		m := replan.Measured{LengthMm: long - 28}
		for _, s := range stations(n, 12, nil) {
			if s.AtMm -= 28; s.AtMm > 1 {
				m.Stations = append(m.Stations, s)
			}
		}
		r := still(t, req, m, n)
		ways := what(r)
		require.NotContains(t, ways, "asPlanned")
		require.Contains(t, ways, "shorter")
		assert.InDelta(t, req.Design.LengthMm-28, ways["shorter"].Design.LengthMm, 20)
		_, rest, ok, err := replan.Take(context.Background(), req, m, n, nil, "shorter", "")
		require.NoError(t, err)
		require.True(t, ok)
		assert.Equal(t, ways["shorter"].Heats, rest.Totals.Heats, "what is taken is what was offered")
		points := 0
		for _, o := range rest.Operations {
			if o.Kind == "point" {
				points++
			}
		}
		assert.Positive(t, points, "its point is forged again")
	})
}

// TestAWeldThatCracked behind the shoulder takes the tang with it: the same length is gone as if the point were, and what
// is left has its point still.
func TestAWeldThatCracked(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 6)
	long := n.Shape[len(n.Shape)-1].XMm
	const off = 45.0
	m := replan.Measured{LengthMm: long - off, Lost: replan.TangEnd}
	for _, s := range stations(n, 12, nil) {
		if s.AtMm < long-off {
			m.Stations = append(m.Stations, s)
		}
	}
	r := still(t, req, m, n)
	ways := what(r)
	require.NotContains(t, ways, "asPlanned")
	assert.InDelta(t, n.Shape[0].HeightMm(), r.AsIs[0].HeightMm(), 1.5, "its point is there")
	require.Contains(t, ways, "shorter")
	assert.Less(t, ways["shorter"].Design.LengthMm, req.Design.LengthMm-5)
	m.Lost = replan.PointEnd
	for i := range m.Stations {
		m.Stations[i] = stations(n, 12, nil)[i]
	}
	other := still(t, req, replan.Measured{LengthMm: long - off, WeightG: r.MassG, Trust: replan.TrustWeight}, n)
	assert.NotEqual(t, r.AsIs[0].HeightMm(), other.AsIs[0].HeightMm())
}

// TestAPatternThatRunsOut: behind a place the steel is good for a handle and no more. All that is offered ends its blade
// before it, more of the pattern never offers less, and where it reaches as far as the blade nothing is lost.
func TestAPatternThatRunsOut(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 6)
	blade := 0.0
	for _, s := range n.Shape {
		if s.Zone == plan.ZoneBlade || s.Zone == plan.ZonePoint {
			blade = math.Max(blade, s.XMm)
		}
	}
	longest := 0.0
	for _, share := range []float64{.7, .8, .9, 1.1} {
		r := still(t, req, replan.Measured{GoodToMm: blade * share}, n)
		ways := what(r)
		if share > 1 {
			require.Contains(t, ways, "asPlanned")
			continue
		}
		require.NotContains(t, ways, "asPlanned")
		require.NotNil(t, r.Worst)
		assert.InDelta(t, blade*share, r.Worst.AtMm, 1e-9)
		assert.False(t, r.Heal.Can, "no pattern is driven in")
		require.Contains(t, ways, "shorter")
		got := ways["shorter"].Design.LengthMm
		assert.InDelta(t, share, got/req.Design.LengthMm, .12)
		assert.Greater(t, got, longest)
		longest = got
	}
}

// TestMoreSteelNeverOffersLess: where every station is thicker, what fitted before still fits, with no more given up.
func TestMoreSteelNeverOffersLess(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 6)
	rng := rand.New(rand.NewPCG(7, 8))
	for range 10 {
		k, more := .75+.25*rng.Float64(), 1.01+.14*rng.Float64()
		at := func(k float64) map[string]replan.Way {
			return what(still(t, req, replan.Measured{Stations: stations(n, 8, func(_ float64, s *replan.Place) { s.ThicknessMm *= k })}, n))
		}
		less, then := at(k), at(math.Min(1, k*more))
		if _, ok := then["asPlanned"]; ok {
			continue
		}
		for name, w := range less {
			require.Contains(t, then, name)
			assert.LessOrEqual(t, then[name].GivenUp, w.GivenUp+.02, name)
		}
	}
}

// TestWhatCannotBeMeasuredIsTold at its field, with what would do.
func TestWhatCannotBeMeasuredIsTold(t *testing.T) {
	req := plantest.Request()
	_, n := after(t, req, 6)
	ask := func(m replan.Measured) fact.FieldError {
		_, err := replan.Still(context.Background(), req, m, n, nil)
		var fields fact.FieldErrors
		require.ErrorAs(t, err, &fields)
		return fields[0]
	}
	assert.Equal(t, "replan.none", ask(replan.Measured{}).Code)
	ok := replan.Place{AtMm: 40, HeightMm: 22, ThicknessMm: 4}
	order := ask(replan.Measured{Stations: []replan.Place{ok, {AtMm: 30, HeightMm: 22, ThicknessMm: 4}}})
	assert.Equal(t, "stations.1.atMm", order.Field)
	assert.Equal(t, "replan.order", order.Code)
	thick := ask(replan.Measured{Stations: []replan.Place{{AtMm: 40, HeightMm: 22, ThicknessMm: 12}}})
	assert.Equal(t, "replan.thicker", thick.Code)
	assert.Less(t, thick.Figures["limitMm"], 12.0)
	r := still(t, req, replan.Measured{Stations: stations(n, 5, nil), WeightG: 40}, n)
	assert.True(t, r.Differ, "which to trust is asked")
	assert.Empty(t, r.Ways)
}

// BenchmarkStill is the ranked list of twelve stations.
func BenchmarkStill(b *testing.B) {
	req := plantest.Request()
	_, n := after(b, req, 9)
	m := replan.Measured{Stations: stations(n, 12, func(_ float64, s *replan.Place) { s.ThicknessMm *= .85 })}
	for b.Loop() {
		_, _ = replan.Still(context.Background(), req, m, n, nil)
	}
}

// TestItEndsAtTheTargetOrSaysWhere: pieces half forged, read with a hammer's errors, end within .3 mm of what is to be
// forged, or their way says where they do not, and why.
func TestItEndsAtTheTargetOrSaysWhere(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	at, all := 0, 0
	for _, id := range []string{"utility", "rigging", "hook", "camp", "skinner", "billhook", "clip", "fillet"} {
		d := plantest.Starter(id)
		r := plan.NewRequest(d, "1084", plantest.Flat(d.HeightMm*1.05, d.SpineMm+2.5, 1200), forge.Steady)
		r.CellCount = 40
		p := plantest.Make(t, r)
		for _, share := range []float64{.35, .6, .85} {
			_, now := after(t, r, max(2, int(share*float64(p.Totals.Heats))))
			left := still(t, r, replan.Measured{Stations: stations(now, 9, func(_ float64, s *replan.Place) {
				s.HeightMm *= .98 + .04*rng.Float64()
				s.ThicknessMm *= .99 + .07*rng.Float64()
			})}, now)
			require.NotEmpty(t, left.Ways, id)
			all++
			if len(left.Ways[0].Misses) == 0 {
				at++
			}
			for _, m := range left.Ways[0].Misses {
				assert.Greater(t, math.Max(math.Abs(m.HighMm), math.Abs(m.ThickMm)), .3)
				assert.NotEmpty(t, m.Why)
				assert.Positive(t, m.AtMm)
			}
		}
	}
	t.Logf("%d of %d", at, all)
	assert.GreaterOrEqual(t, at, all*3/4)
}
