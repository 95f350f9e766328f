package steel

import "math"

const kelvin = 273.15

// HollomonJaffe is the tempering parameter T(20 + log10 h)/1000 with T in
// kelvin (Hollomon and Jaffe 1945, C = 20). Repeats at one temperature add
// their hours.
func HollomonJaffe(tempC, hours float64) float64 {
	return (tempC + kelvin) * (20 + math.Log10(hours)) / 1000
}

// OneHourEquivalentC is the one-hour temper with this parameter.
func OneHourEquivalentC(parameter float64) float64 { return parameter*1000/20 - kelvin }

// SameTemperC is the temperature at which so many hours temper as far as the
// parameter: the shorter, the hotter. Hours is more than 0.
func SameTemperC(parameter, hours float64) float64 {
	return parameter*1000/(20+math.Log10(hours)) - kelvin
}

// From where to where a grade's hardness is known, one hour, °C.
const (
	TemperLeastC = 150.0
	TemperMostC  = 550.0
)

// A grade's own table goes from 200 to 260 °C. Below it steel comes so far back toward what it was
// as quenched by 150 °C; above it the law of its composition takes over evenly, wholly from 425 °C on
// (judgement).
var tableC = []float64{200, 230, 260}

const (
	backShare  = .45
	byLawFromC = 425.0
)

// TemperSource is where a hardness comes from.
type TemperSource string

// The sources: a grade's table, or its composition.
const (
	ByTable       TemperSource = "table"
	ByComposition TemperSource = "composition"
)

// HardnessHRC is a grade's after one hour at tempC, 150 to 550 °C: its table from 200 to 260, a
// straight line toward its hardness as quenched below, and above it tempered martensite by
// composition (Grange, Hribal and Porter 1977), to ± 2 HRC. ok is false outside, and for a grade
// that does not harden.
func (g Grade) HardnessHRC(tempC float64) (hrc float64, ok bool) {
	if len(g.HRC) != 4 || tempC < TemperLeastC || tempC > TemperMostC {
		return 0, false
	}
	switch {
	case tempC < tableC[0]:
		return g.HRC[1] + (g.HRC[0]-g.HRC[1])*backShare*(tableC[0]-tempC)/(tableC[0]-TemperLeastC), true
	case tempC <= tableC[2]:
		i, f := between(tableC, tempC)
		return g.HRC[i+1]*(1-f) + g.HRC[i+2]*f, true
	}
	off := g.HRC[3] - martensiteHRC(&g, tableC[2])
	left := math.Max(0, (byLawFromC-tempC)/(byLawFromC-tableC[2]))
	return martensiteHRC(&g, tempC) + off*left, true
}

// TemperSourceAt is where the hardness at a temperature comes from.
func (g Grade) TemperSourceAt(tempC float64) TemperSource {
	if tempC <= tableC[2] {
		return ByTable
	}
	return ByComposition
}
