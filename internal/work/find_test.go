package work_test

import (
	"slices"
	"testing"

	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatWasWrittenIsFound: notes of pieces, of stock and at the fire, places, and what went wrong by its name; signs that mean
// something to a search mean themselves.
func TestWhatWasWrittenIsFound(t *testing.T) {
	w, p := yard(t, demo.Rigging)
	_, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "notes", Text: `100 % of the "Larch" hull_fit\done`}})
	require.NoError(t, err)
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	_, err = w.EditStock(ctx, rack[0].ID, rack[0].Version, []edit.Edit{{Field: "place", Text: "Loft, left"}})
	require.NoError(t, err)
	kinds := func(wanted string) (out []string) {
		all, err := w.Find(ctx, wanted)
		require.NoError(t, err)
		for _, f := range all {
			assert.NotEmpty(t, f.Name, wanted)
			assert.NotEmpty(t, f.Said, wanted)
			out = append(out, f.Kind)
		}
		return out
	}
	for _, wanted := range []string{"larch", "100 %", "hull_fit", `fit\done`, `"Larch"`} {
		assert.Equal(t, []string{"piece"}, kinds(wanted), wanted)
	}
	assert.Empty(t, kinds("hull%fit"))
	assert.Empty(t, kinds("hullxfit"))
	assert.Empty(t, kinds("   "))
	assert.Equal(t, []string{"stock"}, kinds("loft"))
	fires, err := w.AllFires(ctx)
	require.NoError(t, err)
	i := slices.IndexFunc(fires, func(e work.Entry) bool { return len(e.Faults) > 0 })
	require.GreaterOrEqual(t, i, 0)
	assert.Contains(t, kinds(text.Say("fault."+fires[i].Faults[0], nil)), "fault")
	_, err = w.Find(ctx, string(make([]byte, 100_000)))
	require.Error(t, err)
}
