// Package drawing reads outlines from drawings in open formats: SVG and DXF.
// Everything that is read is bounded.
package drawing

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"coldember/core/blade"
)

// Bounds of what is read.
const (
	MaxBytes   = 8 << 20
	maxPoints  = 150000
	maxRuns    = 4000 // open runs to be joined end to end
	joinWithin = 1e-3 // share of the drawing's size within which ends meet
)

// Error says why a drawing cannot be read, by a code of the catalogue.
type Error struct {
	Code   string
	Line   int    // of the file, where known
	Detail string // what stands there
}

func (e *Error) Error() string {
	return fmt.Sprintf("drawing: %s at line %d: %s", e.Code, e.Line, e.Detail)
}

// Drawing is what was read: closed loops, the largest first, and what one unit
// of the file measures (0: the file does not say).
type Drawing struct {
	Loops  [][]blade.Node
	UnitMm float64
	// Finished is the one that the drawing names so, as ours do; nil where none is named.
	Finished []blade.Node
}

// A drawing of our own names its layers: the finished outline is what is taken of it, and not what
// is forged for it, nor the template of a bend.
const finishedLayer = "finished"

// apart tells of layers, by their names, that stand beside the finished outline of a drawing.
func apart(layer string) bool {
	name, _, _ := strings.Cut(strings.ToLower(layer), "-")
	return name == "forged" || name == "bent"
}

// butFinished tells of all layers but the finished outline.
func butFinished(layer string) bool { return !strings.EqualFold(layer, finishedLayer) }

// path is a run of points that may be open.
type path []blade.Node

// closeLoops joins open runs end to end, drops what stays open, and sorts by size.
func closeLoops(paths []path) ([][]blade.Node, error) {
	n := 0
	lo, hi := math.Inf(1), math.Inf(-1)
	var open []path
	for _, p := range paths {
		n += len(p)
		for _, q := range p {
			lo, hi = min(lo, q[0], q[1]), max(hi, q[0], q[1])
		}
		if len(p) > 0 {
			open = append(open, p)
		}
	}
	if n > maxPoints || len(paths) > maxRuns {
		return nil, &Error{Code: "drawing.tooMany"}
	}
	near := (hi - lo) * joinWithin
	meet := func(a, b blade.Node) bool { return math.Hypot(a[0]-b[0], a[1]-b[1]) <= near }
	var loops [][]blade.Node
	for len(open) > 0 {
		run := slices.Clone(open[0])
		open = open[1:]
		for len(run) <= 2 || !meet(run[0], run[len(run)-1]) {
			grown, rest, ok := grow(run, open, meet)
			if !ok {
				break
			}
			run, open = grown, rest
		}
		if len(run) > 3 && meet(run[0], run[len(run)-1]) {
			loops = append(loops, run[:len(run)-1])
		}
	}
	if len(loops) == 0 {
		return nil, &Error{Code: "drawing.noLoop"}
	}
	slices.SortStableFunc(loops, func(a, b []blade.Node) int { return cmp.Compare(area(b), area(a)) })
	return loops, nil
}

// grow adds the first open run that goes on from the end of this one, either way round,
// and takes it out of those that are open; ok is false where none does.
func grow(run path, open []path, meet func(a, b blade.Node) bool) (grown path, rest []path, ok bool) {
	end := run[len(run)-1]
	for i, p := range open {
		switch {
		case meet(end, p[0]):
			run = append(run, p[1:]...)
		case meet(end, p[len(p)-1]):
			for k := len(p) - 2; k >= 0; k-- {
				run = append(run, p[k])
			}
		default:
			continue
		}
		return run, slices.Delete(open, i, i+1), true
	}
	return run, open, false
}

// area that a loop encloses.
func area(p []blade.Node) float64 {
	a := 0.0
	for i := range p {
		q := p[(i+1)%len(p)]
		a += p[i][0]*q[1] - q[0]*p[i][1]
	}
	return math.Abs(a / 2)
}
