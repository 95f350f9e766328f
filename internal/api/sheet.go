package api

import (
	"context"
	"net/http"

	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

type sheetFileIn struct {
	Format string `path:"format" enum:"svg,dxf"`
	Body   work.SheetOrder
}

type keepIn struct {
	ID   string `path:"id"`
	Body struct {
		Version int             `json:"version"`
		Order   work.SheetOrder `json:"order"`
	}
}

// sheets lays outlines on plates and the like.
func (h *handlers) sheets(api huma.API) {
	huma.Register(api, op("laySheet", http.MethodPost, "/sheet", "Lay pieces and patterns on a plate, a disc or the like of the rack"),
		func(ctx context.Context, in *body[work.SheetOrder]) (*body[work.SheetPlan], error) {
			v, err := h.work.LaySheet(ctx, in.Body)
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("keepLayout", http.MethodPut, "/stock/{id}/layout", "Keep what is laid on a sheet with it until it is sawn"),
		func(ctx context.Context, in *keepIn) (*body[Stock], error) {
			v, err := h.work.KeepLayout(ctx, in.ID, in.Body.Version, in.Body.Order)
			return answer(ctx, h, stockOf(v), err)
		})
	huma.Register(api, op("forgetLayout", http.MethodPost, "/stock/{id}/layout/forget", "Take what is laid on a sheet off it"),
		func(ctx context.Context, in *versionIn) (*body[Stock], error) {
			v, err := h.work.ForgetLayout(ctx, in.ID, in.Body.Version)
			return answer(ctx, h, stockOf(v), err)
		})
	huma.Register(api, op("sawLayout", http.MethodPost, "/stock/{id}/layout/sawn", "What is laid on a sheet is sawn out of it"),
		func(ctx context.Context, in *versionIn) (*body[Stock], error) {
			v, err := h.work.SawLayout(ctx, in.ID, in.Body.Version)
			return answer(ctx, h, stockOf(v), err)
		})
	huma.Register(api, op("sheetFile", http.MethodPost, "/sheet/{format}", "The layout to cut by, at true size"),
		func(ctx context.Context, in *sheetFileIn) (*fileOut, error) {
			p, err := h.work.LaySheet(ctx, in.Body)
			if err != nil {
				shop, bad := h.work.Shop(ctx)
				if bad != nil {
					return nil, fail(ctx, bad, "")
				}
				return nil, fail(ctx, err, shop.Doc.System())
			}
			ls := export.SheetLoops(p.Sheet, p.Bad, p.Outlines)
			if in.Format == "dxf" {
				return &fileOut{ContentType: "image/vnd.dxf", Disposition: download("cold ember", named("sheet", ".dxf")), Body: export.DXF(ls)}, nil
			}
			return &fileOut{ContentType: "image/svg+xml", Disposition: download("cold ember", named("sheet", ".svg")), Body: export.SVG(p.Name, ls)}, nil
		})
}
