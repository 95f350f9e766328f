package whatif

import (
	"context"
	"math"
	"math/rand/v2"
	"sort"

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

// BeWithin tells between what the totals of a plan lie: each source of doubt is put to its lower and its upper
// tenth by itself, and what they make longer or shorter is drawn together over and over, as logarithms that
// add up, for the sources are independent. Doubts is what it is held against.
// Errors are fact.FieldErrors of the request itself, or the context's; a source that makes the
// work impossible on one side is taken to weigh as much as on the other.
func BeWithin(ctx context.Context, req plan.Request, d Doubt) (*Within, error) {
	mid, err := planner.Make(ctx, req)
	if err != nil {
		return nil, err
	}
	grade, d := mid.Steel, d.Taught(req.Used())
	was := figuresOf(mid)
	var effects []effect
	for _, shift := range d.sources() {
		var e effect
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
				for k, v := range figuresOf(p) {
					if v > 0 && was[k] > 0 {
						e[i][k] = math.Log(v / was[k])
					}
				}
			}
		}
		for k := range was {
			switch {
			case !done[0]:
				e[0][k] = -e[1][k]
			case !done[1]:
				e[1][k] = -e[0][k]
			}
		}
		effects = append(effects, e)
	}
	drawn := drawTogether(was, effects)
	band := func(k int) Band { return Band{Low: quantile(drawn[k], .1), Mid: was[k], High: quantile(drawn[k], .9)} }
	heats := whole(drawn[0])
	heats.Mid = float64(mid.Totals.Heats)
	heats.Low, heats.High = math.Min(heats.Low, heats.Mid), math.Max(heats.High, heats.Mid)
	return &Within{Heats: heats, Blows: band(1), TimeS: band(2), FuelG: band(3), CutMm: band(4)}, nil
}

// figures of a plan that a band stands beside: heats in parts, blows, seconds, fuel in grams and the length to cut in mm.
type figures [5]float64

func figuresOf(p *plan.Plan) figures {
	return figures{p.Totals.FractionalHeats, float64(p.Totals.Blows), p.Totals.TimeS, p.Totals.FuelG, p.Bar.CutLengthMm}
}

// effect is by what a source moves the logarithm of each figure, at its lower and its upper tenth.
type effect [2]figures

// togetherDraws are so many that the tenths are steady to a hundredth.
const togetherDraws = 4000

// drawTogether draws the sources, each of its own, and lists what each figure comes to, sorted.
func drawTogether(was figures, effects []effect) [len(figures{})][]float64 {
	rng := rand.New(rand.NewPCG(1, 0x7e7))
	columns := make([][]float64, len(effects))
	for i := range columns {
		columns[i] = stratified(rng, togetherDraws)
	}
	var out [len(figures{})][]float64
	for k := range out {
		out[k] = make([]float64, togetherDraws)
		for n := range out[k] {
			log := 0.0
			for i, e := range effects {
				z := columns[i][n] / tenth(1, 0)
				if z < 0 {
					log -= z * e[0][k]
				} else {
					log += z * e[1][k]
				}
			}
			out[k][n] = was[k] * math.Exp(log)
		}
		sort.Float64s(out[k])
	}
	return out
}

// whole is the band of whole numbers that comes nearest to holding four fifths of a sorted list, as many
// beyond it on either side as can be.
func whole(sorted []float64) Band {
	n := float64(len(sorted))
	upTo := func(v float64) float64 { return float64(sort.SearchFloat64s(sorted, v+.5)) / n } // share that is v at the most
	mid := math.Round(quantile(sorted, .5))
	best, out := math.Inf(1), Band{mid, mid, mid}
	for low := math.Round(sorted[0]); low <= mid; low++ {
		under := upTo(low - 1)
		for high := mid; high <= math.Round(sorted[len(sorted)-1]); high++ {
			over := 1 - upTo(high)
			if off := math.Abs(under+over-.2) + math.Abs(under-over)/4; off < best {
				best, out.Low, out.High = off, low, high
			}
		}
	}
	return out
}
