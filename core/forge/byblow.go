package forge

import (
	"math"
	"math/rand/v2"
)

// worked is how far a cell has come with what it owed as the heat began: by strokes on its faces,
// and by strokes on edge.
type worked struct{ flat, edge float64 }

// share of all that it owed.
func (w worked) share(e *effort) float64 {
	all := e.flat + e.edge
	if all == 0 {
		return math.Max(w.flat, w.edge)
	}
	return (w.flat*e.flat + w.edge*e.edge) / all
}

// blows is a stretch that is worked blow by blow.
type blows struct {
	r    *Run
	op   *Operation
	rec  *Heat
	d    drive
	done []worked
	most float64 // of a cell's work that one blow may do, by the floor of coverage
	at   int     // the cell that the tool is over
}

// byBlows is hammer, blow by blow: each falls on the cells under the tool as they are then, and lands
// or does not; the tool is put where most is left to do. It is what hammer takes the mean of.
func (r *Run) byBlows(op *Operation, rec *Heat, remaining float64) (float64, error) {
	low := r.lowOf(op)
	b := blows{r: r, op: op, rec: rec, d: r.driveOf(op, rec, remaining), done: make([]worked, rec.Last-rec.First+1), at: rec.Last}
	if b.d.strokes > 0 || op.Targets == nil || op.Kind == Upset {
		return r.hammer(op, rec, remaining) // bends, shears and stamps are of the whole
	}
	r.contact = b.d.contact
	r.owe(op, &b.d, rec, remaining)
	if err := r.holds(op, &b.d, rec); err != nil {
		return 0, err
	}
	r.lie(rec.First, rec.Last)
	b.most = math.Inf(1)
	if floor := op.Floors[rec.Pass]; floor > 0 {
		length, _, _ := r.extent(rec.First, rec.Last)
		b.most = length / math.Min(length, b.d.face.BiteMm) / (floor * remaining)
	}
	rec.StartC = r.coldest(rec.First, rec.Last)
	dt, spent, onEdge, temp, q := b.d.strokeS(), 0.0, 0.0, rec.StartC, 0.0
	r.note(rec, 0, temp)
	for temp > low && !b.finished() {
		edge, energy, stalls := b.blow()
		if stalls {
			break
		}
		if edge {
			onEdge++
		}
		rec.Blows++
		took := dt * lighter(energy)
		spent += took
		r.cool(took)
		temp = r.coldest(rec.First, rec.Last)
		r.note(rec, spent, math.Max(temp, low))
		if err := r.Budget.Spend(rec.Last - rec.First + 1); err != nil {
			return 0, err
		}
		q = b.share()
	}
	r.noteEnd(rec, spent, math.Max(temp, low))
	rec.EdgeBlows = onEdge
	r.spill(r.Setup.Fire.CarryS + spent)
	rec.EndC, rec.WorkS, rec.Fraction = math.Max(temp, low), spent, 1
	if b.finished() {
		q = 1
		if temp > low {
			rec.Fraction = spent / (spent + r.windowLeft(rec, low))
		}
	}
	return q, nil
}

// share of the whole stretch that is done, by the work in it.
func (b *blows) share() float64 {
	sum, all := 0.0, 0.0
	for i := range b.done {
		e, c := &b.r.work[b.rec.First+i], &b.r.Bar.Cells[b.rec.First+i]
		w := (e.flat + e.edge + leastOwed) * c.VolumeMm3
		sum, all = sum+w*b.done[i].share(e), all+w
	}
	return sum / all
}

// under are the cells under the tool, whose middle lies over the cell at.
func (b *blows) under(biteMm float64) (first, last int, longMm float64) {
	cells := b.r.Bar.Cells
	first, last, longMm = b.at, b.at, cells[b.at].LengthMm()
	for first > b.rec.First && longMm < biteMm {
		first--
		longMm += cells[first].LengthMm()
	}
	for last < b.rec.Last && longMm < biteMm {
		last++
		longMm += cells[last].LengthMm()
	}
	return first, last, math.Min(longMm, biteMm)
}

// aim puts the tool where most is left to do under it, as a smith strikes what stands highest.
func (b *blows) aim() {
	most := -1.0
	was := b.at
	for at := b.rec.Last; at >= b.rec.First; at-- {
		b.at = at
		first, last, _ := b.under(b.d.face.BiteMm)
		left := 0.0
		for i := first; i <= last; i++ {
			e := &b.r.work[i]
			left += (e.flat + e.edge + leastOwed) * (1 - b.done[i-b.rec.First].share(e)) * b.r.Bar.Cells[i].VolumeMm3
		}
		if left > most*(1+1e-9) {
			most, was = left, at
		}
	}
	b.at = was
}

// leastOwed stands for what a stretch owes that is only gone over, as a strain.
const leastOwed = 1e-6

// near is within what calipers tell: a cell that is so near its target is done.
const nearMm = 0.03

// finished tells whether every cell has come as near to its target as calipers tell, and was gone over.
func (b *blows) finished() bool {
	for i := range b.done {
		c, t := &b.r.Bar.Cells[b.rec.First+i], &b.op.Targets[b.rec.First+i-b.op.First]
		e := &b.r.work[b.rec.First+i]
		if left := 1 - b.done[i].share(e); left < 1e-9 || e.flat+e.edge > 0 && math.Abs(c.WidthMm-t.WidthMm) < nearMm && math.Abs(c.SpineMm-t.SpineMm) < nearMm && math.Abs(c.EdgeMm-t.EdgeMm) < nearMm {
			continue
		}
		return false
	}
	return true
}

