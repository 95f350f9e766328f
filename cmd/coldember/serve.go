package main

import (
	"context"
	"errors"
	"io"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"time"

	"coldember/internal/demo"
	"coldember/internal/server"
	"coldember/internal/shelf"
	"coldember/internal/store"
	"coldember/internal/text"
	"coldember/internal/work"
	"coldember/web"

	"github.com/spf13/cobra"
)

// Default addresses: the demo has one of its own, so that both can run.
const (
	serveAddr = "127.0.0.1:7420"
	demoAddr  = "127.0.0.1:7421"
	shelfAddr = ":7443"
)

type serving struct {
	addr, data string
	copies     bool // one is made every day of use
	shelf      bool // the view at the anvil is open to the local network
	shelfAddr  string
	open       string // when the browser is opened: never, always, or on a first start
	keepKey    bool   // the key outlives a stop, so that an installed page finds its way back
}

// When the browser is opened by itself.
const (
	openFirst  = "first"
	openAlways = "always"
	openNever  = "never"
)

// lookEvery is how often it is looked whether the copy of the day is due.
const lookEvery = 10 * time.Minute

// keepCopies makes a copy on every day of use, until it is stopped. One that fails is
// shown in the shop, and tried again.
func keepCopies(ctx context.Context, w *work.Work) (stop func()) {
	ctx, cancel := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		for tick := time.NewTicker(lookEvery); ; {
			if _, err := w.CopyDaily(ctx); err != nil && ctx.Err() == nil {
				slog.WarnContext(ctx, text.Say("serve.noCopy", nil), "error", inWords(err))
			}
			select {
			case <-ctx.Done():
				tick.Stop()
				return
			case <-tick.C:
			}
		}
	}()
	return func() { cancel(); <-done }
}

// busyError says that something else is served at the address.
type busyError struct{ addr string }

func (e *busyError) Error() string { return e.addr + " is in use" }

func (s *serving) flags(c *cobra.Command, addr, file string) {
	c.Flags().StringVar(&s.addr, "addr", addr, "")
	c.Flags().BoolVar(&s.shelf, "shelf", false, "")
	c.Flags().StringVar(&s.open, "open", openFirst, "")
	c.Flags().BoolVar(&s.keepKey, "keep-key", false, "")
	c.Flags().StringVar(&s.shelfAddr, "shelf-addr", shelfAddr, "")
	c.Flags().StringVar(&s.data, "data", "", filepath.Join(text.Say("cli.dataFolder", nil), "coldember", file))
}

func serveCommand() *cobra.Command {
	s := serving{copies: true}
	c := &cobra.Command{Use: "serve", Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		return s.run(c.Context(), c.OutOrStdout(), "coldember.db", func(ctx context.Context, st *store.Store) error {
			return work.New(st, time.Now, work.RandomID).Ensure(ctx)
		})
	}}
	s.flags(c, serveAddr, "coldember.db")
	return c
}

func demoCommand() *cobra.Command {
	var s serving
	c := &cobra.Command{Use: "demo", Args: wants(0, 0), RunE: func(c *cobra.Command, _ []string) error {
		return s.run(c.Context(), c.OutOrStdout(), "demo.db", func(ctx context.Context, st *store.Store) error {
			return demo.Build(ctx, st, time.Now())
		})
	}}
	s.flags(c, demoAddr, "demo.db")
	return c
}

// dataFile is where a database lives unless the smith says otherwise.
func dataFile(name string) (string, error) {
	dir := os.Getenv("XDG_DATA_HOME")
	if dir == "" {
		home, err := os.UserHomeDir()
		if err != nil {
			return "", sayError("cli.noHome", nil)
		}
		if dir = filepath.Join(home, ".local", "share"); runtime.GOOS == "windows" && os.Getenv("LocalAppData") != "" {
			dir = os.Getenv("LocalAppData")
		}
	}
	return filepath.Join(dir, "coldember", name), nil
}

func (s *serving) run(ctx context.Context, out io.Writer, name string, prepare func(context.Context, *store.Store) error) (err error) {
	l, err := s.listen(ctx, name)
	if err != nil {
		return err
	}
	defer func() { _ = l.Close() }()
	before, err := store.Look(ctx, s.data)
	first := err != nil || before.Empty // what is wrong with it, Open tells
	st, err := store.Open(ctx, s.data, work.CopyBeforeUpdate(time.Now))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	shared, err := store.KeepFolder(s.data)
	if err != nil {
		return err
	}
	if err := prepare(ctx, st); err != nil {
		return err
	}
	w := work.New(st, time.Now, work.RandomID)
	news, err := begin(ctx, w, !first && before.Form < store.NewestForm)
	if err != nil {
		return err
	}
	if s.copies {
		stop := keepCopies(ctx, w)
		defer stop()
	}
	sh := shelf.New(ctx, w, web.Dist(), s.shelfAddr, s.data, time.Now)
	defer sh.Stop()
	if s.shelf || sh.Kept() {
		if err := sh.Set(true, sh.Kept()); err != nil {
			return err
		}
	}
	link := startFile(s.data)
	key := keptKey(link)
	h := server.Handler(w, web.Dist(), key, sh)
	if !s.keepKey {
		defer func() { _ = os.Remove(link) }()
	}
	var told error
	err = server.Run(ctx, l, h, func(a net.Addr) {
		at := key.Link("http://"+a.String(), "/")
		told = writeAlone(link, at+"\n")
		if (s.open == openAlways || s.open == openFirst && first) && browse(at) != nil {
			_ = said(out, "cli.noBrowser", nil)
		}
		for _, code := range news {
			_ = said(out, code, nil)
		}
		_ = said(out, "serve.at", map[string]string{"at": at, "data": s.data})
		if st := sh.State(); st.On {
			_ = said(out, "serve.shelf", map[string]string{"at": strings.Join(st.Addresses, " "), "fingerprint": st.Fingerprint})
		}
		if shared {
			_ = said(out, "serve.shared", map[string]string{"folder": filepath.Dir(s.data)})
		}
	})
	return errors.Join(err, told)
}

// listen takes the address, and only then makes the folder of the data: where the address is
// taken no file is made.
func (s *serving) listen(ctx context.Context, name string) (net.Listener, error) {
	if s.open != openFirst && s.open != openAlways && s.open != openNever {
		return nil, sayError("cli.wrongFlag", map[string]string{"flag": "open", "value": s.open, "command": "coldember serve"})
	}
	l, err := server.Listen(ctx, s.addr)
	for known, code := range map[error]string{server.ErrAddress: "serve.address", server.ErrNotLoopback: "serve.notLoopback"} {
		if errors.Is(err, known) {
			return nil, sayError(code, map[string]string{"address": s.addr})
		}
	}
	if errors.Is(err, server.ErrBusy) {
		return nil, &busyError{s.addr}
	}
	if err != nil || s.data != "" {
		return l, err
	}
	if s.data, err = dataFile(name); err == nil {
		err = store.MakeFolder(filepath.Dir(s.data))
	}
	if err != nil {
		return nil, errors.Join(err, l.Close())
	}
	return l, nil
}

// begin gets a file ready to be served, and answers with what its shop was not told yet.
func begin(ctx context.Context, w *work.Work, updated bool) ([]string, error) {
	if err := w.Speak(ctx); err != nil {
		return nil, err
	}
	if updated {
		if err := w.Updated(ctx); err != nil {
			return nil, err
		}
	}
	if _, err := w.Tidy(ctx); err != nil {
		return nil, err
	}
	return w.News(ctx)
}
