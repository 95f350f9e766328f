// Package text is the one message catalogue: codes to words, a file for every language. The front
// end imports the same files.
package text

import (
	"embed"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync/atomic"

	"coldember/core/quantity"
	"coldember/core/steel"
)

//go:embed ??.json
var files embed.FS

// English is the language that every code has words in.
const English = "en"

// catalogues by language: a file of two letters each.
var catalogues = func() map[string]map[string]string {
	all := map[string]map[string]string{}
	names, err := files.ReadDir(".")
	if err != nil {
		panic(fmt.Sprintf("text: catalogues: %v", err))
	}
	for _, n := range names {
		b, err := files.ReadFile(n.Name())
		m := map[string]string{}
		if err == nil {
			err = json.Unmarshal(b, &m)
		}
		if err != nil {
			panic(fmt.Sprintf("text: catalogue %s: %v", n.Name(), err))
		}
		all[strings.TrimSuffix(n.Name(), ".json")] = m
	}
	return all
}()

var messages = catalogues[English]

// spoken is the language of this program: a shop speaks one.
var spoken atomic.Pointer[string]

// Languages lists those there are, English first.
func Languages() []string {
	out := slices.Sorted(maps.Keys(catalogues))
	slices.SortStableFunc(out, func(a, b string) int {
		switch {
		case a == English:
			return -1
		case b == English:
			return 1
		}
		return 0
	})
	return out
}

// Use speaks a language from now on; one that there is not, or none, is English.
func Use(language string) {
	if catalogues[language] == nil {
		language = English
	}
	spoken.Store(&language)
}

// Language is the one that is spoken.
func Language() string {
	if l := spoken.Load(); l != nil {
		return *l
	}
	return English
}

// OfEnvironment is the language that an environment's LC_ALL, LC_MESSAGES or LANG asks for.
func OfEnvironment(get func(string) string) string {
	for _, name := range []string{"LC_ALL", "LC_MESSAGES", "LANG"} {
		if v := get(name); len(v) >= 2 {
			if l := strings.ToLower(v[:2]); catalogues[l] != nil {
				return l
			}
			return English
		}
	}
	return English
}

// words of a code in the language that is spoken, or else in English.
func words(code string) (string, bool) {
	if m, ok := catalogues[Language()][code]; ok {
		return m, true
	}
	m, ok := messages[code]
	return m, ok
}

// written is what stands together without a space: a figure with its unit, or an address, a path, a version.
var written = regexp.MustCompile(`[A-Za-z0-9_.:/\\-]+`)

// figured is a figure in it, with tenths.
var figured = regexp.MustCompile(`^(-?\d+)\.(\d+[A-Za-z]*[.:]*)$`)

// Decimal is the sign before tenths in the language that is spoken: "." or ",".
func Decimal() string {
	sign, _ := words("number.decimal")
	return sign
}

// Local writes the figures of a text as the language does; what else has points in it (an address, a version) keeps them.
func Local(s string) string {
	decimal := Decimal()
	if decimal == "." {
		return s
	}
	return written.ReplaceAllStringFunc(s, func(w string) string { return figured.ReplaceAllString(w, "${1}"+decimal+"${2}") })
}

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

//go:embed verbatim.json
var verbatimJSON []byte

// verbatim are the placeholders that are filled as they are: names, places and what was typed have no figures of ours in them.
var verbatim = func() (out []string) {
	if err := json.Unmarshal(verbatimJSON, &out); err != nil {
		panic(err) // it is part of the program
	}
	return out
}()

// Say fills the placeholders of a message. A code without words is returned as
// it is, so that nothing is ever silent.
func Say(code string, with map[string]string) string {
	m, ok := words(code)
	if !ok {
		return code
	}
	return placeholder.ReplaceAllStringFunc(m, func(whole string) string {
		name := whole[1 : len(whole)-1]
		v, ok := with[name]
		switch {
		case !ok:
			return whole
		case slices.Contains(verbatim, name):
			return v
		}
		return Local(v)
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
		if v < 3 { // of less than three seconds every tenth counts
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
func HeatColour(tempC float64, s quantity.System) string {
	return Say("colour."+strconv.Itoa(int(steel.HeatColourAt(tempC, s.Sooner()))), nil)
}

// Word is a word that stands in a sentence, by its code: of the colour of hot steel by its temperature,
// in the school of the smith.
func Word(code string, s quantity.System) string {
	if hot, ok := strings.CutPrefix(code, "heatColour."); ok {
		if c, err := strconv.ParseFloat(hot, 64); err == nil {
			return HeatColour(c, s)
		}
	}
	return Say(code, nil)
}
