package route

import (
	"coldember/core/forge"
	"coldember/core/plan"
)

// takeTools puts the smith's own tools to the operations.
func (r *Route) takeTools(ops []*forge.Operation) {
	for _, op := range ops {
		for _, t := range r.Req.Choices.Tools {
			if t.Operation != op.ID || !plan.Tooled(op.Kind) {
				continue
			}
			if t.Face != "" {
				op.Face = t.Face
			}
			op.Support = t.Support
		}
	}
}
