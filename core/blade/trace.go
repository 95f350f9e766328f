package blade

import (
	"math"
	"sort"
)

// TraceError says why no outline can be made of a drawing.
type TraceError struct {
	Code string
	AtMm float64
}

func (e *TraceError) Error() string { return "blade: " + e.Code }

// Limits of a traced loop.
const (
	minTracePoints = 4
	maxTracePoints = 200000
	traceSteps     = 240
)

// TraceLoop makes an outline of a closed loop of points, in any unit, with the
// point of the blade at its lowest x and the edge toward low y: it is scaled so
// that point to heel is lengthMm, and both curves are found as the upper and the
// lower side of the loop. The loop must be that of the blade proper, without its
// tang, and must not cross itself. Errors are *TraceError.
func TraceLoop(points []Node, lengthMm float64) (Outline, error) {
	if len(points) < minTracePoints || len(points) > maxTracePoints {
		return Outline{}, &TraceError{Code: "trace.points"}
	}
	lo, hi := points[0], points[0]
	for _, p := range points {
		if math.IsNaN(p[0]+p[1]) || math.IsInf(p[0]+p[1], 0) {
			return Outline{}, &TraceError{Code: "trace.points"}
		}
		for k := range 2 {
			lo[k], hi[k] = math.Min(lo[k], p[k]), math.Max(hi[k], p[k])
		}
	}
	long := hi[0] - lo[0]
	if long <= 0 || hi[1] <= lo[1] || (hi[1]-lo[1])/long > 3 {
		return Outline{}, &TraceError{Code: "trace.flat"}
	}
	k := lengthMm / long
	scaled := make([]Node, len(points))
	for i, p := range points {
		scaled[i] = Node{(p[0] - lo[0]) * k, p[1] * k}
	}
	switch at, found, more := crossing(scaled); {
	case more:
		return Outline{}, &TraceError{Code: "trace.points"}
	case found:
		return Outline{}, &TraceError{Code: "trace.crosses", AtMm: at[0]}
	}
	var up, down []Node
	for i := range traceSteps + 1 {
		u := float64(i) / traceSteps
		x := lengthMm * u * u * (3 - 2*u)
		if i == traceSteps {
			x = lengthMm
		}
		top, bottom, crossings := sides(scaled, math.Min(math.Max(x, lengthMm*1e-5), lengthMm*(1-1e-5)))
		if crossings == 0 {
			return Outline{}, &TraceError{Code: "trace.open", AtMm: x}
		}
		up, down = append(up, Node{x, top}), append(down, Node{x, bottom})
	}
	heel := up[len(up)-1][1]
	for i := range up {
		up[i][1] -= heel
		down[i][1] -= heel
	}
	return Outline{Join: Smooth, Spine: fewer(thin(up)), Edge: fewer(thin(down))}, nil
}

// sides is the highest and the lowest y of the loop at x.
func sides(loop []Node, x float64) (top, bottom float64, crossings int) {
	top, bottom = math.Inf(-1), math.Inf(1)
	for i := range loop {
		a, b := loop[i], loop[(i+1)%len(loop)]
		if (a[0] <= x) == (b[0] <= x) {
			continue
		}
		y := a[1] + (b[1]-a[1])*(x-a[0])/(b[0]-a[0])
		top, bottom = math.Max(top, y), math.Min(bottom, y)
		crossings++
	}
	return top, bottom, crossings
}

// thin keeps a first choice of nodes, the farthest from the chords, so that
// fewer has a small number to weigh.
func thin(nodes []Node) []Node {
	keep := map[int]bool{0: true, len(nodes) - 1: true}
	var split func(a, b int)
	split = func(a, b int) {
		best, most := -1, outlineTol/4
		for i := a + 1; i < b; i++ {
			f := (nodes[i][0] - nodes[a][0]) / (nodes[b][0] - nodes[a][0])
			if d := math.Abs(nodes[i][1] - nodes[a][1] - f*(nodes[b][1]-nodes[a][1])); d > most {
				best, most = i, d
			}
		}
		if best >= 0 && len(keep) < maxNodes-8 {
			keep[best] = true
			split(a, best)
			split(best, b)
		}
	}
	split(0, len(nodes)-1)
	at := make([]int, 0, len(keep))
	for i := range keep {
		at = append(at, i)
	}
	sort.Ints(at)
	out := make([]Node, len(at))
	for k, i := range at {
		out[k] = nodes[i]
	}
	return out
}
