package forge

import (
	"fmt"
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// minWindowC is the least working window a heat is planned with.
const minWindowC = 50

// Margins under the steel's and the forge's temperature that a piece is taken
// to.
const (
	UnderSteelC = 20.0
	UnderForgeC = 30
)

// Shop is who works with what on which steel.
type Shop struct {
	Smith Smith
	Fire  Fire
	Steel steel.Grade
}

// WindowError says that the forge or the steel leaves no window to work in;
// NeedForgeC is the forge temperature that would do (0: no forge will).
type WindowError struct{ SoakC, LowC, NeedForgeC float64 }

func (e *WindowError) Error() string {
	return fmt.Sprintf("forge: soaking to %.0f °C leaves under %d °C above %.0f °C", e.SoakC, minWindowC, e.LowC)
}

// StallError says that the hammer cannot move this piece: in a whole heat it
// does less than a thousandth of the operation.
type StallError struct{ Operation string }

func (e *StallError) Error() string { return "forge: the hammer does not move " + e.Operation }

// LowC is where a heat ends: the smith's own figure, or the steel's lower limit.
func (s Shop) LowC() float64 {
	if own := s.Fire.StopC; own > 0 {
		return own
	}
	return s.Steel.ForgeLowC
}

// SoakC is the temperature a piece is taken to, the smith's own or by steel and
// forge, or a *WindowError.
func (s Shop) SoakC() (float64, error) {
	bySteel, low := s.Steel.ForgeHighC-UnderSteelC, s.LowC()
	if own := s.Fire.SoakC; own > 0 {
		bySteel = own
		if own > s.Fire.TempC-UnderForgeC {
			return 0, &WindowError{SoakC: s.Fire.TempC - UnderForgeC, LowC: low, NeedForgeC: own + UnderForgeC}
		}
	}
	soak := math.Min(bySteel, s.Fire.TempC-UnderForgeC)
	if soak-low < minWindowC {
		need := low + minWindowC + UnderForgeC
		if bySteel-low < minWindowC {
			need = 0
		}
		return 0, &WindowError{SoakC: soak, LowC: low, NeedForgeC: need}
	}
	return soak, nil
}

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
	FuelG       float64
	After       Bar // only when the run keeps its states

	// Curve is (seconds at the anvil, °C) of the coldest worked cell, with the
	// states.
	Curve [][2]float64
}

// Run is a piece being worked: the bar and what has happened to it.
type Run struct {
	Shop       Shop
	Bar        Bar
	Heats      []Heat
	KeepStates bool
	Budget     *Budget              // nil: no end
	DoneAt     map[string][]float64 // cumulative scale of each worked cell when the operation was done
	soakC      float64
	outOfRange bool
	clocks     []thermal.ScaleClock  // of this heat
	decarb     []thermal.DecarbClock // of this heat
	work       []effort
	law        steel.Law
	held       steel.Flow // of one MPa
	over       []overstrained
	skins      []thermal.Exchange // of every cell as it lies now
	soaked     []float64          // time each cell takes to the soak temperature
	along      *conductor
	beyond     *conductor // for what runs out of the hot stretch
	temps      []float64
	contact    float64 // W/m²K of what works the piece now
}

// NewRun starts with a cold bar.
func NewRun(s Shop, b Bar) (*Run, error) {
	soak, err := s.SoakC()
	if err != nil {
		return nil, err
	}
	n := len(b.Cells)
	return &Run{
		law: steel.NewLaw(s.Steel.CarbonPct), held: steel.Flow{BaseMPa: 1, Exponent: steel.Exponent(s.Steel.CarbonPct)}, skins: make([]thermal.Exchange, n),
		Shop: s, Bar: b, soakC: soak, DoneAt: map[string][]float64{},
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
		if own > r.Shop.Fire.TempC-UnderForgeC {
			return &WindowError{SoakC: r.Shop.Fire.TempC - UnderForgeC, LowC: op.LowC, NeedForgeC: own + UnderForgeC}
		}
		defer func(usual float64) { r.soakC = usual }(r.soakC)
		r.soakC = own
	}
	n := op.Last - op.First + 1
	passes := max(1, min(op.Passes, n))
	done := make([]float64, n)
	for p := passes - 1; p >= 0; p-- { // from the handle to the point: the next operation starts there
		first, last := op.First+p*n/passes, op.First+(p+1)*n/passes-1
		if err := r.pass(op, p, first, last, done); err != nil {
			return err
		}
	}
	r.DoneAt[op.ID] = done
	return nil
}

// mostHeats is the most heats that a stretch of an operation may take: it burns
// away rather than being forged then.
const mostHeats = 80

