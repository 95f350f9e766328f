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

// svgFunctions are the functions of a transform, by name and number of arguments.
var svgFunctions = map[string]map[int]func(v []float64) affine{
	"matrix":    {6: func(v []float64) affine { return affine(v) }},
	"translate": {1: func(v []float64) affine { return translate(v[0], 0) }, 2: func(v []float64) affine { return translate(v[0], v[1]) }},
	"scale": {
		1: func(v []float64) affine { return affine{v[0], 0, 0, v[0], 0, 0} },
		2: func(v []float64) affine { return affine{v[0], 0, 0, v[1], 0, 0} },
	},
	"rotate": {
		1: func(v []float64) affine { return rotate(v[0] * degree) },
		3: func(v []float64) affine {
			return translate(v[1], v[2]).then(rotate(v[0] * degree)).then(translate(-v[1], -v[2]))
		},
	},
	"skewX": {1: func(v []float64) affine { return affine{1, 0, math.Tan(v[0] * degree), 1, 0, 0} }},
	"skewY": {1: func(v []float64) affine { return affine{1, math.Tan(v[0] * degree), 0, 1, 0, 0} }},
}

const degree = math.Pi / 180

// svgFunction is one function of a transform.
func svgFunction(name, args string) (affine, bool) {
	var v []float64
	for _, f := range strings.FieldsFunc(args, func(r rune) bool { return strings.ContainsRune(" ,\t\r\n", r) }) {
		x, err := strconv.ParseFloat(f, 64)
		if err != nil || math.IsNaN(x) || math.Abs(x) > 1e7 {
			return identity, false
		}
		v = append(v, x)
	}
	f := svgFunctions[name][len(v)]
	if f == nil {
		return identity, false
	}
	return f(v), true
}
