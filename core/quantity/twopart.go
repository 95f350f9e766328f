package quantity

import "strings"

// perUnit are units of two parts: what stands for each, and what a number without one means.
var perUnit = map[Kind]struct {
	units            map[string]float64
	metric, imperial float64
}{
	Speed:     {map[string]float64{"m/s": 1, "ft/s": mPerFoot}, 1, mPerFoot},
	MassRate:  {map[string]float64{"kg/h": 1, "lb/h": gPerPound / 1000}, 1, gPerPound / 1000},
	MassPrice: {map[string]float64{"/kg": 1, "/lb": 1000 / gPerPound}, 1, 1000 / gPerPound},
}

// parseTwoPart reads a quantity whose unit has two parts; the number before it may be a
// fraction or a sum.
func parseTwoPart(text string, k Kind, s System) (float64, error) {
	of := perUnit[k]
	factor, number := of.metric, text
	if s.Inches() {
		factor = of.imperial
	}
	trimmed := strings.ToLower(strings.TrimSpace(text))
	for unit, f := range of.units {
		if strings.HasSuffix(trimmed, unit) {
			factor, number = f, strings.TrimRight(text, " \t")
			number = number[:len(number)-len(unit)]
		}
	}
	p := &parser{text: number, kind: k, fallback: 1, units: map[string]float64{}, system: s}
	v, err := p.sum()
	if pe, ok := err.(*ParseError); ok { //nolint:errorlint // our own, unwrapped
		pe.Text = text
		return 0, pe
	}
	return v * factor, err
}
