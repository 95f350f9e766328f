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

// workFrom returns the work (mJ) and its slope from q to another share of what
// is left, at the temperatures that the cells have now. Cells that go past the
// measured strain before the end are looked at one by one.
func (r *Run) workFrom(rec *Heat, q float64) func(to float64) (w, slope float64) {
	var a, b, line float64
	r.over = r.over[:0]
	for i := rec.First; i <= rec.Last; i++ {
		e, f := &r.work[i], r.law.At(r.Bar.Cells[i].TempC, r.work[i].logRate)
		r.outOfRange = r.outOfRange || !f.InRange || e.strain > steel.MaxStrain
		k := e.volumeMm3 * e.redundancy * r.Shop.Steel.FlowFactor * f.BaseMPa
		switch from := steel.MaxStrain / e.strain; {
		case e.strain <= steel.MaxStrain:
			a, b = a+k*e.a, b+k*e.b
		case q >= from:
			line += k * e.strain * r.held.StressMPa(steel.MaxStrain)
		default:
			r.over = append(r.over, overstrained{
				from: from, a: k * e.a, b: k * e.b,
				whole: k * r.held.Integral(steel.MaxStrain), slope: k * e.strain * r.held.StressMPa(steel.MaxStrain),
			})
		}
	}
	n := r.held.Exponent
	at := func(to float64) (w, slope float64) {
		p := 0.0
		if to > 0 {
			p = math.Exp(n * math.Log(to))
		}
		w, slope = (a*p-b*to+line)*to, a*(n+1)*p-2*b*to+line
		for i := range r.over {
			if c := &r.over[i]; to <= c.from {
				w, slope = w+(c.a*p-c.b*to)*to, slope+c.a*(n+1)*p-2*c.b*to
			} else {
				w, slope = w+c.whole+c.slope*(to-c.from), slope+c.slope
			}
		}
		return w, slope
	}
	done, _ := at(q)
	return func(to float64) (w, slope float64) {
		w, slope = at(to)
		return w - done, slope
	}
}

// overstrained is a worked cell whose work turns into a line at a share of what is left,
// where it goes past the measured strain.
type overstrained struct{ from, a, b, whole, slope float64 }
