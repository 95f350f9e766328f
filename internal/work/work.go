// Package work has the use cases: pieces with their history, patterns, the rack
// and the shop. It is the only caller of store. Plans are made outside of
// transactions: nothing waits on the one writer while steel is forged.
package work

import (
	"context"
	"errors"
	"time"

	"coldember/core/blade"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"

	"github.com/google/uuid"
)

// Work is the use cases over a store.
type Work struct {
	store     *store.Store
	now       func() time.Time // of the world's one time, which never goes back by an hour
	here      func() time.Time // as the smith's clock shows it
	newID     func() string
	plans     *planning
	heard     *listeners
	fires     fires
	pages     book
	reads     reads
	help      helpPlan
	sheetWays sheetWays

	copying copying
}

// New returns the use cases; now is the clock, and newID names what is made.
func New(s *store.Store, now func() time.Time, newID func() string) *Work {
	return &Work{store: s, now: func() time.Time { return now().UTC() }, here: now, newID: newID, plans: newPlanning(), heard: &listeners{}}
}

// RandomID is an id that nothing else has.
func RandomID() string { return uuid.NewString()[:13] }

// ErrNotFound is returned for what is not there.
var ErrNotFound = store.ErrNotFound

// StaleError is returned when somebody else saved first; Current is what they
// saved: a Piece, Pattern, Stock or Settings.
type StaleError struct{ Current any }

func (e *StaleError) Error() string { return "work: another save came first" }

// StateError refuses what the state does not allow, by a problem code.
type StateError struct{ Code string }

func (e *StateError) Error() string { return "work: " + e.Code }

// errStale tells the caller of a transaction to look up what is there now.
var errStale = errors.New("work: stale")

// swapped turns the answer of a swap into errStale.
func swapped(ok bool, err error) error {
	if err == nil && !ok {
		return errStale
	}
	return err
}

// staleOr looks up what is there now, where a swap found it changed.
func staleOr[T any](err error, now func() (T, error)) error {
	if !errors.Is(err, errStale) {
		return err
	}
	current, readErr := now()
	if readErr != nil {
		return readErr
	}
	return &StaleError{Current: current}
}

// missing puts what is not there beside the field that names it.
func missing(field string, err error) error {
	if errors.Is(err, ErrNotFound) {
		return edit.One(field, "problem.notFound", nil, "")
	}
	return err
}

// Ensure gives a new database the patterns to start from, all or none. It does
// nothing once there has been any pattern, archived ones included.
func (w *Work) Ensure(ctx context.Context) error {
	return w.store.Write(ctx, func(tx store.Tx) error {
		n, err := tx.PatternCount()
		if err != nil || n > 0 {
			return err
		}
		for _, s := range blade.Starters() {
			d := doc.Pattern{Name: text.Say("starter."+s.ID, nil), Tags: []string{}, Design: s.Design, Allowances: blade.ThickAndGrind.AllowancesFor(&s.Design)}
			if err := d.Validate(); err != nil {
				return edit.Invalid(err)
			}
			if err := tx.AddPattern(w.newPattern(d.Name), doc.Encode(d)); err != nil {
				return err
			}
		}
		return nil
	})
}
