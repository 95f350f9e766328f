// Package e2e drives the real interface in a real browser.
package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"coldember/e2e/harness"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var browser *harness.Browser

func TestMain(m *testing.M) {
	var err error
	if browser, err = harness.NewBrowser(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	code := m.Run()
	browser.Close()
	os.Exit(code)
}

// smith is somebody at the application.
type smith struct {
	t   testing.TB
	app *harness.App
	*harness.Page
}

func buildDemo(ctx context.Context, s *store.Store) error { return demo.Build(ctx, s, time.Now()) }

// open serves a fresh demonstration and opens a window on it. Tests have a file, a
// server and a window of their own, so that they run beside each other.
func open(t testing.TB) *smith {
	t.Helper()
	if test, ok := t.(*testing.T); ok {
		test.Parallel()
	}
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	return openFile(t, data, func(context.Context, *store.Store) error { return nil })
}

func openFile(t testing.TB, data string, prepare func(context.Context, *store.Store) error) *smith {
	t.Helper()
	app, err := harness.Serve(data, prepare)
	require.NoError(t, err)
	t.Cleanup(func() { _ = app.Close() })
	return (&smith{t: t, app: app}).window(1280, 800)
}

// window opens another window on the same application. Whatever goes wrong on
// its page fails the test.
func (s *smith) window(width, height int64) *smith {
	s.t.Helper()
	p, err := browser.NewPage(width, height)
	require.NoError(s.t, err)
	w := &smith{t: s.t, app: s.app, Page: p}
	s.t.Cleanup(func() {
		assert.Empty(s.t, p.Faults(), "the console must stay clean")
		p.Close()
	})
	return w
}

func (s *smith) do(steps ...chromedp.Action[chromedp.Void]) {
	s.t.Helper()
	require.NoError(s.t, s.Do(steps...))
}

func (s *smith) goTo(path string) { s.t.Helper(); s.do(chromedp.Navigate(s.app.Link(path))) }

func (s *smith) click(css string) {
	s.t.Helper()
	s.unfold(css)
	s.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Click(chromedp.CSS(css)))
}

func (s *smith) keys(k string) { s.t.Helper(); s.do(chromedp.KeyEvent(k)) }

// piece is the id of a piece of the demonstration.
func (s *smith) piece(name string) string {
	s.t.Helper()
	all, _, err := s.app.Work.Pieces(context.Background(), false)
	require.NoError(s.t, err)
	for _, p := range all {
		if p.Doc.Name == name {
			return p.ID
		}
	}
	s.t.Fatalf("no piece %q", name)
	return ""
}

func (s *smith) bench(name, stage string) {
	s.t.Helper()
	s.goTo("/pieces/" + s.piece(name) + "/" + stage)
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]")))
}

func js[T any](s *smith, expression string) T {
	s.t.Helper()
	v, err := chromedp.Run(s.Ctx, chromedp.Evaluate[T](expression))
	require.NoError(s.t, err, expression)
	return v
}

func (s *smith) text(css string) string {
	s.t.Helper()
	return js[string](s, fmt.Sprintf(`(document.querySelector(%q) ?? {textContent: ""}).textContent`, css))
}

// until waits for a condition of the page. A page that is just being left or loaded again
// has no answer yet.
func (s *smith) until(what, expression string) {
	s.t.Helper()
	require.Eventually(s.t, func() bool {
		yes, err := chromedp.Run(s.Ctx, chromedp.Evaluate[bool]("(() => { try { return !!("+expression+") } catch { return false } })()"))
		return err == nil && yes
	}, 40*time.Second, 40*time.Millisecond, what)
}

func (s *smith) saved() {
	s.t.Helper()
	s.until("saved", `document.querySelector("[data-save=saved]")`)
}

// unfold opens the group that a field is folded away in.
func (s *smith) unfold(css string) {
	s.t.Helper()
	s.until("there is "+css, fmt.Sprintf(`document.querySelector(%q)`, css))
	js[bool](s, fmt.Sprintf(`(() => { const e = document.querySelector(%q), d = e.closest("details"); if (d && e.tagName !== "SUMMARY") d.open = true; return true })()`, css))
}

// fill types into a field as a person would: choose all, type, Enter.
func (s *smith) fill(field, text string) {
	s.t.Helper()
	css := fmt.Sprintf(`aside input[data-field=%q]`, field)
	s.unfold(css)
	s.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Focus(chromedp.CSS(css)))
	js[bool](s, fmt.Sprintf(`(document.querySelector(%q).select(), true)`, css))
	s.keys(text + "\r")
}

// leave takes the hand off the field, so that single keys work again.
func (s *smith) leave() { s.t.Helper(); js[bool](s, `(document.activeElement.blur(), true)`) }

// stored is the piece as the server has it.
func (s *smith) stored(name string) work.Piece {
	s.t.Helper()
	p, err := s.app.Work.Piece(context.Background(), s.piece(name))
	require.NoError(s.t, err)
	return p
}
