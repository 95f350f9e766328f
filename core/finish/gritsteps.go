package finish

import (
	"strconv"

	"coldember/core/fact"
)

// faceSteps are the grits over the faces one after another, with the quench between them, and the
// surface.
func (l *laying) faceSteps() {
	hard := false
	for i := range l.layers {
		switch g := &l.layers[i]; {
		case g.soft:
			l.softGrit(g)
		case g.hand:
			if hard {
				l.hidden()
				hard = false
			}
			l.sanded(g, i == len(l.layers)-1)
		default:
			l.hardGrit(g, !hard)
			hard = true
		}
	}
	if hard {
		l.hidden()
	}
	l.surfaceSteps()
	l.add(Step{ID: "mark", Stage: "hard", Codes: []string{"finish.mark"}}, effort{minutes: markMin})
}

// softGrit is a grit before the quench: the bevels, or along them.
func (l *laying) softGrit(g *layer) {
	w := l.w
	s, b := Step{ID: g.id, Codes: []string{"finish.along"}, Figures: fact.Figures{}}, alongBelt
	if g.id == "bevels" {
		s, b = l.set(), bevelling
		s.ID, s.Codes = g.id, append([]string{"finish.bevels"}, s.Codes...)
		s.Figures["edgeMm"] = w.QuenchEdgeMm
	}
	s.Stage, s.Grit, s.MassG, s.Cautions, s.Targets = "soft", g.grit, grams(g.blade), grinderCautions, w.targets(&g.grade)
	l.add(s, beltMin(g.grit, g.blade, false, w.Choices.Worn).at(b, l.sides))
}

// hardGrit is a belt after the quench, cool; the first brings the shape, the others take its
// scratches out.
func (l *laying) hardGrit(g *layer, first bool) {
	w := l.w
	off := g.blade + g.ricasso
	s, b := Step{Codes: []string{"finish.grit"}, Figures: fact.Figures{"grit": float64(g.grit), "deepMm": g.beforeMm}}, gritBelt
	if first {
		s, b = l.set(), hardFirst
		s.Codes = append([]string{"finish.hard"}, s.Codes...)
		if w.AsForged {
			b = bevelling
		}
		s.Cautions = []string{"caution.grindCool"}
	}
	if s.Figures["leftMm"] = g.leftMm; g.leftMm <= 0 {
		s.Codes = append(s.Codes, "finish.toFinish")
	} else {
		s.Codes = append(s.Codes, "finish.leaves")
	}
	s.ID, s.Stage, s.Grit, s.MassG, s.Targets = g.id, "hard", g.grit, grams(off), w.targets(&g.grade)
	s.Cautions = append(s.Cautions, grinderCautions...)
	if s.DipS = l.dip(g.grit); s.DipS > 0 && first {
		s.Codes = append(s.Codes, "finish.dip")
		s.Figures["dipS"], s.Figures["limitC"] = s.DipS, w.TemperC-UnderTemperC
	}
	l.add(s, beltMin(g.grit, off, true, w.Choices.Worn).at(b, l.sides))
}

// hidden is what guard and handle will cover, which nobody reaches later.
func (l *laying) hidden() {
	if l.w.HandleHides {
		l.add(Step{ID: "hidden", Stage: "hard", Codes: []string{"finish.hidden"}}, effort{minutes: hiddenMin})
	}
}

// sanded is a paper by hand: across and along by turns, the last along.
func (l *laying) sanded(g *layer, last bool) {
	code := "finish.sandAlong"
	if !last && g.grit != 400 && g.grit != 800 {
		code = "finish.sandAcross"
	}
	l.add(Step{
		ID: g.id, Stage: "hard", Codes: []string{code}, Grit: g.grit, MassG: grams(g.blade + g.ricasso), Targets: l.w.targets(&g.grade),
		Figures: fact.Figures{"grit": float64(g.grit), "deepMm": g.beforeMm}, Cautions: []string{"caution.sharp"},
	}, effort{minutes: 2 + l.sides/100/paper[g.grit]})
}

// surfaceSteps are what a surface asks for after its last grit.
func (l *laying) surfaceSteps() {
	w := l.w
	switch w.surface() {
	case AsForged:
		l.add(Step{ID: "brush", Stage: "hard", Codes: []string{"finish.brush"}, Cautions: []string{"caution.wireWheel"}}, effort{}.at(brushed, facesMm2(w.Steel.Finished)))
	case Etched:
		code := "finish.etchLine"
		if w.Layered {
			code = "finish.etchPattern"
		}
		l.add(Step{ID: "etch", Stage: "hard", Codes: []string{"finish.etch", code}, Cautions: []string{"caution.acid"}}, effort{minutes: etchMin})
	case Mirror:
		l.add(Step{ID: "buff", Stage: "hard", Codes: []string{"finish.buff"}, Cautions: []string{"caution.buff"}}, effort{}.at(buffed, l.sides))
	}
}

func hardID(grit int) string { return "hard-" + strconv.Itoa(grit) }

const sandPrefix = "sand-"

func sandID(grit int) string { return sandPrefix + strconv.Itoa(grit) }
