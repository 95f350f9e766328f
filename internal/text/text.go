// Package text is the one message catalogue: codes to words. The front end
// imports the same file.
package text

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"math"
	"regexp"
	"sort"
	"strconv"
	"strings"

	"coldember/core/quantity"
	"coldember/core/steel"
)

//go:embed en.json
var enJSON []byte

var messages = func() map[string]string {
	m := map[string]string{}
	if err := json.Unmarshal(enJSON, &m); err != nil {
		panic(fmt.Sprintf("text: catalogue: %v", err))
	}
	return m
}()

// Has tells whether the catalogue has words for a code.
func Has(code string) bool { _, ok := messages[code]; return ok }

// Codes lists every code, sorted.
func Codes() []string {
	var out []string
	for k := range messages {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// Say fills the placeholders of a message. A code without words is returned as
// it is, so that nothing is ever silent.
func Say(code string, with map[string]string) string {
	m, ok := messages[code]
	if !ok {
		return code
	}
	return placeholder.ReplaceAllStringFunc(m, func(whole string) string {
		if v, ok := with[whole[1:len(whole)-1]]; ok {
			return v
		}
		return whole
	})
}

// placeholder is a name in braces. What fills one is never looked through again.
var placeholder = regexp.MustCompile(`\{\w+\}`)

// Figures prints figures in the smith's units by the unit their name carries.
func Figures(f map[string]float64, s quantity.System) map[string]string {
	out := make(map[string]string, len(f))
	for k, v := range f {
		out[k] = Figure(k, v, s)
	}
	return out
}

// Figure prints one figure by its name: what quantity.KindOf tells, S, else plain.
func Figure(name string, v float64, s quantity.System) string {
	switch quantity.KindOf(name) {
	case quantity.Length:
		if v < 10 {
			return quantity.FormatThickness(v, s)
		}
		return quantity.FormatLength(v, s)
	case quantity.Temperature:
		return quantity.FormatTemperature(v, s)
	case quantity.Mass:
		return quantity.FormatMass(v*1000, s)
	case quantity.Speed:
		return quantity.FormatSpeed(v, s)
	case quantity.MassRate:
		return quantity.FormatMassRate(v, s)
	case quantity.MassPrice:
		return quantity.FormatMassPrice(v, s)
	case quantity.Percent:
		return fmt.Sprintf("%.1f %%", v*100)
	}
	if strings.HasSuffix(name, "S") {
		if v >= 7200 {
			return strconv.FormatFloat(math.Round(v/360)/10, 'f', -1, 64) + " h"
		}
		if v >= 90 {
			return fmt.Sprintf("%.0f min", v/60)
		}
		if v < 10 { // of a few seconds every tenth counts
			return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) + " s"
		}
		return fmt.Sprintf("%.0f s", v)
	}
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", v), "0"), ".")
}

// FigureFor prints figures whose unit is told by the code rather than by their
// name (lowest and highest of a range).
func FigureFor(code string, f map[string]float64, s quantity.System) map[string]string {
	suffix := map[string]string{"field.rangeLength": "Mm", "field.rangeTemperature": "C", "field.rangePercent": "Share", "field.rangeKg": "Kg", "field.rangeSpeed": "MPerS", "field.rangeRate": "KgPerH", "field.rangePrice": ".steelPrice"}[code]
	if suffix == "" {
		return Figures(f, s)
	}
	out := map[string]string{}
	for k, v := range f {
		out[k] = Figure(k+suffix, v, s)
	}
	return out
}

// Count picks the plural key of a count: code.one or code.other, with {n}.
func Count(code string, n int, with map[string]string) string {
	key := code + ".other"
	if n == 1 {
		key = code + ".one"
	}
	if !Has(key) {
		key = code
	}
	all := map[string]string{"n": strconv.Itoa(n)}
	for k, v := range with {
		all[k] = v
	}
	return Say(key, all)
}

// HeatColour names the colour of steel at tempC in dim light: the nearest of
// the scale.
func HeatColour(tempC float64) string {
	return Say("colour."+strconv.Itoa(steel.HeatColour(tempC)), nil)
}
