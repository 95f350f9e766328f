package work

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/store"
)

// fires remembers what sessions hold, which is long and never changes.
type fires struct {
	mu    sync.Mutex
	known map[string]*doc.Session
	lives map[string]*living
}

// living is a session as it is folded so far.
type living struct {
	mu    sync.Mutex
	live  *session.Live
	count int
}

// living is what is remembered of a session, or new.
func (f *fires) living(id string, d *doc.Session) (*living, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	if l := f.lives[id]; l != nil {
		return l, nil
	}
	live, err := session.NewLive(&d.Course)
	if err != nil {
		return nil, err
	}
	if len(f.lives) >= rememberedFires || f.lives == nil {
		f.lives = map[string]*living{}
	}
	l := &living{live: live}
	f.lives[id] = l
	return l, nil
}

// rememberedFires is how many: some hundred kilobytes each.
const rememberedFires = 32

// of is what a session holds.
func (f *fires) of(row store.Session) (*doc.Session, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	if d := f.known[row.ID]; d != nil {
		return d, nil
	}
	d, err := doc.Decode[doc.Session](row.Doc)
	if err != nil {
		return nil, err
	}
	if err := d.Course.Validate(); err != nil {
		return nil, &doc.BrokenError{Kind: "session", Err: err}
	}
	if len(f.known) >= rememberedFires || f.known == nil {
		f.known = map[string]*doc.Session{}
	}
	f.known[row.ID] = &d
	return &d, nil
}

// forget is for when another file takes the place of this one.
func (f *fires) forget() {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.known, f.lives = nil, nil
}

// Entry is a session in the book of all pieces.
type Entry struct {
	ID       string
	PieceID  string
	Laws     int
	Replaced bool
	Changed  bool // the piece is planned otherwise by now
	doc.Progress
}

// progressOf is how far events have come on a course.
func progressOf(d *doc.Session, events []session.Event) doc.Progress {
	s := session.Fold(&d.Course, events)
	b := session.BookOf(&d.Course, events)
	v := s.Show(&d.Course, b.LastMs)
	p := doc.Progress{
		Phase: s.Phase, Step: s.Step, Steps: len(d.Course.Steps), Trips: v.Trip, Heats: v.Heats, Sittings: len(s.Sittings), StartedMs: s.StartedMs, LastMs: b.LastMs,
		Faults: []string{}, Blows: b.Totals.Blows, LastsS: b.Totals.LastsS, WeightG: b.Totals.WeightG, SteelID: d.Request.SteelID, Hand: d.Hand, Name: d.Name,
	}
	p.Hardened, p.Completed = len(d.Course.Treatment) > 0 && s.Treat >= len(d.Course.Treatment), s.CompletedMs > 0
	for _, f := range b.Faults {
		p.Faults = append(p.Faults, string(f.Fault.Kind))
	}
	return p
}

// AllFires is the book of all pieces: every session, the newest first. What an older one has
// come to since it was last asked for is worked out, and kept.
func (w *Work) AllFires(ctx context.Context) (out []Entry, err error) {
	out = []Entry{}
	var late []store.Session
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Sessions("")
		if err != nil {
			return err
		}
		overtaken, err := tx.Overtaken()
		if err != nil {
			return err
		}
		seen := map[string]bool{}
		for _, row := range rows {
			e := Entry{ID: row.ID, PieceID: row.PieceID, Laws: row.Laws, Replaced: seen[row.PieceID], Changed: slices.Contains(overtaken, row.ID)}
			seen[row.PieceID] = true
			if row.Progress == "" || row.ProgressN != row.Events || readProgress(row.Progress, &e.Progress) != nil {
				if row, err = tx.Session(row.ID); err != nil {
					return err
				}
				if e.Progress, err = w.progressIn(tx, row); err != nil {
					continue // it cannot be read: set aside, so that the others can be
				}
				row.Progress = encodeProgress(e.Progress)
				late = append(late, row)
			}
			out = append(out, e)
		}
		return nil
	})
	if err == nil {
		out, err = w.ofVisible(ctx, out)
	}
	if err != nil || len(late) == 0 {
		return out, err
	}
	return out, w.store.Write(ctx, func(tx store.Tx) error {
		for _, row := range late {
			if err := tx.PutProgress(row.ID, row.Progress, row.Events); err != nil {
				return err
			}
		}
		return nil
	})
}

// ofVisible leaves those whose piece of work the viewer sees.
func (w *Work) ofVisible(ctx context.Context, all []Entry) ([]Entry, error) {
	seen, err := w.visible(ctx)
	if seen == nil || err != nil {
		return all, err
	}
	return slices.DeleteFunc(all, func(e Entry) bool { return !seen[e.PieceID] }), nil
}

// progressIn works out how far a session is.
func (w *Work) progressIn(tx store.Tx, row store.Session) (doc.Progress, error) {
	d, err := w.fires.of(row)
	if err != nil {
		return doc.Progress{}, err
	}
	rows, err := tx.SessionEvents(row.ID, 0)
	if err != nil {
		return doc.Progress{}, err
	}
	events := make([]session.Event, 0, len(rows))
	for _, r := range rows {
		e, err := doc.Decode[session.Event](r.Doc)
		if err != nil {
			return doc.Progress{}, err
		}
		events = append(events, e)
	}
	return progressOf(d, events), nil
}

func readProgress(text string, p *doc.Progress) error {
	err := json.Unmarshal([]byte(text), p)
	p.Name, p.Hand = doc.SpokenName(p.Name), doc.SpokenName(p.Hand)
	return err
}

func encodeProgress(p doc.Progress) string {
	p.Name, p.Hand = doc.StoredName(p.Name), doc.StoredName(p.Hand)
	b, err := json.Marshal(p)
	if err != nil {
		panic(fmt.Sprintf("work: progress: %v", err)) // plain figures
	}
	return string(b)
}
