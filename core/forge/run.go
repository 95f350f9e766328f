package forge

import (
	"math"

	"coldember/core/thermal"
)

// Heat is one trip fire → anvil → fire spent on one stretch of one operation.
// Fraction is how much of the heat's working time was needed (1 but for the
// last); its figures are those of the used part, but FireS, CarryS and BrushS,
// which a started heat costs whole.
type Heat struct {
	Operation   string
	Pass        int
	First, Last int
	Fraction    float64
	StartC      float64 // coldest worked cell at the first blow
	EndC        float64 // coldest worked cell at the last blow
	LowC        float64 // where it is too cold to go on
	FireS       float64
	AboveS      float64 // in the fire above the steel's upper working temperature
	CarryS      float64
	WorkS       float64
	BrushS      float64
	Blows       float64
	EdgeBlows   float64 // of them, those on edge
	ShareFrom   float64
	ShareTo     float64
	ScaleMm3    float64
	After       Bar       // only when the run keeps its states
	DoneMm      []float64 // scale of each cell of a stretch that this heat finished, as it came from the hammer
	Next        Bar       // as the next heat finds it: After, cooled by what of the heat was not needed

	// Curve is (seconds at the anvil, °C) of the coldest worked cell, with the
	// states.
	Curve [][2]float64
}

// Run is a piece being worked: the bar and what has happened to it.
type Run struct {
	Setup      Setup
	Bar        Bar
	Heats      []Heat
	KeepStates bool
	Budget     *Budget // nil: no end
	// Trips is how many trips between fire and anvil each heat of a stretch of an operation counts for; nil: one.
	Trips func(operation string, pass int) float64

	DoneAt     map[string][]float64 // cumulative scale of each worked cell when the operation was done
	soakC      float64
	outOfRange bool
	clocks     []thermal.ScaleClock  // of this heat
	decarb     []thermal.DecarbClock // of this heat
	work       []effort
	flows      []flow             // of the piece's steels
	skins      []thermal.Exchange // of every cell as it lies now
	soaked     []float64          // time each cell takes to the soak temperature
	along      *conductor
	beyond     *conductor // for what runs out of the hot stretch
	temps      []float64
	contact    float64 // W/m²K of what works the piece now
	from       *State  // where it goes on, until it does

	hand  *hand        // whose blows are looked at one by one; nil: they are taken on the mean
	later []*Operation // what comes after the operation in hand, as far as it is known

	workedFirst, workedLast int // the stretch of the last heat; last is −1 before the first
}

// NewRun starts with a bar as it is. Where it is of several steels it is heated no further than all of them
// stand; operations that work one of them alone have its window by SoakC and SteelLowC.
func NewRun(s Setup, b Bar) (*Run, error) {
	flows := []flow{newFlow(s.Steel)}
	for _, g := range b.Steels {
		flows = append(flows, newFlow(g))
		s.Steel.ForgeHighC = math.Min(s.Steel.ForgeHighC, g.ForgeHighC)
	}
	soak, err := s.SoakC()
	if err != nil {
		return nil, err
	}
	n := len(b.Cells)
	return &Run{
		hand: newHand(s.ByBlow), flows: flows, workedLast: -1, skins: make([]thermal.Exchange, n),
		Setup: s, Bar: b, soakC: soak, DoneAt: map[string][]float64{},
		clocks: make([]thermal.ScaleClock, n), decarb: make([]thermal.DecarbClock, n), soaked: make([]float64, n), work: make([]effort, n),
		along: newConductor(n), beyond: newConductor(n), temps: make([]float64, n),
	}, nil
}

// OutOfRange tells whether the flow stress was asked for beyond the measured
// rates, temperatures or strains (hand hammering always is, in rate).
func (r *Run) OutOfRange() bool { return r.outOfRange }

// SoakC is the temperature of every forging heat.
func (r *Run) SoakC() float64 { return r.soakC }

// Do works an operation to its end, one pass after the other. Errors are
// *WindowError, *StallError, *TooWeakError, *BurntError at the first spot that burns
// away, and those of the budget.
func (r *Run) Do(op *Operation) error {
	if own := op.SoakC; own > 0 {
		if own > r.Setup.Fire.TempC-UnderForgeC {
			return &WindowError{SoakC: r.Setup.Fire.TempC - UnderForgeC, LowC: op.LowC, NeedForgeC: own + UnderForgeC}
		}
		defer func(usual float64) { r.soakC = usual }(r.soakC)
		r.soakC = own
	}
	if err := r.choose(op); err != nil {
		return err
	}
	n, passes := op.Last-op.First+1, len(op.Stretches)
	done, from, share := make([]float64, n), 0, 0.0
	if st := r.from; st != nil && st.Operation == op.ID {
		if op.First < len(st.DoneMm) {
			copy(done, st.DoneMm[op.First:])
		}
		from, share, r.from = min(st.Pass, passes-1), st.Share, nil
		if !op.Back {
			from = passes - 1 - from
		}
	}
	for k := from; k < passes; k++ {
		p := k
		if !op.Back {
			p = passes - 1 - k
		}
		if err := r.pass(op, p, share, done); err != nil {
			return err
		}
		share = 0
	}
	r.DoneAt[op.ID] = done
	return nil
}

