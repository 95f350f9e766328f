package api

import (
	"context"
	"net/http"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"

	"github.com/danielgtaylor/huma/v2"
)

type newStock struct {
	Body struct {
		Form  stock.Form  `json:"form" enum:"flat,square,round,hex,octagon,ball,roller,taperedRound,taperedFlat,coil,leaf,race,disc,cable,chain,layers,tube"`
		Edits []edit.Edit `json:"edits" maxItems:"50"`
	}
}

type versionedEdits struct {
	ID   string `path:"id"`
	Body struct {
		Version int         `json:"version"`
		Edits   []edit.Edit `json:"edits" maxItems:"200"`
	}
}

type historyIn struct {
	ID        string  `path:"id"`
	Width     float64 `query:"barWidthMm" default:"30"`
	Thickness float64 `query:"barThicknessMm" default:"6"`
}

type restoreIn struct {
	ID   string `path:"id"`
	N    int    `path:"n"`
	Body struct {
		Version int `json:"version"`
	}
}

type shopEdits struct {
	Body struct {
		Version int         `json:"version"`
		Edits   []edit.Edit `json:"edits" maxItems:"50"`
	}
}

type savePattern struct {
	ID   string `path:"id"`
	Body struct {
		Version int        `json:"version"`
		Doc     PatternDoc `json:"doc"`
	}
}

func (h *handlers) library(api huma.API) {
	huma.Register(api, op("listPatterns", http.MethodGet, "/patterns", "The pattern library"),
		func(ctx context.Context, in *listIn) (*body[Listed[Pattern]], error) {
			v, aside, err := h.work.Patterns(ctx, in.Archived)
			return answer(ctx, h, listed(v, aside, patternOf), err)
		})
	huma.Register(api, op("createPattern", http.MethodPost, "/patterns", "A new pattern"),
		func(ctx context.Context, in *body[PatternDoc]) (*body[Pattern], error) {
			v, err := h.work.AddPattern(ctx, doc.Pattern(in.Body))
			return answer(ctx, h, patternOf(v), err)
		})
	huma.Register(api, op("savePattern", http.MethodPut, "/patterns/{id}", "A new revision of a pattern"),
		func(ctx context.Context, in *savePattern) (*body[Pattern], error) {
			v, err := h.work.SavePattern(ctx, in.ID, in.Body.Version, doc.Pattern(in.Body.Doc))
			return answer(ctx, h, patternOf(v), err)
		})
	huma.Register(api, op("editPattern", http.MethodPatch, "/patterns/{id}", "Typed fields as a new revision of a pattern"),
		func(ctx context.Context, in *versionedEdits) (*body[Pattern], error) {
			v, err := h.work.EditPattern(ctx, in.ID, in.Body.Version, in.Body.Edits)
			return answer(ctx, h, patternOf(v), err)
		})
	huma.Register(api, op("patternHistory", http.MethodGet, "/patterns/{id}/revisions", "Revisions, newest first, measured on a bar"),
		func(ctx context.Context, in *historyIn) (*body[[]Revision], error) {
			v, err := h.work.History(ctx, in.ID, in.Width, in.Thickness)
			return answer(ctx, h, each(v, revisionOf), err)
		})
	huma.Register(api, op("restoreRevision", http.MethodPost, "/patterns/{id}/revisions/{n}/restore", "An old revision as a new one"),
		func(ctx context.Context, in *restoreIn) (*body[Pattern], error) {
			v, err := h.work.RestoreRevision(ctx, in.ID, in.Body.Version, in.N)
			return answer(ctx, h, patternOf(v), err)
		})
	for name, archived := range map[string]bool{"archive": true, "restore": false} {
		huma.Register(api, op(name+"Pattern", http.MethodPost, "/patterns/{id}/"+name, name+" a pattern"),
			func(ctx context.Context, in *versionIn) (*body[Pattern], error) {
				v, err := h.work.ArchivePattern(ctx, in.ID, in.Body.Version, archived)
				return answer(ctx, h, patternOf(v), err)
			})
		huma.Register(api, op(name+"Stock", http.MethodPost, "/stock/{id}/"+name, name+" a piece of stock"),
			func(ctx context.Context, in *versionIn) (*body[Stock], error) {
				v, err := h.work.ArchiveStock(ctx, in.ID, in.Body.Version, archived)
				return answer(ctx, h, stockOf(v), err)
			})
	}
	huma.Register(api, op("listStock", http.MethodGet, "/stock", "The rack"),
		func(ctx context.Context, in *listIn) (*body[Listed[Stock]], error) {
			v, aside, err := h.work.Rack(ctx, in.Archived)
			return answer(ctx, h, listed(v, aside, stockOf), err)
		})
	huma.Register(api, op("createStock", http.MethodPost, "/stock", "Put a piece on the rack"),
		func(ctx context.Context, in *newStock) (*body[Stock], error) {
			v, err := h.work.NewStock(ctx, in.Body.Form, in.Body.Edits)
			return answer(ctx, h, stockOf(v), err)
		})
	huma.Register(api, op("editStock", http.MethodPatch, "/stock/{id}", "Change what is known of a piece"),
		func(ctx context.Context, in *versionedEdits) (*body[Stock], error) {
			v, err := h.work.EditStock(ctx, in.ID, in.Body.Version, in.Body.Edits)
			return answer(ctx, h, stockOf(v), err)
		})
	huma.Register(api, op("getShop", http.MethodGet, "/shop", "The shop's settings"),
		func(ctx context.Context, _ *struct{}) (*body[Settings], error) {
			v, err := h.work.Shop(ctx)
			return answer(ctx, h, settingsOf(v), err)
		})
	huma.Register(api, op("editShop", http.MethodPatch, "/shop", "Change settings"),
		func(ctx context.Context, in *shopEdits) (*body[Settings], error) {
			v, err := h.work.EditShop(ctx, in.Body.Version, in.Body.Edits)
			return answer(ctx, h, settingsOf(v), err)
		})
}
