package drawing

import (
	"math"
	"strconv"

	"coldember/core/blade"
)

// flatWithin is how near the chords of a curve keep to it, as a share of the curve's
// own size.
const flatWithin = 1e-4

// mostOfSVG bounds any coordinate of a path.
const mostOfSVG = 1e7

// svgPaths follows the path data of SVG 2 (§9.3): every subpath is a run of points, its
// curves and arcs flattened. Errors are *Error.
func svgPaths(d string) ([]path, error) {
	p := pathReader{text: d}
	for {
		p.space()
		if p.at == len(p.text) {
			break
		}
		if err := p.command(); err != nil {
			return nil, err
		}
	}
	p.endRun()
	return p.runs, nil
}

// pathReader is how far path data have been followed.
type pathReader struct {
	text string
	at   int
	last byte // command, whose arguments may follow again

	runs       []path
	run        path
	now, start blade.Node
	control    blade.Node // of the last curve, for those that go on smoothly
	curved     byte       // C or Q: what control is of
	points     int
}

func (p *pathReader) wrong() error {
	return &Error{Code: "drawing.path", Detail: clip(p.text[min(p.at, len(p.text)):])}
}

func (p *pathReader) space() {
	for p.at < len(p.text) {
		switch p.text[p.at] {
		case ' ', '\t', '\r', '\n', '\f', ',':
			p.at++
		default:
			return
		}
	}
}

// number reads one number; numbers may run into each other where that is clear (1-2,
// .5.5).
func (p *pathReader) number() (float64, bool) {
	p.space()
	from, i, s := p.at, p.at, p.text
	digits := func() {
		for i < len(s) && s[i] >= '0' && s[i] <= '9' {
			i++
		}
	}
	if i < len(s) && (s[i] == '+' || s[i] == '-') {
		i++
	}
	digits()
	if i < len(s) && s[i] == '.' {
		i++
		digits()
	}
	if i < len(s) && (s[i] == 'e' || s[i] == 'E') {
		back := i
		if i++; i < len(s) && (s[i] == '+' || s[i] == '-') {
			i++
		}
		at := i
		if digits(); i == at {
			i = back
		}
	}
	v, err := strconv.ParseFloat(s[from:i], 64)
	if err != nil || !(math.Abs(v) <= mostOfSVG) {
		return 0, false
	}
	p.at = i
	return v, true
}

// flag reads one flag of an arc, which need not stand apart.
func (p *pathReader) flag() (bool, bool) {
	p.space()
	if p.at < len(p.text) && (p.text[p.at] == '0' || p.text[p.at] == '1') {
		p.at++
		return p.text[p.at-1] == '1', true
	}
	return false, false
}

// numbers reads n of them.
func (p *pathReader) numbers(n int) (v [6]float64, ok bool) {
	for i := range n {
		if v[i], ok = p.number(); !ok {
			return v, false
		}
	}
	return v, true
}

// arguments is how many numbers a command takes; arcs are read on their own.
var arguments = map[byte]int{'M': 2, 'L': 2, 'H': 1, 'V': 1, 'C': 6, 'S': 4, 'Q': 4, 'T': 2, 'A': 0, 'Z': 0}

// command follows one command with one set of arguments.
func (p *pathReader) command() error {
	c := p.text[p.at]
	up := c &^ 0x20
	if n, known := arguments[up]; known && c >= 'A' && (n >= 0) {
		p.at++
	} else if c, up = p.last, p.last&^0x20; c == 0 || up == 'Z' {
		return p.wrong()
	}
	relative := c >= 'a'
	if p.last == 0 && up != 'M' {
		return p.wrong()
	}
	if p.last = c; up == 'M' { // further pairs are lines
		p.last = 'L' | c&0x20
	}
	if up == 'Z' {
		p.line(p.start)
		p.endRun()
		p.now = p.start
		p.curved = 0
		return nil
	}
	if up == 'A' {
		return p.arc(relative)
	}
	v, ok := p.numbers(arguments[up])
	if !ok {
		return p.wrong()
	}
	at := func(i int) blade.Node {
		n := blade.Node{v[i], v[i+1]}
		if relative {
			n[0], n[1] = n[0]+p.now[0], n[1]+p.now[1]
		}
		return n
	}
	return p.draw(up, relative, v, at)
}

// draw follows a command that is no arc.
func (p *pathReader) draw(up byte, relative bool, v [6]float64, at func(int) blade.Node) error {
	was := p.curved
	p.curved = 0
	switch up {
	case 'M':
		p.now = at(0)
		p.endRun()
		p.start = p.now
	case 'L':
		p.line(at(0))
	case 'H':
		x := v[0]
		if relative {
			x += p.now[0]
		}
		p.line(blade.Node{x, p.now[1]})
	case 'V':
		y := v[0]
		if relative {
			y += p.now[1]
		}
		p.line(blade.Node{p.now[0], y})
	case 'C':
		p.cubic(at(0), at(2), at(4))
	case 'S':
		p.cubic(p.mirrored(was, 'C'), at(0), at(2))
	case 'Q':
		p.quadratic(at(0), at(2))
	case 'T':
		p.quadratic(p.mirrored(was, 'Q'), at(0))
	}
	if p.points > maxPoints {
		return &Error{Code: "drawing.tooMany"}
	}
	return nil
}

