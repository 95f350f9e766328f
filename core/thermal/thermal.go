package thermal

import (
	"fmt"
	"math"
)

// Physical constants and the engineering surface coefficients of the shop.
const (
	StefanBoltzmann  = 5.670374419e-8 // W/m²K⁴
	DensityKgPerM3   = 7850.0         // of EN 1993-1-2, for thermal mass
	AmbientC         = 20.0
	CoolEmissivity   = 0.8  // oxidised steel to an open shop
	AirWPerM2K       = 10.0 // free convection
	AnvilWPerM2K     = 76.0 // mean over hammering, one wide face (judgement: 50–150; the piece lies on its high spots and on scale, and is lifted between blows)
	ForgeEmissivity  = 0.4  // effective, forge wall to bar
	ForgeGasWPerM2K  = 40.0
	LumpedLimitMm    = 25.0
	SoakSPerMm       = 1.0 // hold after reaching heat, for each mm of thickness
	kelvin           = 273.15
	maxTimeS         = 6 * 3600.0
	maxStepC         = 15.0
	stiff            = 0.5   // of the time a section takes to follow its surroundings
	leastHeatJPerKgK = 425.0 // no steel of this law takes up less
	decarbThresholdC = 800.0
)

// SpecificHeat is cp of carbon steel in J/kgK at tempC, EN 1993-1-2
// (20–1200 °C; held at its ends beyond).
func SpecificHeat(tempC float64) float64 {
	t := tempC
	switch {
	case t < 20:
		t = 20
		fallthrough
	case t < 600:
		return 425 + 0.773*t - 1.69e-3*t*t + 2.22e-6*t*t*t
	case t < 735:
		return 666 + 13002/(738-t)
	case t < 900:
		return 545 + 17820/(t-731)
	default:
		return 650
	}
}

// Surface is how a bar meets its surroundings.
type Surface struct {
	SurroundC    float64 // air or forge
	Emissivity   float64
	FilmWPerM2K  float64 // convection, W/m²K
	AnvilWPerM2K float64 // contact on one wide face, W/m²K
}

// Air is an open shop without the anvil; OnAnvil adds contact on one face.
func Air() Surface {
	return Surface{SurroundC: AmbientC, Emissivity: CoolEmissivity, FilmWPerM2K: AirWPerM2K}
}

// OnAnvil is a bar being hammered.
func OnAnvil() Surface {
	s := Air()
	s.AnvilWPerM2K = AnvilWPerM2K
	return s
}

// Forge is the inside of a forge at tempC.
func Forge(tempC float64) Surface {
	return Surface{SurroundC: tempC, Emissivity: ForgeEmissivity, FilmWPerM2K: ForgeGasWPerM2K}
}

// Exchange is a surface on one section, with all that does not change with
// temperature worked out.
type Exchange struct{ quartic, linear, constant float64 }

// Of is the surface on a long bar of widthMm × thicknessMm.
func (s Surface) Of(widthMm, thicknessMm float64) Exchange {
	// W/m² × mm over kg/m³ × mm² × J/kgK: one mm is left in the denominator.
	per := 1000 / (DensityKgPerM3 * widthMm * thicknessMm)
	around := 2 * (widthMm + thicknessMm) * per
	anvil := s.AnvilWPerM2K * widthMm * per
	sk := s.SurroundC + kelvin
	e := Exchange{quartic: s.Emissivity * StefanBoltzmann * around, linear: s.FilmWPerM2K*around + anvil}
	e.constant = e.quartic*sk*sk*sk*sk + s.FilmWPerM2K*around*s.SurroundC + anvil*AmbientC
	return e
}

// Rate is dT/dt in °C/s at tempC.
func (e Exchange) Rate(tempC float64) float64 {
	tk := tempC + kelvin
	tk *= tk
	return (e.constant - e.quartic*tk*tk - e.linear*tempC) / SpecificHeat(tempC)
}

