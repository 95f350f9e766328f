package planner

import (
	"math"

	"coldember/core/plan"
)

const (
	suggestStepMm = 0.05
	spareSkinMm   = 0.03 // of a heat more or less, which what is left on the faces may make (judgement)
)

func suggest(p *plan.Plan, req *plan.Request) plan.Suggestion {
	s := plan.Suggestion{DecarbMm: p.Totals.DecarbMm, MarksMm: req.Smith.MarksMm()}
	need := s.DecarbMm + s.MarksMm
	s.FaceMm = math.Round(math.Ceil((need+spareSkinMm)/suggestStepMm-1e-9)*suggestStepMm*100) / 100
	if left := req.Allowances.FaceMm; left >= need && left < need+2*suggestStepMm {
		s.FaceMm = left // it is as good: what is taken is not asked for anew because a heat more or less came of it
	}
	return s
}
