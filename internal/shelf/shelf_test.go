package shelf_test

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"coldember/internal/api"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/shelf"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pages are a front end of one page and a file.
var pages = fs.FS(fstest.MapFS{"index.html": {Data: []byte(`<html lang="en"><body>at the anvil</body></html>`)}, "assets/a.js": {Data: []byte("1")}})

// open is a shelf of the demonstration that is on, with a clock in hand.
type open struct {
	t    *testing.T
	s    *shelf.Shelf
	w    *work.Work
	base string
	off  atomic.Int64 // seconds that the clock is ahead
	pool *x509.CertPool
	data string
}

func newShelf(t *testing.T) *open {
	t.Helper()
	o := &open{t: t, data: filepath.Join(t.TempDir(), "demo.db")}
	demotest.Copy(t, o.data)
	st, err := store.Open(context.Background(), o.data, nil)
	require.NoError(t, err)
	now := func() time.Time { return time.Now().Add(time.Duration(o.off.Load()) * time.Second) }
	o.w = work.New(st, now, work.RandomID)
	o.s = shelf.New(context.Background(), o.w, pages, "127.0.0.1:0", o.data, now)
	t.Cleanup(func() { o.s.Stop(); _ = st.Close() })
	require.NoError(t, o.s.Set(true, false))
	o.base = o.s.State().Addresses[0]
	raw, err := os.ReadFile(o.data + ".shelf.pem")
	require.NoError(t, err)
	o.pool = x509.NewCertPool()
	require.True(t, o.pool.AppendCertsFromPEM(raw))
	return o
}

// browser is a client that trusts the certificate of the shelf, and keeps no cookies of its own.
func (o *open) browser() *http.Client {
	return &http.Client{
		Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: o.pool, MinVersion: tls.VersionTLS12}}, Timeout: 10 * time.Second,
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
	}
}

// ask sends a request; with is told it before.
func (o *open) ask(method, path, body string, with func(*http.Request)) *http.Response {
	o.t.Helper()
	r, err := http.NewRequestWithContext(context.Background(), method, o.base+path, strings.NewReader(body))
	require.NoError(o.t, err)
	r.Header.Set("User-Agent", "tablet")
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	if with != nil {
		with(r)
	}
	res, err := o.browser().Do(r)
	require.NoError(o.t, err)
	o.t.Cleanup(func() { _ = res.Body.Close() })
	return res
}

func (o *open) code() string {
	o.t.Helper()
	require.NoError(o.t, o.s.Pair(work.Screen))
	p := o.s.State().Pairing
	require.NotNil(o.t, p)
	return p.Code
}

// pair sends a code, as the page does.
func (o *open) pair(code, name string) *http.Response {
	return o.ask("POST", "/pair", url.Values{"code": {code}, "name": {name}}.Encode(), func(r *http.Request) {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	})
}

// token pairs a screen.
func (o *open) token() *http.Cookie {
	o.t.Helper()
	res := o.pair(o.code(), "Tablet")
	require.Equal(o.t, http.StatusSeeOther, res.StatusCode)
	c := res.Cookies()[0]
	assert.True(o.t, c.HttpOnly && c.Secure && c.SameSite == http.SameSiteStrictMode && c.Path == "/" && strings.HasPrefix(c.Name, "__Host-"))
	assert.GreaterOrEqual(o.t, len(c.Value), 26, "128 bits and more")
	return c
}

func wrongOf(code string) string {
	if code == "000000" {
		return "000001"
	}
	return "000000"
}

