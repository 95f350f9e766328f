package work

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"coldember/core/fact"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// TimerKind is what is waited for.
type TimerKind string

// What is waited for. A deadline rings for what must be done by then, the others for what is
// done then.
const (
	TimerSoak   TimerKind = "soak"
	TimerCycle  TimerKind = "cycle"
	TimerTemper TimerKind = "temper"
	TimerGlue   TimerKind = "glue"
	TimerBefore TimerKind = "before"
	TimerOther  TimerKind = "other"
)

// TimerKinds lists them.
func TimerKinds() []TimerKind {
	return []TimerKind{TimerSoak, TimerCycle, TimerTemper, TimerGlue, TimerBefore, TimerOther}
}

// Timer is when something began and how long it takes: it needs nothing to run, and survives
// whatever is shut down.
type Timer struct {
	ID        string
	PieceID   string // "": of none
	Piece     string // its name
	Kind      TimerKind
	Label     string
	Seconds   float64
	StartedAt time.Time
}

// DueAt is when it rings.
func (t *Timer) DueAt() time.Time {
	return t.StartedAt.Add(time.Duration(t.Seconds * float64(time.Second)))
}

// Bounds of timers.
const (
	longestTimerS = 14 * 24 * 3600
	mostTimers    = 200
)

// Timers are those that nobody has stopped, the oldest first.
func (w *Work) Timers(ctx context.Context) (out []Timer, err error) {
	out = []Timer{}
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Timers()
		if err != nil {
			return err
		}
		for _, r := range rows {
			t := Timer{ID: r.ID, Kind: TimerKind(r.Kind), Label: r.Label, Seconds: r.Seconds, StartedAt: r.StartedAt}
			if r.PieceID != nil {
				t.PieceID = *r.PieceID
				if row, err := tx.Piece(t.PieceID); err == nil {
					if p, err := pieceOf(row); err == nil {
						t.Piece = p.Doc.Name
					}
				}
			}
			out = append(out, t)
		}
		return nil
	})
	seen, err2 := w.visible(ctx)
	if seen != nil {
		out = slices.DeleteFunc(out, func(t Timer) bool { return t.PieceID != "" && !seen[t.PieceID] })
	}
	return out, errors.Join(err, err2)
}

// StartTimer begins one now. Errors are *edit.InvalidError, and *StateError where too many run.
func (w *Work) StartTimer(ctx context.Context, t Timer) (Timer, error) {
	t.StartedAt = w.now()
	out, err := w.startTimers(ctx, []Timer{t})
	if err != nil {
		return t, err
	}
	return out[0], nil
}

// startTimers begins some, or none of them.
func (w *Work) startTimers(ctx context.Context, all []Timer) ([]Timer, error) {
	for i := range all {
		t := &all[i]
		t.ID, t.Label = w.newID(), strings.TrimSpace(t.Label)
		c := fact.NewCheck()
		fact.OneOf(c, "kind", t.Kind, TimerKinds()...)
		doc.CheckName(c, "label", t.Label)
		c.Range("seconds", t.Seconds, 1, longestTimerS)
		if err := c.Err(); err != nil {
			return nil, edit.Invalid(err)
		}
	}
	err := w.store.Write(ctx, func(tx store.Tx) error {
		have, err := tx.Timers()
		if err != nil {
			return err
		}
		if len(have)+len(all) > mostTimers {
			return &StateError{Code: "timer.tooMany"}
		}
		for i := range all {
			t := &all[i]
			timer := store.Timer{ID: t.ID, Kind: string(t.Kind), Label: t.Label, Seconds: t.Seconds, StartedAt: t.StartedAt}
			if t.PieceID != "" {
				row, err := tx.Piece(t.PieceID)
				if err != nil {
					return missing("pieceId", err)
				}
				if p, err := pieceOf(row); err == nil && !ViewerOf(ctx).Changes(&p.Doc) {
					return &NotYoursError{Owner: p.Doc.Owner}
				}
				timer.PieceID = &t.PieceID
			}
			if err := tx.AddTimer(timer); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	for i := range all {
		w.tell(Event{"timer", all[i].ID, 0})
	}
	return all, nil
}

// mayStop refuses a student the timers of others, and those of the whole shop.
func (w *Work) mayStop(ctx context.Context, id string) error {
	if ViewerOf(ctx).Role != Student {
		return nil
	}
	all, err := w.Timers(ctx)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(all, func(t Timer) bool { return t.ID == id })
	switch {
	case i < 0:
		return ErrNotFound
	case all[i].PieceID == "":
		return &NotYoursError{}
	}
	return w.MayChange(ctx, all[i].PieceID)
}

// StopTimer stops one that runs, or has rung.
func (w *Work) StopTimer(ctx context.Context, id string) error {
	if err := w.mayStop(ctx, id); err != nil {
		return err
	}
	err := w.store.Write(ctx, func(tx store.Tx) error {
		ok, err := tx.StopTimer(id, w.now())
		if err == nil && !ok {
			err = ErrNotFound
		}
		return err
	})
	if err == nil {
		w.tell(Event{"timer", id, 0})
	}
	return err
}
