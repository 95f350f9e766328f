package harden

import (
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// Carbon that is in solution at the quench, for the start of martensite: less where chromium
// holds it in carbides.
const (
	chromiumPct     = 1.0
	mostWithChromes = .65
)

// MartensiteStartC is where martensite begins to form: van Bohemen 2012, ± 20 °C.
func MartensiteStartC(s Steel) float64 {
	c := math.Min(s.CarbonPct, mostSolvedPct)
	if s.ChromiumPct >= chromiumPct {
		c = math.Min(c, mostWithChromes)
	}
	return 565 - 600*(1-math.Exp(-.96*c)) - 31*s.ManganesePct - 13*s.SiliconPct - 10*s.ChromiumPct - 18*s.NickelPct - 12*s.MolybdenumPct
}

// formsPerK is Koistinen and Marburger's (1959).
const formsPerK = .011

// Formed is the share of martensite at a temperature.
func Formed(startC, tempC float64) float64 {
	return 1 - math.Exp(-formsPerK*math.Max(0, startC-tempC))
}

// FormedAtC is where a share of martensite has formed, 0 to under 1.
func FormedAtC(startC, share float64) float64 { return startC + math.Log(1-share)/formsPerK }

// StraightenS is how long a section that leaves the bath at outC can be straightened in still
// air: until a share of martensite has formed, by the law of cooling. 0 where it has formed
// already; ok is false where it never forms in this air.
func StraightenS(s Steel, widthMm, thicknessMm, outC, share float64) (seconds float64, ok bool) {
	end := FormedAtC(MartensiteStartC(s), share)
	switch {
	case end <= neverUnderC:
		return 0, false
	case outC <= end:
		return 0, true
	}
	t, err := thermal.Air().TimeTo(widthMm, thicknessMm, outC, end)
	return t, err == nil
}

// neverUnderC: an air of twenty degrees takes for ever to cool to it.
const neverUnderC = 25

// CriticalC are the temperatures between which a steel turns to austenite on heating: Ac1 and,
// below the eutectoid, Ac3 (Andrews 1965, ± 15 °C). Above it both are Ac1: carbides stay.
func CriticalC(s Steel) (lowC, highC float64) {
	lowC = 723 - 10.7*s.ManganesePct - 16.9*s.NickelPct + 29.1*s.SiliconPct + 16.9*s.ChromiumPct
	highC = 910 - 203*math.Sqrt(s.CarbonPct) - 15.2*s.NickelPct + 44.7*s.SiliconPct + 104*s.VanadiumPct + 31.5*s.MolybdenumPct
	return lowC, math.Max(lowC, highC)
}

// What a bath takes heat from steel by: h = 2kH.
const (
	conductivityWPerMK = 30.0
	heatJPerKgK        = 600.0
)

// BathS is how long a plate is in a bath of this severity until it leaves at outC, taken as one
// temperature through (it is thin): s. ok is false where the bath is not colder than that.
func BathS(severityPerIn float64, f Fluid, thicknessMm, fromC, outC, bathC float64) (seconds float64, ok bool) {
	if outC <= bathC || fromC <= outC {
		return 0, fromC <= outC && outC > bathC
	}
	h := 2 * conductivityWPerMK * SeverityAt(severityPerIn, f, thicknessMm) / mmPerIn * 1000
	tau := steel.DensityGPerCm3 * 1000 * heatJPerKgK * thicknessMm / 2000 / h
	return tau * math.Log((fromC-bathC)/(outC-bathC)), true
}
