package api

import (
	"context"
	"net/http"
	"time"

	"coldember/core/quantity"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// AccessTo is an instrument that reports, or a paired screen.
type AccessTo struct {
	ID        string     `json:"id"`
	Kind      string     `json:"kind" enum:"caliper,pyrometer,scale,pedal,screen,student,teacher"`
	Name      string     `json:"name"`
	CreatedAt time.Time  `json:"createdAt"`
	SeenAt    *time.Time `json:"seenAt,omitempty"`
	Last      *ReadLast  `json:"last,omitempty" doc:"what an instrument told last, since the server began"`
}

// ReadLast is what an instrument told last.
type ReadLast struct {
	At      time.Time      `json:"at"`
	Line    work.ReadLine  `json:"line"`
	Taken   bool           `json:"taken"`
	Session string         `json:"session,omitempty"`
	Fields  []FieldMessage `json:"fields,omitempty" doc:"why it was not taken"`
}

// NewAccess is what is let in.
type NewAccess struct {
	Kind string `json:"kind" enum:"caliper,pyrometer,scale,pedal"`
	Name string `json:"name"`
}

// AccessKey is the key of an instrument; it is told this once.
type AccessKey struct {
	AccessTo
	Key string `json:"key"`
}

// Renamed is another name.
type Renamed struct {
	Name string `json:"name"`
}

type renameIn struct {
	ID   string `path:"id"`
	Body Renamed
}

func (h *handlers) accessOf(ctx context.Context, a work.Access) (AccessTo, error) {
	out := AccessTo{ID: a.ID, Kind: a.Kind, Name: a.Name, CreatedAt: a.CreatedAt, SeenAt: a.SeenAt}
	if l := a.Last; l != nil {
		shop, err := h.work.Shop(ctx)
		if err != nil {
			return out, err
		}
		out.Last = &ReadLast{At: l.At, Line: l.Line, Taken: l.Taken, Session: l.Session, Fields: messages(l.Fields, shop.Doc.System())}
	}
	return out, nil
}

func (h *handlers) access(api huma.API) {
	huma.Register(api, op("listAccess", http.MethodGet, "/access", "Instruments that report, and paired screens"),
		func(ctx context.Context, _ *struct{}) (*body[[]AccessTo], error) {
			all, err := h.work.AllAccess(ctx)
			out := []AccessTo{}
			for _, a := range all {
				x, e := h.accessOf(ctx, a)
				if e != nil {
					err = e
				}
				out = append(out, x)
			}
			return answer(ctx, h, out, err)
		})
	huma.Register(api, op("addAccess", http.MethodPost, "/access", "Let an instrument report; its key is told this once"),
		func(ctx context.Context, in *body[NewAccess]) (*body[AccessKey], error) {
			a, key, err := h.work.AddAccess(ctx, in.Body.Kind, in.Body.Name, "")
			if err != nil {
				return answer(ctx, h, AccessKey{}, err)
			}
			x, err := h.accessOf(ctx, a)
			return answer(ctx, h, AccessKey{x, key}, err)
		})
	huma.Register(api, op("nameAccess", http.MethodPatch, "/access/{id}", "Name one otherwise"),
		func(ctx context.Context, in *renameIn) (*body[Renamed], error) {
			return answer(ctx, h, in.Body, h.work.NameAccess(ctx, in.ID, in.Body.Name))
		})
	huma.Register(api, op("revokeAccess", http.MethodDelete, "/access/{id}", "Let one in no more"),
		func(ctx context.Context, in *idIn) (*body[Renamed], error) {
			return answer(ctx, h, Renamed{}, h.work.RevokeAccess(ctx, in.ID))
		})
}

// messages are what is wrong, in words.
func messages(fields []edit.Problem, units quantity.System) []FieldMessage {
	return each(fields, func(p edit.Problem) FieldMessage { return fieldMessage(p, units) })
}
