package abuse

import (
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// heapOf is what is kept after everything that is not is gone.
func heapOf() int64 {
	runtime.GC()
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	return int64(m.HeapAlloc)
}

// sizeOf is how large a data file is with what it has not yet taken in.
func sizeOf(t *testing.T, data string) (n int64) {
	t.Helper()
	for _, f := range []string{data, data + "-wal"} {
		if info, err := os.Stat(f); err == nil {
			n += info.Size()
		}
	}
	return n
}

// Of a soak: how many events come at once, and how many go into one session.
const (
	atOnce     = 500
	perSession = 40_000
)

// TestASoak of a million edits and events (in short: some thousands): what is kept in memory does not grow with them, and the file
// grows by what was told and no more; the history of a piece stays one that can be undone.
func TestASoak(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	x := serve(t, data)
	ctx := t.Context()
	events, edits := times(4_000, 960_000), times(40, 40_000)
	var pieces []work.Piece
	all, _, err := x.work.Pieces(ctx, false)
	require.NoError(t, err)
	for _, p := range all {
		if p.Doc.Name == demo.Rigging {
			pieces = append(pieces, p)
		}
	}
	require.Len(t, pieces, 1)
	fires, err := x.work.AllFires(ctx)
	require.NoError(t, err)
	told := 0
	tell := func(n int, id, tag string) {
		for at := 0; at < n; at += atOnce {
			batch := make([]session.Event, 0, atOnce)
			for i := range min(atOnce, n-at) {
				batch = append(batch, session.Event{ID: fmt.Sprintf("%s-%d", tag, at+i), Device: tag, Seq: at + i + 1, AtMs: 1_764_000_000_000 + int64(at+i), Kind: session.Noted, Text: "soak"})
			}
			heard, err := x.work.Tell(ctx, id, 0, batch)
			require.NoError(t, err)
			require.Empty(t, heard.Refused)
			told += len(batch)
		}
	}
	var heaps, sizes []int64
	p := pieces[0]
	const parts = 8
	for part := range parts {
		for left, n := events/parts, 0; left > 0; left, n = left-perSession, n+1 {
			id := fires[0].ID
			if long { // sessions are full at some time: another piece of work takes each part
				d, _, err := x.work.DuplicatePiece(ctx, p.ID, fmt.Sprintf("Soak %d-%d", part, n))
				require.NoError(t, err)
				f, err := x.work.TakeToFire(ctx, d.ID, false)
				require.NoError(t, err)
				id = f.ID
			}
			tell(min(left, perSession), id, fmt.Sprintf("soak%d-%d", part, n))
		}
		for i := range edits / parts {
			next, _, err := x.work.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "notes", Text: strings.Repeat("x", 1+i%50)}})
			require.NoError(t, err)
			p = next
		}
		heaps, sizes = append(heaps, heapOf()), append(sizes, sizeOf(t, data))
	}
	t.Logf("%d events and %d edits; heap %d → %d kB; file %d → %d kB", told, edits/parts*parts, heaps[0]>>10, heaps[parts-1]>>10, sizes[0]>>10, sizes[parts-1]>>10)
	assert.Less(t, heaps[parts-1]-heaps[1], int64(64<<20), "what is kept in memory does not grow with what is told")
	perPart := func(i int) float64 { return float64(sizes[i]-sizes[i-1]) / float64(events/parts+edits/parts) }
	assert.Less(t, perPart(parts-1), 8192.0, "bytes of the file for one edit or event")
	at := time.Now()
	_, _, err = x.work.Undo(ctx, p.ID, p.Version, -1)
	require.NoError(t, err)
	t.Logf("undo after it all: %v", time.Since(at))
}
