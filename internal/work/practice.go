package work

import (
	"context"
	"strings"
	"time"

	"coldember/core/colour"
	"coldember/core/fact"
	"coldember/core/practice"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// mostPractised bounds the sheet.
const mostPractised = 20_000

// ExerciseOf is a piece of work as an exercise. Errors are *edit.InvalidError where it cannot be one.
func (w *Work) ExerciseOf(ctx context.Context, pieceID string) (*practice.Exercise, error) {
	piece, err := w.Piece(ctx, pieceID)
	if err != nil {
		return nil, err
	}
	p, err := w.Plan(ctx, piece.Doc)
	if err != nil {
		return nil, err
	}
	ex, err := practice.OfPlan(pieceID, &piece.Doc.Request, p)
	return ex, edit.Invalid(err)
}

// Exercise is one of the exercises, or where a piece of work is named, that. Errors are those of ExerciseOf.
func (w *Work) Exercise(ctx context.Context, id, pieceID string) (*practice.Exercise, error) {
	if pieceID != "" {
		return w.ExerciseOf(ctx, pieceID)
	}
	ex := practice.Find(id)
	if ex == nil {
		return nil, edit.One("exercise", "field.choice", nil, id)
	}
	return ex, nil
}

// Practised is what stands on the sheet.
type Practised struct {
	ID  string
	Doc doc.Practised
	At  time.Time
}

// Practised is the sheet, the newest first, and what of it cannot be read.
func (w *Work) Practised(ctx context.Context) (out []Practised, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Practised()
		for _, r := range rows {
			d, err := doc.Decode[doc.Practised](r.Doc)
			if err != nil {
				continue // one line that cannot be read hides no other
			}
			if v := ViewerOf(ctx); v.Role == Student && d.Who != v.Name {
				continue
			}
			out = append(out, Practised{r.ID, d, r.CreatedAt})
		}
		return err
	})
	return out, err
}

// KeepPractised puts what somebody did on the sheet: it is played again here, so that what stands there was done. Errors are
// *edit.InvalidError.
func (w *Work) KeepPractised(ctx context.Context, d doc.Practised, pieceID string) (Practised, error) {
	if v := ViewerOf(ctx); v.Role == Student {
		d.Who = v.Name
	}
	d.Who = strings.TrimSpace(d.Who)
	ex, err := w.Exercise(ctx, d.Exercise, pieceID)
	if err != nil {
		return Practised{}, err
	}
	if pieceID != "" {
		piece, err := w.Piece(ctx, pieceID)
		if err != nil {
			return Practised{}, err
		}
		d.Exercise, d.Piece = pieceID, piece.Doc.Name
	}
	if err := d.Validate(); err != nil {
		return Practised{}, edit.Invalid(err)
	}
	p, err := practice.Play(ctx, ex, d.Seed, colour.LitShop, d.Actions)
	if err != nil {
		return Practised{}, edit.Invalid(err)
	}
	d.Came = p.Result(ex)
	now := w.now()
	row := store.Practised{ID: w.newID(), Who: d.Who, Exercise: d.Exercise, Doc: doc.Encode(d), CreatedAt: now}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if n, err := tx.CountPractised(); err != nil || n >= mostPractised {
			if err == nil {
				err = edit.One("who", "field.tooMany", fact.Figures{"highest": mostPractised}, "")
			}
			return err
		}
		return tx.PutPractised(row)
	})
	w.tell(Event{"practised", row.ID, 1})
	return Practised{row.ID, d, now}, err
}

// RemovePractised takes a line off the sheet, or puts it back.
func (w *Work) RemovePractised(ctx context.Context, id string, removed bool) error {
	err := w.store.Write(ctx, func(tx store.Tx) error {
		ok, err := tx.RemovePractised(id, when(removed, w.now()))
		if err == nil && !ok {
			err = ErrNotFound
		}
		return err
	})
	if err == nil {
		w.tell(Event{"practised", id, 1})
	}
	return err
}
