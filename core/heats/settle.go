package heats

import (
	"math"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/route"
	"coldember/core/steel"
)

// The fixed point of loss and bar length: from firstGuess of each cell's volume,
// shortened for hasteRounds, then plainly.
const (
	settleWithin    = 1e-5 // of the start volume: what all cells lose
	shapeWithinMm   = 0.02 // of where any cell lies, and of the scale still to come on any section
	tripsWithin     = 0.02
	settleMaxRounds = 32
	hasteRounds     = 12
	firstGuess      = 0.08
	leastRounds     = 3  // no round before it is the last
	choosingRounds  = 2  // then the ways of the operations stay, so that they cannot turn the scale
	lastTries       = 10 // at the shape from the longer of two bars
)

// WorkBoundACell is how many steps each of its cells may take in one plan: some
// forty times what an ordinary plan does, hundreds of heats over and over. It comes
// to a second or two of one processor for a preview.
const WorkBoundACell = 300_000

// Settled is a bar length that agrees with the loss of the heats it takes. All of
// it is of one run.
type Settled struct {
	Run       *forge.Run
	Ops       []*forge.Operation
	StartMm3  []float64 // volume each cell starts from
	ForgedMm3 []float64 // and is forged to
	LossShare float64   // share of the start volume lost to scale
	Rounds    int

	ways   map[string]way // of each operation, as the first rounds chose it
	from   []float64      // what it began from, as found tells
	MissMm float64        // by which the run misses the forged shape

	Trips   float64 // that the bar is sized for
	weights weights // of each heat of a stretch, in trips

	laid    map[stretch]tally // how its trips were laid, once they were
	follows *Settled          // the plan whose steps are followed blow by blow; nil: none
}

// weights are how many trips each heat of a stretch counts for.
type weights map[stretch]float64

// of is what a run asks for; nil where none are known yet.
func (w weights) of() func(operation string, pass int) float64 {
	if w == nil {
		return nil
	}
	return func(operation string, pass int) float64 { return w.at(stretch{operation, pass}) }
}

// at is the weight of a stretch, 1 where it is not known.
func (w weights) at(s stretch) float64 {
	if k, ok := w[s]; ok && k > 0 {
		return k
	}
	return 1
}

// way is how an operation is worked.
type way struct {
	stretches []int
	floors    []float64
	back      bool
	machine   *forge.Machine
}

// SpareMm3 is what the run leaves beyond the forged shape: more than nothing only
// where two bars follow each other and the longer one was taken.
func (s *Settled) SpareMm3(cells []figure.Cell) (v float64) {
	for i := range cells {
		if !cells[i].Rod {
			v += s.ForgedMm3[i] - cells[i].VolumeMm3
		}
	}
	return v
}

// Settle iterates: the loss of each cell is put back, the piece is forged from
// that, and its loss compared. Heats count in fractions, so that the loss
// follows the bar without steps. The budget bounds all its rounds together.
func Settle(r *route.Route, work *forge.Budget, setup forge.Setup) (*Settled, error) {
	out, err := settleBy(r, work, setup, hasteRounds)
	if err != nil && out.Rounds > 1 && work.Err() == nil {
		// a hasty step may ask for more than there is
		out, err = settleBy(r, work, setup, 0)
	}
	if err != nil {
		return nil, err
	}
	return out, nil
}

// settleBy iterates, in haste for so many rounds; with an error the rounds tell
// how far it came.
func settleBy(r *route.Route, work *forge.Budget, setup forge.Setup, hasty int) (*Settled, error) {
	x := make([]float64, len(r.Cells))
	for i := range x {
		x[i] = firstGuess / (1 - firstGuess)
	}
	var haste hastened
	var longer []float64 // of the last two beginnings, where they follow each other
	last, before := math.Inf(1), math.Inf(1)
	out := &Settled{}
	for out.Rounds = 1; ; out.Rounds++ {
		if err := forgeOnce(r, work, setup, x, out); err != nil {
			return out, err
		}
		trips := out.Trips
		told := out.weighed(r)
		total, lost, counted := out.lost(r)
		out.LossShare = lost / total
		if out.Rounds < choosingRounds {
			told = nil
		}
		next := found(r, out, told)
		out.MissMm = missMm(r, out, x, next)
		if out.Rounds >= leastRounds && math.Abs(lost-counted) < settleWithin*total && out.MissMm < shapeWithinMm && math.Abs(out.Trips-trips) < tripsWithin {
			break
		}
		// Where one heat more or less tips the scale still to come, two answers
		// can follow each other for ever. The longer bar is kept, and run to.
		if lost < counted {
			longer = x
		}
		turns := math.Abs(out.LossShare-before) < 2*settleWithin && math.Abs(out.LossShare-last) > 2*settleWithin
		if out.Rounds >= leastRounds && longer != nil && (out.Rounds > hasty && turns || out.Rounds >= settleMaxRounds) {
			if err := runTo(r, work, setup, longer, out); err != nil {
				return out, err
			}
			break
		}
		last, before, out.weights = out.LossShare, last, told
		if out.Rounds > 1 && out.Rounds < hasty {
			next = haste.next(x, next)
		}
		x = next
	}
	if route.HeatAfterHardening(out.Ops) {
		return out, nil
	}
	// cycles and hardening scale away what is ground off anyway: they do not size the
	// bar, but where it has to go back to the fire after them
	return out, treat(r, out.Run)
}

