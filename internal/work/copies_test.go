package work_test

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func shopWith(t *testing.T, w *work.Work, field, text string) {
	t.Helper()
	s, err := w.Shop(ctx)
	require.NoError(t, err)
	_, err = w.EditShop(ctx, s.Version, typed(field, text))
	require.NoError(t, err)
}

// TestACopyIsPutBack: with everything that was in it, and what was there meanwhile can be
// had again the same way.
func TestACopyIsPutBack(t *testing.T) {
	w, c := fresh(t)
	heard, stop := w.Listen()
	defer stop()
	p := start(t, w)
	name, err := w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	c.later(time.Minute)
	later := start(t, w)
	all, err := w.Copies(ctx)
	require.NoError(t, err)
	require.Len(t, all.Items, 1)
	assert.Equal(t, name, all.Items[0].Name)
	assert.Equal(t, work.ByHand, all.Items[0].Why)
	assert.Equal(t, 1, all.Items[0].About.Pieces)
	info, err := os.Stat(filepath.Join(all.Folder, name))
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "nobody else's to read")

	kept, err := w.PutBack(ctx, name)
	require.NoError(t, err)
	q, err := w.Piece(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Doc, q.Doc)
	_, err = w.Piece(ctx, later.ID)
	require.ErrorIs(t, err, work.ErrNotFound, "it was made after the copy")
	last := work.Event{}
	for len(heard) > 0 {
		last = <-heard
	}
	assert.Equal(t, "all", last.Kind, "every window looks again")

	_, err = w.PutBack(ctx, kept)
	require.NoError(t, err)
	_, err = w.Piece(ctx, later.ID)
	require.NoError(t, err, "and it is there again")
	_, err = w.PutBack(ctx, "../../elsewhere.db")
	require.ErrorIs(t, err, work.ErrNotFound)
}

// TestACopyADayOfUse, no more, none of a day without use; the oldest go, and those made
// by hand stay.
func TestACopyADayOfUse(t *testing.T) {
	w, c := fresh(t)
	shopWith(t, w, "copies.keep", "3")
	byHand, err := w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	made := func() bool {
		t.Helper()
		c.later(time.Hour)
		ok, err := w.CopyDaily(ctx)
		require.NoError(t, err)
		return ok
	}
	assert.False(t, made(), "nothing was saved since the last one")
	for day := range 5 {
		start(t, w)
		assert.True(t, made(), "day %d", day)
		start(t, w)
		assert.False(t, made(), "the second of day %d", day)
		c.later(24 * time.Hour)
	}
	all, err := w.Copies(ctx)
	require.NoError(t, err)
	require.Len(t, all.Items, 4)
	assert.Equal(t, byHand, all.Items[3].Name)
	assert.Equal(t, 9, all.Items[0].About.Pieces)
}

// TestAFolderForCopies is looked at where it is typed, and one that has gone is told.
func TestAFolderForCopies(t *testing.T) {
	w, _ := fresh(t)
	s, err := w.Shop(ctx)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	for text, code := range map[string]string{"copies": "field.folderWhole", file: "fault.noFolder", filepath.Join(file, "x"): "fault.noFolder"} {
		_, err := w.EditShop(ctx, s.Version, typed("copies.folder", text))
		assert.Equal(t, code, fields(t, err)["copies.folder"].Code, text)
	}
	for _, keep := range []string{"0", "-3", "1e9", "some"} {
		_, err := w.EditShop(ctx, s.Version, typed("copies.keep", keep))
		var inv *edit.InvalidError
		require.ErrorAs(t, err, &inv, keep)
	}
	folder := filepath.Join(t.TempDir(), "a", "b")
	shopWith(t, w, "copies.folder", folder)
	name, err := w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	require.FileExists(t, filepath.Join(folder, name))

	require.NoError(t, os.RemoveAll(folder))
	require.NoError(t, os.WriteFile(folder, nil, 0o600))
	start(t, w)
	_, err = w.CopyDaily(ctx)
	var f *work.Fault
	require.ErrorAs(t, err, &f)
	require.NoError(t, os.Remove(folder))
	all, err := w.Copies(ctx)
	require.NoError(t, err)
	require.NotNil(t, all.Failed, "that none was made is shown")
	_, err = w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	all, err = w.Copies(ctx)
	require.NoError(t, err)
	assert.Nil(t, all.Failed)
}

// TestWhatIsNoCopyIsNotPutBack: half a file, or another program's, says what it is.
func TestWhatIsNoCopyIsNotPutBack(t *testing.T) {
	w, c := fresh(t)
	p := start(t, w)
	name, err := w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	c.later(time.Hour)
	other, err := w.CopyNow(ctx, work.ByHand)
	require.NoError(t, err)
	all, err := w.Copies(ctx)
	require.NoError(t, err)
	whole, err := os.ReadFile(filepath.Join(all.Folder, name))
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(all.Folder, name), whole[:len(whole)/2], 0o600))
	require.NoError(t, os.WriteFile(filepath.Join(all.Folder, other), []byte("a letter to an aunt"), 0o600))
	for file, code := range map[string]store.FaultCode{name: store.Damaged, other: store.NotOurs} {
		_, err := w.PutBack(ctx, file)
		var f *work.Fault
		require.ErrorAs(t, err, &f, file)
		assert.Equal(t, code, f.Code)
	}
	_, err = w.Piece(ctx, p.ID)
	require.NoError(t, err, "what is there stays")
}
