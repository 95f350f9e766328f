package harden

import "math"

// What carries heat in steel that is drawn from its spine, and what its faces lose to the air of
// a shop: they pin the numbers of an even slab.
const (
	drawMm2PerS  = 10.0
	drawWPerM2K  = 35.0
	drawJPerM3K  = 7850 * 565.0
	drawAirC     = 20.0
	drawTerms    = 400
	drawMostS    = 20 * 60
	drawStepS    = .25
	drawEndShare = 1e-9
)

// Spine is a blade whose edge was quenched and whose spine is hot: from hotFromMm above the edge
// on at hotC, below it at coldC.
type Spine struct {
	HeightMm    float64
	HotFromMm   float64
	HotC, ColdC float64
}

func (s Spine) check() error {
	if err := within("heightMm", s.HeightMm, 1, 500); err != nil {
		return err
	}
	if err := within("hotFromMm", s.HotFromMm, 0, s.HeightMm); err != nil {
		return err
	}
	if err := within("hotC", s.HotC, s.ColdC, 1300); err != nil {
		return err
	}
	return within("coldC", s.ColdC, -50, 1300)
}

// SlabC is the temperature yMm above the edge of an even slab of thicknessMm after timeS: the
// cosine series of a slab insulated at edge and spine, times what its faces lose.
func (s Spine) SlabC(thicknessMm, yMm, timeS float64) (float64, error) {
	if err := s.check(); err != nil {
		return 0, err
	}
	if err := within("thicknessMm", thicknessMm, .2, 100); err != nil {
		return 0, err
	}
	if err := within("yMm", yMm, 0, s.HeightMm); err != nil {
		return 0, err
	}
	if err := within("timeS", timeS, 0, 1e5); err != nil {
		return 0, err
	}
	return s.slabC(thicknessMm, yMm, timeS), nil
}

func (s Spine) slabC(thicknessMm, y, t float64) float64 {
	if t == 0 {
		if y >= s.HotFromMm {
			return s.HotC
		}
		return s.ColdC
	}
	a, h := s.HotFromMm, s.HeightMm
	hot, cold := s.HotC-drawAirC, s.ColdC-drawAirC
	sum := cold*a/h + hot*(h-a)/h
	for n := 1; n <= drawTerms; n++ {
		k := float64(n) * math.Pi / h
		fade := math.Exp(-drawMm2PerS * k * k * t)
		if fade < drawEndShare {
			break
		}
		sum += 2 * (cold - hot) * math.Sin(k*a) / (float64(n) * math.Pi) * math.Cos(k*y) * fade
	}
	return drawAirC + sum*math.Exp(-2*drawWPerM2K*t/(drawJPerM3K*thicknessMm/1000))
}

// SlabUntilS is when a place of an even slab first comes up to untilC, s: 0 where it is there
// from the start; ok is false where it does not within twenty minutes.
func (s Spine) SlabUntilS(thicknessMm, yMm, untilC float64) (seconds float64, ok bool, err error) {
	if _, err := s.SlabC(thicknessMm, yMm, 0); err != nil {
		return 0, false, err
	}
	seconds, ok = until(func(t float64) float64 { return s.slabC(thicknessMm, yMm, t) }, untilC)
	return seconds, ok, nil
}

// until is when a temperature first comes up to another.
func until(at func(t float64) float64, c float64) (float64, bool) {
	if at(0) >= c {
		return 0, true
	}
	for t := drawStepS; t <= drawMostS; t += drawStepS {
		if at(t) < c {
			continue
		}
		lo, hi := t-drawStepS, t
		for range 50 {
			if mid := (lo + hi) / 2; at(mid) < c {
				lo = mid
			} else {
				hi = mid
			}
		}
		return (lo + hi) / 2, true
	}
	return 0, false
}

// Drawn is how heat runs from the spine of a real section: by time, at even heights from edge to
// spine.
type Drawn struct {
	StepS float64     // between the rows
	YMm   []float64   // of the columns
	TempC [][]float64 // row by row
}

// Run is how heat runs through a section whose thickness is given at even heights from edge to
// spine: finite volumes across the height, backward Euler in time. Where the thickness is even it
// is the series. loss is what a face loses, W/m²K at a temperature; nil is that of the series.
func (s Spine) Run(thicknessMm []float64, timeS, stepS float64, loss func(tempC float64) float64) (Drawn, error) {
	if err := s.check(); err != nil {
		return Drawn{}, err
	}
	if err := within("thicknessMm", float64(len(thicknessMm)), 3, 2000); err != nil {
		return Drawn{}, err
	}
	if err := within("timeS", timeS, 0, drawMostS); err != nil {
		return Drawn{}, err
	}
	if err := within("stepS", stepS, .01, 10); err != nil {
		return Drawn{}, err
	}
	if loss == nil {
		loss = func(float64) float64 { return drawWPerM2K }
	}
	n := len(thicknessMm)
	dy := s.HeightMm / float64(n)
	temp := make([]float64, n)
	out := Drawn{StepS: stepS}
	for i := range n {
		y := (float64(i) + .5) * dy
		out.YMm = append(out.YMm, y)
		// the cell that the boundary lies in is as hot on the mean
		share := math.Max(0, math.Min(1, (float64(i+1)*dy-s.HotFromMm)/dy))
		temp[i] = s.ColdC + (s.HotC-s.ColdC)*share
	}
	out.TempC = append(out.TempC, append([]float64{}, temp...))
	diag, right := make([]float64, n), make([]float64, n)
	for t := stepS; t <= timeS+1e-9; t += stepS {
		s.step(thicknessMm, temp, diag, right, dy, stepS, loss)
		out.TempC = append(out.TempC, append([]float64{}, temp...))
	}
	return out, nil
}

// step goes on by dt: the tridiagonal system of one row of cells, solved by Thomas.
func (s Spine) step(thick, temp, diag, right []float64, dy, dt float64, loss func(float64) float64) {
	n := len(temp)
	upper := make([]float64, n)
	for i := range n {
		holds := thick[i] * dy / dt
		lose := 2 * loss(temp[i]) / drawJPerM3K * 1000 * dy // mm²/s
		d, r := holds+lose, holds*temp[i]+lose*drawAirC
		lower := 0.0
		if i > 0 {
			lower = drawMm2PerS * (thick[i] + thick[i-1]) / 2 / dy
			d += lower
		}
		if i+1 < n {
			upper[i] = drawMm2PerS * (thick[i] + thick[i+1]) / 2 / dy
			d += upper[i]
		}
		if i > 0 {
			k := lower / diag[i-1]
			d -= k * upper[i-1]
			r += k * right[i-1]
		}
		diag[i], right[i] = d, r
	}
	temp[n-1] = right[n-1] / diag[n-1]
	for i := n - 2; i >= 0; i-- {
		temp[i] = (right[i] + upper[i]*temp[i+1]) / diag[i]
	}
}
