package plan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/stock"
)

// Limits of the work itself: judgement.
const (
	heavyOver     = 1.5 // the bar's section over the least that would do
	leastSwungKg  = 0.5
	coolsFaster   = 0.8 // of the time that more heat promises
	wholeStepMm   = 0.5
	hottestForgeC = 1450.0
)

// warnHeavy: a bar so much heavier than the shape that most of the work is
// drawing it down.
func (r *route) warnHeavy(p *Plan, add adder) {
	if r.req.Forged != nil {
		return
	}
	need := r.req.Design.Ricasso.ThicknessMm * r.bar.WidthMm
	for _, c := range r.cells {
		need = math.Max(need, c.preform.WidthMm*c.preform.ThicknessMm)
	}
	if r.req.Bar.Form == stock.Flat {
		_, t := remedy(p.Feasibility, r.bar.WidthMm, r.bar.ThicknessMm)
		need = math.Max(need, t*r.bar.WidthMm)
	}
	thick := math.Ceil(need/r.bar.WidthMm/wholeStepMm) * wholeStepMm
	if ratio := r.bar.AreaMm2 / (thick * r.bar.WidthMm); ratio > heavyOver {
		add("warn.barHeavy", fact.Note, fact.Where{}, fact.Figures{
			"ratio": ratio, "limit": heavyOver, "widthMm": r.bar.WidthMm, "needMm": thick,
			"heats": float64(p.Totals.Heats), "timeS": p.Totals.TimeS,
		})
	}
}

// restAfterKg is the blows times the hammer's mass, before an arm should rest
// (judgement).
const restAfterKg = 440.0

// rests marks the heats after which an arm should rest, by the blows it has
// struck since the last rest and what it swings.
func (r *route) rests(p *Plan) {
	kg, swung := r.swings(p), 0.0
	for i := range p.Heats {
		for _, part := range p.Heats[i].Parts {
			swung += part.Blows * kg[part.Operation]
		}
		if swung > restAfterKg && i+1 < p.Totals.Heats {
			p.Heats[i].Rest, swung = true, 0
		}
	}
}

// swings is what an arm swings at each operation, kg; nothing at a machine's.
func (r *route) swings(p *Plan) map[string]float64 {
	kg := map[string]float64{}
	for _, op := range p.Operations {
		switch op.Machine {
		case "":
			kg[op.ID] = r.req.Smith.HammerKg
		case string(forge.Striker):
			kg[op.ID] = r.req.Smith.Machine.TupKg
		}
	}
	return kg
}

// warnTired: the first heat after which to rest, and how many there are.
func (r *route) warnTired(p *Plan, add adder) {
	first, n := 0, 0
	for i, h := range p.Heats {
		if h.Rest {
			if n++; n == 1 {
				first = i
			}
		}
	}
	if n > 0 {
		h := p.Heats[first]
		add("warn.tired", fact.Note, fact.Where{Operation: h.Parts[0].Operation},
			fact.Figures{"heat": float64(h.Number), "blows": math.Round(restAfterKg/math.Max(leastSwungKg, r.swings(p)[h.Parts[0].Operation])/10) * 10, "rests": float64(n)})
	}
}

// warnGouge: what is left on the faces of the ricasso is less deep than the
// marks of this hand: a gouge by the shoulder would stay.
func (r *route) warnGouge(add adder) {
	if r.req.Forged != nil {
		return
	}
	d := r.req.Design.Ricasso.ThicknessMm
	left := math.Min(r.req.Allowances.ByZone().RicassoFaceMm, (r.bar.ThicknessMm-d)/2)
	if marks := r.req.Smith.Skill.MarksMm(); left >= 0 && left < marks-1e-9 {
		add("warn.gouge", fact.Warn, fact.Where{Zone: ZoneRicasso, Operation: string(forge.SetDown)},
			fact.Figures{"leftMm": left, "marksMm": marks, "barMm": math.Max(r.bar.ThicknessMm, d+2*marks)})
	}
}

// warnShort: heats that leave hardly any time at the anvil.
func (r *route) warnShort(s *settled, low float64, add adder) {
	short := map[string]bool{}
	for i := range s.run.Heats {
		h := &s.run.Heats[i]
		if h.Fraction >= 1 && h.WorkS < shortWindowS && !short[h.Operation] && h.Blows > 0 {
			short[h.Operation] = true
			add("warn.shortHeat", fact.Note, fact.Where{Operation: h.Operation},
				fact.Figures{"workS": h.WorkS, "lowC": low, "startC": h.StartC, "soakC": s.run.SoakC()})
		}
	}
}
