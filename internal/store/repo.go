package store

import (
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Find reads the row of type T that matches, or ErrNotFound.
func Find[T any](tx Tx, where string, args ...any) (T, error) {
	var row T
	err := tx.db.Where(where, args...).Take(&row).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return row, ErrNotFound
	}
	return row, wrap(err)
}

// List reads all matching rows in an order.
func List[T any](tx Tx, order, where string, args ...any) ([]T, error) {
	var rows []T
	err := tx.db.Where(where, args...).Order(order).Find(&rows).Error
	return rows, wrap(err)
}

// Insert adds a row.
func Insert[T any](tx Tx, row *T) error { return wrap(tx.db.Create(row).Error) }

// Put adds a row or replaces the one with its key.
func Put[T any](tx Tx, row *T) error {
	return wrap(tx.db.Clauses(clause.OnConflict{UpdateAll: true}).Create(row).Error)
}

// Swap updates columns of the row only if it still has this version, and steps
// the version; false means that somebody else was first.
func Swap[T any](tx Tx, id any, version int, now time.Time, set map[string]any) (bool, error) {
	var row T
	set["version"] = version + 1
	set["updated_at"] = now
	r := tx.db.Model(&row).Where("id = ? AND version = ?", id, version).Updates(set)
	return r.RowsAffected == 1, wrap(r.Error)
}

// Delete removes matching rows.
func Delete[T any](tx Tx, where string, args ...any) error {
	var row T
	return wrap(tx.db.Where(where, args...).Delete(&row).Error)
}

// Highest is the highest value of an integer column among matching rows (0 for
// none).
func Highest[T any](tx Tx, column, where string, args ...any) (int, error) {
	var row T
	var n *int
	err := tx.db.Model(&row).Where(where, args...).Select("MAX(" + column + ")").Scan(&n).Error
	if n == nil {
		return 0, wrap(err)
	}
	return *n, wrap(err)
}

func wrap(err error) error {
	if err == nil {
		return nil
	}
	return fmt.Errorf("store: %w", err)
}
