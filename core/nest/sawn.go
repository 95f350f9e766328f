package nest

import (
	"math"

	"coldember/core/stock"
)

// Sawn is what is left of a sheet once its parts are sawn out. A flat or a leaf loses what lies
// before the straight cut, kerf included, and is flat from then on; a disc or a tapered flat keeps
// its outline, and a rectangle around each part is bad from then on. Outlines are the parts where
// they lay. Left is false where nothing of a flat is left.
func Sawn(p stock.Item, l Layout, outlines []Polygon, kerfMm float64) (rest stock.Item, left bool) {
	rest = p
	rest.Dead = nil
	if p.Form != stock.Flat && p.Form != stock.Leaf {
		rest.Dead = append(rest.Dead, p.Dead...)
		for _, o := range outlines {
			low, high := o.Bounds()
			rest.Dead = append(rest.Dead, stock.Dead{
				FromMm: math.Max(0, low[0]-kerfMm), ToMm: high[0] + kerfMm, Why: "sawn", FromAcrossMm: math.Max(0, low[1]-kerfMm), ToAcrossMm: high[1] + kerfMm,
			})
		}
		return rest, true
	}
	if long, err := p.StraightenedMm(); err == nil {
		rest.LengthMm = long
	}
	if p.Form == stock.Leaf {
		rest.Form, rest.ChordMm, rest.RiseMm = stock.Flat, 0, 0
	}
	off := l.UsedMm + kerfMm
	if l.Across {
		rest.WidthMm -= off
		for _, d := range p.Dead {
			if d.ToAcrossMm > 0 {
				if d.ToAcrossMm -= off; d.ToAcrossMm <= 0 {
					continue
				}
				d.FromAcrossMm = math.Max(0, d.FromAcrossMm-off)
			}
			rest.Dead = append(rest.Dead, d)
		}
		return rest, rest.WidthMm > 0
	}
	rest.LengthMm -= off
	rest.Dead = stock.DeadBehind(p.Dead, off)
	return rest, rest.LengthMm > 0
}
