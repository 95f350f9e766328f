package main

import (
	"archive/zip"
	"encoding/csv"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/quantity"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/export"
	"coldember/internal/store"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPackedShopMeetsItsSchema by a reader that is not ours, and so does not one that is
// spoilt.
func TestAPackedShopMeetsItsSchema(t *testing.T) {
	dir := t.TempDir()
	data, packed := filepath.Join(dir, "demo.db"), filepath.Join(dir, "shop.zip")
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	require.NoError(t, demo.Build(t.Context(), st, time.Now()))
	require.NoError(t, st.Close())
	_, err = command(t, "", "pack", packed, "--data", data)
	require.NoError(t, err)
	z, err := zip.OpenReader(packed)
	require.NoError(t, err)
	defer func() { _ = z.Close() }()
	f, err := z.Open("shop.json")
	require.NoError(t, err)
	var shop map[string]any
	require.NoError(t, json.NewDecoder(f).Decode(&shop))

	text, err := command(t, "", "schema", "shop")
	require.NoError(t, err)
	rules, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("shop.json", rules))
	s, err := c.Compile("shop.json")
	require.NoError(t, err)
	require.NoError(t, s.Validate(shop))
	shop["pieces"].([]any)[0].(map[string]any)["doc"].(map[string]any)["request"].(map[string]any)["steelId"] = 7.
	assert.Error(t, s.Validate(shop))

	out, err := command(t, "", "unpack", packed, "--data", filepath.Join(dir, "new.db"))
	require.NoError(t, err)
	assert.Contains(t, out, "20 pieces")
}

// TestAPatternFileMeetsItsSchema, and one with a field that is misspelt does not.
func TestAPatternFileMeetsItsSchema(t *testing.T) {
	text, err := command(t, "", "schema")
	require.NoError(t, err)
	rules, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("pattern.json", rules))
	s, err := c.Compile("pattern.json")
	require.NoError(t, err)
	for _, p := range blade.Starters() {
		f, err := export.Write(export.Subject{Name: p.ID, Design: p.Design}, export.FormatJSON, quantity.Metric, "a4")
		require.NoError(t, err)
		var file map[string]any
		require.NoError(t, json.Unmarshal(f.Data, &file))
		require.NoError(t, s.Validate(file), p.ID)
		file["design"].(map[string]any)["lenghtMm"] = 100.
		assert.Error(t, s.Validate(file))
	}
}

// TestASimulatedPieceWritesItsBook from the command line, which comes out as a table, a page
// and a file that meets its schema.
func TestASimulatedPieceWritesItsBook(t *testing.T) {
	dir := t.TempDir()
	data := filepath.Join(dir, "demo.db")
	demotest.Copy(t, data)
	_, err := command(t, "", "simulate", "nothing", "--data", data)
	require.ErrorContains(t, err, "There is no piece")
	out, err := command(t, "", "simulate", demo.Samphire, "--data", data, "--seed", "5")
	require.NoError(t, err)
	assert.Regexp(t, `Samphire.*: \d+ events, \d+ heats of \d+, \d+ blows`, out)
	file := filepath.Join(dir, "x.json")
	_, err = command(t, "", "export", demo.Samphire, "--piece", "--format", "session", "--data", data, "--out", file)
	require.NoError(t, err)
	raw, err := os.ReadFile(file)
	require.NoError(t, err)
	text, err := command(t, "", "schema", "session")
	require.NoError(t, err)
	rules, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("session.json", rules))
	s, err := c.Compile("session.json")
	require.NoError(t, err)
	var told map[string]any
	require.NoError(t, json.Unmarshal(raw, &told))
	require.NoError(t, s.Validate(told))
	told["events"].([]any)[0].(map[string]any)["kind"] = "boiled"
	assert.Error(t, s.Validate(told))
	for format, least := range map[string]int64{"made": 5000, "gauges": 5000, "log": 1000} {
		file := filepath.Join(dir, "x."+format)
		_, err = command(t, "", "export", demo.Samphire, "--piece", "--format", format, "--data", data, "--out", file)
		require.NoError(t, err, format)
		info, err := os.Stat(file)
		require.NoError(t, err)
		assert.Greater(t, info.Size(), least, format)
	}
	rows, err := os.ReadFile(filepath.Join(dir, "x.log"))
	require.NoError(t, err)
	table, err := csv.NewReader(strings.NewReader(string(rows))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, "what", table[0][0])
	assert.Equal(t, "reading", table[1][0], "the weight of the bar, before the first heat")
}

// TestADayFromTheCommandLine, as lines and as a calendar, and what cannot be.
func TestADayFromTheCommandLine(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	out, err := command(t, "", "day", demo.Rigging, demo.Slicer, demo.Sedge, "--data", data, "--begin", "2026-11-26T08:00")
	require.NoError(t, err)
	assert.Regexp(t, `08:00–08:\d\d  Rigging knife: harden\n`, out)
	assert.Contains(t, out, "left out: Sedge knife")
	out, err = command(t, "", "day", demo.Rigging, "--data", data, "--ics")
	require.NoError(t, err)
	assert.Equal(t, 3, strings.Count(out, "BEGIN:VEVENT"))
	_, err = command(t, "", "day", "nothing", "--data", data)
	require.ErrorContains(t, err, "There is no piece")
	_, err = command(t, "", "day", demo.Rigging, "--data", data, "--begin", "soon")
	require.ErrorContains(t, err, "--begin")
	_, err = command(t, "", "day", demo.Rigging, "--data", data, "--ovens", "0")
	require.Error(t, err)
}
