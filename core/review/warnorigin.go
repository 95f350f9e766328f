package review

import (
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// warnOrigin: hazards stop a plan, for good or until they are seen to.
func warnOrigin(r *route.Route, add adder) {
	seen := map[string]bool{}
	for _, a := range r.Req.Origin.Acknowledged {
		seen[a] = true
	}
	for _, id := range r.Req.Origin.Hazards {
		h, ok := stock.FindHazard(id)
		switch {
		case !ok:
		case h.Refuse:
			add("hazard."+id, fact.Stop, fact.Where{}, nil)
		case !seen[id]:
			add("hazard."+id, fact.Stop, fact.Where{}, fact.Figures{"acknowledge": 1})
		default:
			add("hazard."+id, fact.Note, fact.Where{}, nil)
		}
	}
	if r.Req.Choices.Holding == plan.WeldedRod && r.Req.Design.Tang.WeldAtMm == 0 && r.Req.Forged == nil {
		add("warn.rodWeld", fact.Note, fact.Where{Zone: plan.ZoneTang}, nil)
	}
}
