package plan_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/require"
)

// sanityForged is the reference piece: a 110 mm blade 30 high falling as a root
// over the last 38 mm, spine 4.2 to 2.6, forged edge 2.2, with ricasso and tang.
func sanityForged() *blade.Blade {
	b := blade.Blade{
		Outline: blade.Outline{Join: blade.Straight}, Thickness: []blade.Node{{0, 2.6}, {110, 4.2}},
		Grind:   blade.Grind{Kind: section.Flat, BevelFraction: 1, EdgeMm: 2.2},
		Ricasso: &blade.Ricasso{LengthMm: 18, HeightMm: 24, ThicknessMm: 4.8},
		Tang:    &blade.Tang{LengthMm: 95, HeightAtShoulderMm: 15, HeightAtEndMm: 9, ThicknessAtShoulderMm: 4.5, ThicknessAtEndMm: 3, DropMm: 4},
	}
	b.Outline.Spine = []blade.Node{{0, 0}, {110, 0}}
	for i := range 20 {
		x := 38 * float64(i) / 19
		b.Outline.Edge = append(b.Outline.Edge, blade.Node{x, -30 * math.Sqrt(x/38)})
	}
	b.Outline.Edge = append(b.Outline.Edge, blade.Node{110, -30})
	return &b
}

func sanityRequest(w, t float64) plan.Request {
	r := plan.NewRequest(blade.Design{}, "1084", stock.Piece{Form: stock.Flat, WidthMm: w, ThicknessMm: t, LengthMm: 1000}, forge.Steady)
	r.Forged = sanityForged()
	r.Smith.LandShare = 1
	r.Steel = &steel.Grade{ID: "reference", CarbonPct: .8, ForgeLowC: 850, ForgeHighC: 1100, NormaliseC: 870, FlowFactor: 1}
	r.Sizing.TrimMm, r.Sizing.KerfMm = 0, 0
	return r
}

func TestSanityExplore(t *testing.T) {
	for _, bar := range [][2]float64{{25, 5}, {38, 9.5}} {
		p, err := plan.Make(context.Background(), sanityRequest(bar[0], bar[1]))
		require.NoError(t, err)
		t.Logf("bar %v: V %.0f cut %.1f loss %.4f heats %d (%.1f) blows %d min %.3f cycles %.1f decarb %.2f bend %+v", bar, p.Forged.VolumeMm3, p.Bar.CutLengthMm, p.Bar.ScaleShare, p.Totals.Heats, p.Totals.FractionalHeats, p.Totals.Blows, p.Totals.TimeS/60, p.Totals.CycleTimeS/60, p.Totals.DecarbMm, p.Bend)
		for _, o := range p.Operations {
			t.Logf("  %-10s %-10s heats %.2f blows %.1f time %.0f  %.0f→%.0f passes %d scale %.0f", o.ID, o.Face, o.Heats, o.Blows, o.TimeS, o.StartC, o.EndC, o.Passes, o.ScaleMm3)
		}
		for _, w := range p.Warnings {
			t.Logf("  %+v", w)
		}
	}
}
