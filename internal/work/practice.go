package work

import (
	"context"

	"coldember/core/practice"
	"coldember/internal/edit"
)

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
