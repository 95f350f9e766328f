package server_test

import (
	"context"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/device"
	"coldember/internal/edit"
	"coldember/internal/server"
	"coldember/internal/store"
	"coldember/internal/work"
	"coldember/web"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// smithy is a shop with a clock in hand.
type smithy struct {
	w   *work.Work
	url string
	now time.Time
}

func newSmithy(t *testing.T) *smithy {
	t.Helper()
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	st, err := store.Open(context.Background(), data, nil)
	require.NoError(t, err)
	s := &smithy{now: time.Now()}
	s.w = work.New(st, func() time.Time { return s.now }, work.RandomID)
	srv := httptest.NewServer(server.Handler(s.w, web.Dist(), server.NewKey()))
	s.url = srv.URL
	t.Cleanup(func() { srv.Close(); _ = st.Close() })
	return s
}

func (s *smithy) instrument(t *testing.T, kind session.Instrument) (*device.Client, *device.Instrument, work.Access) {
	t.Helper()
	a, key, err := s.w.AddAccess(context.Background(), string(kind), "the "+string(kind), "")
	require.NoError(t, err)
	return &device.Client{To: s.url, Key: key, HTTP: http.DefaultClient}, device.NewInstrument(kind, string(kind)+"-1", 4, int(s.now.UnixMilli())), a
}

func (s *smithy) piece(t *testing.T, name string) string {
	t.Helper()
	all, _, err := s.w.Pieces(context.Background(), false)
	require.NoError(t, err)
	for _, p := range all {
		if p.Doc.Name == name {
			return p.ID
		}
	}
	t.Fatal(name)
	return ""
}

// TestAPieceIsForgedByInstrumentsAlone: a pedal goes on when it is time, and caliper, pyrometer and scale report: all of it is
// in the book, each reading marked by what told it, at the station that was next.
func TestAPieceIsForgedByInstrumentsAlone(t *testing.T) {
	ctx, s := context.Background(), newSmithy(t)
	id := s.piece(t, demo.Samphire)
	pedal, foot, _ := s.instrument(t, session.Pedal)
	_, err := pedal.Wanted(ctx)
	require.ErrorIs(t, err, device.ErrQuiet, "nothing was taken to the fire today")
	piece, err := s.w.Piece(ctx, id)
	require.NoError(t, err)
	_, _, err = s.w.SavePiece(ctx, id, piece.Version, []edit.Edit{{Field: "prices.hourPrice", Text: "32"}, {Field: "finish.prices.beltPrice", Text: "6"}})
	require.NoError(t, err)
	_, err = s.w.TakeToFire(ctx, id, false)
	require.NoError(t, err)
	clients, tools := []*device.Client{}, []*device.Instrument{}
	for _, k := range []session.Instrument{session.Scale, session.Caliper, session.Pyrometer} {
		c, i, _ := s.instrument(t, k)
		clients, tools = append(clients, c), append(tools, i)
	}
	refused := 0
	for range 600 {
		w, err := pedal.Wanted(ctx)
		require.Zero(t, w.Request.Prices, "prices are no matter of an instrument's")
		require.Nil(t, w.Request.Finish)
		if err != nil || w.Next == "" || w.Next == session.ToHarden {
			break
		}
		for k, c := range clients {
			if w.Phase == session.OutOf && k == 0 {
				continue // it is not weighed hot
			}
			l, ok, err := tools[k].Read(ctx, &w)
			require.NoError(t, err)
			if !ok {
				continue
			}
			a, err := c.Send(ctx, l)
			require.NoError(t, err)
			if !a[0].Taken {
				refused++
				require.NotEmpty(t, a[0].Fields[0].Message)
			}
		}
		s.now = s.now.Add(time.Duration((max(0, w.LeftS) + 1) * float64(time.Second)))
		l, _, err := foot.Read(ctx, &w)
		require.NoError(t, err)
		a, err := pedal.Send(ctx, l)
		require.NoError(t, err)
		require.True(t, a[0].Taken, a)
	}
	f, err := s.w.FireOf(ctx, id)
	require.NoError(t, err)
	shown, err := s.w.ShownNow(ctx, f)
	require.NoError(t, err)
	assert.Equal(t, session.Finished, shown.View.Phase)
	_, book, err := s.w.BookOf(ctx, f.ID)
	require.NoError(t, err)
	assert.InDelta(t, f.Doc.Course.Totals.Heats, book.Totals.Heats, 1)
	by, near := map[string]int{}, 0
	for _, r := range book.Readings {
		by[r.Reading.By]++
		if r.Reading.By == "the caliper" && r.Wanted {
			near++
		}
	}
	for _, name := range []string{"the caliper", "the pyrometer", "the scale"} {
		assert.Greater(t, by[name], 5, name)
	}
	assert.Greater(t, near, by["the caliper"]*9/10, "they land where they are wanted")
	assert.Positive(t, refused, "one was left in inches once, and was told so")
	assert.Less(t, refused, by["the caliper"]/4)
}

// TestInstrumentsMeetTheRules: what cannot be is told at its line; what is sent twice counts once; a key opens nothing else, and
// nothing once it is revoked.
func TestInstrumentsMeetTheRules(t *testing.T) {
	ctx, s := context.Background(), newSmithy(t)
	id := s.piece(t, demo.Samphire)
	_, err := s.w.TakeToFire(ctx, id, false)
	require.NoError(t, err)
	c, _, a := s.instrument(t, session.Scale)
	code := func(l work.ReadLine) string {
		out, err := c.Send(ctx, l)
		require.NoError(t, err)
		if out[0].Taken {
			return ""
		}
		return out[0].Fields[0].Code
	}
	ok := work.ReadLine{ID: "scale-1", Seq: 5, Kind: "scale", Value: 120, Unit: "g", Battery: .5, Resolution: .1}
	with := func(f func(*work.ReadLine)) work.ReadLine { l := ok; f(&l); return l }
	assert.Equal(t, "reading.otherKind", code(with(func(l *work.ReadLine) { l.Kind = "caliper" })))
	assert.Equal(t, "reading.unit.scale", code(with(func(l *work.ReadLine) { l.Unit = "mm" })))
	assert.NotEmpty(t, code(with(func(l *work.ReadLine) { l.Value = 1e6 })))
	assert.NotEmpty(t, code(with(func(l *work.ReadLine) { l.Seq = 0 })))
	assert.NotEmpty(t, code(with(func(l *work.ReadLine) { l.Battery = 7 })))
	assert.NotEmpty(t, code(with(func(l *work.ReadLine) { l.ID = "../x" })))
	assert.Empty(t, code(ok))
	assert.Empty(t, code(ok), "again is no fault")
	f, err := s.w.FireOf(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, 1, f.Count, "and counts once")
	all, err := s.w.AllAccess(ctx)
	require.NoError(t, err)
	assert.True(t, all[0].Last.Taken)

	raw := func(method, path, kind, body, key string) int {
		r, err := http.NewRequestWithContext(ctx, method, s.url+path, strings.NewReader(body))
		require.NoError(t, err)
		r.Header.Set("Content-Type", kind)
		r.Header.Set("Authorization", "Bearer "+key)
		res, err := http.DefaultClient.Do(r)
		require.NoError(t, err)
		_ = res.Body.Close()
		return res.StatusCode
	}
	for _, body := range []string{"{", "[]", "{}", `{"id":"a"} {"id":"b"}`, strings.Repeat("x", 5000), strings.Repeat(`{"id":"a"}`+"\n", 300)} {
		assert.Equal(t, 422, raw("POST", "/api/v1/readings", "application/x-ndjson", body, c.Key), body[:min(20, len(body))])
	}
	assert.Equal(t, 401, raw("POST", "/api/v1/readings", "application/x-ndjson", "{}", "guess"))
	for _, path := range []string{"/api/v1/pieces", "/api/v1/shop", "/api/v1/access", "/api/v1/archive"} {
		assert.Equal(t, 401, raw("GET", path, "", "", c.Key), path)
	}
	require.NoError(t, s.w.RevokeAccess(ctx, a.ID))
	_, err = c.Send(ctx, ok)
	require.ErrorIs(t, err, device.ErrKey)
}
