package work

import (
	"context"
	"errors"
	"fmt"
	"math"
	"sync"
	"time"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/session"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// ReadLine is what an instrument tells: one line of JSON. Docs/readings.md is the protocol.
type ReadLine struct {
	ID         string  `json:"id" doc:"of the instrument, made by it: letters, digits and dashes"`
	Seq        int     `json:"seq" doc:"rises with every line; an instrument that forgot where it was begins with its clock"`
	AtMs       int64   `json:"atMs,omitempty" doc:"by its own clock, since 1970; as it arrives if it has none"`
	Kind       string  `json:"kind" doc:"caliper, pyrometer, scale or pedal"`
	Value      float64 `json:"value,omitempty"`
	Unit       string  `json:"unit,omitempty" doc:"mm or in; C or F; g, kg, oz or lb"`
	Resolution float64 `json:"resolution,omitempty" doc:"the least step of its figures, in its unit"`
	Battery    float64 `json:"battery,omitempty" doc:"share that is left; not told by what has none"`
}

// Landed is what became of a line.
type Landed struct {
	Seq    int
	Taken  bool
	Event  string // its id in the session
	Fields []edit.Problem
}

// LastRead is what an instrument told last.
type LastRead struct {
	At      time.Time
	Line    ReadLine
	Taken   bool
	Session string
	Fields  []edit.Problem
}

// reads is what instruments told last, since the server began.
type reads struct {
	mu  sync.Mutex
	all map[string]LastRead
}

func (r *reads) last(id string) *LastRead {
	r.mu.Lock()
	defer r.mu.Unlock()
	if l, ok := r.all[id]; ok {
		return &l
	}
	return nil
}

func (r *reads) put(id string, l LastRead) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.all == nil {
		r.all = map[string]LastRead{}
	}
	r.all[id] = l
}

// Bounds of what instruments send, and how long a session that nothing was told of is still at the fire.
const (
	MostLines     = 200
	mostLineSeq   = 1 << 50
	atTheFireFor  = 12 * time.Hour
	mostBattery   = 1.0
	mostResolves  = 1000.0
	mostLineValue = 1e7
)

// Waiting is what an instrument may ask: what is wanted next, of the session at the fire.
type Waiting struct {
	Session string         `json:"session"`
	Phase   session.Phase  `json:"phase" enum:"ready,fire,out,away,finished"`
	Step    string         `json:"step,omitempty"`
	Next    session.Kind   `json:"next,omitempty" enum:"in,out,done,back,toHarden,treated" doc:"what a pedal does"`
	LeftS   float64        `json:"leftS" doc:"until it is hot, or of the heat"`
	NowC    float64        `json:"nowC"`
	MassG   float64        `json:"massG" doc:"as planned"`
	Wanted  []session.Want `json:"wanted"`
	Heat    int            `json:"heat"`
	Request plan.Request   `json:"request" doc:"of the plan that is forged by"`
}

// AtTheFire is the session that is worked at: the newest that something was told of within half a day, and that is not done.
// ErrNotFound if none is.
func (w *Work) AtTheFire(ctx context.Context) (Fire, session.Shown, error) {
	all, err := w.AllFires(ctx)
	if err != nil {
		return Fire{}, session.Shown{}, err
	}
	best, when := "", w.now().Add(-atTheFireFor)
	for _, e := range all {
		at := time.UnixMilli(e.LastMs)
		if e.LastMs == 0 {
			f, err := w.Fire(ctx, e.ID)
			if err != nil {
				return Fire{}, session.Shown{}, err
			}
			at = f.StartedAt
		}
		if !e.Replaced && e.Phase != session.Away && (e.Phase != session.Finished || !e.Hardened && !e.Completed) && at.After(when) {
			best, when = e.ID, at
		}
	}
	if best == "" {
		return Fire{}, session.Shown{}, ErrNotFound
	}
	f, err := w.Fire(ctx, best)
	if err != nil {
		return f, session.Shown{}, err
	}
	s, err := w.ShownNow(ctx, f)
	return f, s, err
}

