package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheMenuStartsTheApplication: opened from the menu of a desktop it starts where it does not run yet, finds the one that runs,
// and comes up with the same key once it was killed.
func TestTheMenuStartsTheApplication(t *testing.T) {
	data := filepath.Join(t.TempDir(), "own.db")
	open := func() string {
		cmd := exec.CommandContext(t.Context(), "../bin/coldember", "open", "--start", "--show", "--addr", "127.0.0.1:0", "--data", data)
		out, err := cmd.CombinedOutput()
		require.NoError(t, err, string(out))
		return strings.TrimSpace(string(out))
	}
	t.Cleanup(func() { stopServing(data) })
	link := open()
	res, err := http.Get(link) //nolint:gosec // our own
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.Equal(t, link, open(), "the one that runs")
	require.Equal(t, 1, stopServing(data), "one server, which goes on when who started it ended")
	bad := exec.CommandContext(t.Context(), "../bin/coldember", "open", "--start", "--show", "--addr", "192.0.2.1:1", "--data", data)
	out, err := bad.CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "The application did not start")
	assert.Contains(t, string(out), "only this machine is served")
}

// stopServing stops the servers of a file, and counts them.
func stopServing(data string) (n int) {
	all, _ := filepath.Glob("/proc/[0-9]*/cmdline")
	for _, f := range all {
		line, err := os.ReadFile(f)
		if err != nil || !bytes.Contains(line, []byte("serve\x00--data\x00"+data)) {
			continue
		}
		pid, err := strconv.Atoi(filepath.Base(filepath.Dir(f)))
		if err == nil && syscall.Kill(pid, syscall.SIGTERM) == nil {
			n++
		}
	}
	return n
}

// TestAnInstalledPageFindsItsWayBack: it may be installed, says what to do where the application does not run, and goes on with
// the key it had once it does.
func TestAnInstalledPageFindsItsWayBack(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	cmd, base, client := startBinary(t, "demo", "--data", data, "--keep-key")
	res, err := client.Get(base + "/manifest.webmanifest")
	require.NoError(t, err)
	var manifest struct {
		Name, Display string
		Icons         []struct{ Src, Type string }
	}
	require.NoError(t, json.NewDecoder(res.Body).Decode(&manifest))
	require.NoError(t, res.Body.Close())
	assert.Equal(t, "application/manifest+json", res.Header.Get("Content-Type"))
	assert.Equal(t, "standalone", manifest.Display)
	for _, icon := range manifest.Icons {
		res, err := client.Get(base + icon.Src)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, icon.Type, strings.Split(res.Header.Get("Content-Type"), ";")[0])
	}
	link, err := os.ReadFile(data + ".start")
	require.NoError(t, err)
	p, err := browser.NewPage(1280, 800) // whose console may tell that nobody answers
	require.NoError(t, err)
	t.Cleanup(p.Close)
	s := &smith{t: t, Page: p}
	s.do(chromedp.Navigate(strings.TrimSpace(string(link))))
	s.until("the worker has its words", `caches.match("/not-running").then(r => window.told = !!r) && window.told`)
	require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
	_ = cmd.Wait()
	js[bool](s, `(location.href = "/rack", true)`)
	s.until("what to do", `document.body.textContent.includes("coldember open --start")`)
	again := exec.CommandContext(t.Context(), "../bin/coldember", "demo", "--data", data, "--keep-key", "--addr", strings.TrimPrefix(base, "http://"))
	require.NoError(t, again.Start())
	t.Cleanup(func() { _ = again.Process.Kill(); _ = again.Wait() })
	time.Sleep(100 * time.Millisecond)
	s.until("it is back", `(document.querySelector("a[href='/']")?.click(), document.querySelector("main h1")?.textContent === "Pieces")`)
}

// TestTheFirstWalk: a newcomer is walked through five steps, and leaves when they like; an older shop is told what is new, once.
func TestTheFirstWalk(t *testing.T) {
	s := openFile(t, filepath.Join(t.TempDir(), "new.db"), func(context.Context, *store.Store) error { return nil })
	require.NoError(t, s.app.Work.Ensure(t.Context()))
	s.goTo("/")
	s.until("first step", `document.querySelector("[data-walk='1']")?.textContent.includes("A knife")`)
	s.press("Show me")
	s.until("three questions", `location.search.startsWith("?new")`)
	s.keys("\x1b")
	patterns, _, err := s.app.Work.Patterns(t.Context(), false)
	require.NoError(t, err)
	bar, err := s.app.Work.AddStock(t.Context(), doc.Stock{Name: "Bar", Piece: stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}, SteelID: "80CrV2"})
	require.NoError(t, err)
	own, _, err := s.app.Work.StartPiece(t.Context(), work.NewPiece{Name: "Own knife", PatternID: patterns[0].ID, StockID: bar.ID})
	require.NoError(t, err)
	s.goTo("/")
	s.until("can go on", `[...document.querySelectorAll("[data-walk] button")].some(b => b.textContent === "Next")`)
	s.press("Next")
	s.until("next step", `document.querySelector("[data-walk='2']")`)
	s.press("Show me")
	s.until("there", `location.pathname === "/pieces/`+own.ID+`/cut"`)
	s.press("Next")
	s.until("third", `document.querySelector("[data-walk='3']")`)
	js[bool](s, `(document.querySelector("[data-walk] button[aria-label^=Leave]").click(), true)`)
	s.until("left", `!document.querySelector("[data-walk]")`)
	shop, err := s.app.Work.Shop(t.Context())
	require.NoError(t, err)
	assert.Zero(t, shop.Doc.Walk)
	_, err = s.app.Work.EditShop(t.Context(), shop.Version, []edit.Edit{{Field: "newsSeen", Text: "6"}})
	require.NoError(t, err)
	s.goTo("/")
	s.until("what is new", `document.querySelectorAll("[data-news] li").length === 4`)
	s.press("Read")
	s.until("read", `!document.querySelector("[data-news]")`)
}
