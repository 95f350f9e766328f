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
	pre, err := sketched(&req)
	if err != nil {
		return nil, err
	}
	r, fin, fog, zones, bar, grade, along := pre.route, pre.fin, pre.fog, pre.zones, pre.bar, pre.setup.Steel, pre.along
	s, err := pre.settle(forge.NewBudget(ctx, heats.WorkBoundACell*len(r.Cells)))
	if err != nil {
		return nil, err
	}
	p := &plan.Plan{Version: plan.RequestVersion, Laws: plan.LawsVersion, Steel: grade, School: req.Allowances.School(), Finished: fin.Measure(), Forged: fog.Measure(), Bend: r.Bend}
	p.ForgedZones = map[string]float64{}
	for _, c := range r.Cells {
		p.ForgedZones[c.Zone] += c.VolumeMm3
	}
	p.Bar = barPlan(r, s, zones)
	p.Prep = prepare(r, p.Bar.StartMm3/(bar.AreaMm2*bar.WholeMm))
	p.Ledger = ledger(p, &req, r.Bar, s.SpareMm3(r.Cells))
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
	heats.Schedule(r, p, s)
	p.Totals.Money = req.Prices.Cost(p.Bar.StartMm3, p.Totals.FuelG, p.Totals.TimeS+p.Totals.CycleTimeS+p.Totals.DieChangeS)
	p.Totals.SoakC, p.Totals.LowC, p.Totals.UsefulJ = s.Run.SoakC(), s.Run.Setup.LowC(), req.Smith.UsefulJ()
	for i := range s.Run.Bar.Cells {
		p.Totals.DecarbMm = math.Max(p.Totals.DecarbMm, s.Run.Bar.Cells[i].Decarb(0.9))
	}
	p.Anvil = req.Smith.AnvilID()
	p.SuggestFirst = plan.PointFirst
	if p.Bar.LeftMm < scarceShare*p.Bar.CutLengthMm {
		p.SuggestFirst = plan.TangFirst
	}
	p.Findings, p.Suggested = fin.Judge(req.Design.Use), suggest(p, &req)
	p.Warnings = review.Warnings(r, p, s)
	return p, nil
}
