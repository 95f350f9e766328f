package work

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/internal/store"
	"coldember/internal/text"

	"github.com/google/uuid"
)

// Work is the use cases over a store.
type Work struct {
	store *store.Store
	now   func() time.Time
}

// New returns the use cases; now is the clock.
func New(s *store.Store, now func() time.Time) *Work { return &Work{store: s, now: now} }

// ErrNotFound is returned for what is not there.
var ErrNotFound = store.ErrNotFound

func newID() string { return uuid.NewString()[:13] }

func encode(v any) string {
	b, err := json.Marshal(v)
	if err != nil {
		panic(fmt.Sprintf("work: encode: %v", err)) // our own types of plain figures
	}
	return string(b)
}

func decode[T any](text string) (T, error) {
	var v T
	if err := json.Unmarshal([]byte(text), &v); err != nil {
		return v, fmt.Errorf("work: stored document: %w", err)
	}
	return v, nil
}

// Ensure gives a new database the patterns to start from. It does nothing once
// there has been any pattern.
func (w *Work) Ensure(ctx context.Context) error {
	have, err := w.Patterns(ctx)
	if err != nil || len(have) > 0 {
		return err
	}
	for _, s := range blade.Starters() {
		d := PatternDoc{Name: text.Say("starter."+s.ID, nil), Design: s.Design, Allowances: blade.ThickAndGrind.Allowances()}
		if _, err := w.AddPattern(ctx, d); err != nil {
			return err
		}
	}
	return nil
}

// Plan makes the plan of a document.
func (w *Work) Plan(ctx context.Context, d Doc) (*plan.Plan, error) {
	p, err := planner.Make(ctx, d.Request)
	return p, invalid(err)
}

// Preview applies edits to a document and plans it; nothing is kept.
func (w *Work) Preview(ctx context.Context, d Doc, edits []Edit) (Doc, *plan.Plan, error) {
	next, err := w.edited(ctx, d, edits)
	if err != nil {
		return d, nil, err
	}
	p, err := w.Plan(ctx, next)
	return next, p, err
}

// edited applies edits; a bar taken from the rack brings its steel along.
func (w *Work) edited(ctx context.Context, d Doc, edits []Edit) (Doc, error) {
	var plain []Edit
	for _, e := range edits {
		if e.Field != "stockId" {
			plain = append(plain, e)
			continue
		}
		s, err := w.StockItem(ctx, e.Text)
		if err != nil {
			return d, missing("stockId", err)
		}
		if s.Start == nil {
			return d, &InvalidError{Fields: []FieldProblem{{FieldError: fact.FieldError{Field: "stockId", Code: "field.notABar"}, Offset: -1}}}
		}
		d.StockID, d.Request.Bar, d.Request.SteelID, d.Request.Origin = s.ID, s.Piece, s.SteelID, originOf(s)
		if s.Cost > 0 && s.MassG > 0 {
			d.Request.Prices.SteelPrice = s.Cost / s.MassG * 1000
		}
	}
	return apply(d, plain)
}

// invalid turns the core's field errors into ours.
func invalid(err error) error {
	var fe fact.FieldErrors
	if !errors.As(err, &fe) {
		return err
	}
	out := &InvalidError{}
	for _, f := range fe {
		out.Fields = append(out.Fields, FieldProblem{FieldError: f, Offset: -1})
	}
	return out
}

func summarise(d Doc, p *plan.Plan) Summary {
	s := Summary{
		CutLengthMm: p.Bar.CutLengthMm, Heats: p.Totals.Heats, BladeMm: d.Request.Design.LengthMm,
		MassG: p.Finished.MassG, SteelID: d.Request.SteelID, Shape: string(d.Request.Design.Shape), Sketch: p.Drawing.Finished,
	}
	for _, w := range p.Warnings {
		if w.Severity == fact.Stop {
			s.Stops++
		}
	}
	return s
}

// Backup copies the live database.
func (w *Work) Backup(ctx context.Context, file string) error { return w.store.Backup(ctx, file) }
