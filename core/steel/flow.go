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
	l := NewLaw(carbonPct)
	return l.At(tempC, math.Log(ratePerS/10))
}

// The measured rates as the logarithm that Law.At takes.
var logRateLow, logRateHigh = math.Log(0.1 / 10), math.Log(100. / 10)

// Law is the law for one carbon content, with what depends on that alone worked
// out, for loops over many temperatures.
type Law struct {
	exponent                         float64
	turn, low, lowFactor, lowBase    float64 // where it turns; the branch below
	base, hot, hotRate, cold, coldBy float64
	inRange                          bool
}

// NewLaw is the law for carbonPct (%).
func NewLaw(carbonPct float64) Law {
	c := carbonPct
	return Law{
		exponent: Exponent(c),
		turn:     0.95 * (c + 0.41) / (c + 0.32),
		low:      0.95 * (c + 0.49) / (c + 0.42), lowFactor: 30 * (c + 0.9), lowBase: (c + 0.06) / (c + 0.09),
		base: 0.01 / (c + 0.05),
		hot:  0.075*c - 0.05, hotRate: -0.019*c + 0.126,
		cold: -0.019*c + 0.207 + 0.027/(c+0.32), coldBy: 0.081*c - 0.154,
		inRange: c >= 0.07 && c <= 1.2,
	}
}

// At is the flow at tempC (°C) and ln(rate ÷ 10 /s): it takes a single
// exponential.
func (l *Law) At(tempC, logRate float64) Flow {
	t := (tempC + 273) / 1000
	g, hot, m := 1.0, t, l.hotRate*t+l.hot
	if t < l.turn {
		d := t - l.low
		g, hot, m = l.lowFactor*d*d+l.lowBase, l.turn, l.coldBy*t+l.cold
	}
	return Flow{
		BaseMPa:  kgfPerMm2 * 0.28 * g * math.Exp(5/hot-l.base+m*logRate),
		Exponent: l.exponent,
		InRange:  l.inRange && tempC >= 700 && tempC <= 1200 && logRate >= logRateLow-1e-12 && logRate <= logRateHigh+1e-12,
	}
}

// Exponent is n of the law, which depends on carbon (%) alone.
func Exponent(carbonPct float64) float64 { return 0.41 - 0.07*carbonPct }

// Coefficients of ∫ bracket dε from 0 to q·strain as a·q^(n+1) − b·q², for
// strain up to MaxStrain.
func Coefficients(exponent, strain float64) (a, b float64) {
	x := strain / 0.2
	return strain * 1.3 / (exponent + 1) * math.Pow(x, exponent), strain * 0.15 * x
}

// StressMPa is the stress at this true strain.
func (f Flow) StressMPa(strain float64) float64 {
	x := math.Min(strain, MaxStrain) / 0.2
	return f.BaseMPa * (1.3*power(x, f.Exponent) - 0.3*x)
}

// MeanStressMPa is the mean stress from nought to this true strain; zero
// strain gives zero.
func (f Flow) MeanStressMPa(strain float64) float64 {
	if strain <= 0 {
		return 0
	}
	return f.BaseMPa * f.Integral(strain) / strain
}

// power is x^n for x ≥ 0: twice as fast as the general one, in the innermost
// loop of forging.
func power(x, n float64) float64 {
	if x <= 0 {
		return 0
	}
	return math.Exp(n * math.Log(x))
}

// Integral is ∫ bracket dε from 0 to strain: times BaseMPa it is the work per
// volume in MPa. It grows with strain throughout, so it can be inverted.
func (f Flow) Integral(strain float64) float64 {
	e := math.Min(strain, MaxStrain)
	x := e / 0.2
	in := e * (1.3/(f.Exponent+1)*power(x, f.Exponent) - 0.15*x)
	if strain > MaxStrain {
		in += (strain - MaxStrain) * (1.3*math.Pow(MaxStrain/0.2, f.Exponent) - 0.3*MaxStrain/0.2)
	}
	return in
}
