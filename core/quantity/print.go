package quantity

import (
	"math"
	"strconv"
	"strings"
)

// FormatLength prints mm for reading: one decimal of a millimetre, or the
// nearest fraction of an inch ("1 1/4 in"). The unit is always there.
func FormatLength(mm float64, s System) string {
	if s.Inches() {
		return fraction(mm/mmPerInch, s.Denominator()) + " in"
	}
	return trimZero(mm, 1) + " mm"
}

// FormatReckoned prints a length that is reckoned and not known to a millimetre, and between what it lies (0: not told):
// whole millimetres, or sixteenths of an inch.
func FormatReckoned(mm, lowMm, highMm float64, s System) string {
	figure, unit := func(mm float64) string { return trimZero(math.Round(mm), 0) }, " mm"
	if s.Inches() {
		figure, unit = func(mm float64) string { return fraction(mm/mmPerInch, reckonedDenominator) }, " in"
	}
	low, high := figure(lowMm), figure(highMm)
	if highMm <= 0 || low == high {
		return figure(mm) + unit
	}
	return figure(mm) + unit + " (" + low + "–" + high + ")"
}

// reckonedDenominator is the finest fraction of an inch that such a length is told in.
const reckonedDenominator = 16

// FormatThickness prints mm for reading a thickness, which wants one more
// place: 0.05 mm, or a thousandth of an inch.
func FormatThickness(mm float64, s System) string {
	if s.Inches() {
		return strconv.FormatFloat(mm/mmPerInch, 'f', 3, 64) + " in"
	}
	return trimZero(mm, 2) + " mm"
}

// EditLength prints mm so that Parse gives back the very same value in the
// same system: for a field that is opened and left without a change. Inches
// that are a 64th are printed as fractions; a value that no short inch text
// gives back is printed in millimetres with its unit.
func EditLength(mm float64, s System) string {
	if !s.Inches() {
		return strconv.FormatFloat(mm, 'f', -1, 64)
	}
	in := mm / mmPerInch
	for _, text := range []string{fraction(in, 64), strconv.FormatFloat(in, 'f', -1, 64)} {
		if back, err := Parse(text, Length, s); err == nil && back == mm {
			return text
		}
	}
	return strconv.FormatFloat(mm, 'f', -1, 64) + "mm"
}

// FormatMass prints grams for reading: 1 g below a kilogram, or ounces, and pounds
// above one.
func FormatMass(g float64, s System) string {
	if s.Inches() {
		if math.Abs(g) >= gPerPound {
			return trimZero(g/gPerPound, 2) + " lb"
		}
		return trimZero(g/gPerOunce, 1) + " oz"
	}
	if math.Abs(g) >= 1000 {
		return trimZero(g/1000, 2) + " kg"
	}
	return trimZero(g, 0) + " g"
}

// FormatTemperature prints °C to the nearest 5 degrees, or °F to the nearest
// 10: no eye and few pyrometers see finer in a fire.
func FormatTemperature(c float64, s System) string {
	if s.Fahrenheit() {
		return strconv.Itoa(int(math.Round((c*1.8+32)/10)*10)) + " °F"
	}
	return strconv.Itoa(int(math.Round(c/5)*5)) + " °C"
}

// FormatFireTemperature prints what is reckoned of steel in the fire or under
// the hammer: tens of degrees, or twenties of °F.
func FormatFireTemperature(c float64, s System) string {
	if s.Fahrenheit() {
		return strconv.Itoa(int(math.Round((c*1.8+32)/20)*20)) + " °F"
	}
	return strconv.Itoa(int(math.Round(c/10)*10)) + " °C"
}

// FormatSpeed prints m/s, or ft/s.
func FormatSpeed(mPerS float64, s System) string {
	if s.Inches() {
		return trimZero(mPerS/mPerFoot, 1) + " ft/s"
	}
	return trimZero(mPerS, 2) + " m/s"
}

// FormatMassRate prints kg/h, or lb/h.
func FormatMassRate(kgPerH float64, s System) string {
	if s.Inches() {
		return trimZero(kgPerH*1000/gPerPound, 2) + " lb/h"
	}
	return trimZero(kgPerH, 2) + " kg/h"
}

// FormatMassPrice prints money a kilogram, or a pound.
func FormatMassPrice(perKg float64, s System) string {
	if s.Inches() {
		return trimZero(perKg*gPerPound/1000, 2) + " /lb"
	}
	return trimZero(perKg, 2) + " /kg"
}

func trimZero(v float64, places int) string {
	t := strconv.FormatFloat(v, 'f', places, 64)
	if strings.Contains(t, ".") {
		t = strings.TrimRight(strings.TrimRight(t, "0"), ".")
	}
	if t == "-0" {
		t = "0"
	}
	return t
}

// fraction prints v to the nearest 1/den in lowest terms: "1 1/4", "3/8", "2".
func fraction(v float64, den int) string {
	sign := ""
	if v < 0 {
		sign, v = "-", -v
	}
	n := int(math.Round(v * float64(den)))
	whole, rest := n/den, n%den
	for rest > 0 && rest%2 == 0 {
		rest, den = rest/2, den/2
	}
	switch {
	case rest == 0:
		if whole == 0 {
			sign = ""
		}
		return sign + strconv.Itoa(whole)
	case whole == 0:
		return sign + strconv.Itoa(rest) + "/" + strconv.Itoa(den)
	default:
		return sign + strconv.Itoa(whole) + " " + strconv.Itoa(rest) + "/" + strconv.Itoa(den)
	}
}
