package store

import "time"

// Practised is what was practised and put on the sheet, the newest first.
func (tx Tx) Practised() ([]Practised, error) {
	return list[Practised](tx, "created_at DESC, id", "removed_at IS NULL")
}

// CountPractised is how many there are, with those that were taken off.
func (tx Tx) CountPractised() (int64, error) {
	var n int64
	return n, wrap(tx.db.Model(&Practised{}).Count(&n).Error)
}

// PutPractised adds one, or replaces the one of its id.
func (tx Tx) PutPractised(p Practised) error { return put(tx, &p) }

// RemovePractised takes one off the sheet at a time, or puts it back (nil); false means that there is none.
func (tx Tx) RemovePractised(id string, at *time.Time) (bool, error) {
	r := tx.db.Model(&Practised{}).Where("id = ?", id).Update("removed_at", at)
	return r.RowsAffected == 1, wrap(r.Error)
}
