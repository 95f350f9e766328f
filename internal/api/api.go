package api

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"
	"strings"

	"coldember/core/calc"
	"coldember/core/finish"
	"coldember/core/harden"
	"coldember/core/planner"
	"coldember/core/session"
	"coldember/core/steel"
	"coldember/internal/doc"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
)

// Version of the API document.
const Version = "1"

// maxBody bounds a request.
const maxBody = 1 << 20

// Mount puts the resources on a router and returns the API for its document. The shelf is nil where none can be opened.
func Mount(r chi.Router, w *work.Work, shelf Shelf) huma.API {
	huma.DefaultArrayNullable = false
	c := huma.DefaultConfig("Cold Ember", Version)
	c.DocsPath, c.SchemasPath, c.CreateHooks = "", "", nil
	c.OpenAPIPath = "/api/v1/openapi"
	c.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	api := humachi.New(r, c)
	h := &handlers{w, shelf}
	h.pieces(api)
	h.library(api)
	h.planning(api)
	h.stockroom(api)
	h.sheets(api)
	h.sessions(api)
	h.timers(api)
	h.day(api)
	h.promise(api)
	h.billet(api)
	h.learned(api)
	h.replan(api)
	h.access(api)
	h.readings(api)
	h.shelf(api)
	h.colours(api)
	h.practice(api)
	h.exchange(api)
	h.share(api)
	h.help(api)
	h.me(api)
	h.copies(api)
	h.events(api)
	return api
}

// schemaName keeps a piece of stock and a piece of work apart, and a heat as it is planned from
// one at the fire.
func schemaName(t reflect.Type, hint string) string {
	n := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	for room, name := range map[string]string{"/core/stock": "Stock", "/core/session": "Fire", "/core/harden": "Harden", "/core/finish": "Finish", "/core/billet": "Billet", "/core/practice": "Practice"} {
		if strings.HasSuffix(t.PkgPath(), room) {
			return name + n
		}
	}
	return n
}

// Document is the OpenAPI document, indented, for the file in docs.
func Document() ([]byte, error) {
	api := Mount(chi.NewRouter(), nil, nil)
	return json.MarshalIndent(api.OpenAPI(), "", " ")
}

// PatternSchema is the JSON Schema of a pattern file, indented.
func PatternSchema() ([]byte, error) {
	const here = "#/$defs/"
	reg := huma.NewMapRegistry(here, schemaName)
	reg.Schema(reflect.TypeFor[export.PatternFile](), true, "PatternFile")
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Cold Ember pattern", "$ref": here + "PatternFile", "$defs": reg.Map(),
	}, "", " ")
}

// SessionSchema is the JSON Schema of a session at the fire, indented.
func SessionSchema() ([]byte, error) {
	const here = "#/$defs/"
	reg := huma.NewMapRegistry(here, schemaName)
	reg.Schema(reflect.TypeFor[export.SessionFile](), true, "SessionFile")
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Cold Ember session at the fire", "$ref": here + "SessionFile", "$defs": reg.Map(),
	}, "", " ")
}

// ShopSchema is the JSON Schema of shop.json in an archive of a whole shop, indented.
func ShopSchema() ([]byte, error) {
	return archiveSchema(reflect.TypeFor[work.Archive](), "Archive", "Cold Ember shop")
}

// SharedSchema is the JSON Schema of a piece of work that is shared as a file.
func SharedSchema() ([]byte, error) {
	return archiveSchema(reflect.TypeFor[work.Shared](), "Shared", "Cold Ember piece")
}

// archiveSchema describes what holds stored documents: each of them by its own.
func archiveSchema(of reflect.Type, name, title string) ([]byte, error) {
	const here = "#/$defs/"
	reg := huma.NewMapRegistry(here, schemaName)
	reg.Schema(of, true, name)
	all := map[string]*huma.Schema{}
	for _, t := range []reflect.Type{reflect.TypeFor[doc.Shop](), reflect.TypeFor[doc.Pattern](), reflect.TypeFor[doc.Stock](), reflect.TypeFor[doc.Piece](), reflect.TypeFor[doc.Session](), reflect.TypeFor[session.Event](), reflect.TypeFor[doc.Kept](), reflect.TypeFor[doc.Practised]()} {
		name := schemaName(t, t.Name())
		reg.Schema(t, true, name)
		d := reg.Map()[name]
		d.Properties["docVersion"] = &huma.Schema{Type: "integer", Description: "form of the document"}
		all[name] = &huma.Schema{Ref: here + name}
	}
	for of, is := range map[string]*huma.Schema{
		"ArchivedShop": all["Shop"], "ArchivedStock": all["Stock"], "ArchivedPiece": all["Piece"],
		"ArchivedSession": all["Session"], "ArchivedEvent": all["FireEvent"], "ArchivedPlan": all["Kept"], "ArchivedPractice": all["Practised"],
		"ArchivedState": {OneOf: []*huma.Schema{all["Pattern"], all["Piece"]}},
	} {
		if at := reg.Map()[of]; at != nil {
			at.Properties["doc"] = is
		}
	}
	if at := reg.Map()["Shared"]; at != nil {
		at.Properties["pattern"] = all["Pattern"]
	}
	return json.MarshalIndent(map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title, "$ref": here + name, "$defs": reg.Map(),
	}, "", " ")
}

