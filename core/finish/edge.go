package finish

import (
	"math"

	"coldember/core/fact"
	"coldember/core/section"
)

// Edge is the sharpened edge: how wide its bevel comes out, and what it stands on.
type Edge struct {
	AngleDeg float64 `json:"angleDeg" doc:"of a side, to the middle plane"`
	// BehindMm is the thickness behind it, where its bevel begins, in the middle of the blade.
	BehindMm float64 `json:"behindMm"`
	BevelMm  float64 `json:"bevelMm" doc:"width of the bevel that is seen, of a side"`
	LostMm   float64 `json:"lostMm" doc:"of the blade's height, that sharpening takes"`
}

// EdgeOf is the edge of a knife. The bevel of a side is half the thickness behind the edge over the
// sine of the angle; of a blade ground on one side all of it.
func EdgeOf(w *Work) Edge {
	b := w.Steel.Finished
	sec := b.SectionAt(b.LengthMm() * .5)
	e := Edge{AngleDeg: w.Choices.edgeDeg(w.Design.Use), BehindMm: sec.ThicknessAt(0)}
	half := e.BehindMm / 2
	if sec.Kind == section.Chisel {
		half = e.BehindMm
	}
	a := e.AngleDeg * math.Pi / 180
	// the faces run apart above the edge, so the bevel climbs on until it meets them
	slope := math.Tan(sec.EdgeAngleDeg() / 2 * math.Pi / 180)
	up := 0.0
	if t := math.Tan(a); t > slope {
		up = half / (t - slope)
	}
	e.BevelMm = up / math.Cos(a)
	return e
}

// handle are the steps of fitting.
func (l *laying) handle() {
	w := l.w
	h := w.Design.Handle
	if h == nil || w.Design.TangKind.Bare() {
		return
	}
	o := HandleOf(w, 0)
	add := func(id string, minutes float64, figures fact.Figures, cautions []string, codes ...string) {
		l.add(Step{ID: id, Stage: "handle", Codes: codes, Figures: figures, Cautions: cautions}, effort{minutes: minutes})
	}
	for _, s := range o.Slots {
		codes := []string{"finish.slot." + s.What}
		if s.WedgeDeg > 0 {
			codes = append(codes, "finish.wedge")
		}
		add(s.What, slotMin, fact.Figures{"slotMm": s.LengthMm, "widthMm": s.WidthMm, "drillMm": s.DrillMm, "holes": float64(s.Holes), "pitchMm": s.PitchMm, "wedgeDeg": s.WedgeDeg, "shimMm": s.ShimMm}, []string{"caution.drill"}, codes...)
	}
	if b := o.Bore; b != nil {
		add("bore", boreMin, fact.Figures{"depthMm": b.DepthMm, "drillMm": b.DrillMm, "holes": float64(b.Holes), "mouthMm": b.MouthHeightMm, "wideMm": b.MouthWidthMm, "coreMm": b.CoreMm}, boreCautions(b.Fit), "finish.bore", "finish.fit."+string(b.Fit))
		add("notches", notchesMin, fact.Figures{"notches": float64(b.Notches), "ventMm": b.VentMm}, nil, "finish.notches")
	}
	if s := o.Scales; s != nil {
		add("scales", scalesMin, fact.Figures{"thickMm": s.ThicknessMm, "longMm": s.LengthMm, "pins": float64(len(s.Pins)), "holes": float64(s.GlueHoles)}, []string{"caution.dust"}, "finish.scales")
		add("fronts", frontsMin, nil, nil, "finish.fronts")
	}
	add("trial", trialMin, fact.Figures{"glueMin": o.GlueMin}, nil, "finish.trial")
	add("glue", glueWorkMin, fact.Figures{"glueMin": o.GlueMin}, []string{"caution.glue"}, "finish.glue")
	add("shape", shapeMin, fact.Figures{"widthMm": h.WidthMm, "midMm": h.MidHeightMm}, []string{"caution.dust", "caution.grinder"}, "finish.shape")
}

func boreCautions(f Fit) []string {
	if f == Burnt {
		return []string{"caution.drill", "caution.burnIn"}
	}
	return []string{"caution.drill"}
}

// edge are the last steps.
func (l *laying) edge() {
	e := EdgeOf(l.w)
	l.add(Step{ID: "edge", Stage: "edge", Codes: []string{"finish.edge"}, Figures: fact.Figures{"angleDeg": e.AngleDeg, "bevelMm": e.BevelMm, "behindMm": e.BehindMm}, Cautions: []string{"caution.sharp"}}, effort{minutes: sharpenMin})
	if c := l.w.Choices.Cover; c == Leather || c == Thermo {
		s := SheathOf(l.w)
		l.add(Step{ID: "sheath", Stage: "edge", Codes: []string{"finish.sheath." + string(c)}, Figures: fact.Figures{"wrapMm": s.WrapMm, "longMm": s.LongMm, "weltMm": s.WeltMm}, Cautions: []string{"caution.sharp"}}, effort{minutes: sheathMin})
	}
	l.add(Step{ID: "look", Stage: "edge", Codes: []string{"finish.look"}}, effort{minutes: inspectMin})
}