// lost is what there was of the bar, what of it the run lost, and what was counted on; of rods nothing. mm³.
func (s *Settled) lost(r *route.Route) (total, lost, counted float64) {
	for i, f := range s.ForgedMm3 {
		if r.Cells[i].Rod {
			continue
		}
		total += s.StartMm3[i]
		lost += s.StartMm3[i] - f
		counted += s.StartMm3[i] - r.Cells[i].VolumeMm3
	}
	return total, lost, counted
}

// runTo forges from the bar that x begins with until the scale still to come is
// what the run says it is, as near as that can be had. Where the bar turns out too
// Short by that it grows. The nearest run of those that have steel enough is kept.
func runTo(r *route.Route, work *forge.Budget, setup forge.Setup, x []float64, out *Settled) error {
	var kept Settled
	for try := range lastTries {
		run := Settled{Rounds: out.Rounds, ways: out.ways, weights: out.weights, Trips: out.Trips}
		if err := forgeOnce(r, work, setup, x, &run); err != nil {
			return err
		}
		next := found(r, &run, run.weights)
		run.MissMm = missMm(r, &run, x, next)
		total, lost, _ := run.lost(r)
		run.LossShare = lost / total
		short := run.SpareMm3(r.Cells) < -settleWithin*total
		if try == 0 || !short && run.MissMm < kept.MissMm {
			kept = run
		}
		if !short && kept.MissMm < shapeWithinMm {
			break
		}
		x = append([]float64{}, x...)
		for i := range next {
			if i >= len(r.Cells) && i < len(x) || i < len(x) && next[i] > x[i] {
				x[i] = next[i]
			}
		}
	}
	*out = kept
	return nil
}

// Again forges the bar of a settled plan toward the same figures with another setup: other
// hands, another fire. The steel that then burns off is its own, so that it ends a little
// thinner or thicker than was planned. Errors are those of forge.Run.
func Again(r *route.Route, work *forge.Budget, setup forge.Setup, planned *Settled) (*Settled, error) {
	out := &Settled{Rounds: max(leastRounds, planned.Rounds), ways: planned.ways, weights: planned.weights}
	if setup.ByBlow > 0 {
		out.follows = planned
	}
	if err := forgeOnce(r, work, setup, planned.from, out); err != nil {
		return nil, err
	}
	out.weighed(r)
	total, lost := 0.0, 0.0
	for i, f := range out.ForgedMm3 {
		total, lost = total+out.StartMm3[i], lost+out.StartMm3[i]-f
	}
	out.LossShare = lost / total
	if route.HeatAfterHardening(out.Ops) {
		return out, nil
	}
	return out, treat(r, out.Run)
}

