package planner_test

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestAnyPlanHolds checks what must be true of every plan.
func TestAnyPlanHolds(t *testing.T) {
	steels := []string{"1075", "80CrV2", "O1", "52100", "unknown-spring", "wrought-iron"}
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.SampledFrom(blade.Starters()).Draw(t, "starter").Design
		if low, high := 60.0, 260.0; d.LengthMm > 300 { // a long one stays long
			d = d.Scaled(rapid.Float64Range(5*low, 4*high).Draw(t, "long")/d.LengthMm, 1, 1)
		} else {
			d.LengthMm = rapid.Float64Range(low, high).Draw(t, "length")
		}
		bar := plantest.Flat(rapid.Float64Range(18, 50).Draw(t, "w"), rapid.Float64Range(4, 12).Draw(t, "t"), 1000)
		r := plan.NewRequest(d, rapid.SampledFrom(steels).Draw(t, "steel"), bar, rapid.SampledFrom(forge.Skills()).Draw(t, "skill"))
		if k := rapid.SampledFrom(append(forge.MachineKinds(), "")).Draw(t, "machine"); k != "" {
			r.Smith.Machine = forge.NewMachine(k)
		}
		r.CellCount = 20
		r.Choices.Method = rapid.SampledFrom([]forge.Method{forge.PinchOut, forge.PushIn}).Draw(t, "method")
		r.Choices.First = rapid.SampledFrom([]plan.First{plan.PointFirst, plan.TangFirst}).Draw(t, "first")
		r.Choices.Corners = rapid.SampledFrom([]plan.Corners{plan.CornersFirst, plan.CornersLeft}).Draw(t, "corners")
		p, err := planner.Make(context.Background(), r)
		var fe fact.FieldErrors
		if errors.As(err, &fe) && fe[0].Code == "plan.barTooSmall" {
			if fe[0].Figures["thicknessMm"] <= bar.ThicknessMm {
				t.Fatalf("%v names no larger bar than %v", fe, bar)
			}
			return
		}
		if errors.As(err, &fe) && fe[0].Code == "forge.stalled" {
			r.Smith.HammerKg = fe[0].Figures["needKg"] * 1.3 // the hammer it names is for a bar without loss
			if _, err = planner.Make(context.Background(), r); err != nil {
				t.Fatalf("a hammer of %v kg would not do either: %v", r.Smith.HammerKg, err)
			}
			return
		}
		if errors.As(err, &fe) && (fe[0].Code == "plan.barTooLarge" || strings.HasPrefix(fe[0].Code, "plan.burnsAway.")) {
			return
		}
		if err != nil {
			t.Fatal(err)
		}
		holds(t, r, p)
	})
}

// holds is what must be true of a plan.
func holds(t *rapid.T, r plan.Request, p *plan.Plan) {
	// what burns off in the heats is what the bar was made longer by
	start, burnt := p.Bar.StartMm3-(r.Sizing.TrimMm+r.Sizing.KerfMm)*p.Bar.AreaMm2, 0.0
	for _, h := range p.Heats[:p.Totals.Heats] {
		burnt += h.ScaleMm3
	}
	if math.Abs(burnt/start-p.Bar.ScaleShare) > .005 || math.Abs(start*(1-p.Bar.LossFraction)/p.Forged.VolumeMm3-1) > 1e-3 {
		t.Fatalf("burnt %v of %v, share %v, forged %v", burnt, start, p.Bar.ScaleShare, p.Forged.VolumeMm3)
	}
	if p.Bar.CutLengthMm <= 0 || p.Totals.Heats < 1 || p.Totals.Blows < 1 {
		t.Fatalf("%+v", p.Totals)
	}
	warms := 30. // a strain of one in one heat, at a flow stress of 150 MPa, with no time to cool
	if r.Smith.Machine != nil {
		warms = 120
	}
	for _, h := range p.Heats {
		// hard strokes warm the steel, a machine's by tens of degrees
		if h.StartC > 1400 || h.EndC > h.StartC+warms || h.FireS <= 0 {
			t.Fatalf("%+v", h)
		}
	}
}

