package work

import (
	"context"
	"math"
	"slices"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// weightTolerance is how far the scale may be from what the dimensions say.
const weightTolerance = 0.06

// Stock is a stored piece of stock with what follows from it.
type Stock struct {
	ID            string
	Version       int
	Doc           doc.Stock
	History       []doc.CutMade  // what was cut from it
	Bar           bool           // has one section along its length
	Usable        bool           // a blade can be planned from it
	Refused       bool           // a hazard forbids it for good
	Start         *stock.EvenBar // what it comes to, straightened and stripped
	Belief        *stock.Belief  // of a steel that is presumed
	WeighedShare  float64        // the weight on the scale over the computed one; 0 where it was not weighed
	WeightDiffers bool           // by more than its dimensions allow for
	BookedMm      float64        // length that pieces have booked
	MassG         float64
	FreeMm        float64 // length not yet asked for by pieces; for bars
	Archived      bool
}

// stockOf makes what is shown of a row; cuts are those still open from it.
func stockOf(row store.StockItem, cuts []store.Cut, made []store.CutMade, own []stock.Likelihood) (Stock, error) {
	d, err := doc.Decode[doc.Stock](row.Doc)
	if err != nil {
		return Stock{}, err
	}
	s := Stock{ID: row.ID, Version: row.Version, Doc: d, Bar: d.Bar(), Archived: row.ArchivedAt != nil}
	if solid, err := d.Piece.Solid(); err == nil {
		s.MassG = solid.MassG
	}
	for _, m := range made {
		s.History = append(s.History, doc.CutMade{PieceID: m.PieceID, Name: doc.SpokenName(m.Name), LengthMm: m.LengthMm, At: m.At})
	}
	for _, h := range d.Hazards {
		known, ok := stock.FindHazard(h)
		s.Refused = s.Refused || ok && known.Refuse
	}
	if d.WeighedKg > 0 && s.MassG > 0 {
		s.WeighedShare = d.WeighedKg * 1000 / s.MassG
		s.WeightDiffers = math.Abs(s.WeighedShare-1) > weightTolerance
	}
	if d.Believed && d.Origin != "" {
		if b, err := stock.Believe(d.Origin, d.Findings, own); err == nil {
			s.Belief = &b
		}
	}
	start, err := d.Piece.Even()
	if err != nil {
		return s, nil //nolint:nilerr // what is no bar is still on the rack
	}
	s.Start, s.Usable = &start, !s.Refused
	s.FreeMm = start.LengthMm * float64(max(1, d.Count))
	if l := d.Layout; l != nil { // of a strip along it nothing is free until it is sawn
		taken := start.LengthMm
		if !l.Across {
			taken = math.Min(taken, l.UsedMm)
		}
		s.FreeMm -= taken
		s.BookedMm += taken
	}
	for _, c := range cuts {
		s.FreeMm -= c.LengthMm + c.KerfMm
		if c.State == CutBooked {
			s.BookedMm += c.LengthMm + c.KerfMm
		}
	}
	return s, nil
}

// rackIn reads the rack, or what is off it, with what cannot be read set aside.
func rackIn(tx store.Tx, archived bool) (out []Stock, aside []Unreadable, err error) {
	rows, err := tx.Stock(archived)
	if err != nil {
		return nil, nil, err
	}
	shop, err := settingsIn(tx)
	if err != nil {
		return nil, nil, err
	}
	open, err := tx.OpenCuts("")
	if err != nil {
		return nil, nil, err
	}
	cuts := map[string][]store.Cut{}
	for _, c := range open {
		cuts[*c.StockID] = append(cuts[*c.StockID], c)
	}
	history, err := tx.CutsMade("")
	if err != nil {
		return nil, nil, err
	}
	made := map[string][]store.CutMade{}
	for _, m := range history {
		made[m.StockID] = append(made[m.StockID], m)
	}
	for _, row := range rows {
		s, err := stockOf(row, cuts[row.ID], made[row.ID], shop.Doc.Likelihoods)
		if u, bad := unreadable(row.ID, err); bad {
			aside = append(aside, u)
			continue
		}
		out = append(out, s)
	}
	return out, aside, nil
}

// stockIn reads one piece of stock.
func stockIn(tx store.Tx, id string) (Stock, error) {
	row, err := tx.StockItem(id)
	if err != nil {
		return Stock{}, err
	}
	shop, err := settingsIn(tx)
	if err != nil {
		return Stock{}, err
	}
	cuts, err := tx.OpenCuts(id)
	if err != nil {
		return Stock{}, err
	}
	made, err := tx.CutsMade(id)
	if err != nil {
		return Stock{}, err
	}
	return stockOf(row, cuts, made, shop.Doc.Likelihoods)
}

// Rack lists the stock, or what is off the rack, and what cannot be read.
func (w *Work) Rack(ctx context.Context, archived bool) (out []Stock, aside []Unreadable, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		out, aside, err = rackIn(tx, archived)
		return err
	})
	if err == nil {
		err = w.onlySeen(ctx, out)
	}
	return out, aside, err
}

