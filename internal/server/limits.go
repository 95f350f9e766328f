package server

import (
	"context"
	"net/http"
	"path"
	"time"
)

// How long each kind of request may take before it is given up with its reason: what a
// smith waits for while typing ends first, the whole shop in one file last.
var limits = []struct {
	of    string // a pattern of path.Match, under /api/v1
	limit time.Duration
}{
	{"/calc/*", 10 * time.Second},
	{"/plan/preview", 20 * time.Second},
	{"/plan/states", 20 * time.Second},
	{"/plan/*", 45 * time.Second}, // many plans: largest, rank, sure, hopes, doubts, costs
	{"/stock/*/fits", 45 * time.Second},
	{"/cutplan", 20 * time.Second},
	{"/cutplan/*", 20 * time.Second},
	{"/archive", 5 * time.Minute},
	{"/pieces/*/share.zip", 2 * time.Minute},
	{"/pieces/shared", 2 * time.Minute},
	{"/copies", 5 * time.Minute},
	{"/copies/*/restore", 5 * time.Minute},
}

// usualLimit is that of every other request: a save plans once, and may have to wait for
// its turn.
const usualLimit = 45 * time.Second

// endless is the stream of events.
const endless = "/api/v1/events"

// limitOf is how long a request to a path may take.
func limitOf(urlPath string) time.Duration {
	for _, l := range limits {
		if ok, err := path.Match("/api/v1"+l.of, urlPath); ok && err == nil {
			return l.limit
		}
	}
	return usualLimit
}

// bounded gives up what takes too long; the stream of events has no end.
func bounded(limit func(urlPath string) time.Duration) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.URL.Path == endless {
				next.ServeHTTP(w, r)
				return
			}
			most := limit(r.URL.Path)
			if most > readTimeout {
				// a large file comes and goes as slowly as it may; an error only says that the
				// connection has no limits of its own
				c := http.NewResponseController(w)
				_ = c.SetReadDeadline(time.Now().Add(most))
				_ = c.SetWriteDeadline(time.Now().Add(most + writeTimeout))
			}
			ctx, done := context.WithTimeout(r.Context(), most)
			defer done()
			next.ServeHTTP(w, r.WithContext(ctx))
		})
	}
}
