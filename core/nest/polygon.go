package nest

import "math"

// Point is a place on the sheet, mm.
type Point [2]float64

// Polygon is a closed outline that does not cross itself; its last side runs back to its first
// point.
type Polygon []Point

// Bounds are its lowest and highest corner.
func (p Polygon) Bounds() (low, high Point) {
	low, high = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, q := range p {
		for k := range 2 {
			low[k], high[k] = math.Min(low[k], q[k]), math.Max(high[k], q[k])
		}
	}
	return low, high
}

// AreaMm2 is what it encloses, however it runs round.
func (p Polygon) AreaMm2() float64 {
	a := 0.0
	for i, q := range p {
		r := p[(i+1)%len(p)]
		a += q[0]*r[1] - r[0]*q[1]
	}
	return math.Abs(a) / 2
}

// AroundMm is how long its outline is: what a saw has to cut.
func (p Polygon) AroundMm() (mm float64) {
	for i, q := range p {
		r := p[(i+1)%len(p)]
		mm += math.Hypot(r[0]-q[0], r[1]-q[1])
	}
	return mm
}

// Has tells whether a point lies inside.
func (p Polygon) Has(q Point) bool {
	in := false
	for i, a := range p {
		b := p[(i+1)%len(p)]
		if (a[1] > q[1]) != (b[1] > q[1]) && q[0] < a[0]+(b[0]-a[0])*(q[1]-a[1])/(b[1]-a[1]) {
			in = !in
		}
	}
	return in
}

// Put is the polygon turned (turned over first, where it is flipped), its lowest corner then
// set at a place.
func (p Polygon) Put(at Point, turnDeg float64, flipped bool) Polygon {
	sin, cos := math.Sincos(turnDeg * math.Pi / 180)
	out := make(Polygon, len(p))
	for i, q := range p {
		y := q[1]
		if flipped {
			y = -y
		}
		out[i] = Point{q[0]*cos - y*sin, q[0]*sin + y*cos}
	}
	low, _ := out.Bounds()
	return out.moved(at[0]-low[0], at[1]-low[1])
}

func (p Polygon) moved(dx, dy float64) Polygon {
	out := make(Polygon, len(p))
	for i, q := range p {
		out[i] = Point{q[0] + dx, q[1] + dy}
	}
	return out
}

// Circle is a polygon round a circle: it lies outside of it by no more than a fiftieth of a
// millimetre.
func Circle(at Point, radiusMm float64) Polygon {
	const sagMm = 0.02
	n := max(12, int(math.Ceil(math.Pi/math.Acos(radiusMm/(radiusMm+sagMm)))))
	r := radiusMm / math.Cos(math.Pi/float64(n))
	out := make(Polygon, n)
	for i := range out {
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		out[i] = Point{at[0] + r*c, at[1] + r*s}
	}
	return out
}

// Rectangle is one from its lowest corner.
func Rectangle(at Point, wideMm, highMm float64) Polygon {
	return Polygon{at, {at[0] + wideMm, at[1]}, {at[0] + wideMm, at[1] + highMm}, {at[0], at[1] + highMm}}
}

// Apart is the least distance between two outlines, as far as reach (further apart it is at
// least that); 0 where they cross, or where one lies in the other.
func Apart(p, q Polygon, reach float64) float64 {
	if p.Has(q[0]) || q.Has(p[0]) {
		return 0
	}
	return rims(p, q, reach)
}

// rims is the least distance between the lines of two outlines, as far as reach.
func rims(p, q Polygon, reach float64) float64 {
	pl, ph := p.Bounds()
	ql, qh := q.Bounds()
	least := reach
	if pl[0]-qh[0] > least || ql[0]-ph[0] > least || pl[1]-qh[1] > least || ql[1]-ph[1] > least {
		return least
	}
	for i, a := range p {
		b := p[(i+1)%len(p)]
		al, ah := math.Min(a[0], b[0]), math.Max(a[0], b[0])
		am, an := math.Min(a[1], b[1]), math.Max(a[1], b[1])
		if al-qh[0] > least || ql[0]-ah > least || am-qh[1] > least || ql[1]-an > least {
			continue
		}
		for k, c := range q {
			d := q[(k+1)%len(q)]
			if math.Min(c[0], d[0])-ah > least || al-math.Max(c[0], d[0]) > least || math.Min(c[1], d[1])-an > least || am-math.Max(c[1], d[1]) > least {
				continue
			}
			if least = math.Min(least, sides(a, b, c, d)); least <= 0 {
				return 0
			}
		}
	}
	return least
}

// sides is the distance between two stretches of line; 0 where they cross.
func sides(a, b, c, d Point) float64 {
	turn := func(p, q, r Point) float64 { return (q[0]-p[0])*(r[1]-p[1]) - (q[1]-p[1])*(r[0]-p[0]) }
	if turn(a, b, c)*turn(a, b, d) < 0 && turn(c, d, a)*turn(c, d, b) < 0 {
		return 0
	}
	return math.Min(math.Min(off(a, c, d), off(b, c, d)), math.Min(off(c, a, b), off(d, a, b)))
}

// off is the distance of a point from a stretch of line.
func off(p, a, b Point) float64 {
	dx, dy := b[0]-a[0], b[1]-a[1]
	u := 0.0
	if l := dx*dx + dy*dy; l > 0 {
		u = math.Max(0, math.Min(1, ((p[0]-a[0])*dx+(p[1]-a[1])*dy)/l))
	}
	return math.Hypot(p[0]-a[0]-u*dx, p[1]-a[1]-u*dy)
}
