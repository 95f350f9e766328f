package route_test

import (
	"context"
	"errors"
	"math"
	"testing"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestTheSmithsOrderIsTaken(t *testing.T) {
	r := plantest.Request()
	r.Choices.Order = []string{"corners", "setDown", "tang", "ricasso", "point"}
	p := plantest.Make(t, r)
	assert.Equal(t, []string{"corners", "setDown", "tang", "ricasso", "point", "profile", "preCurve", "bevel", "correct", "planish", "cutOff"}, plantest.IDs(p))
	assert.InEpsilon(t, plantest.Make(t, plantest.Request()).Bar.CutLengthMm, p.Bar.CutLengthMm, .03, "the same blade")
	r.Choices.Order = []string{"loop", "corners"}
	assert.Equal(t, plantest.IDs(plantest.Make(t, plantest.Request())), plantest.IDs(plantest.Make(t, r)), "what is not in the plan is passed over")
}

func TestAnOrderThatBreaksANeedSaysWhich(t *testing.T) {
	r := plantest.Request()
	r.Choices.Order = []string{"corners", "bevel", "point", "profile"}
	_, err := planner.Make(context.Background(), r)
	var fe fact.FieldErrors
	require.True(t, errors.As(err, &fe))
	codes := map[string]bool{}
	for _, e := range fe {
		assert.Equal(t, "choices.order", e.Field)
		codes[e.Code] = true
	}
	assert.True(t, codes["need.preformBeforeBevel"])
	assert.False(t, codes["need.cornersBeforePoint"], "that one holds")
	r.Choices.Forced = true
	p := plantest.Make(t, r)
	w := plantest.Warning(p, "warn.order.preformBeforeBevel")
	assert.Equal(t, "bevel", w.Where.Operation)
	assert.Equal(t, &fact.Remedy{Field: "choices.order", Text: "planner"}, w.Remedy)
}

// TestAnyForcedOrderForgesTheSameBlade: the last heat leaves the forged shape,
// and no volume goes but as scale.
func TestAnyForcedOrderForgesTheSameBlade(t *testing.T) {
	base := plantest.Make(t, plantest.Request())
	rapid.Check(t, func(t *rapid.T) {
		r := plantest.Request()
		r.CellCount = 14
		r.Choices.Order, r.Choices.Forced = rapid.Permutation(plantest.IDs(base)).Draw(t, "order"), true
		p, err := planner.Make(context.Background(), r)
		if err != nil {
			t.Fatal(err)
		}
		if got := plantest.IDs(p); len(got) != len(r.Choices.Order) || got[0] != r.Choices.Order[0] || got[len(got)-1] != r.Choices.Order[len(got)-1] {
			t.Fatalf("%v planned as %v", r.Choices.Order, got)
		}
		start := p.Bar.StartMm3 - (r.Sizing.TrimMm+r.Sizing.KerfMm)*p.Bar.AreaMm2
		if math.Abs(start*(1-p.Bar.LossFraction)/p.Forged.VolumeMm3-1) > 1e-3 {
			t.Fatalf("%v left of %v", start, p.Forged.VolumeMm3)
		}
		last := p.Heats[p.Totals.Heats-1].Shape
		high := 0.0
		for _, s := range last {
			high = math.Max(high, s.SpineY-s.EdgeY)
		}
		if math.Abs(high-tallest(base)) > .15 {
			t.Fatalf("%v high, not %v", high, tallest(base))
		}
	})
}

func tallest(p *plan.Plan) (h float64) {
	for _, s := range p.Heats[p.Totals.Heats-1].Shape {
		h = math.Max(h, s.SpineY-s.EdgeY)
	}
	return h
}
