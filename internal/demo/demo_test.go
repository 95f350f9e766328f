package demo_test

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"coldember/core/replan"
	"coldember/core/whatif"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestDemoTellsItsStory(t *testing.T) {
	ctx, now := context.Background(), time.Now()
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	defer func() { _ = st.Close() }()
	require.NoError(t, demo.Build(ctx, st, now))
	require.NoError(t, demo.Build(ctx, st, now), "a second start leaves it as it is")
	w := work.New(st, time.Now, work.RandomID)
	pieces, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	stops := map[string]int{}
	for _, p := range pieces {
		stops[p.Doc.Name] = p.Summary.Stops
		assert.True(t, p.CreatedAt.After(now.AddDate(0, -2, -5)) && p.CreatedAt.Before(now), "%s at %v", p.Doc.Name, p.CreatedAt)
	}
	assert.Equal(t, map[string]int{demo.Rigging: 0, demo.Slicer: 0, demo.SlicerNarrow: 1, demo.Oyster: 0, demo.Samphire: 0, demo.Reed: 0, demo.Net: 0, demo.Sedge: 0, demo.Trimmer: 0}, stops, "only the slicer from the narrow bar cannot work")
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	assert.Len(t, rack, 13)
	used := map[string]bool{}
	for _, p := range pieces {
		for _, s := range rack {
			if s.ID == p.Doc.StockID {
				used[s.Doc.Name] = true
			}
		}
		if p.Doc.Name == demo.Net { // its point was lost, and what it still becomes was taken
			f, err := w.FireOf(ctx, p.ID)
			require.NoError(t, err)
			require.NotNil(t, f.Doc.Measured)
			first, err := w.Fire(ctx, f.Doc.FromID)
			require.NoError(t, err)
			assert.Less(t, f.Doc.Request.Design.LengthMm, first.Doc.Request.Design.LengthMm-1)
			assert.Equal(t, f.Doc.Request.Design, p.Doc.Request.Design)
			now, err := w.Moment(ctx, f.ID)
			require.NoError(t, err)
			assert.InDelta(t, f.Doc.Measured.LengthMm, now.LongMm, 1, "it begins as what was measured, not as a bar")
			assert.Greater(t, len(now.Offered), 4)
			again, err := w.Replan(ctx, f.ID, replan.Measured{LengthMm: now.LongMm, Stations: now.Offered})
			require.NoError(t, err)
			assert.Equal(t, "asPlanned", again.Ways[0].What, "measured once more, it is what it was taken for")
			assert.InDelta(t, f.Doc.Course.Totals.Heats, again.Ways[0].Heats, 1)
		}
		if p.Doc.Name == demo.Oyster { // the largest from one roller
			assert.Greater(t, p.Summary.CutLengthMm, 30.0)
			assert.LessOrEqual(t, p.Summary.CutLengthMm, 36.0)
			grow := whatif.Axis{Free: true, Lowest: .9, Highest: 1.5}
			fit, err := w.Largest(ctx, p.Doc, whatif.Freedom{Length: grow, Height: grow})
			require.NoError(t, err)
			assert.InDelta(t, 1, fit.Length, .01, "there is none larger")
		}
	}
	for _, name := range []string{"Bearing rollers", "Hay-rake tines", "Old plane iron", "Half a harrow disc", "Lorry spring end"} {
		assert.True(t, used[name], name)
	}
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	assert.True(t, shop.Doc.Demo)
	assert.Len(t, shop.Doc.Smiths, 2)
	sheet, err := w.Practised(ctx)
	require.NoError(t, err)
	require.Len(t, sheet, 5)
	for _, p := range sheet {
		assert.Equal(t, p.Doc.Undone != 3, p.Doc.Came.Done, "%s: all but the one that was broken off", p.Doc.Exercise)
	}
}

func TestDemoLeavesOwnWorkAlone(t *testing.T) {
	ctx := context.Background()
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "own.db"), nil)
	require.NoError(t, err)
	defer func() { _ = st.Close() }()
	w := work.New(st, time.Now, work.RandomID)
	_, err = w.EditShop(ctx, 0, []edit.Edit{{Field: "theme", Text: "day"}})
	require.NoError(t, err)
	require.ErrorIs(t, demo.Build(ctx, st, time.Now()), demo.ErrForeign)
	pieces, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	assert.Empty(t, pieces)
}
