package store

// Whole is every row of a file, for an archive.
type Whole struct {
	Shop      []Shop
	Patterns  []Pattern
	Revisions []PatternRevision
	Stock     []StockItem
	Pieces    []Piece
	Edits     []PieceEdit
	Named     []PieceRevision
	Cuts      []Cut
	Made      []CutMade
	Plans     []Plan // that were frozen
	Sessions  []Session
	Events    []SessionEvent
	Timers    []Timer // that nobody has stopped
	Practised []Practised
	Pictures  []string // ids; their bytes are read one by one
}

// Whole reads every row but the bytes of pictures, and plans that can be made again: those
// that were never frozen.
func (tx Tx) Whole() (w Whole, err error) {
	for _, t := range []struct {
		rows  any
		order string
	}{
		{&w.Shop, "id"},
		{&w.Patterns, "created_at, id"},
		{&w.Revisions, "pattern_id, n"},
		{&w.Stock, "created_at, id"},
		{&w.Pieces, "created_at, id"},
		{&w.Edits, "piece_id, seq"},
		{&w.Named, "piece_id, n"},
		{&w.Cuts, "id"},
		{&w.Made, "id"},
		{&w.Sessions, "created_at, id"},
		{&w.Events, "session_id, n"},
		{&w.Practised, "created_at, id"},
	} {
		if err := tx.db.Order(t.order).Find(t.rows).Error; err != nil {
			return w, wrap(err)
		}
	}
	if err := tx.db.Where("frozen_at IS NOT NULL").Order("piece_id, n").Find(&w.Plans).Error; err != nil {
		return w, wrap(err)
	}
	if w.Timers, err = tx.Timers(); err != nil {
		return w, err
	}
	return w, wrap(tx.db.Model(&Picture{}).Order("id").Pluck("id", &w.Pictures).Error)
}

// WholePiece is everything of one piece of work, and what it is taken from; Pictures are not
// looked for.
func (tx Tx) WholePiece(id string) (w Whole, err error) {
	for _, t := range []struct {
		rows         any
		where, order string
	}{
		{&w.Pieces, "id = ?", "id"},
		{&w.Edits, "piece_id = ?", "seq"},
		{&w.Named, "piece_id = ?", "n"},
		{&w.Cuts, "piece_id = ?", "id"},
		{&w.Made, "piece_id = ?", "id"},
		{&w.Plans, "piece_id = ? AND frozen_at IS NOT NULL", "n"},
		{&w.Sessions, "piece_id = ?", "created_at, id"},
		{&w.Events, "session_id IN (SELECT id FROM sessions WHERE piece_id = ?)", "session_id, n"},
		{&w.Stock, "id IN (SELECT stock_id FROM cuts WHERE piece_id = ?)", "created_at, id"},
	} {
		if err := tx.db.Where(t.where, id).Order(t.order).Find(t.rows).Error; err != nil {
			return w, wrap(err)
		}
	}
	if len(w.Pieces) == 0 {
		return w, ErrNotFound
	}
	return w, nil
}

// Fill writes every row, none of which is there yet; pictures come by KeepPicture.
func (tx Tx) Fill(w Whole) error {
	for _, rows := range []any{w.Shop, w.Patterns, w.Revisions, w.Stock, w.Pieces, w.Edits, w.Named, w.Cuts, w.Made, w.Plans, w.Sessions, w.Events, w.Timers, w.Practised} {
		if err := tx.db.CreateInBatches(rows, 200).Error; err != nil {
			return wrap(err)
		}
	}
	return nil
}
