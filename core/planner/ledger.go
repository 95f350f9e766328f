package planner

import (
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/core/stock"
)

// leastSpareShare of the forged volume is the least that the ledger tells apart.
const leastSpareShare = 1e-4

// ledger from the finished blade up to the bar; spareMm3 of it the plan leaves over.
func ledger(p *plan.Plan, req *plan.Request, bar stock.EvenBar, spareMm3 float64) []plan.Line {
	a := p.Bar.AreaMm2
	line := func(code string, v float64, total bool, f fact.Figures) plan.Line {
		return plan.Line{Code: code, VolumeMm3: v, MassG: v * steel.DensityGPerCm3 / 1000, BarMm: v / a, Total: total, Figures: f}
	}
	trim, kerf := req.EndsMm()
	bit := 0.0
	if p.Bar.Bit != nil {
		bit = p.Bar.Bit.VolumeMm3
	}
	lost := p.Bar.StartMm3 - (p.Forged.VolumeMm3 - p.Bar.RodMm3 - bit) - (trim+kerf)*a
	code := "ledger.scale"
	if req.Sizing.LossMode == plan.ThumbLoss {
		code, spareMm3 = "ledger.thumb", 0
	}
	if spareMm3 < leastSpareShare*p.Forged.VolumeMm3 {
		spareMm3 = 0
	}
	lost -= spareMm3
	grind := line("ledger.grind", p.Forged.VolumeMm3-p.Finished.VolumeMm3, false, fact.Figures{"faceMm": req.Allowances.FaceMm, "outlineMm": req.Allowances.OutlineMm, "groundFraction": 1 - p.Finished.VolumeMm3/p.Forged.VolumeMm3})
	if req.Forged == nil {
		for _, part := range grindParts(*req, bar) {
			grind.Parts = append(grind.Parts, line(part.code, part.mm3, false, nil))
		}
	}
	out := []plan.Line{
		line("ledger.finished", p.Finished.VolumeMm3, true, nil),
		grind,
		line("ledger.forged", p.Forged.VolumeMm3, true, nil),
	}
	if rod := p.Bar.RodMm3; rod > 0 {
		out = append(out, line("ledger.rod", -rod, false, fact.Figures{"lengthMm": p.Bar.RodMm}))
	}
	if bit > 0 {
		out = append(out, line("ledger.bit", -bit, false, fact.Figures{"lengthMm": req.Bit.LengthMm}))
	}
	if spareMm3 > 0 {
		out = append(out, line("ledger.spare", spareMm3, false, nil))
	}
	out = append(out, line(code, lost, false, fact.Figures{"lossFraction": p.Bar.LossFraction, "scaleShare": p.Bar.ScaleShare}))
	if !req.CutsNothing() {
		out = append(out, line("ledger.trim", trim*a, false, nil), line("ledger.kerf", kerf*a, false, nil))
	}
	out = append(out, line("ledger.start", p.Bar.StartMm3, true, nil))
	for _, s := range p.Prep {
		if s.LossMm3 > 0 {
			out = append(out, line("ledger.prep", s.LossMm3, false, nil))
		}
	}
	return out
}

type grindPart struct {
	code string
	mm3  float64
}

// grindParts adds the allowances one after the other and tells what each adds;
// together they are all that lies between finished blade and forged shape. What
// adds nothing is left out; what the bar makes of the ricasso may take some away.
func grindParts(r plan.Request, on stock.EvenBar) []grindPart {
	b, a, z, taper := r.Design.Blade(), r.Allowances, r.Allowances.ByZone(), r.Choices.Taper
	r.Allowances, r.Choices.Taper = blade.Allowances{Zones: &blade.ZoneAllowances{}}, plan.ForgedTaper
	stage := &r.Allowances
	var bar stock.EvenBar
	steps := []struct {
		code string
		add  func()
	}{
		{"ledger.cutLater", func() {}},
		{"ledger.faces", func() { stage.FaceMm, stage.Zones.PointFaceMm = a.FaceMm, z.PointFaceMm }},
		{"ledger.ricassoFaces", func() { stage.Zones.RicassoFaceMm = z.RicassoFaceMm }},
		{"ledger.tangFaces", func() { stage.Zones.TangFaceMm = z.TangFaceMm }},
		{"ledger.forgingEdge", func() { stage.ForgingEdgeMm = a.ForgingEdgeMm }},
		{"ledger.spine", func() { stage.Zones.SpineMm = z.SpineMm }},
		{"ledger.edge", func() { stage.Zones.EdgeMm = z.EdgeMm }},
		{"ledger.point", func() { stage.Zones.PointMm = z.PointMm }},
		{"ledger.groundTaper", func() { r.Choices.Taper = taper }},
		{"ledger.ricassoBar", func() { bar = on }},
	}
	volume := func(b blade.Blade) float64 {
		body, err := blade.New(b)
		if err != nil {
			return 0
		}
		return body.Measure().VolumeMm3
	}
	var out []grindPart
	last := volume(b)
	for _, s := range steps {
		s.add()
		now := volume(figure.ForgedShape(r, b, bar))
		if d := now - last; d > 1e-6*now || d < -1e-6*now {
			out = append(out, grindPart{s.code, d})
		}
		last = now
	}
	return out
}
