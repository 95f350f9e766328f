package server_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"coldember/internal/api"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/server"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var front = fstest.MapFS{
	"index.html":    {Data: []byte("<!doctype html><title>Cold Ember</title>")},
	"assets/a-1.js": {Data: []byte(strings.Repeat("console.log(1);", 200))},
}

// client talks to a server with the demonstration in it.
type client struct {
	t    testing.TB
	url  string
	http *http.Client // with the key
}

func serve(t testing.TB) client {
	t.Helper()
	ctx := context.Background()
	data := filepath.Join(t.TempDir(), "api.db")
	demotest.Copy(t, data)
	st, err := store.Open(ctx, data, nil)
	require.NoError(t, err)
	key := server.NewKey()
	s := httptest.NewServer(server.Handler(work.New(st, time.Now, work.RandomID), front, key))
	t.Cleanup(func() { s.Close(); _ = st.Close() })
	c := client{t, s.URL, &http.Client{}}
	c.http.Jar, err = cookiejar.New(nil)
	require.NoError(t, err)
	res, err := c.http.Get(key.Link(s.URL, "/"))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	return c
}

// do sends a JSON body (or raw text) and decodes the answer into out.
func (c client) do(method, path string, body, out any) *http.Response {
	c.t.Helper()
	var r io.Reader
	switch b := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(b)
	default:
		text, err := json.Marshal(b)
		require.NoError(c.t, err)
		r = bytes.NewReader(text)
	}
	req, err := http.NewRequestWithContext(context.Background(), method, c.url+path, r)
	require.NoError(c.t, err)
	if r != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := c.http.Do(req)
	require.NoError(c.t, err)
	defer func() { _ = res.Body.Close() }()
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	if out != nil {
		require.NoError(c.t, json.Unmarshal(raw, out), string(raw))
	}
	return res
}

type m = map[string]any

type problem struct {
	Code, Detail string
	Status       int
	Fields       []struct {
		Field, Code, Message, Text string
		Offset                     int
	}
	Current *api.Piece
}

func (c client) refused(method, path string, body any, status int) problem {
	c.t.Helper()
	var p problem
	res := c.do(method, path, body, &p)
	assert.Equal(c.t, status, res.StatusCode, p.Detail)
	assert.Equal(c.t, "application/problem+json", res.Header.Get("Content-Type"))
	assert.Equal(c.t, status, p.Status)
	assert.NotEmpty(c.t, p.Detail)
	return p
}

func (c client) piece(name string) api.Piece {
	c.t.Helper()
	var all api.Listed[api.Piece]
	c.do("GET", "/api/v1/pieces", nil, &all)
	for _, p := range all.Items {
		if p.Doc.Name == name {
			return p
		}
	}
	c.t.Fatalf("no piece %q", name)
	return api.Piece{}
}

type answer struct {
	Piece api.Piece
	Plan  struct {
		Bar    struct{ CutLengthMm float64 }
		Totals struct{ Heats int }
	}
}

func TestAPieceFromStartToArchive(t *testing.T) {
	c := serve(t)
	var patterns api.Listed[api.Pattern]
	c.do("GET", "/api/v1/patterns", nil, &patterns)
	var rack api.Listed[api.Stock]
	c.do("GET", "/api/v1/stock", nil, &rack)
	var a answer
	res := c.do("POST", "/api/v1/pieces", m{"name": "Deck knife", "patternId": patterns.Items[0].ID, "stockId": rack.Items[0].ID, "hand": demo.SecondHand, "edits": []any{}}, &a)
	require.Equal(t, http.StatusOK, res.StatusCode)
	assert.Positive(t, a.Plan.Totals.Heats)
	assert.InDelta(t, .9, a.Piece.Doc.Request.Smith.HammerKg, 1e-9)
	before := a.Plan.Bar.CutLengthMm
	id := "/api/v1/pieces/" + a.Piece.ID
	c.do("PATCH", id, m{"version": a.Piece.Version, "edits": []any{m{"field": "design.lengthMm", "text": "5 in", "units": "mm"}}}, &a)
	assert.InDelta(t, 127, a.Piece.Doc.Request.Design.LengthMm, 1e-9)
	assert.Greater(t, a.Plan.Bar.CutLengthMm, before)
	c.do("POST", id+"/undo", m{"version": a.Piece.Version}, &a)
	assert.InDelta(t, before, a.Plan.Bar.CutLengthMm, 1e-9)
	c.do("POST", id+"/redo", m{"version": a.Piece.Version}, &a)
	assert.Greater(t, a.Plan.Bar.CutLengthMm, before)
	var copied answer
	c.do("POST", id+"/duplicate", m{"name": "Deck knife, second"}, &copied)
	assert.Equal(t, a.Piece.Doc.Request, copied.Piece.Doc.Request)
	var gone api.Piece
	c.do("POST", id+"/archive", nil, &gone)
	assert.True(t, gone.Archived)
	c.do("POST", id+"/restore", nil, &gone)
	assert.False(t, gone.Archived)
	assert.Equal(t, http.StatusOK, c.do("GET", id, nil, &a).StatusCode)
}

