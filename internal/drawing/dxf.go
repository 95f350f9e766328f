package drawing

import (
	"bufio"
	"bytes"
	"math"
	"strconv"
	"strings"

	"coldember/core/blade"
)

// pair is a group code with its value and line.
type pair struct {
	code  int
	value string
	line  int
}

func (p pair) num() (float64, error) {
	v, err := strconv.ParseFloat(strings.TrimSpace(p.value), 64)
	if err != nil || math.IsNaN(v) || math.Abs(v) > 1e9 {
		return 0, &Error{Code: "drawing.number", Line: p.line, Detail: p.value}
	}
	return v, nil
}

// ReadDXF reads lines, arcs, circles, polylines with bulges (old and light),
// splines, and blocks where they are inserted. Other entities are passed over.
func ReadDXF(data []byte) (Drawing, error) {
	pairs, err := readPairs(data)
	if err != nil {
		return Drawing{}, err
	}
	d := dxf{blocks: map[string]*block{}}
	d.into = &d.root
	for i := range len(pairs) - 1 {
		if pairs[i].code == 9 && pairs[i].value == "$INSUNITS" {
			d.unit = map[string]float64{"1": 25.4, "2": 304.8, "4": 1, "5": 10, "6": 1000}[pairs[i+1].value]
		}
	}
	for i := 0; i < len(pairs); {
		next := i + 1
		for next < len(pairs) && pairs[next].code != 0 {
			next++
		}
		switch {
		case pairs[i].code != 0:
		case pairs[i].value == "SECTION" && i+1 < len(pairs):
			d.in = pairs[i+1].value
		case d.in == "ENTITIES" || d.in == "BLOCKS":
			if err := d.entity(pairs[i].value, pairs[i+1:next]); err != nil {
				return Drawing{}, err
			}
		}
		i = next
	}
	d.finish()
	paths, err := d.expand(&d.root, identity, 0)
	if err != nil {
		return Drawing{}, err
	}
	loops, err := closeLoops(paths)
	return Drawing{Loops: loops, UnitMm: d.unit}, err
}

func readPairs(data []byte) ([]pair, error) {
	if len(data) > MaxBytes {
		return nil, &Error{Code: "drawing.tooLarge"}
	}
	s := bufio.NewScanner(bytes.NewReader(data))
	s.Buffer(nil, 1<<16)
	var out []pair
	line := 0
	for s.Scan() {
		line++
		text := strings.TrimSpace(s.Text())
		code, err := strconv.Atoi(text)
		if err != nil {
			return nil, &Error{Code: "drawing.notDxf", Line: line, Detail: clip(text)}
		}
		if !s.Scan() {
			break
		}
		line++
		out = append(out, pair{code, strings.TrimSpace(s.Text()), line})
	}
	if s.Err() != nil || len(out) == 0 {
		return nil, &Error{Code: "drawing.notDxf", Line: line}
	}
	return out, nil
}

func clip(s string) string {
	if len(s) > 40 {
		return s[:40]
	}
	return s
}

type dxf struct {
	in       string
	unit     float64
	root     block
	blocks   map[string]*block
	into     *block
	vertices []vertex // of an old polyline being read
	closed   bool
}

// vertex of a polyline; bulge is the tangent of a quarter of the arc to the
// next.
type vertex struct {
	at    blade.Node
	bulge float64
}

// values reads the numbers of the codes; a code that is missing is 0.
func values(ps []pair, codes ...int) ([]float64, error) {
	out := make([]float64, len(codes))
	for i, c := range codes {
		for _, p := range ps {
			if p.code == c {
				v, err := p.num()
				if err != nil {
					return nil, err
				}
				out[i] = v
				break
			}
		}
	}
	return out, nil
}

