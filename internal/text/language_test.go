package text_test

import (
	"encoding/json"
	"maps"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"coldember/core/quantity"
	"coldember/internal/text"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func catalogue(t *testing.T, language string) map[string]string {
	t.Helper()
	b, err := os.ReadFile(language + ".json")
	require.NoError(t, err)
	m := map[string]string{}
	require.NoError(t, json.Unmarshal(b, &m))
	return m
}

var inBraces = regexp.MustCompile(`\{\w+\}`)

func placeholders(s string) []string {
	return slices.Sorted(slices.Values(inBraces.FindAllString(s, -1)))
}

// TestEveryLanguageSaysEverything: the same codes, the same placeholders, plurals in pairs, and nothing left as it is in English
// but what is alike in both.
func TestEveryLanguageSaysEverything(t *testing.T) {
	en := catalogue(t, text.English)
	assert.Equal(t, text.English, text.Languages()[0])
	require.Contains(t, text.Languages(), "es")
	for _, l := range text.Languages()[1:] {
		other := catalogue(t, l)
		assert.ElementsMatch(t, slices.Collect(maps.Keys(en)), slices.Collect(maps.Keys(other)), l)
		alike := 0
		for code, words := range en {
			said := other[code]
			assert.Equal(t, placeholders(words), placeholders(said), "%s: %s", l, code)
			assert.Equal(t, strings.HasSuffix(words, " "), strings.HasSuffix(said, " "), "%s: %s", l, code)
			if said == words && len(words) > 12 && inBraces.ReplaceAllString(words, "") != "" && strings.ContainsAny(inBraces.ReplaceAllString(words, ""), "abcdefghijklmnopqrstuvwxyz") {
				alike++
			}
		}
		assert.Less(t, alike, len(en)/100, "%s: left in English", l)
	}
}

// TestTheGlossaryIsKept: where the English says a word of the trade, the Spanish says the word that the glossary has for it.
func TestTheGlossaryIsKept(t *testing.T) {
	b, err := os.ReadFile("../../docs/glossary-es.md")
	require.NoError(t, err)
	row := regexp.MustCompile(`(?m)^\| ([a-z ]+) \| ([^|]+) \|`)
	en, es := catalogue(t, "en"), catalogue(t, "es")
	rows := row.FindAllStringSubmatch(string(b), -1)
	require.Greater(t, len(rows), 25)
	for _, r := range rows {
		english := regexp.MustCompile(`(?i)\b` + r[1] + `s?\b`)
		var forms []string
		for _, f := range strings.Split(r[2], ",") {
			forms = append(forms, strings.TrimSpace(f))
		}
		said, kept := 0, 0
		for code, words := range en {
			if !english.MatchString(words) {
				continue
			}
			said++
			for _, f := range forms {
				if strings.Contains(strings.ToLower(es[code]), f) {
					kept++
					break
				}
			}
		}
		assert.Positive(t, said, r[1])
		assert.GreaterOrEqual(t, float64(kept), .8*float64(said), "%s: %s in %d of %d", r[1], r[2], kept, said)
	}
}

// TestALanguageWritesItsOwnFigures, and one that there is not is English. It is not run beside others: a program speaks one language.
func TestALanguageWritesItsOwnFigures(t *testing.T) {
	defer text.Use(text.English)
	text.Use("es")
	assert.Equal(t, "es", text.Language())
	assert.Equal(t, "Tomar una barra de 12,5 mm de ancho", text.Say("remedy.bar.widthMm", map[string]string{"value": "12.5 mm"}))
	assert.Equal(t, "3,25 mm × 4 mm, ASTM 7,5.", text.Local("3.25 mm × 4 mm, ASTM 7.5."))
	assert.Equal(t, "127.0.0.1:7420, v1.2.3, a/b1.5.db, 1,5 mm, −2,5°: 3,5", text.Local("127.0.0.1:7420, v1.2.3, a/b1.5.db, 1.5 mm, −2.5°: 3.5"), "an address has points")
	assert.Contains(t, text.Say("doctor.portFree", map[string]string{"address": "127.0.0.1:7420"}), "127.0.0.1:7420")
	assert.Contains(t, text.Say("log.title", map[string]string{"name": "Bar 12.5"}), "Bar 12.5", "as its smith named it")
	assert.Equal(t, "no.such.code", text.Say("no.such.code", nil))
	assert.Contains(t, text.HeatColour(1000, quantity.Metric), "naranja")
	v, err := quantity.Parse("12,5", quantity.Length, quantity.Metric)
	require.NoError(t, err)
	assert.InDelta(t, 12.5, v, 0, "as it is written it is read")
	assert.Equal(t, "27 de noviembre de 2026 09:05", text.DayTime(time.Date(2026, 11, 27, 9, 5, 0, 0, time.UTC)))
	text.Use("tlh")
	assert.Equal(t, text.English, text.Language())
	assert.Equal(t, "3.25", text.Local("3.25"))
	assert.Equal(t, "1 March 2026", text.Day(time.Date(2026, 3, 1, 0, 0, 0, 0, time.UTC)))
	for env, want := range map[string]string{"es_ES.UTF-8": "es", "C": "en", "de_DE": "en", "": "en"} {
		assert.Equal(t, want, text.OfEnvironment(func(name string) string {
			if name == "LANG" {
				return env
			}
			return ""
		}), env)
	}
}
