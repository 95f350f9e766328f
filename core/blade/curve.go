package blade

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/interp"
)

// fit makes a curve through nodes. Errors are *Error, naming where the nodes
// are out of order.
func fit(nodes []Node, join Join, corners []int, name string) (interp.Predictor, error) {
	if len(nodes) < 2 {
		return nil, &Error{Code: "blade.fewNodes", Field: name}
	}
	for i, n := range nodes {
		if math.IsNaN(n[0]+n[1]) || math.IsInf(n[0]+n[1], 0) || (i > 0 && n[0] <= nodes[i-1][0]) {
			return nil, &Error{Code: "blade.nodesOrder", Field: name, AtMm: n[0]}
		}
	}
	if join != Smooth {
		return fitRun(nodes, Straight, name)
	}
	var c pieces
	from := 0
	for i := 1; i < len(nodes); i++ {
		if i < len(nodes)-1 && !slices.Contains(corners, i) {
			continue
		}
		p, err := fitRun(nodes[from:i+1], Smooth, name)
		if err != nil {
			return nil, err
		}
		c.ends, c.curves = append(c.ends, nodes[i][0]), append(c.curves, p)
		from = i
	}
	if len(c.curves) == 1 {
		return c.curves[0], nil
	}
	return c, nil
}

func fitRun(nodes []Node, join Join, name string) (interp.Predictor, error) {
	x, y := make([]float64, len(nodes)), make([]float64, len(nodes))
	for i, n := range nodes {
		x[i], y[i] = n[0], n[1]
	}
	if join == Smooth && len(nodes) > 2 {
		var f interp.FritschButland
		if err := f.Fit(x, y); err != nil {
			return nil, fmt.Errorf("blade: %s: %w", name, err)
		}
		return &f, nil
	}
	var f interp.PiecewiseLinear
	if err := f.Fit(x, y); err != nil {
		return nil, fmt.Errorf("blade: %s: %w", name, err)
	}
	return &f, nil
}

// choil is an edge with a half-round stop in it.
type choil struct {
	edge   interp.Predictor
	at, mm float64
}

// Predict is y at x.
func (c choil) Predict(x float64) float64 {
	y := c.edge.Predict(x)
	if off := x - c.at; math.Abs(off) < c.mm {
		y += math.Sqrt(c.mm*c.mm - off*off)
	}
	return y
}

// breaks are close where the arc is steep.
func (c choil) breaks() (out []float64) {
	const n = 24
	for i := range n + 1 {
		out = append(out, c.at-c.mm*math.Cos(math.Pi*float64(i)/n))
	}
	return out
}

// pieces is a curve with corners: smooth runs that end at ends.
type pieces struct {
	ends   []float64
	curves []interp.Predictor
}

// Predict is y at x.
func (p pieces) Predict(x float64) float64 {
	for i, e := range p.ends {
		if x <= e {
			return p.curves[i].Predict(x)
		}
	}
	return p.curves[len(p.curves)-1].Predict(x)
}
