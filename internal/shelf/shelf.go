package shelf

import (
	"context"
	"crypto/tls"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"log"
	"log/slog"
	"net"
	"net/http"
	"os"
	"strconv"
	"strings"
	"sync"
	"time"

	"coldember/internal/api"
	"coldember/internal/text"
	"coldember/internal/work"
)

// Limits of a connection from the network.
const (
	readTimeout  = 15 * time.Second
	writeTimeout = 60 * time.Second
	idleTimeout  = 2 * time.Minute
	stopTimeout  = 800 * time.Millisecond
)

// Shelf is the view at the anvil on the network, on or off.
type Shelf struct {
	work  *work.Work
	front fs.FS
	addr  string // host:port to serve
	files string // what the names of its files begin with
	now   func() time.Time
	pairs *pairing
	rate  *rates
	class http.Handler // of persons

	mu   sync.Mutex
	srv  *http.Server
	at   *net.TCPAddr
	cert tls.Certificate
	base context.Context
}

// New is a shelf that is off. Its certificate, and whether it is kept on, lie in files beside the data.
func New(base context.Context, w *work.Work, front fs.FS, addr, files string, now func() time.Time) *Shelf {
	return &Shelf{work: w, front: front, addr: addr, files: files, now: now, pairs: &pairing{now: now}, rate: newRates(), base: base}
}

// kept is what is remembered from one start to the next.
type kept struct {
	On bool `json:"on"`
}

func (s *Shelf) keptFile() string { return s.files + ".shelf.json" }

// Kept tells whether it is to be on from the start.
func (s *Shelf) Kept() bool {
	raw, err := os.ReadFile(s.keptFile())
	var k kept
	return err == nil && json.Unmarshal(raw, &k) == nil && k.On
}

// Set turns it on or off, and says whether it is kept on at the next start. Errors are those of the address and the files.
func (s *Shelf) Set(on, keep bool) error {
	raw, err := json.Marshal(kept{On: on && keep})
	if err != nil {
		return fmt.Errorf("shelf: %w", err)
	}
	if err := writeAlone(s.keptFile(), raw); err != nil {
		return err
	}
	if on {
		return s.start()
	}
	s.Stop()
	return nil
}

func (s *Shelf) start() error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.srv != nil {
		return nil
	}
	cert, err := certificate(s.files+".shelf.pem", s.now())
	if err != nil {
		return err
	}
	l, err := (&net.ListenConfig{}).Listen(s.base, "tcp", s.addr)
	if err != nil {
		return fmt.Errorf("shelf: %w", err)
	}
	at, _ := l.Addr().(*net.TCPAddr)
	base, letGo := context.WithCancel(context.WithoutCancel(s.base))
	srv := &http.Server{
		Handler: s.handler(), BaseContext: func(net.Listener) context.Context { return base }, ReadTimeout: readTimeout, WriteTimeout: writeTimeout, IdleTimeout: idleTimeout, MaxHeaderBytes: 1 << 14,
		TLSConfig: &tls.Config{Certificates: []tls.Certificate{cert}, MinVersion: tls.VersionTLS12}, ErrorLog: log.New(quiet{}, "", 0),
	}
	srv.RegisterOnShutdown(letGo)
	s.srv, s.at, s.cert = srv, at, cert
	go func() {
		if err := srv.ServeTLS(l, "", ""); !errors.Is(err, http.ErrServerClosed) {
			slog.Error(text.Say("serve.shelfEnded", nil), "error", err)
		}
		letGo()
	}()
	return nil
}

// quiet drops what every scanner on a network would write into the log.
type quiet struct{}

func (quiet) Write(p []byte) (int, error) { return len(p), nil }

// Stop turns it off; a code that is shown counts no more.
func (s *Shelf) Stop() {
	s.mu.Lock()
	srv := s.srv
	s.srv = nil
	s.mu.Unlock()
	s.pairs.end()
	if srv == nil {
		return
	}
	ctx, cancel := context.WithTimeout(context.Background(), stopTimeout)
	defer cancel()
	if srv.Shutdown(ctx) != nil {
		_ = srv.Close()
	}
}

// State is how it stands.
func (s *Shelf) State() api.ShelfState {
	s.mu.Lock()
	defer s.mu.Unlock()
	out := api.ShelfState{Keep: s.Kept(), Addresses: []string{}}
	if s.srv == nil {
		return out
	}
	out.On = true
	out.Fingerprint = Fingerprint(s.cert.Certificate[0])
	_, ips := Hosts()
	for _, ip := range ips {
		if s.at.IP.IsUnspecified() || s.at.IP.Equal(ip) {
			out.Addresses = append(out.Addresses, "https://"+net.JoinHostPort(ip.String(), strconv.Itoa(s.at.Port)))
		}
	}
	if code, kind, until, left := s.pairs.open(); code != "" && len(out.Addresses) > 0 {
		link := out.Addresses[0] + pairPath + "?code=" + code
		svg, err := squares(link)
		if err == nil {
			out.Pairing = &api.Pairing{Code: code, Kind: kind, Until: until, Left: left, Link: link, QR: svg}
		}
	}
	return out
}

// ErrOff says that it has to be on for that.
var ErrOff = api.ErrShelfOff

// Pair shows another code, for a screen or a person of a class. Errors are ErrOff.
func (s *Shelf) Pair(kind string) error {
	s.mu.Lock()
	on := s.srv != nil
	s.mu.Unlock()
	if !on {
		return ErrOff
	}
	_, _, err := s.pairs.begin(kind)
	return err
}

// host tells whether a request names this machine.
func (s *Shelf) host(r *http.Request) bool {
	name, _, err := net.SplitHostPort(r.Host)
	if err != nil {
		name = r.Host
	}
	names, ips := Hosts()
	ip := net.ParseIP(strings.Trim(name, "[]"))
	for _, x := range ips {
		if ip != nil && x.Equal(ip) {
			return true
		}
	}
	for _, n := range names {
		if strings.EqualFold(n, name) {
			return true
		}
	}
	return false
}
