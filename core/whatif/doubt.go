package whatif

import (
	"context"
	"math"
	"math/rand/v2"
	"sort"
	"sync"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/steel"

	"gonum.org/v1/gonum/stat/distuv"
)

// Doubt is how far the figures that no smith knows exactly may be off, each as the
// standard deviation of its logarithm (judgement, until a log teaches better).
type Doubt struct {
	Energy    float64 `json:"energyLog" doc:"of a blow that lands well"`
	Flow      float64 `json:"flowLog" doc:"of the flow stress"`
	Redundant float64 `json:"redundantLog" doc:"of Q, the work that is lost to friction and to and fro"`
	Scale     float64 `json:"scaleLog" doc:"of the depth of scale"`
	Spread    float64 `json:"spreadLog" doc:"of the share that goes into width"`
	FireC     float64 `json:"fireC" doc:"of the forge's temperature, °C"`
	Pace      float64 `json:"paceLog" doc:"of blows a second, carrying and brushing"`
	Hand      float64 `json:"hand" doc:"how many blows the share that lands well is known from"`
	// Degrees of Student's t with which energy, scale and spread are drawn; 0 is normal.
	EnergyDegrees float64 `json:"energyDegrees,omitempty"`
	ScaleDegrees  float64 `json:"scaleDegrees,omitempty"`
	SpreadDegrees float64 `json:"spreadDegrees,omitempty"`
}

// priorDegrees of what was learned: of its variance before any piece.
const priorDegrees = 3

// Taught is the doubt that is left by what was learned: its spread stands in place of the table's.
// What a blow does was learned whole, with flow stress, Q and the share that lands well in it.
func (d Doubt) Taught(l *plan.Learned) Doubt {
	if l == nil {
		return d
	}
	if t := l.Blow; t != nil {
		d.Energy, d.Flow, d.Redundant, d.Hand, d.EnergyDegrees = t.ScaleLog, 0, 0, 0, priorDegrees+float64(t.N)
	}
	if t := l.Scale; t != nil {
		d.Scale, d.ScaleDegrees = t.ScaleLog, priorDegrees+float64(t.N)
	}
	if t := l.Spread; t != nil {
		d.Spread, d.SpreadDegrees = t.ScaleLog, priorDegrees+float64(t.N)
	}
	return d
}

// UsualDoubt is what the laws are trusted to.
func UsualDoubt() Doubt {
	return Doubt{Energy: .2, Flow: .2, Redundant: .2, Scale: plan.ScaleLog, Spread: .12, FireC: 15, Pace: .12, Hand: 30}
}

// Sample is what one drawn plan came to.
type Sample struct {
	Heats float64 `json:"heats"`
	Blows float64 `json:"blows"`
	TimeS float64 `json:"timeS"`
	FuelG float64 `json:"fuelG"`
	CutMm float64 `json:"cutMm"`
	Money float64 `json:"money"`
}

// Band is the middle four fifths of a figure, and its middle.
type Band struct {
	Low  float64 `json:"low"`
	Mid  float64 `json:"mid"`
	High float64 `json:"high"`
}

// Doubtful is a plan's totals with their bands, over so many whole plans.
type Doubtful struct {
	Samples []Sample `json:"samples"`
	Failed  int      `json:"failed" doc:"draws in which the work cannot be done at all"`
	Heats   Band     `json:"heats"`
	Blows   Band     `json:"blows"`
	TimeS   Band     `json:"timeS"`
	FuelG   Band     `json:"fuelG"`
	CutMm   Band     `json:"cutMm"`
	Money   Band     `json:"money"`
}

// maxDraws bounds one call.
const maxDraws = 1000

// Doubts draws whole plans around the request, from draw number from on, and
// adds them to what is known already; workers share the draws (0: two). It is
// deterministic for a seed and its numbers. Errors are fact.FieldErrors of the
// request itself, or the context's.
func Doubts(ctx context.Context, req plan.Request, d Doubt, known []Sample, from, draws int, seed uint64, workers int) (*Doubtful, error) {
	if err := req.Validate(); err != nil {
		return nil, err
	}
	if draws < 1 || draws > maxDraws || from < 0 || len(known) > 10*maxDraws {
		return nil, fact.FieldErrors{{Field: "draws", Code: "field.range", Figures: fact.Figures{"lowest": 1, "highest": maxDraws}}}
	}
	if workers <= 0 {
		workers = 2
	}
	got := make([]*Sample, draws)
	errs := make([]error, workers)
	var wait sync.WaitGroup
	for w := range workers {
		wait.Go(func() {
			for i := w; i < draws; i += workers {
				if got[i], errs[w] = drawn(ctx, req, d, seed, uint64(from+i)); errs[w] != nil {
					return
				}
			}
		})
	}
	wait.Wait()
	for _, err := range errs {
		if err != nil {
			return nil, err
		}
	}
	out := &Doubtful{Samples: append([]Sample{}, known...)}
	for _, s := range got {
		if s == nil {
			out.Failed++
			continue
		}
		out.Samples = append(out.Samples, *s)
	}
	out.bands()
	return out, nil
}