// WillDo tells what comes after the operation that is done next: a hand whose blows are looked at leaves to it what is not
// worth a blow now.
func (r *Run) WillDo(later []*Operation) { r.later = later }

// worksLater tells whether heavy work comes to a cell after the operation in hand.
func (r *Run) worksLater(cell int) bool {
	for _, op := range r.later {
		if op.Targets != nil && !op.Kind.Light() && op.First <= cell && cell <= op.Last {
			return true
		}
	}
	return false
}

// asDone is what of a stretch is not worth another heat: far less than calipers tell.
const asDone = 1e-5

// mostHeats is the most heats that a stretch of an operation may take: it burns
// away rather than being forged then.
const mostHeats = 250

// mostInAll is the most heats of a whole piece that are looked at: nobody forges on.
const mostInAll = 400

// goesBack tells whether an operation goes from the point to the handle. As a rule it goes
// the other way, since the next begins at the point; light taps, and a machine that does much in
// little of a heat, begin where they can use what is left of the heat before.
func (r *Run) goesBack(op *Operation) bool {
	n := len(op.Stretches)
	if n < 2 || !op.Kind.Light() && op.Machine == nil || r.workedLast < 0 {
		return false
	}
	span := func(first, last int) float64 {
		l, _, _ := r.extent(min(first, r.workedFirst), max(last, r.workedLast))
		return l
	}
	return span(op.First, lastOf(op, op.Stretches, 0)) < span(op.Stretches[n-1], op.Last)
}

// pass works one stretch of an operation from a share of it to its end.
func (r *Run) pass(op *Operation, p int, share float64, done []float64) error {
	first, last := op.Stretches[p], lastOf(op, op.Stretches, p)
	for heat := 0; share < 1; heat++ {
		rec := Heat{Operation: op.ID, Pass: p, First: first, Last: last, ShareFrom: share, CarryS: r.Setup.Fire.CarryS, BrushS: r.Setup.Fire.BrushS}
		if err := r.fire(&rec); err != nil {
			return err
		}
		r.rest(r.Setup.Fire.CarryS)
		work := r.hammer
		if r.hand != nil {
			work = r.byBlows
		}
		q, err := work(op, &rec, 1-share)
		if err != nil {
			return err
		}
		before := share
		share += (1 - share) * q
		op.Turning.carry(r.Bar.Cells[first:last+1], before, share, op.Last-op.First+1)
		switch {
		case 1-share < asDone:
			share = 1
			for i := first; i <= last; i++ {
				done[i-op.First] = r.Bar.Cells[i].ScaleMm
			}
			if r.KeepStates {
				rec.DoneMm = append(rec.DoneMm, done[first-op.First:last+1-op.First]...)
			}
		case q < leastShare:
			return &StallError{Operation: op.ID, TooCold: rec.Blows == 0, TimesEnergy: leastShare / math.Max(1e-12, q)}
		case heat > mostHeats:
			return &TooMuchWorkError{}
		}
		rec.ShareTo = share
		r.rest(r.Setup.Fire.BrushS)
		if err := r.shed(&rec); err != nil {
			return err
		}
		if r.KeepStates {
			rec.After = r.Bar.Clone()
		}
		r.Heats = append(r.Heats, rec)
		r.workedFirst, r.workedLast = first, last
		r.useUp(&rec)
		if r.KeepStates {
			r.Heats[len(r.Heats)-1].Next = r.Bar.Clone()
		}
		if err := r.Budget.Err(); err != nil {
			return err
		}
		if len(r.Heats) > mostInAll {
			return &TooMuchWorkError{}
		}
	}
	return nil
}

// useUp cools the worked stretch for the part of the heat that was not needed:
// the next operation takes that part, so that its own first fire is counted as
// after a whole heat. Without this, loss would jump where a heat is just used
// up or just not.
func (r *Run) useUp(rec *Heat) {
	if rec.Fraction >= 1 {
		return
	}
	r.ahead(rec, math.Inf(-1), math.Min(aheadMaxS, rec.WorkS/rec.Fraction-rec.WorkS))
	for i := range r.Bar.Cells {
		r.Bar.Cells[i].TempC = r.temps[i]
	}
}
