package forge

import "math"

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
// or does not; the tool is put where most is left to do, and what is less than half a blow is left. It
// is what hammer takes the mean of.
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
	dt, onEdge, q := b.d.strokeS(), 0.0, 0.0
	spent, temp := 0.0, rec.StartC
	r.note(rec, 0, temp)
	for temp > low && !b.finished() {
		edge, did, left := b.blow()
		if did == stalled {
			break
		}
		if did == spared {
			continue
		}
		if edge {
			onEdge++
		}
		rec.Blows++
		took := dt * lighter(left)
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
		b.goneOver()
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

// nearMm is what calipers tell on scaly steel (judgement).
const nearMm = 0.08

// near tells whether every cell is as near to its target as calipers tell.
func (b *blows) near(first, last int) bool {
	for i := first; i <= last; i++ {
		c, t := &b.r.Bar.Cells[i], &b.op.Targets[i-b.op.First]
		if math.Abs(c.WidthMm-t.WidthMm) > nearMm || math.Abs(c.SpineMm-t.SpineMm) > nearMm || math.Abs(c.EdgeMm-t.EdgeMm) > nearMm {
			return false
		}
	}
	return true
}

// finished tells whether every cell has had what it owed, and was gone over.
func (b *blows) finished() bool {
	for i := range b.done {
		e := &b.r.work[b.rec.First+i]
		left := 1 - b.done[i].share(e)
		if left < 1e-9 || e.flat+e.edge == 0 && left < b.most/b.d.lands/2 {
			continue
		}
		return false
	}
	return true
}

// goneOver are the cells that owed nothing: they are at their targets but for what scale took off them.
func (b *blows) goneOver() {
	for i := range b.done {
		if e := &b.r.work[b.rec.First+i]; e.flat+e.edge == 0 {
			b.r.Bar.Cells[b.rec.First+i].advance(b.op.Targets[b.rec.First+i-b.op.First], 1)
		}
	}
}

// owes is what the cells still owe to strokes on the faces, or on edge, and what they owed as the heat began: strain times volume.
func (b *blows) owes(first, last int, edge bool) (leftMm3, allMm3 float64) {
	for i := first; i <= last; i++ {
		e, w, v := &b.r.work[i], b.done[i-b.rec.First], b.r.Bar.Cells[i].VolumeMm3
		if edge {
			leftMm3, allMm3 = leftMm3+e.edge*(1-w.edge)*v, allMm3+e.edge*v
		} else {
			leftMm3, allMm3 = leftMm3+e.flat*(1-w.flat)*v, allMm3+e.flat*v
		}
	}
	return leftMm3, allMm3
}

// outcome is what came of a blow.
type outcome int

const (
	struck  outcome = iota // whether it landed or not
	spared                 // less than half a blow is left there: it is as near as whole blows come
	stalled                // a press bears no more
)

// blow is one blow, on the faces or on edge, whichever what lies under the tool has had less of; it
// answers which, what came of it, and how many whole blows were left to do there.
func (b *blows) blow() (edge bool, did outcome, left float64) {
	b.aim()
	first, last, long := b.under(b.d.face.BiteMm)
	flatMm3, ofFlat := b.owes(first, last, false)
	owed, ofEdge := b.owes(first, last, true)
	if edge = owed*ofFlat > flatMm3*ofEdge || owed*ofFlat == flatMm3*ofEdge && owed > flatMm3; edge { // it is turned so that both come on together
		first, last, long = b.under(b.d.onEdge.BiteMm)
		owed, _ = b.owes(first, last, true)
	} else {
		owed = flatMm3
	}
	most := 0.0 // on the mean as many as coverage asks for
	for i := first; i <= last; i++ {
		most += b.most / b.d.lands * (b.r.work[i].flat + b.r.work[i].edge) * b.r.Bar.Cells[i].VolumeMm3
	}
	part, workMPa := 1.0, 0.0
	left = 1
	for try := 0; try < 3; try++ { // how far it goes asks for the stress on its way, and that for how far it goes
		strainMm3, work, stalls := b.gives(first, last, long, edge, part)
		if stalls {
			return edge, stalled, 0
		}
		if workMPa = work; owed > 0 {
			left = owed / math.Min(strainMm3, most)
			part = math.Min(1, 1/left)
		}
	}
	if left < .5 && b.near(first, last) {
		b.leave(first, last, edge)
		return edge, spared, 0
	}
	if !b.r.hand.lands(b.d.lands) {
		return edge, struck, left // it moves the piece, not the steel
	}
	for i := first; i <= last; i++ {
		b.advance(i, edge, part, workMPa)
	}
	return edge, struck, left
}

// leastTime of a whole blow is what the lightest takes (judgement).
const leastTime = .25

// lighter is how long a blow of a share of the energy takes over a whole one: the arm swings less far. It is the power of the
// energy that goes through the whole blow and the tap.
func lighter(energy float64) float64 {
	return math.Max(leastTime, math.Pow(math.Min(1, energy), math.Log(tapRate)/(-2*math.Log(tapSpeed))))
}

// leave takes what strokes are owed that way for struck.
func (b *blows) leave(first, last int, edge bool) {
	for i := first; i <= last; i++ {
		if w := &b.done[i-b.rec.First]; edge {
			w.edge = 1
		} else {
			w.flat = 1
		}
	}
}

// gives is what one blow gives to the cells under it, with the mean stress on the way through a part of what they owe: strain times volume,
// and the work of a unit of it, MPa.
func (b *blows) gives(first, last int, longMm float64, edge bool, part float64) (strainMm3, workMPa float64, stalls bool) {
	var wide, thick, stress, all float64
	edges := 0.0
	for i := first; i <= last; i++ {
		c, e := &b.r.Bar.Cells[i], &b.r.work[i]
		v := c.VolumeMm3
		g := &b.r.flows[c.Steel]
		f := g.law.At(c.TempC, e.logRate)
		q := b.done[i-b.rec.First].share(e)
		bracket := 0.0
		for _, p := range [...]float64{.2113, .7887} { // its mean on the way, by Gauss at two places
			bracket += g.held.StressMPa(math.Max(1e-3, e.strain()*(q+(1-q)*part*p))) / 2
		}
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
	before, most := w.share(e), b.most/b.d.lands // on the mean as many as coverage asks for
	strain := 0.0
	switch all := e.flat + e.edge; {
	case all == 0:
		w.flat += math.Min(most, (1-w.flat)*part)
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
