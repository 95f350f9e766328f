package work_test

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/store/storetest"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheFirstDatabaseOpens and is whole: every piece plans, undo goes back, and what
// was cut from a bar is still known, though it moved from its document to rows.
func TestTheFirstDatabaseOpens(t *testing.T) {
	ctx := context.Background()
	raw := storetest.First(t)
	file := filepath.Join(t.TempDir(), "shop.db")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	st, err := store.Open(ctx, file, nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	w := work.New(st, time.Now, work.RandomID)

	pieces, aside, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	require.Len(t, pieces, 5)
	assert.Empty(t, aside)
	for _, p := range pieces {
		_, err := w.Plan(ctx, p.Doc)
		require.NoError(t, err, p.Doc.Name)
		if p.Doc.Name == "Rigging knife" {
			require.True(t, p.CanUndo)
			back, _, err := w.Undo(ctx, p.ID, p.Version, -1)
			require.NoError(t, err)
			assert.Nil(t, back.Doc.Request.Design.Handle)
		}
	}
	rack, aside, err := w.Rack(ctx, false)
	require.NoError(t, err)
	require.Len(t, rack, 12)
	assert.Empty(t, aside)
	for _, s := range rack {
		if s.Doc.Name != "Yard bar" {
			assert.Empty(t, s.History, s.Doc.Name)
			continue
		}
		require.Len(t, s.History, 1)
		assert.Equal(t, "Rigging knife", s.History[0].Name)
		assert.InDelta(t, 108.1, s.History[0].LengthMm, .1)
		assert.Equal(t, 2026, s.History[0].At.Year())
	}
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	assert.Len(t, patterns, 14)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	assert.Len(t, shop.Doc.Smiths, 2)
	require.NoError(t, w.Ensure(ctx))
	again, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	assert.Len(t, again, 14, "no second set of patterns to start from")
}

// TestWhatCannotBeReadIsSetAside: one row of a newer version, one that is broken, in
// every list; the rest can be used, and both are left as they are.
func TestWhatCannotBeReadIsSetAside(t *testing.T) {
	ctx := context.Background()
	file := filepath.Join(t.TempDir(), "shop.db")
	st, err := store.Open(ctx, file, nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	w := work.New(st, time.Now, work.RandomID)
	require.NoError(t, w.Ensure(ctx))
	now := time.Now()
	require.NoError(t, st.Write(ctx, func(tx store.Tx) error {
		for id, text := range map[string]string{"newer": `{"docVersion":99,"name":"x"}`, "broken": `{"name":`} {
			if err := tx.AddStock(store.StockItem{ID: id, Doc: text, Version: 1, CreatedAt: now, UpdatedAt: now}); err != nil {
				return err
			}
			if err := tx.AddPiece(store.Piece{ID: id, Doc: text, Summary: "{", Version: 1, Cursor: 1, CreatedAt: now, UpdatedAt: now}, ""); err != nil {
				return err
			}
			if err := tx.AddPattern(store.Pattern{ID: id, Name: id, Head: 1, Version: 1, CreatedAt: now, UpdatedAt: now}, text); err != nil {
				return err
			}
		}
		return nil
	}))
	want := []work.Unreadable{{ID: "broken"}, {ID: "newer", Newer: true}}
	_, aside, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	assert.ElementsMatch(t, want, aside)
	_, aside, err = w.Rack(ctx, false)
	require.NoError(t, err)
	assert.ElementsMatch(t, want, aside)
	patterns, aside, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	assert.ElementsMatch(t, want, aside)
	assert.NotEmpty(t, patterns)

	var newer *doc.NewerError
	_, _, err = w.SavePiece(ctx, "newer", 1, []edit.Edit{{Field: "name", Text: "mine now"}})
	require.ErrorAs(t, err, &newer)
	_, err = w.EditStock(ctx, "newer", 1, []edit.Edit{{Field: "name", Text: "mine now"}})
	require.ErrorAs(t, err, &newer)
	_, err = w.EditPattern(ctx, "newer", 1, []edit.Edit{{Field: "name", Text: "mine now"}})
	require.ErrorAs(t, err, &newer)
	require.NoError(t, st.Read(ctx, func(tx store.Tx) error {
		row, err := tx.StockItem("newer")
		assert.True(t, strings.HasPrefix(row.Doc, `{"docVersion":99`))
		return err
	}))
}

// TestSavesAreHeard by whoever listens, and by nobody who has stopped.
func TestSavesAreHeard(t *testing.T) {
	w, _ := fresh(t)
	events, stop := w.Listen()
	p := start(t, w)
	kinds := []string{}
	for len(events) > 0 {
		e := <-events
		kinds = append(kinds, e.Kind)
		if e.Kind == "piece" {
			assert.Equal(t, work.Event{Kind: "piece", ID: p.ID, Version: 1}, e)
		}
	}
	assert.Equal(t, []string{"stock", "piece"}, kinds)
	_, err := w.ArchivePiece(context.Background(), p.ID, true)
	require.NoError(t, err)
	assert.Equal(t, work.Event{Kind: "piece", ID: p.ID, Version: 2}, <-events)
	stop()
	_, err = w.ArchivePiece(context.Background(), p.ID, false)
	require.NoError(t, err)
	assert.Empty(t, events)
}
