package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
)

// changeS is how long dies are changed and set, s (judgement).
const changeS = 180.0

// setMachines tells of every operation of a press or of rolls how far they close, and counts
// the changes of dies between operations; a machine begins with those of its first.
func setMachines(p *plan.Plan, ops []*forge.Operation) {
	last := map[forge.MachineKind]forge.Dies{}
	for _, op := range ops {
		m := op.Machine
		if m == nil {
			continue
		}
		f := stepOf(p, op.ID).Forging
		if was, ok := last[m.Kind]; ok && was != m.Dies && m.Kind != forge.RollingMill {
			f.NewDies = true
			p.Totals.DieChanges++
			p.Totals.DieChangeS += changeS
		}
		last[m.Kind] = m.Dies
		if m.Kind != forge.Press && m.Kind != forge.RollingMill || op.Targets == nil {
			continue
		}
		thin, thick := math.Inf(1), 0.0
		for _, t := range op.Targets {
			thin, thick = math.Min(thin, t.ThicknessMm), math.Max(thick, t.ThicknessMm)
		}
		f.StopMm, f.TaperMm = thin, thick-thin
	}
}

// stepOf is the step of an operation.
func stepOf(p *plan.Plan, id string) *plan.Step {
	for i := range p.Operations {
		if p.Operations[i].ID == id {
			return &p.Operations[i]
		}
	}
	return &plan.Step{Forging: &plan.Forging{}}
}
