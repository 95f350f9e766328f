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

// sheets lays outlines on plates and the like.
func (h *handlers) sheets(api huma.API) {
	huma.Register(api, op("laySheet", http.MethodPost, "/sheet", "Lay pieces and patterns on a plate, a disc or the like of the rack"),
		func(ctx context.Context, in *body[work.SheetOrder]) (*body[work.SheetPlan], error) {
			v, err := h.work.LaySheet(ctx, in.Body)
			return answer(ctx, h, v, err)
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
				return &fileOut{ContentType: "image/vnd.dxf", Disposition: `attachment; filename="sheet.dxf"`, Body: export.DXF(ls)}, nil
			}
			return &fileOut{ContentType: "image/svg+xml", Disposition: `attachment; filename="sheet.svg"`, Body: export.SVG(p.Name, ls)}, nil
		})
}
