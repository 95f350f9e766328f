package route_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatIsSawnOutIsForgedLess: no shoulder, no point to draw to width; the outline that is
// sawn has the steel that the plan begins with, every gram of it accounted for.
func TestWhatIsSawnOutIsForgedLess(t *testing.T) {
	for _, id := range []string{"utility", "skinner", "sickle", "chopper"} {
		r := of(id, plantest.Flat(160, math.Ceil(plantest.Starter(id).SpineMm)+2, 600))
		drawn := r
		drawn.Bar.WidthMm = math.Ceil(r.Design.HeightMm)
		bar := plantest.Make(t, drawn)
		r.Choices.Start = plan.FromSheet
		p := plantest.Make(t, r)
		ids := plantest.IDs(p)
		assert.NotContains(t, ids, "setDown", id)
		assert.NotContains(t, ids, "widenTang", id)
		assert.NotContains(t, ids, "lineCurve", id)
		assert.NotContains(t, ids, "cutOff", id)
		assert.Contains(t, ids, "bevel", id)
		assert.LessOrEqual(t, p.Totals.Heats, bar.Totals.Heats, id)
		assert.Less(t, p.Totals.TimeS, bar.Totals.TimeS, id)

		area := 0.0
		for i, a := range p.Bar.Blank {
			b := p.Bar.Blank[(i+1)%len(p.Bar.Blank)]
			area += (a[0]*b[1] - b[0]*a[1]) / 2
		}
		assert.InEpsilon(t, p.Bar.StartMm3, math.Abs(area)*p.Bar.ThicknessMm, .015, "%s: as it is drawn, its corners cut by the cells", id)
		sum, start := 0.0, 0.0
		for _, l := range p.Ledger {
			switch l.Code {
			case "ledger.finished", "ledger.grind", "ledger.spare", "ledger.scale":
				sum += l.VolumeMm3
			case "ledger.start":
				start = l.VolumeMm3
			}
		}
		assert.InEpsilon(t, start, sum, 1e-6, "%s: the ledger closes", id)
		assert.InDelta(t, p.Bar.CutLengthMm, p.Bar.Marks[len(p.Bar.Marks)-1].ToMm, 1e-9, id)
		assert.Less(t, p.Bar.CutLengthMm, p.Finished.OverallLengthMm+3, "%s: its taper lengthens it", id)
		assert.NotEmpty(t, p.Prep)
	}
}

// TestOnlyASheetIsSawn: a ball is not, and no bit is welded into an outline.
func TestOnlyASheetIsSawn(t *testing.T) {
	r := of("utility", stock.Usual(stock.Ball))
	r.Choices.Start = plan.FromSheet
	assert.ErrorContains(t, r.Validate(), "start.noSheet")
	r = withBit(plan.CleftBit)
	r.Choices.Start = plan.FromSheet
	assert.ErrorContains(t, r.Validate(), "start.noBit")
	sawn := of("utility", plantest.Flat(160, 6, 600))
	sawn.Choices.Start = plan.FromSheet
	_, err := whatif.BeSure(context.Background(), sawn, plan.UsualTolerances(sawn), 2000, 1)
	assert.ErrorContains(t, err, "start.notSure")
	thin := of("utility", plantest.Flat(160, 3, 600))
	thin.Choices.Start = plan.FromSheet
	p := plantest.Make(t, thin)
	require.NotEmpty(t, plantest.Warning(p, "warn.barThin").Code, "no thicker than the sheet")
}
