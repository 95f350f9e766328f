package e2e

import (
	"bufio"
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"math/rand/v2"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldember/core/session"
	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// clockwork lets a test drive the clocks of a page, and cut its line to the server.
const clockwork = `(() => {
	if (window.skip) return true;
	const now = Date.now.bind(Date), runs = performance.now.bind(performance), go = window.fetch.bind(window);
	let off = 0, hand = 0;
	window.skip = (s) => { off += s * 1000; return true; };
	window.rest = () => { hand += 1000; return true; };
	Date.now = () => now() + off;
	performance.now = () => runs() + off + hand;
	window.fetch = (...a) => (window.cut ? Promise.reject(new TypeError("cut")) : go(...a));
	return true;
})()`

// atFire opens a piece at the anvil, with its clock in hand.
func (s *smith) atFire(name string) {
	s.t.Helper()
	s.goTo("/pieces/" + s.piece(name) + "/fire")
	s.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	js[bool](s, clockwork)
}

// skip lets so many seconds go by.
func (s *smith) skip(seconds float64) {
	s.t.Helper()
	js[bool](s, fmt.Sprintf(`window.skip(%v)`, seconds))
}

const events = `Number(document.querySelector("[data-testid=anvil]").dataset.events)`

// touch goes on by one key, and waits until it is taken.
func (s *smith) touch(key string) {
	s.t.Helper()
	was := js[int](s, events)
	js[bool](s, `window.rest()`) // a hand is not so quick as this
	s.keys(key)
	s.until("taken", fmt.Sprintf("%s > %d", events, was))
}

// phase is where the piece is.
func (s *smith) phase() string {
	return js[string](s, `document.querySelector("[data-testid=anvil]").dataset.phase`)
}

// fire is what the newest session of a piece came to, and what happened.
func (s *smith) fire(name string) (session.Book, []session.Event) {
	s.t.Helper()
	f, err := s.app.Work.FireOf(context.Background(), s.piece(name))
	require.NoError(s.t, err)
	_, b, err := s.app.Work.BookOf(context.Background(), f.ID)
	require.NoError(s.t, err)
	events, err := s.app.Work.Happened(context.Background(), f.ID, 0)
	require.NoError(s.t, err)
	return b, events
}

// TestAWholePieceIsForgedByOneKey: thirty heats and more, from where the work was broken off
// to its end, with nothing but the space bar and a clock that is driven.
func TestAWholePieceIsForgedByOneKey(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	assert.Equal(t, "away", s.phase())
	high := js[float64](s, `document.querySelector("[data-testid=anvil-left]").getBoundingClientRect().height`)
	assert.Greater(t, high, 150., "the number is read from three metres")
	for range 400 {
		if js[bool](s, `!document.querySelector("[data-testid=anvil-go]").dataset.next`) {
			break
		}
		if s.phase() == "fire" {
			s.skip(300)
			s.until("hot", `document.querySelector("[data-testid=anvil-left]").textContent === "Hot"`)
		}
		s.touch(" ")
	}
	s.until("through", `document.querySelector("[data-phase=finished]")`)
	s.eventually("kept", func() bool { b, _ := s.fire(demo.Reed); return b.Finished })
	b, all := s.fire(demo.Reed)
	assert.GreaterOrEqual(t, b.Totals.Heats, 20)
	for _, h := range b.Heats {
		assert.Less(t, h.WorkS, 60., "heat %d", h.Number)
	}
	seen := map[string]bool{}
	for _, e := range all {
		assert.False(t, seen[e.ID], "once")
		seen[e.ID] = true
	}
	js[bool](s, `window.rest()`)
	s.keys(" ")
	s.until("the book", `document.querySelector("[data-testid=log-panel]")`)
}

// TestAHeatIsCountedDownAndTakenBack: the clock shrinks, the last three seconds are seen, one
// key takes back, another says not yet, and a pedal is taught.
func TestAHeatIsCountedDownAndTakenBack(t *testing.T) {
	s := open(t)
	s.bench(demo.Samphire, "anvil")
	s.click("[data-testid=to-the-fire]")
	s.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	js[bool](s, clockwork)
	assert.Equal(t, "ready", s.phase())
	s.touch(" ")
	left := `Number(document.querySelector("[data-testid=anvil-left]").textContent)`
	s.until("seconds to wait", left+" > 10")
	s.skip(600)
	s.until("hot", `document.querySelector("[data-testid=anvil-left]").textContent === "Hot"`)
	s.touch(" ")
	s.until("out", `document.querySelector("[data-phase=out]")`)
	first := js[float64](s, left)
	s.skip(first - 2.5)
	s.until("the last seconds", left+" <= 3 && "+left+" > 0")
	assert.Contains(t, js[string](s, `document.querySelector("[data-testid=anvil-left]").className`), "f0714d", "ember means now")
	s.skip(4)
	s.until("cold", `document.querySelector("[data-testid=anvil-left]").textContent === "Back"`)
	s.skip(20)
	s.until("taken as back", `document.querySelector("[data-testid=anvil-since]")?.textContent.includes("taken as back")`)
	s.touch(kb.Backspace)
	s.until("in the fire still", `document.querySelector("[data-phase=fire]") && !document.querySelector("[data-testid=anvil-since]").textContent.includes("taken")`)
	s.touch(" ")
	s.touch("n")
	s.until("not done", `document.querySelector("[data-step='1-1']")`)
	b, _ := s.fire(demo.Samphire)
	s.eventually("told", func() bool {
		b, _ = s.fire(demo.Samphire)
		return len(b.Heats) == 1 && len(b.Heats[0].Steps) == 1 && b.Heats[0].Steps[0].NotYet
	})
	s.press("Teach a key")
	s.keys("z")
	s.until("taught", `[...document.querySelectorAll("button")].some(b => b.textContent.includes("Key: z"))`)
	s.skip(300)
	s.touch("z")
	assert.Equal(t, "out", s.phase())
}

// TestReadingsFaultsAndNotesAreTold, and what cannot be is refused where it is typed.
func TestReadingsFaultsAndNotesAreTold(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	enter := func(css, text string) {
		s.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Focus(chromedp.CSS(css)))
		js[bool](s, fmt.Sprintf(`(document.querySelector(%q).select(), true)`, css))
		s.keys(text)
	}
	s.click("[aria-keyshortcuts=R]")
	enter("[data-reading=text]", "2540")
	s.press("Keep it")
	s.until("too much", `[...document.querySelectorAll("[role=dialog] [role=alert]")].some(a => a.textContent.includes("mm"))`)
	enter("[data-reading=text]", "1/2in")
	enter("[data-reading=at]", "4000")
	s.press("Keep it")
	s.until("no such place", `document.querySelector("[data-reading=at][aria-invalid=true]")`)
	enter("[data-reading=at]", "250")
	s.press("Keep it")
	s.until("kept", `!document.querySelector("[role=dialog]")`)
	s.until("shown", `document.querySelector("[data-testid=anvil-beside]").textContent.includes("12.7 mm")`)
	s.click("[aria-keyshortcuts=F]")
	s.choose("fault-kind", "Gouge")
	enter("[data-fault=at]", "60")
	enter("[data-fault=depth]", "0.8")
	s.press("Keep it")
	s.until("kept", `!document.querySelector("[role=dialog]")`)
	s.click("[aria-keyshortcuts=M]")
	enter("[data-note=text]", "rain on the roof")
	s.press("Keep it")
	s.until("kept", `!document.querySelector("[role=dialog]")`)
	s.eventually("all told", func() bool {
		b, _ := s.fire(demo.Reed)
		return len(b.Faults) == 1 && b.Faults[0].Fault.DepthMm == .8 && b.Notes[len(b.Notes)-1].Text == "rain on the roof" && b.Readings[len(b.Readings)-1].Reading.AtMm == 250
	})
	s.goTo("/book")
	s.until("the book, older pieces in it", `document.querySelectorAll("[data-session]").length === 15`)
	s.do(chromedp.Focus(chromedp.CSS("main input")))
	s.keys("gouge")
	s.until("found by its fault", `document.querySelectorAll("[data-session]").length === 1 && document.querySelector("[data-session]").textContent.includes("Reed")`)
}

