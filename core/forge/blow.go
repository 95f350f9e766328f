package forge

import (
	"math"

	"coldember/core/steel"
)

// blow solves how far one blow of energy (mJ) carries the stretch from q, all
// cells alike. It returns the step, and what part of the blow the way to the
// end would have taken if the step goes past it.
//
// The work to reach q is a·q^(n+1) − b·q² summed over the cells, so that the
// solution takes one power a turn, however many cells there are; past the
// measured strain it goes on with the line that the law is held at there.
func (r *Run) blow(rec *Heat, q, energy, guess float64) (step, partToEnd float64) {
	if energy == 0 {
		return 0, 0
	}
	took := r.workFrom(rec, q)
	if w, _ := took(1); w <= energy {
		return 1.0000001 - q, w / energy
	}
	step = math.Min(guess, 1-q)
	for range 20 {
		w, slope := took(q + step)
		next := step - (w-energy)/slope
		if next <= 0 {
			next = step / 4
		}
		if math.Abs(next-step) < 1e-6*step {
			return next, 1
		}
		step = next
	}
	return step, 1
}

// flow is how one steel of the piece gives way, and what its cells sum up to while a
// blow is solved.
type flow struct {
	grade steel.Grade
	law   steel.Law
	held  steel.Flow // of one MPa

	a, b, line float64
	power      float64 // of the share that is asked for
}

func newFlow(g steel.Grade) flow {
	return flow{grade: g, law: steel.NewLaw(g.CarbonPct), held: steel.Flow{BaseMPa: 1, Exponent: steel.Exponent(g.CarbonPct)}}
}

// workFrom returns the work (mJ) and its slope from q to another share of what
// is left, at the temperatures that the cells have now. Cells that go past the
// measured strain before the end are looked at one by one.
func (r *Run) workFrom(rec *Heat, q float64) func(to float64) (w, slope float64) {
	for k := range r.flows {
		f := &r.flows[k]
		f.a, f.b, f.line = 0, 0, 0
	}
	r.over = r.over[:0]
	for i := rec.First; i <= rec.Last; i++ {
		c := &r.Bar.Cells[i]
		s := &r.flows[c.Steel]
		e, f := &r.work[i], s.law.At(c.TempC, r.work[i].logRate)
		r.outOfRange = r.outOfRange || !f.InRange || e.strain > steel.MaxStrain
		k := e.volumeMm3 * e.redundancy * s.grade.FlowFactor * f.BaseMPa
		switch from := steel.MaxStrain / e.strain; {
		case e.strain <= steel.MaxStrain:
			s.a, s.b = s.a+k*e.a, s.b+k*e.b
		case q >= from:
			s.line += k * e.strain * s.held.StressMPa(steel.MaxStrain)
		default:
			r.over = append(r.over, overstrained{
				steel: c.Steel, from: from, a: k * e.a, b: k * e.b,
				whole: k * s.held.Integral(steel.MaxStrain), slope: k * e.strain * s.held.StressMPa(steel.MaxStrain),
			})
		}
	}
	done, _ := r.workTo(q)
	return func(to float64) (w, slope float64) {
		w, slope = r.workTo(to)
		return w - done, slope
	}
}

// workTo is the work from nought to a share, of what workFrom has summed up.
func (r *Run) workTo(to float64) (w, slope float64) {
	for k := range r.flows {
		f := &r.flows[k]
		f.power = 0
		if n := f.held.Exponent; to > 0 {
			f.power = math.Exp(n * math.Log(to))
		}
		w, slope = w+(f.a*f.power-f.b*to+f.line)*to, slope+(f.a*(f.held.Exponent+1)*f.power-2*f.b*to+f.line)
	}
	for i := range r.over {
		c := &r.over[i]
		f := &r.flows[c.steel]
		if to <= c.from {
			w, slope = w+(c.a*f.power-c.b*to)*to, slope+c.a*(f.held.Exponent+1)*f.power-2*c.b*to
		} else {
			w, slope = w+c.whole+c.slope*(to-c.from), slope+c.slope
		}
	}
	return w, slope
}

// overstrained is a worked cell whose work turns into a line at a share of what is left,
// where it goes past the measured strain.
type overstrained struct {
	steel                    int
	from, a, b, whole, slope float64
}
