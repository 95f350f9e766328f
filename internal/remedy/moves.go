package remedy

import (
	"math"
	"strconv"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
)

// moves are the edits that are near at hand, those first that change least of the knife: how it is forged, then the bar, the
// fire, the arm, and last the knife itself.
func moves(r plan.Request) (out []fact.Remedy) {
	text := func(field, value string) { out = append(out, fact.Remedy{Field: field, Text: value}) }
	mm := func(field string, v float64) {
		out = append(out, fact.Remedy{Field: field, Mm: math.Round(v*20) / 20})
	}
	if len(r.Choices.Order) > 0 {
		text("choices.order", "planner")
	}
	if r.Choices.Curve == plan.PreCurveFirst {
		text("choices.curve", string(plan.CorrectAsYou))
	} else {
		text("choices.curve", string(plan.PreCurveFirst))
	}
	if r.Choices.Corners == plan.CornersLeft {
		text("choices.corners", string(plan.CornersFirst))
	}
	if r.Choices.Method == forge.PushIn {
		text("choices.method", string(forge.PinchOut))
	} else {
		text("choices.method", string(forge.PushIn))
	}
	mm("allowances.forgingEdgeMm", r.Allowances.ForgingEdgeMm+.4)
	if r.Allowances.Zones == nil {
		mm("allowances.faceMm", r.Allowances.FaceMm+.15)
		mm("allowances.faceMm", math.Max(0, r.Allowances.FaceMm-.15))
	}
	if r.Bar.Form == stock.Flat {
		for _, by := range []float64{.5, -.5, 1, -1, 2, -2, 3} {
			mm("bar.thicknessMm", stock.SoldThicknessMm(r.Bar.ThicknessMm+by))
		}
		for _, by := range []float64{3, -3, 6, -6, 10} {
			mm("bar.widthMm", stock.SoldWidthMm(r.Bar.WidthMm+by))
		}
	}
	mm("bar.lengthMm", r.Bar.LengthMm+100)
	mm("bar.lengthMm", r.Bar.LengthMm*2)
	out = append(out, celsius("fire.tempC", r.Fire.TempC+60), celsius("fire.tempC", r.Fire.TempC-60))
	if m := r.Smith.Machine; m == nil {
		text("smith.machine", string(forge.Striker))
	}
	if m := r.Smith.Machine; m == nil || m.Kind == forge.Striker {
		text("smith.machine", string(forge.PowerHammer))
	}
	mm("design.spineMm", r.Design.SpineMm*1.15)
	mm("design.spineMm", r.Design.SpineMm*.85)
	mm("design.heightMm", r.Design.HeightMm*.9)
	mm("design.tang.lengthMm", r.Design.Tang.LengthMm*1.15)
	mm("design.tang.lengthMm", r.Design.Tang.LengthMm*.85)
	mm("design.lengthMm", r.Design.LengthMm*.9)
	return out
}

// celsius sets a temperature, as it is typed.
func celsius(field string, c float64) fact.Remedy {
	return fact.Remedy{Field: field, Text: strconv.FormatFloat(c, 'f', 0, 64) + " °C"}
}