func TestProblemsNameTheFieldAndTheRemedyInTheSmithsUnits(t *testing.T) {
	c := serve(t)
	p := c.piece(demo.Rigging)
	id := "/api/v1/pieces/" + p.ID
	save := func(field, text string) problem {
		return c.refused("PATCH", id, m{"version": p.Version, "edits": []any{m{"field": field, "text": text, "units": "mm"}}}, http.StatusUnprocessableEntity)
	}
	for _, bad := range []struct{ field, text, at, says string }{
		{"design.lengthMm", "5000", "design.lengthMm", "Between 20 mm and 1200 mm."},
		{"design.spineMm", "0.01", "design.spineMm", "Between 0.5 mm and "},
		{"design.heightMm", "-4", "design.heightMm", "Between 5 mm"},
		{"design.lengthMm", "12 furlongs", "design.lengthMm", "no unit known here"},
		{"design.lengthMm", "", "design.lengthMm", "Type a figure"},
		{"steelId", "butter", "steelId", "No such steel"},
		{"fire.tempC", "830", "fire.tempC", "A forge at"},
		{"bar.form", "tube", "bar.form", "hollow"},
		{"bar.form", "lump", "bar.form", "choices"},
	} {
		got := save(bad.field, bad.text)
		require.NotEmpty(t, got.Fields, bad.text)
		assert.Equal(t, bad.at, got.Fields[0].Field)
		assert.Contains(t, got.Fields[0].Message, bad.says)
		assert.NotContains(t, got.Fields[0].Message, "{")
	}
	assert.Equal(t, 3, save("design.lengthMm", "12 furlongs").Fields[0].Offset)
	var shop api.Settings
	c.do("GET", "/api/v1/shop", nil, &shop)
	c.do("PATCH", "/api/v1/shop", m{"version": shop.Version, "edits": []any{m{"field": "units", "text": "in"}}}, &shop)
	assert.Contains(t, save("design.lengthMm", "5000").Fields[0].Message, "in")
}

func TestTheSecondTabIsToldWithBothVersions(t *testing.T) {
	c := serve(t)
	p := c.piece(demo.Rigging)
	id := "/api/v1/pieces/" + p.ID
	edit := func(text string) m {
		return m{"version": p.Version, "edits": []any{m{"field": "design.lengthMm", "text": text}}}
	}
	require.Equal(t, http.StatusOK, c.do("PATCH", id, edit("90"), nil).StatusCode)
	got := c.refused("PATCH", id, edit("95"), http.StatusConflict)
	assert.Equal(t, "problem.stale", got.Code)
	require.NotNil(t, got.Current)
	assert.InDelta(t, 90, got.Current.Doc.Request.Design.LengthMm, 1e-9)
}

