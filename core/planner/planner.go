package planner

import (
	"context"
	"math"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/review"
	"coldember/core/route"
	"coldember/core/steel"
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
	grade, err := steel.Find(req.SteelID)
	if err != nil {
		return nil, err
	}
	if req.Steel != nil {
		grade = *req.Steel
	}
	if w := req.Origin.Window; w != nil {
		grade.ForgeLowC, grade.ForgeHighC = math.Max(grade.ForgeLowC, w.LowC), math.Min(grade.ForgeHighC, w.HighC)
	}
	grade = req.Joined(grade)
	bar, err := req.Bar.Even()
	if err != nil {
		return nil, err
	}
	finished := req.Forged
	forged := req.Forged
	if forged == nil {
		b := req.Design.Blade()
		f := figure.ForgedShape(req, b, bar)
		finished, forged = &b, &f
	}
	fin, err := blade.New(*finished)
	if err != nil {
		return nil, plan.FieldError(err)
	}
	fog, err := blade.New(*forged)
	if err != nil {
		return nil, plan.FieldError(err)
	}
	zones := figure.ZonesOf(fog)
	r := route.New(&req, bar, fog, zones)
	r.Bend, r.Steel = route.BevelSweep(fog, req), grade
	from := bar.WidthMm
	if req.SawnOut() {
		from, bar = 0, r.Bar
	}
	along := route.Feasibility(fog, zones, from, bar.ThicknessMm, req.Smith, req.Choices.Method)
	if err := r.RefuseOrder(r.Operations()); err != nil {
		return nil, err
	}
	setup := forge.Setup{Smith: req.Smith, Fire: req.Fire, Steel: grade}
	work := forge.NewBudget(ctx, heats.WorkBoundACell*len(r.Cells))
	s, err := heats.Settle(r, work, setup)
	if err != nil {
		return nil, refusal(r, err, along, setup)
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
