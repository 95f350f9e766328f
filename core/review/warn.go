package review

import (
	"math"

	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
	"coldember/core/thermal"
)

// Limits behind the warnings.
const (
	lipRatio     = 2.0 // height over bite of a blow that rolls the surface over
	thinEdgeMm   = 1.5
	shortWindowS = 6.0
	whatIsRead   = 0.5 // of a rise, mm
	unsettledMm  = 0.1 // a shape that is missed by less is forged as near as calipers tell
)

// unknownTool is a tool steel that nobody has identified: it may harden in still air.
const unknownTool = "unknown-tool"

// Warnings looks the plan over.
func Warnings(r *route.Route, p *plan.Plan, s *heats.Settled) (out []fact.Warning) {
	out = []fact.Warning{}
	add := func(code string, sev fact.Severity, w fact.Where, f fact.Figures) {
		out = append(out, fact.Warning{Code: code, Severity: sev, Figures: f, Where: w})
	}
	warnBar(r, p, add)
	warnEdgewise(p, add)
	warnReach(r, p, add)
	warnHeats(r, p, s, add)
	warnOrder(s.Ops, p.Totals.SoakC, add)
	warnTools(r, p, add)
	warnHeavy(r, p, add)
	warnHopeless(p, add)
	warnTired(r, p, add)
	warnGouge(r, add)
	warnHardening(r, add)
	warnPattern(r, p, add)
	if e := r.Req.Allowances.ForgingEdgeMm; e < thinEdgeMm && r.Req.Forged == nil {
		add("warn.edgeThin", fact.Warn, fact.Where{Zone: plan.ZoneBlade, Operation: string(forge.Bevel)}, fact.Figures{"edgeMm": e, "leastMm": thinEdgeMm})
	}
	if d, g := p.Totals.DecarbMm, r.Req.Allowances.FaceMm; r.Req.Forged == nil && d > g {
		add("warn.decarb", fact.Warn, fact.Where{Zone: plan.ZoneBlade}, fact.Figures{"decarbMm": d, "faceMm": g})
	}
	if r.Req.Forged == nil {
		warnTang(r, p, add)
	}
	warnOrigin(r, add)
	if p.Steel.Assumed {
		add("warn.assumedSteel", fact.Warn, fact.Where{}, nil)
	}
	if p.Steel.ID == unknownTool && p.Totals.Cycles > 0 {
		add("warn.airHardens", fact.Warn, fact.Where{Operation: route.CycleID(0)}, fact.Figures{"tempC": p.Steel.NormaliseC})
	}
	if s.MissMm > unsettledMm {
		add("warn.unsettled", fact.Stop, fact.Where{}, fact.Figures{"byMm": s.MissMm})
	}
	out = gathered(out)
	for i := range out {
		out[i].Remedy = remedyFor(r, p, out[i])
	}
	return out
}

// BarWarnings are those of the bar alone, of a piece that is screened without
// forging it.
func BarWarnings(r *route.Route, p *plan.Plan) (out []fact.Warning) {
	add := func(code string, sev fact.Severity, w fact.Where, f fact.Figures) {
		out = append(out, fact.Warning{Code: code, Severity: sev, Figures: f, Where: w})
	}
	warnBar(r, p, add)
	warnReach(r, p, add)
	return out
}

// adder notes a warning.
type adder func(code string, sev fact.Severity, w fact.Where, f fact.Figures)

// warnBar: enough bar, thick enough.
func warnBar(r *route.Route, p *plan.Plan, add adder) {
	if p.Bar.LeftMm < 0 {
		add("warn.volumeShort", fact.Stop, fact.Where{}, fact.Figures{"shortMm": -p.Bar.LeftMm, "needMm": p.Bar.CutLengthMm, "haveMm": p.Bar.AvailableMm})
	}
	warnBlank(r, p, add)
	warnUpset(r, add)
	_, _, gathers := r.Upset()
	if d := r.Req.Design.Ricasso.ThicknessMm; r.Req.Forged == nil && !gathers && d > r.Bar.ThicknessMm {
		add("warn.ricassoThin", fact.Stop, fact.Where{Zone: plan.ZoneRicasso}, fact.Figures{"wantMm": d, "barMm": r.Bar.ThicknessMm})
	}
	thick, at := 0.0, figure.Cell{}
	for _, c := range r.Cells {
		if (c.Zone == plan.ZoneBlade || c.Zone == plan.ZonePoint) && c.Preform.ThicknessMm > thick {
			thick, at = c.Preform.ThicknessMm, c
		}
	}
	if thick > r.Bar.ThicknessMm+1e-9 {
		add("warn.barThin", fact.Stop, fact.Where{Zone: at.Zone, FromMm: at.FromMm, ToMm: at.ToMm},
			fact.Figures{"needMm": thick, "barMm": r.Bar.ThicknessMm, "byMm": thick - r.Bar.ThicknessMm})
	}
	if t := r.Bar.ThicknessMm; t > thermal.LumpedLimitMm {
		add("warn.thickSection", fact.Note, fact.Where{}, fact.Figures{"barMm": t, "limitMm": thermal.LumpedLimitMm})
	}
}

// blankSlackMm is by how much an outline may be wider than its flat: the saw runs along the edge (judgement).
const blankSlackMm = 0.5

