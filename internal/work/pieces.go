package work

import (
	"context"
	"errors"
	"strings"
	"time"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/internal/store"
)

// Edits of one field within this time are one step of undo; so many steps are
// kept.
const (
	coalesceWithin = 2 * time.Second
	keptEdits      = 300
)

func pieceOf(tx store.Tx, row store.Piece) (Piece, error) {
	doc, err := decode[Doc](row.Doc)
	if err != nil {
		return Piece{}, err
	}
	sum, err := decode[Summary](row.Summary)
	if err != nil {
		return Piece{}, err
	}
	last, err := store.Highest[store.PieceEdit](tx, "seq", "piece_id = ?", row.ID)
	if err != nil {
		return Piece{}, err
	}
	below, err := store.List[store.PieceEdit](tx, "seq desc", "piece_id = ? AND seq = ?", row.ID, row.Cursor-1)
	return Piece{
		ID: row.ID, Version: row.Version, Doc: doc, Summary: sum, CanUndo: len(below) > 0, CanRedo: last > row.Cursor,
		Archived: row.ArchivedAt != nil, CreatedAt: row.CreatedAt, UpdatedAt: row.UpdatedAt,
	}, err
}

// Pieces lists the pieces of work, newest first.
func (w *Work) Pieces(ctx context.Context, archived bool) ([]Piece, error) {
	out := []Piece{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		where := "archived_at IS NULL"
		if archived {
			where = "archived_at IS NOT NULL"
		}
		rows, err := store.List[store.Piece](tx, "updated_at desc, id", where)
		for _, row := range rows {
			p, err := pieceOf(tx, row)
			if err != nil {
				return err
			}
			out = append(out, p)
		}
		return err
	})
	return out, err
}

// Piece reads one.
func (w *Work) Piece(ctx context.Context, id string) (Piece, error) {
	var out Piece
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Piece](tx, "id = ?", id)
		if err != nil {
			return err
		}
		out, err = pieceOf(tx, row)
		return err
	})
	return out, err
}

// StartPiece makes a new piece from the three answers: a pattern's blade, a bar
// and a hand; everything else is the trade's default.
func (w *Work) StartPiece(ctx context.Context, in Start) (Piece, *plan.Plan, error) {
	d, err := w.starting(ctx, in)
	if err != nil {
		return Piece{}, nil, err
	}
	return w.CreatePiece(ctx, d)
}

func (w *Work) starting(ctx context.Context, in Start) (Doc, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return Doc{}, err
	}
	pattern, err := w.Pattern(ctx, in.PatternID)
	if err != nil {
		return Doc{}, missing("patternId", err)
	}
	hand := shop.Smiths[0]
	for _, h := range shop.Smiths {
		if h.Name == in.Hand {
			hand = h
		}
	}
	req := plan.NewRequest(pattern.Design, "", stock.Piece{Form: in.BarForm}, hand.Skill)
	req.Allowances, req.Smith, req.Fire, req.Prices = pattern.Allowances, hand.Smith, shop.Fire, shop.Prices
	edits := in.Edits
	if in.Skill != "" && in.Skill != hand.Skill {
		edits = append([]Edit{{Field: "smith.skill", Text: string(in.Skill)}}, edits...)
	}
	if in.StockID != "" {
		edits = append([]Edit{{Field: "stockId", Text: in.StockID}}, edits...)
	}
	return w.edited(ctx, Doc{Name: in.Name, Hand: hand.Name, Request: req, Picture: pattern.Picture}, edits)
}

// missing puts a row that is not there beside the field that names it.
func missing(field string, err error) error {
	if errors.Is(err, ErrNotFound) {
		return &InvalidError{Fields: []FieldProblem{{FieldError: fact.FieldError{Field: field, Code: "problem.notFound"}, Offset: -1}}}
	}
	return err
}

