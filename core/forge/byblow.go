package forge

import "math"

// blows is a stretch that is worked blow by blow.
type blows struct {
	r      *Run
	op     *Operation
	rec    *Heat
	d      drive
	done   []worked
	longMm float64        // the stretch as it is
	most   float64        // of the work of the stretch that coverage leaves to one blow
	need   float64        // of the work of the stretch that a blow does on the mean
	binds  bool           // coverage asks for more blows than the work does
	gives  [sides]float64 // strain times volume of the last blow on each side, mm³
}

// byBlows is hammer, blow by blow: each falls on the cells under the tool as they are then, and lands
// or does not; the tool is put where, after the blow, least is done, so that the stretch comes on
// together. A blow is begun while more than half of it lies within the window. It is what hammer takes
// the mean of.
func (r *Run) byBlows(op *Operation, rec *Heat, remaining float64) (float64, error) {
	b := blows{r: r, op: op, rec: rec, d: r.driveOf(op, rec, remaining), done: make([]worked, rec.Last-rec.First+1), most: math.Inf(1), need: 1}
	if b.d.strokes > 0 || op.Targets == nil || op.Kind == Upset {
		return r.hammer(op, rec, remaining) // bends, shears and stamps are of the whole
	}
	r.contact = b.d.contact
	r.owe(op, &b.d, rec, remaining)
	low := r.lowOf(op, &b.d, rec, remaining)
	rec.LowC = low
	if err := r.holds(op, &b.d, rec); err != nil {
		return 0, err
	}
	r.lie(rec.First, rec.Last)
	if floor := op.Floors[rec.Pass]; floor > 0 {
		b.most = 1 / (floor * remaining)
		b.need = math.Min(1, b.most)
	}
	rec.StartC = r.coldest(rec.First, rec.Last)
	dt, q := b.d.strokeS(), 0.0
	spent, temp, drop := 0.0, rec.StartC, 0.0
	r.note(rec, 0, temp)
	for temp-drop/2 > low {
		b.weigh(q)
		p, some := b.next()
		if !some {
			break
		}
		blow, did := b.strike(&p)
		if did == stalled {
			break
		}
		if did == spared {
			continue
		}
		if p.side == onEdges {
			rec.EdgeBlows++
		}
		rec.Blows++
		took := dt * lasts(blow.energy)
		spent += took
		r.cool(took)
		next := r.coldest(rec.First, rec.Last)
		temp, drop = next, temp-next
		r.note(rec, spent, math.Max(temp, low))
		if err := r.Budget.Spend(rec.Last - rec.First + 1); err != nil {
			return 0, err
		}
		q = b.share()
	}
	r.noteEnd(rec, spent, math.Max(temp, low))
	r.spill(r.Setup.Fire.CarryS + spent)
	rec.EndC, rec.WorkS, rec.Fraction = math.Max(temp, low), spent, 1
	if _, some := b.next(); !some {
		q = 1
		b.goneOver()
		if temp > low {
			rec.Fraction = spent / (spent + r.windowLeft(rec, low))
		}
	}
	return q, nil
}

// weigh tells whether coverage asks for more blows than the work of the stretch does, of which a share is done.
func (b *blows) weigh(q float64) {
	b.longMm, _, _ = b.r.extent(b.rec.First, b.rec.Last)
	for range 3 { // how far a blow goes asks for the stress on its way
		owed, _, _ := b.r.strokesOwed(&b.d, b.rec, q, q+math.Min(b.need, 1-q)/2)
		b.need = math.Min(b.most, b.d.lands/owed)
		b.binds = b.need == b.most
	}
}

// share of the whole stretch that is done, by the work in it; where coverage binds, by its length.
func (b *blows) share() float64 {
	sum, all := 0.0, 0.0
	for i := range b.done {
		e, c := &b.r.work[b.rec.First+i], &b.r.Bar.Cells[b.rec.First+i]
		w := (e.flat + e.edge + leastOwed) * c.VolumeMm3
		if b.binds {
			w = c.LengthMm()
		}
		sum, all = sum+w*b.done[i].all(e), all+w
	}
	return sum / all
}

// goneOver are the cells that owed nothing: they are at their targets but for what scale took off them.
func (b *blows) goneOver() {
	for i := range b.done {
		if e := &b.r.work[b.rec.First+i]; e.flat+e.edge == 0 {
			b.r.Bar.Cells[b.rec.First+i].advance(b.op.Targets[b.rec.First+i-b.op.First], 1)
		}
	}
}
