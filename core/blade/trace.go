package blade

import (
	"math"
	"slices"
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
	lo, hi, err := spanOf(points)
	if err != nil {
		return Outline{}, err
	}
	scaled := make([]Node, len(points))
	for i, p := range points {
		k := lengthMm / (hi[0] - lo[0])
		scaled[i] = Node{(p[0] - lo[0]) * k, p[1] * k}
	}
	heel, _, _ := sides(scaled, lengthMm*(1-1e-5))
	return trace(scaled, lengthMm, heel)
}

// TraceTang makes an outline of a full tang of a closed loop that lies behind a blade, in its unit
// of so many mm: along from where the loop begins, up from the blade's spine at its heel. It lies as
// the blade does, and must not cross itself. Errors are *TraceError.
func TraceTang(points []Node, heelY, unitMm float64) (Outline, error) {
	lo, hi, err := spanOf(points)
	if err != nil {
		return Outline{}, err
	}
	scaled := make([]Node, len(points))
	for i, p := range points {
		scaled[i] = Node{(p[0] - lo[0]) * unitMm, (p[1] - heelY) * unitMm}
	}
	return trace(scaled, (hi[0]-lo[0])*unitMm, 0)
}

// spanOf is what a loop spans. Errors are *TraceError: too few or too many points, or hardly any
// length.
func spanOf(points []Node) (lo, hi Node, err error) {
	if len(points) < minTracePoints || len(points) > maxTracePoints {
		return lo, hi, &TraceError{Code: "trace.points"}
	}
	lo, hi = points[0], points[0]
	for _, p := range points {
		if math.IsNaN(p[0]+p[1]) || math.IsInf(p[0]+p[1], 0) {
			return lo, hi, &TraceError{Code: "trace.points"}
		}
		for k := range 2 {
			lo[k], hi[k] = math.Min(lo[k], p[k]), math.Max(hi[k], p[k])
		}
	}
	if long := hi[0] - lo[0]; long <= 0 || hi[1] <= lo[1] || (hi[1]-lo[1])/long > 3 {
		return lo, hi, &TraceError{Code: "trace.flat"}
	}
	return lo, hi, nil
}

// trace finds both sides of a loop in millimetres, counted up from a height.
func trace(scaled []Node, lengthMm, zeroMm float64) (Outline, error) {
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
		up, down = append(up, Node{x, top - zeroMm}), append(down, Node{x, bottom - zeroMm})
	}
	out := Outline{Join: Smooth}
	level := func(c []Node) []Node {
		for i := range c {
			c[i][1] -= zeroMm
		}
		return c
	}
	out.Spine, out.SpineCorners = fewWithCorners(up, level(cornersOf(scaled, lengthMm, true)))
	out.Edge, out.EdgeCorners = fewWithCorners(down, level(cornersOf(scaled, lengthMm, false)))
	return out, nil
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

// thin keeps a first choice of nodes, always the one farthest from the chords of those that
// are kept, so that fewer has a small number to weigh.
func thin(nodes []Node) []Node {
	at := []int{0, len(nodes) - 1}
	for len(at) < maxNodes-8 {
		best, place, most := -1, 0, outlineTol/4
		for k := 1; k < len(at); k++ {
			a, b := nodes[at[k-1]], nodes[at[k]]
			for i := at[k-1] + 1; i < at[k]; i++ {
				f := (nodes[i][0] - a[0]) / (b[0] - a[0])
				if d := math.Abs(nodes[i][1] - a[1] - f*(b[1]-a[1])); d > most {
					best, place, most = i, k, d
				}
			}
		}
		if best < 0 {
			break
		}
		at = slices.Insert(at, place, best)
	}
	out := make([]Node, len(at))
	for k, i := range at {
		out[k] = nodes[i]
	}
	return out
}

// Where a traced curve turns so much within this share of the blade's length, and hardly
// before and behind, it has a corner.
const (
	cornerRad    = 0.16
	cornerWithin = 0.006
	cornerAlone  = 0.6 // share of what it turns within four times as far
	cornerAwayMm = 2.0 // from the ends, which are corners of themselves
)

// cornersOf are the places of the corners of a loop that lie on its upper or its lower side.
func cornersOf(loop []Node, lengthMm float64, upper bool) (out []Node) {
	type step struct {
		at    Node
		turn  float64
		along float64
	}
	var steps []step
	along := 0.0
	n := len(loop)
	for i := range loop {
		a, b, c := loop[(i+n-1)%n], loop[i], loop[(i+1)%n]
		before, after := math.Atan2(b[1]-a[1], b[0]-a[0]), math.Atan2(c[1]-b[1], c[0]-b[0])
		along += math.Hypot(b[0]-a[0], b[1]-a[1])
		steps = append(steps, step{b, math.Remainder(after-before, 2*math.Pi), along})
	}
	within := func(k int, reach float64) (turn float64) {
		for i := k; i >= 0 && steps[k].along-steps[i].along <= reach; i-- {
			turn += steps[i].turn
		}
		for i := k + 1; i < n && steps[i].along-steps[k].along <= reach; i++ {
			turn += steps[i].turn
		}
		return turn
	}
	reach := cornerWithin * lengthMm
	for k, s := range steps {
		if s.at[0] < cornerAwayMm || s.at[0] > lengthMm-cornerAwayMm || math.Abs(s.turn) < cornerRad/3 {
			continue
		}
		top, bottom, _ := sides(loop, s.at[0]+lengthMm*1e-6)
		if onUpper := math.Abs(s.at[1]-top) < math.Abs(s.at[1]-bottom); onUpper != upper {
			continue
		}
		near, far := math.Abs(within(k, reach)), math.Abs(within(k, 4*reach))
		if near < cornerRad || near < cornerAlone*far {
			continue
		}
		if len(out) > 0 && math.Hypot(out[len(out)-1][0]-s.at[0], out[len(out)-1][1]-s.at[1]) < 4*reach {
			continue
		}
		out = append(out, s.at)
	}
	return out
}

// fewWithCorners makes a few nodes of a traced side, run by run between its corners.
func fewWithCorners(side, corners []Node) (nodes []Node, turned []int) {
	slices.SortFunc(corners, func(a, b Node) int { return int(math.Copysign(1, a[0]-b[0])) })
	from := 0
	for _, c := range corners {
		to := sort.Search(len(side), func(i int) bool { return side[i][0] >= c[0]-1e-9 })
		run := append(slices.Clone(nodes[max(0, len(nodes)-1):]), side[from:to]...)
		run = append(run, c)
		if len(nodes) > 0 {
			nodes = nodes[:len(nodes)-1]
		}
		nodes = append(nodes, fewer(thin(run))...)
		turned = append(turned, len(nodes)-1)
		from = sort.Search(len(side), func(i int) bool { return side[i][0] > c[0]+1e-9 })
	}
	run := append(slices.Clone(nodes[max(0, len(nodes)-1):]), side[from:]...)
	if len(nodes) > 0 {
		nodes = nodes[:len(nodes)-1]
	}
	return append(nodes, fewer(thin(run))...), turned
}
