package api

import (
	"context"
	"net/http"

	"coldember/core/learn"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Said is what the steel said: factors with what they come from, habits, and beliefs of the rack.
type Said struct {
	Learned []learn.Lesson `json:"learned"`
	Habits  []learn.Habits `json:"habits"`
	Beliefs []work.Belief  `json:"beliefs"`
}

func (h *handlers) learned(api huma.API) {
	huma.Register(api, op("whatTheSteelSaid", http.MethodGet, "/learned", "What the book teaches of every smith and forge, and how often its bands held"),
		func(ctx context.Context, _ *struct{}) (*body[Said], error) {
			s, err := h.work.Said(ctx)
			return answer(ctx, h, Said{s.Learned, s.Habits, s.Beliefs}, err)
		})
	huma.Register(api, op("hours", http.MethodGet, "/hours", "What hours at the forge with a scrap bar tell of smiths and fire, and what became narrower"),
		func(ctx context.Context, _ *struct{}) (*body[Hours], error) {
			all, err := h.work.Hours(ctx)
			return answer(ctx, h, Hours{all, export.HourTasks()}, err)
		})
	huma.Register(api, op("hourSheet", http.MethodGet, "/hours/sheet.pdf", "The hour on one sheet, to be filled in at the forge"),
		func(ctx context.Context, _ *struct{}) (*fileOut, error) {
			shop, err := h.work.Shop(ctx)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			pdf, err := export.HourSheet(shop.Doc.Paper)
			if err != nil {
				return nil, fail(ctx, err, shop.Doc.System())
			}
			return &fileOut{ContentType: "application/pdf", Disposition: inline("cold ember", named("hour", ".pdf")), Body: pdf}, nil
		})
}

// Hours are those of the shop, each read out.
type Hours struct {
	Items []work.HourRead   `json:"items"`
	Tasks []export.HourTask `json:"tasks" doc:"in their order"`
}
