package work

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"coldember/core/fact"
	"coldember/core/session"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Screen is the kind of a paired screen at the anvil; the other kinds are those of instruments.
const Screen = "screen"

// IsPerson tells the kinds of persons from those of screens and instruments. One person has one name, since what is theirs is
// known by it.
func IsPerson(kind string) bool { return kind == string(Student) || kind == string(Teacher) }

// Access is somebody, or something, that may reach the shop beside the smith: an instrument that reports, or a paired
// screen.
type Access struct {
	ID        string
	Kind      string
	Name      string
	CreatedAt time.Time
	SeenAt    *time.Time
	Last      *LastRead // of an instrument, since the server began
}

// Bounds of names, and of how many there are.
const (
	mostAccessName = 60
	mostAccess     = 150
	seenEvery      = time.Minute
)

func hashed(key string) string {
	sum := sha256.Sum256([]byte(key))
	return hex.EncodeToString(sum[:])
}

func accessOf(a store.Access) Access {
	return Access{ID: a.ID, Kind: a.Kind, Name: a.Name, CreatedAt: a.CreatedAt, SeenAt: a.SeenAt}
}

func nameOf(name string) (string, error) {
	name = strings.TrimSpace(name)
	if name == "" {
		return "", edit.One("name", "field.nameMissing", nil, "")
	}
	if utf8.RuneCountInString(name) > mostAccessName {
		return "", edit.One("name", "field.tooLong", fact.Figures{"highest": mostAccessName}, "")
	}
	return name, nil
}

// AllAccess are those that were not revoked, the oldest first.
func (w *Work) AllAccess(ctx context.Context) ([]Access, error) {
	out := []Access{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Access()
		for _, r := range rows {
			a := accessOf(r)
			a.Last = w.reads.last(r.ID)
			out = append(out, a)
		}
		return err
	})
	return out, err
}

// AddAccess lets an instrument or a screen in; the key is told this once. What a browser says of itself binds a key to it;
// nothing binds that of an instrument. Errors are *edit.InvalidError.
func (w *Work) AddAccess(ctx context.Context, kind, name, bound string) (a Access, key string, err error) {
	if kind != Screen && !IsPerson(kind) {
		k := fact.NewCheck()
		fact.OneOf(k, "kind", session.Instrument(kind), session.Instruments()...)
		if err := k.Err(); err != nil {
			return a, "", edit.Invalid(err)
		}
	}
	if name, err = nameOf(name); err != nil {
		return a, "", err
	}
	key = rand.Text()
	row := store.Access{ID: w.newID(), Kind: kind, Name: name, Hash: hashed(key), Bound: boundTo(bound), CreatedAt: w.now()}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		all, err := tx.Access()
		if err != nil {
			return err
		}
		if IsPerson(kind) && slices.ContainsFunc(all, func(a store.Access) bool { return IsPerson(a.Kind) && strings.EqualFold(a.Name, name) }) {
			return edit.One("name", "pair.nameTaken", nil, name)
		}
		if len(all) >= mostAccess {
			return edit.One("kind", "access.full", fact.Figures{"highest": mostAccess}, kind)
		}
		return tx.AddAccess(row)
	})
	if err != nil {
		return a, "", err
	}
	w.tell(Event{"access", row.ID, 0})
	return accessOf(row), key, nil
}

// NameAccess names one, or answers ErrNotFound.
func (w *Work) NameAccess(ctx context.Context, id, name string) error {
	name, err := nameOf(name)
	if err != nil {
		return err
	}
	return w.changeAccess(ctx, id, func(tx store.Tx) (bool, error) {
		all, err := tx.Access()
		if err == nil && slices.ContainsFunc(all, func(a store.Access) bool { return a.ID == id && IsPerson(a.Kind) }) {
			err = edit.One("name", "school.keepsName", nil, name) // what is theirs is known by it
		}
		if err != nil {
			return false, err
		}
		return tx.NameAccess(id, name)
	})
}

// RevokeAccess ends one at once, or answers ErrNotFound.
func (w *Work) RevokeAccess(ctx context.Context, id string) error {
	return w.changeAccess(ctx, id, func(tx store.Tx) (bool, error) { return tx.RevokeAccess(id, w.now()) })
}

func (w *Work) changeAccess(ctx context.Context, id string, f func(store.Tx) (bool, error)) error {
	err := w.store.Write(ctx, func(tx store.Tx) error {
		ok, err := f(tx)
		if err == nil && !ok {
			err = ErrNotFound
		}
		return err
	})
	if err == nil {
		w.tell(Event{"access", id, 0})
	}
	return err
}

func boundTo(says string) string {
	if says == "" {
		return ""
	}
	return hashed(says)
}

// WhoHas is who has a key and is who it was given to, or ErrNotFound. It notes that it was heard of, now and then.
func (w *Work) WhoHas(ctx context.Context, key, says string) (Access, error) {
	var out Access
	if key == "" {
		return out, ErrNotFound
	}
	now := w.now()
	err := w.store.Read(ctx, func(tx store.Tx) error {
		a, ok, err := tx.AccessBy(hashed(key))
		if err == nil && (!ok || a.Bound != "" && a.Bound != boundTo(says)) {
			err = ErrNotFound
		}
		out = accessOf(a)
		return err
	})
	if err == nil && (out.SeenAt == nil || now.Sub(*out.SeenAt) > seenEvery) {
		err = w.store.Write(ctx, func(tx store.Tx) error { return tx.SeeAccess(out.ID, now) })
	}
	return out, err
}
