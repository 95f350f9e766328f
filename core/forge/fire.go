package forge

import (
	"fmt"
	"math"

	"coldember/core/thermal"
)

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
	rec.FireS = slowest + r.Setup.Fire.HoldSPerMm*thickest
	for i := range cells {
		c := &cells[i]
		if !c.hot {
			c.TempC = thermal.Air().Step(c.WidthMm, c.ThicknessMm, c.TempC, rec.FireS)
			continue
		}
		hold := rec.FireS - slowest + heldBack*(slowest-r.soaked[i])
		if c.TempC > r.flows[c.Steel].grade.ForgeHighC {
			rec.AboveS = math.Max(rec.AboveS, hold)
		}
		r.clocks[i].Add(c.TempC, hold, r.Setup.Fire.Atmosphere)
		r.decarb[i].Add(c.TempC, hold)
	}
	r.spill(rec.FireS * heatsThrough)
	return nil
}

// heldBack is the share of the time that a thin spot waits at heat for the slowest one: the rest of it it is
// held out of the middle of the fire (judgement: .3–1).
const heldBack = 0.53

// heatingStepC is the temperature step of the heating integral: the midpoint
// rule over 20 °C is within 0.3 % of over 1 °C outside the transformation.
const heatingStepC = 20

// heatingSteps is about how many of them a cell takes, as the budget counts them.
const heatingSteps = 16

// soak heats cell i to the soak temperature, scaling on the way, and returns
// the time it takes; a cell that is hotter is let come down to it.
func (r *Run) soak(i int) (timeS float64, err error) {
	c := &r.Bar.Cells[i]
	fire := thermal.Forge(r.Setup.Fire.TempC).Of(c.WidthMm, c.ThicknessMm)
	r.clocks[i], r.decarb[i] = thermal.ScaleClock{}, thermal.DecarbClock{}
	for c.TempC < r.soakC-1e-9 {
		rise := math.Min(heatingStepC, r.soakC-c.TempC)
		mid := c.TempC + rise/2
		rate := fire.Rate(mid)
		if rate <= 0 {
			return 0, &thermal.UnreachableError{ToC: r.soakC, SettleC: c.TempC}
		}
		dt := rise / rate
		r.clocks[i].Add(mid, dt, r.Setup.Fire.Atmosphere)
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
// counted in part, and with it its share of the trips that are taken, so that loss
// follows work without steps. The first spot that
// burns away by it ends the work with a *BurntError.
func (r *Run) shed(rec *Heat) error {
	counts := rec.Fraction
	if r.Trips != nil {
		counts *= r.Trips(rec.Operation, rec.Pass)
	}
	for i := range r.Bar.Cells {
		if c := &r.Bar.Cells[i]; c.hot {
			lost, burnt := c.scaleOff(r.clocks[i].LossMm() * counts * factor(r.Setup.Fire.ScaleFactor))
			if burnt {
				return &BurntError{Zone: c.Zone, Heats: len(r.Heats) + 1}
			}
			rec.ScaleMm3 += lost
			c.decarb.AddShare(r.decarb[i], counts)
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