// TestALineThatIsCutLosesNothing: the screen goes on alone, outlives a reload in that state of
// its queue, and sends when it can.
func TestALineThatIsCutLosesNothing(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	_, before := s.fire(demo.Reed)
	s.touch(" ")
	js[bool](s, `(window.cut = true)`)
	for range 6 {
		s.skip(40)
		s.touch(" ")
	}
	s.until("on its own", `document.querySelector("[data-testid=anvil-line]").dataset.there === "false" && Number(document.querySelector("[data-testid=anvil-line]").dataset.waiting) >= 6`)
	assert.Contains(t, s.text("[data-testid=anvil-line]"), "On its own")
	here := js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`)
	s.do(chromedp.Reload())
	s.until("back, and sent", `document.querySelector("[data-testid=anvil-line]")?.dataset.waiting === "0" && document.querySelector("[data-testid=anvil-line]").dataset.there === "true"`)
	assert.Equal(t, here, js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`))
	_, after := s.fire(demo.Reed)
	assert.Len(t, after, len(before)+7)
}

// TestTwoScreensAgree within a second, whichever is touched.
func TestTwoScreensAgree(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	other := s.window(1024, 768)
	other.atFire(demo.Reed)
	for i := range 6 {
		a, b := s, other
		if i%2 == 1 {
			a, b = other, s
		}
		was := js[int](b, events)
		began := time.Now()
		a.touch(" ")
		b.until("the other has it", fmt.Sprintf("%s > %d", events, was))
		t.Logf("after %v", time.Since(began))
		assert.Equal(t, a.phase(), b.phase())
	}
}

