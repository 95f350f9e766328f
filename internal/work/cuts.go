package work

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"

	"coldember/core/fact"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// States of a cut: once it is made it stays so.
const (
	CutProposed = "proposed"
	CutBooked   = "booked"
	CutMadeNow  = "made"
)

// roleBody is the cut that the blade itself is forged from.
const roleBody = "body"

// leastRemnantMm is the shortest end that goes back on the rack.
const leastRemnantMm = 40

// leastCutMm and mostCutMm are the lengths that are cut from a bar.
const leastCutMm, mostCutMm = 1, 12_000

// slackMm is how far figures of a length may differ by rounding.
const slackMm = 1e-6

// TakeCuts books the cuts of a plan on the rack. Every bar must be as the plan
// saw it: where somebody else was first, nothing is booked and *StaleError tells
// which piece of stock it was. Nothing is booked either where a part has no length
// that the bar has (*edit.InvalidError), or was cut already (*StateError).
func (w *Work) TakeCuts(ctx context.Context, p CutPlan) error {
	if err := p.Order.ranges().Err(); err != nil {
		return edit.Invalid(err)
	}
	byStock := map[string][]CutBar{}
	var order []string
	for _, g := range p.Groups {
		for _, b := range g.Bars {
			if byStock[b.StockID] == nil {
				order = append(order, b.StockID)
			}
			byStock[b.StockID] = append(byStock[b.StockID], b)
		}
	}
	stale := ""
	err := w.store.Write(ctx, func(tx store.Tx) error {
		for _, id := range order {
			bars := byStock[id]
			if stale = id; bars[0].Version <= 0 {
				return errStale
			}
			if err := swapped(tx.TouchStock(id, bars[0].Version, w.now())); err != nil {
				return err
			}
			if err := w.bookAll(tx, id, bars, p.Order.KerfMm); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return staleOr(err, func() (Stock, error) { return w.StockItem(ctx, stale) })
	}
	for id, bars := range byStock {
		w.tell(Event{"stock", id, bars[0].Version + 1})
	}
	return nil
}

// bookAll books the parts of the bars of one piece of stock, each with its kerf but for one
// that ends where the bar does.
func (w *Work) bookAll(tx store.Tx, id string, bars []CutBar, kerfMm float64) error {
	s, err := stockIn(tx, id)
	if err != nil {
		return err
	}
	if s.Start == nil || len(bars) > s.Doc.Count {
		return &StateError{Code: "problem.cutNoStock"}
	}
	for _, b := range bars {
		sum := 0.0
		for _, part := range b.Parts {
			if !(part.LengthMm >= 1 && part.LengthMm <= s.Start.LengthMm+slackMm) || part.Copy < 1 {
				return edit.One("groups", "field.rangeLength", fact.Figures{"lowest": 1, "highest": s.Start.LengthMm}, part.Name)
			}
			if sum += part.LengthMm; sum > s.Start.LengthMm+slackMm {
				return &StateError{Code: "problem.cutTooLong"}
			}
			kerf := math.Max(0, math.Min(kerfMm, s.Start.LengthMm-sum))
			sum += kerf
			if err := w.book(tx, id, part, kerf); err != nil {
				return err
			}
		}
	}
	return nil
}

func (w *Work) book(tx store.Tx, stockID string, p CutPart, kerfMm float64) error {
	if _, err := tx.Piece(p.PieceID); err != nil {
		return err
	}
	role := roleBody
	if p.Copy > 1 {
		role = fmt.Sprintf("%s-%d", roleBody, p.Copy)
	}
	was, ok, err := tx.Cut(p.PieceID, role)
	switch {
	case err != nil:
		return err
	case ok && was.State == CutMadeNow:
		return &StateError{Code: "problem.cutMade"}
	}
	now := w.now()
	return tx.PutCut(store.Cut{
		ID: p.PieceID + "-" + role, PieceID: p.PieceID, StockID: &stockID, LengthMm: p.LengthMm, KerfMm: kerfMm, Role: role, State: CutBooked, CreatedAt: now, UpdatedAt: now,
	})
}

// PieceCut is what a piece of work takes from the rack.
type PieceCut struct {
	Role     string  `json:"role"`
	State    string  `json:"state" enum:"proposed,booked,made"`
	LengthMm float64 `json:"lengthMm"`
	KerfMm   float64 `json:"kerfMm" doc:"what the saw takes with it"`
	StockID  string  `json:"stockId,omitempty"`
}

// Cuts of a piece.
func (w *Work) Cuts(ctx context.Context, pieceID string) ([]PieceCut, error) {
	out := []PieceCut{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Cuts(pieceID)
		for _, c := range rows {
			p := PieceCut{Role: c.Role, State: c.State, LengthMm: c.LengthMm, KerfMm: c.KerfMm}
			if c.StockID != nil {
				p.StockID = *c.StockID
			}
			out = append(out, p)
		}
		return err
	})
	return out, err
}

// CutTyped is what becomes of a cut. One that is made may say how long it really came out; as booked if it does not.
type CutTyped struct {
	State  string          `json:"state" enum:"proposed,booked,made"`
	Length string          `json:"length,omitempty" doc:"that was really cut, as it is typed"`
	Units  quantity.System `json:"units,omitempty"`
}

// read reads it; 0 is a length that is not said. Errors are *edit.InvalidError.
func (t CutTyped) read() (lengthMm float64, err error) {
	if t.State != CutProposed && t.State != CutBooked && t.State != CutMadeNow {
		return 0, edit.One("state", "field.choice", nil, t.State)
	}
	if strings.TrimSpace(t.Length) == "" {
		return 0, nil
	}
	if t.State != CutMadeNow {
		return 0, edit.One("length", "cut.notMade", nil, t.Length)
	}
	v, err := quantity.Parse(t.Length, quantity.Length, t.Units)
	var wrong *quantity.ParseError
	if errors.As(err, &wrong) {
		return 0, &edit.InvalidError{Fields: []edit.Problem{{FieldError: fact.FieldError{Field: "length", Code: string(wrong.Code)}, Offset: wrong.Offset, Found: wrong.Found}}}
	}
	if v < leastCutMm {
		return 0, edit.One("length", "field.rangeLength", fact.Figures{"lowest": leastCutMm, "highest": mostCutMm}, t.Length)
	}
	return v, err
}

// SetCut books a proposed cut, lets a booked one go, or makes it: then the bar
// is shorter by what was really cut and its kerf, and what is left stays on the rack
// with its history.
func (w *Work) SetCut(ctx context.Context, pieceID, role string, typed CutTyped) ([]PieceCut, error) {
	state := typed.State
	reallyMm, err := typed.read()
	if err != nil {
		return nil, err
	}
	var changed Stock
	err = w.store.Write(ctx, func(tx store.Tx) error {
		cut, ok, err := tx.Cut(pieceID, role)
		switch {
		case err != nil:
			return err
		case !ok:
			return ErrNotFound
		case cut.State == CutMadeNow:
			return &StateError{Code: "problem.cutMade"}
		case cut.StockID == nil:
			return &StateError{Code: "problem.cutNoStock"}
		}
		s, err := stockIn(tx, *cut.StockID)
		if err != nil {
			return err
		}
		if changed = s; s.Start == nil || s.Archived {
			return &StateError{Code: "problem.cutNoStock"}
		}
		unbooked := s.Start.LengthMm*float64(s.Doc.Count) - s.BookedMm
		if state == CutBooked && cut.State == CutProposed && cut.LengthMm > unbooked+slackMm {
			return &StateError{Code: "problem.cutTooLong"}
		}
		if state == CutMadeNow && s.Doc.Layout != nil && s.Doc.Count == 1 {
			return &StateError{Code: "problem.laidOn"}
		}
		if state == CutMadeNow {
			if reallyMm > s.Start.LengthMm+slackMm {
				return edit.One("length", "field.rangeLength", fact.Figures{"lowest": leastCutMm, "highest": s.Start.LengthMm}, typed.Length)
			}
			if reallyMm > 0 { // the saw takes no more than there is
				cut.LengthMm, cut.KerfMm = reallyMm, math.Max(0, math.Min(cut.KerfMm, s.Start.LengthMm-reallyMm))
			}
			if err := w.cutOff(tx, s, &cut); err != nil {
				return err
			}
		}
		cut.State, cut.UpdatedAt = state, w.now()
		return tx.PutCut(cut)
	})
	if err != nil {
		return nil, staleOr(err, func() (Stock, error) { return w.StockItem(ctx, changed.ID) })
	}
	w.tell(Event{"stock", changed.ID, changed.Version + 1})
	return w.Cuts(ctx, pieceID)
}

// cutOff takes a made cut off its piece of stock.
func (w *Work) cutOff(tx store.Tx, s Stock, cut *store.Cut) error {
	row, err := tx.Piece(cut.PieceID)
	if err != nil {
		return err
	}
	piece, err := pieceOf(row)
	if err != nil {
		return err
	}
	if !(cut.LengthMm > 0 && cut.LengthMm <= s.Start.LengthMm+slackMm) {
		return &StateError{Code: "problem.cutTooLong"}
	}
	now := w.now()
	made := store.CutMade{StockID: s.ID, PieceID: cut.PieceID, Name: doc.StoredName(piece.Doc.Name), LengthMm: cut.LengthMm, At: now}
	left := remnant(s, cut.LengthMm+cut.KerfMm)
	keep := s.Bar && left.Piece.LengthMm >= leastRemnantMm
	if s.Doc.Count == 1 {
		if err := tx.AddCutMade(made); err != nil {
			return err
		}
		if keep {
			return swapped(tx.SwapStock(s.ID, s.Version, now, doc.Encode(left)))
		}
		return swapped(tx.ArchiveStock(s.ID, s.Version, now, &now))
	}
	rest := s.Doc
	rest.Count--
	if err := swapped(tx.SwapStock(s.ID, s.Version, now, doc.Encode(rest))); err != nil {
		return err
	}
	if !keep {
		return tx.AddCutMade(made)
	}
	left.ParentID = s.ID
	item := w.newStock(left)
	if err := tx.AddStock(item); err != nil {
		return err
	}
	if err := tx.CopyCutsMade(s.ID, item.ID); err != nil {
		return err
	}
	cut.StockID, made.StockID = &item.ID, item.ID
	return tx.AddCutMade(made)
}

// remnant is what is left of one piece of stock once so much is off its usable
// stretch, kerf included.
func remnant(s Stock, offMm float64) doc.Stock {
	left := s.Doc
	left.Count = 1
	end := s.Start.FromMm + offMm
	left.Piece.Dead = stock.DeadBehind(s.Doc.Piece.Dead, end)
	left.Layout = nil // it was laid on the whole of it
	left.Piece.LengthMm = s.Start.WholeMm - end
	return left
}
