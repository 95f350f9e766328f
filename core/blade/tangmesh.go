package blade

import (
	"math"
	"slices"
)

// holeSteps are the stations through half of a hole's round end.
const holeSteps = 16

// sliverMm is less than any triangle of a solid is wide.
const sliverMm = 0.002

// drilled is a tang with its holes in strips: between two stations each is made of stretches
// of steel, one above the other, between its sides and the holes.
type drilled struct {
	mesh     *Mesh
	tang     *Tang
	x0, heel float64
	at       []float64   // stations behind the shoulder
	levels   [][]float64 // heights of the vertices at each, from the bottom up
	first    []int       // the first vertex of each: front and back in turn
}

// span is how far along the tang a hole reaches.
func (h Hole) span() (from, to float64) { return h.AtMm - h.HalfMm(), h.AtMm + h.HalfMm() }

// reachAt is half of its height s mm behind the shoulder.
func (h Hole) reachAt(s float64) float64 {
	past := math.Max(0, math.Abs(s-h.AtMm)-math.Max(0, h.LongMm-h.DiameterMm)/2)
	return math.Sqrt(math.Max(0, h.DiameterMm*h.DiameterMm/4-past*past))
}

// drill adds the tang to the mesh with its holes through it.
func (t *Tang) drill(m *Mesh, x0, heel, stepMm float64) {
	d := drilled{mesh: m, tang: t, x0: x0, heel: heel}
	var ends []float64
	for _, h := range t.Holes {
		half := math.Max(0, h.LongMm-h.DiameterMm) / 2
		for i := range holeSteps + 1 {
			r := half + h.DiameterMm/2*math.Cos(math.Pi/2*float64(i)/holeSteps)
			ends = append(ends, h.AtMm-r, h.AtMm+r)
		}
	}
	d.at = ends
	for _, s := range t.stations(stepMm) { // but for slivers beside the stations of a hole
		if !slices.ContainsFunc(ends, func(e float64) bool { return math.Abs(e-s) < sliverMm }) {
			d.at = append(d.at, s)
		}
	}
	slices.Sort(d.at)
	d.at = slices.CompactFunc(d.at, func(a, b float64) bool { return math.Abs(a-b) < 1e-7 })
	for _, s := range d.at {
		d.station(s)
	}
	for i := 1; i < len(d.at); i++ {
		d.strip(i-1, i)
	}
	d.end(0, false)
	d.end(len(d.at)-1, true)
}

// hole is where a hole lies s mm behind the shoulder, over the spine of the heel.
func (d *drilled) hole(h Hole, s float64) (low, high float64) {
	mid, r := d.tang.CentreMm(h.AtMm)+h.OffMm, h.reachAt(s)
	return mid - r, mid + r
}

// station puts the vertices of a station.
func (d *drilled) station(s float64) {
	high, thick := d.tang.At(s)
	top := -d.tang.TopMm(s)
	ys := []float64{top - high, top}
	for _, h := range d.tang.Holes {
		if from, to := h.span(); s >= from-1e-7 && s <= to+1e-7 {
			low, up := d.hole(h, s)
			ys = append(ys, low, up)
		}
	}
	slices.Sort(ys)
	ys = slices.CompactFunc(ys, func(a, b float64) bool { return math.Abs(a-b) < 1e-7 })
	d.levels, d.first = append(d.levels, ys), append(d.first, len(d.mesh.Vertices))
	for _, y := range ys {
		for _, z := range [2]float64{thick / 2, -thick / 2} {
			d.mesh.Vertices = append(d.mesh.Vertices, [3]float64{d.x0 + s, d.heel + y, z})
		}
	}
}

// level is the place of a height among those of a station.
func (d *drilled) level(i int, y float64) int {
	best := 0
	for k, v := range d.levels[i] {
		if math.Abs(v-y) < math.Abs(d.levels[i][best]-y) {
			best = k
		}
	}
	return best
}

// strip fills the stretches of steel between two stations.
func (d *drilled) strip(i, j int) {
	a, b := d.at[i], d.at[j]
	type pair struct{ i, j int } // levels at both stations
	bounds := []pair{{0, 0}}
	var through []Hole
	for _, h := range d.tang.Holes {
		if from, to := h.span(); from <= a+1e-7 && to >= b-1e-7 {
			through = append(through, h)
		}
	}
	slices.SortFunc(through, func(g, h Hole) int {
		lg, _ := d.hole(g, (a+b)/2)
		lh, _ := d.hole(h, (a+b)/2)
		return int(math.Copysign(1, lg-lh))
	})
	for _, h := range through {
		la, ua := d.hole(h, a)
		lb, ub := d.hole(h, b)
		bounds = append(bounds, pair{d.level(i, la), d.level(j, lb)}, pair{d.level(i, ua), d.level(j, ub)})
	}
	bounds = append(bounds, pair{len(d.levels[i]) - 1, len(d.levels[j]) - 1})
	for k := 0; k < len(bounds); k += 2 {
		low, high := bounds[k], bounds[k+1]
		d.face(i, j, low.i, high.i, low.j, high.j)
		d.wall(i, j, low.i, low.j, false)
		d.wall(i, j, high.i, high.j, true)
	}
}

func (d *drilled) vertex(station, level, back int) int { return d.first[station] + 2*level + back }

func (d *drilled) add(a, b, c int) {
	if a != b && b != c && a != c {
		d.mesh.Triangles = append(d.mesh.Triangles, [3]int{a, b, c})
	}
}

// face closes front and back of a stretch, from level to level at both stations.
func (d *drilled) face(i, j, li, hi, lj, hj int) {
	for li < hi || lj < hj {
		// the side whose next vertex is lower goes on
		onLeft := lj == hj || li < hi && d.levels[i][li+1] < d.levels[j][lj+1]
		if onLeft {
			d.add(d.vertex(i, li, 0), d.vertex(j, lj, 0), d.vertex(i, li+1, 0))
			d.add(d.vertex(i, li, 1), d.vertex(i, li+1, 1), d.vertex(j, lj, 1))
			li++
			continue
		}
		d.add(d.vertex(i, li, 0), d.vertex(j, lj, 0), d.vertex(j, lj+1, 0))
		d.add(d.vertex(i, li, 1), d.vertex(j, lj+1, 1), d.vertex(j, lj, 1))
		lj++
	}
}

// wall joins front and back along a side, which looks up or down.
func (d *drilled) wall(i, j, li, lj int, up bool) {
	a, b, c, e := d.vertex(i, li, 0), d.vertex(j, lj, 0), d.vertex(j, lj, 1), d.vertex(i, li, 1)
	if up {
		d.add(a, b, c)
		d.add(a, c, e)
		return
	}
	d.add(a, c, b)
	d.add(a, e, c)
}

// end closes the shoulder or the butt.
func (d *drilled) end(i int, butt bool) {
	for l := 1; l < len(d.levels[i]); l++ {
		a, b, c, e := d.vertex(i, l-1, 0), d.vertex(i, l, 0), d.vertex(i, l, 1), d.vertex(i, l-1, 1)
		if butt {
			d.add(a, c, b)
			d.add(a, e, c)
			continue
		}
		d.add(a, b, c)
		d.add(a, c, e)
	}
}
