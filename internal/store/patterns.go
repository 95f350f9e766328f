package store

import "time"

// withHead joins patterns with their newest revision.
const withHead = "JOIN pattern_revisions r ON r.pattern_id = patterns.id AND r.n = patterns.head"

// Patterns are the library in the order it grew, or what was taken off it, each with
// its newest document.
func (tx Tx) Patterns(off bool) (rows []PatternRow, err error) {
	err = archived(tx.db.Table("patterns").Select("patterns.*, r.doc").Joins(withHead), off).Order("patterns.created_at, patterns.id").Find(&rows).Error
	return rows, wrap(err)
}

// Pattern is one pattern with its newest document, or ErrNotFound.
func (tx Tx) Pattern(id string) (PatternRow, error) {
	var rows []PatternRow
	err := tx.db.Table("patterns").Select("patterns.*, r.doc").Joins(withHead).Where("patterns.id = ?", id).Find(&rows).Error
	if err == nil && len(rows) == 0 {
		return PatternRow{}, ErrNotFound
	}
	if err != nil {
		return PatternRow{}, wrap(err)
	}
	return rows[0], nil
}

// PatternCount is how many patterns there have ever been.
func (tx Tx) PatternCount() (int, error) {
	var n int64
	err := tx.db.Model(&Pattern{}).Count(&n).Error
	return int(n), wrap(err)
}

// AddPattern adds a pattern with its first revision.
func (tx Tx) AddPattern(p Pattern, doc string) error {
	if err := insert(tx, &p); err != nil {
		return err
	}
	return insert(tx, &PatternRevision{PatternID: p.ID, N: p.Head, Doc: doc, CreatedAt: p.CreatedAt})
}

// KeptRevisions is how many revisions of a pattern stay, beside the first.
const KeptRevisions = 300

// RevisePattern adds a revision if the pattern still has this version; false means
// that somebody else was first.
func (tx Tx) RevisePattern(p Pattern, name string, now time.Time, doc string) (bool, error) {
	ok, err := swap[Pattern](tx, p.ID, p.Version, now, map[string]any{"name": name, "head": p.Head + 1})
	if err != nil || !ok {
		return false, err
	}
	// the first stays, and those that came last
	if err := remove[PatternRevision](tx, "pattern_id = ? AND n > 1 AND n <= ?", p.ID, p.Head+1-KeptRevisions); err != nil {
		return false, err
	}
	return true, insert(tx, &PatternRevision{PatternID: p.ID, N: p.Head + 1, Doc: doc, CreatedAt: now})
}

// ArchivePattern takes a pattern off the library (at) or puts it back (nil) if it
// still has this version.
func (tx Tx) ArchivePattern(id string, version int, now time.Time, at *time.Time) (bool, error) {
	return swap[Pattern](tx, id, version, now, map[string]any{"archived_at": at})
}

// PatternRevisions are the revisions of a pattern, newest first.
func (tx Tx) PatternRevisions(id string) ([]PatternRevision, error) {
	return list[PatternRevision](tx, "n desc", "pattern_id = ?", id)
}

// PatternRevision is one revision, or ErrNotFound.
func (tx Tx) PatternRevision(id string, n int) (PatternRevision, error) {
	return find[PatternRevision](tx, "pattern_id = ? AND n = ?", id, n)
}
