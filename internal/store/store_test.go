package store_test

import (
	"context"
	"database/sql"
	"encoding/binary"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"coldember/internal/store"
	"coldember/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var now = time.Date(2026, 5, 1, 9, 0, 0, 0, time.UTC)

func open(t *testing.T, file string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), file, nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func code(t *testing.T, err error) store.FaultCode {
	t.Helper()
	var f *store.Fault
	require.ErrorAs(t, err, &f)
	return f.Code
}

// TestTheNewestFormIsTheLastMigration: the mark in a file must say what is in it.
func TestTheNewestFormIsTheLastMigration(t *testing.T) {
	all, err := filepath.Glob("migrations/*.sql")
	require.NoError(t, err)
	assert.Contains(t, all[len(all)-1], fmt.Sprintf("%05d_", store.NewestForm))
	file := filepath.Join(t.TempDir(), "a.db")
	open(t, file)
	raw, err := os.ReadFile(file)
	require.NoError(t, err)
	assert.Equal(t, "CEmb", string(raw[68:72]), "the mark of whose it is")
	assert.EqualValues(t, store.NewestForm, binary.BigEndian.Uint32(raw[60:]))
}

// TestWhatIsNotOursIsLeftAsItIs: another program's file, one of a newer version, a letter,
// a folder; each by its name, and not a byte of it is changed.
func TestWhatIsNotOursIsLeftAsItIs(t *testing.T) {
	dir := t.TempDir()
	lite := func(name string, statements ...string) string {
		file := filepath.Join(dir, name)
		db, err := sql.Open("sqlite", file)
		require.NoError(t, err)
		for _, s := range statements {
			_, err := db.ExecContext(t.Context(), s)
			require.NoError(t, err)
		}
		require.NoError(t, db.Close())
		return file
	}
	ours := filepath.Join(dir, "ours.db")
	s, err := store.Open(t.Context(), ours, nil)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	copied := func(name string, change func([]byte) []byte) string {
		raw, err := os.ReadFile(ours)
		require.NoError(t, err)
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, change(raw), 0o600))
		return file
	}
	for file, want := range map[string]store.FaultCode{
		lite("other.db", "CREATE TABLE songs (name TEXT)"):                                                             store.NotOurs,
		lite("marked.db", "PRAGMA application_id = 77; CREATE TABLE pieces (x)"):                                       store.NotOurs,
		lite("lookalike.db", "CREATE TABLE pieces (x)", "CREATE TABLE patterns (x)"):                                   store.NotOurs,
		copied("newer.db", func(b []byte) []byte { binary.BigEndian.PutUint32(b[60:], store.NewestForm+1); return b }): store.NewerFile,
		copied("half.db", func(b []byte) []byte { return b[:len(b)/2] }):                                               store.Damaged,
		copied("letter.db", func([]byte) []byte { return []byte("Dear aunt,") }):                                       store.NotOurs,
		copied("page.db", func(b []byte) []byte { copy(b[4096:], strings.Repeat("x", 4096)); return b }):               store.Damaged,
	} {
		before, err := os.ReadFile(file)
		require.NoError(t, err)
		_, err = store.Open(t.Context(), file, nil)
		assert.Equal(t, want, code(t, err), file)
		after, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.Equal(t, before, after, "%s is left as it was", file)
	}
	_, err = store.Open(t.Context(), dir, nil)
	assert.Equal(t, store.IsFolder, code(t, err))
	_, err = store.Open(t.Context(), filepath.Join(dir, "no", "such.db"), nil)
	assert.Equal(t, store.NoFolder, code(t, err))
}

// TestAFileIsNobodyElses whatever the folder lets others do.
func TestAFileIsNobodyElses(t *testing.T) {
	file := filepath.Join(t.TempDir(), "a.db")
	s := open(t, file)
	require.NoError(t, s.Write(t.Context(), func(tx store.Tx) error { return tx.PutShop(store.Shop{Doc: "{}", Version: 1, UpdatedAt: now}) }))
	all, err := filepath.Glob(file + "*")
	require.NoError(t, err)
	require.Len(t, all, 4, "the file, its log and its lock")
	for _, f := range all {
		info, err := os.Stat(f)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), f)
	}
}

// TestACopyIsWholeWhileItIsWrittenTo: two rows that are always written together are never
// found apart in a copy.
func TestACopyIsWholeWhileItIsWrittenTo(t *testing.T) {
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "live.db"))
	ctx, stop := context.WithCancel(t.Context())
	var wait sync.WaitGroup
	wait.Go(func() {
		for n := 1; ctx.Err() == nil; n++ {
			_ = s.Write(ctx, func(tx store.Tx) error {
				id, at := fmt.Sprintf("p%d", n), now.Add(time.Duration(n)*time.Second)
				if err := tx.PutShop(store.Shop{Doc: id, Version: n, UpdatedAt: at}); err != nil {
					return err
				}
				return tx.AddStock(store.StockItem{ID: id, Doc: strings.Repeat("x", 2000), Version: 1, CreatedAt: at, UpdatedAt: at})
			})
		}
	})
	copies := 12
	if os.Getenv("ABUSE") == "long" {
		copies = 200
	}
	for i := range copies {
		file := filepath.Join(dir, fmt.Sprintf("copy%d.db", i))
		require.NoError(t, s.Backup(t.Context(), file))
		require.NoError(t, store.Check(t.Context(), file))
		c := open(t, file)
		require.NoError(t, c.Read(t.Context(), func(tx store.Tx) error {
			shop, ok, err := tx.Shop()
			require.NoError(t, err)
			if !ok {
				return nil
			}
			_, err = tx.StockItem(shop.Doc)
			assert.NoError(t, err, "copy %d has half of a write", i)
			return nil
		}))
	}
	stop()
	wait.Wait()
}

