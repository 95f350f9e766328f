package work

import (
	"context"
	"errors"

	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/planner"
	"coldember/internal/edit"
)

// Day is the hardening and tempering of several pieces in one day.
type Day struct {
	Jobs    []harden.Job
	Placed  []harden.Placed
	Without []string // pieces that do not harden, or of which no oven can be said
}

// mostOfDay bounds the pieces of a day.
const mostOfDay = 50

// Day lays out the hardening of some pieces, in this order, so that ovens and hands do not
// collide. Errors are *edit.InvalidError and ErrNotFound.
func (w *Work) Day(ctx context.Context, pieceIDs []string, ovens []harden.Oven) (out Day, err error) {
	out.Jobs, out.Placed, out.Without = []harden.Job{}, []harden.Placed{}, []string{}
	if len(pieceIDs) > mostOfDay {
		return out, edit.One("pieces", "field.tooMany", fact.Figures{"highest": mostOfDay}, "")
	}
	for _, id := range pieceIDs {
		p, err := w.Piece(ctx, id)
		if err != nil {
			return out, missing("pieces", err)
		}
		made, err := w.Plan(ctx, p.Doc)
		if err != nil {
			return out, err
		}
		a := planner.Treat(&p.Doc.Request, made)
		if !a.Hardens || a.Temper.OvenC <= 0 {
			out.Without = append(out.Without, p.Doc.Name)
			continue
		}
		out.Jobs = append(out.Jobs, harden.DayOf(p.ID, p.Doc.Name, &a, planner.TreatmentOf(&p.Doc.Request, made)))
	}
	out.Placed, err = harden.Schedule(out.Jobs, ovens)
	var none *harden.NoRoomError
	var wrong *harden.RangeError
	switch {
	case errors.As(err, &none):
		return out, edit.One("ovens", "day.noOven", nil, "")
	case errors.As(err, &wrong):
		return out, edit.One("ovens", "field.range", fact.Figures{"lowest": wrong.Lowest, "highest": wrong.Highest}, "")
	}
	if out.Placed == nil {
		out.Placed = []harden.Placed{}
	}
	return out, err
}
