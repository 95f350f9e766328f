package work_test

import (
	"context"
	"fmt"
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

// TestOldStepsAreThinnedByAge: the last 300 stay, of those before the last of a day, and
// of those before the last of a month; undo goes over what is left.
func TestOldStepsAreThinnedByAge(t *testing.T) {
	w, c := fresh(t)
	p := start(t, w)
	edit := func(n int) {
		var err error
		p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("notes", fmt.Sprintf("note %d", n)))
		require.NoError(t, err)
		c.later(time.Minute)
	}
	n := 0
	for range 4 { // four days of five steps, long ago
		for range 5 {
			n++
			edit(n)
		}
		c.later(24 * time.Hour)
	}
	c.later(420 * 24 * time.Hour)
	for range 2 { // and two of five
		for range 5 {
			n++
			edit(n)
		}
		c.later(24 * time.Hour)
	}
	for range 300 {
		n++
		edit(n)
	}
	var notes []string
	for p.CanUndo {
		var err error
		p, _, err = w.Undo(ctx, p.ID, p.Version, -1)
		require.NoError(t, err)
		notes = append(notes, p.Doc.Notes)
	}
	require.Len(t, notes, 299+2+1, "the last 300, one of each of two days, one of the month")
	assert.Equal(t, []string{"note 31", "note 30", "note 25", "note 20"}, notes[298:])
	for p.CanRedo {
		var err error
		p, _, err = w.Undo(ctx, p.ID, p.Version, 1)
		require.NoError(t, err)
	}
	assert.Equal(t, fmt.Sprintf("note %d", n), p.Doc.Notes, "and all the way back")
}

// TestAnHourThatComesTwice, when summer time ends: what was done in it stays in its order,
// and no two edits of it are taken for one.
func TestAnHourThatComesTwice(t *testing.T) {
	w, c := fresh(t)
	summer, winter := time.FixedZone("summer", 2*3600), time.FixedZone("winter", 3600)
	c.at = time.Date(2026, 10, 25, 2, 30, 0, 0, summer)
	p := start(t, w)
	p, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("notes", "first"))
	require.NoError(t, err)
	made, err := w.CopyDaily(ctx)
	require.NoError(t, err)
	require.True(t, made)
	c.at = time.Date(2026, 10, 25, 2, 10, 0, 0, winter) // forty minutes later
	other := start(t, w)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("notes", "second"))
	require.NoError(t, err)
	made, err = w.CopyDaily(ctx)
	require.NoError(t, err)
	assert.False(t, made, "it is still the same day")
	_, err = w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	all, err := w.Copies(ctx)
	require.NoError(t, err)
	require.Len(t, all.Items, 2)
	assert.Equal(t, work.ByHand, all.Items[0].Why, "the newest first")
	assert.InDelta(t, 40, all.Items[0].At.Sub(all.Items[1].At).Minutes(), .1)
	list, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	assert.Equal(t, []string{p.ID, other.ID}, []string{list[0].ID, list[1].ID}, "what was touched last comes first")
	p, _, err = w.Undo(ctx, p.ID, p.Version, -1)
	require.NoError(t, err)
	assert.Equal(t, "first", p.Doc.Notes)
	c.at = time.Date(2026, 10, 26, 0, 10, 0, 0, winter)
	_, _, err = w.SavePiece(ctx, other.ID, other.Version, typed("notes", "next day"))
	require.NoError(t, err)
	made, err = w.CopyDaily(ctx)
	require.NoError(t, err)
	assert.True(t, made, "the next day by the smith's clock, though not by the world's")
}
