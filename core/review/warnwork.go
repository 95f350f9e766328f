package review

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/heats"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// warnEdgewise: work on edge that has to go by turns, and steel so wide for its thickness
// that turns do not help, each as the operation finds it.
func warnEdgewise(p *plan.Plan, add adder) {
	const limit = route.BuckleRatio * route.TurnsHelp
	for _, st := range p.Operations {
		ratio := math.Round(10*st.Hammer().EdgeRatio) / 10 // no more is known of it
		at := fact.Where{Zone: st.Zones[0], Operation: st.ID}
		switch {
		case ratio > limit+1e-9:
			add("warn.edgewiseFolds", fact.Warn, at, fact.Figures{"ratio": ratio, "limit": limit})
		case ratio > route.BuckleRatio:
			add("warn.edgewise", fact.Note, at, fact.Figures{"ratio": ratio, "limit": route.BuckleRatio})
		}
	}
}

// warnUpset: a stretch to be upset; or one that stands too long for it, which is
// why the bar is too light there.
func warnUpset(r *route.Route, add adder) {
	first, last := r.Short()
	if first < 0 {
		return
	}
	f := fact.Figures{"freeMm": r.FreeMm(first, last), "limitMm": r.UpsetLimitMm()}
	at := fact.Where{Zone: r.Cells[first].Zone, Operation: string(forge.Upset), FromMm: r.Cells[first].FromMm, ToMm: r.Cells[last].ToMm}
	if f["freeMm"] > f["limitMm"] {
		at.Operation = ""
		for i := first; i <= last; i++ {
			f["needMm"] = math.Max(f["needMm"], r.Cells[i].Preform.WidthMm*r.Cells[i].Preform.ThicknessMm/r.Bar.WidthMm)
		}
		add("warn.upsetBends", fact.Warn, at, f)
		return
	}
	add("warn.upset", fact.Note, at, f)
}

// faceSlack is how far short of the spread that is needed a face may fall:
// diagonal blows and the horn make up for it (judgement).
const faceSlack = 0.03

// warnTools: a face of the smith's own that does not give the width.
func warnTools(r *route.Route, p *plan.Plan, add adder) {
	for _, t := range r.Req.Choices.Tools {
		for _, st := range p.Operations {
			if st.ID == t.Operation && st.Hammer().SpreadNeeded > st.Hammer().SpreadGiven+faceSlack {
				add("warn.faceSpread", fact.Warn, fact.Where{Operation: st.ID}, fact.Figures{"needed": st.Hammer().SpreadNeeded, "given": st.Hammer().SpreadGiven})
			}
		}
	}
}

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
func warnHeavy(r *route.Route, p *plan.Plan, add adder) {
	if r.Req.Forged != nil {
		return
	}
	need := r.Req.Design.Ricasso.ThicknessMm * r.Bar.WidthMm
	for _, c := range r.Cells {
		need = math.Max(need, c.Preform.WidthMm*c.Preform.ThicknessMm)
	}
	if r.Req.Bar.Form == stock.Flat {
		_, t := route.BarThatReaches(p.Feasibility, r.Req.Smith, r.Req.Choices.Method, r.Bar.WidthMm, r.Bar.ThicknessMm)
		need = math.Max(need, t*r.Bar.WidthMm)
	}
	thick := math.Ceil(need/r.Bar.WidthMm/wholeStepMm) * wholeStepMm
	if ratio := r.Bar.AreaMm2 / (thick * r.Bar.WidthMm); ratio > heavyOver {
		add("warn.barHeavy", fact.Note, fact.Where{}, fact.Figures{
			"ratio": ratio, "limit": heavyOver, "widthMm": r.Bar.WidthMm, "needMm": thick,
			"heats": float64(p.Totals.Heats), "timeS": p.Totals.TimeS,
		})
	}
}

// What nobody forges by hand (judgement): longer at the fire, or with fewer blows on the mean of the trips of an
// operation that takes several.
const (
	hopelessHours   = 10.0
	hopelessBlows   = 5.0
	severalOfThem   = 3.0
	secondsOfAnHour = 3600.0
)

// warnHopeless: more than a piece is worth, with what would do.
func warnHopeless(p *plan.Plan, add adder) {
	if hours := p.Totals.TimeS / secondsOfAnHour; hours > hopelessHours {
		add("warn.hopeless", fact.Stop, fact.Where{}, fact.Figures{"heats": float64(p.Totals.Heats), "hours": hours, "limit": hopelessHours})
		return
	}
	for _, st := range p.Operations {
		f := st.Forging
		if f == nil || f.Machine != "" || f.Strokes > 0 || st.Kind == string(forge.CutOff) || st.Heats < severalOfThem {
			continue
		}
		if each := f.Blows / st.Heats; each < hopelessBlows {
			add("warn.hopelessBlows", fact.Stop, fact.Where{Zone: st.Zones[0], Operation: st.ID}, fact.Figures{"heats": st.Heats, "blows": each, "limit": hopelessBlows})
			return // one cause, one finding
		}
	}
}

// warnTired: the first heat after which to rest, and how many there are.
func warnTired(r *route.Route, p *plan.Plan, add adder) {
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
			fact.Figures{"heat": float64(h.Number), "blows": math.Round(heats.RestAfterKg/math.Max(leastSwungKg, heats.Swings(r, p)[h.Parts[0].Operation])/10) * 10, "rests": float64(n)})
	}
}

// warnGouge: what is left on the faces of the ricasso is less deep than the
// marks of this hand: a gouge by the shoulder would stay.
func warnGouge(r *route.Route, add adder) {
	if r.Req.Forged != nil {
		return
	}
	d := r.Req.Design.Ricasso.ThicknessMm
	left := math.Min(r.Req.Allowances.ByZone().RicassoFaceMm, (r.Bar.ThicknessMm-d)/2)
	if marks := r.Req.Smith.MarksMm(); left >= 0 && left < marks-1e-9 {
		add("warn.gouge", fact.Warn, fact.Where{Zone: plan.ZoneRicasso, Operation: string(forge.SetDown)},
			fact.Figures{"leftMm": left, "marksMm": marks, "barMm": math.Max(r.Bar.ThicknessMm, d+2*marks)})
	}
}

// warnShort: heats that leave hardly any time at the anvil.
func warnShort(s *heats.Settled, add adder) {
	short := map[string]bool{}
	for i := range s.Run.Heats {
		h := &s.Run.Heats[i]
		if h.Fraction >= 1 && h.WorkS < shortWindowS && !short[h.Operation] && h.Blows > 0 {
			short[h.Operation] = true
			add("warn.shortHeat", fact.Note, fact.Where{Operation: h.Operation},
				fact.Figures{"workS": h.WorkS, "lowC": h.LowC, "startC": h.StartC, "soakC": s.Run.SoakC()})
		}
	}
}