// Step advances tempC by dtS, in steps of at most 15 °C: with the midpoint rule,
// or, where a section is so thin or so near to its surroundings that the step is
// stiff, with the exponential of the law made straight (Rosenbrock–Euler), which no
// length of step can make unstable.
func (e Exchange) Step(tempC, dtS float64) float64 {
	for dtS > 0 {
		r, h := e.Rate(tempC), dtS
		if math.Abs(r)*h > maxStepC {
			h = maxStepC / math.Abs(r)
		}
		// how much faster it cools for each degree that it is hotter, 1/s
		tk := tempC + kelvin
		pull := (4*e.quartic*tk*tk*tk + e.linear) / leastHeatJPerKgK
		if pull*h <= stiff {
			tempC += h * e.Rate(tempC+r*h/2)
		} else {
			pull *= leastHeatJPerKgK / SpecificHeat(tempC)
			tempC -= r / pull * math.Expm1(-h*pull)
		}
		dtS -= h
	}
	return tempC
}

// Rate is dT/dt in °C/s of a long bar of widthMm × thicknessMm at tempC.
func (s Surface) Rate(widthMm, thicknessMm, tempC float64) float64 {
	return s.Of(widthMm, thicknessMm).Rate(tempC)
}

// Step is Exchange.Step of a bar of widthMm × thicknessMm.
func (s Surface) Step(widthMm, thicknessMm, tempC, dtS float64) float64 {
	return s.Of(widthMm, thicknessMm).Step(tempC, dtS)
}

// UnreachableError says that a temperature cannot be reached in these
// surroundings: it would settle at SettleC.
type UnreachableError struct{ ToC, SettleC float64 }

func (e *UnreachableError) Error() string {
	return fmt.Sprintf("thermal: %.0f °C cannot be reached in surroundings at %.0f °C", e.ToC, e.SettleC)
}

// TimeTo is the time in s to go from fromC to toC, heating or cooling. It
// returns an *UnreachableError where the surroundings do not allow it.
func (s Surface) TimeTo(widthMm, thicknessMm, fromC, toC float64) (float64, error) {
	if fromC == toC {
		return 0, nil
	}
	if (toC > fromC) != (s.SurroundC > toC) {
		return 0, &UnreachableError{ToC: toC, SettleC: s.SurroundC}
	}
	total, t, e := 0.0, fromC, s.Of(widthMm, thicknessMm)
	for {
		r := e.Rate(t)
		if (r > 0) != (toC > fromC) || total > maxTimeS {
			return 0, &UnreachableError{ToC: toC, SettleC: t}
		}
		step := math.Copysign(math.Min(1, math.Abs(toC-t)), r)
		mid := e.Rate(t + step/2)
		total += step / mid
		t += step
		if math.Abs(toC-t) < 1e-9 {
			return total, nil
		}
	}
}

// ConductivityWPerMK is k(T) of carbon steel, EN 1993-1-2.
func ConductivityWPerMK(tempC float64) float64 {
	if tempC < 800 {
		return 54 - 0.0333*tempC
	}
	return 27.3
}

// coarseStepC is the step of CoarseTimeTo.
const coarseStepC = 20

// CoarseTimeTo is TimeTo in steps of 20 °C (within 0.3 % of it outside the
// transformation), for the inner loop of the forging simulation.
func (s Surface) CoarseTimeTo(widthMm, thicknessMm, fromC, toC float64) (float64, error) {
	total, t, e := 0.0, fromC, s.Of(widthMm, thicknessMm)
	for math.Abs(toC-t) > 1e-9 {
		step := math.Copysign(math.Min(coarseStepC, math.Abs(toC-t)), toC-t)
		mid := e.Rate(t + step/2)
		if mid == 0 || (mid > 0) != (step > 0) {
			return 0, &UnreachableError{ToC: toC, SettleC: s.SurroundC}
		}
		total += step / mid
		t += step
	}
	return total, nil
}
