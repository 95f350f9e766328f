package work_test

import (
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/demo"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// told are events of one screen, each having seen the one before.
func told(device string, from int, kinds ...session.Kind) []session.Event {
	out := make([]session.Event, len(kinds))
	for i, k := range kinds {
		n := from + i
		out[i] = session.Event{ID: fmt.Sprintf("%s-%d", device, n), Device: device, Seq: n, AtMs: time.Now().UnixMilli() + int64(i)*60_000, Kind: k}
		if n > 1 {
			out[i].Saw = fmt.Sprintf("%s-%d", device, n-1)
		}
	}
	return out
}

// TestAPlanTakenToTheFireIsFrozen: what is changed later makes another plan, and the session
// goes on with its own until another is begun.
func TestAPlanTakenToTheFireIsFrozen(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	f, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	again, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	assert.Equal(t, f.ID, again.ID, "it is there already")
	_, err = w.Tell(ctx, f.ID, time.Now().UnixMilli(), told("a", 1, session.In, session.Out))
	require.NoError(t, err)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "design.lengthMm", Text: "130"}})
	require.NoError(t, err)
	now, err := w.FireOf(ctx, p.ID)
	require.NoError(t, err)
	assert.True(t, now.Changed)
	assert.Equal(t, f.Doc.Course, now.Doc.Course, "as it was")
	all, err := w.AllFires(ctx)
	require.NoError(t, err)
	assert.True(t, all[0].Changed)
	next, err := w.TakeToFire(ctx, p.ID, true)
	require.NoError(t, err)
	assert.NotEqual(t, f.ID, next.ID)
	assert.Greater(t, next.PlanN, f.PlanN)
	assert.False(t, next.Changed)
	// what was still on its way to the first is kept with it
	heard, err := w.Tell(ctx, f.ID, time.Now().UnixMilli(), told("a", 3, session.Back))
	require.NoError(t, err)
	assert.Equal(t, 3, heard.Count)
	first, err := w.Fire(ctx, f.ID)
	require.NoError(t, err)
	assert.True(t, first.Replaced)
	p, _, err = w.Undo(ctx, p.ID, p.Version, -1)
	require.NoError(t, err)
	first, err = w.Fire(ctx, f.ID)
	require.NoError(t, err)
	assert.False(t, first.Changed, "back to what was frozen")
}

// TestAPlanThatStopsIsNotTakenToTheFire.
func TestAPlanThatStopsIsNotTakenToTheFire(t *testing.T) {
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	all, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	for _, p := range all {
		if p.Doc.Name == demo.SlicerNarrow {
			_, err := w.TakeToFire(ctx, p.ID, false)
			var state *work.StateError
			require.ErrorAs(t, err, &state)
			assert.Equal(t, "session.stopped", state.Code)
		}
	}
}

// TestAnEventCountsOnce, however often it is sent, and one that cannot be does not hold up the
// others.
func TestAnEventCountsOnce(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	f, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	events := told("a", 1, session.In, session.Out, session.Read, session.Pictured, session.Back)
	events[2].Reading = &session.Reading{Quantity: "height", Mm: 2540, AtMm: 20}
	events[3].Picture = "none"
	for range 3 {
		heard, err := w.Tell(ctx, f.ID, time.Now().UnixMilli(), events)
		require.NoError(t, err)
		assert.Equal(t, 3, heard.Count)
		require.Len(t, heard.Refused, 2)
		assert.Equal(t, "reading.mm", heard.Refused[0].Fields[0].Field)
		assert.Equal(t, "picture", heard.Refused[1].Fields[0].Field)
	}
	key, err := w.KeepPicture(ctx, photo(t, 40, 30))
	require.NoError(t, err)
	events[3].Picture = key
	heard, err := w.Tell(ctx, f.ID, time.Now().UnixMilli(), events[3:4])
	require.NoError(t, err)
	assert.Empty(t, heard.Refused)
	gone, err := w.Tidy(ctx)
	require.NoError(t, err)
	assert.Zero(t, gone)
	all, err := w.Happened(ctx, f.ID, 0)
	require.NoError(t, err)
	assert.Len(t, all, 4)
	late, err := w.Happened(ctx, f.ID, 3)
	require.NoError(t, err)
	require.Len(t, late, 1)
	assert.Equal(t, session.Pictured, late[0].Kind)
}

