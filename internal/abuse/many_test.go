package abuse

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTenWritersOneWinner: of ten who save on the same state one does, and the others are
// told what is there now.
func TestTenWritersOneWinner(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	kinds := writes(x)
	delete(kinds, "a new piece")
	delete(kinds, "a copy of one")
	delete(kinds, "a copy")
	delete(kinds, "archiving") // one after the other may both be right
	delete(kinds, "the fire")  // what happened there is only added
	for what, do := range kinds {
		var wait sync.WaitGroup
		var won, late atomic.Int32
		for range 10 {
			wait.Go(func() {
				switch status, answer := do(); status {
				case http.StatusOK:
					won.Add(1)
				case http.StatusConflict:
					late.Add(1)
					assert.Contains(t, string(answer), `"current"`, what)
				default:
					t.Errorf("%s: %d %s", what, status, answer)
				}
			})
		}
		wait.Wait()
		assert.EqualValues(t, 1, won.Load(), what)
		assert.EqualValues(t, 9, late.Load(), what)
	}
}

// TestTenScreensTellAtOnce: whatever they tell of one session is kept, each once, and counted
// without a gap.
func TestTenScreensTellAtOnce(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	fires, err := x.work.AllFires(t.Context())
	require.NoError(t, err)
	before, err := x.work.Happened(t.Context(), fires[0].ID, 0)
	require.NoError(t, err)
	var wait sync.WaitGroup
	for screen := range 10 {
		wait.Go(func() {
			for n := range 20 {
				e := session.Event{ID: fmt.Sprintf("s%d-%d", screen, n), Device: fmt.Sprintf("s%d", screen), Seq: n + 1, AtMs: 1_764_000_000_000, Kind: session.Out}
				for range 2 { // a lost answer is asked for again
					raw, err := json.Marshal(map[string]any{"nowMs": 0, "events": []session.Event{e}})
					assert.NoError(t, err)
					status, answer, _ := x.call("POST", "/api/v1/sessions/"+fires[0].ID+"/events", "application/json", raw)
					assert.Equal(t, http.StatusOK, status, string(answer))
				}
			}
		})
	}
	wait.Wait()
	after, err := x.work.Happened(t.Context(), fires[0].ID, 0)
	require.NoError(t, err)
	assert.Len(t, after, len(before)+200)
	late, err := x.work.Happened(t.Context(), fires[0].ID, len(after)-1)
	require.NoError(t, err)
	assert.Len(t, late, 1, "counted without a gap")
}

// TestSavesDoNotWaitBehindPreviews: fifty windows ask for plans without a pause, and
// whoever saves is served at once.
func TestSavesDoNotWaitBehindPreviews(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	p := x.pieces()[0]
	ctx, stop := context.WithTimeout(t.Context(), time.Duration(times(2, 180))*time.Second)
	defer stop()
	var wait sync.WaitGroup
	var previews atomic.Int64
	for n := range 49 {
		wait.Go(func() {
			for i := 0; ctx.Err() == nil; i++ {
				raw, err := json.Marshal(map[string]any{"doc": p.Doc, "edits": []edit.Edit{{Field: "design.lengthMm", Text: fmt.Sprintf("%.3f", 86+float64(n)/10+float64(i%90)/1000)}}})
				if err != nil {
					t.Error(err)
					return
				}
				if status, answer, _ := x.call("POST", "/api/v1/plan/preview", "application/json", raw); status != http.StatusOK {
					t.Errorf("%d %.300s", status, answer)
					return
				}
				previews.Add(1)
			}
		})
	}
	var took []time.Duration
	version := p.Version
	for i := 0; ctx.Err() == nil; i++ {
		at := time.Now()
		raw, err := json.Marshal(map[string]any{"version": version, "edits": []edit.Edit{{Field: "design.lengthMm", Text: fmt.Sprint(100 + i%7)}}})
		require.NoError(t, err)
		status, answer, _ := x.call("PATCH", "/api/v1/pieces/"+p.ID, "application/json", raw)
		took = append(took, time.Since(at))
		require.Equal(t, http.StatusOK, status, string(answer))
		var a struct{ Piece struct{ Version int } }
		require.NoError(t, json.Unmarshal(answer, &a))
		version = a.Piece.Version
		time.Sleep(20 * time.Millisecond)
	}
	wait.Wait()
	slices.Sort(took)
	p99 := took[len(took)*99/100]
	t.Logf("%d previews; %d saves: median %v, 99 of 100 within %v", previews.Load(), len(took), took[len(took)/2], p99)
	if long { // a figure of a machine, not of the code
		assert.Less(t, p99, 500*time.Millisecond)
	}
	q, err := x.work.Piece(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, version, q.Version)
}