// drawn plans one draw; nil where it cannot be planned.
func drawn(ctx context.Context, req plan.Request, d Doubt, seed, number uint64) (*Sample, error) {
	req, err := d.Taught(req.Used()).Draw(req, evenly(seed, number))
	if err != nil {
		return nil, err
	}
	p, err := tryPlan(ctx, req)
	if p == nil || err != nil {
		return nil, err
	}
	return &Sample{Heats: float64(p.Totals.Heats), Blows: float64(p.Totals.Blows), TimeS: p.Totals.TimeS, FuelG: p.Totals.FuelG, CutMm: p.Bar.CutLengthMm, Money: p.Totals.Money.Total}, nil
}

// leastLands is as few good blows as a hand may have.
const leastLands = 0.1

// Draw is a request whose figures are off as they may be, each by its next number of even; a quicker hand
// strikes faster, and carries and brushes in less time. The error is that of a steel that there is not.
func (d Doubt) Draw(req plan.Request, even func() float64) (plan.Request, error) {
	off := func(log float64) float64 { return math.Exp(log * distuv.UnitNormal.Quantile(even())) }
	student := func(log, degrees float64) float64 {
		if degrees == 0 {
			return off(log)
		}
		return math.Exp(log * distuv.StudentsT{Sigma: 1, Nu: degrees}.Quantile(even()))
	}
	grade, err := steel.Find(req.SteelID)
	if err != nil {
		return req, err
	}
	if req.Steel != nil {
		grade = *req.Steel
	}
	// energy, stress and Q only ever meet as stress × Q over energy
	grade.FlowFactor *= off(math.Hypot(d.Flow, d.Redundant)) / student(d.Energy, d.EnergyDegrees)
	req.Steel = &grade
	if m := req.Smith.LandShare; m < 1 && d.Hand > 0 {
		req.Smith.LandShare = math.Max(leastLands, distuv.Beta{Alpha: m * d.Hand, Beta: (1 - m) * d.Hand}.Quantile(even()))
	}
	req.Fire.ScaleFactor = student(d.Scale, d.ScaleDegrees)
	req.Smith.SpreadFactor = student(d.Spread, d.SpreadDegrees)
	req.Fire.TempC += d.FireC * distuv.UnitNormal.Quantile(even())
	pace := off(d.Pace)
	req.Smith.RatePerS = math.Min(5, math.Max(.2, req.Smith.RatePerS*pace))
	req.Fire.CarryS, req.Fire.BrushS = req.Fire.CarryS/pace, req.Fire.BrushS/pace
	return req, nil
}

// doubtful is how many numbers a draw takes.
const doubtful = 7

// evenly are the numbers of one draw of a row, each between 0 and 1: a draw lies as far as can be from those
// before it (an additive recurrence on the root of xᵈ⁺¹ = x + 1, so that few draws fill all that may be), shifted by the seed.
func evenly(seed, number uint64) func() float64 {
	root := 2.0
	for range 40 {
		root = math.Pow(1+root, 1./(doubtful+1))
	}
	rng := rand.New(rand.NewPCG(seed, doubtful))
	step := 1.0
	return func() float64 {
		step /= root
		_, v := math.Modf(rng.Float64() + float64(number)*step)
		return math.Min(1-1e-9, math.Max(1e-9, v))
	}
}

// bands are the middle four fifths of what was drawn.
func (d *Doubtful) bands() {
	for band, of := range map[*Band]func(Sample) float64{
		&d.Heats: func(s Sample) float64 { return s.Heats }, &d.Blows: func(s Sample) float64 { return s.Blows },
		&d.TimeS: func(s Sample) float64 { return s.TimeS }, &d.FuelG: func(s Sample) float64 { return s.FuelG }, &d.CutMm: func(s Sample) float64 { return s.CutMm },
		&d.Money: func(s Sample) float64 { return s.Money },
	} {
		v := make([]float64, len(d.Samples))
		for i, s := range d.Samples {
			v[i] = of(s)
		}
		if len(v) == 0 {
			continue
		}
		sort.Float64s(v)
		*band = Band{quantile(v, .1), quantile(v, .5), quantile(v, .9)}
		if band == &d.Heats {
			*band = whole(v)
		}
	}
}
