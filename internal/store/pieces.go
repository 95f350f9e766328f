package store

import (
	"errors"
	"time"

	"gorm.io/gorm"
)

// withHistory adds to pieces what their history allows.
const withHistory = `pieces.*,
	EXISTS (SELECT 1 FROM piece_edits e WHERE e.piece_id = pieces.id AND e.seq < pieces.cursor) AS can_undo,
	EXISTS (SELECT 1 FROM piece_edits e WHERE e.piece_id = pieces.id AND e.seq > pieces.cursor) AS can_redo`

func archived(db *gorm.DB, yes bool) *gorm.DB {
	if yes {
		return db.Where("archived_at IS NOT NULL")
	}
	return db.Where("archived_at IS NULL")
}

// Pieces are the pieces of work on the list, or off it, newest first.
func (tx Tx) Pieces(off bool) (rows []PieceRow, err error) {
	err = archived(tx.db.Table("pieces").Select(withHistory), off).Order("updated_at DESC, id").Find(&rows).Error
	return rows, wrap(err)
}

// Piece is one piece, or ErrNotFound.
func (tx Tx) Piece(id string) (PieceRow, error) {
	var rows []PieceRow
	err := tx.db.Table("pieces").Select(withHistory).Where("id = ?", id).Find(&rows).Error
	if err == nil && len(rows) == 0 {
		return PieceRow{}, ErrNotFound
	}
	if err != nil {
		return PieceRow{}, wrap(err)
	}
	return rows[0], nil
}

// AddPiece adds a piece with the first step of its history and its first named state.
func (tx Tx) AddPiece(p Piece, label string) error {
	if err := insert(tx, &p); err != nil {
		return err
	}
	if err := insert(tx, &PieceEdit{PieceID: p.ID, Seq: p.Cursor, Doc: p.Doc, CreatedAt: p.CreatedAt}); err != nil {
		return err
	}
	return insert(tx, &PieceRevision{PieceID: p.ID, N: 1, Label: label, Doc: p.Doc, CreatedAt: p.CreatedAt})
}

// SwapPiece gives a piece another state if it still has this version; false means
// that somebody else was first.
func (tx Tx) SwapPiece(id string, version int, now time.Time, doc, summary string, cursor int) (bool, error) {
	return swap[Piece](tx, id, version, now, map[string]any{"doc": doc, "summary": summary, "cursor": cursor})
}

// ArchivePiece takes a piece off the list (at) or puts it back (nil) if it still has
// this version.
func (tx Tx) ArchivePiece(id string, version int, now time.Time, at *time.Time) (bool, error) {
	return swap[Piece](tx, id, version, now, map[string]any{"archived_at": at})
}

// PieceEdit is one step of the history of a piece, or ErrNotFound.
func (tx Tx) PieceEdit(id string, seq int) (PieceEdit, error) {
	return find[PieceEdit](tx, "piece_id = ? AND seq = ?", id, seq)
}

// PieceEditBeside is the step before (by −1) or after (+1) one of a history, whatever
// has been thinned out between them, or ErrNotFound.
func (tx Tx) PieceEditBeside(id string, seq, by int) (PieceEdit, error) {
	where, order := "piece_id = ? AND seq > ?", "seq"
	if by < 0 {
		where, order = "piece_id = ? AND seq < ?", "seq DESC"
	}
	var row PieceEdit
	err := tx.db.Where(where, id, seq).Order(order).Take(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return row, ErrNotFound
	}
	return row, wrap(err)
}

// PutPieceEdit adds a step to the history of a piece, or replaces it. Later steps are
// gone. Of those more than keep before it the last of a day stays, and of those more
// than a year older the last of a month.
func (tx Tx) PutPieceEdit(e PieceEdit, keep int) error {
	if err := remove[PieceEdit](tx, "piece_id = ? AND seq > ?", e.PieceID, e.Seq); err != nil {
		return err
	}
	if err := tx.thinPieceEdits(e.PieceID, e.Seq-keep, e.CreatedAt.AddDate(-1, 0, 0)); err != nil {
		return err
	}
	return put(tx, &e)
}

// thinPieceEdits leaves of the steps up to seq the last of each day, and of each month
// before a time.
func (tx Tx) thinPieceEdits(id string, seq int, monthsBefore time.Time) error {
	const day, month = 10, 7 // letters of a stored time
	if seq <= 0 {
		return nil
	}
	return remove[PieceEdit](tx, `piece_id = ? AND seq <= ? AND EXISTS (SELECT 1 FROM piece_edits later
		WHERE later.piece_id = piece_edits.piece_id AND later.seq > piece_edits.seq AND later.seq <= ?
		AND (substr(later.created_at, 1, ?) = substr(piece_edits.created_at, 1, ?)
			OR later.created_at < ? AND substr(later.created_at, 1, ?) = substr(piece_edits.created_at, 1, ?)))`,
		id, seq, seq, day, day, monthsBefore.UTC(), month, month)
}

// KeepPlan keeps the plan of a piece in place of its last one, but never of one that
// was frozen (taken to the fire).
func (tx Tx) KeepPlan(p Plan) error {
	var n *int
	err := tx.db.Model(&Plan{}).Where("piece_id = ? AND frozen_at IS NOT NULL", p.PieceID).Select("MAX(n)").Scan(&n).Error
	if err != nil {
		return wrap(err)
	}
	p.N = 1
	if n != nil {
		p.N = *n + 1
	}
	return put(tx, &p)
}

// Picture is a picture with its bytes, or ErrNotFound.
func (tx Tx) Picture(id string) (Picture, error) { return find[Picture](tx, "id = ?", id) }

// KeepPicture keeps a picture unless it is there already.
func (tx Tx) KeepPicture(p Picture) error {
	var n int64
	if err := tx.db.Model(&Picture{}).Where("id = ?", p.ID).Count(&n).Error; err != nil || n > 0 {
		return wrap(err)
	}
	return insert(tx, &p)
}

// RemoveLoosePictures removes the pictures that no document names and that came before a time,
// and counts them.
func (tx Tx) RemoveLoosePictures(before time.Time) (int, error) {
	named := ""
	for _, table := range []string{"pieces", "piece_edits", "piece_revisions", "pattern_revisions", "session_events", "stock_items"} {
		named += " AND NOT EXISTS (SELECT 1 FROM " + table + " d WHERE instr(d.doc, pictures.id) > 0)"
	}
	r := tx.db.Exec("DELETE FROM pictures WHERE created_at < ?"+named, before.UTC())
	return int(r.RowsAffected), wrap(r.Error)
}
