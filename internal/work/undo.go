package work

import (
	"context"
	"errors"

	"coldember/core/plan"
	"coldember/internal/doc"
	"coldember/internal/store"
)

// Undo goes one step back in the history of a piece (by −1) or forward (+1).
func (w *Work) Undo(ctx context.Context, id string, version, by int) (Piece, *plan.Plan, error) {
	seen, err := w.seen(ctx, id, version)
	if err != nil {
		return Piece{}, nil, err
	}
	var to store.PieceEdit
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.Piece(id)
		if err != nil {
			return err
		}
		to, err = tx.PieceEditBeside(id, row.Cursor, by)
		switch {
		case errors.Is(err, ErrNotFound) && by < 0:
			return &StateError{Code: "problem.nothingToUndo"}
		case errors.Is(err, ErrNotFound):
			return &StateError{Code: "problem.nothingToRedo"}
		}
		return err
	})
	if err != nil {
		return Piece{}, nil, err
	}
	d, err := doc.Decode[doc.Piece](to.Doc)
	if err != nil {
		return Piece{}, nil, err
	}
	d.Owner, d.Shared = seen.Doc.Owner, seen.Doc.Shared // whose it is is no step of its history
	p, err := w.planToSave(ctx, d)
	if err != nil {
		return Piece{}, nil, err
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if err := swapped(tx.SwapPiece(id, version, w.now(), doc.Encode(d), encodeSummary(summarise(d, p)), to.Seq)); err != nil {
			return err
		}
		return w.snapshot(tx, id, d, p)
	})
	return w.kept(ctx, id, version+1, p, err)
}
