package forge

import (
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// hammer works the stretch blow by blow until it is done or the coldest worked
// cell is at the lower limit; it returns the fraction of what was left that was
// done (1: all) and fills the record.
func (r *Run) hammer(op *Operation, rec *Heat, remaining float64) (float64, error) {
	s, low := r.Setup.Smith, r.Setup.LowC()
	if op.LowC > 0 {
		low = op.LowC
	}
	d, err := r.driveOf(op, rec, remaining)
	if err != nil {
		return 0, err
	}
	r.contact = d.contact
	work, onEdge := 0.0, 0.0
	for i := rec.First; i <= rec.Last; i++ {
		var to *Target
		if op.Targets != nil {
			to = &op.Targets[i-op.First]
		}
		e := op.effort(s, d.biteMm, &r.Bar.Cells[i], to, remaining)
		e.logRate = math.Log(d.speedMPerS * 1000 / (2 * e.heightMm) / 10)
		e.a, e.b = steel.Coefficients(r.flows[r.Bar.Cells[i].Steel].held.Exponent, e.strain)
		r.work[i] = e
		work, onEdge = work+e.volumeMm3*e.strain*e.redundancy, onEdge+e.volumeMm3*e.strain*e.redundancy*e.onEdge
	}
	r.lie(rec.First, rec.Last)
	energy, dt := d.energyMJ, 1/d.ratePerS
	rec.StartC = r.coldest(rec.First, rec.Last)
	q, temp, spent := 0.0, rec.StartC, 0.0
	guess := 0.05
	r.note(rec, 0, temp)
	for temp > low && q < 1 {
		need, used := 0.0, 0.0
		if d.strokes > 0 {
			need, used = 1/d.strokes, (1-q)*d.strokes
		} else {
			need, used = r.blow(rec, q, energy, guess)
		}
		guess = need
		part := 1.0
		if q+need > 1 {
			part, need = used, 1-q
		}
		r.cool(dt * part)
		next := r.coldest(rec.First, rec.Last)
		if next < low && part*dt > 0 {
			// the lower limit comes within this blow: count it in part
			cut := (temp - low) / (temp - next)
			part *= cut
			need *= cut
		}
		if err := r.Budget.Spend(rec.Last - rec.First + 1); err != nil {
			return 0, err
		}
		q += need
		rec.Blows += part
		spent += part * dt
		temp = next
		r.note(rec, spent, math.Max(temp, low))
	}
	r.noteEnd(rec, spent, math.Max(temp, low))
	if work > 0 {
		rec.EdgeBlows = rec.Blows * onEdge / work
	}
	r.spill(r.Setup.Fire.CarryS + spent)
	rec.EndC, rec.WorkS, rec.Fraction = math.Max(temp, low), spent, 1
	if q >= 1-1e-12 {
		q = 1
		if temp > low {
			rec.Fraction = spent / (spent + r.windowLeft(rec, low))
		}
	}
	if op.Targets != nil {
		for i := rec.First; i <= rec.Last; i++ {
			r.Bar.Cells[i].advance(op.Targets[i-op.First], q)
		}
	}
	return q, nil
}

// curveStepS is how closely the cooling is noted.
const curveStepS = 1.0

// note keeps a moment of the cooling, no closer than a second to the last.
func (r *Run) note(rec *Heat, s, c float64) {
	if n := len(rec.Curve); r.KeepStates && (n == 0 || s-rec.Curve[n-1][0] >= curveStepS) {
		rec.Curve = append(rec.Curve, [2]float64{s, c})
	}
}

// noteEnd keeps the last moment whatever its distance.
func (r *Run) noteEnd(rec *Heat, s, c float64) {
	if n := len(rec.Curve); r.KeepStates && n > 0 && s > rec.Curve[n-1][0] {
		rec.Curve = append(rec.Curve, [2]float64{s, c})
	}
}

// anvilContact is that of an anvil while hammering.
const anvilContact = thermal.AnvilWPerM2K

// worked is how the worked stretch meets air and what strikes it.
func (r *Run) worked() thermal.Surface {
	s := thermal.Air()
	s.AnvilWPerM2K = r.contact
	return s
}

// windowLeft is how much longer the coldest worked cell would have stayed above
// the lower limit, s.
func (r *Run) windowLeft(rec *Heat, low float64) float64 {
	return r.ahead(rec, low, aheadMaxS)
}
