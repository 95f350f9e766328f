package finish

import (
	"math"
	"strconv"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/section"
)

// Work is what the steps of finishing are laid out of.
type Work struct {
	Design  blade.Design
	Steel   Steel
	Choices Choices
	// QuenchEdgeMm is how thick the edge is left for the quench.
	QuenchEdgeMm float64
	// TemperC is what the blade is tempered at; 0: not known.
	TemperC float64
	// Layered: of several steels, so that an etch shows them; Line: a temper line is to be seen.
	Layered, Line bool
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

// leftAfterMm is what is left on each face for after the quench: the skin of the soak (judgement).
const leftAfterMm = .1

// laying lays steps out one after another.
type laying struct {
	w     *Work
	steps []Step
	faces float64 // area of both faces of the blade, mm²
}

// Steps are the steps of finishing in the order they are done.
func Steps(w *Work) []Step {
	l := &laying{w: w, faces: facesMm2(w.Steel.Finished)}
	m := w.Steel.Off(2, 2, nil)
	soft, hard := w.volumes()
	by := map[string]float64{}
	for _, r := range m.Regions {
		by[r.What+" "+r.Zone] += r.VolumeMm3
	}
	if !w.Choices.Hardened {
		l.before(by, soft)
	}
	l.after(hard)
	l.handle()
	l.edge()
	return l.steps
}

func (l *laying) add(s Step, p pass) {
	s.Minutes, s.Belts = p.minutes, p.belts
	s.LowMin, s.HighMin = p.minutes/minutesDoub, p.minutes*minutesDoub
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

// before is the grinding of soft steel.
func (l *laying) before(by map[string]float64, bevels float64) {
	w, grit := l.w, l.w.Choices.grit()
	l.add(Step{ID: "profile", Stage: "soft", Codes: []string{"finish.profile"}, Grit: grit, MassG: grams(by["profile blade"] + by["profile ricasso"] + by["profile tang"]), Cautions: grinderCautions},
		grind(grit, by["profile blade"]+by["profile ricasso"]+by["profile tang"], false, w.Choices.Worn))
	if r := w.Steel.Finished.Blade.Ricasso; r != nil {
		l.add(Step{
			ID: "flats", Stage: "soft", Codes: []string{"finish.flats", "finish.hold.magnet"}, Grit: grit, MassG: grams(by["faces ricasso"] + by["faces tang"]),
			Figures: fact.Figures{"ricassoMm": r.ThicknessMm + 2*leftAfterMm}, Cautions: grinderCautions,
		}, grind(grit, by["faces ricasso"]+by["faces tang"], false, w.Choices.Worn))
	}
	if len(w.Design.Tang.Holes) > 0 {
		l.add(Step{ID: "holes", Stage: "soft", Codes: []string{"finish.holes"}, Figures: fact.Figures{"holes": float64(len(w.Design.Tang.Holes))}, Cautions: []string{"caution.drill"}}, pass{minutes: 4 * float64(len(w.Design.Tang.Holes))})
	}
	l.add(Step{ID: "scribe", Stage: "soft", Codes: []string{"finish.scribe"}, Figures: fact.Figures{"edgeMm": w.QuenchEdgeMm}}, pass{minutes: 5})
	set := l.set()
	set.ID, set.Stage, set.Grit, set.MassG, set.Cautions = "bevels", "soft", grit, grams(bevels), grinderCautions
	set.Codes = append([]string{"finish.bevels"}, set.Codes...)
	set.Figures["edgeMm"] = w.QuenchEdgeMm
	set.Targets = w.targets(true)
	l.add(set, grind(grit, bevels, false, w.Choices.Worn))
	if grit < 120 { // scratches across an edge are where cracks begin
		p := grind(120, l.faces*scratchMm(grit, w.Choices.Worn), false, w.Choices.Worn)
		l.add(Step{ID: "along", Stage: "soft", Codes: []string{"finish.along"}, Grit: 120, Cautions: grinderCautions}, p)
	}
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

// after is the grinding of hard steel, cool, and the surface.
func (l *laying) after(mm3 float64) {
	w := l.w
	surface := w.Choices.Surface
	if surface == "" {
		surface = Sanded
		if w.Layered || w.Line {
			surface = Etched
		}
	}
	last := 400
	if surface == FromBelt {
		last = 220
	}
	first := max(60, w.Choices.grit())
	set := l.set()
	set.ID, set.Stage, set.Grit, set.MassG, set.Cautions = "hard-"+strconv.Itoa(first), "hard", first, grams(mm3), append([]string{"caution.grindCool"}, grinderCautions...)
	set.Codes = append([]string{"finish.hard"}, set.Codes...)
	set.DipS, set.Targets = l.dip(first), w.targets(false)
	if set.DipS > 0 {
		set.Codes = append(set.Codes, "finish.dip")
		set.Figures["dipS"], set.Figures["limitC"] = set.DipS, w.TemperC-UnderTemperC
	}
	l.add(set, grind(first, mm3, true, w.Choices.Worn))
	before := first
	for _, g := range ladder(first, last) {
		v := l.faces * scratchMm(before, w.Choices.Worn)
		s := Step{ID: "hard-" + strconv.Itoa(g), Stage: "hard", Codes: []string{"finish.grit"}, Grit: g, MassG: grams(v), DipS: l.dip(g), Figures: fact.Figures{"grit": float64(g), "before": float64(before), "deepMm": scratchMm(before, w.Choices.Worn)}, Cautions: grinderCautions}
		l.add(s, grind(g, v, true, w.Choices.Worn))
		before = g
	}
	if w.HandleHides {
		l.add(Step{ID: "hidden", Stage: "hard", Codes: []string{"finish.hidden"}}, pass{minutes: 10})
	}
	if surface == Sanded || surface == Etched {
		to := []int{320, 400, 600}
		for i, g := range to {
			code := "finish.sandAlong"
			if i%2 == 0 && i < len(to)-1 {
				code = "finish.sandAcross"
			}
			l.add(Step{ID: "sand-" + strconv.Itoa(g), Stage: "hard", Codes: []string{code}, Grit: g, Figures: fact.Figures{"grit": float64(g)}, Cautions: []string{"caution.sharp"}},
				pass{minutes: l.faces / 100 / sandedCm2PerS[g] / 60})
		}
	}
	if surface == Etched {
		code := "finish.etchLine"
		if w.Layered {
			code = "finish.etchPattern"
		}
		l.add(Step{ID: "etch", Stage: "hard", Codes: []string{"finish.etch", code}, Cautions: []string{"caution.acid"}}, pass{minutes: 45})
	}
	l.add(Step{ID: "mark", Stage: "hard", Codes: []string{"finish.mark"}}, pass{minutes: 10})
}

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

// volumes are what comes off the faces of the blade before the quench, to an edge of
// QuenchEdgeMm with a skin left, and what is left for after, mm³.
func (w *Work) volumes() (soft, hard float64) {
	const nx, ny = 80, 24
	length := w.Steel.Finished.LengthMm()
	for i := range nx {
		x := length * (float64(i) + .5) / nx
		sec := w.Steel.Finished.SectionAt(x)
		da := length / nx * sec.HeightMm / ny
		for k := range ny {
			u := (float64(k) + .5) / ny
			y := sec.HeightMm * u
			fin := sec.ThicknessAt(y)
			is, _, ok := w.Steel.AsIs(x, y)
			if !ok {
				continue
			}
			mid := math.Min(is, w.atQuench(&sec, u))
			soft += math.Max(0, is-mid) * da
			hard += math.Max(0, mid-fin) * da
		}
	}
	if w.Choices.Hardened {
		return 0, soft + hard
	}
	return soft, hard
}

// atQuench is the thickness to leave at a share of the height.
func (w *Work) atQuench(sec *section.Section, share float64) float64 {
	more := math.Max(2*leftAfterMm, w.QuenchEdgeMm-sec.ThicknessAt(0))
	return sec.ThicknessAt(sec.HeightMm*share) + more + (2*leftAfterMm-more)*share
}

// targets are the thicknesses to come to near the point, in the middle and near the heel.
func (w *Work) targets(soft bool) (out []Target) {
	for _, at := range []float64{.15, .5, .85} {
		x := w.Steel.Finished.LengthMm() * at
		sec := w.Steel.Finished.SectionAt(x)
		of := func(share float64) float64 {
			if soft {
				return w.atQuench(&sec, share)
			}
			return sec.ThicknessAt(sec.HeightMm * share)
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

func grams(mm3 float64) float64 { return mm3 * 7.85 / 1000 }
