package finish

import (
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/harden"
	"coldember/core/section"
)

// Work is what the steps of finishing are laid out of.
type Work struct {
	Design  blade.Design
	Steel   Steel
	Choices Choices
	// QuenchEdgeMm is how thick the edge is at the quench, and Left how all of it is left for it.
	QuenchEdgeMm float64
	Left         harden.Left
	// AsForged: it was hardened as it was forged, so that all of it is ground hard.
	AsForged bool
	// TemperC is what the blade is tempered at; 0: not known.
	TemperC float64
	// Layered: of several steels, so that an etch shows them.
	Layered bool
	// Paces are what the log says of the times.
	Paces Paces
	// HandleHides: guard or handle covers part of the faces.
	HandleHides bool
}

// Target is the thickness to come to at a place of the blade.
type Target struct {
	XMm    float64 `json:"xMm" doc:"from the point"`
	EdgeMm float64 `json:"edgeMm"`
	MidMm  float64 `json:"midMm" doc:"half way up"`
	BackMm float64 `json:"backMm" doc:"spine"`
}

// Step is one step of finishing: sentences by code with their figures and words.
type Step struct {
	ID       string            `json:"id"`
	Stage    string            `json:"stage" enum:"soft,hard,handle,edge"`
	Codes    []string          `json:"codes"`
	Figures  fact.Figures      `json:"figures,omitempty"`
	Words    map[string]string `json:"words,omitempty"`
	Grit     int               `json:"grit,omitempty"`
	Minutes  float64           `json:"minutes"`
	LowMin   float64           `json:"lowMin"`
	HighMin  float64           `json:"highMin"`
	Belts    float64           `json:"belts,omitempty"`
	MassG    float64           `json:"massG,omitempty" doc:"that comes off"`
	Targets  []Target          `json:"targets,omitempty"`
	DipS     float64           `json:"dipS,omitempty" doc:"dip or cool after so many seconds at the belt"`
	Cautions []string          `json:"cautions,omitempty"`
}

// laying lays steps out one after another.
type laying struct {
	w      *Work
	layers []layer
	off    map[string]float64 // "what zone" → mm³ of the map
	sides  float64            // area of both faces of the blade that is ground, mm²
	steps  []Step
}

// layer is one grit with what it takes off blade and ricasso, mm³.
type layer struct {
	grade
	blade, ricasso float64
}

// Steps are the steps of finishing in the order they are done. What comes off in them is what the
// map says.
func Steps(w *Work) []Step { return steps(w, w.Steel.ground()) }

// ground is what is ground off a blade: place by place of its faces, and part by part.
type ground struct {
	faces []node
	off   map[string]float64 // "what zone" → mm³ of the map
}

func (s *Steel) ground() *ground {
	g := &ground{off: map[string]float64{}}
	regions, _ := s.Regions()
	for _, r := range regions {
		g.off[r.What+" "+r.Zone] += r.VolumeMm3
	}
	s.overFaces(func(n node) { g.faces = append(g.faces, n) })
	return g
}

func steps(w *Work, g *ground) []Step {
	l := newLaying(w, g)
	l.shapeSteps()
	l.faceSteps()
	l.handle()
	l.edge()
	return l.steps
}

// newLaying shares out what is ground off among the grits: each takes the steel down to what it
// leaves for those that follow, and never under the finish.
func newLaying(w *Work, ground *ground) *laying {
	l := &laying{w: w, off: ground.off}
	for _, g := range w.Choices.grades(w.surface(), w.AsForged) {
		l.layers = append(l.layers, layer{grade: g})
	}
	for _, n := range ground.faces {
		if n.isMm > n.finMm+hairMm || !w.Steel.KeepsFlats {
			l.sides += 2 * n.areaMm2
		}
		was := n.isMm
		for i := range l.layers {
			to := math.Min(was, w.after(&l.layers[i].grade, n))
			l.layers[i].blade += (was - to) * n.areaMm2
			was = to
		}
	}
	if r := w.Steel.Finished.Blade.Ricasso; r != nil {
		side := r.LengthMm * r.HeightMm
		was := w.afterFlats(math.Max(0, l.off["faces ricasso"]/side))
		for i := range l.layers {
			if g := &l.layers[i]; !g.soft {
				to := math.Min(was, 2*g.leftMm)
				g.ricasso, was = (was-to)*side, to
			}
		}
	}
	return l
}

