package learn_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/learn"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/session"
	"coldember/core/simulate"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestTheNextOneLiesInItsBand four times in five, whatever the spread, once there is some book: against draws, not
// against the formula.
func TestTheNextOneLiesInItsBand(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	in, all := 0, 0
	for range 4000 {
		// a smith as the prior has them: the variance scaled inverse chi-square, the mean within it
		chi := 0.0
		for range 3 {
			z := rng.NormFloat64()
			chi += z * z
		}
		sd := .2 * math.Sqrt(3/chi)
		mean := sd / math.Sqrt(learn.PriorWeight) * rng.NormFloat64()
		draw := func() float64 { return math.Exp(mean + sd*rng.NormFloat64()) }
		ratios := make([]float64, rng.IntN(9))
		for i := range ratios {
			ratios[i] = draw()
		}
		f, err := learn.Fit(ratios, .2, learn.PriorWeight)
		require.NoError(t, err)
		if r := draw(); r >= f.Low80 && r <= f.High80 {
			in++
		}
		all++
	}
	assert.InDelta(t, .8, float64(in)/float64(all), .02)
}

// TestAFactorIsBetweenTheLawAndWhatWas: shrunk, the same in any order, and more of the same makes it surer.
func TestAFactorIsBetweenTheLawAndWhatWas(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		ratio, n := rapid.Float64Range(.4, 2.5).Draw(rt, "ratio"), rapid.IntRange(1, 12).Draw(rt, "n")
		list := make([]float64, n)
		for i := range list {
			list[i] = ratio
		}
		few, err := learn.Fit(list, .3, learn.PriorWeight)
		require.NoError(rt, err)
		more, err := learn.Fit(append(list, list...), .3, learn.PriorWeight)
		require.NoError(rt, err)
		assert.LessOrEqual(rt, math.Abs(math.Log(few.Factor)), math.Abs(math.Log(ratio))+1e-12)
		assert.LessOrEqual(rt, math.Abs(math.Log(more.Factor/ratio)), math.Abs(math.Log(few.Factor/ratio))+1e-12)
	})
	for _, bad := range [][]float64{{0}, {-1}, {math.NaN()}, {math.Inf(1)}} {
		_, err := learn.Fit(bad, .3, 3)
		require.Error(t, err)
	}
}

// made is what some pieces of a hidden smith say, each planned with what was learned before.
func made(t *testing.T, smith simulate.Smith, pieces int, wish simulate.Wish) (records []learn.Record, worked []learn.Worked) {
	for n := range pieces {
		req := plantest.Request()
		req.CellCount = 30
		req.Learned = learn.For(learn.Book(records, nil), "yard", learn.ForgeOf(req.Fire))
		p, err := smith.Forge(context.Background(), req, n)
		require.NoError(t, err)
		wish.Device, wish.BeginMs = "d", int64(n+1)*1e9
		book := session.BookOf(p.Course(), p.Tell(wish))
		w := learn.Worked{Session: string(rune('a' + n)), Name: "knife", Smith: "yard", Course: p.Course(), Book: &book, Request: &req}
		records, worked = append(records, learn.Records(w)...), append(worked, w)
	}
	return records, worked
}

func lesson(t *testing.T, book []learn.Lesson, k learn.Kind) learn.Lesson {
	for _, l := range book {
		if l.Kind == k {
			return l
		}
	}
	require.Fail(t, "nothing of it was learned", k)
	return learn.Lesson{}
}

