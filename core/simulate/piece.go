package simulate

import (
	"context"
	"errors"
	"math"
	"math/rand/v2"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/session"
	"coldember/core/whatif"
)

// What instruments are off by, as standard deviations (judgement: vernier calipers on scaly
// steel, a kitchen scale, a pyrometer on a surface that flakes).
const (
	caliperMm   = .06
	scaleG      = .5
	pyrometerC  = 8
	stopC       = 12 // where this smith really stops, about the limit
	mostRetries = 6
)

// Piece is a hidden piece of steel.
type Piece struct {
	Planned *plan.Plan // the plan it is forged by
	was     *plan.Plan // what it comes to
	course  session.Course
	shares  [][][2]float64 // of its operation that each part of each heat does
	massG   []float64      // after every heat it really takes
	seed    uint64
}

// New draws a piece around a request. Where those hands cannot do the work at all, others are
// drawn.
func New(ctx context.Context, req plan.Request, seed uint64) (*Piece, error) {
	doubt := whatif.UsualDoubt()
	var last error
	for try := range uint64(mostRetries) {
		rng := rand.New(rand.NewPCG(seed, try))
		as, err := doubt.Draw(req, rng.Float64)
		if err != nil {
			return nil, err
		}
		if req.Fire.StopC == 0 {
			as.Fire.StopsByC = stopC * rng.NormFloat64()
		}
		as.Learned = nil // what is drawn is drawn around the laws
		planned, was, err := planner.InOtherHands(ctx, req, as)
		var fields fact.FieldErrors
		if errors.As(err, &fields) && try+1 < mostRetries {
			last = err
			continue
		}
		if err != nil {
			return nil, err
		}
		return pieceOf(&req, planned, was, seed), nil
	}
	return nil, last
}

// Course is the plan as it is walked at the fire.
func (p *Piece) Course() *session.Course { return &p.course }

// Heats is how many it really takes.
func (p *Piece) Heats() int { return len(p.was.Heats) }

// ColdS is how long heat n really lasts, s from the fire; n counts from 1.
func (p *Piece) ColdS(n int) float64 { return p.was.Heats[n-1].LimitS }

// Weigh is what a scale says after heat n.
func (p *Piece) Weigh(n int) float64 {
	return math.Round((p.massG[n-1]+scaleG*p.noise(n, 1))*2) / 2
}

// Caliper is what calipers say after heat n at a place, mm; ok is false where the piece has no
// such place or the measure is none of a section.
func (p *Piece) Caliper(n int, m plan.Measure, atMm float64) (mm float64, ok bool) {
	shape := p.was.Heats[n-1].Shape
	if len(shape) == 0 || atMm < -1 || atMm > shape[len(shape)-1].XMm+1 {
		return 0, false
	}
	best := &shape[0]
	for i := range shape {
		if math.Abs(shape[i].XMm-atMm) < math.Abs(best.XMm-atMm) {
			best = &shape[i]
		}
	}
	switch m {
	case plan.Height:
		mm = best.HeightMm()
	case plan.Thickness:
		mm = best.ThicknessMm
	case plan.EdgeThickness:
		if mm = best.EdgeMm; mm == 0 {
			mm = best.ThicknessMm
		}
	default:
		return 0, false
	}
	return math.Max(.1, math.Round((mm+caliperMm*p.noise(n, 2+int(atMm)))*100)/100), true
}

// Pyrometer is what one says s seconds after the piece left the fire in heat n, °C.
func (p *Piece) Pyrometer(n int, s float64) float64 {
	h := &p.was.Heats[n-1]
	c := p.was.Totals.SoakC
	for i, m := range h.Curve {
		if m.S > s {
			break
		}
		c = m.C
		if i+1 < len(h.Curve) {
			if next := h.Curve[i+1]; next.S > m.S {
				c += (next.C - m.C) * math.Min(1, (s-m.S)/(next.S-m.S))
			}
		}
	}
	return math.Round(c + pyrometerC*p.noise(n, 1000+int(s)))
}

// noise is a figure of the normal distribution that belongs to a heat and a question: asked
// twice, it is the same.
func (p *Piece) noise(n, of int) float64 {
	return rand.New(rand.NewPCG(p.seed^0x9e3779b97f4a7c15, uint64(n)<<32|uint64(of))).NormFloat64()
}
