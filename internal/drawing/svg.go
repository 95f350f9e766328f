package drawing

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"coldember/core/blade"

	"github.com/tdewolff/canvas"
)

// maxElements bounds an SVG.
const maxElements = 20000

// ReadSVG reads the paths, polygons and rectangles of an SVG with their
// transforms; what only stands in its definitions is passed over. Its y runs
// down and is turned over.
func ReadSVG(data []byte) (Drawing, error) {
	if len(data) > MaxBytes {
		return Drawing{}, &Error{Code: "drawing.tooLarge"}
	}
	dec := xml.NewDecoder(bytes.NewReader(data))
	dec.Strict = true
	var paths []path
	unit, elements := 0.0, 0
	stack := []affine{identity}
	hidden := 0 // depth inside definitions
	for {
		tok, err := dec.Token()
		line, _ := dec.InputPos()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Drawing{}, &Error{Code: "drawing.notSvg", Line: line, Detail: clip(err.Error())}
		}
		if _, ok := tok.(xml.EndElement); ok {
			stack = stack[:len(stack)-1]
			hidden = max(0, hidden-1)
		}
		el, ok := tok.(xml.StartElement)
		if !ok {
			continue
		}
		if elements++; elements > maxElements {
			return Drawing{}, &Error{Code: "drawing.tooMany", Line: line}
		}
		if elements == 1 && el.Name.Local != "svg" {
			return Drawing{}, &Error{Code: "drawing.notSvg", Line: line, Detail: clip(el.Name.Local)}
		}
		attr := map[string]string{}
		for _, a := range el.Attr {
			attr[a.Name.Local] = a.Value
		}
		m, ok := svgTransform(attr["transform"])
		if !ok {
			return Drawing{}, &Error{Code: "drawing.transform", Line: line, Detail: clip(attr["transform"])}
		}
		m = stack[len(stack)-1].then(m)
		stack = append(stack, m)
		if hidden > 0 || slices.Contains([]string{"defs", "clipPath", "symbol", "mask", "marker", "pattern"}, el.Name.Local) {
			hidden++
			continue
		}
		before := len(paths)
		switch el.Name.Local {
		case "svg":
			unit = svgUnit(attr["width"], attr["viewBox"])
		case "path":
			p, err := svgPaths(attr["d"])
			if err != nil {
				return Drawing{}, &Error{Code: "drawing.path", Line: line, Detail: clip(attr["d"])}
			}
			paths = append(paths, p...)
		case "polygon", "polyline":
			p, err := svgPoints(attr["points"])
			if err != nil {
				return Drawing{}, &Error{Code: "drawing.number", Line: line, Detail: clip(attr["points"])}
			}
			if el.Name.Local == "polygon" && len(p) > 0 {
				p = append(p, p[0])
			}
			paths = append(paths, p)
		case "rect":
			if p := svgRect(attr); p != nil {
				paths = append(paths, p)
			}
		}
		for i := before; i < len(paths); i++ {
			paths[i] = m.path(paths[i])
		}
	}
	for _, p := range paths {
		for i := range p {
			p[i][1] = -p[i][1]
		}
	}
	loops, err := closeLoops(paths)
	return Drawing{Loops: loops, UnitMm: unit}, err
}

// svgUnit is what a user unit measures, from a width with a unit over the width
// of the view box.
func svgUnit(width, viewBox string) float64 {
	for suffix, mm := range map[string]float64{"mm": 1, "cm": 10, "in": 25.4} {
		text, ok := strings.CutSuffix(width, suffix)
		f := strings.Fields(strings.ReplaceAll(viewBox, ",", " "))
		if !ok || len(f) != 4 {
			continue
		}
		w, err := strconv.ParseFloat(text, 64)
		box, err2 := strconv.ParseFloat(f[2], 64)
		if err == nil && err2 == nil && box > 0 && w > 0 {
			return w * mm / box
		}
	}
	return 0
}

func svgPaths(d string) ([]path, error) {
	p, err := canvas.ParseSVGPath(d)
	if err != nil {
		return nil, err
	}
	b := p.FastBounds()
	size := math.Max(b.W(), b.H())
	if math.IsNaN(size) || math.IsInf(size, 0) || size > 1e7 {
		return nil, &Error{Code: "drawing.path"}
	}
	var out []path
	for _, sub := range p.Flatten(math.Max(size*1e-4, 1e-6)).Split() {
		var run path
		for _, c := range sub.Coords() {
			run = append(run, blade.Node{c.X, c.Y})
		}
		if sub.Closed() && len(run) > 0 {
			run = append(run, run[0])
		}
		out = append(out, run)
	}
	return out, nil
}

// svgRect is a rectangle with sharp corners; nil where it has no size.
func svgRect(attr map[string]string) path {
	var v [4]float64
	for i, name := range []string{"x", "y", "width", "height"} {
		n, err := strconv.ParseFloat(attr[name], 64)
		if err != nil && i > 1 || math.IsNaN(n) || math.Abs(n) > 1e7 {
			return nil
		}
		v[i] = n
	}
	x, y, w, h := v[0], v[1], v[2], v[3]
	if w <= 0 || h <= 0 {
		return nil
	}
	return path{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}, {x, y}}
}

func svgPoints(s string) (path, error) {
	f := strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' || r == '\n' || r == '\t' || r == '\r' })
	var out path
	for i := 0; i+1 < len(f); i += 2 {
		x, err := strconv.ParseFloat(f[i], 64)
		y, err2 := strconv.ParseFloat(f[i+1], 64)
		if err = errors.Join(err, err2); err != nil {
			return nil, err
		}
		out = append(out, blade.Node{x, y})
	}
	return out, nil
}
