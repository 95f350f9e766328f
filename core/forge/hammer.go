package forge

import (
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// How time goes between strokes (judgement).
const (
	turnS = 1.0 // to turn the piece
	moveS = 0.3 // to move it along

	strokesASide = 16.0 // before it is turned
)

// hammer works the stretch stroke by stroke until it is done or the coldest worked cell
// is at the lower limit; it returns the fraction of what was left that was done (1: all)
// and fills the record.
//
// The stretch moves as one: a stroke that lands takes the share of all strokes that are
// owed, which is the sum over the cells of strain owed over strain of one stroke, times
// the area of the cell over that of the contact. That is a fraction; whole strokes and
// their overlap belong to the floor that coverage sets.
func (r *Run) hammer(op *Operation, rec *Heat, remaining float64) (float64, error) {
	d := r.driveOf(op, rec, remaining)
	r.contact = d.contact
	r.owe(op, &d, rec, remaining)
	low := r.lowOf(op, &d, rec, remaining)
	rec.LowC = low
	if err := r.holds(op, &d, rec); err != nil {
		return 0, err
	}
	r.lie(rec.First, rec.Last)
	dt, most := d.strokeS(), math.Inf(1)
	if floor := op.Floors[rec.Pass]; floor > 0 {
		most = 1 / (floor * remaining)
	}
	rec.StartC = r.coldest(rec.First, rec.Last)
	q, temp, spent, onEdge := 0.0, rec.StartC, 0.0, 0.0
	need := most
	r.note(rec, 0, temp)
	for temp > low && q < 1 {
		owed, edge, stalls := r.strokesOwed(&d, rec, q, q+math.Min(need, 1-q)/2)
		need = math.Min(most, d.lands/owed)               // owed may be nought: then only the floor counts
		for try := 1; q == 0 && try < firstTries; try++ { // nothing tells yet how far a stroke goes, and the stress rises most at first
			owed, edge, stalls = r.strokesOwed(&d, rec, 0, math.Min(need, 1)/2)
			need = math.Min(most, d.lands/owed)
		}
		if stalls {
			break // it has grown too hard for the press
		}
		part := 1.0
		if q+need > 1 {
			part, need = (1-q)/need, 1-q
		}
		r.warm(rec, need)
		r.cool(dt * part)
		next := r.coldest(rec.First, rec.Last)
		if next < low && part*dt > 0 {
			// the lower limit comes within this stroke: count it in part
			cut := (temp - low) / (temp - next)
			part *= cut
			need *= cut
		}
		if err := r.Budget.Spend(rec.Last - rec.First + 1); err != nil {
			return 0, err
		}
		q += need
		rec.Blows += part
		onEdge += part * edge
		spent += part * dt
		temp = next
		r.note(rec, spent, math.Max(temp, low))
	}
	r.noteEnd(rec, spent, math.Max(temp, low))
	rec.EdgeBlows = onEdge
	r.spill(r.Setup.Fire.CarryS + spent)
	rec.EndC, rec.WorkS, rec.Fraction = math.Max(temp, low), spent, 1
	if q >= 1-1e-12 {
		q = 1
	}
	if op.Targets != nil {
		for i := rec.First; i <= rec.Last; i++ {
			r.Bar.Cells[i].advance(op.Targets[i-op.First], q)
		}
	}
	if q == 1 && temp > low { // what is left of the heat is that of the section as it is now: a thin one has less
		rec.Fraction = spent / (spent + r.windowLeft(rec, low))
	}
	return q, nil
}

// firstTries of the first stroke of a heat: after them its share is known to a hundredth.
const firstTries = 4

// strokesOwed is how many strokes that land the whole of what was owed at the beginning of
// the heat would take, as the cells are at the share q with the flow stress of the share at:
// the part of them that falls on edge, and whether a press bears no more.
func (r *Run) strokesOwed(d *drive, rec *Heat, q, at float64) (owed, edge float64, stalls bool) {
	if d.strokes > 0 {
		return d.strokes, 0, false
	}
	for k := range r.flows {
		f := &r.flows[k]
		f.power = math.Exp(f.held.Exponent * math.Log(at))
	}
	for i := rec.First; i <= rec.Last; i++ {
		c, e := &r.Bar.Cells[i], &r.work[i]
		strain := e.strain()
		if strain == 0 {
			continue
		}
		g := &r.flows[c.Steel]
		f := g.law.At(c.TempC, e.logRate)
		r.outOfRange = r.outOfRange || !f.InRange
		bracket := g.most
		if at <= e.overFrom {
			bracket = 1.3*e.powered*g.power - .3/bracketStrain*strain*at
		}
		e.stress = g.grade.FlowFactor * f.BaseMPa * bracket
		e.workMPa = e.stress * e.bulk * e.bulkQ
		switch {
		case e.bulk > 0 && d.forceKN > 0: // its force is far beyond that of bending: what lies between the dies comes out flat at one squeeze
			owed += e.bulkMm3 / (e.widthMm * e.thicknessMm * d.face.BiteMm)
		case e.bulk > 0:
			owed += e.bulkMm3 * e.workMPa / d.energyMJ
		}
		w, t := e.widthMm, e.thicknessMm
		if q > 0 {
			w, t = w*math.Exp(q*e.logWidth), t*math.Exp(q*e.logThickness)
		}
		if e.flat > 0 {
			n, work, stall := d.strokesOn(c.VolumeMm3, t, w, d.face, e.stress, e.flat, math.Max(0, 1-e.edge/e.flat))
			owed, e.workMPa, stalls = owed+n, e.workMPa+work, stalls || stall
		}
		if e.edge > 0 {
			n, work, stall := d.strokesOn(c.VolumeMm3, w, t, d.onEdge, e.stress, e.edge, 0)
			owed, edge, e.workMPa, stalls = owed+n, edge+n, e.workMPa+work, stalls || stall
		}
	}
	if owed > 0 {
		edge /= owed
	}
	return owed, edge, stalls
}

// strokesOn is how many strokes of a tool strain a volume of this height and breadth by so
// much, and the work of that, MPa. Where a place is done at one stroke, the next one overlaps
// it, and in a break-down so many others go along the edges, which it leaves untrue.
func (d *drive) strokesOn(volumeMm3, heightMm, breadthMm float64, t Tool, stressMPa, strain, edges float64) (n, workMPa float64, stalls bool) {
	s := Stroke{HeightMm: heightMm, BiteMm: t.Bears(heightMm), BreadthMm: math.Min(t.BreadthMm, breadthMm), StressMPa: stressMPa, UsefulJ: d.energyMJ / 1000, ForceKN: d.forceKN}
	most := mostStrain
	if d.forceKN > 0 { // the force has to bear what is still owed, no more
		most = math.Min(most, strain)
	}
	gain, q, bite := s.gain(most)
	if gain <= 0 {
		return 0, 0, true
	}
	n = strain / gain * volumeMm3 / (heightMm * bite * s.BreadthMm)
	if gain >= most*(1-1e-9) {
		n *= gain / mostStrain / coverStep
		if d.turns {
			n *= 1 + edges
		}
	}
	return n, stressMPa * q * strain, false
}

// warm keeps the heat of deformation of a share of what is owed.
func (r *Run) warm(rec *Heat, share float64) {
	for i := rec.First; i <= rec.Last; i++ {
		if e := &r.work[i]; e.workMPa > 0 {
			c, work := &r.Bar.Cells[i], e.workMPa*share
			if e.bulk > 0 {
				work *= e.bulkMm3 / c.VolumeMm3
			}
			c.TempC += riseC(work, c.TempC)
		}
	}
}

// holds tells whether a press takes hold of every worked cell as it comes from the fire.
func (r *Run) holds(op *Operation, d *drive, rec *Heat) error {
	if d.forceKN == 0 {
		return nil
	}
	need := 0.0
	for i := rec.First; i <= rec.Last; i++ {
		c, e := &r.Bar.Cells[i], &r.work[i]
		g := &r.flows[c.Steel]
		f := g.law.At(c.TempC, e.logRate)
		stress := f.StressMPa(mostStrain) * g.grade.FlowFactor
		side := func(owed, heightMm, breadthMm float64) {
			if owed > 0 {
				least := heightMm * math.Exp(-math.Min(mostStrain, owed))
				need = math.Max(need, stress*Redundancy(least, leastBiteMm)*leastBiteMm*math.Min(d.face.BreadthMm, breadthMm)/1000)
			}
		}
		side(e.flat, c.ThicknessMm, c.WidthMm)
		side(e.edge, c.WidthMm, c.ThicknessMm)
	}
	if d.forceKN < need {
		return &TooWeakError{Operation: op.ID, NeedKN: math.Ceil(need)}
	}
	return nil
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

// flow is how one steel of the piece gives way.
type flow struct {
	grade steel.Grade
	law   steel.Law
	held  steel.Flow // of one MPa
	most  float64    // its bracket at the most strain that was measured, and past it
	power float64    // of the share that is asked for
}

func newFlow(g steel.Grade) flow {
	f := flow{grade: g, law: steel.NewLaw(g.CarbonPct), held: steel.Flow{BaseMPa: 1, Exponent: steel.Exponent(g.CarbonPct)}}
	f.most = f.held.StressMPa(steel.MaxStrain)
	return f
}
