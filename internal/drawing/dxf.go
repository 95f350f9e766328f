package drawing

import (
	"bufio"
	"bytes"
	"math"
	"slices"
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

// ReadDXF reads lines, arcs, circles, ellipses, polylines with bulges (old and light),
// splines, and blocks where they are inserted. Other entities are passed over.
func ReadDXF(data []byte) (Drawing, error) {
	pairs, err := readPairs(data)
	if err != nil {
		return Drawing{}, err
	}
	own := slices.ContainsFunc(pairs, func(p pair) bool { return p.code == 8 && !butFinished(p.value) })
	if !own {
		return drawDXF(pairs, nil)
	}
	out, err := drawDXF(pairs, apart)
	if err == nil {
		if named, err := drawDXF(pairs, butFinished); err == nil {
			out.Finished = named.Loops[0]
		}
	}
	return out, err
}

// drawDXF draws what lies on layers that are not to be skipped; nil skips none.
func drawDXF(pairs []pair, skip func(layer string) bool) (Drawing, error) {
	d := dxf{blocks: map[string]*block{}, off: map[string]bool{}, skip: skip}
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
		case d.in == "TABLES" && pairs[i].value == "LAYER":
			if err := d.layer(pairs[i+1 : next]); err != nil {
				return Drawing{}, err
			}
		case d.in == "ENTITIES" || d.in == "BLOCKS":
			d.line = pairs[i].line
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
	off      map[string]bool // layers that are not to be seen
	skip     func(layer string) bool
	unit     float64
	root     block
	blocks   map[string]*block
	into     *block
	vertices []vertex // of an old polyline being read
	closed   bool
	line     int // of the entity that is being read
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

// skips tells whether what is drawn lies on a layer that is not wanted; the parts of a polyline are
// on its layer, or on none.
func (d *dxf) skips(kind, layer string) bool {
	return d.skip != nil && kind != "VERTEX" && kind != "SEQEND" && kind != "BLOCK" && kind != "ENDBLK" && d.skip(layer)
}

func (d *dxf) entity(kind string, ps []pair) error {
	if layer := text(ps, 8); d.off[layer] || d.skips(kind, layer) || text(ps, 60) == "1" {
		return nil // not to be seen
	}
	switch kind {
	case "ELLIPSE":
		return d.ellipse(ps)
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
	const n = 48
	var p path
	for i := range n + 1 {
		a := from + sweep(from, to)*float64(i)/n
		p = append(p, blade.Node{v[0] + v[2]*math.Cos(a), v[1] + v[2]*math.Sin(a)})
	}
	d.into.paths = append(d.into.paths, p)
}

// sweep is the way from one angle counter-clockwise to another, rad: once round at the most,
// and all of it where they are the same, however often either has been counted round.
func sweep(from, to float64) float64 {
	s := math.Mod(to-from, 2*math.Pi)
	if s < 1e-9 {
		s += 2 * math.Pi
	}
	return s
}

// ellipse follows an ellipse or a part of one: its centre, the end of its long axis from
// there, the share that the short one has of it, and where it begins and ends.
func (d *dxf) ellipse(ps []pair) error {
	v, err := values(ps, 10, 20, 11, 21, 40, 41, 42)
	if err != nil {
		return err
	}
	const n = 96
	var p path
	for i := range n + 1 {
		s, c := math.Sincos(v[5] + sweep(v[5], v[6])*float64(i)/n)
		s *= v[4]
		p = append(p, blade.Node{v[0] + v[2]*c - v[3]*s, v[1] + v[3]*c + v[2]*s})
	}
	d.into.paths = append(d.into.paths, p)
	return nil
}

// layer notes a layer that is switched off (a negative colour) or frozen.
func (d *dxf) layer(ps []pair) error {
	v, err := values(ps, 62, 70)
	if err != nil {
		return err
	}
	if v[0] < 0 || int(v[1])&1 == 1 {
		d.off[text(ps, 2)] = true
	}
	return nil
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
