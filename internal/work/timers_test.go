package work_test

import (
	"path/filepath"
	"testing"
	"time"

	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestATimerNeedsNothingToRun: a server that was away for hours, over midnight and over the hour
// that comes twice, has it ring when it should.
func TestATimerNeedsNothingToRun(t *testing.T) {
	berlin, err := time.LoadLocation("Europe/Berlin")
	require.NoError(t, err)
	now := time.Date(2026, 10, 24, 23, 30, 0, 0, berlin) // summer time ends in this night
	file := filepath.Join(t.TempDir(), "a.db")
	open := func() (*work.Work, func()) {
		st, err := store.Open(ctx, file, nil)
		require.NoError(t, err)
		return work.New(st, func() time.Time { return now }, work.RandomID), func() { require.NoError(t, st.Close()) }
	}
	w, done := open()
	made, err := w.StartTimer(ctx, work.Timer{Kind: work.TimerTemper, Label: " Temper 1 of 2 ", Seconds: 4 * 3600})
	require.NoError(t, err)
	done()
	now = now.Add(3 * time.Hour)
	w, done = open()
	defer done()
	all, err := w.Timers(ctx)
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, "Temper 1 of 2", all[0].Label)
	assert.InDelta(t, time.Hour.Seconds(), all[0].DueAt().Sub(now).Seconds(), 1)
	assert.Equal(t, "2026-10-25T02:30:00+01:00", all[0].DueAt().In(berlin).Format(time.RFC3339), "four hours later, though the clock says three")
	require.NoError(t, w.StopTimer(ctx, made.ID))
	require.ErrorIs(t, w.StopTimer(ctx, made.ID), work.ErrNotFound)
	all, err = w.Timers(ctx)
	require.NoError(t, err)
	assert.Empty(t, all)
}

// TestATimerThatCannotBe is refused at its field, and one goes out and in with the shop.
func TestATimerThatCannotBe(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	for field, bad := range map[string]work.Timer{
		"seconds": {Kind: work.TimerSoak, Label: "x", Seconds: 0}, "kind": {Kind: "nap", Label: "x", Seconds: 60},
		"label": {Kind: work.TimerSoak, Seconds: 60}, "pieceId": {Kind: work.TimerSoak, Label: "x", Seconds: 60, PieceID: "nobody"},
	} {
		_, err := w.StartTimer(ctx, bad)
		assert.Contains(t, fields(t, err), field)
	}
	made, err := w.StartTimer(ctx, work.Timer{Kind: work.TimerGlue, Label: "Glue", Seconds: 86400, PieceID: p.ID})
	require.NoError(t, err)
	other, _ := fresh(t)
	_, err = other.Unpack(ctx, packed(t, w))
	require.NoError(t, err)
	all, err := other.Timers(ctx)
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, made.ID, all[0].ID)
	assert.Equal(t, p.Doc.Name, all[0].Piece)
	assert.WithinDuration(t, made.StartedAt, all[0].StartedAt, 0)
}
