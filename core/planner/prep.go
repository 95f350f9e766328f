package planner

import (
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// prepare lists what a form asks for before it is forged.
func prepare(r *route.Route, cutShare float64) []plan.Prep {
	p := &r.Req.Bar
	out := []plan.Prep{}
	add := func(code string, loss float64, f fact.Figures, cautions ...string) {
		out = append(out, plan.Prep{Code: code, LossMm3: loss, Figures: f, CautionCodes: append([]string{}, cautions...)})
	}
	if _, known := stock.FindOrigin(r.Req.Origin.ID); known {
		add("prep.look", 0, nil, "caution.unknownParts")
	}
	if r.Bar.PrepLossMm3 > 0 {
		add("prep.grindTeeth", r.Bar.PrepLossMm3*cutShare, fact.Figures{"teethMm": p.TeethMm}, "caution.grinder")
	}
	if len(p.Dead) > 0 || len(p.Holes) > 0 {
		add("prep.cutOut", 0, fact.Figures{"fromMm": r.Bar.FromMm, "toMm": r.Bar.FromMm + r.Bar.LengthMm}, "caution.grinder")
	}
	switch p.Form {
	case stock.Coil:
		add("prep.cutTurns", 0, fact.Figures{"turns": p.Turns}, "caution.springs", "caution.grinder")
	case stock.Race:
		add("prep.cutRing", 0, nil, "caution.shards", "caution.grinder")
	case stock.Ball, stock.Roller, stock.TaperedRound:
		add("prep.tack", 0, nil, "caution.shards", "caution.welding")
	case stock.Disc:
		if r.Req.SawnOut() {
			break // not out of a strip of it
		}
		add("prep.cutStrip", 0, fact.Figures{"stripMm": p.StripWidthMm, "lengthMm": r.Bar.WholeMm}, "caution.grinder")
	case stock.Chain:
		add("prep.openLink", 0, nil, "caution.plating")
	case stock.Cable, stock.Layers:
		add("prep.weldSolid", 0, nil, "caution.plating", "caution.flux")
	}
	if r.Req.SawnOut() {
		add("prep.sawOut", 0, nil, "caution.grinder", "caution.shards")
	}
	if r.Req.Choices.Holding == plan.WeldedRod {
		code, f, caution := "prep.weldRod", fact.Figures(nil), "caution.welding"
		if seam := r.Req.SeamMm(); seam > 0 {
			tang := r.Req.Design.MadeTang()
			high, thick := tang.At(seam)
			code, f = "prep.weldTang", fact.Figures{"heightMm": high, "thicknessMm": thick, "lengthMm": r.Req.Design.Tang.LengthMm - seam, "atMm": seam}
		}
		if r.Req.Choices.RodWeld == plan.InTheFire {
			code, caution = code+"Fire", "caution.grinder"
		}
		add(code, 0, f, caution)
	}
	return out
}
