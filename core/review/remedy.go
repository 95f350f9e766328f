package review

import (
	"fmt"
	"math"
	"strings"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
	"coldember/core/stock"
)

// remedyOf makes the edit that clears a warning; nil where none does.
type remedyOf func(r *route.Route, p *plan.Plan, w fact.Warning) *fact.Remedy

// setMm sets a field to one of the warning's figures.
func setMm(field, figure string) remedyOf {
	return func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: field, Mm: w.Figures[figure]}
	}
}

// setText sets a field to a choice.
func setText(field, text string) remedyOf {
	return func(*route.Route, *plan.Plan, fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: field, Text: text}
	}
}

// setC sets a field to one of the warning's temperatures.
func setC(field, figure string) remedyOf {
	return func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: field, Text: celsius(w.Figures[figure])}
	}
}

// takeFlat takes a flat bar whose width or thickness is one of the figures.
func takeFlat(dimension, figure string) remedyOf {
	return func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return otherFlat(r, dimension, w.Figures[figure])
	}
}

// remedies are the edits by the warning that they clear. What is not here is
// mended by no one edit: its words say what to do.
var remedies = map[string]remedyOf{
	"warn.hopeless":      helper,
	"warn.hopelessBlows": helper,
	"warn.edgeThin":      setMm("allowances.forgingEdgeMm", "leastMm"),
	"warn.faceSpread": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "tool." + w.Where.Operation, Text: plannersOrder}
	},
	"warn.lip": func(r *route.Route, _ *plan.Plan, _ fact.Warning) *fact.Remedy {
		if r.Req.Choices.Corners == plan.CornersLeft {
			return &fact.Remedy{Field: "choices.corners", Text: string(plan.CornersFirst)}
		}
		return &fact.Remedy{Field: "choices.order", Text: plannersOrder}
	},
	"warn.cold":    setC("fire.stopC", "lowC"),
	"warn.hot":     setC("fire.soakC", "limitC"),
	"warn.burning": setC("fire.soakC", "limitC"),
	"warn.volumeShort": func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return longerBar(r, w.Figures["shortMm"])
	},
	"warn.blankWide":      takeFlat("widthMm", "widthMm"),
	"warn.tooNarrow":      takeFlat("widthMm", "widthMm"),
	"warn.tooNarrowUpset": takeFlat("widthMm", "widthMm"),
	"warn.tooLight":       takeFlat("thicknessMm", "thicknessMm"),
	"warn.upsetBends":     takeFlat("thicknessMm", "needMm"),
	"warn.barThin":        takeFlat("thicknessMm", "needMm"),
	"warn.barHeavy":       takeFlat("thicknessMm", "needMm"),
	"warn.edgewiseFolds": func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return otherFlat(r, "thicknessMm", r.Bar.WidthMm/w.Figures["limit"])
	},
	"warn.grindHot":    setText("choices.harden", string(plan.HardenLater)),
	"warn.noHardening": setText("choices.harden", string(plan.HardenLater)),
	"warn.patternDeep": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		if need := w.Figures["needMm"]; need <= blade.MostFaceMm {
			return &fact.Remedy{Field: "allowances.faceMm", Mm: up(need, 20)}
		}
		return nil
	},
	"warn.gouge":     func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy { return gougeRemedy(r, w) },
	"warn.shortHeat": shortRemedy,
	"warn.decarb": func(r *route.Route, p *plan.Plan, _ fact.Warning) *fact.Remedy {
		if p.Suggested.FaceMm > r.Req.Allowances.FaceMm {
			return &fact.Remedy{Field: "allowances.faceMm", Mm: p.Suggested.FaceMm}
		}
		return nil
	},
	"warn.bitShort":      setMm("bit.lengthMm", "leastMm"),
	"warn.bitShallow":    setMm("bit.widthMm", "needMm"),
	"warn.formTight":     setMm("design.flatBend.radiusMm", "leastMm"),
	"warn.preCurveMost":  setText("choices.curve", string(plan.CorrectAsYou)),
	"warn.sweep":         setText("choices.curve", string(plan.PreCurveFirst)),
	"warn.shoulderSharp": setMm("design.tang.shoulderRadiusMm", "leastMm"),
	"warn.weldSeam": func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		if r.Req.Design.Tang.LengthMm > w.Figures["leastMm"] {
			return &fact.Remedy{Field: "design.tang.weldAtMm", Mm: w.Figures["leastMm"]}
		}
		return nil
	},
	"warn.handleWall": func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy { return wallRemedy(r, w) },
	"warn.tangWall": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "design.tang.heightAtShoulderMm", Mm: w.Figures["handleMm"] - 2*w.Figures["leastMm"]}
	},
	"warn.tangShort": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "design.tang.lengthMm", Mm: up(w.Figures["leastMm"], 10)}
	},
	"warn.fullTangShort": func(r *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "design.tang.lengthMm", Mm: up(r.Req.Design.Tang.LengthMm+w.Figures["byMm"], 10)}
	},
	"warn.holeShoulder": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: fmt.Sprintf("design.tang.holes.%.0f.atMm", w.Figures["hole"]-1), Mm: up(w.Figures["toMm"], 10)}
	},
	"warn.holeRim": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		if mm := down(w.Figures["heightMm"]-2*w.Figures["leastMm"], 10); mm >= leastHoleMm {
			return &fact.Remedy{Field: fmt.Sprintf("design.tang.holes.%.0f.diameterMm", w.Figures["hole"]-1), Mm: mm}
		}
		return nil
	},
	"warn.tangLong": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "design.tang.lengthMm", Mm: down(w.Figures["handleMm"], 10)}
	},
	"warn.spineStepDown": setText("design.handle.topDropMm", "0mm"),
	"warn.spineStepUp":   setText("design.handle.topDropMm", "0mm"),
	"warn.ricassoThin": func(_ *route.Route, _ *plan.Plan, w fact.Warning) *fact.Remedy {
		return &fact.Remedy{Field: "design.ricasso.thicknessMm", Mm: down(w.Figures["barMm"], 100)}
	},
}