// surface is what the faces are left at.
func (w *Work) surface() Surface { return w.Choices.SurfaceOf(w.Layered) }

// after is how thick a place is once a grit has gone over it, if there is as much: mm.
func (w *Work) after(g *grade, n node) float64 {
	if !g.soft {
		return math.Max(n.finMm, n.finMm+2*g.leftMm)
	}
	return math.Max(n.finMm, w.Left.ThicknessMm(n.edgeMm, n.finMm, n.share, n.isMm)+2*g.leftMm)
}

// afterFlats is what the flats leave on the ricasso over its finished thickness, of what there is.
func (w *Work) afterFlats(overMm float64) float64 {
	if w.AsForged || w.Choices.Hardened {
		return overMm
	}
	return math.Min(overMm, 2*w.Left.FaceMm)
}

func (l *laying) add(s Step, e effort) {
	p := l.w.Paces.of(&s)
	s.Minutes, s.Belts = e.minutes*p.Factor, e.belts
	s.LowMin, s.HighMin = s.Minutes/p.Doubt, s.Minutes*p.Doubt
	if s.Figures == nil {
		s.Figures = fact.Figures{}
	}
	if s.Words == nil {
		s.Words = map[string]string{}
	}
	l.steps = append(l.steps, s)
}

// dust and belts are dangers of every step at the grinder.
var grinderCautions = []string{"caution.grinder", "caution.dust"}

// leastProfileG is what is worth a step of its own once the outline was ground already.
const leastProfileG = .05

// shapeSteps are outline, flats and holes: on soft steel, but for a blade that was hardened as it
// was forged.
func (l *laying) shapeSteps() {
	w, grit, worn := l.w, l.w.Choices.grit(), l.w.Choices.Worn
	stage, hard := "soft", w.AsForged || w.Choices.Hardened
	if hard {
		stage = "hard"
	}
	profile := math.Max(0, l.off["profile blade"]+l.off["profile ricasso"]+l.off["profile tang"])
	if !w.Choices.Hardened || grams(profile) > leastProfileG {
		l.add(Step{ID: "profile", Stage: stage, Codes: []string{"finish.profile"}, Grit: grit, MassG: grams(profile), Cautions: grinderCautions},
			beltMin(grit, profile, hard, worn).at(profiling, facesMm2(w.Steel.Finished)))
	}
	if w.Choices.Hardened {
		return
	}
	if flats, area := l.flats(); area > 0 {
		s := Step{ID: "flats", Stage: stage, Codes: []string{"finish.flats.tang"}, Grit: grit, MassG: grams(flats), Figures: fact.Figures{}, Cautions: grinderCautions}
		if r := w.Steel.Finished.Blade.Ricasso; r != nil && !w.Steel.KeepsFlats {
			over := math.Max(0, l.off["faces ricasso"]/(r.LengthMm*r.HeightMm))
			s.Codes, s.Figures["ricassoMm"] = []string{"finish.flats", "finish.hold.magnet"}, r.ThicknessMm+w.afterFlats(over)
		}
		l.add(s, beltMin(grit, flats, hard, worn).at(flatting, area))
	}
	if n := float64(len(w.Design.Tang.Holes)); n > 0 {
		s := Step{ID: "holes", Stage: stage, Codes: []string{"finish.holes"}, Figures: fact.Figures{"holes": n}, Cautions: []string{"caution.drill"}}
		if hard {
			s.Codes = append(s.Codes, "finish.softFirst")
		}
		l.add(s, effort{minutes: holeMin * n})
	}
	l.add(Step{ID: "scribe", Stage: stage, Codes: []string{"finish.scribe"}, Figures: fact.Figures{"edgeMm": w.QuenchEdgeMm}}, effort{minutes: scribeMin})
}

// flats are what the flats of ricasso and tang come to before the finer grits, mm³, and the area of
// both sides of them, mm².
func (l *laying) flats() (mm3, areaMm2 float64) {
	b := l.w.Steel.Finished.Blade
	mm3 = math.Max(0, l.off["faces tang"])
	if r := b.Ricasso; r != nil && !l.w.Steel.KeepsFlats {
		side := r.LengthMm * r.HeightMm
		over := math.Max(0, l.off["faces ricasso"]/side)
		mm3 += (over - l.w.afterFlats(over)) * side
		areaMm2 += 2 * side
	}
	if t := b.Tang; t != nil {
		h0, _ := t.At(0)
		h1, _ := t.At(t.LengthMm)
		areaMm2 += t.LengthMm * (h0 + h1)
	}
	return mm3, areaMm2
}

