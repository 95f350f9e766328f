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
	Loss        float64 `json:"lossShare" doc:"of the logarithm of what is lost over what is forged"`
	Form        float64 `json:"formShare" doc:"of the volume of a piece of salvage"`
	Forged      float64 `json:"forgedShare" doc:"of the forged volume: how near to its shape a hand forges; usually none, since what is forged beside the shape is ground off and not cut longer"`
}

// The log spread of a loss: that of the scale where the heats compute it, and of a rule of thumb
// (judgement).
const (
	ScaleLog = .7
	thumbLog = .25
)

// UsualTolerances by hand and by how the piece is known: judgement, and what the log taught.
func UsualTolerances(r Request) Tolerances {
	t := Tolerances{WidthMm: .1, ThicknessMm: .03, Loss: ScaleLog} // by calipers, in several places
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

// RangeMm is where the length to cut lies in four of five cases, mm: what each tolerance makes of it by itself,
// added as squares to either side, since what is lost follows a logarithm and is lopsided. It never begins under
// what the forged volume alone needs. endsMm of the length are trim and kerf.
func (t Tolerances) RangeMm(b *BarPlan, endsMm float64) (low, high float64) {
	v := b.CutLengthMm - endsMm
	if !(v > 0) || b.LossFraction >= 1 {
		return b.CutLengthMm, b.CutLengthMm
	}
	lost := v * b.LossFraction
	even := 0.0
	for _, share := range []float64{t.WidthMm / b.WidthMm, t.ThicknessMm / b.ThicknessMm, t.Form, t.Forged} {
		even += v * share * tenth * v * share * tenth
	}
	below, above := lost*(1-math.Exp(-tenth*t.Loss)), lost*(math.Exp(tenth*t.Loss)-1)
	return math.Max(b.CutLengthMm-lost, b.CutLengthMm-math.Sqrt(below*below+even)), b.CutLengthMm + math.Sqrt(above*above+even)
}
