package planner

import (
	"context"

	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
)

// InOtherHands is what the plan of a request comes to where it is forged otherwise than it was
// planned: the same bar and the same figures to reach, by the smith, the fire and the steel of
// as. It answers the operations, heats and totals alone, beside the plan itself. Errors are
// those of Make; as that cannot be forged at all answers like a request that cannot.
func InOtherHands(ctx context.Context, req, as plan.Request) (planned, was *plan.Plan, err error) {
	return again(ctx, req, as, 0)
}

// BlowByBlow is the plan of a request, and what it comes to where its steps are followed blow by blow: each lands or not, as it
// is drawn by the seed, on the cells under the tool as they are then.
func BlowByBlow(ctx context.Context, req plan.Request, seed uint64) (planned, was *plan.Plan, err error) {
	return again(ctx, req, req.Taught(), max(1, seed))
}

func again(ctx context.Context, req, as plan.Request, byBlow uint64) (planned, was *plan.Plan, err error) {
	if planned, err = Make(ctx, req); err != nil {
		return nil, nil, err
	}
	if err := as.Validate(); err != nil {
		return nil, nil, err
	}
	pre, err := sketched(&req)
	if err != nil {
		return nil, nil, err
	}
	grade, err := gradeOf(&as)
	if err != nil {
		return nil, nil, err
	}
	work := forge.NewBudget(ctx, 2*heats.WorkBoundACell*len(pre.route.Cells))
	s, err := pre.settle(work)
	if err != nil {
		return nil, nil, err
	}
	if byBlow > 0 { // whoever follows a plan keeps to its heats
		heats.Schedule(pre.route, &plan.Plan{Bar: planned.Bar, Forged: planned.Forged, Drawing: planned.Drawing}, s)
	}
	setup := forge.Setup{Smith: as.Smith, Fire: as.Fire, Steel: grade, ByBlow: byBlow}
	again, err := heats.Again(pre.route, work, setup, s)
	if err != nil {
		return nil, nil, refusal(pre.route, err, pre.along, setup)
	}
	was = &plan.Plan{Version: plan.RequestVersion, Laws: plan.LawsVersion, Steel: grade, Bar: planned.Bar, Forged: planned.Forged, Drawing: planned.Drawing}
	heats.Schedule(pre.route, was, again)
	was.Totals.SoakC, was.Totals.LowC = again.Run.SoakC(), again.Run.Setup.LowC()
	return planned, was, nil
}