func (r *Run) pass(op *Operation, pass, first, last int, done []float64) error {
	share := 0.0
	for heat := 0; share < 1; heat++ {
		rec := Heat{Operation: op.ID, Pass: pass, First: first, Last: last, ShareFrom: share, CarryS: r.Shop.Fire.CarryS, BrushS: r.Shop.Fire.BrushS}
		if err := r.fire(&rec); err != nil {
			return err
		}
		r.rest(r.Shop.Fire.CarryS)
		q, err := r.hammer(op, &rec, 1-share)
		if err != nil {
			return err
		}
		before := share
		share += (1 - share) * q
		op.Turning.carry(r.Bar.Cells[first:last+1], before, share, op.Last-op.First+1)
		if q > 1-1e-12 {
			share = 1
			for i := first; i <= last; i++ {
				done[i-op.First] = r.Bar.Cells[i].ScaleMm
			}
		} else if q < 1e-3 || heat > mostHeats {
			return &StallError{Operation: op.ID}
		}
		rec.ShareTo = share
		r.rest(r.Shop.Fire.BrushS)
		if err := r.shed(&rec); err != nil {
			return err
		}
		rec.FuelG = r.Shop.Fire.FuelKgPerH / 3.6 * rec.FireS * rec.Fraction
		if r.KeepStates {
			rec.After = r.Bar.Clone()
		}
		r.Heats = append(r.Heats, rec)
		r.useUp(&rec)
		if err := r.Budget.Err(); err != nil {
			return err
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

// hotRange marks the cells that come to heat: the worked stretch, which the
// smith keeps in the middle of the fire. What lies beyond stays dull.
func (r *Run) hotRange(first, last int) {
	for i := range r.Bar.Cells {
		r.Bar.Cells[i].hot = i >= first && i <= last
	}
}

// fire brings the hot cells to the soak temperature: the slowest worked cell
// sets the time, and the smith keeps thin cells from going past it.
func (r *Run) fire(rec *Heat) error {
	if err := r.Budget.Spend(heatingSteps * len(r.Bar.Cells)); err != nil {
		return err
	}
	r.hotRange(rec.First, rec.Last)
	cells := r.Bar.Cells
	slowest, thickest := 0.0, 0.0
	for i := rec.First; i <= rec.Last; i++ {
		t, err := r.soak(i)
		if err != nil {
			return fmt.Errorf("forge: heating for %s: %w", rec.Operation, err)
		}
		r.soaked[i] = t
		slowest = math.Max(slowest, t)
		thickest = math.Max(thickest, math.Min(cells[i].ThicknessMm, cells[i].WidthMm))
	}
	rec.FireS = slowest + r.Shop.Fire.HoldSPerMm*thickest
	for i := range cells {
		c := &cells[i]
		if !c.hot {
			c.TempC = thermal.Air().Step(c.WidthMm, c.ThicknessMm, c.TempC, rec.FireS)
			continue
		}
		hold := rec.FireS - r.soaked[i]
		if c.TempC > r.Shop.Steel.ForgeHighC {
			rec.AboveS = math.Max(rec.AboveS, hold)
		}
		r.clocks[i].Add(c.TempC, hold, r.Shop.Fire.Atmosphere)
		r.decarb[i].Add(c.TempC, hold)
	}
	r.spill(rec.FireS * heatsThrough)
	return nil
}

// heatingStepC is the temperature step of the heating integral: the midpoint
// rule over 20 °C is within 0.3 % of over 1 °C outside the transformation.
const heatingStepC = 20

// heatingSteps is about how many of them a cell takes, as the budget counts them.
const heatingSteps = 16

// soak heats cell i to the soak temperature, scaling on the way, and returns
// the time it takes; a cell that is hotter is let come down to it.
func (r *Run) soak(i int) (timeS float64, err error) {
	c := &r.Bar.Cells[i]
	fire := thermal.Forge(r.Shop.Fire.TempC).Of(c.WidthMm, c.ThicknessMm)
	r.clocks[i], r.decarb[i] = thermal.ScaleClock{}, thermal.DecarbClock{}
	for c.TempC < r.soakC-1e-9 {
		rise := math.Min(heatingStepC, r.soakC-c.TempC)
		mid := c.TempC + rise/2
		rate := fire.Rate(mid)
		if rate <= 0 {
			return 0, &thermal.UnreachableError{ToC: r.soakC, SettleC: c.TempC}
		}
		dt := rise / rate
		r.clocks[i].Add(mid, dt, r.Shop.Fire.Atmosphere)
		r.decarb[i].Add(mid, dt)
		c.TempC += rise
		timeS += dt
	}
	c.TempC = r.soakC
	return timeS, nil
}

// lie sets how every hot cell meets its surroundings: the worked stretch the
// anvil and what strikes it, the rest the air.
func (r *Run) lie(first, last int) {
	on, air := r.worked(), thermal.Air()
	for i := range r.Bar.Cells {
		if c := &r.Bar.Cells[i]; i >= first && i <= last {
			r.skins[i] = on.Of(c.WidthMm, c.ThicknessMm)
		} else if c.hot {
			r.skins[i] = air.Of(c.WidthMm, c.ThicknessMm)
		}
	}
	r.along.lay(r.hotCells())
}

// cool lets the hot cells, as they lie, lose heat for dt, scaling in open air.
func (r *Run) cool(dt float64) {
	for i := range r.Bar.Cells {
		if r.Bar.Cells[i].hot {
			r.air(i, dt)
		}
	}
	r.conduct(dt)
}

// air cools one cell as it lies for dt seconds.
func (r *Run) air(i int, dt float64) {
	c := &r.Bar.Cells[i]
	before := c.TempC
	c.TempC = r.skins[i].Step(before, dt)
	mid := (before + c.TempC) / 2
	r.clocks[i].Add(mid, dt, thermal.AtmosphereAir)
	r.decarb[i].Add(mid, dt)
}

// rest holds the piece in the air: carried to the anvil, or brushed.
func (r *Run) rest(dt float64) {
	if dt <= 0 {
		return
	}
	r.lie(0, -1)
	r.cool(dt)
}

// shed lets the scale of the heat fall; a heat that was needed in part is
// counted in part, so that loss follows work without steps. The first spot that
// burns away by it ends the work with a *BurntError.
func (r *Run) shed(rec *Heat) error {
	for i := range r.Bar.Cells {
		if c := &r.Bar.Cells[i]; c.hot {
			lost, burnt := c.scaleOff(r.clocks[i].LossMm() * rec.Fraction)
			if burnt {
				return &BurntError{Zone: c.Zone, Heats: len(r.Heats) + 1}
			}
			rec.ScaleMm3 += lost
			c.decarb.AddShare(r.decarb[i], rec.Fraction)
		}
	}
	return nil
}

// coldest of the worked cells.
func (r *Run) coldest(first, last int) float64 {
	t := math.Inf(1)
	for i := first; i <= last; i++ {
		t = math.Min(t, r.Bar.Cells[i].TempC)
	}
	return t
}

// hammer works the stretch blow by blow until it is done or the coldest worked
// cell is at the lower limit; it returns the fraction of what was left that was
// done (1: all) and fills the record.
func (r *Run) hammer(op *Operation, rec *Heat, remaining float64) (float64, error) {
	s, low := r.Shop.Smith, r.Shop.LowC()
	if op.LowC > 0 {
		low = op.LowC
	}
	d, err := r.driveOf(op, rec, remaining)
	if err != nil {
		return 0, err
	}
	r.contact = d.contact
	work, onEdge := 0.0, 0.0
	for i := rec.First; i <= rec.Last; i++ {
		var to *Target
		if op.Targets != nil {
			to = &op.Targets[i-op.First]
		}
		e := op.effort(s, d.biteMm, &r.Bar.Cells[i], to, remaining)
		e.logRate = math.Log(d.speedMPerS * 1000 / (2 * e.heightMm) / 10)
		e.a, e.b = steel.Coefficients(steel.Exponent(r.Shop.Steel.CarbonPct), e.strain)
		r.work[i] = e
		work, onEdge = work+e.volumeMm3*e.strain*e.redundancy, onEdge+e.volumeMm3*e.strain*e.redundancy*e.onEdge
	}
	r.lie(rec.First, rec.Last)
	energy, dt := d.energyMJ, 1/d.ratePerS
	rec.StartC = r.coldest(rec.First, rec.Last)
	q, temp, spent := 0.0, rec.StartC, 0.0
	guess := 0.05
	r.note(rec, 0, temp)
	for temp > low && q < 1 {
		need, used := 0.0, 0.0
		if d.strokes > 0 {
			need, used = 1/d.strokes, (1-q)*d.strokes
		} else {
			need, used = r.blow(rec, q, energy, guess)
		}
		guess = need
		part := 1.0
		if q+need > 1 {
			part, need = used, 1-q
		}
		r.cool(dt * part)
		next := r.coldest(rec.First, rec.Last)
		if next < low && part*dt > 0 {
			// the lower limit comes within this blow: count it in part
			cut := (temp - low) / (temp - next)
			part *= cut
			need *= cut
		}
		if err := r.Budget.Spend(rec.Last - rec.First + 1); err != nil {
			return 0, err
		}
		q += need
		rec.Blows += part
		spent += part * dt
		temp = next
		r.note(rec, spent, math.Max(temp, low))
	}
	r.noteEnd(rec, spent, math.Max(temp, low))
	if work > 0 {
		rec.EdgeBlows = rec.Blows * onEdge / work
	}
	r.spill(r.Shop.Fire.CarryS + spent)
	rec.EndC, rec.WorkS, rec.Fraction = math.Max(temp, low), spent, 1
	if q >= 1-1e-12 {
		q = 1
		if temp > low {
			rec.Fraction = spent / (spent + r.windowLeft(rec, low))
		}
	}
	if op.Targets != nil {
		for i := rec.First; i <= rec.Last; i++ {
			r.Bar.Cells[i].advance(op.Targets[i-op.First], q)
		}
	}
	return q, nil
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
