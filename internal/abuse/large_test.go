package abuse

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/internal/demo/demotest"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Of a data file after years of work.
const (
	yearsPieces   = 2_000
	yearsSessions = 200
	yearsTimers   = 20_000
)

// years fills a file with the demonstration over and over: so many pieces with their histories, sessions with all that happened,
// and timers.
func years(tb testing.TB, data string, pieces, sessions, timers int) {
	tb.Helper()
	demotest.Copy(tb, data)
	st, err := store.Open(tb.Context(), data, nil)
	require.NoError(tb, err)
	defer func() { require.NoError(tb, st.Close()) }()
	require.NoError(tb, st.Write(tb.Context(), func(tx store.Tx) error {
		all, err := tx.Whole()
		if err != nil {
			return err
		}
		var more store.Whole
		for n := len(all.Pieces); n < pieces; n++ {
			p := all.Pieces[n%len(all.Pieces)]
			was := p.ID
			p.ID, p.ArchivedAt = fmt.Sprintf("years-%d", n), nil
			for _, e := range all.Edits {
				if e.PieceID == was {
					e.PieceID = p.ID
					more.Edits = append(more.Edits, e)
				}
			}
			more.Pieces = append(more.Pieces, p)
		}
		for n := len(all.Sessions); n < sessions; n++ {
			s := all.Sessions[n%len(all.Sessions)]
			was := s.ID
			s.ID = fmt.Sprintf("years-%d", n)
			for _, e := range all.Events {
				if e.SessionID == was {
					e.SessionID = s.ID
					more.Events = append(more.Events, e)
				}
			}
			more.Sessions = append(more.Sessions, s)
		}
		for n := range timers {
			more.Timers = append(more.Timers, store.Timer{ID: fmt.Sprintf("years-%d", n), Kind: "other", Label: fmt.Sprintf("Timer %d", n), Seconds: 60, StartedAt: time.Now().Add(-time.Duration(n) * time.Second)})
		}
		return tx.Fill(more)
	}))
}

// opened opens a file as a smith does, up to the first page: everything that it asks for.
func opened(tb testing.TB, x *target) (bytes int) {
	tb.Helper()
	for _, path := range []string{"/shop", "/pieces", "/patterns", "/stock", "/sessions", "/timers"} {
		status, answer, _ := x.call("GET", "/api/v1"+path, "", nil)
		require.Equal(tb, http.StatusOK, status, path)
		bytes += len(answer)
	}
	return bytes
}

// TestYearsOfWorkOpen: a file of thousands opens, lists all of it, and takes a save (how soon is BenchmarkYearsOfWork's to say).
func TestYearsOfWorkOpen(t *testing.T) {
	data := filepath.Join(t.TempDir(), "years.db")
	n := times(200, yearsPieces)
	years(t, data, n, times(20, yearsSessions), times(2_000, yearsTimers))
	x := over(t, data)
	assert.Positive(t, opened(t, x))
	all := x.pieces()
	require.GreaterOrEqual(t, len(all), n*4/5)
	last := all[len(all)-1]
	raw, err := json.Marshal(map[string]any{"version": last.Version, "edits": []map[string]string{{"field": "notes", "text": "years"}}})
	require.NoError(t, err)
	status, answer, _ := x.call("PATCH", "/api/v1/pieces/"+last.ID, "application/json", raw)
	assert.Equal(t, http.StatusOK, status, string(answer))
	found, err := x.work.Find(t.Context(), "years")
	require.NoError(t, err)
	assert.NotEmpty(t, found)
}

// BenchmarkYearsOfWork opens 2,000 pieces, 200 sessions and 20,000 timers up to the first page.
func BenchmarkYearsOfWork(b *testing.B) {
	data := filepath.Join(b.TempDir(), "years.db")
	years(b, data, yearsPieces, yearsSessions, yearsTimers)
	// what sessions came to is worked out once, by the first that opens them
	opened(b, over(b, data))
	size, err := os.Stat(data)
	require.NoError(b, err)
	b.ReportMetric(float64(size.Size())/1e6, "MB")
	for b.Loop() {
		opened(b, over(b, data))
	}
}

// over serves a file that is there.
func over(tb testing.TB, data string) *target {
	tb.Helper()
	st, err := store.Open(tb.Context(), data, nil)
	require.NoError(tb, err)
	return attend(tb, st, work.New(st, time.Now, work.RandomID))
}

// TestAskingForMuchIsBounded: a search of what was written answers with no more than can be read.
func TestAskingForMuchIsBounded(t *testing.T) {
	data := filepath.Join(t.TempDir(), "years.db")
	years(t, data, 60, 20, 10)
	x := over(t, data)
	found, err := x.work.Find(t.Context(), "e")
	require.NoError(t, err)
	assert.LessOrEqual(t, len(found), 80)
	_, err = x.work.Find(t.Context(), strings.Repeat("%", 200))
	require.NoError(t, err)
}
