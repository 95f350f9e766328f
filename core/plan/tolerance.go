package plan

import (
	"math"

	"coldember/core/fact"
)

// Tolerances are how far the figures of a plan may be off, each as the range
// that holds two thirds of the cases either way (one standard deviation).
type Tolerances struct {
	WidthMm     float64 `json:"widthMm" doc:"of the bar"`
	ThicknessMm float64 `json:"thicknessMm"`
	Loss        float64 `json:"lossShare" doc:"of the logarithm of the loss"`
	Form        float64 `json:"formShare" doc:"of the volume of a piece of salvage"`
	Forged      float64 `json:"forgedShare" doc:"of the forged volume: how near to its shape a hand forges"`
}

// The log spread of a loss: that of the scale where the heats compute it, and of a rule of thumb
// (judgement).
const (
	ScaleLog = .7
	thumbLog = .25
)

// UsualTolerances by hand and by how the piece is known: judgement, and what the log taught.
func UsualTolerances(r Request) Tolerances {
	t := Tolerances{WidthMm: .15, ThicknessMm: .05, Loss: ScaleLog, Forged: map[string]float64{"learning": .08, "steady": .04, "sure": .02}[string(r.Smith.Skill)]}
	if t.Forged == 0 {
		t.Forged = .04
	}
	if r.Sizing.LossMode == ThumbLoss {
		t.Loss = thumbLog
	}
	if l := r.Used(); l != nil && l.Loss != nil {
		t.Loss = math.Min(1, l.Loss.ScaleLog) // what this shop's pieces lost stands in place of the table
	}
	if r.Origin.ID != "" && r.Origin.ID != "bar" {
		t.WidthMm, t.ThicknessMm, t.Form = .4, .15, .02
	}
	return t
}

// Validate reports every tolerance that cannot be.
func (t Tolerances) Validate() error {
	c := fact.NewCheck()
	c.Range("widthMm", t.WidthMm, 0, 10)
	c.Range("thicknessMm", t.ThicknessMm, 0, 5)
	c.Range("lossShare", t.Loss, 0, 1)
	c.Range("formShare", t.Form, 0, .5)
	c.Range("forgedShare", t.Forged, 0, .5)
	return c.Err()
}

// tenth is how many standard deviations the tenth and the last tenth lie from the middle.
const tenth = 1.2815515655446004

// WithinMm is half of the band in which the length to cut lies in four of five cases, mm, to first
// order: what each tolerance makes of it by itself, added as squares. endsMm of it are trim and kerf.
func (t Tolerances) WithinMm(b *BarPlan, endsMm float64) float64 {
	v := b.CutLengthMm - endsMm
	if !(v > 0) || b.LossFraction >= 1 {
		return 0
	}
	lost := func(side float64) float64 { // the length with the loss at one of its tenths
		return v * (1 - b.LossFraction) / (1 - math.Min(.8, b.LossFraction*math.Exp(side*tenth*t.Loss)))
	}
	half := (lost(1) - lost(-1)) / 2
	sum := half * half
	for _, share := range []float64{t.WidthMm / b.WidthMm, t.ThicknessMm / b.ThicknessMm, t.Form, t.Forged} {
		sum += v * share * tenth * v * share * tenth
	}
	return math.Sqrt(sum)
}
