package quantity

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// System is how a smith reads and writes: what is typed without a unit, and what is
// printed, is in millimetres or in inches and pounds. After it, with commas, may stand the
// finest fraction of an inch that is printed ("32", "64"), how hot is told ("C", "F"), and
// that a comma is the sign before tenths ("comma"), and that the colours of hot steel have their names
// sooner ("sooner"), where it is not as usual: "in,64,C".
type System string

// The two unit systems as usual: °C with millimetres; °F and a 32nd of an inch with inches.
const (
	Metric   System = "mm"
	Imperial System = "in"
)

// Fractions of an inch that can be printed.
const (
	usualFraction = 32
	fineFraction  = 64
)

// NewSystem is a system of these choices; nought and "" are as usual.
func NewSystem(base System, fraction int, temperature string) System {
	s := string(base)
	if fraction == fineFraction && base.Inches() {
		s += "," + strconv.Itoa(fraction)
	}
	if temperature != "" && (temperature == "F") != base.Inches() {
		s += "," + temperature
	}
	return System(s)
}

// comma says that a comma stands before tenths, and a point may part thousands.
const comma = "comma"

// WithDecimal is the system with this sign before tenths, "." or ",".
func (s System) WithDecimal(sign string) System {
	if sign == "," && !s.has(comma) {
		return s + "," + comma
	}
	return s
}

// sooner says that the colours of hot steel go by the school that calls 900 °C orange; the usual one
// says so of 980.
const sooner = "sooner"

// WithSooner is the system with the names of hot steel's colours sooner, or as usual.
func (s System) WithSooner(yes bool) System {
	if yes && !s.has(sooner) {
		return s + "," + sooner
	}
	return s
}

// Sooner tells whether the colours of hot steel have their names sooner than usual.
func (s System) Sooner() bool { return s.has(sooner) }

// signs are the one before tenths, and the one that may part thousands.
func (s System) signs() (decimal, thousands string) {
	if s.has(comma) {
		return ",", "."
	}
	return ".", ","
}

// Valid tells whether a text is a system.
func (s System) Valid() bool {
	parts := strings.Split(string(s), ",")
	if parts[0] != string(Metric) && parts[0] != string(Imperial) || len(parts) > 5 {
		return false
	}
	for _, p := range parts[1:] {
		if !slices.Contains([]string{"32", "64", "C", "F", comma, sooner}, p) {
			return false
		}
	}
	return true
}

func (s System) has(choice string) bool {
	return slices.Contains(strings.Split(string(s), ",")[1:], choice)
}

// Inches tells whether lengths are in inches and weights in pounds and ounces.
func (s System) Inches() bool { return strings.HasPrefix(string(s), string(Imperial)) }

// Fahrenheit tells whether temperatures are in °F.
func (s System) Fahrenheit() bool { return s.has("F") || s.Inches() && !s.has("C") }

// Denominator is the finest fraction of an inch printed for reading.
func (s System) Denominator() int {
	if s.has("64") {
		return fineFraction
	}
	return usualFraction
}

// Rest is what a printed length leaves out, in mm: 0 in millimetres, up to half of the finest
// fraction in inches.
func (s System) Rest(mm float64) float64 {
	if !s.Inches() {
		return 0
	}
	den := float64(s.Denominator())
	return mm - math.Round(mm/mmPerInch*den)/den*mmPerInch
}

// FormatRest prints what a printed length leaves out, "+0.006 in", or nothing where it is less
// than half a thousandth of an inch.
func FormatRest(mm float64, s System) string {
	rest := s.Rest(mm) / mmPerInch
	if math.Abs(rest) < .0005 {
		return ""
	}
	sign := "+"
	if rest < 0 {
		sign = "−"
	}
	return sign + strconv.FormatFloat(math.Abs(rest), 'f', 3, 64) + " in"
}
