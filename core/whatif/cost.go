package whatif

import (
	"context"

	"coldember/core/plan"
)

// Cost is what a millimetre more of one figure costs.
type Cost struct {
	Field  string  `json:"field"`
	BarMm  float64 `json:"barMm"`
	MassG  float64 `json:"massG"`
	Heats  float64 `json:"heats" doc:"fractional"`
	TimeS  float64 `json:"timeS"`
	Cannot string  `json:"cannot,omitempty" doc:"the obstacle that it would meet"`
}

// Costs plans the request again with a little more and a little less of one
// figure each, and tells what a millimetre makes in the mean: a blade that just
// outgrows the hot length is worked in one stretch more, and such a step alone
// would mislead. Errors are fact.FieldErrors or the context's.
func Costs(ctx context.Context, req plan.Request) ([]Cost, error) {
	if err := req.Validate(); err != nil {
		return nil, err
	}
	out := []Cost{}
	for _, c := range []struct {
		field string
		by    float64
		more  func(*plan.Request, float64)
	}{
		{"design.lengthMm", 3, func(r *plan.Request, d float64) { r.Design.LengthMm += d }},
		{"design.heightMm", .5, func(r *plan.Request, d float64) { r.Design.HeightMm += d }},
		{"design.spineMm", .15, func(r *plan.Request, d float64) { r.Design.SpineMm += d }},
		{"design.tipMm", .15, func(r *plan.Request, d float64) { r.Design.TipMm += d }},
		{"design.tang.lengthMm", 3, func(r *plan.Request, d float64) { r.Design.Tang.LengthMm += d }},
	} {
		less, more := req, req
		c.more(&less, -c.by)
		c.more(&more, c.by)
		a, err := tryPlan(ctx, less)
		if err != nil {
			return nil, err
		}
		b, err := tryPlan(ctx, more)
		if err != nil {
			return nil, err
		}
		out = append(out, costOf(c.field, a, b, 2*c.by))
	}
	return out, nil
}

func costOf(field string, less, more *plan.Plan, byMm float64) Cost {
	c := Cost{Field: field}
	if less == nil || more == nil {
		c.Cannot = "plan.cannot"
		return c
	}
	c.BarMm, c.MassG = (more.Bar.CutLengthMm-less.Bar.CutLengthMm)/byMm, (more.Finished.MassG-less.Finished.MassG)/byMm
	c.Heats, c.TimeS = (more.Totals.FractionalHeats-less.Totals.FractionalHeats)/byMm, (more.Totals.TimeS-less.Totals.TimeS)/byMm
	c.Cannot = more.Obstacle().Code
	return c
}
