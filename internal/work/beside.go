package work

import (
	"context"
	"errors"
	"math"

	"coldember/core/colour"
	"coldember/core/plan"
	"coldember/core/practice"
	"coldember/core/replan"
	"coldember/core/session"
	"coldember/internal/edit"
)

// Beside is what was practised heat by heat, beside the planner's own way and, of a piece of work, beside its log.
type Beside struct {
	Mine []HeatSeen `json:"mine"`
	Way  []HeatSeen `json:"way" doc:"of the plan, or of an experienced smith where there is no plan"`
	Real []HeatSeen `json:"real,omitempty" doc:"as the piece was forged, by its log"`
}

// HeatSeen is a piece as it is after a heat.
type HeatSeen struct {
	Heat     int      `json:"heat" doc:"0: the bar"`
	Work     []string `json:"work,omitempty" doc:"operations of the plan"`
	Struck   int      `json:"struck" doc:"blows in it"`
	TimeS    float64  `json:"timeS" doc:"of it, fire and anvil"`
	LengthMm float64  `json:"lengthMm"`
	At       []SeenAt `json:"at"`
	Read     []SeenAt `json:"read,omitempty" doc:"measured in it: the sizes that were read, 0 for those that were not"`
	Faults   []string `json:"faults,omitempty"`
}

// SeenAt is its size at a place.
type SeenAt struct {
	XMm     float64 `json:"x"`
	WideMm  float64 `json:"wideMm"`
	ThickMm float64 `json:"thickMm"`
}

// Beside plays what was done heat by heat. Errors are those of playing it.
func (w *Work) Beside(ctx context.Context, exercise, pieceID string, seed uint64, room colour.Room, actions []practice.Action) (*Beside, error) {
	ex, err := w.Exercise(ctx, exercise, pieceID)
	if err != nil {
		return nil, err
	}
	mine, err := practice.Heats(ctx, ex, seed, room, actions)
	if err != nil {
		return nil, edit.Invalid(err)
	}
	out := &Beside{Mine: seenOf(mine)}
	if pieceID != "" {
		return out, w.besidePlan(ctx, out, pieceID)
	}
	way, err := practice.Pilot(ctx, ex, seed)
	if err != nil {
		return nil, edit.Invalid(err)
	}
	steps, err := practice.Heats(ctx, ex, seed, room, way)
	out.Way = seenOf(steps)
	return out, edit.Invalid(err)
}

// seenOf is a play, heat by heat.
func seenOf(steps []practice.Step) []HeatSeen {
	out := []HeatSeen{}
	blows, time := 0, 0.0
	for _, s := range steps {
		h := HeatSeen{Heat: s.Heat, Struck: s.After.Blows - blows, TimeS: s.After.TimeS - time, LengthMm: s.After.LengthMm}
		blows, time = s.After.Blows, s.After.TimeS
		for _, p := range s.After.Places {
			h.At = append(h.At, SeenAt{p.XMm, p.WideMm, p.ThickMm})
		}
		for _, f := range s.After.Faults {
			h.Faults = append(h.Faults, string(f.Kind))
		}
		out = append(out, h)
	}
	return out
}

// shoulderShare is how much lower a section is than the one before it where that is a shoulder, and no taper.
const shoulderShare = 0.05

// shapeSeen is a drawn shape, thinned to what is seen; a shoulder stands upright in it.
func shapeSeen(shape []plan.Station) (at []SeenAt, length float64) {
	step := max(1, len(shape)/80)
	for i := 0; i < len(shape); i += step {
		s := &shape[i]
		thick := s.ThicknessMm
		if s.EdgeMm > 0 {
			thick = (thick + s.EdgeMm) / 2
		}
		seen := SeenAt{s.XMm, s.HeightMm(), thick}
		if n := len(at); n > 0 && shape[i-step].Zone != s.Zone && math.Abs(math.Log(seen.WideMm/at[n-1].WideMm)) > shoulderShare {
			at = append(at, SeenAt{s.XMm, at[n-1].WideMm, at[n-1].ThickMm})
		}
		at = append(at, seen)
	}
	if n := len(shape); n > 0 {
		length = shape[n-1].XMm
	}
	return at, length
}

