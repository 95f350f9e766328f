package planner_test

import (
	"testing"

	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/planner"

	"github.com/stretchr/testify/assert"
)

// TestTheSolidIsAsHeavyAsThePlan: of three dozen pieces, twisted, wrapped, looped, curved and hollow ones among them, what is
// shown in the round after every heat holds, to a hundredth, the steel that the plan says is left then; and no edge
// has more than two faces.
func TestTheSolidIsAsHeavyAsThePlan(t *testing.T) {
	names, requests := goldenRequests()
	seen := 0
	for i, r := range requests {
		p, err := planner.Make(t.Context(), r)
		if err != nil || p.Totals.Heats == 0 {
			continue
		}
		trim, kerf := r.EndsMm()
		left := p.Bar.StartMm3 - (trim+kerf)*p.Bar.AreaMm2
		known := r.Bit == nil && p.Bar.RodMm3 == 0 && r.Sizing.LossMode != plan.ThumbLoss // else more steel, or another loss, is in it
		for k := range p.Totals.Heats {
			h := &p.Heats[k]
			left -= h.ScaleMm3
			m, tempC := figure.Solid(h.Shape)
			assert.Len(t, tempC, len(m.Vertices))
			switch {
			case known:
				assert.InEpsilon(t, left, m.VolumeMm3(), .01, "%s, heat %d", names[i], k+1)
				seen++
			case k == p.Totals.Heats-1:
				assert.InEpsilon(t, p.Forged.VolumeMm3, m.VolumeMm3(), .02, names[i])
			}
			faces := map[[2]int]int{}
			for _, f := range m.Triangles {
				for e := range 3 {
					a, b := f[e], f[(e+1)%3]
					faces[[2]int{min(a, b), max(a, b)}]++
				}
			}
			for e, n := range faces {
				if n != 2 {
					t.Fatalf("%s, heat %d: edge %v has %d faces", names[i], k+1, e, n)
				}
			}
		}
	}
	assert.Greater(t, seen, 300)
}
