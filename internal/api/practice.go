package api

import (
	"context"
	"net/http"

	"coldember/core/practice"
	"coldember/internal/edit"

	"github.com/danielgtaylor/huma/v2"
)

// PlayIn is what was done so far.
type PlayIn struct {
	Exercise string            `json:"exercise"`
	Seed     uint64            `json:"seed" doc:"of the hand: which blows land well"`
	Actions  []practice.Action `json:"actions"`
}

func (h *handlers) practice(api huma.API) {
	huma.Register(api, op("listExercises", http.MethodGet, "/practice/exercises", "What can be practised, from easy to hard"),
		func(context.Context, *struct{}) (*body[[]practice.Exercise], error) {
			return &body[[]practice.Exercise]{practice.Exercises()}, nil
		})
	huma.Register(api, op("play", http.MethodPost, "/practice/play", "The piece as it lies there after all that was done; nothing is kept"),
		func(ctx context.Context, in *body[PlayIn]) (*body[*practice.Played], error) {
			p, err := practice.Play(ctx, in.Body.Exercise, in.Body.Seed, in.Body.Actions)
			return answer(ctx, h, p, edit.Invalid(err))
		})
}
