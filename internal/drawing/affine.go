package drawing

import (
	"math"
	"strconv"
	"strings"

	"coldember/core/blade"
)

// affine maps (x, y) to (a·x + c·y + e, b·x + d·y + f), in the order a SVG
// matrix has.
type affine [6]float64

var identity = affine{1, 0, 0, 1, 0, 0}

func translate(x, y float64) affine { return affine{1, 0, 0, 1, x, y} }

func rotate(rad float64) affine {
	s, c := math.Sincos(rad)
	return affine{c, s, -s, c, 0, 0}
}

// then is m after n: n is applied first.
func (m affine) then(n affine) affine {
	return affine{
		m[0]*n[0] + m[2]*n[1], m[1]*n[0] + m[3]*n[1],
		m[0]*n[2] + m[2]*n[3], m[1]*n[2] + m[3]*n[3],
		m[0]*n[4] + m[2]*n[5] + m[4], m[1]*n[4] + m[3]*n[5] + m[5],
	}
}

func (m affine) path(p path) path {
	out := make(path, len(p))
	for i, n := range p {
		out[i] = blade.Node{m[0]*n[0] + m[2]*n[1] + m[4], m[1]*n[0] + m[3]*n[1] + m[5]}
	}
	return out
}

// svgTransform reads the transform of an SVG element: matrix, translate, scale,
// rotate, skewX and skewY, one after the other.
func svgTransform(s string) (affine, bool) {
	m := identity
	for s = strings.TrimLeft(s, " ,\t\r\n"); s != ""; s = strings.TrimLeft(s, " ,\t\r\n") {
		name, rest, ok := strings.Cut(s, "(")
		args, after, ok2 := strings.Cut(rest, ")")
		if !ok || !ok2 {
			return m, false
		}
		one, ok := svgFunction(strings.TrimSpace(name), args)
		if !ok {
			return m, false
		}
		m, s = m.then(one), after
	}
	return m, true
}

func svgFunction(name, args string) (affine, bool) {
	var v []float64
	for _, f := range strings.FieldsFunc(args, func(r rune) bool { return strings.ContainsRune(" ,\t\r\n", r) }) {
		x, err := strconv.ParseFloat(f, 64)
		if err != nil || math.IsNaN(x) || math.Abs(x) > 1e7 {
			return identity, false
		}
		v = append(v, x)
	}
	const deg = math.Pi / 180
	switch n := len(v); {
	case name == "matrix" && n == 6:
		return affine(v), true
	case name == "translate" && n == 1:
		return translate(v[0], 0), true
	case name == "translate" && n == 2:
		return translate(v[0], v[1]), true
	case name == "scale" && n == 1:
		return affine{v[0], 0, 0, v[0], 0, 0}, true
	case name == "scale" && n == 2:
		return affine{v[0], 0, 0, v[1], 0, 0}, true
	case name == "rotate" && n == 1:
		return rotate(v[0] * deg), true
	case name == "rotate" && n == 3:
		return translate(v[1], v[2]).then(rotate(v[0] * deg)).then(translate(-v[1], -v[2])), true
	case name == "skewX" && n == 1:
		return affine{1, 0, math.Tan(v[0] * deg), 1, 0, 0}, true
	case name == "skewY" && n == 1:
		return affine{1, math.Tan(v[0] * deg), 0, 1, 0, 0}, true
	}
	return identity, false
}
