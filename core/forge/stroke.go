package forge

import (
	"math"

	"coldember/core/thermal"
)

// Limits of one stroke.
const (
	mostReduction = 0.3 // of the height as it is (judgement: more folds or sticks)
	leastBiteMm   = 5.0 // a press that bears less contact than this only cuts in
	keptAsHeat    = 0.9 // of the work stays in the steel (Taylor and Quinney 1934)
)

// mostStrain is the strain of the largest reduction that one stroke makes.
var mostStrain = -math.Log(1 - mostReduction)

// Stroke is one stroke of hammer, striker, power hammer, press or rolls on the steel
// under it: a contact of BiteMm along the bar and BreadthMm across it (the lesser of tool
// and piece), HeightMm high as it now is, which gives way at StressMPa. Exactly one of
// UsefulJ (a blow) and ForceKN (a squeeze) is more than nought. It goes no further than
// TargetMm.
type Stroke struct {
	HeightMm, BiteMm, BreadthMm, StressMPa float64
	UsefulJ, ForceKN                       float64
	TargetMm, TempC                        float64
}

// Struck is what a stroke does: the height and true strain that it leaves, the warmth that
// the work leaves in the steel, °C; of a squeeze also the contact and the force at its end.
// Stalls: the press bears no contact of five millimetres, and nothing moves.
type Struck struct {
	HeightAfterMm, Strain, RiseC float64
	BiteMm, ForceKN              float64
	Stalls                       bool
}

// Strike is the law of one stroke, the same for planning and for play; it is deterministic.
//
// A blow spends its useful energy on stress × Q × volume × strain, with Q of the height
// before it; a squeeze needs stress × Q × contact at its end, with Q of the height after
// it, and takes the longest bite that the press bears. Neither takes more than 0.3 of the
// height. Nine tenths of the work stay as heat.
func (s Stroke) Strike() Struck {
	owed := math.Log(s.HeightMm / s.TargetMm)
	if owed <= 0 {
		return Struck{HeightAfterMm: s.HeightMm, BiteMm: s.BiteMm}
	}
	strain, q, bite := s.gain(math.Min(mostStrain, owed))
	if strain <= 0 {
		return Struck{HeightAfterMm: s.HeightMm, Stalls: true}
	}
	out := Struck{HeightAfterMm: s.HeightMm * math.Exp(-strain), Strain: strain, RiseC: riseC(s.StressMPa*q*strain, s.TempC), BiteMm: bite}
	if s.ForceKN > 0 {
		out.ForceKN = s.StressMPa * q * bite * s.BreadthMm / 1000
	}
	return out
}

// gain is the true strain of a stroke, at most so much, with its Q and its bite; nought
// where a press stalls.
func (s *Stroke) gain(most float64) (strain, q, biteMm float64) {
	if s.ForceKN > 0 {
		least := s.HeightMm * math.Exp(-most)
		if biteMm = BiteBorne(s.ForceKN, s.StressMPa, s.BreadthMm, least, s.BiteMm); biteMm < leastBiteMm {
			return 0, 0, 0
		}
		return most, Redundancy(least, biteMm), biteMm
	}
	q = Redundancy(s.HeightMm, s.BiteMm)
	return math.Min(most, s.UsefulJ*1000/(s.StressMPa*q*s.BiteMm*s.BreadthMm*s.HeightMm)), q, s.BiteMm
}

// riseC is how much warmer steel at tempC gets by so much work, MPa (mJ/mm³).
func riseC(workMPa, tempC float64) float64 {
	return keptAsHeat * workMPa * 1e6 / (thermal.DensityKgPerM3 * thermal.SpecificHeat(tempC))
}

// BiteBorne is the longest contact along the bar, at most dieMm, that a press of forceKN
// bears on steel of this stress, breadthMm across and heightMm high at the end of the
// squeeze: the root of stress × breadth × (0.8 b + 0.2 h + 0.25 b²/h) = force. It is 0
// where it bears none.
func BiteBorne(forceKN, stressMPa, breadthMm, heightMm, dieMm float64) float64 {
	// of 0.25/h·b² + 0.8·b + 0.2·h − force/(stress·breadth) = 0
	a, c := .25/heightMm, .2*heightMm-forceKN*1000/(stressMPa*breadthMm)
	if c >= 0 {
		return 0
	}
	return math.Min(dieMm, (-.8+math.Sqrt(.64-4*a*c))/(2*a))
}

// coverStep of the bite lies from one stroke to the next.
const coverStep = 0.8

// Coverage is the fewest strokes that go once over a stretch, as long and wide as it is when
// the operation begins: ceil(length / 0.8 bite) × ceil(width / breadth) × faces. A hair
// under a whole number counts as it.
func Coverage(lengthMm, widthMm, biteMm, breadthMm float64, faces int) float64 {
	up := func(v float64) float64 { return math.Max(1, math.Ceil(v-1e-9)) }
	return up(lengthMm/(coverStep*biteMm)) * up(widthMm/breadthMm) * float64(faces)
}

// One arm swings every hammer, and so much of it goes with the hammer: at usualKg it is
// usualMPerS fast and usualPerS quick, and both go with the square root of the mass that
// moves (judgement: what an arm gives to a swing stays the same).
const (
	armKg      = 1.0
	usualKg    = 1.1
	usualMPerS = 7.0
	usualPerS  = 1.8
)

// Arm is how fast (m/s) and how often (a second) an arm swings a hammer of so many kg.
func Arm(hammerKg float64) (speedMPerS, ratePerS float64) {
	k := math.Sqrt((usualKg + armKg) / (hammerKg + armKg))
	return usualMPerS * k, usualPerS * k
}
