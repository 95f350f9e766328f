package store

import "time"

// Access are those who may reach the shop, the oldest first.
func (tx Tx) Access() ([]Access, error) {
	return list[Access](tx, "created_at, id", "revoked_at IS NULL")
}

// AccessBy is who has the key of a hash, if it was not revoked; ok is false if nobody.
func (tx Tx) AccessBy(hash string) (a Access, ok bool, err error) {
	all, err := list[Access](tx, "id", "hash = ? AND revoked_at IS NULL", hash)
	if err != nil || len(all) == 0 {
		return a, false, err
	}
	return all[0], true, nil
}

// AddAccess adds one.
func (tx Tx) AddAccess(a Access) error { return insert(tx, &a) }

// NameAccess names one; false means that there is none.
func (tx Tx) NameAccess(id, name string) (bool, error) {
	r := tx.db.Model(&Access{}).Where("id = ? AND revoked_at IS NULL", id).Update("name", name)
	return r.RowsAffected == 1, wrap(r.Error)
}

// RevokeAccess ends one; false means that there is none.
func (tx Tx) RevokeAccess(id string, at time.Time) (bool, error) {
	r := tx.db.Model(&Access{}).Where("id = ? AND revoked_at IS NULL", id).Update("revoked_at", at)
	return r.RowsAffected == 1, wrap(r.Error)
}

// SeeAccess notes when one was heard of last.
func (tx Tx) SeeAccess(id string, at time.Time) error {
	return wrap(tx.db.Model(&Access{}).Where("id = ?", id).Update("seen_at", at).Error)
}
