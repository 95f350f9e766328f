package harden

import "math"

// BornUm is the grain that steel has each time it crosses its critical point (judgement), µm.
const BornUm = 8.0

// Hodgson and Gibbs 1992, for C–Mn steels.
const (
	grainPower  = 7.0
	grainRate   = 1.45e27
	grainJ      = 400_000.0
	gasJPerMolK = 8.314462618
	kelvin      = 273.15
)

// GrownUm is the austenite grain after a hold of timeS at tempC, µm: never under the start.
// Up to 900 °C growth counts .4 and evenly more to 1 at 1000, for the carbides that pin it
// (judgement). An order of size: ± 1.5 grain numbers.
func GrownUm(startUm, tempC, timeS float64) float64 {
	if timeS <= 0 {
		return startUm
	}
	pinned := .4 + .6*math.Max(0, math.Min(1, (tempC-900)/100))
	d := math.Pow(math.Pow(startUm, grainPower)+grainRate*timeS*math.Exp(-grainJ/(gasJPerMolK*(tempC+kelvin))), 1/grainPower)
	return math.Max(startUm, pinned*d)
}

// GrainNumber is ASTM's of a mean grain, µm.
func GrainNumber(um float64) float64 { return -3.2877 - 6.6439*math.Log10(um/1000) }

// Hold is a stay at a temperature. Fresh tells that the piece was below its critical point
// before, so that its grain begins anew.
type Hold struct {
	TempC float64
	TimeS float64
	Fresh bool
	Slow  bool // it cooled in the forge or buried, not in air
}

// GrainAfter is the grain after each of some holds, µm: those below the critical point change
// nothing.
func GrainAfter(holds []Hold, criticalC float64) []float64 {
	out := make([]float64, len(holds))
	um := BornUm
	for i, h := range holds {
		if h.TempC > criticalC {
			if h.Fresh {
				um = BornUm
			}
			um = GrownUm(um, h.TempC, h.TimeS)
		}
		out[i] = um
	}
	return out
}
