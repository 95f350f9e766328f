package work

import (
	"context"
	"encoding/json"
	"errors"
	"reflect"
	"time"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Fire is a session at the fire, as it is stored.
type Fire struct {
	ID        string
	PieceID   string
	PlanN     int
	Doc       doc.Session
	Count     int  // events
	Changed   bool // the piece is planned otherwise by now
	Replaced  bool // a later plan was taken to the fire
	StartedAt time.Time
	Grips     []session.Grip // with the shop's tongs
}

// TakeToFire freezes the plan of a piece and begins a session; where one goes on it is that.
// Again begins another one where the piece was changed since: the first is kept.
func (w *Work) TakeToFire(ctx context.Context, pieceID string, again bool) (Fire, error) {
	if err := w.MayChange(ctx, pieceID); err != nil {
		return Fire{}, err
	}
	p, err := w.Piece(ctx, pieceID)
	if err != nil {
		return Fire{}, err
	}
	now, err := w.FireOf(ctx, pieceID)
	if err == nil && (!now.Changed || !again) {
		return now, nil
	}
	if err != nil && !errors.Is(err, ErrNotFound) {
		return Fire{}, err
	}
	made, err := w.planToSave(ctx, p.Doc)
	if err != nil {
		return Fire{}, err
	}
	if code, stops := stopped(made); stops {
		return Fire{}, &StateError{Code: code}
	}
	d := doc.Session{Name: p.Doc.Name, Hand: p.Doc.Hand, Request: p.Doc.Request, Course: session.Freeze(&p.Doc.Request, made, planner.TreatmentSteps(&p.Doc.Request, made))}
	row := store.Session{ID: w.newID(), PieceID: pieceID, Laws: made.Laws, Doc: doc.Encode(d), CreatedAt: w.now(), UpdatedAt: w.now()}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		as, err := tx.Piece(pieceID)
		if err != nil {
			return err
		}
		if as.Version != p.Version {
			return errStale
		}
		// what is kept may be of older laws
		if err := w.snapshot(tx, pieceID, p.Doc, made); err != nil {
			return err
		}
		row, err = tx.AddSession(row)
		return err
	})
	if err != nil {
		return Fire{}, staleOr(err, func() (Piece, error) { return w.Piece(ctx, pieceID) })
	}
	w.tell(Event{"session", row.ID, 0})
	w.tell(Event{"piece", pieceID, p.Version})
	return w.Fire(ctx, row.ID)
}

// stopped tells whether a plan cannot be forged as it is.
func stopped(p *plan.Plan) (code string, stops bool) {
	for _, x := range p.Warnings {
		if x.Severity == fact.Stop {
			return "session.stopped", true
		}
	}
	return "", len(p.Heats) == 0
}

// FireOf is the newest session of a piece, or ErrNotFound.
func (w *Work) FireOf(ctx context.Context, pieceID string) (Fire, error) {
	id := ""
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Sessions(pieceID)
		if err == nil && len(rows) == 0 {
			err = ErrNotFound
		}
		if err == nil {
			id = rows[0].ID
		}
		return err
	})
	if err != nil {
		return Fire{}, err
	}
	return w.Fire(ctx, id)
}

// Fire is one session.
func (w *Work) Fire(ctx context.Context, id string) (out Fire, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.Session(id)
		if err != nil {
			return err
		}
		d, err := w.fires.of(row)
		if err != nil {
			return err
		}
		out = Fire{ID: row.ID, PieceID: row.PieceID, PlanN: row.PlanN, Doc: *d, Count: row.Events, StartedAt: row.CreatedAt}
		shop, err := settingsIn(tx)
		if err != nil {
			return err
		}
		out.Grips = session.Grips(&d.Course, shop.Doc.TongsList())
		later, err := tx.Sessions(row.PieceID)
		if err != nil {
			return err
		}
		out.Replaced = len(later) > 0 && later[0].ID != id
		piece, err := tx.Piece(row.PieceID)
		if err != nil {
			return err
		}
		p, err := pieceOf(piece)
		if err == nil {
			out.Changed = !same(p.Doc.Request, d.Request)
		}
		if !ViewerOf(ctx).Sees(&p.Doc) {
			return ErrNotFound
		}
		return nil
	})
	return out, err
}

// same tells whether two requests are answered alike.
func same(a, b plan.Request) bool {
	a.Learned, b.Learned = nil, nil // what the book taught since is no change of the piece
	if reflect.DeepEqual(a, b) {
		return true
	}
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && string(x) == string(y)
}

