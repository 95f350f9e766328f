package nest

import (
	"math"

	"coldember/core/stock"
)

// Bad is a place of a sheet that goes into no part, and why.
type Bad struct {
	Outline Polygon `json:"outline"`
	Why     string  `json:"why"`
}

// SheetOf is a piece of stock as a sheet to cut outlines from: its outline (x along it, the
// rolling of it, from its start), its bad places and its thickness. Errors are *stock.Error:
// a form that is no sheet, or a dimension that is missing.
func SheetOf(p stock.Item) (sheet Polygon, bad []Bad, thicknessMm float64, err error) {
	if _, err := p.Solid(); err != nil {
		return nil, nil, 0, err
	}
	thicknessMm = p.ThicknessMm
	switch p.Form {
	case stock.Flat:
		sheet = Rectangle(Point{}, p.LengthMm, p.WidthMm)
	case stock.Leaf:
		long, err := p.StraightenedMm()
		if err != nil {
			return nil, nil, 0, err
		}
		sheet = Rectangle(Point{}, long, p.WidthMm)
	case stock.TaperedFlat:
		top := (p.StartWidthMm - p.EndWidthMm) / 2
		sheet = Polygon{{0, 0}, {p.LengthMm, top}, {p.LengthMm, top + p.EndWidthMm}, {0, p.StartWidthMm}}
		thicknessMm = math.Min(p.StartThicknessMm, p.EndThicknessMm) - 2*p.TeethMm
	case stock.Disc:
		sheet = sector(p.DiameterMm/2, p.ShareFraction)
		if p.InnerDiameterMm > 0 {
			bad = append(bad, Bad{Circle(Point{p.DiameterMm / 2, p.DiameterMm / 2}, p.InnerDiameterMm/2), "hole"})
		}
	default:
		return nil, nil, 0, &stock.Error{Code: "stock.noSheet", Field: "form"}
	}
	low, high := sheet.Bounds()
	for _, d := range p.Dead {
		from, to := low[1], high[1]
		if d.ToAcrossMm > 0 {
			from, to = low[1]+d.FromAcrossMm, low[1]+d.ToAcrossMm
		}
		if d.ToMm > d.FromMm && to > from {
			bad = append(bad, Bad{Rectangle(Point{d.FromMm, from}, d.ToMm-d.FromMm, to-from), d.Why})
		}
	}
	return sheet, bad, thicknessMm, nil
}

// sector is a share of a disc, its middle at its radius from both sides: inside of the circle
// by no more than a twentieth of a millimetre.
func sector(radius, share float64) (out Polygon) {
	const sagMm = 0.05
	n := max(24, int(math.Ceil(2*math.Pi*share/(2*math.Acos(1-sagMm/radius)))))
	for i := range n + 1 {
		s, c := math.Sincos(2 * math.Pi * share * float64(i) / float64(n))
		out = append(out, Point{radius + radius*c, radius + radius*s})
	}
	if share >= 1 {
		return out[:n]
	}
	return append(out, Point{radius, radius})
}
