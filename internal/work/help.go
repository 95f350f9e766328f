package work

import (
	"context"
	"sync"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
)

// helpPlan is the plan that the handbook is drawn from: made once, of a starter pattern from a bar.
type helpPlan struct {
	mu   sync.Mutex
	made *plan.Plan
}

// helpPattern is the starter that the handbook forges.
const helpPattern = "utility"

// HelpPlan plans the knife of the handbook.
func (w *Work) HelpPlan(ctx context.Context) (*plan.Plan, error) {
	w.help.mu.Lock()
	defer w.help.mu.Unlock()
	if w.help.made != nil {
		return w.help.made, nil
	}
	for _, s := range blade.Starters() {
		if s.ID != helpPattern {
			continue
		}
		req := plan.NewRequest(s.Design, "1084", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 6, LengthMm: 1000}, forge.Steady)
		made, err := planner.Make(ctx, req)
		if err != nil {
			return nil, err
		}
		w.help.made = made
	}
	return w.help.made, nil
}
