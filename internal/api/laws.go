package api

import (
	"errors"
	"net/http"
	"strconv"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/calc"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/core/thermal"
	"coldember/internal/edit"
	"coldember/internal/text"
)

// asked tells what of a question to a law cannot be.
func asked(in *calc.InputError, units quantity.System) *Problem {
	var cannot *thermal.UnreachableError
	var unknown *steel.UnknownError
	var hard *harden.RangeError
	var grind *finish.RangeError
	var hot *thermal.RangeError
	err := plan.FieldError(in.Err)
	if f := lawFields(err); f != nil {
		return Explain(f, units)
	}
	switch {
	case errors.As(err, &cannot):
		return fileProblem("toC", "calc.unreachable", text.Figures(fact.Figures{"toC": cannot.ToC, "settleC": cannot.SettleC}, units))
	case errors.As(err, &unknown):
		return fileProblem("steelId", "calc.noSteel", map[string]string{"found": unknown.ID})
	case errors.As(err, &hot):
		return fileProblem(hot.Field, "field.range", bounds(hot.Lowest, hot.Highest))
	case errors.As(err, &hard):
		return fileProblem(hard.Field, "field.range", bounds(hard.Lowest, hard.Highest))
	case errors.As(err, &grind):
		return fileProblem(grind.Field, "field.range", bounds(grind.Lowest, grind.Highest))
	}
	return refused(http.StatusUnprocessableEntity, in.Err.Error(), nil)
}

// bounds are plain figures, however small.
func bounds(lowest, highest float64) map[string]string {
	short := func(v float64) string { return strconv.FormatFloat(v, 'g', 6, 64) }
	return map[string]string{"lowest": short(lowest), "highest": short(highest)}
}

// lawFields are what a law or a shape refuses, as fields; nil for another error.
func lawFields(err error) error {
	var section *section.Error
	var piece *stock.Error
	var body *blade.Error
	var laid *billet.Error
	var many fact.FieldErrors
	switch {
	case errors.As(err, &many):
		return edit.Invalid(many)
	case errors.As(err, &section):
		return edit.One(section.Field, section.Code, fact.Figures{"limitMm": section.LimitMm}, "")
	case errors.As(err, &piece):
		return edit.One(piece.Field, piece.Code, nil, "")
	case errors.As(err, &body):
		return edit.One(body.Field, body.Code, fact.Figures{"atMm": body.AtMm}, "")
	case errors.As(err, &laid):
		return edit.One(laid.Field, laid.Code, fact.Figures{"limit": laid.Limit, "limitMm": laid.Limit, "step": float64(laid.Step + 1)}, "")
	}
	return nil
}
