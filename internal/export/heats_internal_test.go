package export

import (
	"context"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheCardTellsWhatIsNoHammering: cycles go into the air, a hardening into its oil,
// a twist goes by strokes, and a machine is named where it does the work.
func TestTheCardTellsWhatIsNoHammering(t *testing.T) {
	var p *plan.Plan
	for _, s := range blade.Starters() {
		if s.ID != "rigging" {
			continue
		}
		s.Design.SetTang(blade.RodTang)
		s.Design.Tang.TwistTurns = 2
		r := plan.NewRequest(s.Design, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 6, LengthMm: 1000}, forge.Sure)
		r.Choices.Harden, r.Choices.Cycles = plan.HardenForged, plan.SlowAnneal
		r.Smith.Machine = forge.NewMachine(forge.PowerHammer)
		var err error
		p, err = planner.Make(context.Background(), r)
		require.NoError(t, err)
	}
	all := ""
	for _, h := range p.Heats {
		l := lineOf(p, h, quantity.Metric)
		all += strings.Join([]string{l.work, l.face, l.heat, l.blows}, " · ") + "\n"
	}
	assert.Contains(t, all, "then still air to black")
	assert.Contains(t, all, "dying forge")
	assert.Contains(t, all, "820 °C, cherry, hold 8 min; then into medium to fast oil, 50 °C to 60 °C")
	assert.Contains(t, all, "strokes in")
	assert.Contains(t, all, "Power hammer")
	assert.NotContains(t, all, "first glow", "nobody works that cold")
}
