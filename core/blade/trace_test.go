package blade_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/blade"

	"pgregory.net/rapid"
)

// TestALoopThatCrossesItselfIsNotTaken against a check of every pair of sides.
func TestALoopThatCrossesItselfIsNotTaken(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(4, 24).Draw(t, "corners")
		loop := make([]blade.Node, n)
		wild := rapid.Bool().Draw(t, "wild")
		for i := range loop {
			u := 2 * math.Pi * float64(i) / float64(n)
			r := rapid.Float64Range(.5, 1).Draw(t, "r") // a star about its middle never crosses itself
			loop[i] = blade.Node{100 * r * math.Cos(u), 60 * r * math.Sin(u)}
			if wild {
				apart := math.Sqrt(float64(i+2)) / 97 // no two corners alike, nor in one line
				loop[i] = blade.Node{rapid.Float64Range(-100, 100).Draw(t, "x") + apart, rapid.Float64Range(-60, 60).Draw(t, "y") + apart*apart}
			}
		}
		turn := func(p, q, r blade.Node) bool {
			return (q[0]-p[0])*(r[1]-p[1]) > (q[1]-p[1])*(r[0]-p[0])
		}
		crosses := false
		for i := range n {
			for j := i + 2; j < n; j++ {
				a, b, c, d := loop[i], loop[i+1], loop[j], loop[(j+1)%n]
				crosses = crosses || (j+1)%n != i && turn(a, b, c) != turn(a, b, d) && turn(c, d, a) != turn(c, d, b)
			}
		}
		_, err := blade.TraceLoop(loop, 100)
		var te *blade.TraceError
		got := errors.As(err, &te) && te.Code == "trace.crosses"
		if te != nil && te.Code == "trace.flat" { // no blade at all
			return
		}
		if got != crosses {
			t.Fatalf("crosses: %v, said: %v of %v", crosses, err, loop)
		}
	})
}