// missMm is how far a round that began from x and came to found misses the forged
// shape: in where any cell lies along it, and in any section by the scale that was
// to come.
func missMm(r *route.Route, s *Settled, x, found []float64) (miss float64) {
	along := 0.0
	for i, c := range r.Cells {
		if !c.Rod {
			along += (s.ForgedMm3[i]/c.VolumeMm3 - 1) * (c.ToMm - c.FromMm)
			miss = math.Max(miss, math.Abs(along))
		}
	}
	for i := len(r.Cells); i < len(found); i++ {
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
// the scale (mm a face) that it still loses after that operation. All as it would be
// where its heats counted for what they came to, not for what the run took them for.
func found(r *route.Route, s *Settled, told weights) []float64 {
	x := make([]float64, 0, len(r.Cells)*(1+len(s.Ops)))
	more := make([]float64, len(s.Run.Heats)) // by which each record counts for more
	for k := range s.Run.Heats {
		at := stretch{s.Run.Heats[k].Operation, s.Run.Heats[k].Pass}
		more[k] = told.at(at)/s.weights.at(at) - 1
	}
	before := func(k, i int) (volumeMm3, scaleMm float64) {
		if k == 0 {
			return s.StartMm3[i], 0
		}
		c := &s.Run.Heats[k-1].After.Cells[i]
		return c.VolumeMm3, c.ScaleMm
	}
	for i, c := range r.Cells {
		lost := s.StartMm3[i] - s.ForgedMm3[i]
		for k, m := range more {
			v, _ := before(k, i)
			lost += m * (v - s.Run.Heats[k].After.Cells[i].VolumeMm3)
		}
		x = append(x, math.Max(0, lost/c.VolumeMm3))
	}
	for _, op := range s.Ops {
		for i, d := range s.Run.DoneAt[op.ID] {
			i += op.First
			left := s.Run.Bar.Cells[i].ScaleMm - d
			toCome := left
			for k := len(more) - 1; k >= 0 && left > 0; k-- {
				_, was := before(k, i)
				comes := math.Min(left, s.Run.Heats[k].After.Cells[i].ScaleMm-was)
				toCome, left = toCome+more[k]*comes, left-comes
			}
			x = append(x, math.Max(0, toCome))
		}
	}
	return x
}

// forgeOnce forges the piece from the forged volumes with the loss of x put back; the
// target of every operation carries the scale still to come.
func forgeOnce(r *route.Route, work *forge.Budget, setup forge.Setup, x []float64, out *Settled) error {
	out.from = x
	out.StartMm3, out.ForgedMm3 = make([]float64, len(r.Cells)), make([]float64, len(r.Cells))
	for i, c := range r.Cells {
		out.StartMm3[i] = c.VolumeMm3 * (1 + x[i])
	}
	run, err := forge.NewRun(setup, startBar(r, out.StartMm3))
	if err != nil {
		return err
	}
	run.KeepStates, run.Budget = true, work
	out.Run, out.Ops = run, r.Operations()
	if out.Rounds <= choosingRounds { // by their own heats, whatever those of the round before counted for
		out.weights = nil
	}
	run.Trips = out.weights.of()
	if out.ways == nil {
		out.ways = map[string]way{}
	}
	toCome := x[len(r.Cells):]
	for i, op := range out.Ops {
		if op.Kind == forge.Harden {
			if i+1 < len(out.Ops) {
				if err := treat(r, run); err != nil {
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
		if w, ok := out.ways[op.ID]; ok && out.Rounds > choosingRounds {
			op.Stretches, op.Floors, op.Back, op.Machine = w.stretches, w.floors, w.back, w.machine
		}
		run.WillDo(out.Ops[i+1:])
		if err := run.Do(op); err != nil {
			return err
		}
		out.ways[op.ID] = way{op.Stretches, op.Floors, op.Back, op.Machine}
	}
	for i := range run.Bar.Cells {
		out.ForgedMm3[i] = run.Bar.Cells[i].VolumeMm3
	}
	return nil
}

// startBar is the piece before its first heat.
func startBar(r *route.Route, startMm3 []float64) forge.Bar {
	bar := forge.Bar{Cells: make([]forge.Cell, len(r.Cells))}
	behind := len(r.Cells) // the bit
	if r.HasBit() {
		bar.Steels, behind = []steel.Grade{r.Body}, r.BitCells()+1
	}
	for i, c := range r.Cells {
		bar.Cells[i] = forge.Cell{
			Zone: c.Zone, VolumeMm3: startMm3[i], WidthMm: r.Bar.WidthMm, ThicknessMm: r.Bar.ThicknessMm,
			EdgeMm: r.Bar.ThicknessMm, SpineMm: r.Bar.ThicknessMm, TempC: 20,
		}
		if i >= behind {
			bar.Cells[i].Steel = 1
		}
		if r.Req.SawnOut() {
			bar.Cells[i].WidthMm = r.SawnMm(i)
		}
		if c.Rod { // taken as thick as the tang there, and what it scales
			k := math.Sqrt(startMm3[i] / c.VolumeMm3)
			w, t := c.Final.WidthMm*k, c.Final.ThicknessMm*k
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