// mirrored is the control point that goes on smoothly from a curve of this kind.
func (p *pathReader) mirrored(was, kind byte) blade.Node {
	if was != kind {
		return p.now
	}
	return blade.Node{2*p.now[0] - p.control[0], 2*p.now[1] - p.control[1]}
}

func (p *pathReader) line(to blade.Node) {
	if len(p.run) == 0 {
		p.run = path{p.now}
	}
	p.run = append(p.run, to)
	p.now = to
	p.points++
}

func (p *pathReader) endRun() {
	if len(p.run) > 1 {
		p.runs = append(p.runs, p.run)
	}
	p.run = nil
}

// curve draws n chords of a curve that is given from 0 to 1.
func (p *pathReader) curve(n int, at func(u float64) blade.Node) {
	for i := 1; i <= n; i++ {
		p.line(at(float64(i) / float64(n)))
	}
}

// mostChords bounds one curve.
const mostChords = 400

// chords is how many keep to a cubic within a share of its size: the error of a chord
// is an eighth of the second derivative times the step squared.
func chords(bend, size float64) int {
	if !(size > 0) {
		return 1
	}
	return min(mostChords, max(1, int(math.Ceil(math.Sqrt(bend/8/(flatWithin*size))))))
}

func (p *pathReader) cubic(a, b, to blade.Node) {
	o := p.now
	bend, size := 0.0, 0.0
	for k := range 2 {
		bend = math.Max(bend, 6*math.Max(math.Abs(o[k]-2*a[k]+b[k]), math.Abs(a[k]-2*b[k]+to[k])))
		size = math.Max(size, math.Max(math.Abs(a[k]-o[k]), math.Max(math.Abs(b[k]-o[k]), math.Abs(to[k]-o[k]))))
	}
	p.curve(chords(bend*math.Sqrt2, size), func(u float64) (n blade.Node) {
		w := 1 - u
		for k := range 2 {
			n[k] = w*w*w*o[k] + 3*w*w*u*a[k] + 3*w*u*u*b[k] + u*u*u*to[k]
		}
		return n
	})
	p.now, p.run[len(p.run)-1] = to, to
	p.control, p.curved = b, 'C'
}

func (p *pathReader) quadratic(a, to blade.Node) {
	o := p.now
	third := func(end blade.Node) blade.Node {
		return blade.Node{end[0] + 2./3*(a[0]-end[0]), end[1] + 2./3*(a[1]-end[1])}
	}
	p.cubic(third(o), third(to), to)
	p.control, p.curved = a, 'Q'
}

// arc follows an elliptical arc, by way of its centre (SVG 2, appendix B.2).
func (p *pathReader) arc(relative bool) error {
	v, ok := p.numbers(3)
	large, ok2 := p.flag()
	sweep, ok3 := p.flag()
	end, ok4 := p.numbers(2)
	if !ok || !ok2 || !ok3 || !ok4 {
		return p.wrong()
	}
	to := blade.Node{end[0], end[1]}
	if relative {
		to[0], to[1] = to[0]+p.now[0], to[1]+p.now[1]
	}
	p.curved = 0
	rx, ry := math.Abs(v[0]), math.Abs(v[1])
	if rx == 0 || ry == 0 || to == p.now {
		p.line(to)
		return nil
	}
	sin, cos := math.Sincos(v[2] * math.Pi / 180)
	dx, dy := (p.now[0]-to[0])/2, (p.now[1]-to[1])/2
	x, y := cos*dx+sin*dy, -sin*dx+cos*dy
	if over := x*x/(rx*rx) + y*y/(ry*ry); over > 1 { // too small to reach: as large as it must be
		rx, ry = rx*math.Sqrt(over), ry*math.Sqrt(over)
	}
	k := math.Sqrt(math.Max(0, (rx*rx*ry*ry-rx*rx*y*y-ry*ry*x*x)/(rx*rx*y*y+ry*ry*x*x)))
	if large == sweep {
		k = -k
	}
	cx, cy := k*rx*y/ry, -k*ry*x/rx
	from := math.Atan2((y-cy)/ry, (x-cx)/rx)
	by := math.Atan2((-y-cy)/ry, (-x-cx)/rx) - from
	if sweep && by < 0 {
		by += 2 * math.Pi
	} else if !sweep && by > 0 {
		by -= 2 * math.Pi
	}
	mx, my := (p.now[0]+to[0])/2+cos*cx-sin*cy, (p.now[1]+to[1])/2+sin*cx+cos*cy
	n := min(mostChords, max(2, int(math.Ceil(math.Abs(by)/math.Sqrt(8*flatWithin)))))
	p.curve(n, func(u float64) blade.Node {
		s, c := math.Sincos(from + by*u)
		return blade.Node{mx + cos*rx*c - sin*ry*s, my + sin*rx*c + cos*ry*s}
	})
	p.now, p.run[len(p.run)-1] = to, to
	if p.points > maxPoints {
		return &Error{Code: "drawing.tooMany"}
	}
	return nil
}