func TestWhatIsNotThereOrNotRead(t *testing.T) {
	c := serve(t)
	c.refused("GET", "/api/v1/pieces/nothing", nil, http.StatusNotFound)
	c.refused("GET", "/api/v1/nothing", nil, http.StatusNotFound)
	c.refused("DELETE", "/api/v1/pieces", nil, http.StatusMethodNotAllowed)
	c.refused("POST", "/api/v1/calc/weather", m{}, http.StatusNotFound)
	c.refused("POST", "/api/v1/plan/preview", `{"doc":`, http.StatusBadRequest)
	c.refused("POST", "/api/v1/plan/preview", `{"doc":7}`, http.StatusUnprocessableEntity)
	p := c.refused("POST", "/api/v1/calc/flow", m{"carbonPct": .8, "tempC": 900, "strain": .2, "ratePerS": 0}, http.StatusUnprocessableEntity)
	assert.Equal(t, "ratePerS", p.Fields[0].Field)
	assert.Equal(t, "More than nought.", p.Fields[0].Message)
	p = c.refused("POST", "/api/v1/calc/flow", `{"carbonPct": "much"`, http.StatusBadRequest)
	assert.Contains(t, p.Detail, "it is not JSON, or not all of it")
	assert.NotContains(t, strings.ToLower(p.Detail), "sql")
	p = c.refused("POST", "/api/v1/calc/flow", m{"carbonPct": "much"}, http.StatusUnprocessableEntity)
	assert.Contains(t, p.Detail, "“carbonPct” is of another kind than is wanted")
	p = c.refused("POST", "/api/v1/sheet", m{"stockId": "x", "parts": 7, "cut": "torn"}, http.StatusUnprocessableEntity)
	said := map[string]string{}
	for _, f := range p.Fields {
		said[f.Field] = f.Message
	}
	assert.Equal(t, "a list is wanted.", said["body.parts"])
	assert.Equal(t, "one of these is wanted: saw, hot.", said["body.cut"])
}

func TestPreviewPlansWithoutKeeping(t *testing.T) {
	c := serve(t)
	p := c.piece(demo.Rigging)
	var a answer
	c.do("POST", "/api/v1/plan/preview", m{"doc": p.Doc, "edits": []any{m{"field": "design.lengthMm", "text": "120"}}}, &a)
	assert.Greater(t, a.Plan.Bar.CutLengthMm, p.Summary.CutLengthMm)
	assert.InDelta(t, p.Summary.CutLengthMm, c.piece(demo.Rigging).Summary.CutLengthMm, 1e-9)
}

func TestCalcAndCard(t *testing.T) {
	c := serve(t)
	var out struct{ StressMPa float64 }
	c.do("POST", "/api/v1/calc/flow", m{"carbonPct": .8, "tempC": 1000, "strain": .2, "ratePerS": 100}, &out)
	assert.Positive(t, out.StressMPa)
	res, err := c.http.Get(c.url + "/api/v1/pieces/" + c.piece(demo.Slicer).ID + "/card.pdf")
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	head := make([]byte, 5)
	_, err = io.ReadFull(res.Body, head)
	require.NoError(t, err)
	assert.Equal(t, "%PDF-", string(head))
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
}

func TestPagesArePackedAndTheirOwnPathsGetThePage(t *testing.T) {
	c := serve(t)
	for path, kind := range map[string]string{"/": "text/html", "/pieces/x/heats": "text/html", "/assets/a-1.js": "javascript"} {
		req, err := http.NewRequest(http.MethodGet, c.url+path, nil)
		require.NoError(t, err)
		req.Header.Set("Accept-Encoding", "gzip")
		res, err := http.DefaultTransport.RoundTrip(req)
		require.NoError(t, err)
		assert.Contains(t, res.Header.Get("Content-Type"), kind)
		assert.Equal(t, "gzip", res.Header.Get("Content-Encoding"), path)
		z, err := gzip.NewReader(res.Body)
		require.NoError(t, err)
		text, err := io.ReadAll(z)
		require.NoError(t, err)
		assert.NotEmpty(t, text)
		_ = res.Body.Close()
		csp := res.Header.Get("Content-Security-Policy")
		assert.Contains(t, csp, "default-src 'self'")
		assert.NotContains(t, csp, "script-src 'unsafe")
	}
	c.refused("GET", "/assets/gone.js", nil, http.StatusNotFound)
}

