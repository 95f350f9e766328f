package thermal

import "math"

// Atmosphere factors: they multiply the depth of metal lost to scale.
const (
	AtmosphereOxidising = 1.0
	AtmosphereNeutral   = 0.35
	AtmosphereRich      = 0.2
	AtmosphereAir       = 1.0
)

// Metal lost per oxygen taken up, as mm of depth per g/cm²: iron as FeO.
const mmPerOxygenGCm2 = 55.845 / 15.999 / 7.85 * 10

// ScaleRate is the parabolic oxygen uptake k in g²cm⁻⁴s⁻¹ at tempC (wüstite
// growth, activation 33 kcal/mol). An order of magnitude until calibrated.
func ScaleRate(tempC float64) float64 {
	return 0.37 * math.Exp(-33000/(1.987*(tempC+kelvin)))
}

// ScaleClock sums Σ a²∫k dt over the fire and the air of one heat. Scale falls
// off at every heat, so a clock serves one heat.
type ScaleClock struct{ uptake float64 }

// Add counts timeS at tempC in an atmosphere.
func (c *ScaleClock) Add(tempC, timeS, atmosphere float64) {
	c.uptake += atmosphere * atmosphere * scaleTable.at(tempC, ScaleRate) * timeS
}

// LossMm is the metal lost from each face so far, mm.
func (c *ScaleClock) LossMm() float64 { return math.Sqrt(c.uptake) * mmPerOxygenGCm2 }

// DecarbClock sums ∫D dt in mm² over all time at or above 800 °C. Below that a
// ferrite rim forms which this law does not describe.
type DecarbClock struct{ dt float64 }

// DecarbDiffusivity is D of carbon in austenite at tempC, mm²/s:
// 2.3e-5·exp(−148000/RT) m²/s.
func DecarbDiffusivity(tempC float64) float64 {
	return 2.3e-5 * math.Exp(-148000/(8.314462618*(tempC+kelvin))) * 1e6
}

// Add counts timeS at tempC.
func (c *DecarbClock) Add(tempC, timeS float64) {
	if tempC >= decarbThresholdC {
		c.dt += decarbTable.at(tempC, DecarbDiffusivity) * timeS
	}
}

// DecarbOf is a clock that has counted so much, mm²; Dt is what it has counted.
func DecarbOf(dtMm2 float64) DecarbClock { return DecarbClock{dt: dtMm2} }

// Dt is what the clock has counted, mm².
func (c *DecarbClock) Dt() float64 { return c.dt }

// AddShare counts a share (0–1) of what another clock has counted.
func (c *DecarbClock) AddShare(other DecarbClock, share float64) { c.dt += other.dt * share }

// Depth returns the depth in mm below the first surface at which the carbon is
// carbonFraction (0–1, exclusive) of the bar's, and what is left of it under a
// scale that has taken scaleLossMm: erfc(x/2√Dt) = (1−φ)·erfc(X/2√Dt).
func (c *DecarbClock) Depth(carbonFraction, scaleLossMm float64) (depthMm, remainingMm float64) {
	if c.dt <= 0 {
		return scaleLossMm, 0
	}
	l := 2 * math.Sqrt(c.dt)
	depthMm = l * math.Erfcinv((1-carbonFraction)*math.Erfc(scaleLossMm/l))
	return depthMm, depthMm - scaleLossMm
}
