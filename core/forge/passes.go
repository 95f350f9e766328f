package forge

import (
	"math"
	"slices"

	"coldember/core/thermal"
)

// quicker is the share of the time that the hand has to save before it takes the place of a
// machine (judgement).
const quicker = 0.2

// choose settles how an operation is worked: by hand where that is quicker than its machine
// and the smith has not said otherwise, and in which stretches. Times are estimated from the
// cooling and the work of each stretch as the operation begins.
func (r *Run) choose(op *Operation) error {
	if op.Stretches == nil {
		op.Stretches = r.stretchesOf(op)
		op.Back = r.goesBack(op)
		if err := r.chooseMachine(op); err != nil {
			return err
		}
	}
	if op.Floors != nil {
		return nil
	}
	op.Floors = make([]float64, len(op.Stretches))
	for p, first := range op.Stretches {
		op.Floors[p] = r.floorOf(op, &Heat{First: first, Last: lastOf(op, op.Stretches, p)})
	}
	return nil
}

// chooseMachine leaves an operation its machine, or none where the hand is quicker.
func (r *Run) chooseMachine(op *Operation) error {
	byMachine := op.Machine
	if byMachine == nil || op.Fixed {
		return nil
	}
	machineS, err := r.timeOf(op)
	if err != nil {
		return err
	}
	weak := math.IsInf(machineS, 1) || op.Kind.Bevels() && r.weakFor(op)
	op.Machine = nil
	if weak && op.Kind.Bevels() {
		return nil // the hand does what its dies cannot
	}
	if handS, err := r.timeOf(op); err != nil || !(handS < machineS*(1-quicker)) || weak {
		op.Machine = byMachine // one that is too weak says so when it begins
		return err
	}
	return nil
}

// weakFor tells whether a machine cannot bear an operation down to where a heat of it ends.
func (r *Run) weakFor(op *Operation) bool {
	for k, first := range op.Stretches {
		rec := Heat{First: first, Last: lastOf(op, op.Stretches, k)}
		d := r.driveOf(op, &rec, 1)
		r.owe(op, &d, &rec, 1)
		if math.IsInf(r.strokesOwedAt(r.lowOf(op, &d, &rec, 1), &d, &rec), 1) {
			return true
		}
	}
	return false
}

// timeOf is about how long an operation takes in its stretches, s.
func (r *Run) timeOf(op *Operation) (total float64, err error) {
	for k, first := range op.Stretches {
		t, err := r.estimate(op, first, lastOf(op, op.Stretches, k))
		if err != nil {
			return 0, err
		}
		total += t
	}
	return total, nil
}

// stretchesOf are the stretches in which an operation is worked, each by its first cell: from
// the handle on as long as the fire makes hot, and what is left at the point. A blade that
// is a little longer has a little more left, so that what burns off follows it without
// steps; halves would scale far less than one whole.
func (r *Run) stretchesOf(op *Operation) (firsts []int) {
	most, long := r.Setup.Fire.HotLengthMm*(1+HotSlack), 0.0
	first := op.Last
	for i := op.Last; i >= op.First; i-- {
		l := r.length(op, i)
		if long+l > most && i < op.Last {
			firsts, long = append(firsts, first), 0
		}
		first, long = i, long+l
	}
	firsts = append(firsts, first)
	slices.Reverse(firsts)
	return firsts
}

// HotSlack lets a stretch be this share longer than the hot length before it is split: its
// ends are worked last.
const HotSlack = 0.05

// length of a cell of an operation, on the mean of its beginning and its end.
func (r *Run) length(op *Operation, i int) float64 {
	c := &r.Bar.Cells[i]
	l := c.LengthMm()
	if op.Targets != nil {
		l = math.Sqrt(l * c.VolumeMm3 / (op.Targets[i-op.First].WidthMm * op.Targets[i-op.First].ThicknessMm))
	}
	return l
}

// lastOf is the last cell of stretch k.
func lastOf(op *Operation, firsts []int, k int) int {
	if k+1 < len(firsts) {
		return firsts[k+1] - 1
	}
	return op.Last
}

// estimate is about how long a stretch of an operation takes, s: its strokes at the middle
// of the window, and the heats that they take.
func (r *Run) estimate(op *Operation, first, last int) (float64, error) {
	rec := Heat{First: first, Last: last}
	d := r.driveOf(op, &rec, 1)
	r.owe(op, &d, &rec, 1)
	low := r.lowOf(op, &d, &rec, 1)
	if low >= r.soakC {
		return math.Inf(1), nil
	}
	r.contact = d.contact
	fire, air, on := thermal.Forge(r.Setup.Fire.TempC), thermal.Air(), r.worked()
	window, fireS := math.Inf(1), 0.0
	for i := first; i <= last; i++ {
		c := &r.Bar.Cells[i]
		if l := air.Of(c.WidthMm, c.ThicknessMm).Step(r.soakC, r.Setup.Fire.CarryS); l > low {
			t, err := on.CoarseTimeTo(c.WidthMm, c.ThicknessMm, l, low)
			if err != nil {
				return 0, err
			}
			window = math.Min(window, t)
		} else {
			window = 0
		}
		t, err := fire.CoarseTimeTo(c.WidthMm, c.ThicknessMm, low, r.soakC)
		if err != nil {
			return 0, err
		}
		fireS = math.Max(fireS, t+r.Setup.Fire.HoldSPerMm*math.Min(c.WidthMm, c.ThicknessMm))
	}
	if window <= 0 {
		return math.Inf(1), nil
	}
	strokes := math.Max(r.floorOf(op, &rec), r.strokesOwedAt((r.soakC+low)/2, &d, &rec)/d.lands)
	return strokes * d.strokeS() / window * (fireS + r.Setup.Fire.CarryS + window + r.Setup.Fire.BrushS), nil
}

// strokesOwedAt is how many strokes that land what a stretch owes takes at one temperature.
func (r *Run) strokesOwedAt(tempC float64, d *drive, rec *Heat) float64 {
	for i := rec.First; i <= rec.Last; i++ {
		r.temps[i], r.Bar.Cells[i].TempC = r.Bar.Cells[i].TempC, tempC
	}
	owed, _, stalls := r.strokesOwed(d, rec, .5, .5)
	if stalls {
		owed = math.Inf(1)
	}
	for i := rec.First; i <= rec.Last; i++ {
		r.Bar.Cells[i].TempC = r.temps[i]
	}
	return owed
}
