package work

import (
	"encoding/json"
	"time"

	"coldember/internal/store"
)

// Archive is a whole shop, but for its pictures, which lie beside it as files.
// Documents are as they are stored, each with the version of its form.
type Archive struct {
	Format   string            `json:"format" enum:"coldember-shop"`
	Version  int               `json:"version"`
	MadeAt   time.Time         `json:"madeAt"`
	Shop     *ArchivedShop     `json:"shop,omitempty"`
	Patterns []ArchivedPattern `json:"patterns"`
	Stock    []ArchivedStock   `json:"stock"`
	Pieces   []ArchivedPiece   `json:"pieces"`
	Timers   []ArchivedTimer   `json:"timers,omitempty" doc:"that run or have rung"`

	Practised []ArchivedPractice `json:"practised,omitempty" doc:"exercises that were done"`
}

// ArchivedPractice is an exercise that was done.
type ArchivedPractice struct {
	ID        string          `json:"id"`
	Doc       json.RawMessage `json:"doc"`
	CreatedAt time.Time       `json:"createdAt"`
	RemovedAt *time.Time      `json:"removedAt,omitempty" doc:"off the sheet since"`
}

// ArchivedTimer is something that is waited for.
type ArchivedTimer struct {
	ID        string    `json:"id"`
	PieceID   *string   `json:"pieceId,omitempty"`
	Kind      string    `json:"kind" enum:"soak,cycle,temper,glue,before,other"`
	Label     string    `json:"label"`
	Seconds   float64   `json:"seconds"`
	StartedAt time.Time `json:"startedAt"`
}

// ArchivedShop is the settings.
type ArchivedShop struct {
	Doc       json.RawMessage `json:"doc"`
	Version   int             `json:"version"`
	UpdatedAt time.Time       `json:"updatedAt"`
}

// ArchivedState is one state in a history.
type ArchivedState struct {
	N         int             `json:"n"`
	Label     string          `json:"label,omitempty"`
	Doc       json.RawMessage `json:"doc"`
	CreatedAt time.Time       `json:"createdAt"`
}

// ArchivedPattern is a pattern with its revisions.
type ArchivedPattern struct {
	ID         string          `json:"id"`
	Name       string          `json:"name"`
	Head       int             `json:"head" doc:"the newest revision"`
	Version    int             `json:"version"`
	ArchivedAt *time.Time      `json:"archivedAt,omitempty"`
	CreatedAt  time.Time       `json:"createdAt"`
	UpdatedAt  time.Time       `json:"updatedAt"`
	Revisions  []ArchivedState `json:"revisions"`
}

// ArchivedCut is a cut that was made.
type ArchivedCut struct {
	PieceID  string    `json:"pieceId"`
	Name     string    `json:"name"`
	LengthMm float64   `json:"lengthMm"`
	At       time.Time `json:"at"`
}

// ArchivedStock is a piece of stock with what was cut from it.
type ArchivedStock struct {
	ID         string          `json:"id"`
	Doc        json.RawMessage `json:"doc"`
	Version    int             `json:"version"`
	ArchivedAt *time.Time      `json:"archivedAt,omitempty"`
	CreatedAt  time.Time       `json:"createdAt"`
	UpdatedAt  time.Time       `json:"updatedAt"`
	Made       []ArchivedCut   `json:"made,omitempty"`
}

// ArchivedTaking is what a piece takes from the rack.
type ArchivedTaking struct {
	Role      string    `json:"role"`
	State     string    `json:"state" enum:"proposed,booked,made"`
	StockID   *string   `json:"stockId,omitempty"`
	LengthMm  float64   `json:"lengthMm"`
	KerfMm    float64   `json:"kerfMm,omitempty"`
	CreatedAt time.Time `json:"createdAt"`
	UpdatedAt time.Time `json:"updatedAt"`
}

// ArchivedPiece is a piece of work with its history.
type ArchivedPiece struct {
	ID         string            `json:"id"`
	Doc        json.RawMessage   `json:"doc"`
	Summary    json.RawMessage   `json:"summary"`
	Version    int               `json:"version"`
	Cursor     int               `json:"cursor" doc:"the step of the history that is shown"`
	ArchivedAt *time.Time        `json:"archivedAt,omitempty"`
	CreatedAt  time.Time         `json:"createdAt"`
	UpdatedAt  time.Time         `json:"updatedAt"`
	Steps      []ArchivedState   `json:"steps"`
	Named      []ArchivedState   `json:"named,omitempty"`
	Cuts       []ArchivedTaking  `json:"cuts,omitempty"`
	Frozen     []ArchivedPlan    `json:"frozen,omitempty" doc:"plans that were taken to the fire"`
	Sessions   []ArchivedSession `json:"sessions,omitempty"`
}

// ArchivedPlan is a plan that was taken to the fire.
type ArchivedPlan struct {
	N         int             `json:"n"`
	Laws      int             `json:"laws"`
	Doc       json.RawMessage `json:"doc"`
	FrozenAt  *time.Time      `json:"frozenAt"`
	CreatedAt time.Time       `json:"createdAt"`
}

