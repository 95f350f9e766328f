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
	return grade, nil
}

// sketched lays out the shapes and the route of a request that is valid.
func sketched(by *plan.Request) (*sketch, error) {
	taught := by.Taught()
	req := &taught
	body, err := gradeOf(req)
	if err != nil {
		return nil, err
	}
	grade := req.Joined(body)
	bar, err := req.Bar.Even()
	if err != nil {
		return nil, err
	}
	fin, fog, err := bodies(req, bar)
	if err != nil {
		return nil, err
	}
	zones := figure.ZonesOf(fog)
	r := route.New(req, bar, fog, zones)
	r.Bend, r.Steel, r.Body = route.BevelSweep(fog, *req), grade, body
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

// bodies are the finished blade and the forged one of a request with what was learned in it. Errors
// are fact.FieldErrors.
func bodies(req *plan.Request, bar stock.EvenBar) (finished, forged *blade.Body, err error) {
	if req.Forged != nil {
		same, err := blade.New(*req.Forged)
		return same, same, plan.FieldError(err)
	}
	b := req.Design.Blade()
	if finished, err = blade.New(b); err != nil {
		return nil, nil, plan.FieldError(err)
	}
	if forged, err = blade.New(figure.ForgedShape(*req, b, bar)); err != nil {
		return nil, nil, plan.FieldError(err)
	}
	return finished, forged, nil
}

// settle finds the bar that agrees with what burns off it.
func (p *sketch) settle(work *forge.Budget) (*heats.Settled, error) {
	s, err := heats.Settle(p.route, work, p.setup)
	if err != nil {
		return nil, refusal(p.route, err, p.along, p.setup)
	}
	return s, nil
}
