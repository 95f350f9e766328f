package remedy

import (
	"context"
	"fmt"
	"slices"
	"strconv"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/internal/doc"
	"coldember/internal/edit"
)

// Found is a remedy of a finding.
type Found struct {
	Finding int         `json:"finding" doc:"its number among the findings of the plan, from 0"`
	Remedy  fact.Remedy `json:"remedy"`
}

// Bounds of one search (judgement: some two seconds of an ordinary knife).
const (
	mostPlans = 60
	mostSteps = 4 // that a proposal is taken further: the figure that the next plan asks for, or what came with it
)

// search is one for the remedies of a plan.
type search struct {
	ctx   context.Context
	doc   doc.Piece
	plan  *plan.Plan
	make  func(context.Context, doc.Piece) (*plan.Plan, error)
	tell  func(Found) error
	tried map[string]*plan.Plan // by the edits; nil: it cannot be
	open  []int                 // findings without a remedy, the heaviest first
}

// Find looks for a remedy of every finding of the plan of a document, and tells each once. First what each finding proposes
// itself, then what is near at hand. Errors are those of tell and of the context.
func Find(ctx context.Context, d doc.Piece, p *plan.Plan, makePlan func(context.Context, doc.Piece) (*plan.Plan, error), tell func(Found) error) error {
	s := &search{ctx: ctx, doc: d, plan: p, make: makePlan, tell: tell, tried: map[string]*plan.Plan{}}
	for i := range p.Warnings {
		s.open = append(s.open, i)
	}
	slices.SortStableFunc(s.open, func(a, b int) int { return weight(p.Warnings[b].Severity) - weight(p.Warnings[a].Severity) })
	if err := s.own(); err != nil {
		return err
	}
	for _, r := range moves(d.Request) {
		if len(s.open) == 0 {
			break
		}
		if err := s.move(r); err != nil {
			return err
		}
	}
	return ctx.Err()
}

// own follows what each finding proposes, step by step: where the next plan asks for another figure, or for something
// else, that is taken too.
func (s *search) own() error {
	proposed := map[int]fact.Remedy{}
	for _, i := range s.open {
		if r := s.plan.Warnings[i].Remedy; r != nil {
			proposed[i] = *r
		}
	}
	for range mostSteps {
		for _, i := range slices.Clone(s.open) {
			r, ok := proposed[i]
			if !ok {
				continue
			}
			delete(proposed, i)
			q, err := s.try(r)
			switch {
			case err != nil:
				return err
			case q == nil:
				continue
			case s.clears(q, i):
				err = s.found(i, r)
			default:
				if next, ok := s.further(q, i, r); ok {
					proposed[i] = next
				}
			}
			if err != nil {
				return err
			}
		}
	}
	return nil
}

// move tries an edit for all that is still open.
func (s *search) move(r fact.Remedy) error {
	q, err := s.try(r)
	if q == nil || err != nil {
		return err
	}
	for _, i := range slices.Clone(s.open) {
		if s.clears(q, i) {
			if err := s.found(i, r); err != nil {
				return err
			}
		}
	}
	return nil
}

func (s *search) found(i int, r fact.Remedy) error {
	s.open = slices.DeleteFunc(s.open, func(k int) bool { return k == i })
	return s.tell(Found{Finding: i, Remedy: r})
}

// try plans a remedy; nil where a field does not take it, or nothing can be planned with it, or enough was tried.
func (s *search) try(r fact.Remedy) (*plan.Plan, error) {
	edits := Edits(r)
	key := fmt.Sprint(edits)
	if q, ok := s.tried[key]; ok {
		return q, nil
	}
	if len(s.tried) >= mostPlans {
		return nil, s.ctx.Err()
	}
	s.tried[key] = nil
	d, err := edit.Piece(s.doc, edits)
	if err != nil {
		return nil, s.ctx.Err() // its field does not take it
	}
	q, err := s.make(s.ctx, d)
	if err != nil {
		return nil, s.ctx.Err() // nothing can be planned with it
	}
	s.tried[key] = q
	return q, nil
}

// Edits are what a press on a remedy types.
func Edits(r fact.Remedy) []edit.Edit {
	var out []edit.Edit
	for _, v := range r.And {
		out = append(out, typed(v.Field, v.Mm, v.Text))
	}
	return append(out, typed(r.Field, r.Mm, r.Text))
}

func typed(field string, mm float64, text string) edit.Edit {
	if text == "" {
		text = strconv.FormatFloat(mm, 'f', -1, 64) + "mm"
	}
	return edit.Edit{Field: field, Text: text}
}

// key tells the cause of a finding from others: there is one finding of each, but for holes and for tools of one's own.
type key struct {
	code, tool string
	hole       float64
}

func keyOf(w *fact.Warning) key {
	k := key{code: w.Code, hole: w.Figures["hole"]}
	if w.Code == "warn.faceSpread" {
		k.tool = w.Where.Operation
	}
	return k
}

// clears tells whether a plan is rid of finding i, and has nothing new of its weight or above.
func (s *search) clears(q *plan.Plan, i int) bool { return s.left(q, i) == nil }

// left is what stands in the way of that: finding i itself, or one of its weight that was not there.
func (s *search) left(q *plan.Plan, i int) *fact.Warning {
	f := &s.plan.Warnings[i]
	var came *fact.Warning
	for k := range q.Warnings {
		w := &q.Warnings[k]
		if keyOf(w) == keyOf(f) {
			return w
		}
		if came == nil && weight(w.Severity) >= weight(f.Severity) && !slices.ContainsFunc(s.plan.Warnings, func(had fact.Warning) bool {
			return keyOf(&had) == keyOf(w) && weight(had.Severity) >= weight(w.Severity)
		}) {
			came = w
		}
	}
	return came
}

// further is a remedy with what still stands in its way cleared as that proposes.
func (s *search) further(q *plan.Plan, i int, r fact.Remedy) (fact.Remedy, bool) {
	w := s.left(q, i)
	if w.Remedy == nil {
		return r, false
	}
	was := fmt.Sprint(Edits(r))
	for _, v := range append([]fact.Setting{{Field: w.Remedy.Field, Mm: w.Remedy.Mm, Text: w.Remedy.Text}}, w.Remedy.And...) {
		r = with(r, v)
	}
	return r, fmt.Sprint(Edits(r)) != was
}

// with is a remedy that sets one field more, or another figure of one that it sets.
func with(r fact.Remedy, v fact.Setting) fact.Remedy {
	if r.Field == v.Field {
		r.Mm, r.Text = v.Mm, v.Text
		return r
	}
	r.And = slices.Clone(r.And)
	for i := range r.And {
		if r.And[i].Field == v.Field {
			r.And[i] = v
			return r
		}
	}
	r.And = append(r.And, v)
	return r
}

// weight orders severities.
func weight(s fact.Severity) int {
	switch s {
	case fact.Stop:
		return 2
	case fact.Warn:
		return 1
	}
	return 0
}
