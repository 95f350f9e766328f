package learn

import (
	"math"

	"coldember/core/fact"
	"coldember/core/plan"

	"gonum.org/v1/gonum/stat/distuv"
)

// Kind is what is learned.
type Kind string

// The kinds. The first four enter the engine where their law is; the others only measure what spread
// is left.
const (
	Blow     Kind = "blow"   // useful energy of a blow, by smith: from blows that were counted
	Scale    Kind = "scale"  // depth of scale in a heat, by forge: from weight before and after
	Spread   Kind = "spread" // share that goes into width, by smith: from height and thickness at one place
	Bend     Kind = "bend"   // rise of the bevels against the law, by smith
	Heats    Kind = "heats"  // heats taken
	Time     Kind = "time"   // from the first heat to the last
	Loss     Kind = "loss"   // of the bar's weight
	Grinding Kind = "grind"  // time at the grinder, by smith: from steps of finishing that were timed
	Sanding  Kind = "sand"   // time sanding by hand
	Fitting  Kind = "fit"    // time fitting handle and guard
)

// Kinds lists them.
func Kinds() []Kind {
	return []Kind{Blow, Scale, Spread, Bend, Heats, Time, Loss, Grinding, Sanding, Fitting}
}

// ByForge tells whether a kind is of the forge, not of the smith.
func (k Kind) ByForge() bool { return k == Scale }

// PriorLog is the spread that a kind is believed to have before any piece, as the standard deviation
// of its logarithm (judgement: as the doubts of the laws).
func (k Kind) PriorLog() float64 {
	switch k {
	case Blow:
		return .35
	case Scale:
		return .7
	case Spread:
		return .12
	case Bend:
		return .5
	case Loss:
		return .25
	case Grinding, Sanding, Fitting:
		return .35 // a table of times is good to a half
	case Heats:
		return .08 // what is left once the arm is known
	case Time:
		return .06 // the same: calibrated on hidden smiths, whose bands hold four in five
	}
	return .2
}

// PriorWeight is how many pieces at the law stand against what is learned.
const PriorWeight = 3.0

// paceWeight is the same of times at the bench (judgement, .5 to 1.5): they are read off a clock, so
// that one knife tells more of a hand than the table does.
const paceWeight = 1.0

// armWeight is that of arm and forge (judgement, .5 to 1.5): smiths differ from the table by three times as much as
// the pieces of one of them differ from each other, so that five of them are to be believed to a fifth.
const armWeight = 1.0

// PriorWeight is how many pieces at the law stand against what is learned of a kind.
func (k Kind) PriorWeight() float64 {
	switch k {
	case Blow, Scale:
		return armWeight
	case Grinding, Sanding, Fitting:
		return paceWeight
	}
	return PriorWeight
}

// Factor is what is learned from ratios of actual to planned.
type Factor struct {
	N        int     `json:"n"`
	Factor   float64 `json:"factor"`
	ScaleLog float64 `json:"scaleLog" doc:"spread of the next one, of its logarithm"`
	Low80    float64 `json:"low80"`
	High80   float64 `json:"high80"`
}

// Fit learns from ratios: log ratios of a normal mean around 0 with the weight of so many pieces, and a
// scaled inverse chi-square variance of 3 degrees around priorSdLog² (conjugate: Gelman et al.,
// Bayesian Data Analysis, 3.3). No ratios give the prior. Errors are fact.FieldErrors.
func Fit(ratios []float64, priorSdLog, priorWeight float64) (Factor, error) {
	c := fact.NewCheck()
	c.Range("priorSdLog", priorSdLog, 1e-6, 5)
	c.Range("priorWeight", priorWeight, 1e-6, 1e6)
	c.Range("ratios", float64(len(ratios)), 0, mostRatios)
	for _, r := range ratios {
		if !(r > 0 && r < 1e9) {
			c.Fail("ratios", "field.range", fact.Figures{"lowest": 0, "highest": 1e9})
			break
		}
	}
	if err := c.Err(); err != nil {
		return Factor{}, err
	}
	n, sum := float64(len(ratios)), 0.0
	for _, r := range ratios {
		sum += math.Log(r)
	}
	mean := 0.0
	if n > 0 {
		mean = sum / n
	}
	square := degrees * priorSdLog * priorSdLog
	for _, r := range ratios {
		d := math.Log(r) - mean
		square += d * d
	}
	square += priorWeight * n / (priorWeight + n) * mean * mean
	nu := degrees + n
	at := sum / (priorWeight + n)
	scale := math.Sqrt(square / nu * (1 + 1/(priorWeight+n)))
	t := quantile(.9, nu) * scale
	return Factor{N: len(ratios), Factor: math.Exp(at), ScaleLog: scale, Low80: math.Exp(at - t), High80: math.Exp(at + t)}, nil
}

// HourFactor is a factor that was measured on purpose, with its doubt: it comes before the table's.
type HourFactor struct {
	Factor float64 `json:"factor"`
	SdLog  float64 `json:"sdLog" doc:"of its logarithm"`
}

// pieceLog is how far the pieces of one hand or one forge differ from each other (judgement: a third of what hands do).
func (k Kind) pieceLog() float64 {
	switch k {
	case Blow:
		return .1
	case Scale:
		return .15
	case Spread:
		return .05
	}
	return k.PriorLog()
}

// From is Learn where the factor was measured before: the prior lies there, with the weight of as many pieces as
// tell it as surely.
func From(ratios []float64, k Kind, m *HourFactor) (Factor, error) {
	if m == nil {
		return Learn(ratios, k)
	}
	over := make([]float64, len(ratios))
	for i, r := range ratios {
		over[i] = r / m.Factor
	}
	piece := k.pieceLog()
	f, err := Fit(over, piece, math.Max(1e-3, piece*piece/(m.SdLog*m.SdLog)))
	f.Factor, f.Low80, f.High80 = f.Factor*m.Factor, f.Low80*m.Factor, f.High80*m.Factor
	return f, err
}

// Learn is Fit with what a kind is believed to be before any piece.
func Learn(ratios []float64, k Kind) (Factor, error) {
	return Fit(ratios, k.PriorLog(), k.PriorWeight())
}

const (
	degrees    = plan.TaughtDegrees
	mostRatios = 10_000
)

// quantile of Student's t.
func quantile(p, nu float64) float64 {
	return distuv.StudentsT{Mu: 0, Sigma: 1, Nu: nu}.Quantile(p)
}

// Taught is a factor as a plan takes it.
func (f Factor) Taught() *plan.Taught {
	return &plan.Taught{Factor: f.Factor, ScaleLog: f.ScaleLog, N: f.N}
}