// CreatePiece plans a document and keeps it as a new piece.
func (w *Work) CreatePiece(ctx context.Context, d Doc) (Piece, *plan.Plan, error) {
	if _, err := apply(d, []Edit{{Field: "name", Text: d.Name}}); err != nil {
		return Piece{}, nil, err
	}
	p, err := w.Plan(ctx, d)
	if err != nil {
		return Piece{}, nil, err
	}
	now := w.now()
	row := store.Piece{ID: newID(), Doc: encode(d), Summary: encode(summarise(d, p)), Version: 1, Cursor: 1, CreatedAt: now, UpdatedAt: now}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if err := store.Insert(tx, &row); err != nil {
			return err
		}
		if err := store.Insert(tx, &store.PieceEdit{PieceID: row.ID, Seq: 1, Doc: row.Doc, Label: "", CreatedAt: now}); err != nil {
			return err
		}
		if err := store.Insert(tx, &store.PieceRevision{PieceID: row.ID, N: 1, Label: "start", Doc: row.Doc, CreatedAt: now}); err != nil {
			return err
		}
		return w.snapshot(tx, row.ID, d, p)
	})
	if err != nil {
		return Piece{}, nil, err
	}
	out, err := w.Piece(ctx, row.ID)
	return out, p, err
}

// snapshot keeps the current plan and the cut that it proposes. A frozen plan
// (taken to the fire) is never overwritten.
func (w *Work) snapshot(tx store.Tx, id string, d Doc, p *plan.Plan) error {
	n, err := store.Highest[store.Plan](tx, "n", "piece_id = ? AND frozen_at IS NOT NULL", id)
	if err != nil {
		return err
	}
	now := w.now()
	err = store.Put(tx, &store.Plan{PieceID: id, N: n + 1, Laws: p.Laws, Request: encode(d.Request), Result: encode(p.Totals), CreatedAt: now})
	if err != nil {
		return err
	}
	if was, err := store.Find[store.Cut](tx, "id = ?", id+"-body"); err == nil && was.State != CutProposed {
		return nil // booked or made: the plan no longer moves it
	}
	cut := store.Cut{ID: id + "-body", PieceID: id, LengthMm: p.Bar.CutLengthMm, Role: "body", State: CutProposed, CreatedAt: now, UpdatedAt: now}
	if d.StockID != "" {
		if _, err := store.Find[store.StockItem](tx, "id = ?", d.StockID); err == nil {
			cut.StockID = &d.StockID
		}
	}
	return store.Put(tx, &cut)
}

// SavePiece applies edits to the version the caller saw, plans, and keeps both
// the piece and a step of its history. It returns *StaleError when another save
// came first and *InvalidError for fields that cannot be.
func (w *Work) SavePiece(ctx context.Context, id string, version int, edits []Edit) (Piece, *plan.Plan, error) {
	seen, err := w.Piece(ctx, id)
	if err != nil {
		return Piece{}, nil, err
	}
	if seen.Version != version {
		return Piece{}, nil, &StaleError{Current: seen}
	}
	d, p, err := w.Preview(ctx, seen.Doc, edits)
	if err != nil {
		return Piece{}, nil, err
	}
	fields := make([]string, len(edits)) // several at once are a step of their own
	for i, e := range edits {
		fields[i] = e.Field
	}
	label := strings.Join(fields, " ")
	err = w.store.Write(ctx, func(tx store.Tx) error { return w.step(tx, id, version, d, p, label) })
	if err != nil {
		return Piece{}, nil, w.current(ctx, id, err)
	}
	out, err := w.Piece(ctx, id)
	return out, p, err
}

// errStale tells the caller of a transaction to look up what is there now.
type errStale struct{}

func (errStale) Error() string { return "stale" }

func (w *Work) current(ctx context.Context, id string, err error) error {
	if _, ok := err.(errStale); !ok { //nolint:errorlint // ours, unwrapped
		return err
	}
	now, readErr := w.Piece(ctx, id)
	if readErr != nil {
		return readErr
	}
	return &StaleError{Current: now}
}

