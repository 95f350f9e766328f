package work

import (
	"context"
	"errors"
	"math"
	"slices"
	"strings"

	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/store"
)

// weightTolerance is how far the scale may be from what the dimensions say.
const weightTolerance = 0.06

func stockOf(tx store.Tx, row store.StockItem) (Stock, error) {
	doc, err := decode[StockDoc](row.Doc)
	if err != nil {
		return Stock{}, err
	}
	s := Stock{ID: row.ID, Version: row.Version, StockDoc: doc, Bar: slices.Contains(stock.Bars(), doc.Piece.Form), Archived: row.ArchivedAt != nil}
	if solid, err := doc.Piece.Solid(); err == nil {
		s.MassG = solid.MassG
	}
	for _, h := range doc.Hazards {
		known, ok := stock.FindHazard(h)
		s.Refused = s.Refused || ok && known.Refuse
	}
	if s.WeighedKg > 0 && s.MassG > 0 {
		s.WeighedShare = s.WeighedKg * 1000 / s.MassG
		s.WeightDiffers = math.Abs(s.WeighedShare-1) > weightTolerance
	}
	if doc.Believed && doc.Origin != "" {
		own, err := ownLikelihoods(tx)
		if err != nil {
			return s, err
		}
		if b, err := stock.Believe(doc.Origin, doc.Findings, own); err == nil {
			s.Belief = &b
		}
	}
	start, err := doc.Piece.Start()
	if err != nil {
		return s, nil //nolint:nilerr // what is no bar is still on the rack
	}
	s.Start, s.Usable = &start, !s.Refused
	s.FreeMm = start.LengthMm * float64(max(1, doc.Count))
	cuts, err := store.List[store.Cut](tx, "id", "stock_id = ? AND state <> 'made' AND piece_id IN (SELECT id FROM pieces WHERE archived_at IS NULL)", row.ID)
	for _, c := range cuts {
		s.FreeMm -= c.LengthMm
		if c.State == CutBooked {
			s.BookedMm += c.LengthMm
		}
	}
	return s, err
}

// ownLikelihoods are the shop's.
func ownLikelihoods(tx store.Tx) ([]stock.Likelihood, error) {
	row, err := store.Find[store.Shop](tx, "id = 1")
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	shop, err := decode[Settings](row.Doc)
	return shop.Likelihoods, err
}

// Rack lists the stock by name.
func (w *Work) Rack(ctx context.Context) ([]Stock, error) {
	out := []Stock{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := store.List[store.StockItem](tx, "created_at, id", "archived_at IS NULL")
		for _, row := range rows {
			s, err := stockOf(tx, row)
			if err != nil {
				return err
			}
			out = append(out, s)
		}
		return err
	})
	return out, err
}

// StockItem reads one piece of stock.
func (w *Work) StockItem(ctx context.Context, id string) (Stock, error) {
	var out Stock
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.StockItem](tx, "id = ?", id)
		if err != nil {
			return err
		}
		out, err = stockOf(tx, row)
		return err
	})
	return out, err
}

func (d StockDoc) validate() error {
	c := fact.NewCheck()
	if strings.TrimSpace(d.Name) == "" {
		c.Fail("name", "field.nameMissing", nil)
	}
	if _, err := d.Piece.Solid(); err != nil {
		code, name := "stock.dimension", "form"
		if se, ok := err.(*stock.Error); ok { //nolint:errorlint // returned unwrapped
			code, name = se.Code, se.Field
		}
		c.Fail("piece."+name, code, nil)
	}
	if _, err := steel.Find(d.SteelID); err != nil {
		c.Fail("steelId", "field.steel", nil)
	}
	c.Range("count", float64(d.Count), 1, 10000)
	c.Range("cost", d.Cost, 0, 1e6)
	c.Range("weighedKg", d.WeighedKg, 0, 1000)
	if d.Origin != "" {
		if _, err := stock.Believe(d.Origin, d.Findings, nil); err != nil {
			c.Fail("origin", "field.choice", nil)
		}
	}
	for _, h := range d.Hazards {
		if _, ok := stock.FindHazard(h); !ok {
			c.Fail("hazards", "field.choice", nil)
		}
	}
	return invalid(c.Err())
}

// AddStock puts a piece on the rack.
func (w *Work) AddStock(ctx context.Context, d StockDoc) (Stock, error) {
	if d.Count == 0 {
		d.Count = 1
	}
	if err := d.validate(); err != nil {
		return Stock{}, err
	}
	now := w.now()
	row := store.StockItem{ID: newID(), Doc: encode(d), Version: 1, CreatedAt: now, UpdatedAt: now}
	if err := w.store.Write(ctx, func(tx store.Tx) error { return store.Insert(tx, &row) }); err != nil {
		return Stock{}, err
	}
	return w.StockItem(ctx, row.ID)
}

// SaveStock replaces what is known about a piece of stock.
func (w *Work) SaveStock(ctx context.Context, id string, version int, d StockDoc) (Stock, error) {
	if err := d.validate(); err != nil {
		return Stock{}, err
	}
	return w.swapStock(ctx, id, version, map[string]any{"doc": encode(d)})
}

