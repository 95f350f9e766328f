package whatif

import (
	"coldember/core/plan"
	"coldember/core/stock"
)

// withStart is the request on a flat bar of another section, for what asks how
// the loss follows the bar.
func withStart(r plan.Request, widthMm, thicknessMm float64) plan.Request {
	length := r.Bar.LengthMm
	if s, err := r.Bar.Even(); err == nil {
		length = s.LengthMm
	}
	switch r.Bar.Form {
	case stock.Flat:
		r.Bar.WidthMm, r.Bar.ThicknessMm = widthMm, thicknessMm
	default:
		// what a lump comes to is a flat too, whose form asks for no break-down of
		// its own unless it is thick
		r.Bar = stock.Item{Form: stock.Flat, WidthMm: widthMm, ThicknessMm: thicknessMm, LengthMm: length}
	}
	return r
}
