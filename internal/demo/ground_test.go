package demo_test

import (
	"path/filepath"
	"testing"
	"time"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
	"coldember/internal/demo/demotest"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheLibraryIsGroundAsItsMapSays: every pattern of the demonstration, planned from a bar that
// forges it: what its steps take off is what the map says, and its hours are those of a workshop.
// With -v it prints the table.
func TestTheLibraryIsGroundAsItsMapSays(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	defer func() { _ = st.Close() }()
	patterns, _, err := work.New(st, time.Now, work.RandomID).Patterns(t.Context(), false)
	require.NoError(t, err)
	require.Len(t, patterns, 37)
	for _, pattern := range patterns {
		d := pattern.Doc.Design
		r := plan.NewRequest(d, "1084", stock.Item{Form: stock.Flat, WidthMm: d.HeightMm, ThicknessMm: d.SpineMm + 1.5, LengthMm: 2000}, forge.Steady)
		r.Allowances = pattern.Doc.Allowances
		p, err := planner.Make(t.Context(), r)
		require.NoError(t, err, pattern.Doc.Name)
		f, err := planner.Finish(&r, p)
		require.NoError(t, err, pattern.Doc.Name)
		steps, minutes := 0.0, 0.0
		for _, s := range f.Steps {
			steps += s.MassG
			minutes += s.Minutes
		}
		t.Logf("%-28s map %6.1f g, steps %6.1f g, %4.1f h of belt satin", pattern.Doc.Name, f.Map.TotalG, steps, minutes/60)
		for _, s := range f.Surfaces {
			if s.Chosen {
				assert.InDelta(t, f.Account.Min, s.Minutes, 1e-6, "%s: the same hours wherever they stand", pattern.Doc.Name)
			}
		}
		assert.InEpsilon(t, f.Map.TotalG, steps, .01, pattern.Doc.Name)
		assert.True(t, minutes > 60 && minutes < 12*60, "%s: %.0f min", pattern.Doc.Name, minutes)
	}
}
