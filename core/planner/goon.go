package planner

import (
	"context"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
)

// Laid is a request laid out: the shape that is forged, the cells that it is simulated in from the point to
// the end of the tang, and who works it.
type Laid struct {
	Forged *blade.Body
	Cells  []figure.Cell
	Setup  forge.Setup
	sketch *sketch
	req    plan.Request
	used   *plan.Learned
}

// LayOut lays a request out, without forging any of it. Errors are those of Make.
func LayOut(req plan.Request) (*Laid, error) {
	if err := req.Validate(); err != nil {
		return nil, err
	}
	used := req.Used()
	req = req.Taught()
	pre, err := sketched(&req)
	if err != nil {
		return nil, err
	}
	return &Laid{Forged: pre.fog, Cells: pre.route.Cells, Setup: pre.setup, sketch: pre, req: req, used: used}, nil
}

// GoOn is the plan of what is laid out from a bar as it is now, a cell of it for each cell: of each operation
// what is not done. Its heats, operations and totals are of what is left alone. Errors are those of Make.
func (l *Laid) GoOn(ctx context.Context, from heats.Begun, done func(op *forge.Operation) bool) (*plan.Plan, error) {
	work := forge.NewBudget(ctx, 2*heats.WorkBoundACell*len(l.Cells))
	s, err := l.sketch.settle(work)
	if err != nil {
		return nil, err
	}
	p := l.sketch.told(&l.req, l.used, s)
	rest, err := heats.GoOn(l.sketch.route, work, l.Setup, s, from, done)
	if err != nil {
		return nil, refusal(l.sketch.route, err, l.sketch.along, l.Setup)
	}
	l.sketch.scheduled(p, &l.req, l.used, rest)
	return p, nil
}

// Method is the school of bevelling that it is worked by.
func (l *Laid) Method() forge.Method { return l.req.Choices.Method }
