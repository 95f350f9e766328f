package export

import (
	"coldember/core/quantity"
	"coldember/core/stock"
)

// BarSize prints the section of a bar: "25 × 5 mm", "ø 12 mm".
func BarSize(p stock.Piece, s quantity.System) string {
	one := func(mm float64) string { return quantity.FormatThickness(mm, quantity.Metric) }
	if s == quantity.Imperial {
		one = func(mm float64) string { return quantity.FormatLength(mm, s) }
	}
	switch p.Form {
	case stock.Flat:
		return one(p.WidthMm) + " × " + one(p.ThicknessMm)
	case stock.Square:
		return one(p.SideMm) + " × " + one(p.SideMm)
	case stock.Round:
		return "ø " + one(p.DiameterMm)
	default:
		return one(p.AcrossFlatsMm)
	}
}
