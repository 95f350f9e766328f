package forge

import (
	"context"
	"fmt"
)

// Budget bounds the work of simulations that belong together and looks at the
// context of whoever asked for them. Work is counted in cell steps: one cell
// moved or cooled once. A nil budget has no end.
type Budget struct {
	ctx       context.Context
	left      int
	untilLook int
	err       error
}

// lookEvery is how many cell steps pass between two looks at the context: well
// under a millisecond.
const lookEvery = 4096

// NewBudget allows so many cell steps.
func NewBudget(ctx context.Context, cellSteps int) *Budget {
	return &Budget{ctx: ctx, left: cellSteps, untilLook: lookEvery}
}

// TooMuchWorkError says that a budget is used up: the work would go on for so
// long that it is no plan.
type TooMuchWorkError struct{}

func (e *TooMuchWorkError) Error() string { return "forge: more work than any piece is worth" }

// Spend takes so many cell steps. Its error, once there is one, stays: the
// context's, or *TooMuchWorkError.
func (b *Budget) Spend(cellSteps int) error {
	if b == nil || b.err != nil {
		return b.Err()
	}
	b.left -= cellSteps
	if b.untilLook -= cellSteps; b.untilLook <= 0 {
		b.untilLook = lookEvery
		if b.err = b.ctx.Err(); b.err != nil {
			return b.err
		}
	}
	if b.left < 0 {
		b.err = &TooMuchWorkError{}
	}
	return b.err
}

// Err is why the budget ended, or nil.
func (b *Budget) Err() error {
	if b == nil {
		return nil
	}
	return b.err
}

// BurntError says that a spot burnt away in the fire: the steel there is gone.
type BurntError struct {
	Zone  string
	Heats int // that were taken until then
}

func (e *BurntError) Error() string {
	return fmt.Sprintf("forge: the %s burns away in heat %d", e.Zone, e.Heats)
}
