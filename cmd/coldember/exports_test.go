package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/api"
	"coldember/internal/demo/demotest"
	"coldember/internal/edit"
	"coldember/internal/export"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// begins is what a file of a format begins with.
var begins = map[string]string{
	"svg": "<?xml", "dxf": "  0", "pdf": "%PDF-", "3mf": "PK", "json": "{", "card": "%PDF-", "bench": "%PDF-", "gauges": "%PDF-",
	"fittings": "%PDF-", "fittingsSvg": "<?xml", "fittingsDxf": "  0", "customer": "%PDF-", "share": "PK",
}

// TestTheCommandLineWritesEveryFormat of a piece begun from every pattern: a file of its kind, or a
// sentence that says what is missing. Here two formats of each piece, all of all in make long.
func TestTheCommandLineWritesEveryFormat(t *testing.T) {
	dir := t.TempDir()
	data := filepath.Join(dir, "demo.db")
	demotest.Copy(t, data)
	names := begun(t, data)
	require.Greater(t, len(names), 30)
	var formats []string
	for _, f := range export.Formats() {
		formats = append(formats, string(f))
	}
	for _, f := range api.Papers() {
		formats = append(formats, string(f))
	}
	for i, name := range names {
		for k, format := range formats {
			if os.Getenv("LONG") == "" && (i*2+k)%len(formats) > 1 {
				continue
			}
			file := filepath.Join(dir, fmt.Sprintf("%d.%s", i, format))
			_, err := command(t, "", "export", name, "--piece", "--format", format, "--data", data, "--out", file)
			what := name + " as " + format
			if err != nil {
				assert.Contains(t, []string{"fittingsSvg", "fittingsDxf", "made", "log", "session"}, format, "%s: %v", what, err)
				explained := api.Explain(err, quantity.Metric)
				require.NotNil(t, explained, "%s: %v", what, err)
				assert.Regexp(t, "draw a handle|has not been at the fire", explained.Sentence(), what)
				continue
			}
			raw, err := os.ReadFile(file)
			require.NoError(t, err, what)
			assert.True(t, len(raw) > 100 && strings.HasPrefix(string(raw), begins[format]), what)
		}
	}
}

// begun are the names of pieces that are begun from every pattern.
func begun(t *testing.T, data string) (names []string) {
	t.Helper()
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	defer func() { require.NoError(t, st.Close()) }()
	w := work.New(st, time.Now, work.RandomID)
	patterns, _, err := w.Patterns(t.Context(), false)
	require.NoError(t, err)
	for i, p := range patterns {
		set := func(field string, v float64) edit.Edit {
			return edit.Edit{Field: field, Text: fmt.Sprintf("%.1f", v), Units: quantity.Metric}
		}
		name := fmt.Sprint("Begun ", i)
		_, _, err := w.StartPiece(t.Context(), work.NewPiece{Name: name, PatternID: p.ID, BarForm: stock.Flat, Edits: []edit.Edit{
			set("bar.widthMm", p.Doc.Design.HeightMm), set("bar.thicknessMm", p.Doc.Design.SpineMm+1.5), set("bar.lengthMm", 2000), {Field: "steelId", Text: "1084"},
		}})
		require.NoError(t, err, p.Doc.Name)
		names = append(names, name)
	}
	return names
}
