package plan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/thermal"
)

// Limits behind the warnings.
const (
	lipRatio     = 2.0 // height over bite of a blow that rolls the surface over
	thinEdgeMm   = 1.5
	shortWindowS = 6.0
	unsettledMm  = 0.1 // a shape that is missed by less is forged as near as calipers tell
)

// warnings looks the plan over.
func (r *route) warnings(p *Plan, s *settled) (out []fact.Warning) {
	out = []fact.Warning{}
	add := func(code string, sev fact.Severity, w fact.Where, f fact.Figures) {
		out = append(out, fact.Warning{Code: code, Severity: sev, Figures: f, Where: w})
	}
	r.warnBar(p, add)
	r.warnReach(p, add)
	r.warnHeats(p, s, add)
	warnOrder(s.ops, p.Totals.SoakC, add)
	r.warnTools(p, add)
	r.warnHeavy(p, add)
	r.warnTired(p, add)
	r.warnGouge(add)
	r.warnHardening(add)
	r.warnPattern(p, add)
	if e := r.req.Allowances.ForgingEdgeMm; e < thinEdgeMm && r.req.Forged == nil {
		add("warn.edgeThin", fact.Warn, fact.Where{Zone: ZoneBlade, Operation: string(forge.Bevel)}, fact.Figures{"edgeMm": e, "leastMm": thinEdgeMm})
	}
	if d, g := p.Totals.DecarbMm, r.req.Allowances.FaceMm; r.req.Forged == nil && d > g {
		add("warn.decarb", fact.Warn, fact.Where{Zone: ZoneBlade}, fact.Figures{"decarbMm": d, "faceMm": g})
	}
	if r.req.Forged == nil {
		r.warnTang(p, add)
	}
	r.warnOrigin(add)
	defer func() {
		for i := range out {
			out[i].Remedy = r.remedyFor(p, out[i])
		}
	}()
	if p.Steel.Assumed {
		add("warn.assumedSteel", fact.Warn, fact.Where{}, nil)
	}
	if s.missMm > unsettledMm {
		add("warn.unsettled", fact.Stop, fact.Where{}, fact.Figures{"byMm": s.missMm})
	}
	return out
}

// barWarnings are those of the bar alone, of a piece that is screened without
// forging it.
func (r *route) barWarnings(p *Plan) (out []fact.Warning) {
	add := func(code string, sev fact.Severity, w fact.Where, f fact.Figures) {
		out = append(out, fact.Warning{Code: code, Severity: sev, Figures: f, Where: w})
	}
	r.warnBar(p, add)
	r.warnReach(p, add)
	return out
}

// adder notes a warning.
type adder func(code string, sev fact.Severity, w fact.Where, f fact.Figures)

// warnBar: enough bar, thick enough.
func (r *route) warnBar(p *Plan, add adder) {
	if p.Bar.LeftMm < 0 {
		add("warn.volumeShort", fact.Stop, fact.Where{}, fact.Figures{"shortMm": -p.Bar.LeftMm, "needMm": p.Bar.CutLengthMm, "haveMm": p.Bar.AvailableMm})
	}
	r.warnUpset(add)
	_, _, gathers := r.upset()
	if d := r.req.Design.Ricasso.ThicknessMm; r.req.Forged == nil && !gathers && d > r.bar.ThicknessMm {
		add("warn.ricassoThin", fact.Stop, fact.Where{Zone: ZoneRicasso}, fact.Figures{"wantMm": d, "barMm": r.bar.ThicknessMm})
	}
	thick, at := 0.0, cell{}
	for _, c := range r.cells {
		if (c.zone == ZoneBlade || c.zone == ZonePoint) && c.preform.ThicknessMm > thick {
			thick, at = c.preform.ThicknessMm, c
		}
	}
	if thick > r.bar.ThicknessMm+1e-9 {
		add("warn.barThin", fact.Stop, fact.Where{Zone: at.zone, FromMm: at.from, ToMm: at.to},
			fact.Figures{"needMm": thick, "barMm": r.bar.ThicknessMm, "byMm": thick - r.bar.ThicknessMm})
	}
	if t := r.bar.ThicknessMm; t > thermal.LumpedLimitMm {
		add("warn.thickSection", fact.Note, fact.Where{}, fact.Figures{"barMm": t, "limitMm": thermal.LumpedLimitMm})
	}
	r.warnEdgewise(add)
}