func (d *dxf) entity(kind string, ps []pair) error {
	switch kind {
	case "LINE":
		v, err := values(ps, 10, 20, 11, 21)
		if err == nil {
			d.into.paths = append(d.into.paths, path{{v[0], v[1]}, {v[2], v[3]}})
		}
		return err
	case "ARC", "CIRCLE":
		v, err := values(ps, 10, 20, 40, 50, 51)
		if err == nil {
			if kind == "CIRCLE" {
				v[3], v[4] = 0, 360
			}
			d.arc(v)
		}
		return err
	case "LWPOLYLINE":
		return d.light(ps)
	case "POLYLINE":
		d.finish()
		v, err := values(ps, 70)
		if err == nil {
			d.closed, d.vertices = int(v[0])&1 == 1, []vertex{}
		}
		return err
	case "VERTEX":
		v, err := values(ps, 10, 20, 42)
		if err == nil && d.vertices != nil {
			d.vertices = append(d.vertices, vertex{blade.Node{v[0], v[1]}, v[2]})
		}
		return err
	case "SEQEND":
		d.finish()
	case "SPLINE":
		return d.spline(ps)
	case "BLOCK", "ENDBLK":
		return d.beginBlock(kind, ps)
	case "INSERT":
		return d.insert(ps)
	}
	return nil
}

func (d *dxf) finish() {
	if len(d.vertices) > 1 {
		d.into.paths = append(d.into.paths, bulged(d.vertices, d.closed))
	}
	d.vertices = nil
}

func (d *dxf) arc(v []float64) {
	from, to := v[3]*math.Pi/180, v[4]*math.Pi/180
	if to <= from {
		to += 2 * math.Pi * math.Ceil((from-to)/(2*math.Pi)+1e-12)
	}
	const n = 48
	var p path
	for i := range n + 1 {
		a := from + (to-from)*float64(i)/n
		p = append(p, blade.Node{v[0] + v[2]*math.Cos(a), v[1] + v[2]*math.Sin(a)})
	}
	d.into.paths = append(d.into.paths, p)
}

func (d *dxf) light(ps []pair) error {
	var vs []vertex
	closed := false
	for _, p := range ps {
		if p.code != 10 && p.code != 20 && p.code != 42 && p.code != 70 {
			continue
		}
		v, err := p.num()
		if err != nil {
			return err
		}
		switch {
		case p.code == 70:
			closed = int(v)&1 == 1
		case p.code == 10:
			vs = append(vs, vertex{at: blade.Node{v, 0}})
		case len(vs) == 0:
		case p.code == 20:
			vs[len(vs)-1].at[1] = v
		default:
			vs[len(vs)-1].bulge = v
		}
	}
	if len(vs) > 1 {
		d.into.paths = append(d.into.paths, bulged(vs, closed))
	}
	return nil
}

// bulged follows a polyline with its arcs.
func bulged(vs []vertex, closed bool) path {
	out := path{vs[0].at}
	n := len(vs) - 1
	if closed {
		n++
	}
	for i := range n {
		a, b := vs[i], vs[(i+1)%len(vs)]
		if math.Abs(a.bulge) > 1e-9 && math.Abs(a.bulge) < 1e4 {
			out = append(out, arcPoints(a.at, b.at, a.bulge)...)
		}
		out = append(out, b.at)
	}
	return out
}

// arcPoints are the points between a and b on the arc of this bulge.
func arcPoints(a, b blade.Node, bulge float64) path {
	const n = 24
	sweep := 4 * math.Atan(bulge)
	dx, dy := b[0]-a[0], b[1]-a[1]
	// the centre lies off the chord's middle
	h := (1 - bulge*bulge) / (4 * bulge)
	cx, cy := (a[0]+b[0])/2-dy*h, (a[1]+b[1])/2+dx*h
	var out path
	for i := 1; i < n; i++ {
		s, c := math.Sincos(sweep * float64(i) / n)
		ox, oy := a[0]-cx, a[1]-cy
		out = append(out, blade.Node{cx + ox*c - oy*s, cy + ox*s + oy*c})
	}
	return out
}

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
		return &Error{Code: "drawing.spline", Line: ps[0].line}
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