// warnBlank: an outline that is wider than what it is to be sawn out of. Whether it fits on a disc is told where it is
// laid out.
func warnBlank(r *route.Route, p *plan.Plan, add adder) {
	if len(p.Bar.Blank) == 0 || r.Req.Bar.Form == stock.Disc {
		return
	}
	flat, err := r.Req.Bar.Even()
	if err != nil {
		return
	}
	low, high := math.Inf(1), math.Inf(-1)
	for _, n := range p.Bar.Blank {
		low, high = math.Min(low, n[1]), math.Max(high, n[1])
	}
	if need := high - low; need > flat.WidthMm+blankSlackMm {
		add("warn.blankWide", fact.Stop, fact.Where{}, fact.Figures{"needMm": math.Ceil(need), "haveMm": flat.WidthMm, "widthMm": stock.SoldWidthMm(need)})
	}
}

// warnReach: where the bar is too narrow, with the width or thickness that
// would do for the whole of the shape.
func warnReach(r *route.Route, p *plan.Plan, add adder) {
	var worst plan.Feasibility
	from, to, found := 0.0, 0.0, false
	up0, up1, gathers := r.Upset()
	for i, f := range p.Feasibility {
		if f.Way != plan.TooNarrow && (f.Way != plan.UpsetIt || gathers && f.XMm >= r.Cells[up0].FromMm && f.XMm <= r.Cells[up1].ToMm) {
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
	w, t := route.BarThatReaches(p.Feasibility, r.Req.Smith, r.Req.Choices.Method, r.Bar.WidthMm, r.Bar.ThicknessMm)
	w, t = stock.SoldWidthMm(w), stock.SoldThicknessMm(math.Max(t, r.Req.Design.Ricasso.ThicknessMm))
	at := fact.Where{Zone: plan.ZoneBlade, FromMm: from, ToMm: to}
	figures := fact.Figures{"heightMm": worst.HeightMm, "reachMm": worst.ReachableHeightMm, "reachable": worst.SpreadReachable, "thicknessMm": t}
	code := "warn.tooLight" // there is not steel enough, however it spreads, at this thickness
	if w > 0 {
		code = "warn.tooNarrow"
		figures["widthMm"] = w
	}
	if worst.Way == plan.TooNarrow {
		figures["needed"] = worst.SpreadNeeded
	} else if w > 0 {
		code = "warn.tooNarrowUpset"
	}
	add(code, fact.Stop, at, figures)
}

// formStrain is how far hot steel is bent over a form without tearing or flattening in its
// outer face (judgement: a form of three times the thickness).
const formStrain = 0.15

// warnForm: a blade bent flatwise over a form that is tight for its thickness.
func warnForm(r *route.Route, p *plan.Plan, add adder) {
	f := r.Req.Design.FlatBend
	if b := p.Drawing.Bent; f != nil && b != nil && b.Strain > formStrain {
		thick := 2 * b.Strain * f.RadiusMm / (1 - b.Strain)
		add("warn.formTight", fact.Warn, fact.Where{Zone: plan.ZonePoint, Operation: string(forge.FormFlat)},
			fact.Figures{"radiusMm": f.RadiusMm, "thickMm": thick, "strain": b.Strain, "leastMm": thick / 2 * (1/formStrain - 1)})
	}
}

// leastBitMm is how deep tool steel has to lie for an edge that is ground for years (judgement).
const leastBitMm = 6.0

// warnBit: tool steel that does not reach to the heel, or not deep enough.
func warnBit(r *route.Route, p *plan.Plan, add adder) {
	b := p.Bar.Bit
	if b == nil {
		return
	}
	at := fact.Where{Zone: plan.ZoneBlade, Operation: string(forge.WeldBit)}
	if heel := r.Req.Design.LengthMm; b.ReachMm < heel {
		add("warn.bitShort", fact.Warn, at, fact.Figures{"reachMm": b.ReachMm, "heelMm": heel, "leastMm": math.Ceil(r.Req.Bit.LengthMm * heel / b.ReachMm)})
	}
	if b.DepthMm < leastBitMm {
		add("warn.bitShallow", fact.Warn, at, fact.Figures{"depthMm": b.DepthMm, "leastMm": leastBitMm, "needMm": math.Ceil(r.Req.Bit.WidthMm + r.Bar.WidthMm*(leastBitMm-b.DepthMm)/r.Req.Design.HeightMm)})
	}
}

// warnHeats: lips, short heats, sweep.
func warnHeats(r *route.Route, p *plan.Plan, s *heats.Settled, add adder) {
	if r.Bend.RiseMm > 1 && r.Req.Choices.Curve != plan.PreCurveFirst {
		add("warn.sweep", fact.Note, fact.Where{Zone: plan.ZoneBlade, Operation: string(forge.Bevel)},
			fact.Figures{"riseMm": r.Bend.RiseMm, "curvaturePerMm": r.Bend.CurvaturePerMm})
	}
	if rise := r.PreCurveMm(); rise > 0 && rise < r.Bend.RiseMm-whatIsRead {
		add("warn.preCurveMost", fact.Note, fact.Where{Zone: plan.ZoneBlade, Operation: string(forge.PreCurve)},
			fact.Figures{"riseMm": r.Bend.RiseMm, "mostMm": rise, "limit": forge.MostRise})
	}
	warnForm(r, p, add)
	warnBit(r, p, add)
	warnLip(r, p, s, add)
	warnWindow(r, p, s, add)
	warnShort(s, add)
}
