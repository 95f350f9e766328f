package cutting_test

import (
	"context"
	"math"
	"sort"
	"testing"

	"coldember/core/cutting"
	"coldember/core/fact"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func lay(t require.TestingT, j cutting.Job) cutting.Layout {
	l, err := cutting.Lay(context.Background(), j)
	require.NoError(t, err)
	return l
}

func TestKerfExactEndsAndRemnants(t *testing.T) {
	bars := []cutting.Run{{LengthMm: 1000, Count: 1}}
	for name, c := range map[string]struct {
		parts                        []cutting.Run
		keep                         float64
		remnant, consumed, unplacedN float64
	}{
		"one cut":                        {[]cutting.Run{{600, 1}}, 100, 398, 602, 0},
		"ends exactly, no cut":           {[]cutting.Run{{1000, 1}}, 100, 0, 1000, 0},
		"two, ends exactly after a kerf": {[]cutting.Run{{499, 2}}, 100, 0, 1000, 0},
		"left thinner than a kerf":       {[]cutting.Run{{999, 1}}, 100, 0, 1000, 0},
		"remnant too short to keep":      {[]cutting.Run{{950, 1}}, 100, 48, 1000, 0},
		"remnant just long enough":       {[]cutting.Run{{898, 1}}, 100, 100, 900, 0},
		"a part that does not fit":       {[]cutting.Run{{1001, 1}, {300, 1}}, 100, 698, 302, 1},
	} {
		l := lay(t, cutting.Job{Bars: bars, Parts: c.parts, KerfMm: 2, KeepMm: c.keep})
		require.Len(t, l.Bars, 1, name)
		assert.InDelta(t, c.remnant, l.Bars[0].RemnantMm, 1e-9, name)
		assert.InDelta(t, c.consumed, l.ConsumedMm, 1e-9, name)
		assert.Len(t, l.Unplaced, int(c.unplacedN), name)
		assert.True(t, l.Optimal, name)
	}
}

func TestEqualLayoutsPreferFewerBarsThenTheLongestRemnant(t *testing.T) {
	// both ways consume 2 × 302: on one bar is preferred, and on the longer one
	l := lay(t, cutting.Job{Bars: []cutting.Run{{1000, 1}, {1500, 1}}, Parts: []cutting.Run{{300, 2}}, KerfMm: 2, KeepMm: 50})
	require.Len(t, l.Bars, 1)
	assert.InDelta(t, 1500, l.Bars[0].LengthMm, 1e-9)
	assert.InDelta(t, 896, l.Bars[0].RemnantMm, 1e-9)
}

func TestNothingToCutAndNothingToCutFrom(t *testing.T) {
	assert.Empty(t, lay(t, cutting.Job{Bars: []cutting.Run{{100, 1}}}).Bars)
	l := lay(t, cutting.Job{Parts: []cutting.Run{{100, 2}}})
	assert.Equal(t, []float64{100, 100}, l.Unplaced)
	assert.True(t, l.Optimal)
	for field, j := range map[string]cutting.Job{
		"bars.0.lengthMm": {Bars: []cutting.Run{{-1, 1}}},
		"parts.0.count":   {Parts: []cutting.Run{{10, -1}}},
		"parts":           {Parts: []cutting.Run{{10, 300}, {11, 300}}},
		"kerfMm":          {KerfMm: math.NaN()},
		"keepMm":          {KeepMm: -1},
	} {
		_, err := cutting.Lay(context.Background(), j)
		var fe fact.FieldErrors
		require.ErrorAs(t, err, &fe, field)
		assert.Equal(t, field, fe[0].Field)
	}
}

// plan is one layout in the order they are preferred.
type plan struct{ unplaced, unplacedMm, consumed, bars, remnant float64 }

func (p plan) worse(q plan) bool {
	a, b := []float64{p.unplaced, p.unplacedMm, p.consumed, p.bars, -p.remnant}, []float64{q.unplaced, q.unplacedMm, q.consumed, q.bars, -q.remnant}
	for i := range a {
		if a[i] != b[i] {
			return a[i] > b[i]
		}
	}
	return false
}

// exhaustive tries every assignment of parts to bars, with its own reckoning.
func exhaustive(bars, parts []float64, kerf, keep float64) plan {
	best := plan{unplaced: math.Inf(1)}
	on := make([][]float64, len(bars))
	var try func(i int, unplaced, unplacedMm float64)
	try = func(i int, unplaced, unplacedMm float64) {
		if i == len(parts) {
			p := plan{unplaced: unplaced, unplacedMm: unplacedMm}
			for b, list := range on {
				if len(list) == 0 {
					continue
				}
				left := bars[b] - kerf*float64(len(list)-1)
				for _, l := range list {
					left -= l
				}
				if left < 0 {
					return
				}
				rest := math.Max(0, left-kerf) // the last cut, unless the part ends the bar
				p.bars++
				p.remnant = math.Max(p.remnant, rest)
				p.consumed += bars[b]
				if rest > 0 && rest >= keep {
					p.consumed -= rest
				}
			}
			if best.worse(p) {
				best = p
			}
			return
		}
		for b := range bars {
			on[b] = append(on[b], parts[i])
			try(i+1, unplaced, unplacedMm)
			on[b] = on[b][:len(on[b])-1]
		}
		try(i+1, unplaced+1, unplacedMm+parts[i])
	}
	try(0, 0, 0)
	return best
}

func summed(l cutting.Layout) plan {
	p := plan{unplaced: float64(len(l.Unplaced)), consumed: l.ConsumedMm, bars: float64(len(l.Bars))}
	for _, u := range l.Unplaced {
		p.unplacedMm += u
	}
	for _, b := range l.Bars {
		p.remnant = math.Max(p.remnant, b.RemnantMm)
	}
	return p
}

// TestSmallJobsEqualExhaustiveSearch in all five things that are preferred.
func TestSmallJobsEqualExhaustiveSearch(t *testing.T) {
	for range 3 { // a hundred cases each
		rapid.Check(t, againstExhaustive)
	}
}

func againstExhaustive(t *rapid.T) {
	length := func(lo, hi int, name string) float64 { return float64(rapid.IntRange(lo, hi).Draw(t, name)) }
	var j cutting.Job
	var bars, parts []float64
	for range rapid.IntRange(1, 3).Draw(t, "bars") {
		bars = append(bars, length(80, 200, "bar"))
	}
	for range rapid.IntRange(1, 6).Draw(t, "parts") {
		parts = append(parts, length(15, 90, "part"))
	}
	for _, b := range bars {
		j.Bars = append(j.Bars, cutting.Run{LengthMm: b, Count: 1})
	}
	for _, p := range parts {
		j.Parts = append(j.Parts, cutting.Run{LengthMm: p, Count: 1})
	}
	j.KerfMm, j.KeepMm = length(0, 4, "kerf"), length(0, 60, "keep")
	l := lay(t, j)
	require.True(t, l.Optimal)
	require.Equal(t, exhaustive(bars, parts, j.KerfMm, j.KeepMm), summed(l))
	require.InDelta(t, l.ConsumedMm, l.LowerBoundMm, 1e-9)
}

// class is forty parts of seven lengths on ten bars of three.
func class() cutting.Job {
	j := cutting.Job{Bars: []cutting.Run{{1000, 5}, {610, 3}, {1500, 2}}, KerfMm: 1.5, KeepMm: 120}
	for i, l := range []float64{127.3, 161.7, 108.1, 214.9, 96.4, 143.2, 88.8} {
		j.Parts = append(j.Parts, cutting.Run{LengthMm: l, Count: 5 + i%2*2})
	}
	return j
}

// TestALargeJobIsLaidWithItsGapStated, and nothing on it is lost or cut twice.
func TestALargeJobIsLaidWithItsGapStated(t *testing.T) {
	j := class()
	l := lay(t, j)
	require.Empty(t, l.Unplaced)
	var want, got []float64
	for _, r := range j.Parts {
		for range r.Count {
			want = append(want, r.LengthMm)
		}
	}
	consumed := 0.0
	for _, b := range l.Bars {
		sum := b.RemnantMm
		for _, p := range b.Parts {
			got = append(got, p)
			sum += p + j.KerfMm
		}
		require.GreaterOrEqual(t, b.LengthMm+j.KerfMm+1e-9, sum)
		consumed += b.LengthMm
		if b.RemnantMm >= j.KeepMm {
			consumed -= b.RemnantMm
		}
	}
	sort.Float64s(want)
	sort.Float64s(got)
	require.Equal(t, want, got)
	assert.InDelta(t, consumed, l.ConsumedMm, 1e-6)
	assert.LessOrEqual(t, l.LowerBoundMm, l.ConsumedMm)
	assert.Less(t, l.ConsumedMm/l.LowerBoundMm, 1.01, "within a hundredth of the best there can be")
	again := lay(t, j)
	assert.Equal(t, l, again, "the same job, the same layout")
}

func BenchmarkFortyPartsOnTenBars(b *testing.B) {
	for b.Loop() {
		lay(b, class())
	}
}
