package forge

import (
	"math"

	"coldember/core/thermal"
)

// conductor carries heat along the bar between its cells.
type conductor struct {
	// per cell: heat capacity J/K, and the tridiagonal system's columns
	capacity, lower, diag, upper, right []float64
	between                             []float64 // W/K to the next cell
}

func newConductor(n int) *conductor {
	all := make([]float64, 6*n)
	part := func(i int) []float64 { return all[i*n : (i+1)*n] }
	return &conductor{part(0), part(1), part(2), part(3), part(4), part(5)}
}

// step lets heat flow between neighbours for dt seconds: backward Euler on the
// cells' own lengths and sections, so that the step is not bound by the size of
// a cell and no heat is made or lost. temps is °C, one a cell, changed in place.
func (k *conductor) step(cells []Cell, temps []float64, dt float64) {
	n := len(cells)
	if n < 2 || dt <= 0 {
		return
	}
	half := func(i int) float64 { // K/W from the middle of a cell to its end
		c := &cells[i]
		a := c.WidthMm * c.ThicknessMm
		return c.LengthMm() / 2 / a / (thermal.ConductivityWPerMK(temps[i]) / 1000)
	}
	last := half(0)
	for i := range n {
		k.capacity[i] = thermal.DensityKgPerM3 * 1e-9 * cells[i].VolumeMm3 * thermal.SpecificHeat(temps[i])
		if i+1 < n {
			next := half(i + 1)
			k.between[i] = 1 / (last + next)
			last = next
		}
	}
	for i := range n {
		m := k.capacity[i] / dt
		k.lower[i], k.upper[i], k.diag[i], k.right[i] = 0, 0, m, m*temps[i]
		if i > 0 {
			k.lower[i] = -k.between[i-1]
			k.diag[i] += k.between[i-1]
		}
		if i+1 < n {
			k.upper[i] = -k.between[i]
			k.diag[i] += k.between[i]
		}
	}
	for i := 1; i < n; i++ { // Thomas
		f := k.lower[i] / k.diag[i-1]
		k.diag[i] -= f * k.upper[i-1]
		k.right[i] -= f * k.right[i-1]
	}
	temps[n-1] = k.right[n-1] / k.diag[n-1]
	for i := n - 2; i >= 0; i-- {
		temps[i] = (k.right[i] - k.upper[i]*temps[i+1]) / k.diag[i]
	}
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
	r.along.step(cells[first:last+1], r.temps[first:last+1], dt)
	for i := first; i <= last; i++ {
		cells[i].TempC = r.temps[i]
	}
}

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
	on, air := r.worked(), thermal.Air()
	now, spent := coldest(), 0.0
	for spent < timeS-1e-9 && now > low {
		dt := math.Min(aheadStepS, timeS-spent)
		for i := range cells {
			c := &cells[i]
			switch {
			case i >= rec.First && i <= rec.Last:
				r.temps[i] = on.Step(c.WidthMm, c.ThicknessMm, r.temps[i], dt)
			case c.hot:
				r.temps[i] = air.Step(c.WidthMm, c.ThicknessMm, r.temps[i], dt)
			}
		}
		if hotLast > hotFirst {
			r.along.step(cells[hotFirst:hotLast+1], r.temps[hotFirst:hotLast+1], dt)
		}
		next := coldest()
		if next < low {
			return spent + dt*(now-low)/(now-next)
		}
		spent, now = spent+dt, next
	}
	return spent
}
