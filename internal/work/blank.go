package work

import (
	"context"
	"errors"
	"math"
	"slices"

	"coldember/core/nest"
	"coldember/core/plan"
)

// blankSheet is the blank of a piece of work as a sheet: as its session says that it has come out so
// far, or as it is planned to be forged. Its rolling is its length.
func (w *Work) blankSheet(ctx context.Context, id string) (sheet, error) {
	piece, err := w.Piece(ctx, id)
	if err != nil {
		return sheet{}, missing("blankId", err)
	}
	var shape []plan.Station
	switch fire, err := w.FireOf(ctx, id); {
	case err == nil:
		now, err := w.Moment(ctx, fire.ID)
		if err != nil {
			return sheet{}, err
		}
		shape = now.Shape
	case errors.Is(err, ErrNotFound):
		p, err := w.Plan(ctx, piece.Doc)
		if err != nil {
			return sheet{}, err
		}
		shape = p.Drawing.Forged
	default:
		return sheet{}, err
	}
	out := sheet{name: piece.Doc.Name, steelID: piece.Doc.Request.SteelID}
	for _, s := range shape {
		out.outline = append(out.outline, nest.Point{s.XMm, s.EdgeY})
		out.thickMm = math.Max(out.thickMm, s.ThicknessMm)
	}
	for _, s := range slices.Backward(shape) {
		if s.SpineY > s.EdgeY {
			out.outline = append(out.outline, nest.Point{s.XMm, s.SpineY})
		}
	}
	out.thin = func(needMm float64) []nest.Bad { return thinner(shape, needMm) }
	return out, nil
}

// thinner are the stretches of a blank that are thinner than what is to be cut out of it.
func thinner(shape []plan.Station, needMm float64) (bad []nest.Bad) {
	from := -1
	add := func(to int) {
		low, high := math.Inf(1), math.Inf(-1)
		for _, s := range shape[from : to+1] {
			low, high = math.Min(low, s.EdgeY), math.Max(high, s.SpineY)
		}
		if long := shape[to].XMm - shape[from].XMm; long > 0 && high > low {
			bad = append(bad, nest.Bad{Outline: nest.Rectangle(nest.Point{shape[from].XMm, low}, long, high-low), Why: "thin"})
		}
		from = -1
	}
	for i, s := range shape {
		switch {
		case s.ThicknessMm < needMm-1e-9 && from < 0:
			from = max(0, i-1)
		case s.ThicknessMm >= needMm-1e-9 && from >= 0:
			add(i)
		}
	}
	if from >= 0 {
		add(len(shape) - 1)
	}
	return bad
}
