package store

import (
	"errors"
	"time"
)

// Stock is the rack in the order it was filled, or what is off it.
func (tx Tx) Stock(off bool) (rows []StockItem, err error) {
	err = archived(tx.db, off).Order("created_at, id").Find(&rows).Error
	return rows, wrap(err)
}

// StockItem is one piece of stock, on the rack or off it, or ErrNotFound.
func (tx Tx) StockItem(id string) (StockItem, error) { return find[StockItem](tx, "id = ?", id) }

// AddStock adds a piece of stock.
func (tx Tx) AddStock(s StockItem) error { return insert(tx, &s) }

// SwapStock gives a piece of stock another document if it still has this version;
// false means that somebody else was first.
func (tx Tx) SwapStock(id string, version int, now time.Time, doc string) (bool, error) {
	return swap[StockItem](tx, id, version, now, map[string]any{"doc": doc})
}

// TouchStock steps the version of a piece of stock that has this one.
func (tx Tx) TouchStock(id string, version int, now time.Time) (bool, error) {
	return swap[StockItem](tx, id, version, now, map[string]any{})
}

// ArchiveStock takes a piece off the rack (at) or puts it back (nil) if it still has
// this version.
func (tx Tx) ArchiveStock(id string, version int, now time.Time, at *time.Time) (bool, error) {
	return swap[StockItem](tx, id, version, now, map[string]any{"archived_at": at})
}

// OpenCuts are the cuts that are proposed or booked and not yet made, of pieces on
// the list: from one piece of stock, or from any ("").
func (tx Tx) OpenCuts(stockID string) (rows []Cut, err error) {
	q := tx.db.Where("stock_id IS NOT NULL AND state <> 'made' AND piece_id IN (SELECT id FROM pieces WHERE archived_at IS NULL)")
	if stockID != "" {
		q = q.Where("stock_id = ?", stockID)
	}
	err = q.Order("id").Find(&rows).Error
	return rows, wrap(err)
}

// Cuts are those of a piece of work.
func (tx Tx) Cuts(pieceID string) ([]Cut, error) {
	return list[Cut](tx, "role", "piece_id = ?", pieceID)
}

// Cut is one cut of a piece of work; ok is false where there is none.
func (tx Tx) Cut(pieceID, role string) (c Cut, ok bool, err error) {
	c, err = find[Cut](tx, "piece_id = ? AND role = ?", pieceID, role)
	if errors.Is(err, ErrNotFound) {
		return c, false, nil
	}
	return c, err == nil, err
}

// PutCut adds a cut, or replaces the one of its id.
func (tx Tx) PutCut(c Cut) error { return put(tx, &c) }

// CutsMade are what was cut from a piece of stock, in order; from any for "".
func (tx Tx) CutsMade(stockID string) ([]CutMade, error) {
	if stockID == "" {
		return list[CutMade](tx, "id", "1 = 1")
	}
	return list[CutMade](tx, "id", "stock_id = ?", stockID)
}

// AddCutMade notes that a cut was made.
func (tx Tx) AddCutMade(c CutMade) error { return insert(tx, &c) }

// CopyCutsMade gives a piece of stock the history of the one it was cut from.
func (tx Tx) CopyCutsMade(from, to string) error {
	return wrap(tx.db.Exec("INSERT INTO cuts_made (stock_id, piece_id, name, length_mm, at) SELECT ?, piece_id, name, length_mm, at FROM cuts_made WHERE stock_id = ? ORDER BY id", to, from).Error)
}

// Shop is the settings; ok is false in a database that has none yet.
func (tx Tx) Shop() (s Shop, ok bool, err error) {
	s, err = find[Shop](tx, "id = 1")
	if errors.Is(err, ErrNotFound) {
		return Shop{}, false, nil
	}
	return s, err == nil, err
}

// PutShop keeps the settings.
func (tx Tx) PutShop(s Shop) error {
	s.ID = 1
	return put(tx, &s)
}
