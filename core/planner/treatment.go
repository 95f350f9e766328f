package planner

import (
	"errors"
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/harden"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
)

// Of the time in the fire, what the spot that is hot first is at heat (judgement: the thick one
// is waited for).
const (
	hotShare  = .25
	leastHotS = 20
)

// usualHRC is how hard a use is usually tempered to (judgement from common practice).
var usualHRC = map[blade.Use]float64{
	blade.UseDeep: 61, blade.UseSlicer: 61, blade.UseFillet: 58, blade.UseUtility: 60, blade.UseHook: 60, blade.UseChisel: 60, blade.UseScribe: 61,
	blade.UseCamp: 57, blade.UseFighter: 57, blade.UseCleaver: 57, blade.UseChopper: 56, blade.UseSickle: 56, blade.UseSword: 55, blade.UseSpoon: 60,
}

// Treat is what is said of hardening and tempering the blade of a plan.
func Treat(req *plan.Request, p *plan.Plan) harden.Advice { return harden.Advise(treated(req, p)) }

// TreatmentSteps are the steps of hardening and tempering after the forging of a plan: those that
// the plan does as a part of it are left out.
func TreatmentSteps(req *plan.Request, p *plan.Plan) []harden.Step {
	a := Treat(req, p)
	if req.Choices.Harden != plan.HardenForged {
		return a.Steps
	}
	for i := range a.Steps {
		if a.Steps[i].ID == "quench" {
			return a.Steps[i+1:]
		}
	}
	return a.Steps
}

// DrawSpine is how the heat of a spine at hotC tempers the edge of the blade of a plan. Errors are
// fact.FieldErrors.
func DrawSpine(req *plan.Request, p *plan.Plan, hotC float64) (harden.FromSpine, error) {
	out, err := harden.DrawFromSpine(treated(req, p), hotC)
	var wrong *harden.RangeError
	if errors.As(err, &wrong) {
		code := "field.rangeLength"
		if wrong.Field == "hotC" {
			code = "field.rangeTemperature"
		}
		return out, fact.FieldErrors{{Field: "treatment." + wrong.Field, Code: code, Figures: fact.Figures{"lowest": wrong.Lowest, "highest": wrong.Highest}}}
	}
	return out, err
}

// TreatmentOf is how the blade of a plan is treated: as its request says, or as usual for its steel.
func TreatmentOf(req *plan.Request, p *plan.Plan) harden.Treatment {
	if req.Treatment != nil {
		return *req.Treatment
	}
	if g, _, err := bathGrade(req, p.Steel.ID); err == nil {
		return harden.NewTreatment(g)
	}
	return harden.NewTreatment(p.Steel)
}

// bathGrade is the grade that a bar is hardened as: with the composition of its certificate, and for
// a steel that nobody knows the grade that a certificate makes of it, whose id is like. The window of
// the fire is none of the bath's. Errors are *steel.UnknownError.
func bathGrade(req *plan.Request, id string) (g steel.Grade, like string, err error) {
	if g, err = steel.Find(id); err != nil {
		return g, "", err
	}
	if g.Assumed && req.Analysis != nil {
		if known, ok := steel.Like(*req.Analysis); ok {
			g, like = known, known.ID
		}
	}
	return req.Analysis.Over(g), like, nil
}

// LoadOf is the blade of a plan as a load of an oven.
func LoadOf(id string, req *plan.Request, p *plan.Plan) harden.Load {
	c := treated(req, p)
	want := c.Treatment.WantHardness
	if want == 0 {
		want = c.WantHRC
	}
	return harden.Load{ID: id, Grade: c.Grade, Treatment: c.Treatment, WantHRC: want}
}

// leftOf is how the blade of a request is ground for its quench.
func leftOf(req *plan.Request) harden.Left {
	t, c := req.Treatment, finish.Choices{}
	if req.Finish != nil {
		c = *req.Finish
	}
	if t == nil {
		g, _, _ := bathGrade(req, req.SteelID)
		usual := harden.NewTreatment(g)
		t = &usual
	}
	l := t.Left(req.Design.LengthMm)
	l.FaceMm = c.LeftForAfterMm(isLayered(req))
	l.AsItIs = c.Hardened || req.Choices.Harden == plan.HardenForged
	return l
}

// treated is the blade of a plan as it is to be treated.
func treated(req *plan.Request, p *plan.Plan) harden.Case {
	c := harden.Case{
		Grade: p.Steel, Treatment: TreatmentOf(req, p), WantHRC: usualHRC[req.Design.Use], LengthMm: req.Design.LengthMm,
		MassG: p.Finished.MassG, Holes: len(p.Drawing.Holes) > 0, Layered: req.Bit != nil,
	}
	if g, like, err := bathGrade(req, p.Steel.ID); err == nil {
		c.Grade, c.LikeID = g, like
	}
	c.Tried = harden.Tried{}
	for _, f := range req.Origin.Tests {
		c.Tried[f.Test] = f.Result
	}
	if o, err := layered(req); err == nil && o != nil {
		if g, ok := shallowest(o, func(g steel.Grade) float64 { return harden.IdealDiameterMm(harden.SteelOf(g)) }); ok {
			c.Grade = g
		}
		c.Layered = true
	}
	shoulder := req.Design.LengthMm + req.Design.Ricasso.LengthMm
	c.CornerMm, c.CornerAtMm = req.Design.Tang.ShoulderRadiusMm, shoulder
	if len(req.Design.Tang.Holes) > 0 {
		c.HoleAtMm = shoulder + req.Design.Tang.Holes[0].AtMm
	}
	left := leftOf(req)
	c.FaceMm, c.AsItIs = left.FaceMm, left.AsItIs
	steel, err := steelOf(req)
	for i := range p.Sections {
		s := &p.Sections[i]
		c.OneSided = c.OneSided || s.OneFace
		at := harden.Profile{XMm: s.XMm, HeightMm: s.HeightMm, ThicknessMm: s.T}
		if err == nil {
			at.ThicknessMm, at.IsMm = steel.Across(s.XMm, len(s.T))
		}
		c.Profiles = append(c.Profiles, at)
	}
	ops := map[string]*plan.Step{}
	for i := range p.Operations {
		ops[p.Operations[i].ID] = &p.Operations[i]
	}
	for i := range p.Heats {
		h := &p.Heats[i]
		op := ops[h.Parts[0].Operation]
		hold := harden.Hold{TempC: math.Max(p.Totals.SoakC, op.TargetC), TimeS: math.Max(leastHotS, hotShare*h.FireS)}
		switch op.Kind {
		case route.KindNormalise, route.KindAnneal, route.KindSoften:
			hold.TempC, hold.Slow = op.TargetC, op.Kind != route.KindNormalise
			c.Cycles = append(c.Cycles, hold)
		case "harden":
		default:
			c.Forging = append(c.Forging, hold)
		}
	}
	return c
}

// UsualHRC is how hard a use is usually tempered to; 0 where nothing is said of it.
func UsualHRC(u blade.Use) float64 { return usualHRC[u] }
