package planner_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
)

// TestWhatIsSawnDoesNotKnowItsSheet: out of any sheet that an outline fits into the same is forged, and the ledger
// closes, out of a strip as out of a disc; where it does not fit, that is a stop.
func TestWhatIsSawnDoesNotKnowItsSheet(t *testing.T) {
	forged := func(d blade.Design, b stock.Item) *plan.Plan {
		r := plan.NewRequest(d, "1084", b, forge.Steady)
		r.Choices.Start = plan.FromSheet
		p := plantest.Make(t, r)
		sum, start := 0.0, 0.0
		for _, l := range p.Ledger {
			switch {
			case l.Code == "ledger.start":
				start = l.VolumeMm3
			case l.Code == "ledger.finished" || !l.Total && l.Code != "ledger.prep":
				sum += l.VolumeMm3
			}
		}
		assert.InEpsilon(t, start, sum, 1e-6)
		return p
	}
	for _, s := range blade.Starters() {
		wide, wider := forged(s.Design, plantest.Flat(110, 6, 1200)), forged(s.Design, plantest.Flat(200, 6, 1200))
		assert.InEpsilon(t, wide.Forged.VolumeMm3, wider.Forged.VolumeMm3, 1e-9, s.ID)
		assert.InEpsilon(t, wide.Bar.StartMm3, wider.Bar.StartMm3, 1e-9, s.ID)
		disc := forged(s.Design, stock.Item{Form: stock.Disc, DiameterMm: 900, ThicknessMm: 6, ShareFraction: 1, StripWidthMm: 120})
		assert.InEpsilon(t, wide.Forged.VolumeMm3, disc.Forged.VolumeMm3, 1e-9, s.ID)
		assert.NotEmpty(t, plantest.Warning(forged(s.Design, plantest.Flat(10, 6, 1200)), "warn.blankWide").Code, s.ID)
	}
}
