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

// HardnessHRC interpolates the grade's table at the one-hour equivalent
// temperature tempC. ok is false outside 200–260 °C or where the grade has no
// table: no figure is invented.
func (g Grade) HardnessHRC(tempC float64) (hrc float64, ok bool) {
	at := []float64{200, 230, 260}
	if len(g.HRC) != 4 || tempC < at[0] || tempC > at[2] {
		return 0, false
	}
	i := 0
	if tempC > at[1] {
		i = 1
	}
	f := (tempC - at[i]) / (at[i+1] - at[i])
	return g.HRC[i+1]*(1-f) + g.HRC[i+2]*f, true
}
