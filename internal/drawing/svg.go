package drawing

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"strconv"
	"strings"

	"coldember/core/blade"

	"github.com/tdewolff/canvas"
)

// maxElements bounds an SVG.
const maxElements = 20000

// ReadSVG reads the paths and polygons of an SVG. Its y runs down and is turned
// over. Groups with a transform are refused by name: flatten them first.
func ReadSVG(data []byte) (Drawing, error) {
	if len(data) > MaxBytes {
		return Drawing{}, &Error{Code: "drawing.tooLarge"}
	}
	dec := xml.NewDecoder(bytes.NewReader(data))
	dec.Strict = true
	var paths []path
	unit, elements := 0.0, 0
	for {
		tok, err := dec.Token()
		line, _ := dec.InputPos()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Drawing{}, &Error{Code: "drawing.notSvg", Line: line, Detail: clip(err.Error())}
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
		if attr["transform"] != "" {
			return Drawing{}, &Error{Code: "drawing.transform", Line: line, Detail: clip(attr["transform"])}
		}
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
