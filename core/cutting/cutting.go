package cutting

import (
	"context"
	"math"
	"slices"
	"sort"

	"coldember/core/fact"
)

// Run is so many bars or parts of one length.
type Run struct {
	LengthMm float64 `json:"lengthMm"`
	Count    int     `json:"count"`
}

// Job is what is to be cut from what. A kerf is lost at every cut, none where a
// part ends its bar exactly; what is left thinner than a kerf is lost with it; a
// remnant of KeepMm or more goes back on the rack and is not consumed.
type Job struct {
	Bars   []Run   `json:"bars"`
	Parts  []Run   `json:"parts"`
	KerfMm float64 `json:"kerfMm"`
	KeepMm float64 `json:"keepMm"`
}

// Bar is one bar that is cut, its parts in falling length.
type Bar struct {
	LengthMm  float64   `json:"lengthMm"`
	Parts     []float64 `json:"parts"`
	RemnantMm float64   `json:"remnantMm"`
}

// Layout is the answer. LowerBoundMm is what no layout of the same parts can
// consume less than; Optimal says that this one is proven best.
type Layout struct {
	Bars         []Bar     `json:"bars"`
	ConsumedMm   float64   `json:"consumedMm"`
	LowerBoundMm float64   `json:"lowerBoundMm"`
	Optimal      bool      `json:"optimal"`
	Unplaced     []float64 `json:"unplaced,omitempty"`
}

// Limits of a job.
const (
	maxBars, maxParts = 200, 400
	maxLengthMm       = 20000
	micronsPerMm      = 1000 // lengths are compared as whole microns
)

// Validate reports every figure of the job that cannot be.
func (j Job) Validate() error {
	c := fact.NewCheck()
	count := func(name string, runs []Run, most int) {
		w, n := c.Within(name), 0
		for i, r := range runs {
			e := w.Within(itoa(i))
			e.Range("lengthMm", r.LengthMm, 1, maxLengthMm)
			e.Range("count", float64(r.Count), 0, float64(most))
			n += max(0, r.Count)
		}
		if n > most {
			c.Fail(name, "cutting.tooMany", fact.Figures{"most": float64(most)})
		}
	}
	count("bars", j.Bars, maxBars)
	count("parts", j.Parts, maxParts)
	c.Range("kerfMm", j.KerfMm, 0, 50)
	c.Range("keepMm", j.KeepMm, 0, maxLengthMm)
	return c.Err()
}

// Lay finds a layout. First it places as many parts as it can (and of equally
// many the longer), then it consumes the least; equal layouts prefer fewer bars,
// then the longest single remnant. It is deterministic: the search is bounded by
// steps, not by time. Errors are fact.FieldErrors or the context's.
func Lay(ctx context.Context, j Job) (Layout, error) {
	if err := j.Validate(); err != nil {
		return Layout{}, err
	}
	s := newSearch(j)
	s.greedy()
	if err := s.explore(ctx); err != nil {
		return Layout{}, err
	}
	return s.layout(), nil
}

func microns(mm float64) int { return int(math.Round(mm * micronsPerMm)) }
func mm(um int) float64      { return float64(um) / micronsPerMm }

// score orders layouts; less is better, from left to right.
type score struct {
	unplaced      int
	unplacedUm    int
	consumed      int
	bars          int
	longestNeeded int // minus the longest remnant
}

func (a score) less(b score) bool {
	x, y := []int{a.unplaced, a.unplacedUm, a.consumed, a.bars, a.longestNeeded}, []int{b.unplaced, b.unplacedUm, b.consumed, b.bars, b.longestNeeded}
	return slices.Compare(x, y) < 0
}

// search holds one job in microns: bars shortest first, parts longest first.
type search struct {
	kerf, keep int
	bars       []int
	parts      []int
	suffix     []int // of parts and their kerfs, from i on
	at         []int // bar of each part, −1: unplaced
	room       []int // of each bar, kerf of every part counted: may be −kerf when it is filled exactly
	load       []int // parts on each bar
	best       []int
	bestScore  score
	steps      int
	whole      bool
	total      int // of parts and their kerfs
}

// maxSteps bounds the search: about a second.
const maxSteps = 3_000_000

func newSearch(j Job) *search {
	s := &search{kerf: microns(j.KerfMm), keep: microns(j.KeepMm), whole: true}
	for _, r := range j.Bars {
		for range r.Count {
			s.bars = append(s.bars, microns(r.LengthMm))
		}
	}
	for _, r := range j.Parts {
		for range r.Count {
			s.parts = append(s.parts, microns(r.LengthMm))
		}
	}
	sort.Ints(s.bars)
	sort.Sort(sort.Reverse(sort.IntSlice(s.parts)))
	s.suffix = make([]int, len(s.parts)+1)
	for i := len(s.parts) - 1; i >= 0; i-- {
		s.suffix[i] = s.suffix[i+1] + s.parts[i] + s.kerf
	}
	s.total = s.suffix[0]
	s.clear()
	return s
}

func (s *search) clear() {
	s.at = make([]int, len(s.parts))
	s.room, s.load = slices.Clone(s.bars), make([]int, len(s.bars))
	for i := range s.at {
		s.at[i] = -1
	}
}

// fits tells whether a part of this length goes on bar b: its last cut may fall
// off the end.
func (s *search) fits(b, part int) bool { return s.room[b]-part >= 0 }

func (s *search) put(i, b int) {
	s.at[i] = b
	s.room[b] -= s.parts[i] + s.kerf
	s.load[b]++
}

func (s *search) take(i int) {
	b := s.at[i]
	s.at[i] = -1
	s.room[b] += s.parts[i] + s.kerf
	s.load[b]--
}

// remnant of a bar: what is left behind the last cut.
func (s *search) remnant(b int) int { return max(0, s.room[b]) }

// consumed of a bar.
func (s *search) consumed(b int) int {
	if s.load[b] == 0 {
		return 0
	}
	if r := s.remnant(b); r > 0 && r >= s.keep {
		return s.bars[b] - r
	}
	return s.bars[b]
}

func (s *search) score() score {
	v := score{}
	for i, b := range s.at {
		if b < 0 {
			v.unplaced++
			v.unplacedUm += s.parts[i]
		}
	}
	for b := range s.bars {
		if s.load[b] > 0 {
			v.consumed += s.consumed(b)
			v.bars++
			v.longestNeeded = min(v.longestNeeded, -s.remnant(b))
		}
	}
	return v
}

func (s *search) record() {
	if v := s.score(); s.best == nil || v.less(s.bestScore) {
		s.best, s.bestScore = slices.Clone(s.at), v
	}
}

func (s *search) layout() Layout {
	s.clear()
	out := Layout{Bars: []Bar{}}
	on := make([][]float64, len(s.bars))
	for i, b := range s.best {
		if b < 0 {
			out.Unplaced = append(out.Unplaced, mm(s.parts[i]))
			continue
		}
		s.put(i, b)
		on[b] = append(on[b], mm(s.parts[i]))
	}
	for b, parts := range on {
		if len(parts) > 0 {
			out.Bars = append(out.Bars, Bar{LengthMm: mm(s.bars[b]), Parts: parts, RemnantMm: mm(s.remnant(b))})
		}
	}
	consumed := s.bestScore.consumed
	bound := consumed
	if !s.whole {
		bound = min(consumed, s.bound())
	}
	out.ConsumedMm, out.LowerBoundMm, out.Optimal = mm(consumed), mm(bound), s.whole || bound >= consumed
	return out
}
