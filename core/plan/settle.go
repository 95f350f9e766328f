package plan

import (
	"math"

	"coldember/core/forge"
)

// The fixed point of loss and bar length: from firstGuess of each cell's volume,
// shortened for hasteRounds, then plainly.
const (
	settleWithin    = 1e-5 // of the start volume: what all cells lose
	shapeWithinMm   = 0.02 // of where any cell lies, and of the scale still to come on any section
	settleMaxRounds = 32
	hasteRounds     = 12
	hasteMost       = 0.7 // of the last step
	firstGuess      = 0.08
	firstStates     = 3 // no round before it is the last
	lastTries       = 3 // at the shape from the longer of two bars
)

// workBoundACell is how many steps each of its cells may take in one plan: some
// forty times what an ordinary plan does, hundreds of heats over and over. It comes
// to a second or two of one processor for a preview.
const workBoundACell = 300_000

// settled is a bar length that agrees with the loss of the heats it takes. All of
// it is of one run.
type settled struct {
	run    *forge.Run
	ops    []*forge.Operation
	start  []float64 // volume each cell starts from
	forged []float64 // and is forged to
	loss   float64   // share of the start volume lost to scale
	rounds int
	missMm float64 // by which the run misses the forged shape
}

// spareMm3 is what the run leaves beyond the forged shape: more than nothing only
// where two bars follow each other and the longer one was taken.
func (s *settled) spareMm3(cells []cell) (v float64) {
	for i := range cells {
		if !cells[i].rod {
			v += s.forged[i] - cells[i].volume
		}
	}
	return v
}

// settle iterates: the loss of each cell is put back, the piece is forged from
// that, and its loss compared. Heats count in fractions, so that the loss
// follows the bar without steps. The budget bounds all its rounds together.
func (r *route) settle(work *forge.Budget, shop forge.Shop) (*settled, error) {
	out, err := r.settleBy(work, shop, hasteRounds)
	if err != nil && out.rounds > 1 && work.Err() == nil {
		// a hasty step may ask for more than there is
		out, err = r.settleBy(work, shop, 0)
	}
	if err != nil {
		return nil, err
	}
	return out, nil
}

// settleBy iterates, in haste for so many rounds; with an error the rounds tell
// how far it came.
func (r *route) settleBy(work *forge.Budget, shop forge.Shop, hasty int) (*settled, error) {
	x := make([]float64, len(r.cells))
	for i := range x {
		x[i] = firstGuess / (1 - firstGuess)
	}
	var haste hastened
	var longer []float64 // of the last two beginnings, where they follow each other
	last, before := math.Inf(1), math.Inf(1)
	out := &settled{}
	for out.rounds = 1; ; out.rounds++ {
		if err := r.forgeOnce(work, shop, x, out); err != nil {
			return out, err
		}
		total, lost, thought := 0.0, 0.0, 0.0
		for i, f := range out.forged {
			if r.cells[i].rod {
				continue
			}
			total += out.start[i]
			lost += out.start[i] - f
			thought += out.start[i] - r.cells[i].volume
		}
		out.loss = lost / total
		next := r.found(out)
		out.missMm = r.missMm(out, x, next)
		if out.rounds >= firstStates && math.Abs(lost-thought) < settleWithin*total && out.missMm < shapeWithinMm {
			break
		}
		// Where one heat more or less tips the scale still to come, two answers
		// can follow each other for ever. The longer bar is kept, and run to.
		if lost < thought {
			longer = x
		}
		turns := math.Abs(out.loss-before) < 2*settleWithin && math.Abs(out.loss-last) > 2*settleWithin
		if out.rounds >= firstStates && longer != nil && (out.rounds > hasty && turns || out.rounds >= settleMaxRounds) {
			if err := r.runTo(work, shop, longer, out); err != nil {
				return out, err
			}
			break
		}
		last, before = out.loss, last
		if out.rounds < hasty {
			next = haste.next(x, next)
		}
		x = next
	}
	if heatAfterHardening(out.ops) {
		return out, nil
	}
	// cycles and hardening scale away what is ground off anyway: they do not size the
	// bar, but where it has to go back to the fire after them
	return out, r.treat(out.run)
}

// runTo forges from the bar that x begins with until the scale still to come is
// what the run says it is, as near as that can be had. Where the bar turns out too
// short by that it grows. The nearest run of those that have steel enough is kept.
func (r *route) runTo(work *forge.Budget, shop forge.Shop, x []float64, out *settled) error {
	var kept settled
	for try := range lastTries {
		run := settled{rounds: out.rounds}
		if err := r.forgeOnce(work, shop, x, &run); err != nil {
			return err
		}
		next := r.found(&run)
		run.missMm = r.missMm(&run, x, next)
		total, lost := 0.0, 0.0
		for i, f := range run.forged {
			if !r.cells[i].rod {
				total += run.start[i]
				lost += run.start[i] - f
			}
		}
		run.loss = lost / total
		short := run.spareMm3(r.cells) < -settleWithin*total
		if try == 0 || !short && run.missMm < kept.missMm {
			kept = run
		}
		x = append([]float64{}, x...)
		for i := range next {
			if i >= len(r.cells) && i < len(x) || i < len(x) && next[i] > x[i] {
				x[i] = next[i]
			}
		}
	}
	*out = kept
	return nil
}

