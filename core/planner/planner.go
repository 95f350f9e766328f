package planner

import (
	"context"
	"math"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/review"
)

// scarceShare of the cut left over on the bar: with less, the tang first tells
// what is left for the blade (judgement).
const scarceShare = 0.25

// Make plans a request. It is deterministic and gives no partial result: the
// error is fact.FieldErrors for fields that cannot be, or context's.
func Make(ctx context.Context, req plan.Request) (*plan.Plan, error) {
	if err := req.Validate(); err != nil {
		return nil, err
	}
	used := req.Used()
	req = req.Taught()
	pre, err := sketched(&req)
	if err != nil {
		return nil, err
	}
	s, err := pre.settle(forge.NewBudget(ctx, heats.WorkBoundACell*len(pre.route.Cells)))
	if err != nil {
		return nil, err
	}
	p := pre.told(&req, used, s)
	pre.scheduled(p, &req, used, s)
	return p, nil
}

// told is the plan but for its heats.
func (k *sketch) told(req *plan.Request, used *plan.Learned, s *heats.Settled) *plan.Plan {
	r, fin, fog, zones, bar, grade, along := k.route, k.fin, k.fog, k.zones, k.bar, k.setup.Steel, k.along
	p := &plan.Plan{Version: plan.RequestVersion, Laws: plan.LawsVersion, Steel: grade, Learned: used, School: req.Allowances.School(&req.Design), Finished: fin.Measure(), Forged: fog.Measure(), Bend: r.Bend}
	p.ForgedZones = map[string]float64{}
	for _, c := range r.Cells {
		p.ForgedZones[c.Zone] += c.VolumeMm3
	}
	asked := *req
	asked.Learned = used
	p.Bar = barPlan(r, s, zones, plan.UsualTolerances(asked))
	p.Prep = prepare(r, p.Bar.StartMm3/(bar.AreaMm2*bar.WholeMm))
	p.Ledger = ledger(p, req, r.Bar, s.SpareMm3(r.Cells))
	p.Feasibility = along
	p.Drawing = figure.Drawn(fin, fog, zones)
	p.Sections = figure.Sections(fin)
	if req.Forged == nil {
		p.Nodes, p.TangNodes = req.Design.OwnOutline(), req.Design.TangOutline()
		p.BevelSetDeg = math.Round(req.Design.BevelSetDeg()*100) / 100
		p.Whole = fin.Assemble(req.Design)
		figure.AddHandle(&p.Drawing, fin, req.Design)
		if figure.BendHandle(&p.Drawing, &req.Design) {
			p.Whole.PointAngleDeg = figure.PushAngleDeg(p.Drawing.Push)
		}
		p.Drawing.Finished = figure.BendTang(p.Drawing.Finished, p.Drawing.FinishedZones, &req.Design)
		p.Drawing.Forged = figure.BendTang(p.Drawing.Forged, p.Drawing.ForgedZones, &req.Design)
	}
	return p
}

// scheduled fills in the heats of a run, its totals, and what is to be known of them.
func (k *sketch) scheduled(p *plan.Plan, req *plan.Request, used *plan.Learned, s *heats.Settled) {
	r, fin := k.route, k.fin
	heats.Schedule(r, p, s)
	if used != nil {
		p.Really = &plan.Really{Heats: used.Heats.Pace(float64(p.Totals.Heats)), TimeS: used.Time.Pace(p.Totals.LastsS())}
	}
	p.Totals.Money = req.Prices.Cost(p.Bar.StartMm3, p.Totals.FuelG, p.Totals.LastsS())
	p.Totals.SoakC, p.Totals.LowC, p.Totals.UsefulJ = s.Run.SoakC(), s.Run.Setup.LowC(), req.Smith.UsefulJ()
	for i := range s.Run.Bar.Cells {
		p.Totals.DecarbMm = math.Max(p.Totals.DecarbMm, s.Run.Bar.Cells[i].Decarb(0.9))
	}
	p.Anvil = req.Smith.AnvilID()
	p.SuggestFirst = plan.PointFirst
	if p.Bar.LeftMm < scarceShare*p.Bar.CutLengthMm {
		p.SuggestFirst = plan.TangFirst
	}
	p.Findings, p.Suggested = fin.Judge(req.Design.Use), suggest(p, req)
	p.Warnings = review.Warnings(r, p, s)
}
