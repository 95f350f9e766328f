package device

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"

	"coldember/core/session"
	"coldember/core/simulate"
	"coldember/internal/work"
)

// How a simulated instrument errs (judgement): the noise of a hand with calipers on scaly steel, of a pyrometer and of a
// scale; how often it says nothing at all, and how often it was left in another unit.
const (
	caliperMm   = .06
	pyrometerC  = 8.0
	scaleG      = .4
	dropsOneIn  = 25
	unitOneIn   = 30
	emptiesIn   = 4000 // readings of a battery
	gPerOunce   = 28.349523125
	hiddenSeeds = 0x5eed
)

// Instrument is a simulated caliper, pyrometer, scale or pedal: it reads the hidden piece of steel of the session at the
// fire, with the errors of its kind.
type Instrument struct {
	Kind session.Instrument
	ID   string
	Seq  int
	rng  *rand.Rand
	used int

	of    string // the session that truth is of
	truth []session.Event
}

// NewInstrument is one of a kind; its id and its errors are drawn from a seed, and its lines are counted from a number that
// rises with time.
func NewInstrument(kind session.Instrument, id string, seed uint64, fromSeq int) *Instrument {
	return &Instrument{Kind: kind, ID: id, Seq: fromSeq, rng: rand.New(rand.NewPCG(seed, hiddenSeeds))}
}

// hidden is the piece of steel of a session: of the same session every instrument reads the same one.
func (i *Instrument) hidden(ctx context.Context, w *work.Waiting) error {
	if i.of == w.Session {
		return nil
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(w.Session))
	p, err := simulate.New(ctx, w.Request, h.Sum64())
	if err != nil {
		return err
	}
	i.of, i.truth = w.Session, p.Tell(simulate.Wish{Device: "hidden", BeginMs: 1, Every: 1})
	return nil
}

// Read is the next line of an instrument, of what is wanted; ok is false where there is nothing to read, or it says nothing
// this once. A pedal is always pressed.
func (i *Instrument) Read(ctx context.Context, w *work.Waiting) (l work.ReadLine, ok bool, err error) {
	i.used++
	l = work.ReadLine{ID: i.ID, Kind: string(i.Kind), Battery: math.Max(.03, 1-float64(i.used)/emptiesIn)}
	if i.Kind != session.Pedal {
		if err := i.hidden(ctx, w); err != nil {
			return l, false, err
		}
		if i.rng.IntN(dropsOneIn) == 0 {
			return l, false, nil
		}
	}
	other := i.rng.IntN(unitOneIn) == 0
	round := func(v, step float64) float64 { return math.Round(v/step) * step }
	switch i.Kind {
	case session.Pedal:
		l.Battery = 0
	case session.Caliper:
		if len(w.Wanted) == 0 {
			return l, false, nil
		}
		l.Value, l.Unit, l.Resolution = round(i.is(&w.Wanted[0], w.Phase)+caliperMm*i.rng.NormFloat64(), .01), "mm", .01
		if other { // it is read as if it were still in millimetres
			l.Unit = "in"
		}
	case session.Pyrometer:
		l.Value, l.Unit, l.Resolution = math.Round(w.NowC+pyrometerC*i.rng.NormFloat64()), "C", 1
		if other {
			l.Value, l.Unit = math.Round(l.Value*1.8+32), "F"
		}
	case session.Scale:
		l.Value, l.Unit, l.Resolution = round(i.weighs(w)+scaleG*i.rng.NormFloat64(), .5), "g", .5
		if other {
			l.Value, l.Unit, l.Resolution = round(l.Value/gPerOunce, .05), "oz", .05
		}
	}
	i.Seq++
	l.Seq = i.Seq
	return l, true, nil
}

// is what the hidden piece has at a station: what it was read at there, or near what is planned where it never was; hot
// where it is measured hot.
func (i *Instrument) is(w *session.Want, p session.Phase) float64 {
	best, near := w.Mm, math.Inf(1)
	for k := range i.truth {
		r := i.truth[k].Reading
		if i.truth[k].Step != w.Step || r == nil || r.Quantity != w.Quantity {
			continue
		}
		if d := math.Abs(r.AtMm - w.AtMm); d < near {
			best, near = r.Mm, d
		}
	}
	if p.Hot() && w.HotMm > 0 && w.Mm > 0 {
		best *= w.HotMm / w.Mm
	}
	return best
}

// weighs is what the hidden piece weighs: scale has taken some of it with every heat.
func (i *Instrument) weighs(w *work.Waiting) float64 {
	last := w.MassG
	for k := range i.truth {
		if r := i.truth[k].Reading; r != nil && r.Quantity == session.Weight {
			last = r.MassG
			if w.Heat <= 1 {
				break
			}
		}
	}
	return last
}
