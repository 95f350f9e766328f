package work

import (
	"context"
	"slices"
	"sync"

	"coldember/core/learn"
	"coldember/core/session"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/store"
)

// book remembers what each session says, by how many events it had.
type book struct {
	mu    sync.Mutex
	known map[string]worked
}

type worked struct {
	events  int
	of      learn.Worked
	records []learn.Record
}

// mostBook bounds the sessions that are learned from: the newest.
const mostBook = 500

// Said is what the steel said: every factor, what else a log says of each smith, and whether the rack was
// believed rightly.
type Said struct {
	Learned []learn.Lesson `json:"learned"`
	Habits  []learn.Habits `json:"habits"`
	Beliefs []Belief       `json:"beliefs"`
}

// Belief is how often a steel that was presumed turned out to be so, by what the piece had been.
type Belief struct {
	Origin string  `json:"origin"`
	Share  float64 `json:"share" doc:"how sure the table was, on the mean"`
	Pieces int     `json:"pieces" doc:"whose steel came to be known"`
	Right  int     `json:"right"`
}

// worked are the sessions as they stand; what did not change since is remembered.
func (w *Work) worked(ctx context.Context) ([]worked, error) {
	out := []worked{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Sessions("")
		if err != nil {
			return err
		}
		seen := map[string]worked{}
		for i, row := range rows {
			if i >= mostBook {
				break
			}
			w.pages.mu.Lock()
			k, ok := w.pages.known[row.ID]
			w.pages.mu.Unlock()
			if !ok || k.events != row.Events {
				if k, ok = w.workedIn(tx, row); !ok {
					continue // set aside: what cannot be read teaches nothing
				}
			}
			seen[row.ID] = k
			out = append(out, k)
		}
		w.pages.mu.Lock()
		w.pages.known = seen
		w.pages.mu.Unlock()
		return ctx.Err()
	})
	return out, err
}

func (w *Work) workedIn(tx store.Tx, row store.Session) (worked, bool) {
	row, err := tx.Session(row.ID)
	if err != nil {
		return worked{}, false
	}
	d, err := w.fires.of(row)
	if err != nil {
		return worked{}, false
	}
	if d.Shared {
		return worked{}, false // another's arm, fire and steel
	}
	rows, err := tx.SessionEvents(row.ID, 0)
	if err != nil {
		return worked{}, false
	}
	events := make([]session.Event, 0, len(rows))
	for _, r := range rows {
		e, err := doc.Decode[session.Event](r.Doc)
		if err != nil {
			return worked{}, false
		}
		events = append(events, e)
	}
	b := session.BookOf(&d.Course, events)
	of := learn.Worked{Session: row.ID, Name: d.Name, Smith: d.Hand, Course: &d.Course, Book: &b, Request: &d.Request}
	return worked{events: row.Events, of: of, records: learn.Records(of)}, true
}

// learned is everything that the book teaches, with what the shop says of it.
func (w *Work) learned(ctx context.Context) ([]learn.Lesson, []worked, error) {
	all, err := w.worked(ctx)
	if err != nil {
		return nil, nil, err
	}
	shop, err := w.Shop(ctx)
	if err != nil {
		return nil, nil, err
	}
	var records []learn.Record
	for i := range all {
		said := all[i].records
		if all[i].of.Book.Simulated && !shop.Doc.Demo { // nothing that never happened teaches a real shop
			said = learn.Simulated(said)
		}
		records = append(records, said...)
	}
	return learn.Book(records, choices(&shop.Doc)), all, nil
}

// taught is a document with what the book teaches now of its smith and its forge: it is planned so until
// it is edited again. One that goes by the table keeps nothing of it.
func (w *Work) taught(ctx context.Context, d doc.Piece) (doc.Piece, error) {
	d.Request.Learned = nil
	if d.Request.Choices.ByTable {
		return d, nil
	}
	book, _, err := w.learned(ctx)
	if err != nil {
		return d, err
	}
	d.Request.Learned = learn.For(book, d.Hand, learn.ForgeOf(d.Request.Fire))
	return d, nil
}

// Said is what the steel said.
func (w *Work) Said(ctx context.Context) (Said, error) {
	book, all, err := w.learned(ctx)
	if err != nil {
		return Said{}, err
	}
	shop, err := w.Shop(ctx)
	if err != nil {
		return Said{}, err
	}
	var pieces []learn.Worked
	for i := range all {
		if !all[i].of.Book.Simulated || shop.Doc.Demo {
			pieces = append(pieces, all[i].of)
		}
	}
	out := Said{Learned: book, Habits: learn.HabitsOf(pieces), Beliefs: []Belief{}}
	out.Beliefs, err = w.believed(ctx)
	return out, err
}

// believed holds what the rack presumed of salvage against what came to be known of it: said to be known,
// or certified.
func (w *Work) believed(ctx context.Context) ([]Belief, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return nil, err
	}
	by := map[string]*Belief{}
	out := []Belief{}
	for _, archived := range []bool{false, true} {
		rack, _, err := w.Rack(ctx, archived)
		if err != nil {
			return nil, err
		}
		for _, s := range rack {
			if s.Doc.Origin == "" || s.Doc.Origin == "bar" || s.Doc.Believed {
				continue
			}
			b, err := stock.Believe(s.Doc.Origin, nil, shop.Doc.Likelihoods)
			if err != nil || len(b.Shares) == 0 {
				continue
			}
			if by[s.Doc.Origin] == nil {
				by[s.Doc.Origin] = &Belief{Origin: s.Doc.Origin}
			}
			k := by[s.Doc.Origin]
			k.Share = (k.Share*float64(k.Pieces) + b.Shares[0].Now) / float64(k.Pieces+1)
			k.Pieces++
			if g, err := steel.Find(s.Doc.SteelID); err == nil && stock.FamilyOf(g) == b.Shares[0].Family {
				k.Right++
			}
		}
	}
	for _, k := range by {
		out = append(out, *k)
	}
	slices.SortFunc(out, func(a, b Belief) int {
		if a.Origin < b.Origin {
			return -1
		}
		return 1
	})
	return out, nil
}