// blow is one blow, on the faces or on edge as what lies under the tool owes more strokes to; it
// answers which, what share of a whole blow it took, and whether a press bears no more. Where less is
// left to do than a whole blow does it is a lighter one.
func (b *blows) blow() (edge bool, energy float64, stalls bool) {
	b.aim()
	first, last, long := b.under(b.d.face.BiteMm)
	owes := func(edge bool) (mm3 float64) { // strain times volume
		for i := first; i <= last; i++ {
			e, w := &b.r.work[i], b.done[i-b.rec.First]
			if edge {
				mm3 += e.edge * (1 - w.edge) * b.r.Bar.Cells[i].VolumeMm3
			} else {
				mm3 += e.flat * (1 - w.flat) * b.r.Bar.Cells[i].VolumeMm3
			}
		}
		return mm3
	}
	flatMm3, edgeMm3 := owes(false), owes(true)
	edge = edgeMm3 > flatMm3
	if edge {
		first, last, long = b.under(b.d.onEdge.BiteMm)
		edgeMm3 = owes(true)
	}
	if b.r.rng.Float64() >= b.d.lands {
		return edge, 1, false // it moves the piece, not the steel
	}
	strainMm3, workMPa, stalls := b.gives(first, last, long, edge)
	if stalls {
		return edge, 0, true
	}
	owed := flatMm3
	if edge {
		owed = edgeMm3
	}
	part := b.most / b.d.lands // on the mean as many as coverage asks for
	if owed > 0 {
		part = math.Min(part, strainMm3/owed)
		energy = math.Min(1, owed/strainMm3)
	}
	part = math.Min(1, part)
	for i := first; i <= last; i++ {
		b.advance(i, edge, part, workMPa)
	}
	return edge, energy, false
}

// lighter is how long a lighter blow takes over a whole one: the arm swings less far, down to a tap.
func lighter(energy float64) float64 {
	tap := tapSpeed * tapSpeed
	return 1/tapRate + (1-1/tapRate)*math.Max(0, math.Min(1, (energy-tap)/(1-tap)))
}

// gives is what one blow gives to the cells under it: strain times volume, and the work of a unit
// of it, MPa.
func (b *blows) gives(first, last int, longMm float64, edge bool) (strainMm3, workMPa float64, stalls bool) {
	var wide, thick, stress, all float64
	edges := 0.0
	for i := first; i <= last; i++ {
		c, e := &b.r.Bar.Cells[i], &b.r.work[i]
		v := c.VolumeMm3
		g := &b.r.flows[c.Steel]
		f := g.law.At(c.TempC, e.logRate)
		q := b.done[i-b.rec.First].share(e)
		strain := math.Max(1e-3, e.strain()*math.Min(1, q+.05))
		bracket := g.held.StressMPa(strain)
		wide, thick, stress, all = wide+v*c.WidthMm, thick+v*c.ThicknessMm, stress+v*g.grade.FlowFactor*f.BaseMPa*bracket, all+v
		if e.flat > 0 {
			edges += v * math.Max(0, 1-e.edge/e.flat)
		}
	}
	wide, thick, stress, edges = wide/all, thick/all, stress/all, edges/all
	tool, high, broad := b.d.face, thick, wide
	if edge {
		tool, high, broad, edges = b.d.onEdge, wide, thick, 0
	}
	s := Stroke{HeightMm: high, BiteMm: longMm, BreadthMm: math.Min(tool.BreadthMm, broad), StressMPa: stress, UsefulJ: b.d.energyMJ / 1000, ForceKN: b.d.forceKN}
	if b.d.forceKN == 0 {
		s.BiteMm = tool.BiteMm
	}
	gain, q, bite := s.gain(mostStrain)
	if gain <= 0 {
		return 0, 0, true
	}
	strainMm3 = gain * high * bite * s.BreadthMm
	if gain >= mostStrain*(1-1e-9) { // done at one stroke, the next one overlaps it
		strainMm3 *= coverStep
		if b.d.turns {
			strainMm3 /= 1 + edges
		}
	}
	return strainMm3, stress * q, false
}

// advance carries a cell a part of what it still owes that way, and warms it by the work of it.
func (b *blows) advance(i int, edge bool, part, workMPa float64) {
	c, e, w := &b.r.Bar.Cells[i], &b.r.work[i], &b.done[i-b.rec.First]
	before := w.share(e)
	strain := 0.0
	switch all := e.flat + e.edge; {
	case all == 0:
		w.flat += (1 - w.flat) * part
		w.edge = w.flat
	case edge:
		strain = e.edge * (1 - w.edge) * part
		w.edge += (1 - w.edge) * part
	default:
		strain = e.flat * (1 - w.flat) * part
		w.flat += (1 - w.flat) * part
	}
	if after := w.share(e); before < 1 {
		c.advance(b.op.Targets[i-b.op.First], math.Min(1, (after-before)/(1-before)))
	}
	c.TempC += riseC(workMPa*strain, c.TempC)
}

// newHand draws which blows land.
func newHand(seed uint64) *rand.Rand { return rand.New(rand.NewPCG(seed, 0xb10)) }