// besidePlan adds the heats of a piece's plan, and those of its log.
func (w *Work) besidePlan(ctx context.Context, out *Beside, pieceID string) error {
	piece, err := w.Piece(ctx, pieceID)
	if err != nil {
		return err
	}
	p, err := w.Plan(ctx, piece.Doc)
	if err != nil {
		return err
	}
	bar := HeatSeen{LengthMm: p.Bar.StartMm3 / math.Max(1, p.Bar.AreaMm2)}
	bar.At = []SeenAt{{0, p.Bar.WidthMm, p.Bar.ThicknessMm}, {bar.LengthMm, p.Bar.WidthMm, p.Bar.ThicknessMm}}
	out.Way = []HeatSeen{bar}
	for i := range p.Heats[:min(len(p.Heats), p.Totals.Heats)] {
		h := &p.Heats[i]
		s := HeatSeen{Heat: h.Number, Struck: h.Blows, TimeS: h.FireS + h.CarryS + h.WorkS + h.BrushS}
		s.At, s.LengthMm = shapeSeen(h.Shape)
		for _, part := range h.Parts {
			s.Work = append(s.Work, string(plan.KindOf(part.Operation)))
		}
		out.Way = append(out.Way, s)
	}
	switch fire, err := w.FireOf(ctx, pieceID); {
	case errors.Is(err, ErrNotFound):
		return nil
	case err != nil:
		return err
	default:
		events, err := w.Happened(ctx, fire.ID, 0)
		if err != nil {
			return err
		}
		out.Real = append([]HeatSeen{bar}, logSeen(&fire.Doc.Course, events)...)
		return nil
	}
}

// logSeen is a log, heat by heat: the piece as what was read of it tells, over how it was planned to be by then. What is read when
// it is forged, at the cycles, is of the last of them.
func logSeen(c *session.Course, events []session.Event) (out []HeatSeen) {
	book := session.BookOf(c, events)
	drawn := replan.Drawn{}
	var shape []plan.Station
	for i := range book.Heats {
		h := &book.Heats[i]
		if h.Heat < 1 || h.Heat > len(c.Heats) {
			continue
		}
		if !c.Cycles(h.Heat) {
			s := HeatSeen{Heat: len(out) + 1, Struck: h.Blows, TimeS: h.FireS + h.WorkS}
			for _, k := range h.Steps {
				s.Work = append(s.Work, c.Steps[k.Step].Kind)
			}
			for _, f := range book.Faults {
				if f.OfTrip == h.Number && f.Fault != nil {
					s.Faults = append(s.Faults, string(f.Fault.Kind))
				}
			}
			out, shape = append(out, s), c.Heats[h.Heat-1].Shape
		}
		if len(out) > 0 {
			out[len(out)-1].read(&book, h.Number, shape, &drawn)
		}
	}
	return out
}

// read adds what was read on a trip, and draws the piece as it is told then, that was planned to have this shape.
func (s *HeatSeen) read(book *session.Book, trip int, shape []plan.Station, drawn *replan.Drawn) {
	for _, r := range book.Readings {
		if r.OfTrip != trip || r.Reading == nil {
			continue
		}
		what := plan.Measure(r.Reading.Quantity)
		drawn.Read(shape, what, r.Reading.AtMm, r.Reading.Mm, r.WantMm)
		switch at := (SeenAt{XMm: r.Reading.AtMm}); {
		case r.Reading.Quantity == session.Length:
			drawn.Long(shape, r.Reading.Mm)
		case what == plan.Height:
			at.WideMm = r.Reading.Mm
			s.Read = append(s.Read, at)
		case what == plan.Thickness:
			at.ThickMm = r.Reading.Mm
			s.Read = append(s.Read, at)
		}
	}
	s.At, s.LengthMm = shapeSeen(drawn.Shape(shape))
}
