package api

import (
	"context"
	"net/http"

	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

type findIn struct {
	Text string `query:"text" maxLength:"2000" doc:"what was written, or what a fault is called"`
}

type helpIn struct {
	Name string `path:"name" enum:"bar,heats,profile,cooling"`
}

// help is the drawings of the handbook, and finding what was written.
func (h *handlers) help(api huma.API) {
	huma.Register(api, op("find", http.MethodGet, "/find", "Notes of pieces, of stock and at the fire that say this, and faults that are called so"),
		func(ctx context.Context, in *findIn) (*body[[]work.Found], error) {
			f, err := h.work.Find(ctx, in.Text)
			return answer(ctx, h, f, err)
		})
	huma.Register(api, op("helpDrawing", http.MethodGet, "/help/{name}", "A drawing of the handbook, made from a plan"),
		func(ctx context.Context, in *helpIn) (*fileOut, error) {
			p, err := h.work.HelpPlan(ctx)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			svg, ok := export.HelpDrawing(in.Name, p)
			if !ok {
				return nil, fail(ctx, work.ErrNotFound, "")
			}
			return &fileOut{ContentType: "image/svg+xml", Disposition: "inline", Body: svg}, nil
		})
}
