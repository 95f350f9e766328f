package steel

import "math"

// Flow is the resistance of hot carbon steel to deformation after Shida
// (1969), at one temperature and rate: stress = BaseMPa × bracket(strain).
//
// Valid for C 0.07–1.2 %, 700–1200 °C, strain to 0.7, 0.1–100 /s. Hand
// hammering (to about 600 /s) lies beyond the measured rates and is
// extrapolated; InRange tells.
type Flow struct {
	BaseMPa  float64
	Exponent float64 // n
	InRange  bool
}

const kgfPerMm2 = 9.80665 // MPa

// MaxStrain is the largest strain the law was measured at; the bracket is held
// at its value there beyond it.
const MaxStrain = 0.7

// NewFlow evaluates the law for carbonPct (%), tempC (°C) and ratePerS (1/s).
func NewFlow(carbonPct, tempC, ratePerS float64) Flow {
	c, t := carbonPct, (tempC+273)/1000
	tp := 0.95 * (c + 0.41) / (c + 0.32)
	var sigma, m float64
	if t >= tp {
		sigma = 0.28 * math.Exp(5/t-0.01/(c+0.05))
		m = (-0.019*c+0.126)*t + (0.075*c - 0.05)
	} else {
		d := t - 0.95*(c+0.49)/(c+0.42)
		g := 30*(c+0.9)*d*d + (c+0.06)/(c+0.09)
		sigma = 0.28 * g * math.Exp(5/tp-0.01/(c+0.05))
		m = (0.081*c-0.154)*t + (-0.019*c + 0.207) + 0.027/(c+0.32)
	}
	return Flow{
		BaseMPa:  kgfPerMm2 * sigma * math.Pow(ratePerS/10, m),
		Exponent: 0.41 - 0.07*c,
		InRange:  c >= 0.07 && c <= 1.2 && tempC >= 700 && tempC <= 1200 && ratePerS >= 0.1 && ratePerS <= 100,
	}
}

// StressMPa is the stress at this true strain.
func (f Flow) StressMPa(strain float64) float64 {
	x := math.Min(strain, MaxStrain) / 0.2
	return f.BaseMPa * (1.3*math.Pow(x, f.Exponent) - 0.3*x)
}

// MeanStressMPa is the mean stress from nought to this true strain; zero
// strain gives zero.
func (f Flow) MeanStressMPa(strain float64) float64 {
	if strain <= 0 {
		return 0
	}
	return f.BaseMPa * f.Integral(strain) / strain
}

// Integral is ∫ bracket dε from 0 to strain: times BaseMPa it is the work per
// volume in MPa. It grows with strain throughout, so it can be inverted.
func (f Flow) Integral(strain float64) float64 {
	e := math.Min(strain, MaxStrain)
	x := e / 0.2
	in := e * (1.3/(f.Exponent+1)*math.Pow(x, f.Exponent) - 0.15*x)
	if strain > MaxStrain {
		in += (strain - MaxStrain) * (1.3*math.Pow(MaxStrain/0.2, f.Exponent) - 0.3*MaxStrain/0.2)
	}
	return in
}
