package api

import (
	"context"
	"net/http"
	"time"

	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Session is a session at the fire: the plan as it was frozen, as it is walked through.
type Session struct {
	ID        string         `json:"id"`
	PieceID   string         `json:"pieceId"`
	Plan      int            `json:"plan" doc:"number of the frozen plan"`
	Name      string         `json:"name"`
	Hand      string         `json:"hand,omitempty"`
	Course    session.Course `json:"course"`
	Count     int            `json:"count" doc:"events so far"`
	Changed   bool           `json:"changed" doc:"the piece is planned otherwise by now"`
	Replaced  bool           `json:"replaced" doc:"a later plan was taken to the fire"`
	StartedAt time.Time      `json:"startedAt"`
	Shown     *session.Shown `json:"shown,omitempty" doc:"what a screen shows of it at this moment"`
	// Events are left out where they are too many to wait for: they are asked for then.
	Events []session.Event `json:"events,omitempty" doc:"all that happened, as it came; left out where they are very many"`
	Grips  []session.Grip  `json:"grips" doc:"tongs of the shop for every heat; none where the piece is held by its own bar"`
}

func sessionOf(f work.Fire) Session {
	return Session{
		ID: f.ID, PieceID: f.PieceID, Plan: f.PlanN, Name: f.Doc.Name, Hand: f.Doc.Hand, Course: f.Doc.Course, Count: f.Count,
		Changed: f.Changed, Replaced: f.Replaced, StartedAt: f.StartedAt, Grips: f.Grips,
	}
}

// session answers a session with what a screen shows of it, so that one can before it has read
// all that happened.
func (h *handlers) session(ctx context.Context, f work.Fire, err error) (*body[Session], error) {
	if err != nil {
		return answer(ctx, h, Session{}, err)
	}
	out := sessionOf(f)
	shown, err := h.work.ShownNow(ctx, f)
	out.Shown = &shown
	if err == nil && f.Count <= eventsAtOnce {
		out.Events, err = h.work.Happened(ctx, f.ID, 0)
		out.Count = len(out.Events)
	}
	return answer(ctx, h, out, err)
}

// eventsAtOnce go with a session.
const eventsAtOnce = 2000

// Happenings are the events of a session, as they came.
type Happenings struct {
	Events []session.Event `json:"events"`
	Count  int             `json:"count" doc:"of all that there are"`
	NowMs  int64           `json:"nowMs" doc:"the server's clock, since 1970"`
}

// Telling is what a device tells.
type Telling struct {
	NowMs  int64           `json:"nowMs" doc:"the device's clock as it sends this"`
	Events []session.Event `json:"events" maxItems:"2000"`
}

// Refusal is an event that cannot be, with what of it; the others are kept.
type Refusal struct {
	ID     string         `json:"id"`
	Fields []FieldMessage `json:"fields"`
}

// Heard is what became of what was told.
type Heard struct {
	Count      int       `json:"count"`
	NowMs      int64     `json:"nowMs" doc:"the server's clock, since 1970"`
	Refused    []Refusal `json:"refused"`
	Replaced   bool      `json:"replaced" doc:"a later plan was taken to the fire: this went into the book of the earlier one"`
	WrongClock bool      `json:"wrongClock" doc:"the device's clock is off by a minute or more; times are set right by the server's"`
}

// Entry is a session in the book of all pieces.
type Entry struct {
	ID       string       `json:"id"`
	PieceID  string       `json:"pieceId"`
	Laws     int          `json:"laws"`
	Replaced bool         `json:"replaced"`
	Changed  bool         `json:"changed" doc:"the piece is planned otherwise by now"`
	Progress doc.Progress `json:"progress"`
}

// Book is what a session came to, with the course it was walked on.
type Book struct {
	Session Session      `json:"session"`
	Book    session.Book `json:"book"`
}

type afterIn struct {
	ID    string `path:"id"`
	After int    `query:"after" minimum:"0" doc:"so many are known already"`
}

type againIn struct {
	ID   string `path:"id"`
	Body struct {
		Again bool `json:"again,omitempty" doc:"with the plan as it is now, where it was changed since"`
	}
}

type tellIn struct {
	ID   string `path:"id"`
	Body Telling
}

// maxTold bounds a request with a long queue in it.
const maxTold = 4 << 20

func (h *handlers) sessions(api huma.API) {
	huma.Register(api, op("takeToFire", http.MethodPost, "/pieces/{id}/fire", "Freeze the plan and begin a session at the fire, or go on with the one there is"),
		func(ctx context.Context, in *againIn) (*body[Session], error) {
			f, err := h.work.TakeToFire(ctx, in.ID, in.Body.Again)
			return h.session(ctx, f, err)
		})
	huma.Register(api, op("pieceFire", http.MethodGet, "/pieces/{id}/fire", "The newest session of a piece"),
		func(ctx context.Context, in *idIn) (*body[Session], error) {
			f, err := h.work.FireOf(ctx, in.ID)
			return h.session(ctx, f, err)
		})
	huma.Register(api, op("listSessions", http.MethodGet, "/sessions", "The book of all pieces: every session, the newest first"),
		func(ctx context.Context, _ *struct{}) (*body[[]Entry], error) {
			all, err := h.work.AllFires(ctx)
			return answer(ctx, h, each(all, func(e work.Entry) Entry {
				return Entry{ID: e.ID, PieceID: e.PieceID, Laws: e.Laws, Replaced: e.Replaced, Changed: e.Changed, Progress: e.Progress}
			}), err)
		})
	huma.Register(api, op("getSession", http.MethodGet, "/sessions/{id}", "A session with its frozen plan"),
		func(ctx context.Context, in *idIn) (*body[Session], error) {
			f, err := h.work.Fire(ctx, in.ID)
			return h.session(ctx, f, err)
		})
	huma.Register(api, op("sessionEvents", http.MethodGet, "/sessions/{id}/events", "What happened, as it came"),
		func(ctx context.Context, in *afterIn) (*body[Happenings], error) {
			events, err := h.work.Happened(ctx, in.ID, in.After)
			return answer(ctx, h, Happenings{Events: events, Count: in.After + len(events), NowMs: time.Now().UnixMilli()}, err)
		})
	tell := op("tellSession", http.MethodPost, "/sessions/{id}/events", "Add what happened; an event that is sent twice counts once")
	tell.MaxBodyBytes = maxTold
	huma.Register(api, tell, func(ctx context.Context, in *tellIn) (*body[Heard], error) {
		heard, err := h.work.Tell(ctx, in.ID, in.Body.NowMs, in.Body.Events)
		if err != nil {
			return answer(ctx, h, Heard{}, err)
		}
		shop, err := h.work.Shop(ctx)
		if err != nil {
			return nil, fail(ctx, err, "")
		}
		out := Heard{Count: heard.Count, NowMs: time.Now().UnixMilli(), Refused: []Refusal{}, WrongClock: heard.Wrong, Replaced: heard.Replaced}
		for _, r := range heard.Refused {
			out.Refused = append(out.Refused, Refusal{ID: r.ID, Fields: each(r.Fields, func(f edit.Problem) FieldMessage { return fieldMessage(f, shop.Doc.System()) })})
		}
		return answer(ctx, h, out, nil)
	})
	huma.Register(api, op("sessionNow", http.MethodGet, "/sessions/{id}/now", "What a screen would show of a session now"),
		func(ctx context.Context, in *idIn) (*body[session.Shown], error) {
			f, err := h.work.Fire(ctx, in.ID)
			if err != nil {
				return answer(ctx, h, session.Shown{}, err)
			}
			v, err := h.work.ShownNow(ctx, f)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("sessionBook", http.MethodGet, "/sessions/{id}/book", "What a session came to, against its plan"),
		func(ctx context.Context, in *idIn) (*body[Book], error) {
			f, b, err := h.work.BookOf(ctx, in.ID)
			return answer(ctx, h, Book{Session: sessionOf(f), Book: b}, err)
		})
	for ending, f := range map[string]Format{"pdf": Made, "csv": LogCSV, "json": LogJSON} {
		huma.Register(api, op("sessionBook"+ending, http.MethodGet, "/sessions/{id}/book."+ending, "The book of a session as "+ending),
			func(ctx context.Context, in *idIn) (*fileOut, error) {
				now, err := h.work.Fire(ctx, in.ID)
				if err != nil {
					return nil, fail(ctx, err, "")
				}
				paper, err := SessionFile(ctx, h.work, in.ID, f)
				return fileOf(ctx, h, now.Doc.Name, paper, err)
			})
	}
	picture := op("keepPicture", http.MethodPost, "/pictures", "Keep a PNG or JPEG; the answer names it")
	picture.MaxBodyBytes = work.MaxPictureBytes + 1
	huma.Register(api, picture, func(ctx context.Context, in *rawIn) (*body[Named], error) {
		id, err := h.work.KeepPicture(ctx, in.RawBody)
		return answer(ctx, h, Named{Name: id}, err)
	})
}
