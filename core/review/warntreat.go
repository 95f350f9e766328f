package review

import (
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/steel"
)

// warnPattern: grinding that stops above the pattern where the blade is thickest, with
// what would have to be left on each face to reach it.
func warnPattern(r *route.Route, p *plan.Plan, add adder) {
	s := r.Req.Choices.SteelPattern.DepthShare()
	if s == 0 || r.Req.Forged != nil {
		return
	}
	// ahead of where the blade runs into its ricasso both faces have their allowance, and no more
	ahead, _ := heelOf(p.Drawing.Forged, blade.HeelRunMm)
	finishedAhead, finished := heelOf(p.Drawing.Finished, blade.HeelRunMm)
	forged := ahead + finished - finishedAhead
	if deep, ground := s*forged, (forged-finished)/2; ground < deep-1e-6 {
		add("warn.patternDeep", fact.Warn, fact.Where{Zone: plan.ZoneBlade}, fact.Figures{
			"depthMm": deep, "groundMm": ground, "forgedMm": forged, "needMm": s * finished / (1 - 2*s),
		})
	}
}

// Hardening as it leaves the forge.
const (
	longSoakS   = 300.0 // past it an oven, or cover from scale
	grindHardMm = 1.5   // edge at the quench past which much is ground off hardened steel
	temperC     = 200.0 // the coolest usual temper
	temperMostC = 260.0 // and the hottest
	temperHours = 2.0   // two cycles of an hour
	touchS      = 1.0   // that the heat of a touch of the wheel stays in an edge
)

// warnHardening: steel that does not harden, and much to be ground off one that is
// hard already.
func warnHardening(r *route.Route, add adder) {
	if r.Req.Choices.Harden != plan.HardenForged || r.Req.Forged != nil {
		return
	}
	if !r.Hardens() {
		add("warn.noHardening", fact.Note, fact.Where{}, nil)
		return
	}
	if s := r.Steel.SoakMin * 60; s > longSoakS {
		add("warn.longSoak", fact.Note, fact.Where{Operation: string(forge.Harden)}, fact.Figures{"soakS": s, "limitS": longSoakS})
	}
	edge := r.Req.Design.Blade().Forged(r.Req.Allowances, r.Bar.ThicknessMm).Grind.EdgeMm
	if edge > grindHardMm+1e-9 {
		flash := steel.SameTemperC(steel.HollomonJaffe(temperC, temperHours), touchS/3600)
		add("warn.grindHot", fact.Warn, fact.Where{Zone: plan.ZoneBlade, Operation: string(forge.Harden)}, fact.Figures{
			"edgeMm": edge, "limitMm": grindHardMm, "finishedMm": r.Req.Design.Grind.EdgeMm, "temperC": temperC, "flashC": flash,
		})
	}
}

// heelOf is how thick the blade proper is drawn at its heel, and so far ahead of it.
func heelOf(st []plan.Station, runMm float64) (ahead, heel float64) {
	end := 0.0
	for i := range st {
		if st[i].Zone == plan.ZoneBlade {
			heel, end = st[i].ThicknessMm, st[i].XMm
		}
	}
	for i := range st {
		if at := end - runMm; st[i].Zone == plan.ZoneBlade {
			if i > 0 && st[i].XMm > at {
				a := &st[i-1]
				return a.ThicknessMm + (st[i].ThicknessMm-a.ThicknessMm)*(at-a.XMm)/(st[i].XMm-a.XMm), heel
			}
			ahead = st[i].ThicknessMm
		}
	}
	return ahead, heel
}
