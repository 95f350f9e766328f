package blade

import "math"

// Ricasso is the full-thickness piece between blade and tang.
type Ricasso struct {
	LengthMm    float64 `json:"lengthMm"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	NotchMm     float64 `json:"notchMm,omitempty" doc:"radius of a half-round finger notch in the middle of its edge side"`
	RiseMm      float64 `json:"riseMm,omitempty" doc:"how far its top stands over the spine: an integral bolster or guard that is drawn out of the bar"`
}

// HeightAt is the ricasso's height s mm behind the heel, the notch taken out.
func (r *Ricasso) HeightAt(s float64) float64 {
	if off := s - r.LengthMm/2; math.Abs(off) < r.NotchMm {
		return r.HeightMm - math.Sqrt(r.NotchMm*r.NotchMm-off*off)
	}
	return r.HeightMm
}

// SideMm2 is the area of its side from one distance behind the heel to another, the
// notch taken out.
func (r *Ricasso) SideMm2(from, to float64) float64 {
	cut := func(s float64) float64 { // of the notch, ahead of s
		n := r.NotchMm
		u := math.Max(-n, math.Min(n, s-r.LengthMm/2))
		if n <= 0 {
			return 0
		}
		return (u*math.Sqrt(math.Max(0, n*n-u*u)) + n*n*(math.Asin(u/n)+math.Pi/2)) / 2
	}
	return r.HeightMm*(to-from) - cut(to) + cut(from)
}

// Stations are where the ricasso is drawn: its ends, and closely round a notch.
func (r *Ricasso) Stations() []float64 {
	if r.NotchMm <= 0 {
		return []float64{0, r.LengthMm}
	}
	const n = 48
	out := []float64{0}
	for i := range n + 1 {
		out = append(out, r.LengthMm/2-r.NotchMm*math.Cos(math.Pi*float64(i)/n))
	}
	return append(out, r.LengthMm)
}
