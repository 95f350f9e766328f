package store

import "time"

// Timers are those that nobody has stopped, the oldest first.
func (tx Tx) Timers() ([]Timer, error) {
	return list[Timer](tx, "started_at, id", "stopped_at IS NULL")
}

// AddTimer adds one.
func (tx Tx) AddTimer(t Timer) error { return insert(tx, &t) }

// StopTimer stops one that runs or has rung; false means that none of this id did.
func (tx Tx) StopTimer(id string, at time.Time) (bool, error) {
	r := tx.db.Model(&Timer{}).Where("id = ? AND stopped_at IS NULL", id).Update("stopped_at", at)
	return r.RowsAffected == 1, wrap(r.Error)
}