// TestAScreenIsPaired: with the code that the bench shows, once; it then reads what is at the fire, and tells what happens.
func TestAScreenIsPaired(t *testing.T) {
	o := newShelf(t)
	assert.Equal(t, http.StatusUnauthorized, o.ask("GET", "/api/v1/shelf/fires", "", nil).StatusCode)
	assert.Equal(t, "/pair", o.ask("GET", "/shelf", "", nil).Header.Get("Location"))
	form, err := io.ReadAll(o.ask("GET", "/pair?code=123456", "", nil).Body)
	require.NoError(t, err)
	assert.Contains(t, string(form), o.s.State().Fingerprint, "both screens show it")
	assert.Contains(t, string(form), `value="123456"`)
	raw, err := tls.Dial("tcp", strings.TrimPrefix(o.base, "https://"), &tls.Config{RootCAs: o.pool, MinVersion: tls.VersionTLS12})
	require.NoError(t, err)
	assert.Equal(t, o.s.State().Fingerprint, shelf.Fingerprint(raw.ConnectionState().PeerCertificates[0].Raw), "and it is that of the connection")
	require.NoError(t, raw.Close())
	c := o.token()
	with := func(r *http.Request) { r.AddCookie(c) }
	var fires []api.ShelfFire
	res := o.ask("GET", "/api/v1/shelf/fires", "", with)
	require.NoError(t, json.NewDecoder(res.Body).Decode(&fires))
	names := []string{}
	at := ""
	for _, f := range fires {
		names = append(names, f.Name)
		if f.Name == demo.Reed {
			at = f.PieceID
		}
	}
	assert.Contains(t, names, demo.Reed)
	assert.NotContains(t, names, demo.Rigging, "a finished knife is not at the fire")
	var f api.Session
	require.NoError(t, json.NewDecoder(o.ask("GET", "/api/v1/pieces/"+at+"/fire", "", with).Body).Decode(&f))
	said := fmt.Sprintf(`{"nowMs":%d,"events":[{"id":"t-1","device":"t","seq":1,"atMs":%d,"kind":"note","text":"from the shelf"}]}`, time.Now().UnixMilli(), time.Now().UnixMilli())
	res = o.ask("POST", "/api/v1/sessions/"+f.ID+"/events", said, with)
	assert.Equal(t, http.StatusOK, res.StatusCode)
	after, err := o.w.Happened(context.Background(), f.ID, f.Count)
	require.NoError(t, err)
	assert.Equal(t, "from the shelf", after[0].Text)
	shop, err := io.ReadAll(o.ask("GET", "/api/v1/shop", "", with).Body)
	require.NoError(t, err)
	assert.NotContains(t, string(shop), demo.YardHand, "who works here is no matter of a screen's")
	html, err := io.ReadAll(o.ask("GET", "/pieces/"+at+"/fire", "", with).Body)
	require.NoError(t, err)
	assert.Contains(t, string(html), "<html data-shelf ")
	all, err := o.w.AllAccess(context.Background())
	require.NoError(t, err)
	require.Equal(t, "Tablet", all[0].Name)
	require.NoError(t, o.w.RevokeAccess(context.Background(), all[0].ID))
	assert.Equal(t, http.StatusUnauthorized, o.ask("GET", "/api/v1/shelf/fires", "", with).StatusCode, "revoked, it is out at once")
}

// TestACodeCountsOnceAndNotForLong: wrong, run out, used, tried too often, tried too soon.
func TestACodeCountsOnceAndNotForLong(t *testing.T) {
	o := newShelf(t)
	assert.Equal(t, http.StatusForbidden, o.pair("123456", "x").StatusCode, "none was asked for")
	code := o.code()
	assert.Equal(t, http.StatusForbidden, o.pair(wrongOf(code), "x").StatusCode)
	assert.Equal(t, http.StatusTooManyRequests, o.pair(code, "x").StatusCode, "the right one too has to wait after a wrong one")
	o.off.Add(2)
	assert.Equal(t, http.StatusUnprocessableEntity, o.pair(code, "").StatusCode, "a name is wanted, and the code is not lost by it")
	require.Equal(t, http.StatusSeeOther, o.pair(code, "x").StatusCode)
	assert.Equal(t, http.StatusForbidden, o.pair(code, "y").StatusCode, "a code counts once")
	o.off.Add(100)

	code = o.code()
	o.off.Add(int64(shelf.CodeFor/time.Second) + 1)
	assert.Equal(t, http.StatusForbidden, o.pair(code, "x").StatusCode, "it has run out")
	assert.Nil(t, o.s.State().Pairing)

	code = o.code()
	for k := range shelf.CodeTries {
		assert.Equal(t, http.StatusForbidden, o.pair(wrongOf(code), "x").StatusCode, k)
		o.off.Add(1 << k)
	}
	assert.Equal(t, http.StatusForbidden, o.pair(code, "x").StatusCode, "after five wrong ones the right one is none")
	for range 20 { // brute force: slowed, and never let in
		assert.NotEqual(t, http.StatusSeeOther, o.pair(code, "x").StatusCode)
	}
	first := o.code()
	second := o.code()
	if first != second {
		assert.Equal(t, http.StatusForbidden, o.pair(first, "x").StatusCode, "another code ends the one before")
	}
	o.s.Stop()
	require.ErrorIs(t, o.s.Pair(work.Screen), shelf.ErrOff)
}