// TestASessionIsReplayed from its log, event by event and played, and it changes nothing.
func TestASessionIsReplayed(t *testing.T) {
	s := open(t)
	_, before := s.fire(demo.Rigging)
	s.bench(demo.Rigging, "log")
	s.click("[data-testid=to-replay]")
	at := func(n int) string {
		return fmt.Sprintf(`document.querySelector("[data-testid=replay]")?.dataset.events === "%d"`, n)
	}
	s.until("at its beginning", at(1))
	s.keys(kb.ArrowRight)
	s.until("into the fire", at(2)+` && document.querySelector("[data-phase=fire]")`)
	s.keys(kb.ArrowRight)
	s.until("out of it", at(3)+` && document.querySelector("[data-phase=out]")`)
	s.keys(kb.ArrowLeft)
	s.until("back", at(2))
	s.press("× 60")
	s.keys(" ")
	s.until("it plays on", `Number(document.querySelector("[data-testid=replay]").dataset.events) > 4`)
	s.keys(kb.Escape)
	s.until("the log", `document.querySelector("[data-testid=log-panel]")`)
	_, after := s.fire(demo.Rigging)
	assert.Equal(t, before, after)
}

// TestAKilledServerIsComeBackTo: whenever it is killed, with the signal that cannot be caught,
// what was acknowledged is there, and the screen finds its way back by itself and sends the
// rest.
func TestAKilledServerIsComeBackTo(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	addr := l.Addr().String()
	require.NoError(t, l.Close())
	all := 3
	if os.Getenv("ABUSE") == "long" {
		all = 300
	}
	for all > 0 {
		n := min(all, 25)
		all -= n
		killedAtTheFire(t, addr, data, n)
	}
}

