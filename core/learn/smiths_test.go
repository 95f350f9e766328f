package learn_test

import (
	"context"
	"math"
	"strconv"
	"testing"

	"coldember/core/learn"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/session"
	"coldember/core/simulate"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// requests are pieces that a smith makes by turns.
func requests() []plan.Request {
	out := []plan.Request{}
	for _, id := range []string{"rigging", "bench"} {
		r := plantest.Request()
		r.CellCount = 30
		if id == "bench" {
			r = plantest.Sanity(25, 5)
			r.CellCount = 30
		}
		out = append(out, r)
	}
	return out
}

// school is what came of some smiths, from their fifth piece on.
type school struct {
	in, all, inside, insideAll int
	timeIn, timeAll            int
	errTable, errBook          float64
	n                          int
}

// run has hidden smiths make pieces, each planned with what its book taught until then.
func (s *school) run(t testing.TB, smiths, pieces int) {
	reqs := requests()
	for k := range smiths {
		outside := simulate.Within
		if k%4 == 3 {
			outside = simulate.Outside(1 + k/4%3)
		}
		smith := simulate.NewSmith(uint64(100+k), outside)
		var records []learn.Record
		for n := range pieces {
			req := reqs[n%len(reqs)]
			req.Learned = learn.For(learn.Book(records, nil), "yard", learn.ForgeOf(req.Fire))
			p, err := smith.Forge(context.Background(), req, n)
			if err != nil {
				continue // this smith cannot forge it at all
			}
			events := p.Tell(simulate.Wish{Device: "d", BeginMs: int64(n+1) * 1e9})
			book := session.BookOf(p.Course(), events)
			planned := float64(p.Planned.Totals.Heats)
			mid, low, high := planned, planned, planned
			if r := req.Learned.OfHeats().Pace(planned); r != nil {
				mid, low, high = r.Mid, r.Low, r.High
			}
			was := float64(book.Totals.Heats)
			if r := req.Learned.OfTime().Pace(p.Planned.Totals.LastsS()); r != nil && n >= 4 && outside == simulate.Within {
				if s.timeAll++; book.Totals.LastsS >= r.Low && book.Totals.LastsS <= r.High {
					s.timeIn++
				}
			}
			if n >= 4 {
				table := req
				table.Learned = nil
				by, err := planner.Make(context.Background(), table)
				require.NoError(t, err)
				held := was >= low && was <= high
				s.n++
				s.errTable += math.Abs(math.Log(was / float64(by.Totals.Heats)))
				s.errBook += math.Abs(math.Log(was / mid))
				s.all++
				if held {
					s.in++
				}
				if outside == simulate.Within {
					s.insideAll++
					if held {
						s.inside++
					}
				}
			}
			records = append(records, learn.Records(learn.Worked{Session: "s" + strconv.Itoa(n), Name: "piece", Smith: "yard", Course: p.Course(), Book: &book, Request: &req})...)
		}
	}
}

// TestABookNarrowsWhatIsForecast: hidden smiths, a quarter of them outside of what is learned by.
func TestABookNarrowsWhatIsForecast(t *testing.T) {
	var s school
	s.run(t, 4, 10)
	require.Greater(t, s.all, 12)
	t.Logf("inside %d of %d, all %d of %d; error of heats %.3f by the table, %.3f by the book", s.inside, s.insideAll, s.in, s.all, s.errTable/float64(s.n), s.errBook/float64(s.n))
	assert.Less(t, s.errBook, s.errTable*2/3, "by a third at the least")
	assert.Greater(t, float64(s.in)/float64(s.all), .6)
}

// BenchmarkSmiths is forty of them and thirty pieces each: how often the band of heats held, and by how much the forecast
// is off, by the table and by the book.
func BenchmarkSmiths(b *testing.B) {
	var s school
	for b.Loop() {
		s = school{}
		s.run(b, 40, 30)
	}
	b.ReportMetric(100*float64(s.inside)/float64(s.insideAll), "%held-inside")
	b.ReportMetric(100*float64(s.in)/float64(s.all), "%held-all")
	b.ReportMetric(100*float64(s.timeIn)/float64(s.timeAll), "%minutes-held")
	b.ReportMetric(s.errTable/float64(s.n), "error-table")
	b.ReportMetric(s.errBook/float64(s.n), "error-book")
}