// TestATokenIsOfOneBrowser, of this host, over HTTPS, and not asked for from elsewhere.
func TestATokenIsOfOneBrowser(t *testing.T) {
	o := newShelf(t)
	c := o.token()
	status := func(f func(*http.Request)) int {
		return o.ask("GET", "/api/v1/shelf/fires", "", func(r *http.Request) { r.AddCookie(c); f(r) }).StatusCode
	}
	assert.Equal(t, http.StatusOK, status(func(*http.Request) {}))
	assert.Equal(t, http.StatusUnauthorized, status(func(r *http.Request) { r.Header.Set("User-Agent", "another") }), "replayed elsewhere")
	assert.Equal(t, http.StatusForbidden, status(func(r *http.Request) { r.Host = "shop.invalid" }))
	assert.Equal(t, http.StatusForbidden, status(func(r *http.Request) { r.Header.Set("Origin", "https://elsewhere.invalid") }))
	assert.Equal(t, http.StatusForbidden, status(func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }))
	assert.Equal(t, http.StatusUnauthorized, status(func(r *http.Request) { r.Header.Set("Cookie", c.Name+"=guess") }))
	_, instrument, err := o.w.AddAccess(context.Background(), "scale", "Scale", "")
	require.NoError(t, err)
	assert.Equal(t, http.StatusUnauthorized, status(func(r *http.Request) { r.Header.Set("Cookie", c.Name+"="+instrument) }), "the key of an instrument is no screen's")
	r, err := http.NewRequestWithContext(context.Background(), http.MethodGet, strings.Replace(o.base, "https", "http", 1)+"/pair", nil)
	require.NoError(t, err)
	res, err := http.DefaultClient.Do(r)
	require.NoError(t, err)
	assert.Equal(t, http.StatusBadRequest, res.StatusCode, "plain HTTP is refused")
	_ = res.Body.Close()
	_, err = (&http.Client{}).Get(o.base + "/pair")
	require.Error(t, err, "nobody trusts it who was not told to")
	often := 0
	for range 400 {
		if status(func(*http.Request) {}) == http.StatusTooManyRequests {
			often++
		}
	}
	assert.Positive(t, often, "nobody asks without end")
}

// TestTheShelfAnswersNothingElse: every route of the API, with a paired screen and without: what the view at the anvil does not
// need is not there.
func TestTheShelfAnswersNothingElse(t *testing.T) {
	o := newShelf(t)
	c := o.token()
	raw, err := api.Document()
	require.NoError(t, err)
	var d struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	require.NoError(t, json.Unmarshal(raw, &d))
	open := map[string]bool{
		"GET /api/v1/pieces/{id}/fire": true, "GET /api/v1/sessions/{id}/events": true, "POST /api/v1/sessions/{id}/events": true, "GET /api/v1/sessions/{id}/now": true, "GET /api/v1/events": true,
		"GET /api/v1/timers": true, "POST /api/v1/timers/{id}/stop": true, "POST /api/v1/pictures": true, "GET /api/v1/pictures/{id}": true, "GET /api/v1/shop": true, "GET /api/v1/shelf/fires": true,
		"POST /api/v1/readings": true, "GET /api/v1/readings/wanted": true,
	}
	send := func(method, path, body string, with func(*http.Request)) int {
		for {
			if is := o.ask(method, path, body, with).StatusCode; is != http.StatusTooManyRequests {
				return is
			}
			time.Sleep(40 * time.Millisecond)
		}
	}
	tried := 0
	for path, methods := range d.Paths {
		at := strings.NewReplacer("{id}", "x", "{name}", "x", "{format}", "svg", "{kind}", "curve", "{n}", "1", "{role}", "body").Replace(path)
		for _, m := range []string{"GET", "POST", "PUT", "PATCH", "DELETE"} {
			if _, is := methods[strings.ToLower(m)]; !is || open[m+" "+path] {
				continue
			}
			tried++
			body := map[bool]string{true: "{}"}[m != "GET"]
			assert.Equal(t, http.StatusNotFound, send(m, at, body, func(r *http.Request) { r.AddCookie(c) }), "%s %s", m, path)
			assert.Equal(t, http.StatusUnauthorized, send(m, at, body, nil), "%s %s", m, path)
		}
	}
	assert.Greater(t, tried, 70)
	for _, path := range []string{"/shop", "/start?key=x", "/rack", "/api/v1/openapi.json", "/pieces/x/log", "/../secret"} {
		assert.Contains(t, []int{http.StatusNotFound, http.StatusBadRequest}, send("GET", path, "", func(r *http.Request) { r.AddCookie(c) }), path)
	}
}

// TestItIsOffAgainUnlessItIsKept, and its certificate stays what it was.
func TestItIsOffAgainUnlessItIsKept(t *testing.T) {
	o := newShelf(t)
	mark := o.s.State().Fingerprint
	assert.False(t, o.s.Kept())
	next := func() *shelf.Shelf {
		return shelf.New(context.Background(), o.w, pages, "127.0.0.1:0", o.data, time.Now)
	}
	assert.False(t, next().Kept())
	assert.False(t, next().State().On)
	require.NoError(t, o.s.Set(true, true))
	assert.True(t, next().Kept())
	o.s.Stop()
	again := next()
	require.NoError(t, again.Set(true, true))
	assert.Equal(t, mark, again.State().Fingerprint)
	require.NoError(t, again.Set(false, true))
	assert.False(t, next().Kept(), "off is off")
	assert.Empty(t, again.State().Addresses)
	for _, f := range []string{".shelf.pem", ".shelf.json"} {
		about, err := os.Stat(o.data + f)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), about.Mode().Perm())
	}
}