func TestOtherHostsAndOriginsAreRefused(t *testing.T) {
	c := serve(t)
	send := func(set func(*http.Request)) int {
		req, err := http.NewRequest(http.MethodGet, c.url+"/api/v1/pieces", nil)
		require.NoError(t, err)
		set(req)
		res, err := c.http.Do(req)
		require.NoError(t, err)
		_ = res.Body.Close()
		return res.StatusCode
	}
	assert.Equal(t, 200, send(func(*http.Request) {}))
	assert.Equal(t, 200, send(func(r *http.Request) { r.Header.Set("Origin", c.url) }))
	assert.Equal(t, 403, send(func(r *http.Request) { r.Header.Set("Origin", "http://evil.example") }))
	assert.Equal(t, 403, send(func(r *http.Request) { r.Host = "evil.example" }))
}

func TestOnlyThisMachineIsServed(t *testing.T) {
	for addr, ok := range map[string]bool{"127.0.0.1:0": true, "localhost:80": true, "[::1]:80": true, "0.0.0.0:80": false, ":80": false, "192.168.1.4:80": false, "example.org:80": false, "7420": false} {
		err := server.Loopback(addr)
		assert.Equal(t, ok, err == nil, "%s: %v", addr, err)
	}
	_, err := server.Listen(t.Context(), "0.0.0.0:0")
	require.ErrorIs(t, err, server.ErrNotLoopback)
}

func TestRunServesUntilItIsStopped(t *testing.T) {
	ctx, stop := context.WithCancel(context.Background())
	ready, done := make(chan net.Addr, 1), make(chan error, 1)
	l, err := server.Listen(ctx, "127.0.0.1:0")
	require.NoError(t, err)
	_, err = server.Listen(ctx, l.Addr().String())
	require.ErrorIs(t, err, server.ErrBusy)
	go func() {
		done <- server.Run(ctx, l, http.NotFoundHandler(), func(a net.Addr) { ready <- a })
	}()
	res, err := http.Get("http://" + (<-ready).String())
	require.NoError(t, err)
	_ = res.Body.Close()
	stop()
	require.NoError(t, <-done)
}

// BenchmarkPreview is a whole plan as the server answers it, over HTTP.
func BenchmarkPreview(b *testing.B) {
	for _, name := range []string{demo.Rigging, demo.Slicer} {
		b.Run(strings.ReplaceAll(name, " ", ""), func(b *testing.B) {
			c := serve(b)
			p := c.piece(name)
			var bodies [][]byte
			for n := range 400 { // each another plan, or it would be answered from memory
				raw, err := json.Marshal(m{"doc": p.Doc, "edits": []any{m{"field": "design.lengthMm", "text": fmt.Sprintf("%.2f", 86+float64(n)/100)}}})
				require.NoError(b, err)
				bodies = append(bodies, raw)
			}
			var took []time.Duration
			i := 0
			for b.Loop() {
				at := time.Now()
				res, err := c.http.Post(c.url+"/api/v1/plan/preview", "application/json", bytes.NewReader(bodies[i%len(bodies)]))
				require.NoError(b, err)
				_, err = io.Copy(io.Discard, res.Body)
				require.NoError(b, err)
				_ = res.Body.Close()
				took = append(took, time.Since(at))
				i++
			}
			report(b, took)
		})
	}
}

// TestAStatusThatComesTooLateIsLetFall: what gives up half-way sets a status again; the smith's terminal is not told.
func TestAStatusThatComesTooLateIsLetFall(t *testing.T) {
	var said strings.Builder
	s := httptest.NewUnstartedServer(server.Recoverer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(http.StatusOK)
		_, _ = io.WriteString(w, "half")
		w.WriteHeader(499)
		assert.NoError(t, http.NewResponseController(w).Flush(), "a stream is sent as it comes")
	})))
	s.Config.ErrorLog = log.New(&said, "", 0)
	s.Start()
	answer, err := http.Get(s.URL)
	require.NoError(t, err)
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	s.Close()
	assert.Equal(t, http.StatusOK, answer.StatusCode)
	assert.Equal(t, "half", string(text))
	assert.Empty(t, said.String())
}
