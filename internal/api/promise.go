package api

import (
	"context"
	"net/http"
	"time"

	"coldember/core/quantity"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Promise is when a knife can be ready and for how much, after what is in hand before it.
type Promise struct {
	Price    float64    `json:"price" doc:"0: no price is known"`
	Cost     float64    `json:"cost"`
	Ahead    int        `json:"ahead" doc:"pieces in hand before it"`
	AheadMin float64    `json:"aheadMin"`
	Days     int        `json:"days" doc:"0: the shop does not say how much it works"`
	Day      *time.Time `json:"day,omitempty"`
}

func promiseOf(p work.Promised) Promise {
	out := Promise{Price: p.Price, Cost: p.Cost, Ahead: p.Ahead, AheadMin: p.AheadMin, Days: p.Days}
	if !p.Day.IsZero() {
		out.Day = &p.Day
	}
	return out
}

// FinalNote is what a finished knife came to, as it is typed.
type FinalNote struct {
	Texts  map[string]string `json:"texts" doc:"massG, balanceMm, warpMm, behindMm, workMin, each as typed"`
	Took   map[string]string `json:"took,omitempty" doc:"minutes of steps of finishing, by the step, each as typed"`
	File   string            `json:"file,omitempty" enum:",skates,bites"`
	Cuts   string            `json:"cuts,omitempty" enum:",passed,failed"`
	Flexes string            `json:"flexes,omitempty" enum:",passed,failed"`
	Text   string            `json:"text,omitempty"`
	Units  string            `json:"units,omitempty"`
}

type finishedIn struct {
	ID   string `path:"id"`
	Body FinalNote
}

func (h *handlers) promise(api huma.API) {
	huma.Register(api, op("finishPiece", http.MethodPost, "/pieces/{id}/finished", "Put into the book what the finished knife came to"),
		func(ctx context.Context, in *finishedIn) (*body[Promise], error) {
			b := in.Body
			err := h.work.NoteFinished(ctx, in.ID, work.FinalTyped{Texts: b.Texts, Took: b.Took, File: b.File, Cuts: b.Cuts, Flexes: b.Flexes, Text: b.Text, Units: quantity.System(b.Units)})
			return answer(ctx, h, Promise{}, err)
		})
	huma.Register(api, op("promisePiece", http.MethodGet, "/pieces/{id}/promise", "What a knife costs, and when it can be ready after what is in hand before it"),
		func(ctx context.Context, in *idIn) (*body[Promise], error) {
			p, err := h.work.Promise(ctx, in.ID)
			return answer(ctx, h, promiseOf(p), err)
		})
}