type handlers struct {
	work  *work.Work
	onNet Shelf // nil where there is none
}

// body wraps what is sent and answered.
type body[T any] struct{ Body T }

type idIn struct {
	ID string `path:"id"`
}

func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{
		OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: maxBody,
		Errors: []int{http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity},
	}
}

// answer maps errors with the shop's units.
func answer[T any](ctx context.Context, h *handlers, v T, err error) (*body[T], error) {
	if err != nil {
		s, shopErr := h.work.Shop(ctx)
		if shopErr != nil {
			return nil, fail(ctx, shopErr, "")
		}
		return nil, fail(ctx, err, s.Doc.System())
	}
	return &body[T]{v}, nil
}

// SpineIn asks of a document whose spine is so hot.
type SpineIn struct {
	Doc  Doc     `json:"doc"`
	HotC float64 `json:"hotC" doc:"the spine, as the edge leaves the bath"`
}

type calcIn struct {
	Kind string `path:"kind"`
	Body json.RawMessage
}

func (h *handlers) planning(api huma.API) {
	huma.Register(api, op("previewPlan", http.MethodPost, "/plan/preview", "Plan an unsaved piece, with edits made on it"),
		func(ctx context.Context, in *body[PreviewIn]) (*body[Preview], error) {
			d, p, err := h.work.Preview(ctx, in.Body.Doc.doc(), in.Body.Edits)
			return answer(ctx, h, Preview{Doc: docOf(d), Plan: planOf(p)}, err)
		})
	huma.Register(api, op("planStates", http.MethodPost, "/plan/states", "The piece after every heat of the plan of a document, to be drawn"),
		func(ctx context.Context, in *body[Doc]) (*body[[]State], error) {
			p, err := h.work.Plan(ctx, in.Body.doc())
			return answer(ctx, h, statesOf(p), err)
		})
	huma.Register(api, op("planTreatment", http.MethodPost, "/plan/treatment", "What is said of hardening and tempering the blade of a document"),
		func(ctx context.Context, in *body[Doc]) (*body[harden.Advice], error) {
			a, err := h.work.Treatment(ctx, in.Body.doc())
			return answer(ctx, h, a, err)
		})
	huma.Register(api, op("planFinish", http.MethodPost, "/plan/finish", "What is said of grinding, fitting and sharpening the blade of a document"),
		func(ctx context.Context, in *body[Doc]) (*body[planner.Finished], error) {
			f, err := h.work.Finish(ctx, in.Body.doc())
			return answer(ctx, h, f, err)
		})
	huma.Register(api, op("planStill", http.MethodPost, "/plan/still", "What the blade of a document can still be, by what was measured of it at the grinder"),
		func(ctx context.Context, in *body[Doc]) (*body[[]finish.Way], error) {
			v, err := h.work.Still(ctx, in.Body.doc())
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("planSpine", http.MethodPost, "/plan/spine", "How the heat that an edge quench leaves in the spine tempers the edge"),
		func(ctx context.Context, in *body[SpineIn]) (*body[harden.FromSpine], error) {
			a, err := h.work.DrawSpine(ctx, in.Body.Doc.doc(), in.Body.HotC)
			return answer(ctx, h, a, err)
		})
	huma.Register(api, op("calc", http.MethodPost, "/calc/{kind}", "Answer one question of a law"),
		func(ctx context.Context, in *calcIn) (*body[any], error) {
			v, err := calc.Run(ctx, in.Kind, in.Body)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("listSteels", http.MethodGet, "/steels", "The steel table"),
		func(context.Context, *struct{}) (*body[[]steel.Grade], error) {
			all := steel.Grades()
			for i := range all {
				all[i].Name = text.Steel(all[i].ID)
			}
			return &body[[]steel.Grade]{all}, nil
		})
}