// Happened are the events of a session after the first so many, as they came.
func (w *Work) Happened(ctx context.Context, id string, after int) (out []session.Event, err error) {
	out = []session.Event{}
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.SessionEvents(id, after)
		for _, r := range rows {
			e, err := doc.Decode[session.Event](r.Doc)
			if err != nil {
				return err
			}
			out = append(out, e)
		}
		return err
	})
	return out, err
}

// ShownNow is what a screen would show of a session at this moment. What was folded before is
// remembered: only what came since is read.
func (w *Work) ShownNow(ctx context.Context, f Fire) (out session.Shown, err error) {
	l, err := w.fires.living(f.ID, &f.Doc)
	if err != nil {
		return out, err
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	events, err := w.Happened(ctx, f.ID, l.count)
	if err != nil {
		return out, err
	}
	if len(events) > 0 {
		l.live.Add(events)
		l.count += len(events)
	}
	return l.live.Show("", w.now().UnixMilli()), nil
}

// Refusal is an event that cannot be, with what of it; it is not kept here.
type Refusal struct {
	ID     string
	Fields []edit.Problem
}

// Heard is what became of events that were told.
type Heard struct {
	Count    int // of the session now
	Added    int
	Refused  []Refusal
	Replaced bool // a later plan was taken to the fire: this goes into the book of the earlier one
	Wrong    bool // the clock that they were told by is off by a minute or more
}

// wrongClock is how far a clock may be off before it is told of.
const wrongClock = time.Minute

// mayTell refuses a student the sessions of others.
func (w *Work) mayTell(ctx context.Context, id string) error {
	if ViewerOf(ctx).Role != Student {
		return nil
	}
	f, err := w.Fire(ctx, id)
	if err != nil {
		return err
	}
	return w.MayChange(ctx, f.PieceID)
}

// Tell adds events to a session, each once. deviceMs is the clock of the device as it sends
// them; 0 is of one whose times are right. What cannot be is refused one by one, and the others are kept; all that are kept are
// in the file before this returns.
func (w *Work) Tell(ctx context.Context, id string, deviceMs int64, events []session.Event) (out Heard, err error) {
	now := w.now()
	off := now.UnixMilli() - deviceMs
	if deviceMs <= 0 {
		off = 0
	}
	if err := w.mayTell(ctx, id); err != nil {
		return out, err
	}
	out.Wrong = off > wrongClock.Milliseconds() || off < -wrongClock.Milliseconds()
	out.Refused = []Refusal{}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		row, err := tx.Session(id)
		if err != nil {
			return err
		}
		d, err := w.fires.of(row)
		if err != nil {
			return err
		}
		out.Count = row.Events
		all, err := tx.Sessions(row.PieceID)
		if err != nil {
			return err
		}
		out.Replaced = len(all) > 0 && all[0].ID != id
		for _, e := range events {
			e.OffMs = off
			if wrong := e.Validate(&d.Course); wrong != nil {
				out.Refused = append(out.Refused, refusal(e.ID, wrong))
				continue
			}
			if e.Kind == session.Pictured {
				if _, err := tx.Picture(e.Picture); err != nil {
					out.Refused = append(out.Refused, refusal(e.ID, missing("picture", err)))
					continue
				}
			}
			if out.Count >= session.MostEvents {
				return edit.One("events", "session.full", fact.Figures{"highest": session.MostEvents}, "")
			}
			added, err := tx.AddSessionEvent(store.SessionEvent{SessionID: id, ID: e.ID, N: out.Count + 1, Doc: doc.Encode(e), HeardAt: now})
			if err != nil {
				return err
			}
			if added {
				out.Count++
				out.Added++
			}
		}
		if out.Added == 0 {
			return nil
		}
		return tx.CountSessionEvents(id, out.Count, now)
	})
	if err == nil && out.Added > 0 {
		w.tell(Event{"session", id, out.Count})
	}
	return out, err
}

// refusal tells what of an event is wrong.
func refusal(id string, err error) Refusal {
	r := Refusal{ID: id}
	var wrong *edit.InvalidError
	if errors.As(edit.Invalid(err), &wrong) {
		r.Fields = wrong.Fields
	}
	return r
}

// BookOf is what a session came to.
func (w *Work) BookOf(ctx context.Context, id string) (Fire, session.Book, error) {
	f, err := w.Fire(ctx, id)
	if err != nil {
		return f, session.Book{}, err
	}
	events, err := w.Happened(ctx, id, 0)
	if err != nil {
		return f, session.Book{}, err
	}
	return f, session.BookOf(&f.Doc.Course, events), nil
}
