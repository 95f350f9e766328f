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

// maxNested bounds how deep elements stand in each other, and in what they use.
const maxNested = 200

// ReadSVG reads the paths, polygons, rectangles, circles and ellipses of an SVG with their
// transforms, and what is used elsewhere again; what only stands in its definitions, or is
// not to be seen, is passed over. Its y runs down and is turned over.
func ReadSVG(data []byte) (Drawing, error) {
	if len(data) > MaxBytes {
		return Drawing{}, &Error{Code: "drawing.tooLarge"}
	}
	root, byID, err := svgTree(data)
	if err != nil {
		return Drawing{}, err
	}
	own := byID[finishedLayer]
	var skip func(string) bool
	if own != nil {
		skip = apart
	}
	loops, err := drawSVG(root, byID, skip)
	out := Drawing{Loops: loops, UnitMm: svgUnit(root.attr["width"], root.attr["viewBox"])}
	if own != nil && err == nil {
		named, err := drawSVG(root, byID, func(id string) bool { return id != "" && butFinished(id) })
		if err == nil {
			out.Finished = named[0]
		}
	}
	return out, err
}

// drawSVG draws what has no id that is to be skipped; nil skips none.
func drawSVG(root *svgNode, byID map[string]*svgNode, skip func(id string) bool) ([][]blade.Node, error) {
	r := svgReader{byID: byID, skip: skip}
	if err := r.draw(root, identity, 0); err != nil {
		return nil, err
	}
	for _, p := range r.paths {
		for i := range p {
			p[i][1] = -p[i][1]
		}
	}
	return closeLoops(r.paths)
}

// svgNode is an element with what stands in it.
type svgNode struct {
	name string
	attr map[string]string
	line int
	kids []*svgNode
}

// svgTree reads the elements, and finds those that have an id.
func svgTree(data []byte) (root *svgNode, byID map[string]*svgNode, err error) {
	dec := xml.NewDecoder(bytes.NewReader(data))
	dec.Strict = true
	byID = map[string]*svgNode{}
	var open []*svgNode
	elements := 0
	for {
		tok, err := dec.Token()
		line, _ := dec.InputPos()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, nil, &Error{Code: "drawing.notSvg", Line: line, Detail: clip(err.Error())}
		}
		switch el := tok.(type) {
		case xml.EndElement:
			open = open[:len(open)-1]
		case xml.StartElement:
			n := &svgNode{name: el.Name.Local, attr: map[string]string{}, line: line}
			for _, a := range el.Attr {
				n.attr[a.Name.Local] = a.Value
			}
			if elements++; elements > maxElements || len(open) > maxNested {
				return nil, nil, &Error{Code: "drawing.tooMany", Line: line}
			}
			if id := n.attr["id"]; id != "" {
				byID[id] = n
			}
			if len(open) > 0 {
				open[len(open)-1].kids = append(open[len(open)-1].kids, n)
			} else if root == nil {
				root = n
			}
			open = append(open, n)
		}
	}
	switch {
	case root == nil:
		return nil, nil, &Error{Code: "drawing.noLoop"}
	case root.name != "svg":
		return nil, nil, &Error{Code: "drawing.notSvg", Line: root.line, Detail: clip(root.name)}
	}
	return root, byID, nil
}

// svgReader is how far an SVG has been drawn.
type svgReader struct {
	byID  map[string]*svgNode
	paths []path
	drawn int
	skip  func(id string) bool
}

// definitions are elements whose contents are not drawn where they stand.
var definitions = []string{"defs", "clipPath", "symbol", "mask", "marker", "pattern"}

// unseen tells whether an element is not to be seen.
func (n *svgNode) unseen() bool {
	style := strings.ReplaceAll(n.attr["style"], " ", "")
	return n.attr["display"] == "none" || n.attr["visibility"] == "hidden" || strings.Contains(style, "display:none") || strings.Contains(style, "visibility:hidden")
}

// draw draws an element and what stands in it.
func (r *svgReader) draw(n *svgNode, m affine, depth int) error {
	if n.unseen() || slices.Contains(definitions, n.name) || r.skip != nil && r.skip(n.attr["id"]) {
		return nil
	}
	return r.contents(n, m, depth)
}

// contents draws an element whether it stands in definitions or not.
func (r *svgReader) contents(n *svgNode, m affine, depth int) error {
	if r.drawn++; r.drawn > maxElements || depth > 2*maxNested {
		return &Error{Code: "drawing.tooMany", Line: n.line}
	}
	by, ok := svgTransform(n.attr["transform"])
	if !ok {
		return &Error{Code: "drawing.transform", Line: n.line, Detail: clip(n.attr["transform"])}
	}
	m = m.then(by)
	if n.name == "use" {
		return r.use(n, m, depth)
	}
	drawn, err := n.shape()
	if err != nil {
		return err
	}
	for _, p := range drawn {
		r.paths = append(r.paths, m.path(p))
	}
	for _, k := range n.kids {
		if err := r.draw(k, m, depth+1); err != nil {
			return err
		}
	}
	return nil
}

// use draws what an element refers to, where it stands itself.
func (r *svgReader) use(n *svgNode, m affine, depth int) error {
	what := r.byID[strings.TrimPrefix(n.attr["href"], "#")]
	if what == nil || what.unseen() {
		return nil
	}
	at, err := svgNumbers(n.attr, "x", "y")
	if err != nil {
		return &Error{Code: "drawing.number", Line: n.line}
	}
	return r.contents(what, m.then(translate(at[0], at[1])), depth+1)
}

// svgNumbers are attributes as numbers; one that is not there is nought.
func svgNumbers(attr map[string]string, names ...string) ([]float64, error) {
	out := make([]float64, len(names))
	for i, name := range names {
		text := strings.TrimSuffix(strings.TrimSpace(attr[name]), "px")
		if text == "" {
			continue
		}
		v, err := strconv.ParseFloat(text, 64)
		if err != nil || math.IsNaN(v) || math.Abs(v) > 1e9 {
			return nil, &Error{Code: "drawing.number", Detail: clip(text)}
		}
		out[i] = v
	}
	return out, nil
}

// svgRound is a circle or an ellipse.
func svgRound(attr map[string]string) ([]path, error) {
	v, err := svgNumbers(attr, "cx", "cy", "r", "rx", "ry")
	if err != nil {
		return nil, err
	}
	rx, ry := max(v[2], v[3]), max(v[2], v[4])
	if rx <= 0 || ry <= 0 {
		return nil, nil
	}
	const n = 96
	var p path
	for i := range n + 1 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		p = append(p, blade.Node{v[0] + rx*c, v[1] + ry*s})
	}
	return []path{p}, nil
}

// shape is what one element draws.
func (n *svgNode) shape() ([]path, error) {
	attr, line := n.attr, n.line
	switch n.name {
	case "circle", "ellipse":
		return svgRound(attr)
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
		if n.name == "polygon" && len(p) > 0 {
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