// helper is a second pair of arms, or a machine where there is one.
func helper(r *route.Route, _ *plan.Plan, _ fact.Warning) *fact.Remedy {
	switch m := r.Req.Smith.Machine; {
	case m == nil:
		return &fact.Remedy{Field: "smith.machine", Text: string(forge.Striker)}
	case m.Kind == forge.Striker:
		return &fact.Remedy{Field: "smith.machine", Text: string(forge.PowerHammer)}
	}
	return nil
}

// remedyFor is the edit that clears a warning, where one does.
func remedyFor(r *route.Route, p *plan.Plan, w fact.Warning) *fact.Remedy {
	if strings.HasPrefix(w.Code, "warn.order.") {
		return &fact.Remedy{Field: "choices.order", Text: plannersOrder}
	}
	if of := remedies[w.Code]; of != nil {
		return of(r, p, w)
	}
	return nil
}

// leastHoleMm is the smallest hole that a remedy asks for.
const leastHoleMm = 2.0

// up and down round to whole parts of a millimetre, so many to one.
func up(mm, parts float64) float64 { return math.Ceil(mm*parts-1e-9) / parts }

func down(mm, parts float64) float64 { return math.Floor(mm*parts+1e-9) / parts }

// otherFlat is another flat bar, of a size that is sold: half millimetres of thickness,
// whole ones of width. Other forms are what they are.
func otherFlat(r *route.Route, figure string, mm float64) *fact.Remedy {
	if r.Req.Bar.Form != stock.Flat {
		return nil
	}
	sold := stock.SoldThicknessMm
	if figure == "widthMm" {
		sold = stock.SoldWidthMm
	}
	return &fact.Remedy{Field: "bar." + figure, Mm: sold(mm)}
}

// longerBar is a bar that is as much longer as this one is short.
func longerBar(r *route.Route, shortMm float64) *fact.Remedy {
	switch r.Req.Bar.Form {
	case stock.Flat, stock.Square, stock.Round, stock.Hex, stock.Octagon:
		return &fact.Remedy{Field: "bar.lengthMm", Mm: math.Ceil(r.Req.Bar.LengthMm + shortMm)}
	}
	return nil
}

// gougeRemedy leaves more on the ricasso, from a bar that has it.
func gougeRemedy(r *route.Route, w fact.Warning) *fact.Remedy {
	face := fact.Setting{Field: "allowances.faceMm", Mm: up(w.Figures["marksMm"], 20)}
	if r.Req.Allowances.Zones != nil {
		face.Field = "allowances.zones.ricassoFaceMm"
	}
	little := r.Req.Allowances.ByZone().RicassoFaceMm < w.Figures["marksMm"]
	if r.Bar.ThicknessMm >= w.Figures["barMm"]-1e-9 {
		return &fact.Remedy{Field: face.Field, Mm: face.Mm}
	}
	out := otherFlat(r, "thicknessMm", w.Figures["barMm"])
	if out != nil && little {
		out.And = []fact.Setting{face}
	}
	return out
}

// wallRemedy moves the tang within its handle, or lowers it, whichever is enough.
func wallRemedy(r *route.Route, w fact.Warning) *fact.Remedy {
	t := &r.Req.Design.Tang
	by := up(w.Figures["leastMm"]-w.Figures["wallMm"], 10)
	for _, try := range []struct {
		field string
		mm    float64
		of    func(*blade.Tang) *float64
	}{
		{"dropMm", t.DropMm + by, func(t *blade.Tang) *float64 { return &t.DropMm }},
		{"dropMm", t.DropMm - by, func(t *blade.Tang) *float64 { return &t.DropMm }},
		{"heightAtShoulderMm", t.HeightAtShoulderMm - 2*by, func(t *blade.Tang) *float64 { return &t.HeightAtShoulderMm }},
	} {
		d := r.Req.Design
		*try.of(&d.Tang) = try.mm
		c := fact.NewCheck()
		if d.Validate(c.Within("design")); c.Err() != nil {
			continue
		}
		body, err := blade.New(d.Blade())
		if err == nil && body.Assemble(d).LeastWallMm >= handleWallMm {
			return &fact.Remedy{Field: "design.tang." + try.field, Mm: try.mm}
		}
	}
	return nil
}

// shortRemedy is to work down to the steel's own limit where one's own is above it;
// or a hotter fire, where steel and forge allow one that lasts.
func shortRemedy(r *route.Route, p *plan.Plan, w fact.Warning) *fact.Remedy {
	if low := p.Steel.ForgeLowC; r.Req.Fire.StopC > low {
		return &fact.Remedy{Field: "fire.stopC", Text: celsius(low)}
	}
	soak := p.Steel.ForgeHighC - forge.UnderSteelC
	hotter := soak - w.Figures["soakC"]
	if hotter <= 0 || w.Figures["workS"]*(1+coolsFaster*hotter/(w.Figures["startC"]-w.Figures["lowC"])) < shortWindowS {
		return nil
	}
	if fire := soak + forge.UnderForgeC; r.Req.Fire.TempC < fire {
		if r.Req.Fire.SoakC > 0 || fire > hottestForgeC {
			return nil
		}
		return &fact.Remedy{Field: "fire.tempC", Text: celsius(math.Ceil(fire))}
	}
	return &fact.Remedy{Field: "fire.soakC", Text: celsius(math.Floor(soak))}
}