// TestAClockAnHourOffIsSetRight, and told of.
func TestAClockAnHourOffIsSetRight(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	f, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	ahead := time.Now().Add(time.Hour).UnixMilli()
	e := told("a", 1, session.In)
	e[0].AtMs = ahead
	heard, err := w.Tell(ctx, f.ID, ahead, e)
	require.NoError(t, err)
	assert.True(t, heard.Wrong)
	shown, err := w.ShownNow(ctx, f)
	require.NoError(t, err)
	assert.Less(t, shown.View.SinceS, 3600.0, "in the fire since now, not since an hour to come")
	require.Len(t, shown.State.Clocks, 1)
	assert.True(t, shown.State.Clocks[0].Wrong)
}

// TestTheTongsAreTheShops: what is held in tongs names those of the shop that hold, and tells
// where none do.
func TestTheTongsAreTheShops(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	p, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{{Field: "choices.holding", Text: "tongs"}})
	require.NoError(t, err)
	f, err := w.TakeToFire(ctx, p.ID, false)
	require.NoError(t, err)
	require.Len(t, f.Grips, len(f.Doc.Course.Heats))
	assert.GreaterOrEqual(t, f.Grips[0].Tongs, 0)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	for range shop.Doc.Tongs {
		shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "tongs.remove", Text: "0"}})
		require.NoError(t, err)
	}
	f, err = w.Fire(ctx, f.ID)
	require.NoError(t, err)
	assert.Equal(t, -1, f.Grips[0].Tongs, "none is there")
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "tongs.add", Text: "vee"}})
	require.NoError(t, err)
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "tongs.0.jaw", Text: "boxJaw"}})
	require.NoError(t, err)
	assert.Positive(t, shop.Doc.Tongs[0].WideMm, "lips have a distance")
	_, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "tongs.0.mostMm", Text: "1"}})
	assert.Equal(t, "field.rangeLength", fields(t, err)["tongs.0.mostMm"].Code)
}

// TestTheFireGoesOutAndInWithTheShop: sessions, their events and their frozen plans.
func TestTheFireGoesOutAndInWithTheShop(t *testing.T) {
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "demo.db"), nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	was, err := w.AllFires(ctx)
	require.NoError(t, err)
	require.Len(t, was, 15)
	other, _ := fresh(t)
	_, err = other.Unpack(ctx, packed(t, w))
	require.NoError(t, err)
	is, err := other.AllFires(ctx)
	require.NoError(t, err)
	assert.Equal(t, was, is)
	for _, e := range was {
		a, err := w.Happened(ctx, e.ID, 0)
		require.NoError(t, err)
		b, err := other.Happened(ctx, e.ID, 0)
		require.NoError(t, err)
		assert.Equal(t, a, b)
		one, two := must(w.Fire(ctx, e.ID)), must(other.Fire(ctx, e.ID))
		assert.Equal(t, one.Doc, two.Doc)
		assert.Equal(t, one.PlanN, two.PlanN)
		assert.Equal(t, one.Changed, two.Changed)
	}
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// BenchmarkOpen10000Events reads a session of ten thousand events and folds it.
func BenchmarkOpen10000Events(b *testing.B) {
	st, err := store.Open(ctx, filepath.Join(b.TempDir(), "demo.db"), nil)
	require.NoError(b, err)
	b.Cleanup(func() { _ = st.Close() })
	require.NoError(b, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	f := must(w.AllFires(ctx))[0]
	kinds := make([]session.Kind, 2000)
	for i := range kinds {
		kinds[i] = []session.Kind{session.Out, session.FirstBlow, session.LastBlow, session.NotYet}[i%4]
	}
	for i := range 5 {
		_, err := w.Tell(ctx, f.ID, time.Now().UnixMilli(), told("bench", 1+i*len(kinds), kinds...))
		require.NoError(b, err)
	}
	for b.Loop() {
		_, book, err := w.BookOf(ctx, f.ID)
		require.NoError(b, err)
		require.Greater(b, book.Totals.Heats, 2000)
	}
}

// BenchmarkTell adds one event to a session that has ten thousand.
func BenchmarkTell(b *testing.B) {
	st, err := store.Open(ctx, filepath.Join(b.TempDir(), "demo.db"), nil)
	require.NoError(b, err)
	b.Cleanup(func() { _ = st.Close() })
	require.NoError(b, demo.Build(ctx, st, time.Now()))
	w := work.New(st, time.Now, work.RandomID)
	f := must(w.AllFires(ctx))[0]
	n := 0
	for b.Loop() {
		n++
		_, err = w.Tell(ctx, f.ID, time.Now().UnixMilli(), told("bench", n, session.In))
		require.NoError(b, err)
	}
}
