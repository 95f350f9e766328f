package plan

import "math"

// Suggestion is what this plan would leave on each face for the grinder: the
// carbon-poor skin and the hammer marks. It is offered, never taken silently.
type Suggestion struct {
	FaceMm   float64 `json:"faceMm" doc:"carbon-poor skin and hammer marks, to the next 0.05 mm"`
	DecarbMm float64 `json:"decarbMm"`
	MarksMm  float64 `json:"marksMm"`
}

const suggestStepMm = 0.05

func suggest(p *Plan, req *Request) Suggestion {
	s := Suggestion{DecarbMm: p.Totals.DecarbMm, MarksMm: req.Smith.Skill.MarksMm()}
	s.FaceMm = math.Round(math.Ceil((s.DecarbMm+s.MarksMm)/suggestStepMm-1e-9)*suggestStepMm*100) / 100
	return s
}
