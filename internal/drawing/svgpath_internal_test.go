package drawing

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"coldember/core/blade"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func followed(t require.TestingT, d string) []path {
	p, err := svgPaths(d)
	require.NoError(t, err, d)
	return p
}

func length(p path) (l float64) {
	for i := 1; i < len(p); i++ {
		l += math.Hypot(p[i][0]-p[i-1][0], p[i][1]-p[i-1][1])
	}
	return l
}

// TestArcsAreOnTheirCircle, whichever way round and however they are written.
func TestArcsAreOnTheirCircle(t *testing.T) {
	for d, turn := range map[string]float64{
		"M10 0A10 10 0 0 1 0 10": .25, "M10 0A10 10 0 0110 20": .5, "M10 0a10,10 0 1,1-10,10": .75, "M10 0A10 10 30 1 0 0 10": .25 + .5,
	} {
		run := followed(t, d)[0]
		assert.InEpsilon(t, 20*math.Pi*turn, length(run), 1e-4, d)
	}
	// too small to reach: half a circle of the size that does
	assert.InEpsilon(t, 10*math.Pi, length(followed(t, "M0 0A1 1 0 0 1 20 0")[0]), 1e-4)
	assert.Equal(t, []path{{{0, 0}, {5, 5}}}, followed(t, "M0 0A0 3 0 0 1 5 5"), "an arc of no radius is a line")
}

// TestCurvesKeepToTheirClosedForm.
func TestCurvesKeepToTheirClosedForm(t *testing.T) {
	const c = 0.5522847498 // of a circle by four cubics
	d := fmt.Sprintf("M1 0C1 %g %g 1 0 1S-1 %g -1 0S-%g-1 0-1S1-%g 1 0Z", c, c, c, c, c)
	run := followed(t, d)[0]
	assert.InEpsilon(t, math.Pi, area(run), 5e-4)
	assert.Equal(t, run[0], run[len(run)-1])
	// a parabola by its length
	assert.InEpsilon(t, 2*(math.Sqrt(5)/2+math.Asinh(2)/4), length(followed(t, "M-1 1Q0-1 1 1")[0]), 1e-4)
	smooth := followed(t, "M0 0Q1 1 2 0T4 0")[0]
	assert.InDelta(t, 0, smooth[len(smooth)-1][1], 1e-12)
	assert.Less(t, smooth[len(smooth)*3/4][1], -.4, "it goes on through the other side")
}

func TestPathDataAreReadAsTheyAreWritten(t *testing.T) {
	square := []path{{{1, 1}, {3, 1}, {3, 3}, {1, 3}, {1, 1}}}
	for _, d := range []string{"M1 1H3V3H1Z", "m1,1 2,0 0,2 -2,0z", "M1,1L3 1 3,3 1 3z", "M1 1l2-0,0 2-2,.0z", " M 1 1 h 2 v 2 h -2 z ", "M1e0 1h20e-1v2h-2z", "M1 1h2v2h-2Z"} {
		assert.Equal(t, square, followed(t, d), d)
	}
	assert.Equal(t, []path{{{.5, .5}, {1, -1}}}, followed(t, "M.5.5L1-1"))
	assert.Equal(t, []path{{{0, 0}, {2, 0}}, {{3, 1}, {3, 2}}}, followed(t, "M0 0h2m1 1v1"), "a move is from where it stands")
	assert.Equal(t, []path{{{5, 5}, {6, 5}, {5, 5}}, {{5, 5}, {5, 7}}}, followed(t, "M5 5h1zv2"), "after a close it stands at the start")
	assert.Empty(t, followed(t, ""))
	assert.Empty(t, followed(t, "M3 4"))
	for _, d := range []string{"L1 1", "M1", "M1 1L", "M1 1x", "M1 1h", "5 5", "M1 1z5", "M0 0A1 1 0 2 1 3 3", "M0 0A1 1 0 0 1 3", "M1e400 1L2 2", "M1 1C1 1 1 1 1", "M NaN 1"} {
		_, err := svgPaths(d)
		var e *Error
		require.ErrorAs(t, err, &e, d)
		assert.Equal(t, "drawing.path", e.Code)
	}
}

// TestAnyPathEndsWhereItSays: whatever it is made of, absolute or relative, the last point
// is the one that is written, and it is bounded.
func TestAnyPathEndsWhereItSays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		num := rapid.Float64Range(-500, 500)
		at := blade.Node{num.Draw(t, "x"), num.Draw(t, "y")}
		var d strings.Builder
		fmt.Fprintf(&d, "M%g %g", at[0], at[1])
		for range rapid.IntRange(1, 6).Draw(t, "n") {
			to := blade.Node{num.Draw(t, "x"), num.Draw(t, "y")}
			a, b := num.Draw(t, "a"), num.Draw(t, "b")
			switch rapid.IntRange(0, 4).Draw(t, "what") {
			case 0:
				fmt.Fprintf(&d, "L%g %g", to[0], to[1])
			case 1:
				fmt.Fprintf(&d, "c%g %g %g %g %g %g", a, b, b, a, to[0]-at[0], to[1]-at[1])
			case 2:
				fmt.Fprintf(&d, "Q%g %g %g %g", a, b, to[0], to[1])
			case 3:
				fmt.Fprintf(&d, "A%g %g %g 1 0 %g %g", a, b, a, to[0], to[1])
			default:
				fmt.Fprintf(&d, "S%g %g %g %g", a, b, to[0], to[1])
			}
			at = to
		}
		p, err := svgPaths(d.String())
		require.NoError(t, err)
		last := p[0][len(p[0])-1]
		require.InDelta(t, at[0], last[0], 1e-9)
		require.InDelta(t, at[1], last[1], 1e-9)
		require.LessOrEqual(t, len(p[0]), 7*mostChords)
	})
}
