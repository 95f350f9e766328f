package harden

import (
	"math"

	"coldember/core/steel"
)

// Steel is what hardening asks of a grade, per cent by mass.
type Steel struct {
	CarbonPct float64
	steel.Composition
	// GrainNumber is ASTM's, of the austenite before the quench; 0 is 7.
	GrainNumber float64
}

// SteelOf is a grade's, with the usual grain.
func SteelOf(g steel.Grade) Steel { return Steel{CarbonPct: g.CarbonPct, Composition: g.Composition} }

const (
	mmPerIn        = 25.4
	usualGrain     = 7
	mostSolvedPct  = .77 // carbon that a correct soak dissolves; more stays as carbide
	carbidesKeepV  = .8  // % C from which vanadium stays in carbides
	grainPerNumber = 1.083
)

// IdealDiameterMm is the ideal critical diameter: the round whose middle comes to half
// martensite in a bath that takes heat without limit. ASTM A255, whose own range ends at 0.7 %
// carbon; beyond it carbon counts 0.77 % at most, and vanadium nothing above 0.8 % carbon. It
// is good to about a fifth.
func IdealDiameterMm(s Steel) float64 {
	c := math.Min(s.CarbonPct, mostSolvedPct)
	base := .062 + .409*c - .135*c*c
	switch {
	case c <= .39:
		base = .54 * c
	case c <= .55:
		base = .171 + .001*c + .265*c*c
	case c <= .65:
		base = .115 + .268*c - .038*c*c
	case c <= .75:
		base = .143 + .2*c
	}
	g := s.GrainNumber
	if g == 0 {
		g = usualGrain
	}
	mn := 3.3333*s.ManganesePct + 1
	if s.ManganesePct > 1.2 {
		mn = 5.10*s.ManganesePct - 1.12
	}
	v := 1.73*s.VanadiumPct + 1
	if s.CarbonPct > carbidesKeepV {
		v = 1
	}
	return base * mmPerIn * math.Pow(grainPerNumber, usualGrain-g) * mn * (.7*s.SiliconPct + 1) * (.363*s.NickelPct + 1) *
		(2.16*s.ChromiumPct + 1) * (3*s.MolybdenumPct + 1) * v * (.365*s.CopperPct + 1)
}

// Shares of martensite that a depth is asked for: half, and what counts as hard. Hard steel
// reaches to three quarters of the diameter of half martensite (judgement).
const (
	Half     = .5
	Hard     = .95
	hardFrom = .75
)

// Fluid is what boils on the steel in a bath.
type Fluid int

// The fluids: air and plates do not boil, brine is a water.
const (
	Dry Fluid = iota
	OilFluid
	WaterFluid
)

// A boiling bath takes heat fastest where thin steel needs it. Up to thinMm its severity counts so
// many times over, falling evenly to once at thickMm (judgement: an oil twice, water and brine half
// as much again, so that no oil hardens deeper than water).
const (
	thinMm  = 6.0
	thickMm = 25.0
)

var thinTimes = map[Fluid]float64{Dry: 1, OilFluid: 2, WaterFluid: 1.5}

// SeverityAt is what a bath's Grossmann severity counts at a thickness, 1/in.
func SeverityAt(severityPerIn float64, f Fluid, thicknessMm float64) float64 {
	thick := math.Max(0, math.Min(1, (thicknessMm-thinMm)/(thickMm-thinMm)))
	return severityPerIn * (thinTimes[f] + (1-thinTimes[f])*thick)
}

// CriticalThicknessMm is the thickest plate whose middle comes to a share of martensite, Half or
// Hard, in a bath of this severity (1/in): that which takes as long to lose half its heat as the
// ideal diameter (or its share) does in the ideal bath. Good to a third where it is thin.
func CriticalThicknessMm(idealDiameterMm, severityPerIn, share float64, f Fluid) (float64, error) {
	if err := within("idealDiameterMm", idealDiameterMm, .1, 1000); err != nil {
		return 0, err
	}
	if err := within("severityPerIn", severityPerIn, .001, 20); err != nil {
		return 0, err
	}
	d := idealDiameterMm
	switch share {
	case Half:
	case Hard:
		d *= hardFrom
	default:
		return 0, &RangeError{"martensiteShare", Half, Hard}
	}
	want := foCylinder * d * d
	lo, hi := 0.0, 2*d
	for range 44 {
		mid := (lo + hi) / 2
		bi := SeverityAt(severityPerIn, f, mid) / mmPerIn * mid
		if FoPlate(bi)*mid*mid < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2, nil
}

// foCylinder is the Fourier number at which the middle of a long cylinder, its surface held at
// the bath, has lost half of what it is hotter: the root of Σ 2/(λJ₁(λ))·exp(−λ²Fo) = ½ over
// the zeros of J₀.
var foCylinder = func() float64 {
	zeros := []float64{2.404825557695773, 5.520078110286311, 8.653727912911013, 11.791534439014281, 14.930917708487787}
	return root(func(fo float64) float64 {
		sum := 0.0
		for _, l := range zeros {
			sum += 2 / (l * math.J1(l)) * math.Exp(-l*l*fo)
		}
		return sum
	})
}()

// FoPlate is the Fourier number, on the half thickness, at which the middle of a plate with this
// Biot number has lost half of what it is hotter than the bath: series of Carslaw and Jaeger.
func FoPlate(bi float64) float64 {
	var zeta, c [plateTerms]float64
	for n := range plateTerms {
		lo, hi := float64(n)*math.Pi, float64(n)*math.Pi+math.Pi/2
		for range 44 {
			mid := (lo + hi) / 2
			if mid*math.Tan(mid) < bi {
				lo = mid
			} else {
				hi = mid
			}
		}
		z := (lo + hi) / 2
		zeta[n], c[n] = z, 4*math.Sin(z)/(2*z+math.Sin(2*z))
	}
	return root(func(fo float64) float64 {
		sum := 0.0
		for n := range plateTerms {
			sum += c[n] * math.Exp(-zeta[n]*zeta[n]*fo)
		}
		return sum
	})
}

// plateTerms of the series: half of the heat is gone late enough for a few.
const plateTerms = 8

// root is where a falling function of the Fourier number comes to a half.
func root(f func(float64) float64) float64 {
	lo, hi := 1e-4, 1.0
	for f(hi) > .5 {
		hi *= 2
	}
	for range 44 {
		mid := (lo + hi) / 2
		if f(mid) > .5 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}