// missMm is how far a round that began from x and came to found misses the forged
// shape: in where any cell lies along it, and in any section by the scale that was
// to come.
func (r *route) missMm(s *settled, x, found []float64) (miss float64) {
	along := 0.0
	for i, c := range r.cells {
		if !c.rod {
			along += (s.forged[i]/c.volume - 1) * (c.to - c.from)
			miss = math.Max(miss, math.Abs(along))
		}
	}
	for i := len(r.cells); i < len(found); i++ {
		assumed := 0.0
		if i < len(x) {
			assumed = x[i]
		}
		miss = math.Max(miss, 2*math.Abs(found[i]-assumed))
	}
	return miss
}

// found is what a round came to, as the next may begin from: first the share of
// its forged volume that each cell loses, then, of each cell of each operation,
// the scale (mm a face) that it still loses after that operation.
func (r *route) found(s *settled) []float64 {
	var x []float64
	for i, c := range r.cells {
		x = append(x, (s.start[i]-s.forged[i])/c.volume)
	}
	for _, op := range s.ops {
		for i, d := range s.run.DoneAt[op.ID] {
			x = append(x, s.run.Bar.Cells[op.First+i].ScaleMm-d)
		}
	}
	return x
}

// hastened shortens the way to a fixed point: the answer of a round moves
// against the last step by the share of it that the residual came back with
// (Anderson 1965, with one step of memory).
type hastened struct{ answer, residual []float64 }

// next is where the round after the one that made answer of x should begin.
func (h *hastened) next(x, answer []float64) []float64 {
	residual := make([]float64, len(answer))
	for i := range answer {
		residual[i] = answer[i]
		if i < len(x) {
			residual[i] -= x[i]
		}
	}
	out := answer
	if len(h.residual) == len(residual) {
		along, across := 0.0, 0.0
		for i, v := range residual {
			d := v - h.residual[i]
			along, across = along+v*d, across+d*d
		}
		if across > 0 {
			share := math.Max(-hasteMost, math.Min(hasteMost, along/across))
			out = make([]float64, len(answer))
			for i, v := range answer {
				out[i] = math.Max(0, v-share*(v-h.answer[i]))
			}
		}
	}
	h.answer, h.residual = answer, residual
	return out
}

// forgeOnce forges the piece from the forged volumes with the loss of x put back; the
// target of every operation carries the scale still to come.
func (r *route) forgeOnce(work *forge.Budget, shop forge.Shop, x []float64, out *settled) error {
	out.start, out.forged = make([]float64, len(r.cells)), make([]float64, len(r.cells))
	for i, c := range r.cells {
		out.start[i] = c.volume * (1 + x[i])
	}
	run, err := forge.NewRun(shop, r.startBar(out.start))
	if err != nil {
		return err
	}
	run.KeepStates, run.Budget = out.rounds >= firstStates, work
	out.run, out.ops = run, r.operations()
	toCome := x[len(r.cells):]
	for i, op := range out.ops {
		if op.Kind == forge.Harden {
			if i+1 < len(out.ops) {
				if err := r.treat(run); err != nil {
					return err
				}
			}
			continue
		}
		if n := op.Last - op.First + 1; len(toCome) >= n {
			for k := range op.Targets {
				grow(&op.Targets[k], 2*toCome[k])
			}
			toCome = toCome[n:]
		}
		if err := run.Do(op); err != nil {
			return err
		}
	}
	for i := range run.Bar.Cells {
		out.forged[i] = run.Bar.Cells[i].VolumeMm3
	}
	return nil
}

// startBar is the piece before its first heat.
func (r *route) startBar(startMm3 []float64) forge.Bar {
	bar := forge.Bar{Cells: make([]forge.Cell, len(r.cells))}
	for i, c := range r.cells {
		bar.Cells[i] = forge.Cell{
			Zone: c.zone, VolumeMm3: startMm3[i], WidthMm: r.bar.WidthMm, ThicknessMm: r.bar.ThicknessMm,
			EdgeMm: r.bar.ThicknessMm, SpineMm: r.bar.ThicknessMm, TempC: 20,
		}
		if c.rod { // taken as thick as the tang there, and what it scales
			k := math.Sqrt(startMm3[i] / c.volume)
			w, t := c.final.WidthMm*k, c.final.ThicknessMm*k
			bar.Cells[i].WidthMm, bar.Cells[i].ThicknessMm, bar.Cells[i].EdgeMm, bar.Cells[i].SpineMm = w, t, t, t
		}
	}
	return bar
}

// grow adds to every dimension of a target.
func grow(t *forge.Target, by float64) {
	k := (t.ThicknessMm + by) / t.ThicknessMm
	t.WidthMm += by
	t.ThicknessMm += by
	t.EdgeMm *= k
	t.SpineMm *= k
}
