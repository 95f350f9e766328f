package store

import (
	"time"

	"gorm.io/gorm/clause"
)

// AddSession adds a session and freezes the newest plan of its piece, whose number it gets.
func (tx Tx) AddSession(s Session) (Session, error) {
	var n *int
	if err := tx.db.Model(&Plan{}).Where("piece_id = ?", s.PieceID).Select("MAX(n)").Scan(&n).Error; err != nil {
		return s, wrap(err)
	}
	if n == nil {
		return s, ErrNotFound
	}
	s.PlanN = *n
	err := tx.db.Model(&Plan{}).Where("piece_id = ? AND n = ? AND frozen_at IS NULL", s.PieceID, s.PlanN).Update("frozen_at", s.CreatedAt).Error
	if err != nil {
		return s, wrap(err)
	}
	return s, insert(tx, &s)
}

// Session is one session, or ErrNotFound.
func (tx Tx) Session(id string) (Session, error) { return find[Session](tx, "id = ?", id) }

// Sessions are those of a piece, or of all pieces where none is named, the newest first;
// without what they hold, which is long.
func (tx Tx) Sessions(pieceID string) (rows []Session, err error) {
	q := tx.db.Omit("doc").Order("created_at DESC, id")
	if pieceID != "" {
		q = q.Where("piece_id = ?", pieceID)
	}
	return rows, wrap(q.Find(&rows).Error)
}

// Overtaken are the ids of sessions whose piece has a plan since that is another.
func (tx Tx) Overtaken() (ids []string, err error) {
	err = tx.db.Raw(`SELECT s.id FROM sessions s JOIN plans was ON was.piece_id = s.piece_id AND was.n = s.plan_n
		WHERE EXISTS (SELECT 1 FROM plans p WHERE p.piece_id = s.piece_id AND p.n > s.plan_n AND p.request <> was.request)`).Scan(&ids).Error
	return ids, wrap(err)
}

// SessionEvents are the events of a session that came after the first so many, as they came.
func (tx Tx) SessionEvents(id string, after int) ([]SessionEvent, error) {
	return list[SessionEvent](tx, "n", "session_id = ? AND n > ?", id, after)
}

// HasSessionEvent tells whether a session has an event of an id.
func (tx Tx) HasSessionEvent(sessionID, id string) (bool, error) {
	var n int64
	err := tx.db.Model(&SessionEvent{}).Where("session_id = ? AND id = ?", sessionID, id).Count(&n).Error
	return n > 0, wrap(err)
}

// AddSessionEvent adds an event to a session that has so many; added is false where it has
// this one already.
func (tx Tx) AddSessionEvent(e SessionEvent) (added bool, err error) {
	r := tx.db.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "session_id"}, {Name: "id"}}, DoNothing: true}).Create(&e)
	return r.RowsAffected == 1, wrap(r.Error)
}

// CountSessionEvents notes how many events a session has.
func (tx Tx) CountSessionEvents(id string, n int, now time.Time) error {
	return wrap(tx.db.Model(&Session{}).Where("id = ?", id).Updates(map[string]any{"events": n, "updated_at": now}).Error)
}

// PutProgress notes what the first n events of a session came to, unless more is known.
func (tx Tx) PutProgress(id, progress string, n int) error {
	return wrap(tx.db.Model(&Session{}).Where("id = ? AND progress_n < ?", id, n).Updates(map[string]any{"progress": progress, "progress_n": n}).Error)
}
