package work_test

import (
	"archive/zip"
	"bytes"
	"io"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func packed(t *testing.T, w *work.Work) []byte {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, w.Pack(ctx, &b))
	return b.Bytes()
}

// inside is the text of a file in a ZIP.
func inside(t *testing.T, data []byte, name string) string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	f, err := z.Open(name)
	require.NoError(t, err)
	text, err := io.ReadAll(f)
	require.NoError(t, err)
	return string(text)
}

// shopFile is the text in an archive; changed puts another in its place.
func shopFile(t *testing.T, data []byte) string { return inside(t, data, "shop.json") }

func changed(t *testing.T, text string) []byte {
	t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	f, err := z.Create("shop.json")
	require.NoError(t, err)
	_, err = f.Write([]byte(text))
	require.NoError(t, err)
	require.NoError(t, z.Close())
	return b.Bytes()
}

// TestAWholeShopGoesOutAndIn: documents, history, cuts and pictures, and what comes out again
// is the same.
func TestAWholeShopGoesOutAndIn(t *testing.T) {
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	all, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	p, _, err := w.AddPicture(ctx, all[0].ID, all[0].Version, photo(t, 60, 20))
	require.NoError(t, err)
	out := packed(t, w)

	other, _ := fresh(t)
	mine := start(t, other)
	kept, err := other.Unpack(ctx, out)
	require.NoError(t, err)
	_, err = other.Piece(ctx, mine.ID)
	require.ErrorIs(t, err, work.ErrNotFound, "it took the place of what was there,")
	copies, err := other.Copies(ctx)
	require.NoError(t, err)
	assert.Equal(t, kept, copies.Items[0].Name, "which was copied first")
	for _, was := range all {
		q, err := other.Piece(ctx, was.ID)
		require.NoError(t, err)
		assert.Equal(t, was.Doc.Request, q.Doc.Request)
		assert.Equal(t, was.Summary, q.Summary)
	}
	data, _, err := other.PictureData(ctx, p.Doc.Picture.ID)
	require.NoError(t, err)
	assert.NotEmpty(t, data)
	_, _, err = other.Undo(ctx, p.ID, p.Version, -1)
	require.NoError(t, err, "the history came along")

	third, _ := fresh(t)
	_, err = third.Unpack(ctx, out)
	require.NoError(t, err)
	strip := func(text string) string { _, rest, _ := strings.Cut(text, `"shop":`); return rest }
	assert.Equal(t, strip(shopFile(t, out)), strip(shopFile(t, packed(t, third))), "out, in and out again is the same")
}

// TestWhatCannotBeDoesNotComeIn by an archive either, and nothing is changed by it.
func TestWhatCannotBeDoesNotComeIn(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	text := shopFile(t, packed(t, w))
	for what, data := range map[string][]byte{
		"no ZIP":             []byte("no archive"),
		"half a ZIP":         packed(t, w)[:300],
		"another format":     changed(t, strings.Replace(text, work.ArchiveFormat, "another", 1)),
		"a newer version":    changed(t, strings.Replace(text, `"version": 1`, `"version": 2`, 1)),
		"a newer document":   changed(t, strings.ReplaceAll(text, `"docVersion": 4`, `"docVersion": 99`)),
		"a length":           changed(t, strings.ReplaceAll(text, `"lengthMm": 1000`, `"lengthMm": 1e307`)),
		"a choice":           changed(t, strings.ReplaceAll(text, `"pinchOut"`, `"banana"`)),
		"an id":              changed(t, strings.ReplaceAll(text, p.ID, "../"+p.ID)),
		"a history without":  changed(t, strings.ReplaceAll(text, `"cursor": 1`, `"cursor": 7`)),
		"the same one twice": changed(t, strings.Replace(text, `"pieces": [`, `"pieces": [{"id":"`+p.ID+`"},`, 1)),
		"nothing":            changed(t, "{}"),
	} {
		_, err := w.Unpack(ctx, data)
		var inv *edit.InvalidError
		require.ErrorAs(t, err, &inv, what)
		code := "archive.wrong"
		if what == "another format" || what == "a newer version" || what == "nothing" {
			code = "archive.form"
		}
		assert.Equal(t, code, inv.Fields[0].Code, what)
	}
	q, err := w.Piece(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Doc, q.Doc)
	copies, err := w.Copies(ctx)
	require.NoError(t, err)
	assert.Empty(t, copies.Items)
}
