package planner

import (
	"errors"
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// refusal tells whether a hammer that stalls is too light or the bar too small:
// a bar that would have to be upset all along burns away before it is there.
func refusal(r *route.Route, err error, along []plan.Feasibility, setup forge.Setup) error {
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
	if stall.TooCold {
		return fact.FieldErrors{{Field: "fire.carryS", Code: "forge.tooCold", Figures: fact.Figures{"carryS": setup.Fire.CarryS, "lowC": setup.LowC()}}}
	}
	if kg := hammerThatMoves(setup.Smith, stall.TimesEnergy); kg > 0 {
		return fact.FieldErrors{{Field: "smith.hammerKg", Code: "forge.stalled", Figures: fact.Figures{"needKg": kg}}}
	}
	return fact.FieldErrors{{Field: "bar." + field, Code: "plan.barTooLarge"}}
}

// hammerThatMoves is a hammer whose blow has so many times the energy of the smith's, kg; 0
// if none that an arm can swing has.
func hammerThatMoves(h forge.Smith, times float64) float64 {
	for kg := h.HammerKg * 1.1; kg <= forge.MaxHammerKg; kg *= 1.1 {
		if by := h.WithHammerKg(math.Ceil(kg*10) / 10); by.UsefulJ() >= times*h.UsefulJ() {
			return by.HammerKg
		}
	}
	return 0
}
