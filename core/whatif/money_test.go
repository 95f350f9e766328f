package whatif_test

import (
	"context"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAPieceIsCosted(t *testing.T) {
	r := plantest.Request()
	assert.Zero(t, plantest.Make(t, r).Totals.Money, "nothing is priced")
	r.Prices = plan.Prices{SteelPrice: 6, FuelPrice: 3, HourPrice: 40}
	p := plantest.Make(t, r)
	m := p.Totals.Money
	assert.InEpsilon(t, p.Bar.StartMm3*7.85e-6*6, m.Steel, 1e-9)
	assert.InEpsilon(t, p.Totals.FuelG*.003, m.Fuel, 1e-9)
	assert.InEpsilon(t, (p.Totals.TimeS+p.Totals.CycleTimeS)/90, m.Time, 1e-9)
	assert.InEpsilon(t, m.Steel+m.Fuel+m.Time, m.Total, 1e-12)
	d, err := whatif.Doubts(context.Background(), r, whatif.UsualDoubt(), nil, 0, 24, 1, 2)
	require.NoError(t, err)
	assert.Less(t, d.Money.Low, d.Money.High)
	assert.InEpsilon(t, m.Total, d.Money.Mid, .25)
	r.Prices.FuelPrice = -1
	assert.ErrorContains(t, r.Validate(), "prices.fuelPrice")
}
