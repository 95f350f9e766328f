package export

import (
	"coldember/core/quantity"
	"coldember/core/stock"
)

// BarSize is what a piece of stock measures across, in the smith's units.
func BarSize(p stock.Item, s quantity.System) string {
	one := func(mm float64) string { return quantity.FormatThickness(mm, quantity.Metric) }
	if s.Inches() {
		one = func(mm float64) string { return quantity.FormatLength(mm, s) }
	}
	by := func(a, b float64) string { return one(a) + " × " + one(b) }
	switch p.Form {
	case stock.Flat, stock.Leaf:
		return by(p.WidthMm, p.ThicknessMm)
	case stock.Square:
		return by(p.SideMm, p.SideMm)
	case stock.Round, stock.Ball, stock.Cable, stock.Tube:
		return "ø " + one(p.DiameterMm)
	case stock.Roller:
		return "ø " + by(p.DiameterMm, p.LengthMm)
	case stock.Disc:
		return "ø " + by(p.DiameterMm, p.ThicknessMm)
	case stock.TaperedRound:
		return "ø " + one(p.StartDiameterMm) + "–" + one(p.EndDiameterMm)
	case stock.TaperedFlat:
		return by(p.StartWidthMm, p.StartThicknessMm)
	case stock.Coil, stock.Chain:
		return "ø " + one(p.WireDiameterMm)
	case stock.Race:
		return "ø " + by(p.OuterDiameterMm, p.WidthMm)
	case stock.Layers:
		t := 0.0
		for _, l := range p.Layers {
			t += float64(l.Count) * l.ThicknessMm
		}
		return by(p.WidthMm, t)
	default:
		return one(p.AcrossFlatsMm)
	}
}
