package route_test

import (
	"context"
	"errors"
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func cable() plan.Request {
	r := plantest.Request()
	r.Bar = stock.Item{Form: stock.Cable, DiameterMm: 25, LengthMm: 200, SolidFraction: .6}
	r.Fire.TempC = 1250
	return r
}

// TestLooseStrandsAreWeldedFirst at a heat of their own, which burns off more and
// is told of.
func TestLooseStrandsAreWeldedFirst(t *testing.T) {
	p := plantest.Make(t, cable())
	weld := p.Operations[0]
	require.Equal(t, "weld", weld.Kind)
	assert.Contains(t, weld.CautionCodes, "caution.flux")
	assert.Equal(t, "need.weldFirst", plantest.StepOf(p, "corners").BecauseCode)
	assert.InDelta(t, 1150, weld.TargetC, 0)
	welding := 0
	for _, h := range p.Heats[:p.Totals.Heats] {
		if h.Parts[0].Operation != "weld" {
			assert.LessOrEqual(t, h.Curve[0].C, p.Totals.SoakC+1)
			continue
		}
		welding++
		assert.Len(t, h.Parts, 1, "nothing else is done at a welding heat")
		assert.InDelta(t, 1150, h.Curve[0].C, 1)
		assert.GreaterOrEqual(t, h.EndC, weld.Hammer().LowC-1e-6)
		assert.Greater(t, h.ScaleMm3, 0.0)
	}
	assert.Positive(t, welding)
	w := plantest.Warning(p, "warn.weldHeat")
	assert.Equal(t, fact.Note, w.Severity)
	assert.Positive(t, w.Figures["workS"])
	assert.Empty(t, plantest.Warning(plantest.Make(t, plantest.Request()), "warn.weldHeat").Code)

	cold := cable()
	cold.Fire.TempC = 1150
	_, err := planner.Make(context.Background(), cold)
	var fe fact.FieldErrors
	require.True(t, errors.As(err, &fe), "%v", err)
	assert.Equal(t, "fire.tempC", fe[0].Field)
	cold.Fire.TempC = fe[0].Figures["needC"]
	plantest.Make(t, cold)

	r := cable()
	r.Choices.Order = []string{"corners", "weld"}
	_, err = planner.Make(context.Background(), r)
	require.True(t, errors.As(err, &fe), "%v", err)
	assert.Equal(t, "need.weldFirst", fe[0].Code)
}
