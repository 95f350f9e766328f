// Package server is the HTTP server: router, middleware, the embedded front
// end, and its lifecycle.
package server

import (
	"bytes"
	"compress/gzip"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"path"
	"strings"
	"syscall"
	"time"

	"coldember/internal/api"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
)

// Limits of a connection.
const (
	readTimeout  = 15 * time.Second
	writeTimeout = 60 * time.Second // or longer, where the answer may take longer
	idleTimeout  = 2 * time.Minute
	drainTimeout = 800 * time.Millisecond // then what is left is cut: nothing acknowledged is in it
)

// Handler is the whole application over the use cases and a front end. Answers
// of the API are not packed: they go to this machine alone, and packing a plan
// takes longer than sending it. Only who has the key gets at the API. With a shelf it can be opened to the network.
func Handler(w *work.Work, front fs.FS, key Key, shelf ...api.Shelf) http.Handler {
	r := chi.NewRouter()
	r.Use(middleware.RequestID, Recoverer, secure, key.guard, bounded(limitOf))
	r.NotFound(func(w http.ResponseWriter, _ *http.Request) {
		api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
	})
	r.MethodNotAllowed(func(w http.ResponseWriter, _ *http.Request) {
		api.WriteProblem(w, http.StatusMethodNotAllowed, "problem.method")
	})
	var onNet api.Shelf
	if len(shelf) > 0 {
		onNet = shelf[0]
	}
	api.Mount(r, w, onNet)
	r.Get(startPath, key.start)
	r.Get("/*", Pages(front, ""))
	return r
}

// ErrNotLoopback refuses to serve to a network, and ErrAddress what is no address.
var (
	ErrNotLoopback = errors.New("server: not of this machine")
	ErrAddress     = errors.New("server: no address")
)

// Loopback checks that addr (host:port) is on this machine.
func Loopback(addr string) error {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return fmt.Errorf("%q: %w", addr, ErrAddress)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return fmt.Errorf("address %q: %w", addr, ErrNotLoopback)
	}
	return nil
}

// ErrBusy says that another program serves the address.
var ErrBusy = errors.New("the address is in use")

// Listen takes an address of this machine; ErrBusy where another program has it.
func Listen(ctx context.Context, addr string) (net.Listener, error) {
	if err := Loopback(addr); err != nil {
		return nil, err
	}
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return nil, fmt.Errorf("%s: %w", addr, ErrBusy)
	}
	if err != nil {
		return nil, fmt.Errorf("serve: %w", err)
	}
	return l, nil
}

// Run serves on what is listened to until the context ends, then lets requests finish. ready
// is told the address that was taken.
func Run(ctx context.Context, l net.Listener, h http.Handler, ready func(net.Addr)) error {
	// whoever waits for events, or for a plan, is let go when it ends
	base, letGo := context.WithCancel(context.WithoutCancel(ctx))
	defer letGo()
	srv := &http.Server{Handler: h, BaseContext: func(net.Listener) context.Context { return base }, ReadTimeout: readTimeout, WriteTimeout: writeTimeout, IdleTimeout: idleTimeout, MaxHeaderBytes: 1 << 16}
	done := make(chan error, 1)
	go func() { done <- srv.Serve(l) }()
	ready(l.Addr())
	select {
	case err := <-done:
		return fmt.Errorf("serve: %w", err)
	case <-ctx.Done():
		stop, cancel := context.WithTimeout(context.WithoutCancel(ctx), drainTimeout)
		defer cancel()
		srv.RegisterOnShutdown(letGo)
		if err := srv.Shutdown(stop); err != nil {
			return srv.Close()
		}
		return nil
	}
}

// Armour sets the headers that every answer has: what a page may load, and that nobody frames it.
func Armour(h http.Header) {
	h.Set("Content-Security-Policy", "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
}

// secure sets the headers of every answer and refuses other hosts and origins:
// a page elsewhere must not reach the smith's own server.
func secure(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		Armour(h)
		host, _, err := net.SplitHostPort(r.Host)
		if err != nil {
			host = r.Host
		}
		if Loopback(net.JoinHostPort(host, "0")) != nil {
			api.WriteProblem(w, http.StatusForbidden, "problem.origin")
			return
		}
		if o := r.Header.Get("Origin"); o != "" && o != "http://"+r.Host {
			api.WriteProblem(w, http.StatusForbidden, "problem.origin")
			return
		}
		if strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		next.ServeHTTP(w, r)
	})
}

// Recoverer logs a panic once and answers without its insides. A status that comes too late, after an answer that nobody waits
// for any more, is let fall.
func Recoverer(next http.Handler) http.Handler {
	return http.HandlerFunc(func(to http.ResponseWriter, r *http.Request) {
		w := middleware.NewWrapResponseWriter(to, r.ProtoMajor)
		defer func() {
			if v := recover(); v != nil {
				slog.ErrorContext(r.Context(), "panic", "value", v, "path", r.URL.Path, "request", middleware.GetReqID(r.Context()))
				api.WriteProblem(w, http.StatusInternalServerError, "problem.internal")
			}
		}()
		next.ServeHTTP(w, r)
	})
}

// asset is a file of the front end, packed once.
type asset struct {
	raw, packed []byte
	kind        string
}

// Pages serves the front end; paths without a file are the application's own
// and get its page, which is marked with an attribute where one is given.
func Pages(front fs.FS, mark string) http.HandlerFunc {
	assets := map[string]asset{}
	_ = fs.WalkDir(front, ".", func(p string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		raw, err := fs.ReadFile(front, p)
		if err != nil {
			return err
		}
		if mark != "" && p == "index.html" {
			raw = bytes.Replace(raw, []byte("<html "), []byte("<html "+mark+" "), 1)
		}
		a := asset{raw: raw, kind: mime.TypeByExtension(path.Ext(p))}
		if path.Ext(p) == ".webmanifest" {
			a.kind = "application/manifest+json"
		}
		if strings.Contains(a.kind, "text") || strings.Contains(a.kind, "javascript") || strings.Contains(a.kind, "svg") {
			var b bytes.Buffer
			z := gzip.NewWriter(&b)
			_, _ = z.Write(raw)
			_ = z.Close()
			a.packed = b.Bytes()
		}
		assets["/"+p] = a
		return nil
	})
	return func(w http.ResponseWriter, r *http.Request) {
		if strings.HasPrefix(r.URL.Path, "/api/") {
			api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
			return
		}
		name := r.URL.Path
		a, ok := assets[name]
		if !ok && path.Ext(name) == "" {
			name = "/index.html"
			a, ok = assets[name]
		}
		if !ok {
			if name == "/index.html" {
				http.Error(w, text.Say("serve.noPages", nil), http.StatusNotFound)
				return
			}
			api.WriteProblem(w, http.StatusNotFound, "problem.notFound")
			return
		}
		w.Header().Set("Content-Type", a.kind)
		w.Header().Set("Cache-Control", "no-cache")
		if strings.HasPrefix(name, "/assets/") { // named by their content
			w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
		}
		send := a.raw
		if a.packed != nil && strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
			w.Header().Set("Content-Encoding", "gzip")
			send = a.packed
		}
		w.Header().Set("Vary", "Accept-Encoding")
		_, _ = io.Copy(w, bytes.NewReader(send))
	}
}