// step adds a state to the history of a piece; what had been undone is gone.
func (w *Work) step(tx store.Tx, id string, version int, d Doc, p *plan.Plan, label string) error {
	row, err := store.Find[store.Piece](tx, "id = ?", id)
	if err != nil {
		return err
	}
	now, text := w.now(), encode(d)
	if err := store.Delete[store.PieceEdit](tx, "piece_id = ? AND seq > ?", id, row.Cursor); err != nil {
		return err
	}
	seq := row.Cursor + 1
	if last, err := store.Find[store.PieceEdit](tx, "piece_id = ? AND seq = ?", id, row.Cursor); err == nil &&
		label != "" && last.Label == label && now.Sub(last.CreatedAt) < coalesceWithin && row.Cursor > 1 {
		seq = row.Cursor
	}
	if err := store.Put(tx, &store.PieceEdit{PieceID: id, Seq: seq, Doc: text, Label: label, CreatedAt: now}); err != nil {
		return err
	}
	if err := store.Delete[store.PieceEdit](tx, "piece_id = ? AND seq <= ?", id, seq-keptEdits); err != nil {
		return err
	}
	ok, err := store.Swap[store.Piece](tx, id, version, now, map[string]any{"doc": text, "summary": encode(summarise(d, p)), "cursor": seq})
	if err != nil {
		return err
	}
	if !ok {
		return errStale{}
	}
	return w.snapshot(tx, id, d, p)
}

// Undo goes one step back in the history of a piece (by −1) or forward (+1).
func (w *Work) Undo(ctx context.Context, id string, version, by int) (Piece, *plan.Plan, error) {
	seen, err := w.Piece(ctx, id)
	if err != nil {
		return Piece{}, nil, err
	}
	if seen.Version != version {
		return Piece{}, nil, &StaleError{Current: seen}
	}
	var p *plan.Plan
	err = w.store.Write(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Piece](tx, "id = ?", id)
		if err != nil {
			return err
		}
		to, err := store.Find[store.PieceEdit](tx, "piece_id = ? AND seq = ?", id, row.Cursor+by)
		if err != nil {
			if by < 0 {
				return &StateError{Code: "problem.nothingToUndo"}
			}
			return &StateError{Code: "problem.nothingToRedo"}
		}
		d, err := decode[Doc](to.Doc)
		if err != nil {
			return err
		}
		if p, err = w.Plan(ctx, d); err != nil {
			return err
		}
		ok, err := store.Swap[store.Piece](tx, id, version, w.now(), map[string]any{"doc": to.Doc, "summary": encode(summarise(d, p)), "cursor": to.Seq})
		if err != nil {
			return err
		}
		if !ok {
			return errStale{}
		}
		return w.snapshot(tx, id, d, p)
	})
	if err != nil {
		return Piece{}, nil, w.current(ctx, id, err)
	}
	out, err := w.Piece(ctx, id)
	return out, p, err
}

// DuplicatePiece copies a piece under a new name.
func (w *Work) DuplicatePiece(ctx context.Context, id, name string) (Piece, *plan.Plan, error) {
	p, err := w.Piece(ctx, id)
	if err != nil {
		return Piece{}, nil, err
	}
	d := p.Doc
	d.Name = name
	return w.CreatePiece(ctx, d)
}

// ArchivePiece takes a piece off the list, or puts it back. Nothing is deleted.
func (w *Work) ArchivePiece(ctx context.Context, id string, archived bool) (Piece, error) {
	p, err := w.Piece(ctx, id)
	if err != nil {
		return p, err
	}
	now := w.now()
	var at *time.Time
	if archived {
		at = &now
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		ok, err := store.Swap[store.Piece](tx, id, p.Version, now, map[string]any{"archived_at": at})
		if err == nil && !ok {
			err = errStale{}
		}
		return err
	})
	if err != nil {
		return p, w.current(ctx, id, err)
	}
	return w.Piece(ctx, id)
}
