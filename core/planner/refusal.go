package planner

import (
	"errors"
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// refusal tells whether a hammer that stalls is too light or the bar too small:
// a bar that would have to be upset all along burns away before it is there.
func refusal(r *route.Route, work *forge.Budget, err error, along []plan.Feasibility, setup forge.Setup) error {
	var stall *forge.StallError
	var burnt *forge.BurntError
	var tooMuch *forge.TooMuchWorkError
	if !errors.As(err, &stall) && !errors.As(err, &burnt) && !errors.As(err, &tooMuch) {
		return plan.FieldError(err)
	}
	field := map[stock.Form]string{stock.Square: "sideMm", stock.Round: "diameterMm", stock.Hex: "acrossFlatsMm", stock.Octagon: "acrossFlatsMm"}[r.Req.Bar.Form]
	if field == "" {
		field = "thicknessMm"
	}
	for _, f := range along {
		if f.AreaRatio < 1 {
			_, t := route.BarThatReaches(along, r.Req.Smith, r.Req.Choices.Method, r.Bar.WidthMm, r.Bar.ThicknessMm)
			return fact.FieldErrors{{Field: "bar." + field, Code: "plan.barTooSmall", Figures: fact.Figures{"widthMm": r.Bar.WidthMm, "thicknessMm": t}}}
		}
	}
	if tooMuch != nil {
		return fact.FieldErrors{{Field: "bar." + field, Code: "plan.tooMuchWork"}}
	}
	if burnt != nil { // a heavier hammer may save it or not: no promise
		return plan.FieldError(err)
	}
	kg, err := hammerThatMoves(r, work, setup)
	switch {
	case errors.As(err, &tooMuch):
		return fact.FieldErrors{{Field: "bar." + field, Code: "plan.tooMuchWork"}}
	case err != nil:
		return err
	case kg > 0:
		return fact.FieldErrors{{Field: "smith.hammerKg", Code: "forge.stalled", Figures: fact.Figures{"needKg": kg}}}
	}
	return fact.FieldErrors{{Field: "bar." + field, Code: "plan.barTooLarge"}}
}

// hammerThatMoves finds a hammer that does not stall on this piece, kg; 0 if
// none that an arm can swing does. Errors are those of the budget.
func hammerThatMoves(r *route.Route, work *forge.Budget, setup forge.Setup) (kg float64, err error) {
	for kg := setup.Smith.HammerKg * 1.25; kg <= forge.MaxHammerKg; kg *= 1.25 {
		setup.Smith.HammerKg = math.Ceil(kg*10) / 10
		if _, err := heats.Settle(r, work, setup); err == nil {
			return setup.Smith.HammerKg, nil
		}
		if err := work.Err(); err != nil {
			return 0, err
		}
	}
	return 0, nil
}