// onlySeen takes the names of what the viewer does not see out of what was cut from stock; how much it was stays.
func (w *Work) onlySeen(ctx context.Context, rack []Stock) error {
	seen, err := w.visible(ctx)
	if err != nil || seen == nil {
		return err
	}
	for _, s := range rack {
		for i := range s.History {
			if c := &s.History[i]; !seen[c.PieceID] {
				c.PieceID, c.Name = "", ""
			}
		}
	}
	return nil
}

// StockItem reads one piece of stock.
func (w *Work) StockItem(ctx context.Context, id string) (out Stock, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		out, err = stockIn(tx, id)
		return err
	})
	if err == nil {
		err = w.onlySeen(ctx, []Stock{out})
	}
	return out, err
}

func (w *Work) newStock(d doc.Stock) store.StockItem {
	now := w.now()
	return store.StockItem{ID: w.newID(), Doc: doc.Encode(d), Version: 1, CreatedAt: now, UpdatedAt: now}
}

// AddStock puts a piece on the rack.
func (w *Work) AddStock(ctx context.Context, d doc.Stock) (Stock, error) {
	d = w.stamped(d)
	if d.Count == 0 {
		d.Count = 1
	}
	if err := d.Validate(); err != nil {
		return Stock{}, edit.Invalid(err)
	}
	row := w.newStock(d)
	if err := w.store.Write(ctx, func(tx store.Tx) error { return tx.AddStock(row) }); err != nil {
		return Stock{}, err
	}
	w.tell(Event{"stock", row.ID, 1})
	return w.StockItem(ctx, row.ID)
}

// stamped gives what has just been noted of a billet its time.
func (w *Work) stamped(d doc.Stock) doc.Stock {
	if len(d.Welded) > 0 {
		d.Welded = slices.Clone(d.Welded)
	}
	for i := range d.Welded {
		if d.Welded[i].At.IsZero() {
			d.Welded[i].At = w.now()
		}
	}
	return d
}

// NewStock puts a piece of this form on the rack from typed fields.
func (w *Work) NewStock(ctx context.Context, form stock.Form, edits []edit.Edit) (Stock, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return Stock{}, err
	}
	d, err := edit.NewStock(form, edits, shop.Doc.Fire)
	if err != nil {
		return Stock{}, err
	}
	return w.AddStock(ctx, d)
}

// SaveStock replaces what is known about a piece of stock.
func (w *Work) SaveStock(ctx context.Context, id string, version int, d doc.Stock) (Stock, error) {
	d = w.stamped(d)
	if err := d.Validate(); err != nil {
		return Stock{}, edit.Invalid(err)
	}
	err := w.store.Write(ctx, func(tx store.Tx) error {
		return swapped(tx.SwapStock(id, version, w.now(), doc.Encode(d)))
	})
	return w.savedStock(ctx, id, version, err)
}

// EditStock applies typed fields to a piece on the rack.
func (w *Work) EditStock(ctx context.Context, id string, version int, edits []edit.Edit) (Stock, error) {
	s, err := w.StockItem(ctx, id)
	if err != nil {
		return s, err
	}
	shop, err := w.Shop(ctx)
	if err != nil {
		return s, err
	}
	d, err := edit.Stock(s.Doc, edits, shop.Doc.Fire)
	if err != nil {
		return s, err
	}
	if d.EtchID != "" && d.EtchID != s.Doc.EtchID {
		if _, _, err := w.PictureData(ctx, d.EtchID); err != nil {
			return s, missing("billet.etch", err)
		}
	}
	return w.SaveStock(ctx, id, version, d)
}

// ArchiveStock takes a piece off the rack, or puts it back. What was used up by a cut is
// not put back: nothing of it is there.
func (w *Work) ArchiveStock(ctx context.Context, id string, version int, archived bool) (Stock, error) {
	now := w.now()
	err := w.store.Write(ctx, func(tx store.Tx) error {
		row, err := tx.StockItem(id)
		if err != nil {
			return err
		}
		if !archived && row.ArchivedAt != nil {
			made, err := tx.CutsMade(id)
			if err != nil {
				return err
			}
			for _, m := range made {
				if m.At.Equal(*row.ArchivedAt) { // the cut itself took it off the rack
					return &StateError{Code: "problem.usedUp"}
				}
			}
		}
		return swapped(tx.ArchiveStock(id, version, now, when(archived, now)))
	})
	return w.savedStock(ctx, id, version, err)
}

func (w *Work) savedStock(ctx context.Context, id string, version int, err error) (Stock, error) {
	now := func() (Stock, error) { return w.StockItem(ctx, id) }
	if err != nil {
		return Stock{}, staleOr(err, now)
	}
	w.tell(Event{"stock", id, version + 1})
	return now()
}
