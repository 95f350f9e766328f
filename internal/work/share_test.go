package work_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"io"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"coldember/core/learn"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// yard is the demonstration's shop, and its piece of this name.
func yard(t *testing.T, name string) (*work.Work, work.Piece) {
	t.Helper()
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	all, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	i := slices.IndexFunc(all, func(p work.Piece) bool { return p.Doc.Name == name })
	require.GreaterOrEqual(t, i, 0)
	return w, all[i]
}

func shared(t *testing.T, w *work.Work, id string) []byte {
	t.Helper()
	var b bytes.Buffer
	require.NoError(t, w.Share(ctx, id, []byte("{}"), &b))
	return b.Bytes()
}

// resealed is a ZIP with its piece.json changed.
func resealed(t *testing.T, data []byte, change func(string) string, more map[string]string) []byte {
	t.Helper()
	in, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	put := func(name string, text []byte) {
		f, err := z.Create(name)
		require.NoError(t, err)
		_, err = f.Write(text)
		require.NoError(t, err)
	}
	for _, f := range in.File {
		r, err := f.Open()
		require.NoError(t, err)
		text, err := io.ReadAll(r)
		require.NoError(t, err)
		if f.Name == "piece.json" {
			text = []byte(change(string(text)))
		}
		put(f.Name, text)
	}
	for name, text := range more {
		put(name, []byte(text))
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

// TestAPieceGoesToAnotherShop whole, twice, without touching what is there; what is the yard's own stays there, and the log
// teaches the other shop nothing.
func TestAPieceGoesToAnotherShop(t *testing.T) {
	w, p := yard(t, demo.Rigging)
	p, _, err := w.AddPicture(ctx, p.ID, p.Version, photo(t, 60, 20))
	require.NoError(t, err)
	file := shared(t, w, p.ID)
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	assert.Subset(t, names, []string{"piece.json", "plan.json", "piece.schema.json", "pictures/" + p.Doc.Picture.ID + ".png"})
	bars, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	own := slices.IndexFunc(bars, func(s work.Stock) bool { return s.ID == p.Doc.StockID })
	require.GreaterOrEqual(t, own, 0)
	assert.NotContains(t, string(file), `"place":"`)

	other, _ := fresh(t)
	mine := start(t, other)
	before, err := other.AllFires(ctx)
	require.NoError(t, err)
	for n, name := range []string{demo.Rigging, demo.Rigging + " 2"} {
		q, err := other.TakeShared(ctx, file)
		require.NoError(t, err)
		assert.Equal(t, name, q.Doc.Name)
		assert.NotEqual(t, p.ID, q.ID)
		assert.NotEqual(t, p.Doc.StockID, q.Doc.StockID)
		want := p.Doc.Request
		assert.Equal(t, want.Design, q.Doc.Request.Design)
		assert.InDelta(t, p.Summary.CutLengthMm, q.Summary.CutLengthMm, 1e-9)
		_, mime, err := other.PictureData(ctx, q.Doc.Picture.ID)
		require.NoError(t, err)
		assert.Equal(t, "image/png", mime)
		is, err := other.FireOf(ctx, q.ID)
		require.NoError(t, err)
		was, err := w.FireOf(ctx, p.ID)
		require.NoError(t, err)
		assert.NotEqual(t, was.ID, is.ID)
		_, b, err := other.BookOf(ctx, is.ID)
		require.NoError(t, err)
		_, a, err := w.BookOf(ctx, was.ID)
		require.NoError(t, err)
		assert.Equal(t, a.Totals, b.Totals, "the book came along")
		_, _, err = other.Undo(ctx, q.ID, q.Version, -1)
		require.NoError(t, err, "and the history")
		after, err := other.AllFires(ctx)
		require.NoError(t, err)
		assert.Greater(t, len(after), len(before)+n)
	}
	rack, _, err := other.Rack(ctx, false)
	require.NoError(t, err)
	assert.Len(t, rack, 1, "another's steel lies elsewhere")
	still, err := other.Piece(ctx, mine.ID)
	require.NoError(t, err)
	assert.Equal(t, mine.Version, still.Version)
	said, err := other.Said(ctx)
	require.NoError(t, err)
	assert.Empty(t, said.Habits, "nor tell of hands")
	assert.False(t, slices.ContainsFunc(said.Learned, func(l learn.Lesson) bool { return l.N > 0 }), "another's arm, fire and steel teach nothing here")
	patterns, _, err := other.Patterns(ctx, false)
	require.NoError(t, err)
	again, _, err := other.Patterns(ctx, true)
	require.NoError(t, err)
	assert.LessOrEqual(t, len(patterns)+len(again), 27, "its pattern is there once")
}

// TestASharedFileIsReadSafely: what cannot be is refused at its place and changes nothing; what else lies in the file is never
// opened.
func TestASharedFileIsReadSafely(t *testing.T) {
	w, p := yard(t, demo.Rigging)
	file := shared(t, w, p.ID)
	other, _ := fresh(t)
	same := func(s string) string { return s }
	sub := func(old, is string) func(string) string {
		return func(s string) string { return strings.ReplaceAll(s, old, is) }
	}
	for what, data := range map[string][]byte{
		"no ZIP":            []byte("no archive"),
		"half":              file[:len(file)/2],
		"another format":    resealed(t, file, sub(work.SharedFormat, "another"), nil),
		"a newer version":   resealed(t, file, sub("\n \"version\": 1", "\n \"version\": 2"), nil),
		"no JSON":           resealed(t, file, func(string) string { return "{" }, nil),
		"a path for an id":  resealed(t, file, sub(`"`+p.ID+`"`, `"../../etc"`), nil),
		"a hostile figure":  resealed(t, file, sub(`"lengthMm": 86`, `"lengthMm": 1e300`), nil),
		"no picture":        resealed(t, file, same, map[string]string{"pictures/0123456789abcdef01234567.png": "<svg onload='x'/>"}),
		"a picture's path":  resealed(t, file, same, map[string]string{"pictures/..%2f..%2fx.png": "x"}),
		"a shop of all":     packed(t, w),
		"a missing history": resealed(t, file, func(s string) string { return strings.Replace(s, `"cursor": `, `"cursor": 9`, 1) }, nil),
	} {
		_, err := other.TakeShared(ctx, data)
		var inv *edit.InvalidError
		require.ErrorAs(t, err, &inv, what)
	}
	all, _, err := other.Pieces(ctx, false)
	require.NoError(t, err)
	assert.Empty(t, all, "nothing came in")
	q, err := other.TakeShared(ctx, resealed(t, file, same, map[string]string{"../../evil.sh": "rm", "/etc/passwd": "x", "run.js": "x"}))
	require.NoError(t, err, "what else is in it is left alone")
	assert.NotEmpty(t, q.ID)
	var s work.Shared
	require.NoError(t, json.Unmarshal([]byte(strings.TrimSpace(inside(t, file, "piece.json"))), &s))
	assert.Equal(t, work.SharedVersion, s.Version)
}
