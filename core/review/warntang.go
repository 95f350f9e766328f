package review

import (
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// Limits of tang and handle: common practice, stated beside each warning.
const (
	handleWallMm     = 3.0
	handleHeightMm   = 26.0 // a usual handle over a hidden tang, where none is drawn
	sharpShoulderMm  = 1.5
	weldInsideMm     = 25.0 // behind the shoulder, at least
	spineStepMm      = 1.5
	pushAngleDeg     = 15.0
	holeRimMm        = 3.0
	shortTangShare   = 0.5 // of the handle
	tangFitsWithinMm = 0.5
)

// warnTang: what the handle leaves around the tang, and where holes, weld and
// shoulder stand.
func warnTang(r *route.Route, p *plan.Plan, add adder) {
	d := &r.Req.Design
	t, k := &d.Tang, d.TangKind
	drawing := fact.Where{Zone: plan.ZoneTang, Operation: string(forge.DrawTang)}
	here := fact.Where{Zone: plan.ZoneTang}
	if h := d.Handle; h != nil {
		if w := p.Whole.LeastWallMm; w < handleWallMm {
			add("warn.handleWall", fact.Warn, drawing, fact.Figures{"wallMm": w, "leastMm": handleWallMm, "atMm": p.Whole.WallAtMm})
		}
		warnHandle(r, p, h, add)
	} else if k.Within() {
		if wall := (handleHeightMm - t.HeightAtShoulderMm) / 2; wall < handleWallMm {
			add("warn.tangWall", fact.Warn, drawing, fact.Figures{"wallMm": wall, "leastMm": handleWallMm, "handleMm": handleHeightMm})
		}
	}
	if v := t.ShoulderRadiusMm; v > 0 && v < sharpShoulderMm {
		add("warn.shoulderSharp", fact.Warn, fact.Where{Zone: plan.ZoneTang, Operation: string(forge.SetDown)}, fact.Figures{"radiusMm": v, "leastMm": sharpShoulderMm})
	}
	if v := t.WeldAtMm; v > 0 && v < weldInsideMm {
		add("warn.weldSeam", fact.Stop, here, fact.Figures{"atMm": v, "leastMm": weldInsideMm})
	}
	if k == blade.HiddenTang && len(t.Holes) > 0 {
		add("warn.hiddenHole", fact.Note, here, nil)
	}
	made := d.MadeTang()
	for i, h := range t.Holes {
		high, _ := made.At(h.AtMm)
		if rim, least := h.AtMm-h.HalfMm(), math.Max(blade.LeastHoleAtMm, 2*h.DiameterMm); rim < least {
			add("warn.holeShoulder", fact.Warn, here, fact.Figures{"rimMm": rim, "leastMm": least, "toMm": least + h.HalfMm(), "hole": float64(i + 1)})
		}
		if rim := made.RimMm(h); rim < holeRimMm {
			add("warn.holeRim", fact.Warn, here, fact.Figures{"rimMm": rim, "leastMm": holeRimMm, "atMm": h.AtMm, "heightMm": high, "hole": float64(i + 1)})
		}
	}
}

// warnHandle: does the tang fit it, does the spine flow into it, does the point
// stand in line with the push.
func warnHandle(r *route.Route, p *plan.Plan, h *blade.Handle, add adder) {
	here := fact.Where{Zone: plan.ZoneTang}
	t := r.Req.Design.Tang.LengthMm
	whole := h.Guard.LengthMm + h.Bolster.LengthMm + h.LengthMm + h.Pommel.LengthMm
	switch k := r.Req.Design.TangKind; {
	case t > whole+tangFitsWithinMm:
		add("warn.tangLong", fact.Warn, here, fact.Figures{"byMm": t - whole, "handleMm": whole})
	case k == blade.FullTang && t < whole-h.Pommel.LengthMm-tangFitsWithinMm:
		add("warn.fullTangShort", fact.Note, here, fact.Figures{"byMm": whole - h.Pommel.LengthMm - t})
	case k == blade.HiddenTang && t < whole*shortTangShare:
		add("warn.tangShort", fact.Warn, here, fact.Figures{"tangMm": t, "leastMm": whole * shortTangShare})
	}
	if s := p.Whole.StepMm; math.Abs(s) > spineStepMm {
		code := "warn.spineStepDown"
		if s < 0 {
			code = "warn.spineStepUp"
		}
		add(code, fact.Note, fact.Where{Zone: plan.ZoneRicasso}, fact.Figures{"stepMm": math.Abs(s)})
	}
	if a := p.Whole.PointAngleDeg; math.Abs(a) > pushAngleDeg {
		code := "warn.pointHigh"
		if a < 0 {
			code = "warn.pointLow"
		}
		add(code, fact.Note, fact.Where{Zone: plan.ZonePoint}, fact.Figures{"angleDeg": math.Abs(a), "usualDeg": pushAngleDeg})
	}
}
