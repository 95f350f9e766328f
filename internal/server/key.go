package server

import (
	"crypto/rand"
	"crypto/subtle"
	"mime"
	"net"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"coldember/internal/api"
)

// Key is the secret of one start of the server. Who has it may do everything; another
// user of the same machine, who can reach the port as well, may do nothing. A server that
// was killed begins again with the key it had, so that a screen at the anvil finds its way
// back by itself.
type Key string

// NewKey is a key that nobody can guess.
func NewKey() Key { return Key(rand.Text()) }

// KeyIn is the key in a link that Link made; ok is false where it has none.
func KeyIn(link string) (k Key, ok bool) {
	u, err := url.Parse(strings.TrimSpace(link))
	if err != nil || u.Path != startPath {
		return "", false
	}
	k = Key(u.Query().Get("key"))
	return k, len(k) == len(NewKey())
}

// rememberS is how long a browser keeps the key, in seconds: an installed page finds its way back as
// long as the key is good.
const rememberS = 180 * 24 * 3600

// startPath hands the key to a browser, which keeps it in a cookie.
const startPath = "/start"

// Link is where a browser gets the key and goes on to a page.
func (k Key) Link(base, page string) string {
	return base + startPath + "?" + url.Values{"key": {string(k)}, "to": {page}}.Encode()
}

func (k Key) is(given string) bool { return subtle.ConstantTimeCompare([]byte(k), []byte(given)) == 1 }

// cookieName tells the servers of one machine apart: cookies do not look at ports.
func cookieName(r *http.Request) string {
	_, port, err := net.SplitHostPort(r.Host)
	if err != nil {
		port = "80"
	}
	return "coldember-" + port
}

// start gives the key to whoever has it already, as a cookie, and sends them on. Without
// it the page itself says what to do.
func (k Key) start(w http.ResponseWriter, r *http.Request) {
	to := r.URL.Query().Get("to")
	if !strings.HasPrefix(to, "/") || strings.HasPrefix(to, "//") || strings.ContainsAny(to, "\\\r\n") {
		to = "/"
	}
	if k.is(r.URL.Query().Get("key")) {
		http.SetCookie(w, &http.Cookie{Name: cookieName(r), Value: string(k), Path: "/", MaxAge: rememberS, HttpOnly: true, SameSite: http.SameSiteStrictMode})
	}
	w.Header().Set("Cache-Control", "no-store")
	http.Redirect(w, r, to, http.StatusSeeOther)
}

// guard lets nobody reach the API who has not the key, whom the browser knows to come
// from elsewhere, or who sends what the API does not take.
func (k Key) guard(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !strings.HasPrefix(r.URL.Path, "/api/") {
			next.ServeHTTP(w, r)
			return
		}
		if from := r.Header.Get("Sec-Fetch-Site"); from == "cross-site" || from == "same-site" {
			api.WriteProblem(w, http.StatusForbidden, "problem.origin")
			return
		}
		if c, err := r.Cookie(cookieName(r)); (err != nil || !k.is(c.Value)) && !api.Reports(r) {
			api.WriteProblem(w, http.StatusUnauthorized, "problem.locked")
			return
		}
		if !takes(r) {
			api.WriteProblem(w, http.StatusUnsupportedMediaType, "problem.media")
			return
		}
		next.ServeHTTP(w, r)
	})
}

// takes tells whether a request says what its body is; a page elsewhere cannot send any
// of these without being asked about first.
func takes(r *http.Request) bool {
	if r.Method == http.MethodGet || r.Method == http.MethodHead || r.ContentLength == 0 {
		return true
	}
	kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type"))
	return err == nil && slices.Contains([]string{"application/json", "text/csv", "application/octet-stream", "application/x-ndjson"}, kind)
}
