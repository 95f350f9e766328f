package route

import (
	"coldember/core/forge"
	"coldember/core/plan"
)

// takeTools puts machines to the heavy operations, and the smith's own tools in place of
// the planner's.
func (r *Route) takeTools(ops []*forge.Operation) {
	own := r.Req.Smith.Machine
	for _, op := range ops {
		if own.Does(op.Kind) {
			op.Machine = own
		}
		for _, t := range r.Req.Choices.Tools {
			if t.Operation != op.ID {
				continue
			}
			if plan.Tooled(op.Kind) {
				if t.Face != "" {
					op.Face, op.Mixes = t.Face, false
				}
				op.Support = t.Support
			}
			r.takeMachine(op, t)
		}
	}
}

// takeMachine puts to an operation what the smith will have it worked by: a machine of
// another kind than the smith's own is a usual one of its kind.
func (r *Route) takeMachine(op *forge.Operation, t plan.ToolUse) {
	switch m := r.Req.Smith.Machine; {
	case t.By == plan.ByHand:
		op.Machine, op.Fixed = nil, true
		return
	case t.By != "":
		if m == nil || m.Kind != forge.MachineKind(t.By) {
			m = forge.NewMachine(forge.MachineKind(t.By))
		}
		if m.CanDo(op.Kind) {
			if op.Kind.Trues() {
				m = m.WithDies(forge.FlatDies)
			}
			op.Machine, op.Fixed = m, true
		}
	}
	if t.Dies != "" && op.Machine != nil && op.Machine.Kind != forge.RollingMill {
		op.Machine, op.Fixed = op.Machine.WithDies(t.Dies), true
	}
}
