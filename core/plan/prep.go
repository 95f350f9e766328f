package plan

import (
	"coldember/core/fact"
	"coldember/core/stock"
)

// Prep is what is done to a piece before the first heat, with what it costs of
// it.
type Prep struct {
	Code         string       `json:"code"`
	LossMm3      float64      `json:"lossMm3,omitempty"`
	Figures      fact.Figures `json:"figures,omitempty"`
	CautionCodes []string     `json:"cautionCodes"`
}

// prepare lists what a form asks for before it is forged.
func (r *route) prepare(cutShare float64) []Prep {
	p := &r.req.Bar
	out := []Prep{}
	add := func(code string, loss float64, f fact.Figures, cautions ...string) {
		out = append(out, Prep{Code: code, LossMm3: loss, Figures: f, CautionCodes: append([]string{}, cautions...)})
	}
	if _, known := stock.FindOrigin(r.req.Origin.ID); known {
		add("prep.look", 0, nil, "caution.unknownParts")
	}
	if r.bar.PrepLossMm3 > 0 {
		add("prep.grindTeeth", r.bar.PrepLossMm3*cutShare, fact.Figures{"teethMm": p.TeethMm}, "caution.grinder")
	}
	if len(p.Dead) > 0 || len(p.Holes) > 0 {
		add("prep.cutOut", 0, fact.Figures{"fromMm": r.bar.FromMm, "toMm": r.bar.FromMm + r.bar.LengthMm}, "caution.grinder")
	}
	switch p.Form {
	case stock.Coil:
		add("prep.cutTurns", 0, fact.Figures{"turns": p.Turns}, "caution.springs", "caution.grinder")
	case stock.Race:
		add("prep.cutRing", 0, nil, "caution.shards", "caution.grinder")
	case stock.Ball, stock.Roller, stock.TaperedRound:
		add("prep.tack", 0, nil, "caution.shards", "caution.welding")
	case stock.Disc:
		add("prep.cutStrip", 0, fact.Figures{"stripMm": p.StripWidthMm, "lengthMm": r.bar.WholeMm}, "caution.grinder")
	case stock.Chain:
		add("prep.openLink", 0, nil, "caution.plating")
	case stock.Cable, stock.Layers:
		add("prep.weldSolid", 0, nil, "caution.plating", "caution.flux")
	}
	if r.req.Choices.Holding == WeldedRod {
		code, f, caution := "prep.weldRod", fact.Figures(nil), "caution.welding"
		if seam := r.req.seamMm(); seam > 0 {
			high, thick := r.req.Design.Tang.At(seam)
			code, f = "prep.weldTang", fact.Figures{"heightMm": high, "thicknessMm": thick, "lengthMm": r.req.Design.Tang.LengthMm - seam, "atMm": seam}
		}
		if r.req.Choices.RodWeld == InTheFire {
			code, caution = code+"Fire", "caution.grinder"
		}
		add(code, 0, f, caution)
	}
	return out
}

// warnOrigin: hazards stop a plan, for good or until they are seen to.
func (r *route) warnOrigin(add adder) {
	seen := map[string]bool{}
	for _, a := range r.req.Origin.Acknowledged {
		seen[a] = true
	}
	for _, id := range r.req.Origin.Hazards {
		h, ok := stock.FindHazard(id)
		switch {
		case !ok:
		case h.Refuse:
			add("hazard."+id, fact.Stop, fact.Where{}, nil)
		case !seen[id]:
			add("hazard."+id, fact.Stop, fact.Where{}, fact.Figures{"acknowledge": 1})
		default:
			add("hazard."+id, fact.Note, fact.Where{}, nil)
		}
	}
	if r.req.Choices.Holding == WeldedRod && r.req.Design.Tang.WeldAtMm == 0 && r.req.Forged == nil {
		add("warn.rodWeld", fact.Note, fact.Where{Zone: ZoneTang}, nil)
	}
}