// NewStock puts a piece of this form on the rack from typed fields.
func (w *Work) NewStock(ctx context.Context, form stock.Form, edits []Edit) (Stock, error) {
	d, err := editStock(StockDoc{Piece: stock.Piece{Form: form}, Count: 1}, edits)
	if err != nil {
		return Stock{}, err
	}
	return w.AddStock(ctx, d)
}

// EditStock applies typed fields to a piece on the rack.
func (w *Work) EditStock(ctx context.Context, id string, version int, edits []Edit) (Stock, error) {
	s, err := w.StockItem(ctx, id)
	if err != nil {
		return s, err
	}
	d, err := editStock(s.StockDoc, edits)
	if err != nil {
		return s, err
	}
	return w.SaveStock(ctx, id, version, d)
}

// ArchiveStock takes a piece off the rack.
func (w *Work) ArchiveStock(ctx context.Context, id string, version int) (Stock, error) {
	return w.swapStock(ctx, id, version, map[string]any{"archived_at": w.now()})
}

func (w *Work) swapStock(ctx context.Context, id string, version int, set map[string]any) (Stock, error) {
	ok := false
	err := w.store.Write(ctx, func(tx store.Tx) (err error) {
		ok, err = store.Swap[store.StockItem](tx, id, version, w.now(), set)
		return err
	})
	if err != nil {
		return Stock{}, err
	}
	s, err := w.StockItem(ctx, id)
	if err == nil && !ok {
		err = &StaleError{Current: s}
	}
	return s, err
}

func patternOf(tx store.Tx, row store.Pattern) (Pattern, error) {
	rev, err := store.Find[store.PatternRevision](tx, "pattern_id = ? AND n = ?", row.ID, row.Head)
	if err != nil {
		return Pattern{}, err
	}
	doc, err := decode[PatternDoc](rev.Doc)
	if err != nil {
		return Pattern{}, err
	}
	if doc.Tags == nil {
		doc.Tags = []string{}
	}
	sketch, err := figure.Sketch(doc.Design)
	return Pattern{ID: row.ID, Version: row.Version, Revision: row.Head, PatternDoc: doc, Sketch: sketch}, err
}

// Pattern reads one pattern at its newest revision.
func (w *Work) Pattern(ctx context.Context, id string) (Pattern, error) {
	var out Pattern
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Pattern](tx, "id = ?", id)
		if err != nil {
			return err
		}
		out, err = patternOf(tx, row)
		return err
	})
	return out, err
}

// Patterns lists the library.
func (w *Work) Patterns(ctx context.Context) ([]Pattern, error) {
	out := []Pattern{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := store.List[store.Pattern](tx, "created_at, id", "archived_at IS NULL")
		for _, row := range rows {
			p, err := patternOf(tx, row)
			if err != nil {
				return err
			}
			out = append(out, p)
		}
		return err
	})
	return out, err
}

func (d PatternDoc) validate() error {
	c := fact.NewCheck()
	if strings.TrimSpace(d.Name) == "" {
		c.Fail("name", "field.nameMissing", nil)
	}
	d.Design.Validate(c.Within("design"))
	d.Allowances.Validate(c.Within("allowances"))
	d.Picture.validate(c)
	return invalid(c.Err())
}

// AddPattern puts a design into the library.
func (w *Work) AddPattern(ctx context.Context, d PatternDoc) (Pattern, error) {
	if err := d.validate(); err != nil {
		return Pattern{}, err
	}
	now := w.now()
	row := store.Pattern{ID: newID(), Name: d.Name, Head: 1, Version: 1, CreatedAt: now, UpdatedAt: now}
	var out Pattern
	err := w.store.Write(ctx, func(tx store.Tx) error {
		if err := store.Insert(tx, &row); err != nil {
			return err
		}
		if err := store.Insert(tx, &store.PatternRevision{PatternID: row.ID, N: 1, Doc: encode(d), CreatedAt: now}); err != nil {
			return err
		}
		var err error
		out, err = patternOf(tx, row)
		return err
	})
	return out, err
}

// SavePattern adds a revision; the ones before stay.
func (w *Work) SavePattern(ctx context.Context, id string, version int, d PatternDoc) (Pattern, error) {
	if err := d.validate(); err != nil {
		return Pattern{}, err
	}
	var out Pattern
	ok := false
	err := w.store.Write(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Pattern](tx, "id = ?", id)
		if err != nil {
			return err
		}
		now := w.now()
		if ok, err = store.Swap[store.Pattern](tx, id, version, now, map[string]any{"name": d.Name, "head": row.Head + 1}); err != nil {
			return err
		}
		if ok {
			if err := store.Insert(tx, &store.PatternRevision{PatternID: id, N: row.Head + 1, Doc: encode(d), CreatedAt: now}); err != nil {
				return err
			}
			row.Head, row.Version = row.Head+1, version+1
		}
		out, err = patternOf(tx, row)
		return err
	})
	if err == nil && !ok {
		err = &StaleError{Current: out}
	}
	return out, err
}
