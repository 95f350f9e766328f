package api

import (
	"context"
	"net/http"

	"coldember/core/blade"
	"coldember/core/photo"
	"coldember/core/replan"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

type measuredIn struct {
	ID   string `path:"id"`
	Body work.MeasuredTyped
}

type insideIn struct {
	ID   string `path:"id"`
	Body struct {
		Silhouette *photo.Silhouette `json:"silhouette"`
		Lie        photo.Lie         `json:"lie"`
		Seek       bool              `json:"seek,omitempty" doc:"lay it where most steel is outside it"`
		Design     *blade.Design     `json:"design,omitempty" doc:"of the finished blade; what the session was frozen with if not said"`
	}
}

type wayIn struct {
	ID   string `path:"id"`
	Body struct {
		Measured work.MeasuredTyped `json:"measured"`
		What     string             `json:"what" enum:"asPlanned,lessGrinding,moved,shorter,lower,thinner,pattern,heal"`
		Name     string             `json:"name,omitempty"`
	}
}

func (h *handlers) replan(api huma.API) {
	huma.Register(api, op("sessionMoment", http.MethodGet, "/sessions/{id}/moment", "The piece as it was planned to be by now, and where to measure it"),
		func(ctx context.Context, in *idIn) (*body[work.MeasureAt], error) {
			m, err := h.work.Moment(ctx, in.ID)
			return answer(ctx, h, m, err)
		})
	shot := op("readPhoto", http.MethodPost, "/photo", "How high a blank is along its length, from a photograph of it on its printed template; nothing is kept")
	shot.MaxBodyBytes = work.MaxPictureBytes + 1
	huma.Register(api, shot, func(ctx context.Context, in *rawIn) (*body[*photo.Silhouette], error) {
		shop, err := h.work.Shop(ctx)
		if err != nil {
			return answer[*photo.Silhouette](ctx, h, nil, err)
		}
		o, err := work.ReadPhoto(ctx, in.RawBody, export.PhotoSheet(shop.Doc.Paper))
		return answer(ctx, h, o, err)
	})
	inside := op("sessionInside", http.MethodPost, "/sessions/{id}/inside", "The finished blade laid into the blank of a photograph: how much steel is outside it")
	inside.MaxBodyBytes = work.MaxPictureBytes
	huma.Register(api, inside, func(ctx context.Context, in *insideIn) (*body[*photo.Inside], error) {
		o, err := h.work.LaidInside(ctx, in.ID, in.Body.Silhouette, in.Body.Lie, in.Body.Seek, in.Body.Design)
		return answer(ctx, h, o, err)
	})
	huma.Register(api, op("sessionReplan", http.MethodPost, "/sessions/{id}/replan", "What the piece can still become, as it was measured"),
		func(ctx context.Context, in *measuredIn) (*body[*replan.Remains], error) {
			m, err := in.Body.Read()
			if err != nil {
				return answer[*replan.Remains](ctx, h, nil, err)
			}
			r, err := h.work.Replan(ctx, in.ID, m)
			return answer(ctx, h, r, in.Body.Relabel(err))
		})
	huma.Register(api, op("sessionTakeWay", http.MethodPost, "/sessions/{id}/replan/take", "Go on by one of the ways, in a session of its own; what is done stays done"),
		func(ctx context.Context, in *wayIn) (*body[Session], error) {
			m, err := in.Body.Measured.Read()
			if err != nil {
				return answer(ctx, h, Session{}, err)
			}
			f, err := h.work.TakeWay(ctx, in.ID, m, work.Taken{What: in.Body.What, Name: in.Body.Name})
			return h.session(ctx, f, in.Body.Measured.Relabel(err))
		})
}