// TestAHiddenSmithIsFound: what a blow does and how deep the fire scales are found from the log alone, whatever was
// learned on the way.
func TestAHiddenSmithIsFound(t *testing.T) {
	smith := simulate.NewSmith(3, simulate.Within)
	smith.Energy, smith.Scale = 1.5, .6
	records, worked := made(t, smith, 10, simulate.Wish{})
	book := learn.Book(records, nil)
	blow, scale := lesson(t, book, learn.Blow), lesson(t, book, learn.Scale)
	assert.Equal(t, 10, blow.N)
	assert.InDelta(t, 1.5, blow.Factor.Factor, .2)
	assert.InDelta(t, .6, scale.Factor.Factor, .2)
	assert.Len(t, scale.Held, scale.N)
	last := scale.Held[len(scale.Held)-1]
	assert.Less(t, last.High-last.Low, scale.Held[0].High-scale.Held[0].Low, "the band narrows")
	habits := learn.HabitsOf(worked)
	require.Len(t, habits, 1)
	assert.Equal(t, 5, habits[0].Heats)
	assert.InDelta(t, 0, habits[0].StopsC, 15, "no more than is told as too cold: a crumb is worked off below the limit now and then")
	assert.Positive(t, habits[0].ThumbLoss)

	off := learn.Book(records, map[string]learn.Choice{learn.Key{Of: "yard", Kind: learn.Blow}.String(): {Off: true}})
	assert.Nil(t, learn.For(off, "yard", "").Blow)
	forgot := learn.Book(records, map[string]learn.Choice{learn.Key{Of: "yard", Kind: learn.Blow}.String(): {FromMs: 55e8}})
	assert.Equal(t, 5, lesson(t, forgot, learn.Blow).N, "what came before is left out")
	assert.Nil(t, learn.For(book, "somebody else", "another forge"))
}

// TestWhatWentWrongTeachesNothing: a piece with a fault does not count for what the fault touches, and says why.
func TestWhatWentWrongTeachesNothing(t *testing.T) {
	records, _ := made(t, simulate.NewSmith(4, simulate.Within), 1, simulate.Wish{Faults: map[int]simulate.Fault{3: {Fault: session.Fault{Kind: "bent"}}}})
	whys := map[learn.Kind]string{}
	for _, r := range records {
		assert.Equal(t, r.Why == "", r.Counts)
		whys[r.Kind] = r.Why
	}
	assert.Equal(t, "learn.fault", whys[learn.Scale])
	assert.Equal(t, "learn.fault", whys[learn.Heats])
	records, _ = made(t, simulate.NewSmith(4, simulate.Within), 1, simulate.Wish{Heats: 4})
	for _, r := range records {
		if r.Kind == learn.Heats || r.Kind == learn.Loss {
			assert.False(t, r.Counts)
		}
	}
}

// TestAFactorActsWhereItsLawIs, and by the table a plan is what it was.
func TestAFactorActsWhereItsLawIs(t *testing.T) {
	plain := plantest.Make(t, plantest.Request())
	with := func(l plan.Learned) *plan.Plan {
		r := plantest.Request()
		r.Learned = &l
		return plantest.Make(t, r)
	}
	factor := func(f float64) *plan.Taught { return &plan.Taught{Factor: f, ScaleLog: .2, N: 5} }
	strong := with(plan.Learned{Blow: factor(1.5), Heats: factor(1.2)})
	assert.Less(t, strong.Totals.Blows, plain.Totals.Blows)
	assert.InDelta(t, 1.2*float64(strong.Totals.Heats), strong.Really.Heats.Mid, 1e-9)
	assert.Less(t, strong.Really.Heats.Low, strong.Really.Heats.Mid)
	scaly := with(plan.Learned{Scale: factor(1.5)})
	assert.Greater(t, scaly.Bar.CutLengthMm, plain.Bar.CutLengthMm)
	assert.InDelta(t, 1.5, scaly.Bar.ScaleShare/plain.Bar.ScaleShare, .15)
	bent := with(plan.Learned{Bend: factor(2)})
	assert.InDelta(t, 2, bent.Bend.CurvaturePerMm/plain.Bend.CurvaturePerMm, 1e-6)
	r := plantest.Request()
	r.Learned, r.Choices.ByTable = &plan.Learned{Blow: factor(1.5), Scale: factor(2)}, true
	table, err := planner.Make(context.Background(), r)
	require.NoError(t, err)
	assert.Nil(t, table.Learned)
	assert.InDelta(t, plain.Bar.CutLengthMm, table.Bar.CutLengthMm, 0)
	r.Learned.Blow.Factor = 80
	require.Error(t, r.Validate())
}
