package figure

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
)

// Around is the whole outline of a body as one closed loop that runs round it: blade, ricasso
// and tang with its shoulders, y over the spine of the heel, thinned to nodes that keep within
// tolMm of it.
func Around(b *blade.Body, tolMm float64) (loop []blade.Node) {
	var top, bottom []blade.Node
	l, heel := b.LengthMm(), b.SpineY(b.LengthMm())
	const steps = 160
	for i := range steps + 1 {
		u := float64(i) / steps
		x := l * u * u * (3 - 2*u)
		top, bottom = append(top, blade.Node{x, b.SpineY(x) - heel}), append(bottom, blade.Node{x, b.EdgeY(x) - heel})
	}
	x := l
	if r := b.Blade.Ricasso; r != nil {
		for _, s := range r.Stations() {
			top, bottom = append(top, blade.Node{x + s, r.RiseMm}), append(bottom, blade.Node{x + s, r.RiseMm - r.HeightAt(s)})
		}
		x += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		for _, s := range t.Stations(1) {
			h, _ := t.At(s)
			y := -t.TopMm(s)
			top, bottom = append(top, blade.Node{x + s, y}), append(bottom, blade.Node{x + s, y - h})
		}
	}
	top, bottom = thinned(top, tolMm), thinned(bottom, tolMm)
	loop = append(loop, top...)
	for i := len(bottom) - 1; i >= 0; i-- {
		if i > 0 || bottom[0] != top[0] {
			loop = append(loop, bottom[i])
		}
	}
	return loop
}

// thinned keeps the nodes of a line that lie further than tol off the chords of those kept.
func thinned(line []blade.Node, tol float64) []blade.Node {
	if len(line) < 3 {
		return line
	}
	a, b := line[0], line[len(line)-1]
	best, most := -1, tol
	long := math.Hypot(b[0]-a[0], b[1]-a[1])
	for i := 1; i < len(line)-1; i++ {
		p := line[i]
		d := math.Hypot(p[0]-a[0], p[1]-a[1])
		if long > 0 {
			d = math.Abs((b[0]-a[0])*(p[1]-a[1])-(b[1]-a[1])*(p[0]-a[0])) / long
		}
		if d > most {
			best, most = i, d
		}
	}
	if best < 0 {
		return []blade.Node{a, b}
	}
	return append(thinned(line[:best+1], tol), thinned(line[best:], tol)[1:]...)
}

// Preform is the outline to cut out of a sheet so thick, that bevels, distal taper and tang are
// then forged from: as high as each stretch is before its bevels, and so much shorter as
// thinning it lengthens it. Its corners are rounded as the cells are that it is reckoned by.
func Preform(b *blade.Body, thickMm, tolMm float64) (loop []blade.Node) {
	const cells = 160
	var top, bottom []blade.Node
	x := 0.0
	add := func(x, centre, high float64) {
		top, bottom = append(top, blade.Node{x, centre + high/2}), append(bottom, blade.Node{x, centre - high/2})
	}
	bevels := func(widthMm float64) float64 { return forge.BevelSpread(forge.PinchOut, forge.BevelBiteMm, widthMm) }
	of := CellsOf(b, ZonesOf(b), cells, bevels, 0)
	for i := range of {
		c := &of[i]
		l := c.VolumeMm3 / (c.Preform.WidthMm * thickMm)
		if i == 0 || of[i-1].Zone != c.Zone && (c.Zone == plan.ZoneRicasso || c.Zone == plan.ZoneTang) {
			add(x+1e-6, c.CentreMm, c.Preform.WidthMm) // a step is a step
		}
		add(x+l/2, c.CentreMm, c.Preform.WidthMm)
		x += l
		if i == len(of)-1 || of[i+1].Zone != c.Zone && (of[i+1].Zone == plan.ZoneRicasso || of[i+1].Zone == plan.ZoneTang) {
			add(x, c.CentreMm, c.Preform.WidthMm)
		}
	}
	top, bottom = thinned(top, tolMm), thinned(bottom, tolMm)
	loop = append(loop, top...)
	for i := len(bottom) - 1; i >= 0; i-- {
		loop = append(loop, bottom[i])
	}
	return loop
}