// WaitingFor is what is wanted at the fire now.
func (w *Work) WaitingFor(ctx context.Context) (Waiting, error) {
	f, s, err := w.AtTheFire(ctx)
	if err != nil {
		return Waiting{}, err
	}
	out := Waiting{Session: f.ID, Phase: s.View.Phase, Next: s.Next, LeftS: s.View.LeftS, NowC: s.View.NowC, MassG: f.Doc.Course.StartG, Wanted: session.Wanted(&f.Doc.Course, &s), Heat: s.View.Heat, Request: f.Doc.Request}
	out.Request.Prices, out.Request.Finish = plan.Prices{}, nil // no instrument needs to know
	if out.Wanted == nil {
		out.Wanted = []session.Want{}
	}
	if at := s.View.Step; at < len(f.Doc.Course.Steps) {
		out.Step = f.Doc.Course.Steps[at].ID
	}
	return out, nil
}

// TakeLines takes what an instrument told, line by line: each lands where it is wanted, once, by the rules that hold for
// what is typed; what cannot be is answered with why, and stands beside the instrument in the shop.
func (w *Work) TakeLines(ctx context.Context, by Access, lines []ReadLine) ([]Landed, error) {
	if len(lines) > MostLines {
		return nil, edit.One("lines", "reading.tooMany", fact.Figures{"highest": MostLines}, "")
	}
	out := make([]Landed, 0, len(lines))
	for _, l := range lines {
		landed, id, err := w.takeLine(ctx, &by, &l)
		if err != nil {
			return out, err
		}
		out = append(out, landed)
		w.reads.put(by.ID, LastRead{At: w.now(), Line: l, Taken: landed.Taken, Session: id, Fields: landed.Fields})
	}
	w.tell(Event{"access", by.ID, 0})
	return out, nil
}

func (l *ReadLine) validate(by *Access) error {
	k := fact.NewCheck()
	k.Range("seq", float64(l.Seq), 1, mostLineSeq)
	k.Range("battery", l.Battery, 0, mostBattery)
	k.Range("resolution", l.Resolution, 0, mostResolves)
	k.Range("value", l.Value, -mostLineValue, mostLineValue)
	if l.Kind != by.Kind {
		k.Fail("kind", "reading.otherKind", nil)
	}
	return k.Err()
}

// knows tells whether a session has an event.
func (w *Work) knows(ctx context.Context, id, event string) (yes bool, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		yes, err = tx.HasSessionEvent(id, event)
		return err
	})
	return yes, err
}

func (w *Work) takeLine(ctx context.Context, by *Access, l *ReadLine) (Landed, string, error) {
	out := Landed{Seq: l.Seq}
	refused := func(err error) (Landed, string, error) {
		var wrong *edit.InvalidError
		if errors.As(edit.Invalid(err), &wrong) {
			out.Fields = wrong.Fields
			return out, "", nil
		}
		return out, "", err
	}
	if err := l.validate(by); err != nil {
		return refused(err)
	}
	f, s, err := w.AtTheFire(ctx)
	if errors.Is(err, ErrNotFound) {
		return refused(edit.One("id", "reading.noSession", nil, ""))
	}
	if err != nil {
		return out, "", err
	}
	id := fmt.Sprintf("%s-%d", l.ID, l.Seq)
	known, err := w.knows(ctx, f.ID, id)
	if err != nil {
		return out, "", err
	}
	if known { // sent twice counts once
		out.Taken, out.Event = true, id
		return out, f.ID, nil
	}
	e, err := session.Land(&f.Doc.Course, &s, session.Figure{Instrument: session.Instrument(l.Kind), Value: l.Value, Unit: l.Unit, By: by.Name})
	if err != nil {
		return refused(err)
	}
	now := w.now().UnixMilli()
	e.ID, e.Device, e.Seq, e.AtMs, e.Saw = id, l.ID, l.Seq, l.AtMs, s.State.LastID
	if e.AtMs <= 0 || math.Abs(float64(now-e.AtMs)) > float64(wrongClock.Milliseconds()) {
		e.AtMs = now // a clock that is not set says nothing
	}
	heard, err := w.Tell(ctx, f.ID, now, []session.Event{e})
	if err != nil {
		return out, "", err
	}
	if len(heard.Refused) > 0 {
		out.Fields = heard.Refused[0].Fields
		return out, f.ID, nil
	}
	out.Taken, out.Event = true, id
	return out, f.ID, nil
}
