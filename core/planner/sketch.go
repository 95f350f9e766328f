package planner

import (
	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
	"coldember/core/stock"
)

// sketch is what a request comes to before any of it is forged.
type sketch struct {
	bar      stock.EvenBar
	fin, fog *blade.Body
	zones    []figure.Zone
	along    []plan.Feasibility
	route    *route.Route
	setup    forge.Setup
}

// gradeOf is the steel that a request is planned with.
func gradeOf(req *plan.Request) (steel.Grade, error) {
	grade, err := steel.Find(req.SteelID)
	if err != nil {
		return grade, err
	}
	if req.Steel != nil {
		grade = *req.Steel
	}
	grade = req.Analysis.Over(grade)
	if o, err := layered(req); err == nil && o != nil {
		if mixed, ok := o.Grade(); ok {
			grade = mixed
		}
	}
	if w := req.Origin.Window; w != nil {
		grade.ForgeLowC, grade.ForgeHighC = max(grade.ForgeLowC, w.LowC), min(grade.ForgeHighC, w.HighC)
	}
	return req.Joined(grade), nil
}

// sketched lays out the shapes and the route of a request that is valid.
func sketched(by *plan.Request) (*sketch, error) {
	taught := by.Taught()
	req := &taught
	grade, err := gradeOf(req)
	if err != nil {
		return nil, err
	}
	bar, err := req.Bar.Even()
	if err != nil {
		return nil, err
	}
	finished := req.Forged
	forged := req.Forged
	if forged == nil {
		b := req.Design.Blade()
		f := figure.ForgedShape(*req, b, bar)
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
	r := route.New(req, bar, fog, zones)
	r.Bend, r.Steel = route.BevelSweep(fog, *req), grade
	from := bar.WidthMm
	if req.SawnOut() {
		from, bar = 0, r.Bar
	}
	along := route.Feasibility(fog, zones, from, bar.ThicknessMm, req.Smith, req.Choices.Method)
	if err := r.RefuseOrder(r.Operations()); err != nil {
		return nil, err
	}
	return &sketch{bar, fin, fog, zones, along, r, forge.Setup{Smith: req.Smith, Fire: req.Fire, Steel: grade}}, nil
}

// settle finds the bar that agrees with what burns off it.
func (p *sketch) settle(work *forge.Budget) (*heats.Settled, error) {
	s, err := heats.Settle(p.route, work, p.setup)
	if err != nil {
		return nil, refusal(p.route, err, p.along, p.setup)
	}
	return s, nil
}
