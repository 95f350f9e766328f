package work

import (
	"context"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/remedy"
)

// Mended is a finding of a plan, and what clears it.
type Mended struct {
	Finding fact.Warning `json:"finding"`
	Remedy  fact.Remedy  `json:"remedy"`
}

// Remedies looks for what clears the findings of a document's plan, and tells each as soon as it was planned. It
// waits its turn, so that no preview waits for it.
func (w *Work) Remedies(ctx context.Context, d doc.Piece, tell func(Mended) error) error {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return err
	}
	select {
	case w.plans.searches <- struct{}{}:
		defer func() { <-w.plans.searches }()
	case <-ctx.Done():
		return ctx.Err()
	}
	return edit.Invalid(remedy.Find(ctx, d, p, func(ctx context.Context, d doc.Piece) (*plan.Plan, error) {
		return planner.Make(ctx, d.Request)
	}, func(f remedy.Found) error { return tell(Mended{Finding: p.Warnings[f.Finding], Remedy: f.Remedy}) }))
}
