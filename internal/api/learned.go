package api

import (
	"context"
	"net/http"

	"coldember/core/learn"
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
}
