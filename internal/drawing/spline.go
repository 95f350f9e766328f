package drawing

import (
	"coldember/core/blade"
)

// bspline is what a spline entity says.
type bspline struct {
	degree  int
	knots   []float64
	weights []float64
	control []weighted
	fit     path
}

// readSpline gathers the groups of a spline entity.
func readSpline(ps []pair) (b bspline, err error) {
	b.degree = 3
	for _, p := range ps {
		switch p.code {
		case 71, 40, 41, 10, 20, 11, 21:
		default:
			continue
		}
		v, err := p.num()
		if err != nil {
			return b, err
		}
		switch p.code {
		case 71:
			b.degree = int(v)
		case 40:
			b.knots = append(b.knots, v)
		case 10:
			b.control = append(b.control, weighted{v, 0, 1})
		case 41:
			b.weights = append(b.weights, v)
		case 11:
			b.fit = append(b.fit, blade.Node{v, 0})
		case 20:
			if n := len(b.control); n > 0 {
				b.control[n-1][1] = v
			}
		case 21:
			if n := len(b.fit); n > 0 {
				b.fit[n-1][1] = v
			}
		}
	}
	for i, w := range b.weights[:min(len(b.weights), len(b.control))] {
		b.control[i][2] = w
	}
	return b, nil
}

// spline follows a B-spline, rational or not, by de Boor's rule.
func (d *dxf) spline(ps []pair) error {
	b, err := readSpline(ps)
	switch {
	case err != nil:
		return err
	case len(b.control) == 0 && len(b.fit) > 1:
		d.into.paths = append(d.into.paths, b.fit)
		return nil
	case b.degree < 1 || b.degree > 9 || len(b.control) <= b.degree || len(b.knots) != len(b.control)+b.degree+1:
		return &Error{Code: "drawing.spline", Line: d.line}
	}
	n := min(16*len(b.control), 4000)
	lo, hi := b.knots[b.degree], b.knots[len(b.control)]
	var out path
	for i := range n + 1 {
		out = append(out, deBoor(b.degree, b.knots, b.control, lo+(hi-lo)*float64(i)/float64(n)))
	}
	d.into.paths = append(d.into.paths, out)
	return nil
}

// weighted is a control point (x, y) with its weight.
type weighted [3]float64

// deBoor is the point of a spline at u; weighted points are carried as
// (w·x, w·y, w).
func deBoor(p int, knots []float64, control []weighted, u float64) blade.Node {
	k := p
	for k < len(control)-1 && u >= knots[k+1] {
		k++
	}
	d := append([]weighted(nil), control[k-p:k+1]...)
	for i := range d {
		d[i][0], d[i][1] = d[i][0]*d[i][2], d[i][1]*d[i][2]
	}
	for r := 1; r <= p; r++ {
		for j := p; j >= r; j-- {
			lo, hi := knots[j+k-p], knots[j+1+k-r]
			f := 0.0
			if hi > lo {
				f = (u - lo) / (hi - lo)
			}
			for c := range 3 {
				d[j][c] = (1-f)*d[j-1][c] + f*d[j][c]
			}
		}
	}
	w := d[p][2]
	if w == 0 {
		w = 1
	}
	return blade.Node{d[p][0] / w, d[p][1] / w}
}
