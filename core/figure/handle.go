package figure

import (
	"math"

	"coldember/core/blade"
	"coldember/core/plan"
)

// PushAngleDeg is how far the point lies above the line along the grip, seen from the
// middle of the grip.
func PushAngleDeg(u *plan.Push) float64 {
	x, y := (u.Butt[0]+u.Front[0])/2, (u.Butt[1]+u.Front[1])/2
	return (math.Atan2(u.Point[1]-y, x-u.Point[0]) - math.Atan2(u.Front[1]-u.Butt[1], u.Butt[0]-u.Front[0])) * 180 / math.Pi
}

// AddHandle draws handle, fittings and holes on the finished blade.
func AddHandle(d *plan.Drawing, b *blade.Body, design blade.Design) {
	shoulder := b.LengthMm() + design.Ricasso.LengthMm
	heel := b.SpineY(b.LengthMm())
	for _, h := range design.Tang.Holes {
		hole := plan.DrawnHole{XMm: shoulder + h.AtMm, YMm: micron(heel + b.Blade.Tang.CentreMm(h.AtMm) + h.OffMm), DiameterMm: h.DiameterMm}
		if h.LongMm > h.DiameterMm {
			hole.LongMm = h.LongMm
		}
		d.Holes = append(d.Holes, hole)
	}
	h := design.Handle
	if h == nil {
		return
	}
	x, grip := shoulder, design.Grip()
	front, _ := grip(0)
	butt, _ := grip(h.LengthMm)
	block := func(what string, f blade.Fitting, axisMm float64) {
		if f.LengthMm <= 0 {
			return
		}
		top, bottom := heel-axisMm+f.HeightMm/2, heel-axisMm-f.HeightMm/2
		d.Handle = append(d.Handle, plan.HandlePart{
			What: what, Material: f.Material, FromMm: x, ToMm: x + f.LengthMm, WidthMm: f.WidthMm,
			Outline: []blade.Node{{x, top}, {x + f.LengthMm, top}, {x + f.LengthMm, bottom}, {x, bottom}},
		})
		x += f.LengthMm
	}
	block("guard", h.Guard, front)
	block("bolster", h.Bolster, front)
	const steps = 48
	var up, down []blade.Node
	for i := range steps + 1 {
		s := h.LengthMm * float64(i) / steps
		axis, high := grip(s)
		y, half := heel-axis, high/2
		up = append(up, blade.Node{micron(x + s), micron(y + half)})
		down = append([]blade.Node{{micron(x + s), micron(y - half)}}, down...)
	}
	d.Handle = append(d.Handle, plan.HandlePart{What: "grip", Material: h.Material, Outline: append(up, down...), FromMm: x, ToMm: x + h.LengthMm, WidthMm: h.WidthMm})
	d.Push = &plan.Push{
		Butt: blade.Node{x + h.LengthMm, heel - butt}, Front: blade.Node{x, heel - front},
		Point: blade.Node{0, b.SpineY(0)},
	}
	x += h.LengthMm
	block("pommel", h.Pommel, butt)
}
