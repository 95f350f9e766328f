package store

import (
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// find reads the row of type T that matches, or ErrNotFound.
func find[T any](tx Tx, where string, args ...any) (T, error) {
	var row T
	err := tx.db.Where(where, args...).Take(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return row, ErrNotFound
	}
	return row, wrap(err)
}

// list reads all matching rows in an order.
func list[T any](tx Tx, order, where string, args ...any) ([]T, error) {
	var rows []T
	err := tx.db.Where(where, args...).Order(order).Find(&rows).Error
	return rows, wrap(err)
}

// insert adds a row.
func insert[T any](tx Tx, row *T) error { return wrap(tx.db.Create(row).Error) }

// put adds a row or replaces the one with its key.
func put[T any](tx Tx, row *T) error {
	return wrap(tx.db.Clauses(clause.OnConflict{UpdateAll: true}).Create(row).Error)
}

// swap updates columns of the row only if it still has this version, and steps
// the version; false means that somebody else was first.
func swap[T any](tx Tx, id any, version int, now time.Time, set map[string]any) (bool, error) {
	var row T
	set["version"] = version + 1
	set["updated_at"] = now
	r := tx.db.Model(&row).Where("id = ? AND version = ?", id, version).Updates(set)
	return r.RowsAffected == 1, wrap(r.Error)
}

// remove removes matching rows.
func remove[T any](tx Tx, where string, args ...any) error {
	var row T
	return wrap(tx.db.Where(where, args...).Delete(&row).Error)
}

func wrap(err error) error {
	if err == nil {
		return nil
	}
	return fmt.Errorf("store: %w", err)
}