func TestSketchIsTheFinishedBlade(t *testing.T) {
	for _, s := range blade.Starters() {
		st, err := figure.Sketch(s.Design)
		require.NoError(t, err)
		assert.InDelta(t, s.Design.LengthMm+s.Design.Ricasso.LengthMm+s.Design.Tang.LengthMm, st[len(st)-1].XMm, 1e-6, s.ID)
		zones := map[string]bool{}
		for i, p := range st {
			zones[p.Zone] = true
			assert.LessOrEqual(t, p.EdgeY, p.SpineY+1e-9, s.ID)
			if i > 0 {
				assert.GreaterOrEqual(t, p.XMm, st[i-1].XMm-1e-9)
			}
		}
		assert.Len(t, zones, 4)
	}
	bad := plantest.Starter("fillet")
	bad.Grind.WheelRadiusMm = 1
	_, err := figure.Sketch(bad)
	require.Error(t, err)
}

// TestTheSameRequestGivesTheSameBytes whatever was planned before.
func TestTheSameRequestGivesTheSameBytes(t *testing.T) {
	r := plantest.Slicer(plantest.Flat(40, 6, 610))
	first, err := json.Marshal(plantest.Make(t, r))
	require.NoError(t, err)
	plantest.Make(t, plantest.Request())
	again, err := json.Marshal(plantest.Make(t, r))
	require.NoError(t, err)
	assert.Equal(t, string(first), string(again))
}

func TestPlansAreDeterministic(t *testing.T) {
	a, err := json.Marshal(plantest.Make(t, plantest.Request()))
	require.NoError(t, err)
	b, err := json.Marshal(plantest.Make(t, plantest.Request()))
	require.NoError(t, err)
	assert.Equal(t, string(a), string(b))
}

// TestAFinerSimulationSaysTheSame: continuous figures converge within a
// hundredth, heats within one, because the thin point draws on the heat behind
// it however finely it is cut.
func TestAFinerSimulationSaysTheSame(t *testing.T) {
	for name, r := range map[string]plan.Request{"sanity": plantest.Sanity(25, 5), "slicer": plantest.Slicer(plantest.Flat(40, 6, 610)), "utility": plantest.Request()} {
		if name == "utility" {
			r.Bar = plantest.Flat(30, 6, 900)
		}
		at := func(cells int) *plan.Plan {
			r.CellCount = cells
			return plantest.Make(t, r)
		}
		finest := at(400)
		for _, cells := range []int{50, 100, 200} {
			p := at(cells)
			assert.InEpsilon(t, finest.Bar.CutLengthMm, p.Bar.CutLengthMm, .01, "%s, %d cells", name, cells)
			assert.InDelta(t, finest.Totals.FractionalHeats, p.Totals.FractionalHeats, 1, "%s, %d cells", name, cells)
		}
	}
}

// TestEveryHeatHasItsCoolingCurve: it falls from the fire to the last blow.
func TestEveryHeatHasItsCoolingCurve(t *testing.T) {
	p := plantest.Make(t, plantest.Request())
	for _, h := range p.Heats {
		if h.Blows == 0 {
			continue
		}
		require.GreaterOrEqual(t, len(h.Curve), 2, h.Number)
		low := p.Totals.LowC
		for _, part := range h.Parts { // light taps and gentle strokes go on below it, and so does the end of anything
			low = math.Min(low, plantest.StepOf(p, part.Operation).Hammer().LowC)
		}
		low = math.Max(math.Min(low, forge.ColdestC), low-forge.EndUnderC)
		assert.InDelta(t, p.Totals.SoakC, h.Curve[0].C, 1e-9)
		for i := 1; i < len(h.Curve); i++ {
			assert.GreaterOrEqual(t, h.Curve[i].S, h.Curve[i-1].S)
			assert.LessOrEqual(t, h.Curve[i].C, h.Curve[i-1].C)
			assert.GreaterOrEqual(t, h.Curve[i].C, low-1)
		}
		assert.InDelta(t, h.CarryS+h.WorkS, h.Curve[len(h.Curve)-1].S, 1.1, h.Number)
		assert.NotEmpty(t, h.Readings)
		assert.InDelta(t, .25, h.Readings[0].WithinMm, 1e-9)
	}
}