// TestACopyCutShortIsNone: whoever ends it leaves nothing of it behind, and no file is
// written over.
func TestACopyCutShortIsNone(t *testing.T) {
	dir := t.TempDir()
	s := open(t, filepath.Join(dir, "live.db"))
	ctx, stop := context.WithCancel(t.Context())
	stop()
	require.Error(t, s.Backup(ctx, filepath.Join(dir, "c.db")))
	left, err := filepath.Glob(filepath.Join(dir, "c.db*"))
	require.NoError(t, err)
	assert.Empty(t, left)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "c.db"), []byte("mine"), 0o600))
	assert.Equal(t, store.Exists, code(t, s.Backup(t.Context(), filepath.Join(dir, "c.db"))))
	assert.Equal(t, store.NoFolder, code(t, s.Backup(t.Context(), filepath.Join(dir, "no", "c.db"))))
	raw, err := os.ReadFile(filepath.Join(dir, "c.db"))
	require.NoError(t, err)
	assert.Equal(t, "mine", string(raw))
}

// TestBeforeAnOlderFileIsChanged what was in it is copied, and where that cannot be, it is
// not changed.
func TestBeforeAnOlderFileIsChanged(t *testing.T) {
	raw := storetest.First(t)
	dir := t.TempDir()
	file, copied := filepath.Join(dir, "old.db"), filepath.Join(dir, "copy.db")
	require.NoError(t, os.WriteFile(file, raw, 0o600))
	_, err := store.Open(t.Context(), file, func(context.Context, *store.Store) error { return &store.Fault{Code: store.DiskFull, Path: copied} })
	assert.Equal(t, store.DiskFull, code(t, err))
	about, err := store.Look(t.Context(), file)
	require.NoError(t, err)
	assert.Less(t, about.Form, store.NewestForm, "still as it was")

	s, err := store.Open(t.Context(), file, func(ctx context.Context, s *store.Store) error { return s.Backup(ctx, copied) })
	require.NoError(t, err)
	require.NoError(t, s.Close())
	old, err := store.Look(t.Context(), copied)
	require.NoError(t, err)
	assert.Equal(t, about.Form, old.Form)
	assert.Equal(t, about.Pieces, old.Pieces)
	about, err = store.Look(t.Context(), file)
	require.NoError(t, err)
	assert.Equal(t, store.NewestForm, about.Form)
}

// TestOnlyLoosePicturesGo: those that no document names.
func TestOnlyLoosePicturesGo(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	require.NoError(t, s.Write(t.Context(), func(tx store.Tx) error {
		for _, id := range []string{"inpiece", "instep", "inpattern", "loose"} {
			require.NoError(t, tx.KeepPicture(store.Picture{ID: id, Mime: "image/png", Data: []byte{1}, CreatedAt: now}))
		}
		require.NoError(t, tx.AddPiece(store.Piece{ID: "p", Doc: `{"picture":"inpiece"}`, Summary: "{}", Version: 1, CreatedAt: now, UpdatedAt: now}, "x"))
		require.NoError(t, tx.PutPieceEdit(store.PieceEdit{PieceID: "p", Seq: 9, Doc: `{"picture":"instep"}`, CreatedAt: now}, 300))
		return tx.AddPattern(store.Pattern{ID: "q", Name: "q", Head: 1, Version: 1, CreatedAt: now, UpdatedAt: now}, `{"picture":"inpattern"}`)
	}))
	require.NoError(t, s.Write(t.Context(), func(tx store.Tx) error {
		n, err := tx.RemoveLoosePictures(time.Now().Add(time.Hour))
		require.NoError(t, err)
		assert.Equal(t, 1, n)
		_, err = tx.Picture("loose")
		assert.ErrorIs(t, err, store.ErrNotFound)
		for _, id := range []string{"inpiece", "instep", "inpattern"} {
			_, err = tx.Picture(id)
			assert.NoError(t, err, id)
		}
		return nil
	}))
}

// TestAPatternKeepsItsFirstAndItsLast revisions.
func TestAPatternKeepsItsFirstAndItsLast(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "a.db"))
	p := store.Pattern{ID: "q", Name: "q", Head: 1, Version: 1, CreatedAt: now, UpdatedAt: now}
	require.NoError(t, s.Write(t.Context(), func(tx store.Tx) error {
		require.NoError(t, tx.AddPattern(p, "first"))
		for range store.KeptRevisions + 20 {
			ok, err := tx.RevisePattern(p, "q", now, fmt.Sprint(p.Head+1))
			require.NoError(t, err)
			require.True(t, ok)
			p.Head, p.Version = p.Head+1, p.Version+1
		}
		all, err := tx.PatternRevisions("q")
		require.NoError(t, err)
		require.Len(t, all, store.KeptRevisions+1)
		assert.Equal(t, "first", all[len(all)-1].Doc)
		assert.Equal(t, fmt.Sprint(p.Head), all[0].Doc)
		return nil
	}))
}
