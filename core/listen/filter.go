package listen

import "math"

// biquad is a filter of the second order; coefficients after R. Bristow-Johnson, "Cookbook formulae for audio
// equalizer biquad filter coefficients".
type biquad struct {
	b0, b1, b2, a1, a2 float64
	x1, x2, y1, y2     float64
}

func (f *biquad) step(x float64) float64 {
	y := f.b0*x + f.b1*f.x1 + f.b2*f.x2 - f.a1*f.y1 - f.a2*f.y2
	if math.Abs(y) < 1e-15 {
		y = 0 // what is left of a sound that is gone would slow every step
	}
	f.x2, f.x1, f.y2, f.y1 = f.x1, x, f.y1, y
	return y
}

// bandpass passes the band about a frequency, a Q-th of it wide, as loud as it is.
func bandpass(hz, q, rateHz float64) biquad {
	sin, cos := math.Sincos(2 * math.Pi * hz / rateHz)
	alpha := sin / (2 * q)
	n := 1 + alpha
	return biquad{b0: alpha / n, b2: -alpha / n, a1: -2 * cos / n, a2: (1 - alpha) / n}
}
