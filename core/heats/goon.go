package heats

import (
	"math"

	"coldember/core/forge"
	"coldember/core/route"
)

// Begun is a piece as it is: its cells, those of the route, and how much of the operation in hand is done.
type Begun struct {
	Bar    forge.Bar
	InHand string
	Share  float64
}

// state is what the run resumes from: the stretch of the operation in hand that it had come to.
func (b *Begun) state(planned *Settled) forge.State {
	st := forge.State{Bar: b.Bar, DoneMm: make([]float64, len(b.Bar.Cells))}
	for _, op := range planned.Ops {
		if n := len(op.Stretches); op.ID == b.InHand && n > 0 && b.Share > 0 {
			k := min(n-1, int(b.Share*float64(n)))
			st.Operation, st.Pass, st.Share = op.ID, n-1-k, math.Min(.99, b.Share*float64(n)-float64(k))
			if op.Back {
				st.Pass = k
			}
			st.First, st.Last = op.First, op.Last
		}
	}
	return st
}

// GoOn forges on from a bar as it is, toward the figures of a settled plan: each operation that is not done,
// from the beginning of what it still has to do; then the cycles. The cells of the bar are those of the
// route. Errors are those of forge.Run.
func GoOn(r *route.Route, work *forge.Budget, setup forge.Setup, planned *Settled, from Begun, done func(op *forge.Operation) bool) (*Settled, error) {
	bar := from.Bar
	run, err := forge.Resume(setup, from.state(planned))
	if err != nil {
		return nil, err
	}
	run.KeepStates, run.Budget, run.Trips = true, work, planned.weights.of()
	out := &Settled{Run: run, Rounds: planned.Rounds, StartMm3: make([]float64, len(bar.Cells)), ForgedMm3: make([]float64, len(bar.Cells)), ways: planned.ways}
	for i := range bar.Cells {
		out.StartMm3[i] = bar.Cells[i].VolumeMm3
	}
	for _, op := range planned.Ops {
		if done(op) {
			continue
		}
		again := *op
		out.Ops = append(out.Ops, &again)
		if op.Kind == forge.Harden {
			continue
		}
		if err := run.Do(&again); err != nil {
			return nil, err
		}
	}
	total, lost := 0.0, 0.0
	for i := range run.Bar.Cells {
		out.ForgedMm3[i] = run.Bar.Cells[i].VolumeMm3
		total, lost = total+out.StartMm3[i], lost+out.StartMm3[i]-out.ForgedMm3[i]
	}
	out.LossShare = lost / total
	out.weighed(r)
	if route.HeatAfterHardening(out.Ops) {
		return out, nil
	}
	return out, treat(r, run)
}
