package plan

import (
	"context"
	"math"

	"coldember/core/forge"
	"coldember/core/steel"
)

// The fixed point of loss and bar length.
const (
	settleWithin    = 1e-5
	settleMaxRounds = 12
	firstGuess      = 0.08
)

// settled is a bar length that agrees with the loss of the heats it takes.
type settled struct {
	run    *forge.Run
	ops    []*forge.Operation
	start  []float64 // volume each cell starts from
	forged []float64 // and is forged to
	loss   float64   // share of the start volume lost to scale
	rounds int
	unsure float64 // loss still in dispute between the last rounds; the longer bar was taken
}

// BurntError says that a zone burns away before the forging is done.
type BurntError struct {
	Zone  string
	Heats int
}

func (e *BurntError) Error() string { return "plan: burns away at the " + e.Zone }

// settle iterates: the loss of each cell is put back, the piece is forged from
// that, and its loss compared. Heats count in fractions, so that the loss
// follows the bar without steps.
func (r *route) settle(ctx context.Context, shop forge.Shop) (*settled, error) {
	loss, toCome, err := r.guess(ctx, shop)
	if err != nil {
		return nil, err
	}
	last, before := math.Inf(1), math.Inf(1)
	out := &settled{}
	for out.rounds = 1; ; out.rounds++ {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		run, ops, start, forgedMm3, err := r.once(shop, loss, toCome)
		if err != nil {
			return nil, err
		}
		out.run, out.ops, out.start, out.forged = run, ops, start, forgedMm3
		total, lost := 0.0, 0.0
		for i := range forgedMm3 {
			now := start[i] - forgedMm3[i]
			total += start[i]
			lost += now
			loss[i] = now
		}
		out.loss = lost / total
		if math.Abs(out.loss-last) < settleWithin {
			break
		}
		// Where one heat more or less tips the scale still to come, two answers
		// can follow each other for ever. The round that started from the longer
		// bar is kept.
		cycling := math.Abs(out.loss-before) < 2*settleWithin || out.rounds >= settleMaxRounds
		if cycling && out.loss < last {
			out.unsure = last - out.loss
			break
		}
		toCome = scaleToCome(run, ops)
		last, before = out.loss, last
	}
	if zone, burnt := out.run.BurntAway(); burnt {
		return nil, &BurntError{Zone: zone, Heats: len(out.run.Heats)}
	}
	for i, c := range thermalCycles(r.req.Choices.Cycles, shop.Steel) {
		// the cycles scale away what is ground off anyway: they do not size the bar
		if err := out.run.Cycle(cycleID(i), c.c); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// guess is where settling begins: what each cell loses (mm³) and the scale to
// come. A finely cut piece begins from what it settles to when cut coarsely,
// which takes most of the rounds and little of the time.
func (r *route) guess(ctx context.Context, shop forge.Shop) (loss []float64, toCome map[string][]float64, err error) {
	loss = make([]float64, len(r.cells))
	if r.coarse == nil {
		for i, c := range r.cells {
			loss[i] = c.volume * firstGuess / (1 - firstGuess)
		}
		return loss, nil, nil
	}
	s, err := r.coarse.settle(ctx, shop)
	if err != nil {
		return nil, nil, err
	}
	like := make([]int, len(r.cells)) // the coarse cell that each lies in
	k := 0
	for i, c := range r.cells {
		for mid := (c.from + c.to) / 2; k+1 < len(r.coarse.cells) && r.coarse.cells[k].to < mid; k++ {
		}
		like[i] = k
		loss[i] = c.volume * (s.start[k] - s.forged[k]) / s.forged[k]
	}
	toCome = map[string][]float64{}
	coarse := scaleToCome(s.run, s.ops)
	for _, op := range r.operations() {
		from := find(s.ops, op.ID)
		if from == nil {
			continue
		}
		left := make([]float64, op.Last-op.First+1)
		for i := range left {
			left[i] = coarse[op.ID][max(from.First, min(from.Last, like[op.First+i]))-from.First]
		}
		toCome[op.ID] = left
	}
	return loss, toCome, nil
}

// scaleToCome is the scale (mm a face) that each cell of each operation still
// loses after that operation.
func scaleToCome(run *forge.Run, ops []*forge.Operation) map[string][]float64 {
	out := make(map[string][]float64, len(ops))
	for _, op := range ops {
		done := run.DoneAt[op.ID]
		left := make([]float64, len(done))
		for i, d := range done {
			left[i] = run.Bar.Cells[op.First+i].ScaleMm - d
		}
		out[op.ID] = left
	}
	return out
}

// once forges the piece from the forged volumes with loss put back; the target
// of every operation carries the scale still to come.
func (r *route) once(shop forge.Shop, loss []float64, toCome map[string][]float64) (run *forge.Run, ops []*forge.Operation, start, forgedMm3 []float64, err error) {
	start, forgedMm3 = make([]float64, len(r.cells)), make([]float64, len(r.cells))
	for i, c := range r.cells {
		start[i] = c.volume + loss[i]
	}
	bar := r.startBar(start)
	if run, err = forge.NewRun(shop, bar); err != nil {
		return nil, nil, nil, nil, err
	}
	run.KeepStates = true
	ops = r.operations()
	for _, op := range ops {
		for i, x := range toCome[op.ID] {
			if op.Targets != nil {
				grow(&op.Targets[i], 2*x)
			}
		}
		if err := run.Do(op); err != nil {
			return nil, nil, nil, nil, err
		}
	}
	for i := range run.Bar.Cells {
		forgedMm3[i] = run.Bar.Cells[i].VolumeMm3
	}
	return run, ops, start, forgedMm3, nil
}

// startBar is the piece before its first heat.
func (r *route) startBar(startMm3 []float64) forge.Bar {
	bar := forge.Bar{Cells: make([]forge.Cell, len(r.cells))}
	for i, c := range r.cells {
		bar.Cells[i] = forge.Cell{
			Zone: c.zone, VolumeMm3: startMm3[i], WidthMm: r.bar.WidthMm, ThicknessMm: r.bar.ThicknessMm,
			EdgeMm: r.bar.ThicknessMm, SpineMm: r.bar.ThicknessMm, TempC: 20,
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

// cycle is a thermal cycle: its kind and the temperature it goes to.
type cycle struct {
	kind string
	c    float64
}

// Kinds of thermal cycles.
const (
	kindNormalise = "normalise"
	kindAnneal    = "anneal"
)

// Softening: a plain steel is let fall slowly from just above its critical point,
// one with much carbon is held just below, since coarse carbides come of the
// slow way; so are those that harden in air.
const (
	slowAnnealC   = 760.0
	subcriticalC  = 680.0
	muchCarbonPct = 0.9
)

// thermalCycles of the school for a steel.
func thermalCycles(c Cycles, g steel.Grade) []cycle {
	t := g.NormalisingC()
	normalise := func(at ...float64) []cycle {
		var out []cycle
		for _, x := range at {
			out = append(out, cycle{kindNormalise, x})
		}
		return out
	}
	switch {
	case t == nil:
		return nil
	case c == Once:
		return normalise(t[0])
	case c == Equal:
		return normalise(t[0], t[0], t[0])
	case c == SlowAnneal:
		soft := slowAnnealC
		if g.CarbonPct > muchCarbonPct || g.ID == "L6" || g.ID == "O1" {
			soft = subcriticalC
		}
		return append(normalise(t[0]), cycle{kindAnneal, soft})
	default:
		return normalise(t...)
	}
}