// ArchivedSession is a session at the fire with all that happened, as it came.
type ArchivedSession struct {
	ID        string          `json:"id"`
	Plan      int             `json:"plan" doc:"number of the plan that was frozen"`
	Laws      int             `json:"laws"`
	Doc       json.RawMessage `json:"doc"`
	CreatedAt time.Time       `json:"createdAt"`
	UpdatedAt time.Time       `json:"updatedAt"`
	Events    []ArchivedEvent `json:"events"`
}

// ArchivedEvent is one thing that happened.
type ArchivedEvent struct {
	Doc     json.RawMessage `json:"doc"`
	HeardAt time.Time       `json:"heardAt"`
}

func archiveOf(all store.Whole, now time.Time) Archive {
	out := Archive{Format: ArchiveFormat, Version: ArchiveVersion, MadeAt: now, Patterns: []ArchivedPattern{}, Stock: []ArchivedStock{}, Pieces: []ArchivedPiece{}}
	for _, s := range all.Shop {
		out.Shop = &ArchivedShop{json.RawMessage(s.Doc), s.Version, s.UpdatedAt}
	}
	patterns, items, pieces := map[string]int{}, map[string]int{}, map[string]int{}
	for i, p := range all.Patterns {
		patterns[p.ID] = i
		out.Patterns = append(out.Patterns, ArchivedPattern{ID: p.ID, Name: p.Name, Head: p.Head, Version: p.Version, ArchivedAt: p.ArchivedAt, CreatedAt: p.CreatedAt, UpdatedAt: p.UpdatedAt})
	}
	for _, r := range all.Revisions {
		p := &out.Patterns[patterns[r.PatternID]]
		p.Revisions = append(p.Revisions, ArchivedState{r.N, "", json.RawMessage(r.Doc), r.CreatedAt})
	}
	for i, s := range all.Stock {
		items[s.ID] = i
		out.Stock = append(out.Stock, ArchivedStock{ID: s.ID, Doc: json.RawMessage(s.Doc), Version: s.Version, ArchivedAt: s.ArchivedAt, CreatedAt: s.CreatedAt, UpdatedAt: s.UpdatedAt})
	}
	for _, m := range all.Made {
		s := &out.Stock[items[m.StockID]]
		s.Made = append(s.Made, ArchivedCut{m.PieceID, m.Name, m.LengthMm, m.At})
	}
	for i, p := range all.Pieces {
		pieces[p.ID] = i
		out.Pieces = append(out.Pieces, ArchivedPiece{
			ID: p.ID, Doc: json.RawMessage(p.Doc), Summary: json.RawMessage(p.Summary), Version: p.Version, Cursor: p.Cursor,
			ArchivedAt: p.ArchivedAt, CreatedAt: p.CreatedAt, UpdatedAt: p.UpdatedAt,
		})
	}
	for _, e := range all.Edits {
		p := &out.Pieces[pieces[e.PieceID]]
		p.Steps = append(p.Steps, ArchivedState{e.Seq, e.Label, json.RawMessage(e.Doc), e.CreatedAt})
	}
	for _, e := range all.Named {
		p := &out.Pieces[pieces[e.PieceID]]
		p.Named = append(p.Named, ArchivedState{e.N, e.Label, json.RawMessage(e.Doc), e.CreatedAt})
	}
	for _, c := range all.Cuts {
		p := &out.Pieces[pieces[c.PieceID]]
		p.Cuts = append(p.Cuts, ArchivedTaking{c.Role, c.State, c.StockID, c.LengthMm, c.KerfMm, c.CreatedAt, c.UpdatedAt})
	}
	for _, t := range all.Timers {
		out.Timers = append(out.Timers, ArchivedTimer{t.ID, t.PieceID, t.Kind, t.Label, t.Seconds, t.StartedAt})
	}
	for _, p := range all.Practised {
		out.Practised = append(out.Practised, ArchivedPractice{p.ID, json.RawMessage(p.Doc), p.CreatedAt, p.RemovedAt})
	}
	for _, k := range all.Plans {
		p := &out.Pieces[pieces[k.PieceID]]
		p.Frozen = append(p.Frozen, ArchivedPlan{k.N, k.Laws, json.RawMessage(k.Request), k.FrozenAt, k.CreatedAt})
	}
	happened := map[string][]ArchivedEvent{}
	for _, e := range all.Events {
		happened[e.SessionID] = append(happened[e.SessionID], ArchivedEvent{json.RawMessage(e.Doc), e.HeardAt})
	}
	for _, s := range all.Sessions {
		p := &out.Pieces[pieces[s.PieceID]]
		p.Sessions = append(p.Sessions, ArchivedSession{s.ID, s.PlanN, s.Laws, json.RawMessage(s.Doc), s.CreatedAt, s.UpdatedAt, append([]ArchivedEvent{}, happened[s.ID]...)})
	}
	return out
}
