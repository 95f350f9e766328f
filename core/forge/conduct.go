package forge

import (
	"math"

	"coldember/core/thermal"
)

// conductor carries heat along the bar between its cells.
type conductor struct {
	mass, half            []float64 // kg; m·K/W of half a cell at a conductivity of one
	diag, between, answer []float64 // the tridiagonal system, W/K
	n                     int
}

func newConductor(n int) *conductor {
	all := make([]float64, 5*n)
	part := func(i int) []float64 { return all[i*n : (i+1)*n] }
	return &conductor{mass: part(0), half: part(1), diag: part(2), between: part(3), answer: part(4)}
}

// lay takes the cells between which heat is to flow, as they are now.
func (k *conductor) lay(cells []Cell) {
	k.n = len(cells)
	for i := range cells {
		c := &cells[i]
		k.mass[i] = thermal.DensityKgPerM3 * 1e-9 * c.VolumeMm3
		k.half[i] = c.LengthMm() / 2 / (c.WidthMm * c.ThicknessMm) * 1000
	}
}

// step lets heat flow between neighbours for dt seconds: backward Euler on the
// cells' own lengths and sections, so that the step is not bound by the size of
// a cell and no heat is made or lost. temps is °C, one a cell, changed in place.
func (k *conductor) step(temps []float64, dt float64) {
	n := k.n
	if n < 2 || dt <= 0 {
		return
	}
	perS := 1 / dt
	last := k.half[0] / thermal.ConductivityWPerMK(temps[0])
	left, before := 0.0, 0.0 // to the cell before: conductance, and over its pivot
	for i, t := range temps[:n] {
		m, g := k.mass[i]*thermal.SpecificHeat(t)*perS, 0.0
		if i+1 < n {
			next := k.half[i+1] / thermal.ConductivityWPerMK(temps[i+1])
			g = 1 / (last + next)
			last = next
		}
		// Thomas, on the way: row i less the row before times −left over its pivot
		d, right := m+left+g, m*t
		if i > 0 {
			d -= left * before
			right += before * k.answer[i-1]
		}
		k.diag[i], k.between[i], k.answer[i] = d, g, right
		left, before = g, g/d
	}
	temps[n-1] = k.answer[n-1] / k.diag[n-1]
	for i := n - 2; i >= 0; i-- {
		temps[i] = (k.answer[i] + k.between[i]*temps[i+1]) / k.diag[i]
	}
}

// hotCells are those between which heat flows: the stretch that came to heat.
func (r *Run) hotCells() []Cell {
	first, last := r.hotSpan()
	if first < 0 {
		return nil
	}
	return r.Bar.Cells[first : last+1]
}

// hotSpan is the stretch that came to heat.
func (r *Run) hotSpan() (first, last int) {
	first, last = -1, -2
	for i := range r.Bar.Cells {
		if r.Bar.Cells[i].hot {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	return first, last
}

// conduct lets heat flow along the hot stretch. Beyond its ends the fire's hot
// length goes on, so that next to nothing flows out there; what matters is that
// the thin point draws on what is thick behind it, however finely it is cut.
func (r *Run) conduct(dt float64) {
	first, last := r.hotSpan()
	if last <= first {
		return
	}
	cells := r.Bar.Cells
	for i := first; i <= last; i++ {
		r.temps[i] = cells[i].TempC
	}
	r.along.step(r.temps[first:last+1], dt)
	for i := first; i <= last; i++ {
		cells[i].TempC = r.temps[i]
	}
}

// spill lets heat run along the bar for dt seconds into what lies beyond the hot
// stretch. The end of the stretch stays as hot as it is: the fire reaches a little
// past it, and gives what runs out there.
func (r *Run) spill(dt float64) {
	first, last := r.hotSpan()
	if first < 0 || dt <= 0 {
		return
	}
	cells := r.Bar.Cells
	run := func(from, to, end int) {
		if to-from < 1 {
			return
		}
		for i := from; i <= to; i++ {
			r.temps[i] = cells[i].TempC
		}
		r.beyond.lay(cells[from : to+1])
		r.beyond.mass[end-from] *= heldMass
		r.beyond.step(r.temps[from:to+1], dt)
		for i := from; i <= to; i++ {
			if i != end {
				cells[i].TempC = r.temps[i]
			}
		}
	}
	run(0, first, first)
	run(last, len(cells)-1, last)
}

// heldMass times its mass, a cell keeps its temperature whatever flows out.
const heldMass = 1e9

// heatsThrough is the share of the time in the fire that a stretch is at heat, as
// far as what runs out of its ends goes (it rises ever more slowly: judgement).
const heatsThrough = 0.5

// Steps of looking ahead: as fine as blows fall.
const (
	aheadStepS = 0.75
	aheadMaxS  = 600
)

// ahead cools the piece on the anvil for up to timeS seconds without scaling it,
// into r.temps, until the coldest worked cell is at low; it returns the time.
func (r *Run) ahead(rec *Heat, low, timeS float64) float64 {
	cells := r.Bar.Cells
	for i := range cells {
		r.temps[i] = cells[i].TempC
	}
	coldest := func() float64 {
		t := math.Inf(1)
		for i := rec.First; i <= rec.Last; i++ {
			t = math.Min(t, r.temps[i])
		}
		return t
	}
	hotFirst, hotLast := r.hotSpan()
	r.lie(rec.First, rec.Last)
	now, spent := coldest(), 0.0
	for spent < timeS-1e-9 && now > low && r.Budget.Spend(hotLast-hotFirst+1) == nil {
		dt := math.Min(aheadStepS, timeS-spent)
		for i := range cells {
			if cells[i].hot {
				r.temps[i] = r.skins[i].Step(r.temps[i], dt)
			}
		}
		if hotLast > hotFirst {
			r.along.step(r.temps[hotFirst:hotLast+1], dt)
		}
		next := coldest()
		if next < low {
			return spent + dt*(now-low)/(now-next)
		}
		spent, now = spent+dt, next
	}
	return spent
}
