package whatif

import (
	"context"
	"math"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/steel"

	"gonum.org/v1/gonum/stat/distuv"
)

// Within is between what a plan's totals lie in four of five cases, told at once: where Doubts
// draws whole plans by the dozen, this makes two for every source of doubt.
type Within struct {
	Heats Band `json:"heats"`
	Blows Band `json:"blows"`
	TimeS Band `json:"timeS"`
	FuelG Band `json:"fuelG"`
	CutMm Band `json:"cutMm"`
}

// source is one thing that is not known exactly; shift puts it to its lower (−1) or upper (1)
// tenth.
type source func(req *plan.Request, grade *steel.Grade, side float64)

// tenth is how far the tenth of a distribution with this spread lies from its middle; with
// degrees it is Student's t.
func tenth(spread, degrees float64) float64 {
	if degrees > 0 {
		return spread * distuv.StudentsT{Sigma: 1, Nu: degrees}.Quantile(.9)
	}
	return spread * distuv.UnitNormal.Quantile(.9)
}

// sources are those of Draw, one by one: blow, steel and friction meet as one.
func (d Doubt) sources() []source {
	strength := math.Hypot(tenth(d.Energy, d.EnergyDegrees), math.Hypot(tenth(d.Flow, 0), tenth(d.Redundant, 0)))
	pace, scale, spread := tenth(d.Pace, 0), tenth(d.Scale, d.ScaleDegrees), tenth(d.Spread, d.SpreadDegrees)
	return []source{
		func(_ *plan.Request, g *steel.Grade, side float64) { g.FlowFactor *= math.Exp(side * strength) },
		func(r *plan.Request, _ *steel.Grade, side float64) { r.Fire.ScaleFactor = math.Exp(side * scale) },
		func(r *plan.Request, _ *steel.Grade, side float64) { r.Smith.SpreadFactor = math.Exp(side * spread) },
		func(r *plan.Request, _ *steel.Grade, side float64) { r.Fire.TempC += side * tenth(d.FireC, 0) },
		func(r *plan.Request, _ *steel.Grade, side float64) {
			r.Smith.RatePerS = math.Min(5, math.Max(.2, r.Smith.RatePerS*math.Exp(side*pace)))
			r.Fire.CarryS, r.Fire.BrushS = r.Fire.CarryS*math.Exp(-side*pace), r.Fire.BrushS*math.Exp(-side*pace)
		},
		func(r *plan.Request, _ *steel.Grade, side float64) {
			if m := r.Smith.LandShare; m < 1 && d.Hand > 0 {
				r.Smith.LandShare = math.Max(leastLands, distuv.Beta{Alpha: m * d.Hand, Beta: (1 - m) * d.Hand}.Quantile(.5+.4*side))
			}
		},
	}
}

// BeWithin tells between what the totals of a plan lie, to first order: each source of doubt is
// put to its lower and its upper tenth by itself, and what they make longer or shorter is added
// as squares of logarithms, for the sources are independent. Doubts is what it is held against.
// Errors are fact.FieldErrors of the request itself, or the context's; a source that makes the
// work impossible on one side is taken to weigh as much as on the other.
func BeWithin(ctx context.Context, req plan.Request, d Doubt) (*Within, error) {
	mid, err := planner.Make(ctx, req)
	if err != nil {
		return nil, err
	}
	grade, d := mid.Steel, d.Taught(req.Used())
	of := func(p *plan.Plan) [5]float64 {
		return [5]float64{p.Totals.FractionalHeats, float64(p.Totals.Blows), p.Totals.TimeS, p.Totals.FuelG, p.Bar.CutLengthMm}
	}
	was := of(mid)
	var up, down [5]float64
	for _, shift := range d.sources() {
		var by [2][5]float64
		var done [2]bool
		for i, side := range []float64{-1, 1} {
			r, g := req, grade
			r.Steel = &g
			shift(&r, &g, side)
			p, err := tryPlan(ctx, r)
			if err != nil {
				return nil, err
			}
			if done[i] = p != nil; done[i] {
				for k, v := range of(p) {
					if v > 0 && was[k] > 0 {
						by[i][k] = math.Log(v / was[k])
					}
				}
			}
		}
		for k := range was {
			low, high := by[0][k], by[1][k]
			switch {
			case !done[0]:
				low = -high
			case !done[1]:
				high = -low
			}
			up[k] += math.Pow(math.Max(0, math.Max(low, high)), 2)
			down[k] += math.Pow(math.Min(0, math.Min(low, high)), 2)
		}
	}
	was[0] = float64(mid.Totals.Heats)
	band := func(k int) Band {
		return Band{Low: was[k] * math.Exp(-math.Sqrt(down[k])), Mid: was[k], High: was[k] * math.Exp(math.Sqrt(up[k]))}
	}
	return &Within{Heats: band(0), Blows: band(1), TimeS: band(2), FuelG: band(3), CutMm: band(4)}, nil
}
