package planner_test

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// steps of a sweep, and how far the bar may depart from the line through its neighbours.
const (
	sweepSteps = 41
	sweepMost  = 0.003
)

// swept is one figure of a request that is taken through a range: from and to are shares
// of what it is; more tells which way the bar must go (0: either).
type swept struct {
	name     string
	from, to float64
	more     int
	set      func(*plan.Request, float64)
}

func sweeps() []swept {
	scaled := func(l, h, t float64, r *plan.Request) { r.Design = r.Design.Scaled(l, h, t) }
	return []swept{
		{"blade length", .8, 1.2, 1, func(r *plan.Request, k float64) { scaled(k, 1, 1, r) }},
		{"blade height", .85, 1.02, 1, func(r *plan.Request, k float64) { scaled(1, k, 1, r) }},
		{"spine", .85, 1.1, 1, func(r *plan.Request, k float64) { scaled(1, 1, k, r) }},
		{"bar width", 1, 1.3, -1, func(r *plan.Request, k float64) { r.Bar.WidthMm *= k }},
		{"bar thickness", 1, 1.3, -1, func(r *plan.Request, k float64) { r.Bar.ThicknessMm *= k }},
		{"hammer", .6, 1.8, 0, func(r *plan.Request, k float64) { r.Smith = r.Smith.WithHammerKg(r.Smith.HammerKg * k) }},
		{"forge", .95, 1.1, 0, func(r *plan.Request, k float64) { r.Fire.TempC *= k }},
		{"hot length", .6, 1.8, 0, func(r *plan.Request, k float64) { r.Fire.HotLengthMm *= k }},
	}
}

func sweptPieces() map[string]plan.Request {
	of := func(id, steelID string, w, t float64) plan.Request {
		return plan.NewRequest(plantest.Starter(id), steelID, plantest.Flat(w, t, 4000), forge.Steady)
	}
	return map[string]plan.Request{
		"utility": of("utility", "80CrV2", 25, 5.5), "rigging": of("rigging", "1084", 25, 6.5), "camp": of("camp", "5160", 36, 7.5),
		"slicer": of("kitchenSlicer", "1095", 38, 5.5), "boat": of("boat", "9260", 28, 6.5), "hunter": plan.NewRequest(drop(105, 28, 4), "1084", plantest.Flat(25, 6, 4000), forge.Steady),
	}
}

// TestBarsFollowWithoutSteps: as a figure goes up evenly the bar follows without steps, and
// the right way. SWEEP names a folder: then all six pieces are swept, and every sweep is
// drawn there.
func TestBarsFollowWithoutSteps(t *testing.T) {
	folder := os.Getenv("SWEEP")
	for name, base := range sweptPieces() {
		if folder == "" && name != "utility" {
			continue
		}
		for i, s := range sweeps() {
			if folder == "" && i%3 != 0 { // length, width and forge; the others with `make sweep`
				continue
			}
			bars := make([]float64, sweepSteps)
			var wait sync.WaitGroup
			for w := range 2 {
				wait.Go(func() {
					for i := w; i < sweepSteps; i += 2 {
						r := base
						s.set(&r, s.from+(s.to-s.from)*float64(i)/(sweepSteps-1))
						p, err := planner.Make(context.Background(), r)
						if assert.NoError(t, err, "%s, %s", name, s.name) {
							bars[i] = p.Bar.CutLengthMm
						}
					}
				})
			}
			wait.Wait()
			if folder != "" {
				require.NoError(t, drawSweep(filepath.Join(folder, strings.ReplaceAll(name+" "+s.name, " ", "-")+".svg"), name+", "+s.name, bars))
			}
			worst, at := 0.0, 0
			for i := 2; i+2 < sweepSteps; i++ {
				// the least-squares line through two neighbours on either side is their mean at the middle
				mean := (bars[i-2] + bars[i-1] + bars[i+1] + bars[i+2]) / 4
				if off := math.Abs(bars[i]-mean) / bars[i]; off > worst {
					worst, at = off, i
				}
			}
			assert.LessOrEqual(t, worst, sweepMost, "%s, %s: a step at %d of %d: %.2f", name, s.name, at, sweepSteps, bars[max(0, at-2):min(sweepSteps, at+3)])
			for i := 1; i < sweepSteps && s.more != 0; i++ {
				assert.Greater(t, float64(s.more)*(bars[i]-bars[i-1]), 0., "%s, %s goes the wrong way at %d", name, s.name, i)
			}
			t.Logf("%s, %s: %.1f … %.1f mm, off by %.2f %% at the most", name, s.name, bars[0], bars[sweepSteps-1], 100*worst)
		}
	}
}

// drawSweep writes a line of bars over even steps.
func drawSweep(file, title string, bars []float64) error {
	low, high := math.Inf(1), math.Inf(-1)
	for _, v := range bars {
		low, high = math.Min(low, v), math.Max(high, v)
	}
	var line strings.Builder
	for i, v := range bars {
		fmt.Fprintf(&line, "%.1f,%.1f ", 40+float64(i)/float64(len(bars)-1)*540, 270-(v-low)/math.Max(1e-9, high-low)*230)
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o750); err != nil {
		return err
	}
	return os.WriteFile(file, []byte(fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" width="600" height="300" font-family="sans-serif" font-size="12"><rect width="600" height="300" fill="#fff"/><text x="40" y="20">%s: %.2f to %.2f mm of bar</text><polyline fill="none" stroke="#b4431f" points="%s"/></svg>`, title, low, high, line.String())), 0o600)
}
