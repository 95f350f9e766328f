package export

import "coldember/core/nest"

// Layers of a sheet with parts on it.
const (
	LayerSheet = "sheet"
	LayerBad   = "bad"
	LayerPart  = "part"
)

// SheetLoops are a sheet, its bad places and the parts on it, each closed and at true size.
func SheetLoops(sheet nest.Polygon, bad []nest.Bad, parts []nest.Polygon) (out []Loop) {
	add := func(layer string, p nest.Polygon) {
		l := Loop{Layer: layer}
		for _, q := range p {
			l.Points = append(l.Points, Point(q))
		}
		out = append(out, l)
	}
	add(LayerSheet, sheet)
	for _, b := range bad {
		add(LayerBad, b.Outline)
	}
	for _, p := range parts {
		add(LayerPart, p)
	}
	return out
}
