package api

import (
	"cmp"
	"context"
	"net/http"

	"coldember/core/colour"
	"coldember/core/practice"
	"coldember/internal/edit"

	"github.com/danielgtaylor/huma/v2"
)

// PlayIn is what was done so far.
type PlayIn struct {
	Exercise string            `json:"exercise,omitempty"`
	PieceID  string            `json:"pieceId,omitempty" doc:"a piece of work is practised instead"`
	Seed     uint64            `json:"seed" doc:"of the hand: which blows land well"`
	Room     colour.Room       `json:"room,omitempty" enum:"dark,lit,day" doc:"that it is seen in; a lit shop if not said"`
	Actions  []practice.Action `json:"actions"`
}

func (h *handlers) practice(api huma.API) {
	huma.Register(api, op("listExercises", http.MethodGet, "/practice/exercises", "What can be practised, from easy to hard"),
		func(context.Context, *struct{}) (*body[[]practice.Exercise], error) {
			return &body[[]practice.Exercise]{practice.Exercises()}, nil
		})
	huma.Register(api, op("pieceExercise", http.MethodGet, "/pieces/{id}/exercise", "A piece of work as an exercise: its bar, its hand, its forged shape"),
		func(ctx context.Context, in *idIn) (*body[*practice.Exercise], error) {
			ex, err := h.work.ExerciseOf(ctx, in.ID)
			return answer(ctx, h, ex, err)
		})
	huma.Register(api, op("play", http.MethodPost, "/practice/play", "The piece as it lies there after all that was done; nothing is kept"),
		func(ctx context.Context, in *body[PlayIn]) (*body[*practice.Played], error) {
			ex := practice.Find(in.Body.Exercise)
			if in.Body.PieceID != "" {
				var err error
				if ex, err = h.work.ExerciseOf(ctx, in.Body.PieceID); err != nil {
					return answer[*practice.Played](ctx, h, nil, err)
				}
			}
			p, err := practice.Play(ctx, ex, in.Body.Seed, cmp.Or(in.Body.Room, colour.LitShop), in.Body.Actions)
			return answer(ctx, h, p, edit.Invalid(err))
		})
}
