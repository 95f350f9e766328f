package main

import (
	"archive/zip"
	"encoding/json"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/quantity"
	"coldember/internal/demo"
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
	assert.Contains(t, out, "8 pieces")
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
