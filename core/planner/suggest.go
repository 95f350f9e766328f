package planner

import (
	"math"

	"coldember/core/plan"
)

const suggestStepMm = 0.05

func suggest(p *plan.Plan, req *plan.Request) plan.Suggestion {
	s := plan.Suggestion{DecarbMm: p.Totals.DecarbMm, MarksMm: req.Smith.MarksMm()}
	s.FaceMm = math.Round(math.Ceil((s.DecarbMm+s.MarksMm)/suggestStepMm-1e-9)*suggestStepMm*100) / 100
	return s
}