// warnReach: where the bar is too narrow, with the width or thickness that
// would do for the whole of the shape.
func (r *route) warnReach(p *Plan, add adder) {
	var worst Feasibility
	from, to, found := 0.0, 0.0, false
	up0, up1, gathers := r.upset()
	for i, f := range p.Feasibility {
		if f.Way != TooNarrow && (f.Way != UpsetIt || gathers && f.XMm >= r.cells[up0].from && f.XMm <= r.cells[up1].to) {
			continue
		}
		half := (p.Feasibility[min(i+1, len(p.Feasibility)-1)].XMm - p.Feasibility[max(i-1, 0)].XMm) / 4
		if !found {
			from = f.XMm - half
		}
		to = f.XMm + half
		if !found || f.HeightMm-f.ReachableHeightMm > worst.HeightMm-worst.ReachableHeightMm {
			worst = f
		}
		found = true
	}
	if !found {
		return
	}
	w, t := remedy(p.Feasibility, r.bar.WidthMm, r.bar.ThicknessMm)
	at := fact.Where{Zone: ZoneBlade, FromMm: from, ToMm: to}
	figures := fact.Figures{"heightMm": worst.HeightMm, "reachMm": worst.ReachableHeightMm, "reachable": worst.SpreadReachable, "thicknessMm": t}
	code := "warn.tooLight" // there is not steel enough, however it spreads, at this thickness
	if w > 0 {
		code = "warn.tooNarrow"
		figures["widthMm"] = w
	}
	if worst.Way == TooNarrow {
		figures["needed"] = worst.SpreadNeeded
	} else if w > 0 {
		code = "warn.tooNarrowUpset"
	}
	add(code, fact.Stop, at, figures)
}

// remedy finds the bar width at this thickness (0: no width will), and the
// thickness at this width, from which every station can be reached.
func remedy(along []Feasibility, w0, t0 float64) (widthMm, thicknessMm float64) {
	possible := true
	for _, f := range along {
		widthMm = math.Max(widthMm, f.HeightMm*f.MeanThicknessMm/t0)
		thicknessMm = math.Max(thicknessMm, f.HeightMm*f.MeanThicknessMm/w0)
		if f.HeightMm <= w0 {
			continue // it is narrowed there, and thickens by itself
		}
		spread := math.Log(t0/f.MeanThicknessMm) * f.SpreadReachable
		possible = possible && spread > -noStrain
		widthMm = math.Max(widthMm, f.HeightMm/math.Exp(math.Max(0, spread)))
		thicknessMm = math.Max(thicknessMm, f.MeanThicknessMm*math.Exp(math.Log(f.HeightMm/w0)/f.SpreadReachable))
	}
	if !possible {
		widthMm = 0
	}
	return widthMm, thicknessMm
}

// warnHeats: lips, short heats, sweep.
func (r *route) warnHeats(p *Plan, s *settled, add adder) {
	if r.bend.RiseMm > 1 && r.req.Choices.Curve != PreCurveFirst {
		add("warn.sweep", fact.Note, fact.Where{Zone: ZoneBlade, Operation: string(forge.Bevel)},
			fact.Figures{"riseMm": r.bend.RiseMm, "curvaturePerMm": r.bend.CurvaturePerMm})
	}
	r.warnLip(p, s, add)
	r.warnWindow(p, s, add)
	r.warnShort(s, p.Totals.LowC, add)
}
