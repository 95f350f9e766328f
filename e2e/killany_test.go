package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"math/rand/v2"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"coldember/internal/demo"
	"coldember/internal/store"
	"coldember/internal/store/storetest"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// kills is how often the program is killed; more where there is time.
func kills(short int) int {
	if os.Getenv("ABUSE") == "long" {
		return 20 * short
	}
	return short
}

// killed runs the program and ends it, with the signal that cannot be caught, within ms.
func killed(t *testing.T, within time.Duration, args ...string) {
	t.Helper()
	cmd := exec.Command("../bin/coldember", args...)
	require.NoError(t, cmd.Start())
	time.Sleep(rand.N(within)) //nolint:gosec // any moment will do
	_ = cmd.Process.Kill()
	_ = cmd.Wait()
}

// TestKilledAtTheFirstStart there are all the starters at the next, or none yet; never some.
func TestKilledAtTheFirstStart(t *testing.T) {
	for range kills(4) {
		data := filepath.Join(t.TempDir(), "own.db")
		killed(t, 250*time.Millisecond, "serve", "--addr", "127.0.0.1:0", "--data", data)
		st, err := store.Open(t.Context(), data, nil)
		require.NoError(t, err, "it opens")
		w := work.New(st, time.Now, work.RandomID)
		all, _, err := w.Patterns(t.Context(), false)
		require.NoError(t, err)
		assert.Contains(t, []int{0, 26}, len(all))
		require.NoError(t, w.Ensure(t.Context()))
		all, _, err = w.Patterns(t.Context(), false)
		require.NoError(t, err)
		assert.Len(t, all, 26)
		require.NoError(t, st.Close())
	}
}

// TestKilledWhileItCopies: a copy is whole or not there; a file that was to be replaced is
// what it was, or what it was to be.
func TestKilledWhileItCopies(t *testing.T) {
	dir := t.TempDir()
	full, data := filepath.Join(dir, "full.db"), filepath.Join(dir, "data.db")
	build := func(file string, prepare func(context.Context, *store.Store) error) {
		st, err := store.Open(t.Context(), file, nil)
		require.NoError(t, err)
		require.NoError(t, prepare(t.Context(), st))
		require.NoError(t, st.Close())
	}
	build(full, buildDemo)
	build(data, func(ctx context.Context, st *store.Store) error {
		return work.New(st, time.Now, work.RandomID).Ensure(ctx)
	})
	const demoPieces = 20 // eleven older ones are off the list
	seen := map[int]bool{}
	for i := range kills(6) {
		copied := filepath.Join(dir, "copy.db")
		killed(t, 150*time.Millisecond, "backup", copied, "--data", full)
		if _, err := os.Stat(copied); err == nil {
			require.NoError(t, store.Check(t.Context(), copied))
			about, err := store.Look(t.Context(), copied)
			require.NoError(t, err)
			assert.Equal(t, demoPieces, about.Pieces)
			require.NoError(t, os.Remove(copied))
		}
		killed(t, 250*time.Millisecond, "restore", full, "--data", data)
		require.NoError(t, store.Check(t.Context(), data), "kill %d", i)
		about, err := store.Look(t.Context(), data)
		require.NoError(t, err)
		assert.Contains(t, []int{0, demoPieces}, about.Pieces)
		seen[about.Pieces] = true
	}
	t.Logf("pieces afterwards: %v of %s", seen, demo.Rigging)
}

// TestKilledWhileCutsAreMade: a cut that was acknowledged is made, and is off its bar; none
// is made twice.
func TestKilledWhileCutsAreMade(t *testing.T) {
	for range kills(2) {
		data := filepath.Join(t.TempDir(), "demo.db")
		cmd, base, client := startBinary(t, "demo", "--data", data)
		send := func(method, path string, body any, out any) bool {
			raw, err := json.Marshal(body)
			require.NoError(t, err)
			req, err := http.NewRequest(method, base+"/api/v1"+path, bytes.NewReader(raw))
			require.NoError(t, err)
			req.Header.Set("Content-Type", "application/json")
			res, err := client.Do(req)
			if err != nil {
				return false // killed
			}
			defer func() { _ = res.Body.Close() }()
			return res.StatusCode == http.StatusOK && json.NewDecoder(res.Body).Decode(out) == nil
		}
		type made struct{ Role, State, StockID string }
		var all struct{ Items []struct{ ID string } }
		require.True(t, send("GET", "/pieces", nil, &all))
		go func() {
			time.Sleep(rand.N(120 * time.Millisecond)) //nolint:gosec // any moment will do
			_ = cmd.Process.Kill()
		}()
		acknowledged := map[string]bool{}
		for _, p := range all.Items {
			for _, state := range []string{"booked", "made"} {
				var cuts []made
				if send("POST", "/pieces/"+p.ID+"/cuts/body", map[string]any{"state": state}, &cuts) && state == "made" {
					acknowledged[p.ID] = true
				}
			}
		}
		_ = cmd.Wait()
		st, err := store.Open(t.Context(), data, nil)
		require.NoError(t, err)
		w := work.New(st, time.Now, work.RandomID)
		off := map[string]int{}
		for _, archived := range []bool{false, true} {
			rack, aside, err := w.Rack(t.Context(), archived)
			require.NoError(t, err)
			require.Empty(t, aside)
			for _, s := range rack {
				for _, h := range s.History {
					off[h.PieceID]++
				}
			}
		}
		for _, p := range all.Items {
			cuts, err := w.Cuts(t.Context(), p.ID)
			require.NoError(t, err)
			for _, c := range cuts {
				if c.State == work.CutMadeNow {
					assert.Equal(t, 1, off[p.ID], "a made cut is off its bar, once")
				} else {
					assert.Zero(t, off[p.ID])
					assert.False(t, acknowledged[p.ID], "an acknowledged cut is lost")
				}
			}
		}
		require.NoError(t, st.Close())
	}
}

// TestKilledWhileItIsBroughtUpToDate: a file of the first version is still one, or is of
// the present, with all that was in it.
func TestKilledWhileItIsBroughtUpToDate(t *testing.T) {
	raw := storetest.First(t)
	first := filepath.Join(t.TempDir(), "first.db")
	require.NoError(t, os.WriteFile(first, raw, 0o600))
	was, err := store.Look(t.Context(), first)
	require.NoError(t, err)
	for range kills(4) {
		data := filepath.Join(t.TempDir(), "old.db")
		require.NoError(t, os.WriteFile(data, raw, 0o600))
		killed(t, 200*time.Millisecond, "serve", "--addr", "127.0.0.1:0", "--data", data)
		st, err := store.Open(t.Context(), data, nil)
		require.NoError(t, err)
		require.NoError(t, st.Close())
		about, err := store.Look(t.Context(), data)
		require.NoError(t, err)
		assert.Equal(t, store.NewestForm, about.Form)
		assert.Equal(t, [3]int{was.Pieces, was.Patterns, was.Items}, [3]int{about.Pieces, about.Patterns, about.Items})
	}
}
