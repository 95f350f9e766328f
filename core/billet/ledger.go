package billet

import (
	"fmt"
	"math"
	"slices"
)

// Layer is one layer of a stack, from the underside up.
type Layer struct {
	SteelID     string  `json:"steel"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// Kind is a step of the work on a billet.
type Kind string

// The steps.
const (
	Clean      Kind = "clean"      // both faces of every layer ground bright
	Weld       Kind = "weld"       // set and drawn at welding heat
	Draw       Kind = "draw"       // to a section, its volume kept
	Crop       Kind = "crop"       // both ends together
	GrindSides Kind = "grindSides" // each side of the width
	Restack    Kind = "restack"    // cut across, ground, laid on each other
	Fold       Kind = "fold"       // hinged over on itself: two pieces, the second upside down
)

// Kinds lists them.
func Kinds() []Kind { return []Kind{Clean, Weld, Draw, Crop, GrindSides, Restack, Fold} }

// Step is one step; only the figures of its kind are looked at.
type Step struct {
	Kind            Kind    `json:"kind" enum:"clean,weld,draw,crop,grindSides,restack,fold"`
	PerFaceMm       float64 `json:"perFaceMm,omitempty"`
	LossFraction    float64 `json:"lossFraction,omitempty" doc:"of the length, to scale and to what is squeezed out; of a weld that counts its own heats 0"`
	Heats           int     `json:"heats,omitempty" doc:"of a weld: its loss is then computed from the fire"`
	WidthMm         float64 `json:"widthMm,omitempty"`
	ThicknessMm     float64 `json:"thicknessMm,omitempty"`
	EndsMm          float64 `json:"endsMm,omitempty"`
	PerSideMm       float64 `json:"perSideMm,omitempty"`
	Pieces          int     `json:"pieces,omitempty"`
	KerfMm          float64 `json:"kerfMm,omitempty"`
	TurnEverySecond bool    `json:"turnEverySecond,omitempty"`
}

// Billet is what is laid and what is done to it.
type Billet struct {
	Stack    []Layer `json:"stack" doc:"from the underside; repeated"`
	Repeats  int     `json:"repeats"`
	Cap      []Layer `json:"cap,omitempty" doc:"on top of the last repeat"`
	WidthMm  float64 `json:"widthMm"`
	LengthMm float64 `json:"lengthMm"`
	Steps    []Step  `json:"steps"`
}

// State is the billet after a step.
type State struct {
	Step        string  `json:"step"`
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	LengthMm    float64 `json:"lengthMm"`
	VolumeMm3   float64 `json:"volumeMm3"`
	Layers      int     `json:"layers" doc:"touching layers of one steel count as one"`
	LostMm3     float64 `json:"lostMm3" doc:"by this step"`

	// Laid are the layers as they are then, from the underside, those of one steel that touch as
	// one.
	Laid []Layer `json:"-"`
	// Drawn are the same where they are few enough to be drawn one by one.
	Drawn []Layer `json:"drawn,omitempty"`
}

// Bounds.
const (
	MostLayers = 20_000
	mostSteps  = 40
	mostDrawn  = 160
	mostMm     = 2000
)

// Error says which step cannot be, why, and the figure that would do.
type Error struct {
	Step  int // −1: the stack
	Code  string
	Field string
	Limit float64
}

func (e *Error) Error() string {
	return fmt.Sprintf("billet: step %d: %s (%s, %.3g)", e.Step+1, e.Code, e.Field, e.Limit)
}

// Run goes through the steps: the stack as it is laid first. Errors are *Error; the states up to
// it are returned with it.
func (b *Billet) Run() ([]State, error) {
	if err := b.check(); err != nil {
		return nil, err
	}
	var laid []Layer
	for range max(1, b.Repeats) {
		laid = append(laid, b.Stack...)
	}
	laid = append(laid, b.Cap...)
	w := work{width: b.WidthMm, length: b.LengthMm, laid: laid}
	out := []State{w.state("stack", 0)}
	for i := range b.Steps {
		before := w.volume()
		if err := w.take(i, &b.Steps[i]); err != nil {
			return out, err
		}
		out = append(out, w.state(string(b.Steps[i].Kind), before-w.volume()))
	}
	return out, nil
}

func (b *Billet) check() error {
	switch n := len(b.Stack)*max(1, b.Repeats) + len(b.Cap); {
	case len(b.Stack) == 0:
		return &Error{-1, "billet.empty", "stack", 1}
	case n > MostLayers || b.Repeats < 0:
		return &Error{-1, "billet.layers", "repeats", MostLayers}
	case !(b.WidthMm >= 3 && b.WidthMm <= mostMm):
		return &Error{-1, "billet.width", "widthMm", 3}
	case !(b.LengthMm >= 10 && b.LengthMm <= mostMm):
		return &Error{-1, "billet.length", "lengthMm", 10}
	case len(b.Steps) > mostSteps:
		return &Error{-1, "billet.steps", "steps", mostSteps}
	}
	for i, l := range append(slices.Clone(b.Stack), b.Cap...) {
		if !(l.ThicknessMm >= .01 && l.ThicknessMm <= 200) || l.SteelID == "" {
			return &Error{-1, "billet.layer", fmt.Sprintf("stack.%d.thicknessMm", i), .01}
		}
	}
	return nil
}

// work is the billet in hand.
type work struct {
	width, length float64
	laid          []Layer
}

func (w *work) thickness() (mm float64) {
	for _, l := range w.laid {
		mm += l.ThicknessMm
	}
	return mm
}

func (w *work) volume() float64 { return w.width * w.thickness() * w.length }

func (w *work) state(step string, lost float64) State {
	joined := merged(w.laid)
	t := w.thickness()
	s := State{Step: step, WidthMm: w.width, ThicknessMm: t, LengthMm: w.length, VolumeMm3: w.width * t * w.length, Layers: len(joined), LostMm3: lost, Laid: joined}
	if len(joined) <= mostDrawn {
		s.Drawn = joined
	}
	return s
}

// merged joins touching layers of one steel.
func merged(laid []Layer) (out []Layer) {
	for _, l := range laid {
		if n := len(out); n > 0 && out[n-1].SteelID == l.SteelID {
			out[n-1].ThicknessMm += l.ThicknessMm
		} else {
			out = append(out, l)
		}
	}
	return out
}

func (w *work) take(i int, s *Step) error {
	switch s.Kind {
	case Clean:
		return w.clean(i, s)
	case Weld:
		if !(s.LossFraction >= 0 && s.LossFraction < .6) {
			return &Error{i, "billet.loss", "lossFraction", .6}
		}
		w.length *= 1 - s.LossFraction
	case Draw:
		return w.draw(i, s)
	case Crop:
		if !(s.EndsMm >= 0 && s.EndsMm < w.length) {
			return &Error{i, "billet.cropped", "endsMm", w.length}
		}
		w.length -= s.EndsMm
	case GrindSides:
		if !(s.PerSideMm >= 0 && 2*s.PerSideMm < w.width) {
			return &Error{i, "billet.groundAway", "perSideMm", w.width / 2}
		}
		w.width -= 2 * s.PerSideMm
	case Restack:
		return w.restack(i, s, s.Pieces, s.TurnEverySecond)
	case Fold:
		return w.restack(i, s, 2, true)
	default:
		return &Error{i, "field.choice", "kind", 0}
	}
	return nil
}

// clean grinds both faces of every layer.
func (w *work) clean(i int, s *Step) error {
	thinnest := slices.MinFunc(w.laid, func(a, b Layer) int {
		if a.ThicknessMm < b.ThicknessMm {
			return -1
		}
		return 1
	}).ThicknessMm
	if s.PerFaceMm < 0 || 2*s.PerFaceMm >= thinnest {
		return &Error{i, "billet.groundAway", "perFaceMm", thinnest / 2}
	}
	laid := slices.Clone(w.laid)
	for k := range laid {
		laid[k].ThicknessMm -= 2 * s.PerFaceMm
	}
	w.laid = laid
	return nil
}

// draw brings it to a section; its volume stays.
func (w *work) draw(i int, s *Step) error {
	if !(s.WidthMm >= 2 && s.WidthMm <= mostMm) {
		return &Error{i, "billet.width", "widthMm", 2}
	}
	if !(s.ThicknessMm >= .5 && s.ThicknessMm <= mostMm) {
		return &Error{i, "billet.thickness", "thicknessMm", .5}
	}
	k := s.ThicknessMm / w.thickness()
	w.length *= w.width / s.WidthMm / k
	laid := slices.Clone(w.laid)
	for j := range laid {
		laid[j].ThicknessMm *= k
	}
	w.laid, w.width = laid, s.WidthMm
	return nil
}

// restack cuts across, grinds the top and the bottom of each piece, and lays them on each other.
func (w *work) restack(i int, s *Step, pieces int, turned bool) error {
	if pieces < 2 || pieces > 60 {
		return &Error{i, "billet.pieces", "pieces", 60}
	}
	length := (w.length - float64(pieces-1)*s.KerfMm) / float64(pieces)
	if !(s.KerfMm >= 0) || length <= 0 {
		return &Error{i, "billet.pieceShort", "pieces", math.Floor(w.length / math.Max(.1, s.KerfMm))}
	}
	if t := w.thickness(); !(s.PerFaceMm >= 0) || 2*s.PerFaceMm >= t {
		return &Error{i, "billet.groundAway", "perFaceMm", t / 2}
	}
	if len(w.laid)*pieces > MostLayers {
		return &Error{i, "billet.layers", "pieces", float64(MostLayers / max(1, len(w.laid)))}
	}
	piece := ground(w.laid, s.PerFaceMm)
	upside := slices.Clone(piece)
	slices.Reverse(upside)
	var laid []Layer
	for k := range pieces {
		if turned && k%2 == 1 {
			laid = append(laid, upside...)
		} else {
			laid = append(laid, piece...)
		}
	}
	w.laid, w.length = merged(laid), length
	return nil
}

// ground takes so much off the top and the bottom, through thin layers if it must.
func ground(laid []Layer, mm float64) []Layer {
	out := slices.Clone(laid)
	for range 2 {
		left := mm
		for left > 0 && len(out) > 0 {
			if out[0].ThicknessMm > left {
				out[0].ThicknessMm -= left
				break
			}
			left -= out[0].ThicknessMm
			out = out[1:]
		}
		slices.Reverse(out)
	}
	return out
}
