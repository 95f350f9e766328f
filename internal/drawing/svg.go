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
	r := svgReader{stack: []affine{identity}}
	for {
		tok, err := dec.Token()
		line, _ := dec.InputPos()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Drawing{}, &Error{Code: "drawing.notSvg", Line: line, Detail: clip(err.Error())}
		}
		switch el := tok.(type) {
		case xml.EndElement:
			r.stack = r.stack[:len(r.stack)-1]
			r.hidden = max(0, r.hidden-1)
		case xml.StartElement:
			if err := r.element(el, line); err != nil {
				return Drawing{}, err
			}
		}
	}
	for _, p := range r.paths {
		for i := range p {
			p[i][1] = -p[i][1]
		}
	}
	loops, err := closeLoops(r.paths)
	return Drawing{Loops: loops, UnitMm: r.unit}, err
}

// svgReader is how far an SVG has been read.
type svgReader struct {
	paths    []path
	unit     float64
	elements int
	stack    []affine
	hidden   int // depth inside definitions
}

// definitions are elements whose contents are not drawn where they stand.
var definitions = []string{"defs", "clipPath", "symbol", "mask", "marker", "pattern"}

// element takes the start of an element.
func (r *svgReader) element(el xml.StartElement, line int) error {
	if r.elements++; r.elements > maxElements {
		return &Error{Code: "drawing.tooMany", Line: line}
	}
	if r.elements == 1 && el.Name.Local != "svg" {
		return &Error{Code: "drawing.notSvg", Line: line, Detail: clip(el.Name.Local)}
	}
	attr := map[string]string{}
	for _, a := range el.Attr {
		attr[a.Name.Local] = a.Value
	}
	m, ok := svgTransform(attr["transform"])
	if !ok {
		return &Error{Code: "drawing.transform", Line: line, Detail: clip(attr["transform"])}
	}
	m = r.stack[len(r.stack)-1].then(m)
	r.stack = append(r.stack, m)
	if r.hidden > 0 || slices.Contains(definitions, el.Name.Local) {
		r.hidden++
		return nil
	}
	drawn, err := r.shape(el.Name.Local, attr, line)
	for _, p := range drawn {
		r.paths = append(r.paths, m.path(p))
	}
	return err
}

// shape is what one element draws.
func (r *svgReader) shape(name string, attr map[string]string, line int) ([]path, error) {
	switch name {
	case "svg":
		r.unit = svgUnit(attr["width"], attr["viewBox"])
	case "path":
		p, err := svgPaths(attr["d"])
		var e *Error
		if errors.As(err, &e) {
			e.Line = line
		}
		return p, err
	case "polygon", "polyline":
		p, err := svgPoints(attr["points"])
		if err != nil {
			return nil, &Error{Code: "drawing.number", Line: line, Detail: clip(attr["points"])}
		}
		if name == "polygon" && len(p) > 0 {
			p = append(p, p[0])
		}
		return []path{p}, nil
	case "rect":
		if p := svgRect(attr); p != nil {
			return []path{p}, nil
		}
	}
	return nil, nil
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
