package heats

import (
	"context"
	"testing"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheLongerBarIsRunTo: from a bar that is too long, as from the longer of two that
// follow each other, the run that is kept is one run that has steel enough, and what is
// over is told.
func TestTheLongerBarIsRunTo(t *testing.T) {
	req := plan.NewRequest(blade.Starters()[0].Design, "1084", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 900}, forge.Steady)
	bar, err := req.Bar.Even()
	require.NoError(t, err)
	body, err := blade.New(figure.ForgedShape(req, req.Design.Blade(), bar))
	require.NoError(t, err)
	r := route.New(&req, bar, body, figure.ZonesOf(body))
	g, err := steel.Find("1084")
	require.NoError(t, err)
	r.Bend, r.Steel = route.BevelSweep(body, req), g
	setup := forge.Setup{Smith: req.Smith, Fire: req.Fire, Steel: g}
	work := forge.NewBudget(context.Background(), WorkBoundACell*len(r.Cells))
	settled, err := Settle(r, work, setup)
	require.NoError(t, err)
	assert.InDelta(t, 0, settled.SpareMm3(r.Cells), 1e-4*body.Measure().VolumeMm3)

	x := found(r, settled, settled.weights)
	for i := range r.Cells {
		x[i] += .02
	}
	out := *settled
	require.NoError(t, runTo(r, work, setup, x, &out))
	assert.Greater(t, out.SpareMm3(r.Cells), .01*body.Measure().VolumeMm3)
	forged, lost, start := 0.0, 0.0, 0.0
	for i := range out.ForgedMm3 {
		forged, start, lost = forged+out.ForgedMm3[i], start+out.StartMm3[i], lost+out.StartMm3[i]-out.ForgedMm3[i]
	}
	assert.InEpsilon(t, out.Run.Bar.VolumeMm3(), forged, 1e-9, "all of one run")
	assert.InEpsilon(t, lost/start, out.LossShare, 1e-9)
	assert.Greater(t, out.MissMm, settled.MissMm, "and it says by how much it misses")
}