// killedAtTheFire opens a window on a session, and kills its server n times on the way.
func killedAtTheFire(t *testing.T, addr, data string, n int) {
	t.Helper()
	cmd, link := binaryAt(t, addr, data)
	p, err := browser.NewPage(1280, 800)
	require.NoError(t, err)
	defer p.Close()
	s := &smith{t: t, Page: p}
	s.do(chromedp.Navigate(link))
	s.until("the pieces", fmt.Sprintf(`[...document.querySelectorAll("main a")].some(a => a.textContent.includes(%q))`, demo.Reed))
	id := js[string](s, fmt.Sprintf(`[...document.querySelectorAll("main a")].find(a => a.textContent.includes(%q)).getAttribute("href").split("/")[2]`, demo.Reed))
	s.do(chromedp.Navigate("http://" + addr + "/pieces/" + id + "/fire"))
	s.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	js[bool](s, clockwork)
	for range n {
		for range rand.IntN(4) { //nolint:gosec // any moment will do
			s.touchOrUndo()
		}
		go func(cmd *exec.Cmd) {
			time.Sleep(rand.N(80 * time.Millisecond)) //nolint:gosec // any moment will do
			_ = cmd.Process.Kill()
		}(cmd)
		for range 3 {
			s.touchOrUndo()
		}
		_ = cmd.Wait()
		here := js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`)
		cmd, _ = binaryAt(t, addr, data)
		s.until("back, and all sent", `document.querySelector("[data-testid=anvil-line]").dataset.waiting === "0" && document.querySelector("[data-testid=anvil-line]").dataset.there === "true"`)
		assert.Equal(t, here, js[string](s, `document.querySelector("[data-testid=anvil]").dataset.step`))
	}
	shown := js[int](s, events)
	_ = cmd.Process.Kill()
	_ = cmd.Wait()
	st, err := store.Open(t.Context(), data, nil)
	require.NoError(t, err)
	defer func() { _ = st.Close() }()
	w := work.New(st, time.Now, work.RandomID)
	f, err := w.FireOf(t.Context(), id)
	require.NoError(t, err)
	all, err := w.Happened(t.Context(), f.ID, 0)
	require.NoError(t, err)
	assert.Len(t, all, shown, "all that the screen showed, each once")
}

// touchOrUndo goes on after a while, or back by one where there is nothing to go on with.
func (s *smith) touchOrUndo() {
	s.t.Helper()
	s.skip(40)
	time.Sleep(250 * time.Millisecond) // it is shown
	if js[bool](s, `!document.querySelector("[data-testid=anvil-go]").dataset.next`) {
		s.touch(kb.Backspace)
		return
	}
	s.touch(" ")
}

// binaryAt runs the real program at an address and returns its link.
func binaryAt(t *testing.T, addr, data string) (*exec.Cmd, string) {
	t.Helper()
	cmd := exec.Command("../bin/coldember", "demo", "--addr", addr, "--data", data)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	t.Cleanup(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() })
	lines := bufio.NewScanner(out)
	require.True(t, lines.Scan(), "it says where it is")
	_, link, ok := strings.Cut(lines.Text(), "at ")
	require.True(t, ok, lines.Text())
	return cmd, link
}

// TestAPictureWaitsForTheLine: what is photographed while the line is down is kept here, and goes
// with its note once it can.
func TestAPictureWaitsForTheLine(t *testing.T) {
	s := open(t)
	s.atFire(demo.Reed)
	file := filepath.Join(t.TempDir(), "lip.png")
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 40, 30))))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o600))
	js[bool](s, `(window.cut = true)`)
	s.click("[aria-keyshortcuts=M]")
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-note=text]")), chromedp.Focus(chromedp.CSS("[data-note=text]")))
	js[bool](s, `(document.querySelector("[data-note=text]").select(), true)`)
	s.keys("the lip at the point")
	s.do(chromedp.SetUploadFiles(chromedp.CSS("[data-note=picture]"), []string{file}))
	s.press("Keep it")
	s.until("kept here", `!document.querySelector("[role=dialog]") && document.querySelector("[data-testid=anvil-line]").dataset.waiting === "1"`)
	js[bool](s, `(window.cut = false, true)`)
	s.until("sent", `document.querySelector("[data-testid=anvil-line]").dataset.waiting === "0"`)
	_, all := s.fire(demo.Reed)
	last := all[len(all)-1]
	assert.Equal(t, session.Pictured, last.Kind)
	assert.Equal(t, "the lip at the point", last.Text)
	_, mime, err := s.app.Work.PictureData(context.Background(), last.Picture)
	require.NoError(t, err)
	assert.Equal(t, "image/png", mime)
}
