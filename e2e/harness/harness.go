// Package harness runs the whole application and a real browser for tests and
// for the screenshot maker.
package harness

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/http/cookiejar"
	"os"
	"slices"
	"strings"
	"sync"
	"time"

	"coldember/internal/server"
	"coldember/internal/shelf"
	"coldember/internal/store"
	"coldember/internal/work"
	"coldember/web"

	"github.com/chromedp/chromedp"
)

// chromium of Debian, in the form that has no window: it is lighter by a third.
const chromium = "/usr/lib/chromium/chromium-headless-shell"

// App is the application serving one database on a port of its own.
type App struct {
	URL   string
	key   server.Key
	Work  *work.Work
	Shelf *shelf.Shelf
	store *store.Store
	stop  context.CancelFunc
	done  chan error
	once  sync.Once
}

// Serve opens data, prepares it and serves.
func Serve(data string, prepare func(context.Context, *store.Store) error) (*App, error) {
	ctx, stop := context.WithCancel(context.Background())
	st, err := store.Open(ctx, data, nil)
	if err != nil {
		stop()
		return nil, err
	}
	a := &App{key: server.NewKey(), store: st, Work: work.New(st, time.Now, work.RandomID), stop: stop, done: make(chan error, 1)}
	a.Shelf = shelf.New(ctx, a.Work, web.Dist(), "127.0.0.1:0", data, time.Now)
	if err := prepare(ctx, st); err != nil {
		return nil, errors.Join(err, a.Close())
	}
	l, err := server.Listen(ctx, "127.0.0.1:0")
	if err != nil {
		return nil, errors.Join(err, a.Close())
	}
	ready := make(chan net.Addr, 1)
	go func() {
		a.done <- server.Run(ctx, l, server.Handler(a.Work, web.Dist(), a.key, a.Shelf), func(addr net.Addr) { ready <- addr })
	}()
	select {
	case addr := <-ready:
		a.URL = "http://" + addr.String()
		return a, nil
	case err := <-a.done:
		a.done <- err
		return nil, errors.Join(err, a.Close())
	}
}

// Link is a page, by way of the key.
func (a *App) Link(page string) string { return a.key.Link(a.URL, page) }

// Close stops serving and closes the database; a second time does nothing.
func (a *App) Close() error {
	if a == nil {
		return nil
	}
	var err error
	a.once.Do(func() {
		a.Shelf.Stop()
		a.stop()
		if a.URL != "" {
			err = <-a.done
		}
		err = errors.Join(err, a.store.Close())
	})
	return err
}

// Browser is one headless browser; each Page is a tab with its own cookies and
// storage.
type Browser struct {
	ctx    context.Context
	cancel func()
}

// NewBrowser starts it, with what a test wants beside.
func NewBrowser(flags ...chromedp.ExecAllocatorOption) (*Browser, error) {
	dir, err := os.MkdirTemp("", "coldember-browser")
	if err != nil {
		return nil, err
	}
	opts := append(append([]chromedp.ExecAllocatorOption{}, chromedp.DefaultExecAllocatorOptions[:]...),
		chromedp.ExecPath(chromium), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.UserDataDir(dir), chromedp.WindowSize(1280, 800),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("force-device-scale-factor", "1"), chromedp.Flag("font-render-hinting", "none"))
	opts = append(opts, flags...)
	alloc, stop := chromedp.NewExecAllocator(context.Background(), opts...)
	ctx, cancel := chromedp.NewContext(alloc)
	b := &Browser{ctx: ctx, cancel: func() { cancel(); stop(); _ = os.RemoveAll(dir) }}
	if err := chromedp.Do(ctx); err != nil {
		b.cancel()
		return nil, fmt.Errorf("harness: browser: %w", err)
	}
	return b, nil
}

// Close ends the browser.
func (b *Browser) Close() { b.cancel() }

// Page is a tab that remembers what went wrong in it.
type Page struct {
	Ctx    context.Context
	Close  context.CancelFunc
	mu     sync.Mutex
	faults []string
}

// pageTime is how long a page may take for all that a test does on it. Each wait has a bound of its own; this one only ends
// what hangs, also on a machine that is busy with other tests.
const pageTime = 5 * time.Minute

// NewPage opens a tab of the size.
func (b *Browser) NewPage(width, height int64) (*Page, error) {
	p := &Page{}
	ctx, cancel := chromedp.NewContext(b.ctx, chromedp.WithNewBrowserContext())
	ctx, timeout := context.WithTimeout(ctx, pageTime)
	p.Ctx, p.Close = ctx, func() { timeout(); cancel() }
	if err := chromedp.Do(ctx, chromedp.EmulateViewport(width, height)); err != nil {
		p.Close()
		return nil, err
	}
	messages := chromedp.Console(ctx)
	go func() {
		for m, err := range messages {
			if err != nil {
				return
			}
			p.hear(m)
		}
	}()
	return p, nil
}

// refused are answers of the server to what cannot be; the browser logs them
// as failed loads, though the page shows them as intended.
var refused = []string{"status of 422", "status of 409", "status of 401"}

// noWorker is what the browser logs where it looks for a newer worker while the server is away, which is what a worker is for.
const noWorker = "error occurred when fetching the script"

func (p *Page) hear(m chromedp.ConsoleMessage) {
	if m.Type != chromedp.ConsoleError && !m.IsException() {
		return
	}
	if m.Source == "network" && slices.ContainsFunc(refused, func(s string) bool { return strings.Contains(m.Text, s) }) {
		return
	}
	if strings.Contains(m.Text, noWorker) {
		return
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	p.faults = append(p.faults, m.String())
}

// Faults are the console errors and exceptions so far.
func (p *Page) Faults() []string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return append([]string(nil), p.faults...)
}

// Do runs steps, one after the other. A step whose element was drawn anew between being found and
// being used has done nothing yet, and looks for it once more.
func (p *Page) Do(steps ...chromedp.Action[chromedp.Void]) error {
	for _, step := range steps {
		err := chromedp.Do(p.Ctx, step)
		for again := 0; again < 5 && err != nil && strings.Contains(err.Error(), "Could not find node with given id"); again++ {
			err = chromedp.Do(p.Ctx, step)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// Touch makes the page one that is touched with fingers.
func (p *Page) Touch(width, height int64) error {
	return p.Do(chromedp.EmulateViewport(width, height, chromedp.EmulateTouch))
}

// Shot is a picture of the window once fonts are there.
func (p *Page) Shot() ([]byte, error) {
	if _, err := chromedp.Run(p.Ctx, chromedp.Evaluate[bool](`document.fonts.ready.then(() => true)`, chromedp.EvalAwaitPromise)); err != nil {
		return nil, err
	}
	time.Sleep(250 * time.Millisecond)
	return chromedp.Run(p.Ctx, chromedp.CaptureScreenshot())
}

// Get fetches a path of the application.
func (a *App) Get(path string) (*http.Response, error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, err
	}
	return (&http.Client{Jar: jar}).Get(a.Link(path))
}
