package work_test

import (
	"context"
	"math"
	"testing"
	"time"

	"coldember/core/colour"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/practice"
	"coldember/core/session"
	"coldember/internal/doc"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheSheetHoldsWhatWasDone: played again by the server, so that nobody writes on it what was not done; taken off and put
// back; and it goes with an archive.
func TestTheSheetHoldsWhatWasDone(t *testing.T) {
	w, _ := fresh(t)
	way, err := practice.Pilot(ctx, practice.Find("cold"), 3)
	require.NoError(t, err)
	d := doc.Practised{Who: " Ida ", Exercise: "cold", Seed: 3, Actions: way, Came: practice.Result{Heats: 1, Done: true}}
	kept, err := w.KeepPractised(ctx, d, "")
	require.NoError(t, err)
	assert.Equal(t, "Ida", kept.Doc.Who)
	assert.True(t, kept.Doc.Came.Done)
	assert.Greater(t, kept.Doc.Came.Heats, 1, "what is said to have come of it does not count")
	d.Actions = way[:3]
	short, err := w.KeepPractised(ctx, d, "")
	require.NoError(t, err)
	assert.False(t, short.Doc.Came.Done)
	piece := start(t, w)
	own, err := w.KeepPractised(ctx, doc.Practised{Who: "Bram", Seed: 1, Actions: way[:2]}, piece.ID)
	require.NoError(t, err)
	assert.Equal(t, "Knife", own.Doc.Piece)
	sheet, err := w.Practised(ctx)
	require.NoError(t, err)
	require.Len(t, sheet, 3)
	require.NoError(t, w.RemovePractised(ctx, short.ID, true))
	sheet, err = w.Practised(ctx)
	require.NoError(t, err)
	assert.Len(t, sheet, 2)
	require.NoError(t, w.RemovePractised(ctx, short.ID, false))
	require.ErrorIs(t, w.RemovePractised(ctx, "none", true), work.ErrNotFound)
	for field, bad := range map[string]doc.Practised{
		"who":      {Exercise: "cold", Actions: way},
		"exercise": {Who: "Ida", Exercise: "dance", Actions: way},
		"actions":  {Who: "Ida", Exercise: "cold"},
	} {
		_, err := w.KeepPractised(ctx, bad, "")
		assert.Contains(t, fields(t, err), field)
	}
}

// TestPractisedBesideThePlan: heat by heat what was done, what the plan does, and of a piece that was at the fire its log.
func TestPractisedBesideThePlan(t *testing.T) {
	w, _ := fresh(t)
	way, err := practice.Pilot(ctx, practice.Find("cold"), 3)
	require.NoError(t, err)
	b, err := w.Beside(ctx, "cold", "", 3, colour.LitShop, way)
	require.NoError(t, err)
	assert.Equal(t, b.Way, b.Mine, "the same hand, the same way")
	assert.Empty(t, b.Real)
	piece := start(t, w)
	actions := []practice.Action{{Do: practice.ToFire, Seconds: 100}, {Do: practice.Strike, Way: practice.Flat, Face: forge.FlatFace, AtMm: 20, Blows: 3}, {Do: practice.ToFire, Seconds: 60}}
	b, err = w.Beside(ctx, "", piece.ID, 1, colour.LitShop, actions)
	require.NoError(t, err)
	require.Len(t, b.Mine, 3)
	assert.Equal(t, 3, b.Mine[1].Struck)
	p, err := w.Plan(ctx, piece.Doc)
	require.NoError(t, err)
	assert.Len(t, b.Way, p.Totals.Heats+1)
	assert.NotEmpty(t, b.Way[3].Work)
	f, err := w.TakeToFire(ctx, piece.ID, false)
	require.NoError(t, err)
	events := told("a", 1, session.In, session.Out, session.Read, session.Back)
	events[2].Reading = &session.Reading{Quantity: session.Quantity(plan.Height), AtMm: 60, Mm: 23}
	_, err = w.Tell(ctx, f.ID, time.Now().UnixMilli(), events)
	require.NoError(t, err)
	b, err = w.Beside(ctx, "", piece.ID, 1, colour.LitShop, actions)
	require.NoError(t, err)
	require.Len(t, b.Real, 2)
	require.Len(t, b.Real[1].Read, 1)
	near := func(h work.HeatSeen) (best work.SeenAt) {
		best.XMm = math.Inf(1)
		for _, at := range h.At {
			if math.Abs(at.XMm-60) < math.Abs(best.XMm-60) {
				best = at
			}
		}
		return best
	}
	assert.InDelta(t, 23, near(b.Real[1]).WideMm, .3, "as it was read")
	assert.Greater(t, near(b.Way[1]).WideMm, 24.0, "as planned")
	assert.Greater(t, b.Real[1].LengthMm, b.Way[1].LengthMm+1, "thinner, so it is longer")
	_, err = w.Beside(ctx, "dance", "", 1, colour.LitShop, nil)
	assert.Contains(t, fields(t, err), "exercise")
	gone, stop := context.WithCancel(ctx)
	stop()
	_, err = w.Beside(gone, "cold", "", 3, colour.LitShop, way)
	require.ErrorIs(t, err, context.Canceled)
}