// set is how the bevel is held: the angle to set, the height where it stops, the wheel.
func (l *laying) set() Step {
	w := l.w
	heel := w.Steel.Finished.SectionAt(w.Steel.Finished.LengthMm() * .7)
	deg, high := heel.Set()
	s := Step{Figures: fact.Figures{"setDeg": deg, "highMm": high}, Words: map[string]string{}}
	hold := w.Choices.Hold
	if hold == "" {
		hold = FreeHand
	}
	s.Words["hold"] = "hold." + string(hold)
	switch {
	case heel.Kind == section.Hollow:
		s.Codes = append(s.Codes, "finish.wheel")
		s.Figures["wheelMm"] = heel.WheelRadiusMm
	case deg > 0 && (heel.Kind == section.Convex || heel.Kind == section.Lens):
		s.Codes = append(s.Codes, "finish.slack")
	case deg > 0:
		s.Codes = append(s.Codes, "finish.set")
	}
	if p := w.Steel.Finished.Blade.Grind.PlungeMm; p > 0 {
		s.Codes = append(s.Codes, "finish.plunge")
		s.Figures["plungeMm"] = p
		s.Figures["plungeRadiusMm"] = PlungeRadiusMm(p, heel.SpineMm/2)
	}
	if back, backHigh := heel.BackSet(); back > 0 {
		s.Codes = append(s.Codes, "finish.falseEdge")
		s.Figures["backDeg"], s.Figures["backMm"] = back, backHigh
	}
	return s
}

// PlungeRadiusMm is the radius that follows a plunge which runs out over a length to a depth: that
// of the smooth step where it turns most sharply, at its ends.
func PlungeRadiusMm(longMm, deepMm float64) float64 { return longMm * longMm / (6 * deepMm) }

// dip is how long the edge can be at a belt: the steel of the edge under a belt takes the heat up.
func (l *laying) dip(grit int) float64 {
	w := l.w
	if w.TemperC <= UnderTemperC+roomC {
		return 0
	}
	const beltMm, highMm = 50.0, 12.0
	x := w.Steel.Finished.LengthMm() * .4
	sec := w.Steel.Finished.SectionAt(x)
	mean := (sec.ThicknessAt(0) + sec.ThicknessAt(math.Min(highMm, sec.HeightMm))) / 2
	mass := grams(math.Min(beltMm, w.Steel.Finished.LengthMm()) * math.Min(highMm, sec.HeightMm) * mean)
	s, err := DipS(beltOf[grit].mm3PerS*hardShare, mass, w.TemperC-UnderTemperC, 0)
	if err != nil {
		return 0
	}
	return s
}

// targets are the thicknesses that a grit brings the blade to near the point, in the middle and near
// the heel.
func (w *Work) targets(g *grade) (out []Target) {
	m := w.Steel.measured()
	for _, at := range []float64{.15, .5, .85} {
		x := w.Steel.Finished.LengthMm() * at
		c := w.Steel.cutAt(x)
		of := func(share float64) float64 {
			n := node{x: x, y: c.fin.HeightMm * share, share: share, edgeMm: c.fin.ThicknessAt(0)}
			n.finMm = c.fin.ThicknessAt(n.y)
			is, _, ok := c.asIs(m, x, n.y)
			if !ok {
				return n.finMm
			}
			n.isMm, n.finMm = is, c.finished(n.y, is)
			return math.Max(n.finMm, math.Min(is, w.after(g, n)))
		}
		out = append(out, Target{x, of(0), of(.5), of(1)})
	}
	return out
}

// facesMm2 is the area of both faces of the blade proper.
func facesMm2(b *blade.Body) (a float64) {
	const n = 200
	for i := range n {
		x := b.LengthMm() * (float64(i) + .5) / n
		a += 2 * (b.SpineY(x) - b.EdgeY(x)) * b.LengthMm() / n
	}
	return a
}
