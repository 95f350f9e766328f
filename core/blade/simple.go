package blade

import (
	"math"
	"slices"
)

// maxMeetings bounds how many pairs of sides a loop is looked at for.
const maxMeetings = 20_000_000

// crossing finds where a closed loop crosses or touches itself: the place of the first such
// pair of sides from low x. Sides that only share the corner between them do not count. more
// is true where the loop is so tangled that not all of it was looked at.
func crossing(loop []Node) (at Node, found, more bool) {
	pts := make([]Node, 0, len(loop))
	for _, p := range loop {
		if len(pts) == 0 || p != pts[len(pts)-1] {
			pts = append(pts, p)
		}
	}
	for len(pts) > 1 && pts[0] == pts[len(pts)-1] {
		pts = pts[:len(pts)-1]
	}
	n := len(pts)
	side := func(i int) (a, b Node) { return pts[i], pts[(i+1)%n] }
	low := func(i int) float64 { a, b := side(i); return math.Min(a[0], b[0]) }
	order := make([]int, n)
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(i, j int) int {
		if d := low(i) - low(j); d != 0 {
			return int(math.Copysign(1, d))
		}
		return i - j
	})
	looked := 0
	for k, i := range order {
		a, b := side(i)
		for _, j := range order[k+1:] {
			c, d := side(j)
			if math.Min(c[0], d[0]) > math.Max(a[0], b[0]) {
				break
			}
			if looked++; looked > maxMeetings {
				return Node{}, false, true
			}
			if j == (i+1)%n || i == (j+1)%n {
				continue
			}
			if p, ok := meeting(a, b, c, d); ok {
				return p, true, false
			}
		}
	}
	return Node{}, false, false
}

// meeting is where the sides ab and cd cross, or where an end of one lies on the other.
func meeting(a, b, c, d Node) (Node, bool) {
	if math.Max(a[1], b[1]) < math.Min(c[1], d[1]) || math.Max(c[1], d[1]) < math.Min(a[1], b[1]) {
		return Node{}, false
	}
	turn := func(p, q, r Node) float64 { return (q[0]-p[0])*(r[1]-p[1]) - (q[1]-p[1])*(r[0]-p[0]) }
	tc, td, ta, tb := turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)
	if tc*td > 0 || ta*tb > 0 || tc == 0 && td == 0 { // apart, or along one line
		return Node{}, false
	}
	f := tc / (tc - td)
	return Node{c[0] + f*(d[0]-c[0]), c[1] + f*(d[1]-c[1])}, true
}
