package blade_test

import (
	"math"
	"testing"

	"coldember/core/blade"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestACentreLineKeepsItsLength: however it is bent, a step along it is a step, it
// turns by curvature times length, and its limbs join without a kink.
func TestACentreLineKeepsItsLength(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var limbs []blade.Limb
		long, angle, turns := 0.0, 0.0, 0.0
		for range rapid.IntRange(1, 6).Draw(t, "n") {
			l := blade.Limb{
				LongMm: rapid.Float64Range(1, 60).Draw(t, "long"), PerMm: rapid.Float64Range(-.1, .1).Draw(t, "curve"), Turns: rapid.Float64Range(0, 2).Draw(t, "turns"),
			}
			limbs = append(limbs, l)
			long, angle, turns = long+l.LongMm, angle+l.LongMm*l.PerMm, turns+l.Turns
		}
		c := blade.NewCentreline(limbs)
		if c == nil {
			t.Skip("straight")
		}
		end := c.At(long)
		require.InDelta(t, angle, end.AngleRad, 1e-9)
		require.InDelta(t, turns, end.Turns, 1e-9)
		const step = .01
		for s := 0.0; s < long+20; s += long / 37 {
			a, b := c.At(s), c.At(s+step)
			require.InDelta(t, step, math.Hypot(b.XMm-a.XMm, b.YMm-a.YMm), 1e-6)
			require.InDelta(t, a.AngleRad, b.AngleRad, .1*step+1e-9)
		}
	})
}

func TestABentTangBalancesWhereItLies(t *testing.T) {
	d := starterDesign("utility")
	d.SetTang(blade.RodTang)
	balance := func() float64 {
		body, err := blade.New(d.Blade())
		require.NoError(t, err)
		return body.Assemble(d).BalanceFromPointMm
	}
	straight := balance()
	d.Tang.CurveMm = 6
	bent := balance()
	assert.Less(t, bent, straight, "a bow is shorter than its rod")
	d.Tang.CurveMm, d.Tang.LoopMm = 0, 8
	eye := balance()
	assert.Less(t, eye, bent, "an eye brings its rod forward")
	d.Tang.LoopMm, d.Tang.TwistTurns = 0, 3
	assert.InDelta(t, straight, balance(), .02, "a twist stays where it is")
	assert.Nil(t, (&blade.Tang{LengthMm: 100}).Centreline(blade.HiddenTang))
}
