package api

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"reflect"
	"strings"

	"coldember/core/fact"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// readingsPath is where instruments report, with a key of their own.
const readingsPath = "/api/v1/readings"

// mostLine bounds a line of an instrument, and all that it sends at once.
const mostLine = 2000

// Reports tells whether a request is one of an instrument, which shows a key of its own instead of the smith's.
func Reports(r *http.Request) bool {
	return (r.URL.Path == readingsPath || r.URL.Path == readingsPath+"/wanted") && strings.HasPrefix(r.Header.Get("Authorization"), "Bearer ")
}

// LineLanded is what became of a line.
type LineLanded struct {
	Seq    int            `json:"seq"`
	Taken  bool           `json:"taken"`
	Event  string         `json:"event,omitempty" doc:"its id in the session at the fire"`
	Fields []FieldMessage `json:"fields,omitempty" doc:"what of it cannot be"`
}

type linesIn struct {
	Authorization string `header:"Authorization" doc:"Bearer, and the key of the instrument"`
	RawBody       []byte `contentType:"application/x-ndjson"`
}

type keyIn struct {
	Authorization string `header:"Authorization" doc:"Bearer, and the key of the instrument"`
}

// lineTyped is a line as it is read: what it may not leave out is told.
type lineTyped struct {
	ID *string `json:"id"`
	work.ReadLine
}

// linesOf reads lines; errors are *edit.InvalidError that name the line.
func linesOf(data []byte) ([]work.ReadLine, error) {
	var out []work.ReadLine
	s := bufio.NewScanner(bytes.NewReader(data))
	s.Buffer(make([]byte, mostLine), mostLine)
	n := 0
	bad := func(code string) error {
		return edit.One("lines", code, fact.Figures{"line": float64(n)}, "")
	}
	for s.Scan() {
		n++
		text := bytes.TrimSpace(s.Bytes())
		if len(text) == 0 {
			continue
		}
		var l lineTyped
		d := json.NewDecoder(bytes.NewReader(text))
		if err := d.Decode(&l); err != nil || d.More() {
			return nil, bad("reading.notJSON")
		}
		if l.ID == nil {
			return nil, bad("reading.noID")
		}
		l.ReadLine.ID = *l.ID
		if len(out) == work.MostLines {
			return nil, edit.One("lines", "reading.tooMany", fact.Figures{"highest": work.MostLines}, "")
		}
		out = append(out, l.ReadLine)
	}
	if s.Err() != nil {
		n++
		return nil, bad("reading.notJSON")
	}
	return out, nil
}

// instrument is who shows a key, if it is one; problem.locked if not.
func (h *handlers) instrument(ctx context.Context, authorization string) (work.Access, error) {
	key, ok := strings.CutPrefix(authorization, "Bearer ")
	a, err := h.work.WhoHas(ctx, strings.TrimSpace(key), "")
	if !ok || err != nil || a.Kind == work.Screen {
		return a, problem(http.StatusUnauthorized, "problem.locked", nil)
	}
	return a, nil
}

func (h *handlers) readings(api huma.API) {
	post := op("tellReadings", http.MethodPost, "/readings", "What an instrument read: lines of JSON, with a key of its own")
	post.MaxBodyBytes = mostLine * work.MostLines
	post.Errors = []int{http.StatusUnauthorized, http.StatusUnprocessableEntity}
	post.RequestBody = &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{"application/x-ndjson": {Schema: api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[work.ReadLine](), true, "ReadLine")}}}
	huma.Register(api, post, func(ctx context.Context, in *linesIn) (*body[[]LineLanded], error) {
		a, err := h.instrument(ctx, in.Authorization)
		if err != nil {
			return nil, err
		}
		lines, err := linesOf(in.RawBody)
		if err != nil {
			return answer[[]LineLanded](ctx, h, nil, err)
		}
		landed, err := h.work.TakeLines(ctx, a, lines)
		if err != nil {
			return answer[[]LineLanded](ctx, h, nil, err)
		}
		shop, err := h.work.Shop(ctx)
		return answer(ctx, h, each(landed, func(l work.Landed) LineLanded {
			return LineLanded{Seq: l.Seq, Taken: l.Taken, Event: l.Event, Fields: messages(l.Fields, shop.Doc.System())}
		}), err)
	})
	wanted := op("wantedReadings", http.MethodGet, "/readings/wanted", "What is wanted next at the fire, for an instrument")
	wanted.Errors = []int{http.StatusUnauthorized, http.StatusNotFound}
	huma.Register(api, wanted, func(ctx context.Context, in *keyIn) (*body[work.Waiting], error) {
		if _, err := h.instrument(ctx, in.Authorization); err != nil {
			return nil, err
		}
		v, err := h.work.WaitingFor(ctx)
		return answer(ctx, h, v, err)
	})
}
