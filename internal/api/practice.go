package api

import (
	"cmp"
	"context"
	"net/http"
	"time"

	"coldember/core/colour"
	"coldember/core/practice"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/export"
	"coldember/internal/work"

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

// PractisedLine is what stands on the sheet.
type PractisedLine struct {
	ID       string          `json:"id"`
	Who      string          `json:"who"`
	Exercise string          `json:"exercise"`
	Piece    string          `json:"piece,omitempty"`
	Undone   int             `json:"undone"`
	Came     practice.Result `json:"came"`
	At       time.Time       `json:"at"`
}

func practisedOf(p work.Practised) PractisedLine {
	return PractisedLine{p.ID, p.Doc.Who, p.Doc.Exercise, p.Doc.Piece, p.Doc.Undone, p.Doc.Came, p.At}
}

func sheetRow(p work.Practised) export.PracticeRow {
	return export.PracticeRow{Who: p.Doc.Who, Exercise: p.Doc.Exercise, Piece: p.Doc.Piece, Undone: p.Doc.Undone, Came: p.Doc.Came, At: p.At}
}

type keepPlayIn struct {
	Body struct {
		Who    string `json:"who"`
		Undone int    `json:"undone"`
		PlayIn
	}
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
			ex, err := h.work.Exercise(ctx, in.Body.Exercise, in.Body.PieceID)
			if err != nil {
				return answer[*practice.Played](ctx, h, nil, err)
			}
			p, err := practice.Play(ctx, ex, in.Body.Seed, cmp.Or(in.Body.Room, colour.LitShop), in.Body.Actions)
			return answer(ctx, h, p, edit.Invalid(err))
		})
	huma.Register(api, op("advise", http.MethodPost, "/practice/advice", "What an experienced smith would do next"),
		func(ctx context.Context, in *body[PlayIn]) (*body[*practice.Advice], error) {
			ex, err := h.work.Exercise(ctx, in.Body.Exercise, in.Body.PieceID)
			if err != nil {
				return answer[*practice.Advice](ctx, h, nil, err)
			}
			a, err := practice.Advise(ctx, ex, in.Body.Seed, in.Body.Actions)
			return answer(ctx, h, a, edit.Invalid(err))
		})
	huma.Register(api, op("practiceBeside", http.MethodPost, "/practice/beside", "What was done heat by heat, beside the planner's own way and, of a piece of work, its log"),
		func(ctx context.Context, in *body[PlayIn]) (*body[*work.Beside], error) {
			b, err := h.work.Beside(ctx, in.Body.Exercise, in.Body.PieceID, in.Body.Seed, cmp.Or(in.Body.Room, colour.LitShop), in.Body.Actions)
			return answer(ctx, h, b, err)
		})
	h.practiceSheet(api)
}

// practiceSheet is who has done what.
func (h *handlers) practiceSheet(api huma.API) {
	huma.Register(api, op("listPractised", http.MethodGet, "/practice/sheet", "Who has practised what, the newest first"),
		func(ctx context.Context, _ *struct{}) (*body[[]PractisedLine], error) {
			v, err := h.work.Practised(ctx)
			return answer(ctx, h, each(v, practisedOf), err)
		})
	huma.Register(api, op("keepPractised", http.MethodPost, "/practice/sheet", "Put what was done on the sheet; it is played again, so that what stands there was done"),
		func(ctx context.Context, in *keepPlayIn) (*body[PractisedLine], error) {
			b := &in.Body
			v, err := h.work.KeepPractised(ctx, doc.Practised{Who: b.Who, Exercise: b.Exercise, Seed: b.Seed, Undone: b.Undone, Actions: b.Actions}, b.PieceID)
			return answer(ctx, h, practisedOf(v), err)
		})
	for name, removed := range map[string]bool{"remove": true, "restore": false} {
		huma.Register(api, op(name+"Practised", http.MethodPost, "/practice/sheet/{id}/"+name, name+" a line of the sheet"),
			func(ctx context.Context, in *idIn) (*struct{}, error) {
				if err := h.work.RemovePractised(ctx, in.ID, removed); err != nil {
					return nil, fail(ctx, err, "")
				}
				return nil, nil //nolint:nilnil // nothing to say
			})
	}
	huma.Register(api, op("practiceCSV", http.MethodGet, "/practice/sheet.csv", "The sheet as a table"),
		func(ctx context.Context, _ *struct{}) (*fileOut, error) {
			v, err := h.work.Practised(ctx)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			return &fileOut{ContentType: "text/csv; charset=utf-8", Disposition: download("cold ember", named("practice", ".csv")), Body: export.PracticeCSV(each(v, sheetRow))}, nil
		})
}
