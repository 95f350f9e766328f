package session

import (
	"math"

	"coldember/core/plan"
	"coldember/core/thermal"
)

// Hot tells whether the piece is hot while a session stands there: what is measured then is measured hot.
func (p Phase) Hot() bool { return p == OutOf || p == InFire }

// HotAtMm is what a place that lies atMm from the point after a heat reads from there while the piece is hot.
func (c *Course) HotAtMm(heat int, atMm float64) float64 {
	h := c.heat(heat)
	if h == nil {
		return atMm
	}
	return plan.HotX(h.Shape, atMm)
}

// coldOf brings a figure that was read on hot steel to what it is cold: a length by all of the piece, any other by the
// steel at its place, as hot as the plan has it at the end of that heat. A rise is told as it is.
func (c *Course) coldOf(r *Reading, heat int) float64 {
	h := c.heat(heat)
	if h == nil || len(h.Shape) == 0 || r.Quantity == Quantity(plan.Rise) {
		return r.Mm
	}
	if r.Quantity == Length {
		if hot := plan.HotX(h.Shape, h.LengthMm); hot > 0 {
			return r.Mm * h.LengthMm / hot
		}
		return r.Mm
	}
	near := &h.Shape[0]
	for i := range h.Shape {
		if s := &h.Shape[i]; math.Abs(s.XMm-r.AtMm) < math.Abs(near.XMm-r.AtMm) {
			near = s
		}
	}
	return r.Mm / thermal.Hot(1, near.TempC)
}
