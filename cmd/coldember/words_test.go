package main

import (
	"bytes"
	"regexp"
	"strings"
	"testing"

	"coldember/internal/text"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"
	"github.com/stretchr/testify/assert"
)

// TestTheCommandLineSpeaks: every command and every flag has words in every language, and help and what is typed wrong are told
// in it.
func TestTheCommandLineSpeaks(t *testing.T) {
	t.Cleanup(func() { text.Use(text.English) })
	code := regexp.MustCompile(`\bcli\.[a-z]+`)
	said := map[string][]string{}
	for _, l := range text.Languages() {
		text.Use(l)
		var walk func(c *cobra.Command)
		walk = func(c *cobra.Command) {
			if c.Hidden {
				return
			}
			assert.NotEmpty(t, c.Short, c.CommandPath())
			said[l] = append(said[l], c.Short)
			c.LocalFlags().VisitAll(func(f *pflag.Flag) { assert.NotEmpty(t, f.Usage, "%s --%s", c.CommandPath(), f.Name) })
			out := typed(c.CommandPath() + " --help")
			assert.NotRegexp(t, code, out, "%s in %s", c.CommandPath(), l)
			assert.Contains(t, out, text.Say("cli.usage", nil)+"\n  "+c.CommandPath())
			assert.Contains(t, out, "--help")
			for _, k := range c.Commands() {
				walk(k)
			}
		}
		walk(root())
	}
	for i, words := range said["es"] {
		assert.NotEqual(t, said[text.English][i], words)
	}
	text.Use("es")
	for line, want := range map[string]string{
		"coldember hammer":                                           "No existe «coldember hammer»",
		"coldember rack sell":                                        "No existe «coldember rack sell»",
		"coldember export":                                           "coldember export pide 1 detrás, y recibió 0",
		"coldember version x":                                        "no sabe qué hacer con «x»",
		"coldember pieces --no-such":                                 "no tiene la opción «no-such»",
		"coldember export knife --out":                               "--out pide un valor detrás",
		"coldember simulate k --heats x":                             "--heats no puede ser «x»",
		"coldember device hammer":                                    "No hay instrumento «hammer»: se pide caliper",
		"coldember day k --begin noon":                               "--begin pide una hora como 2026-11-26T08:00, no «noon»",
		"coldember version":                                          "coldember dev",
		"coldember":                                                  "Órdenes:",
		"coldember import /no/such.json":                             "No hay archivo /no/such.json.",
		"coldember import /":                                         "/ es una carpeta.",
		"coldember serve --addr nowhere":                             "«nowhere» no es una dirección",
		"coldember serve --addr 1.2.3.4:80":                          "1.2.3.4:80 no es de esta máquina",
		"coldember calc blade --help":                                "de la hoja se dobla, desde la punta",
		"coldember calc learn --help":                                "lista de número",
		"coldember device caliper --key abc --to http://127.0.0.1:1": "Nadie responde en http://127.0.0.1:1",
	} {
		assert.Contains(t, typed(line), want, line)
	}
}

// typed is what a line of the command line answers, an error as it is told.
func typed(line string) string {
	c := root()
	var out bytes.Buffer
	c.SetOut(&out)
	c.SetErr(&out)
	c.SetArgs(strings.Fields(line)[1:])
	if err := c.Execute(); err != nil {
		out.WriteString(inWords(err))
	}
	return out.String()
}
