package work

import (
	"context"
	"fmt"

	"coldember/core/nest"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// leastSheetMm is the narrowest strip of a sheet that goes back on the rack.
const leastSheetMm = 10

// KeepLayout lays parts on a piece of the rack, as they lie by hand and for the rest by itself, and
// keeps that with it until it is sawn: what it takes is not free any more. Errors are those of
// LaySheet, *edit.InvalidError where parts lie too near, and *StaleError.
func (w *Work) KeepLayout(ctx context.Context, stockID string, version int, o SheetOrder) (Stock, error) {
	o.StockID, o.BlankID = stockID, ""
	p, err := w.LaySheet(ctx, o)
	if err != nil {
		return Stock{}, err
	}
	switch {
	case len(p.Layout.Placed) == 0:
		return Stock{}, edit.One("parts", "cutplan.nothing", nil, "")
	case len(p.Faults) > 0:
		return Stock{}, edit.One("held", "nest.faulty", nil, "")
	}
	kept := doc.KeptLayout{Laying: p.Order.Laying, UsedMm: p.Layout.UsedMm, Across: p.Layout.Across}
	kept.Held = p.Layout.Placed
	for _, part := range p.Parts {
		kept.Names = append(kept.Names, part.Name)
	}
	return w.setLayout(ctx, stockID, version, &kept)
}

// ForgetLayout takes what was laid on a piece of the rack off it.
func (w *Work) ForgetLayout(ctx context.Context, stockID string, version int) (Stock, error) {
	return w.setLayout(ctx, stockID, version, nil)
}

func (w *Work) setLayout(ctx context.Context, stockID string, version int, l *doc.KeptLayout) (Stock, error) {
	s, err := w.StockItem(ctx, stockID)
	if err != nil {
		return s, err
	}
	d := s.Doc
	d.Layout = l
	return w.SaveStock(ctx, stockID, version, d)
}

// SawLayout is the layout that is kept with a piece of the rack, sawn out: the pieces of work in it
// have their steel, and what is left of the sheet stays on the rack. Errors are *StaleError, and
// *StateError where nothing is laid on it or a piece was cut already.
func (w *Work) SawLayout(ctx context.Context, stockID string, version int) (Stock, error) {
	s, err := w.StockItem(ctx, stockID)
	switch {
	case err != nil:
		return s, err
	case s.Doc.Layout == nil || s.Archived:
		return s, &StateError{Code: "problem.noLayout"}
	}
	kept := s.Doc.Layout
	laid, err := w.LaySheet(ctx, SheetOrder{StockID: stockID, Laying: kept.Laying})
	if err != nil {
		return s, err
	}
	rest, left := nest.Sawn(s.Doc.Piece, nest.Layout{UsedMm: kept.UsedMm, Across: kept.Across}, laid.Outlines, kept.KerfMm)
	left = left && (rest.LengthMm == 0 || rest.LengthMm >= leastRemnantMm) && (rest.WidthMm == 0 || rest.WidthMm >= leastSheetMm)
	err = w.store.Write(ctx, func(tx store.Tx) error {
		id, err := w.sheetLeft(tx, s, version, rest, left)
		if err != nil {
			return err
		}
		copies := map[string]int{}
		for i, p := range laid.Layout.Placed {
			low, high := laid.Outlines[i].Bounds()
			want := kept.Parts[p.Part]
			if err := w.sawnOut(tx, id, want.PieceID, laid.Parts[p.Part].Name, high[0]-low[0], copies); err != nil {
				return err
			}
		}
		return nil
	})
	return w.savedStock(ctx, stockID, version, err)
}

// sheetLeft puts what is left of a sheet back, and answers which piece of the rack it now is.
func (w *Work) sheetLeft(tx store.Tx, s Stock, version int, rest stock.Item, left bool) (string, error) {
	d, now := s.Doc, w.now()
	d.Layout = nil
	if d.Count == 1 {
		if !left {
			return s.ID, swapped(tx.ArchiveStock(s.ID, version, now, &now))
		}
		d.Piece = rest
		return s.ID, swapped(tx.SwapStock(s.ID, version, now, doc.Encode(d)))
	}
	d.Count--
	if err := swapped(tx.SwapStock(s.ID, version, now, doc.Encode(d))); err != nil || !left {
		return s.ID, err
	}
	d.Count, d.Piece, d.ParentID = 1, rest, s.ID
	item := w.newStock(d)
	if err := tx.AddStock(item); err != nil {
		return "", err
	}
	return item.ID, tx.CopyCutsMade(s.ID, item.ID)
}

// sawnOut notes one part that was sawn out of a sheet; copies counts those of a piece of work.
func (w *Work) sawnOut(tx store.Tx, stockID, pieceID, name string, lengthMm float64, copies map[string]int) error {
	now := w.now()
	if pieceID != "" {
		copies[pieceID]++
		role := roleBody
		if n := copies[pieceID]; n > 1 {
			role = fmt.Sprintf("%s-%d", roleBody, n)
		}
		switch was, ok, err := tx.Cut(pieceID, role); {
		case err != nil:
			return err
		case ok && was.State == CutMadeNow:
			return &StateError{Code: "problem.cutMade"}
		}
		if err := tx.PutCut(store.Cut{ID: pieceID + "-" + role, PieceID: pieceID, StockID: &stockID, LengthMm: lengthMm, Role: role, State: CutMadeNow, CreatedAt: now, UpdatedAt: now}); err != nil {
			return err
		}
	}
	return tx.AddCutMade(store.CutMade{StockID: stockID, PieceID: pieceID, Name: doc.StoredName(name), LengthMm: lengthMm, At: now})
}
