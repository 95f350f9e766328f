package learn

import (
	"cmp"
	"slices"
	"strings"

	"coldember/core/plan"
)

// Key is whose factor of what.
type Key struct {
	Of   string `json:"of"`
	Kind Kind   `json:"kind" enum:"blow,scale,spread,bend,heats,time,loss,grind,sand,fit"`
}

// String is the key as it is kept and typed.
func (k Key) String() string { return string(k.Kind) + "|" + k.Of }

// Choice is what the shop says of a factor.
type Choice struct {
	Off    bool  `json:"off,omitempty"`
	FromMs int64 `json:"fromMs,omitempty" doc:"forgotten is what came before"`
	// Answers are what was said of pieces that were asked about.
	Answers []Answer `json:"answers,omitempty"`
	// Measured is what was measured of it on purpose; it is kept where it was measured.
	Measured *HourFactor `json:"-"`
}

// Answer is whether a piece counts that was asked about, by its session.
type Answer struct {
	Session string `json:"session"`
	Counts  bool   `json:"counts"`
}

// None tells whether nothing is said.
func (c Choice) None() bool { return !c.Off && c.FromMs == 0 && len(c.Answers) == 0 }

// Answered is the choice with what was said of a session in place of what was said before.
func (c Choice) Answered(a Answer) Choice {
	c.Answers = append(slices.DeleteFunc(slices.Clone(c.Answers), func(b Answer) bool { return b.Session == a.Session }), a)
	return c
}

// Lesson is a factor with what it comes from.
type Lesson struct {
	Key
	Factor
	Off    bool   `json:"off,omitempty"`
	FromMs int64  `json:"fromMs,omitempty"`
	Law    Factor `json:"law" doc:"before any piece: the table's figure and how sure it is"`

	Measured *HourFactor `json:"measured,omitempty" doc:"in an hour at the forge: it comes before the table's"`
	Records  []Record    `json:"records"`
	Held     []Held      `json:"held" doc:"whether each that counts lay in the band that was known before it"`
}

// Held is whether the band held for a piece: Low and High as it was before.
type Held struct {
	AtMs  int64   `json:"atMs"`
	Piece string  `json:"piece"`
	Ratio float64 `json:"ratio"`
	Low   float64 `json:"low80"`
	High  float64 `json:"high80"`
	In    bool    `json:"in"`
	Share float64 `json:"share" doc:"how often it held so far"`
}

// Book is everything that the records teach, by kind and whose.
func Book(records []Record, choices map[string]Choice) []Lesson {
	by := map[Key][]Record{}
	for _, r := range InOrder(records) {
		k := Key{r.Of, r.Kind}
		by[k] = append(by[k], r)
	}
	for key, ch := range choices {
		if kind, of, ok := strings.Cut(key, "|"); ok && ch.Measured != nil && by[Key{of, Kind(kind)}] == nil {
			by[Key{of, Kind(kind)}] = []Record{}
		}
	}
	out := []Lesson{}
	for k, list := range by {
		ch := choices[k.String()]
		law := 1.0
		if ch.Measured != nil {
			law = ch.Measured.Factor
		}
		l := Lesson{Measured: ch.Measured, Key: k, Off: ch.Off, FromMs: ch.FromMs, Records: list, Held: []Held{}}
		l.Law, _ = Learn(nil, k.Kind)
		var ratios []float64
		in := 0.0
		for i := range list {
			if r := &list[i]; r.AtMs < ch.FromMs {
				r.Counts, r.Why = false, "learn.forgotten"
			}
		}
		setAside(list, ch.Answers, law)
		for i := range list {
			r := &list[i]
			if !r.Counts {
				continue
			}
			before, err := From(ratios, k.Kind, ch.Measured)
			if err != nil {
				continue // more than can be kept
			}
			h := Held{AtMs: r.AtMs, Piece: r.Piece, Ratio: r.Ratio, Low: before.Low80, High: before.High80, In: r.Ratio >= before.Low80 && r.Ratio <= before.High80}
			if h.In {
				in++
			}
			h.Share = in / float64(len(l.Held)+1)
			l.Held = append(l.Held, h)
			ratios = append(ratios, r.Ratio)
		}
		l.Factor, _ = From(ratios, k.Kind, ch.Measured)
		out = append(out, l)
	}
	slices.SortFunc(out, func(a, b Lesson) int {
		return cmp.Or(cmp.Compare(a.Of, b.Of), cmp.Compare(slices.Index(Kinds(), a.Kind), slices.Index(Kinds(), b.Kind)))
	})
	return out
}

// For is what a plan of a smith at a forge goes by; nil where nothing was learned of either, or all of it is
// off.
func For(book []Lesson, smith, fire string) *plan.Learned {
	out, some := plan.Learned{}, false
	for i := range book {
		l := &book[i]
		whose := smith
		if l.Kind.ByForge() {
			whose = fire
		}
		if l.Off || l.N == 0 && l.Measured == nil || l.Of != whose {
			continue
		}
		some = true
		t := l.Taught()
		t.Measured = l.Measured != nil
		switch l.Kind {
		case Blow:
			out.Blow = t
		case Scale:
			out.Scale = t
		case Spread:
			out.Spread = t
		case Bend:
			out.Bend = t
		case Heats:
			out.Heats = t
		case Time:
			out.Time = t
		case Loss:
			out.Loss = t
		case Grinding:
			out.Grind = t
		case Sanding:
			out.Sand = t
		case Fitting:
			out.Fit = t
		}
	}
	if !some {
		return nil
	}
	return &out
}
