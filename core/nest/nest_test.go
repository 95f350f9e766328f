package nest_test

import (
	"context"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"coldember/core/nest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// blades are outlines like those of knives with their tangs, so many, each of its own.
func blades(n int, seed uint64) (out []nest.Part) {
	rng := rand.New(rand.NewPCG(seed, 9)) //nolint:gosec // the same with every run
	for range n {
		long, high, tang := 90+rng.Float64()*120, 22+rng.Float64()*22, 90+rng.Float64()*30
		var top, bottom nest.Polygon
		for i := range 25 {
			u := float64(i) / 24
			top = append(top, nest.Point{u * long, 0})
			bottom = append(bottom, nest.Point{u * long, -high * math.Min(1, math.Sqrt(u*2.2))})
		}
		p := append(nest.Polygon{}, top...)
		p = append(p, nest.Point{long + tang, -high * .15}, nest.Point{long + tang, -high * .5}, nest.Point{long, -high * .7})
		slices.Reverse(bottom)
		out = append(out, nest.Part{Outline: append(p, bottom...), Count: 1})
	}
	return out
}

// shelves lays rectangles around the parts in rows, each row as high as its highest: what a
// smith does by eye. It answers how much of the sheet that uses, and how many lie on it.
func shelves(j nest.Job, longMm, wideMm float64) (usedMm2 float64, n int) {
	type box struct{ w, h float64 }
	var all []box
	for _, p := range j.Parts {
		l, h := p.Outline.Bounds()
		for range p.Count {
			all = append(all, box{h[0] - l[0], h[1] - l[1]})
		}
	}
	slices.SortStableFunc(all, func(a, b box) int { return int(math.Copysign(1, b.h-a.h)) })
	x, y, row, along := j.MarginMm, j.MarginMm, 0.0, 0.0
	for _, b := range all {
		if x+b.w > longMm-j.MarginMm {
			x, y, row = j.MarginMm, y+row+j.GapMm, 0
		}
		if y+b.h > wideMm-j.MarginMm || x+b.w > longMm-j.MarginMm {
			break
		}
		n++
		row, along = math.Max(row, b.h), math.Max(along, x+b.w)
		x += b.w + j.GapMm
	}
	return math.Min(math.Min(longMm, along+j.GapMm)*wideMm, longMm*math.Min(wideMm, y+row+j.GapMm)), n
}

func job(n int, seed uint64) nest.Job {
	return nest.Job{
		Sheet: nest.Rectangle(nest.Point{}, 600, 300), Parts: blades(n, seed), GapMm: 3, MarginMm: 4, MostTurnDeg: 20, Flip: true,
		Bad: []nest.Polygon{nest.Circle(nest.Point{180, 120}, 14), nest.Rectangle(nest.Point{380, 30}, 50, 8)},
	}
}

// overlap is found by points alone: no point of a part, on its rim or inside, lies in another,
// in a bad place, or off the sheet.
func overlap(t require.TestingT, j nest.Job, placed []nest.Placed) {
	at := j.Outlines(placed)
	for i, p := range at {
		low, high := p.Bounds()
		for x := low[0]; x <= high[0]; x += 1.7 {
			for y := low[1]; y <= high[1]; y += 1.7 {
				q := nest.Point{x, y}
				if !p.Has(q) {
					continue
				}
				require.True(t, j.Sheet.Has(q), "part %d off the sheet at %v", i, q)
				for _, b := range j.Bad {
					require.False(t, b.Has(q), "part %d on a bad place at %v", i, q)
				}
				for k := range i {
					require.False(t, at[k].Has(q), "parts %d and %d at %v", i, k, q)
				}
			}
		}
	}
}

// TestTwelveBladesLieOnAPlate around its holes, none over another, and never on more of it
// than rows take.
func TestTwelveBladesLieOnAPlate(t *testing.T) {
	for seed := range uint64(2) {
		j := job(12, seed)
		l, err := nest.Lay(context.Background(), j)
		require.NoError(t, err)
		assert.Empty(t, j.Check(l.Placed))
		overlap(t, j, l.Placed)
		assert.Len(t, l.Placed, 12, "seed %d", seed)
		again, err := nest.Lay(context.Background(), j)
		require.NoError(t, err)
		assert.Equal(t, l, again, "the same with every run")

		j.Bad = nil
		l, err = nest.Lay(context.Background(), j)
		require.NoError(t, err)
		used, n := shelves(j, 600, 300)
		assert.GreaterOrEqual(t, len(l.Placed), n)
		if len(l.Placed) == n {
			assert.LessOrEqual(t, l.UsedMm2, used+1e-6, "rows")
		}
		for _, p := range l.Placed {
			off := math.Min(math.Min(p.TurnDeg, math.Abs(p.TurnDeg-180)), 360-p.TurnDeg)
			assert.LessOrEqual(t, off, 20.0, "along the rolling")
		}
	}
}

// TestAnyLayoutIsSound on rectangles and discs, with bad places anywhere and parts that are
// held: eight draws with every run, two hundred with LONG=1.
func TestAnyLayoutIsSound(t *testing.T) {
	n := uint64(8)
	if os.Getenv("LONG") != "" {
		n = 200
	}
	for seed := range n {
		rng := rand.New(rand.NewPCG(seed, 4)) //nolint:gosec // the same with every run
		in := func(low, high float64) float64 { return low + (high-low)*rng.Float64() }
		j := nest.Job{
			Sheet: nest.Rectangle(nest.Point{-20, 10}, in(200, 500), in(50, 250)), Parts: blades(1+rng.IntN(4), seed),
			GapMm: in(.1, 6), MarginMm: in(0, 10), MostTurnDeg: []float64{0, 15, 90}[rng.IntN(3)], Flip: rng.IntN(2) == 0,
		}
		if rng.IntN(3) == 0 {
			j.Sheet = nest.Circle(nest.Point{0, 0}, in(120, 250))
		}
		for range rng.IntN(4) {
			j.Bad = append(j.Bad, nest.Circle(nest.Point{in(0, 300), in(0, 150)}, in(3, 30)))
		}
		l, err := nest.Lay(context.Background(), j)
		require.NoError(t, err)
		require.Empty(t, j.Check(l.Placed), "%d", seed)
		overlap(t, j, l.Placed)
		require.Len(t, j.Parts, len(l.Placed)+len(l.Unplaced))
		if len(l.Placed) > 0 {
			held := j
			held.Held = l.Placed[:1]
			again, err := nest.Lay(context.Background(), held)
			require.NoError(t, err)
			require.Equal(t, l.Placed[0], again.Placed[0], "what is held stays")
			require.Empty(t, held.Check(again.Placed))
		}
	}
}

// TestCheckFindsWhatTouches exactly, to the millionth of a millimetre.
func TestCheckFindsWhatTouches(t *testing.T) {
	square := nest.Rectangle(nest.Point{}, 10, 10)
	j := nest.Job{Sheet: nest.Rectangle(nest.Point{}, 100, 50), Parts: []nest.Part{{Outline: square, Count: 2}}, GapMm: 2, MarginMm: 3, MostTurnDeg: 0}
	at := func(x float64) []nest.Placed { return []nest.Placed{{XMm: 3, YMm: 3}, {XMm: x, YMm: 3}} }
	assert.Empty(t, j.Check(at(15)))
	near := j.Check(at(15 - 2e-5))
	require.Len(t, near, 1)
	assert.InDelta(t, 2-2e-5, near[0].NearMm, 1e-9)
	faults := j.Check([]nest.Placed{{XMm: 3, YMm: 3}, {XMm: 5, YMm: 5}})
	require.Len(t, faults, 1)
	assert.Zero(t, faults[0].NearMm, "over each other")
	faults = j.Check([]nest.Placed{{XMm: 2.5, YMm: 3}})
	require.Len(t, faults, 1)
	assert.InDelta(t, 2.5, faults[0].NearMm, 1e-9)
	assert.Equal(t, -1, faults[0].Other)
	j.Bad = []nest.Polygon{nest.Rectangle(nest.Point{5, 5}, 1, 1)}
	assert.NotEmpty(t, j.Check([]nest.Placed{{XMm: 3, YMm: 3}}), "a bad place inside it")
	assert.NotEmpty(t, j.Check([]nest.Placed{{XMm: 200, YMm: 3}}), "off the sheet")
}

// TestAPartThatJustFits is found: a square in a sheet that is hardly larger.
func TestAPartThatJustFits(t *testing.T) {
	j := nest.Job{Sheet: nest.Rectangle(nest.Point{}, 112, 52), Parts: []nest.Part{{Outline: nest.Rectangle(nest.Point{}, 100, 40), Count: 2}}, MarginMm: 3, GapMm: 1, MostTurnDeg: 0}
	l, err := nest.Lay(context.Background(), j)
	require.NoError(t, err)
	assert.Len(t, l.Placed, 1)
	assert.Equal(t, []int{0}, l.Unplaced)
	assert.InEpsilon(t, 280, l.CutMm, 1e-9)
	assert.InEpsilon(t, 4000, l.PartsMm2, 1e-9)
}

// TestAJobThatCannotBeIsRefused, field by field; one that is called off ends.
func TestAJobThatCannotBeIsRefused(t *testing.T) {
	good := job(2, 1)
	for field, bad := range map[string]func(j *nest.Job){
		"sheet":           func(j *nest.Job) { j.Sheet = j.Sheet[:2] },
		"parts.0.outline": func(j *nest.Job) { j.Parts = []nest.Part{{Outline: nest.Rectangle(nest.Point{}, 9000, 4), Count: 1}} },
		"parts":           func(j *nest.Job) { j.Parts = nil },
		"parts.0.count":   func(j *nest.Job) { j.Parts[0].Count = 900 },
		"gapMm":           func(j *nest.Job) { j.GapMm = -1 },
		"marginMm":        func(j *nest.Job) { j.MarginMm = math.NaN() },
		"held.0":          func(j *nest.Job) { j.Held = []nest.Placed{{Part: 7}} },
		"bad.0":           func(j *nest.Job) { j.Bad = []nest.Polygon{{{0, 0}, {math.NaN(), 1}, {2, 2}}} },
	} {
		j := good
		j.Parts = slices.Clone(good.Parts)
		bad(&j)
		_, err := nest.Lay(context.Background(), j)
		assert.ErrorContains(t, err, field)
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err := nest.Lay(ctx, good)
	assert.ErrorIs(t, err, context.Canceled)
}

func BenchmarkTwelveOutlines(b *testing.B) {
	j := job(12, 3)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := nest.Lay(context.Background(), j); err != nil {
			b.Fatal(err)
		}
	}
}
