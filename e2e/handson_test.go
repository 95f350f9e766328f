package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"coldember/internal/demo"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// handIs waits until the hand is within what css names.
func (s *smith) handIs(where, css string) {
	s.t.Helper()
	s.until("the hand is "+where, fmt.Sprintf(`document.activeElement !== document.body && document.activeElement?.closest(%q)`, css))
}

// TestTheHandIsNeverLost: after a remedy, a dialog, the whole screen, an order and a booking
// the keyboard goes on from there, not from the top of the page.
func TestTheHandIsNeverLost(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.fill("allowances.forgingEdgeMm", "1")
	s.unfold("[data-remedy='allowances.forgingEdgeMm']")
	s.do(chromedp.Focus(chromedp.CSS("[data-remedy='allowances.forgingEdgeMm']")))
	s.keys("\r")
	s.until("the remedy is gone", `!document.querySelector("[data-remedy='allowances.forgingEdgeMm']")`)
	s.handIs("with the figures", "#figures")
	for n, stage := range []string{"blade", "stock", "cut", "heats", "anvil", "cycles", "harden", "finish", "log"} {
		s.keys(fmt.Sprint(n + 1))
		s.until("the stage", `document.querySelector("[data-stage=`+stage+`][aria-current=step]")`)
		s.handIs("in "+stage, "#figures")
	}
	s.keys("5")
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=to-the-fire]")))
	s.keys("\r")
	s.handIs("on the whole screen", "[data-testid=anvil]")
	s.keys(kb.Escape)
	s.until("with its book", `document.querySelector("[data-stage=log][aria-current=step]")`)
	s.keys("4")
	s.keys("?")
	s.handIs("in the sheet", "[role=dialog]")
	s.keys(kb.Escape)
	s.handIs("back again", "main")
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=compare-ways]")))
	s.keys("\r")
	s.handIs("in the comparison", "[role=dialog]")
	s.keys(kb.Escape)
	s.handIs("back at its button", "[data-testid=compare-ways]")
	s.do(chromedp.Focus(chromedp.CSS("[data-grip=bevel]")))
	s.keys(kb.ArrowUp)
	s.handIs("at the grip that was moved", "[data-grip=bevel]")
	s.bench(demo.Rigging, "cut")
	s.do(chromedp.Focus(chromedp.CSS("[data-cut=body] button")))
	s.keys("\r")
	s.until("booked", `document.querySelector("[data-cut=body][data-state=booked]")`)
	s.handIs("with the figures", "#figures")
	s.goTo("/")
	s.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	s.keys("n")
	s.handIs("in the questions", "[role=dialog]")
	s.keys(kb.Escape)
	s.until("closed", `!document.querySelector("[role=dialog]")`)
	s.handIs("on the page", "main")
}

// TestFewStopsBeforeTheFigures: a link past the menu and the drawing; the heats are one stop,
// and the arrows go on from it; each page is named.
func TestFewStopsBeforeTheFigures(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	assert.Equal(t, "Rigging knife – Blade – Cold Ember", js[string](s, `document.title`))
	s.keys(kb.Tab)
	s.handIs("on the link", "[data-testid=skip-figures]")
	s.keys("\r")
	s.handIs("at the figures", "#figures")
	s.keys(kb.Tab)
	s.handIs("in the first of them", "[data-field='design.shape']")
	s.do(chromedp.Focus(chromedp.CSS("[data-heat='1']")))
	s.keys(kb.ArrowRight + kb.ArrowRight)
	s.handIs("at the third heat", "[data-heat='3']")
	s.keys(kb.End)
	s.until("at the last", `Number(document.activeElement.dataset.heat) === document.querySelectorAll("[data-heat]").length`)
	assert.InDelta(t, 1, js[float64](s, `document.querySelectorAll("[data-heat][tabindex='0']").length`), 0)
	for path, title := range map[string]string{"/": "Pieces", "/patterns": "Patterns", "/rack": "Rack", "/cuts": "Cut plan", "/shop": "Shop", "/words": "Words", "/nowhere": "Nothing here"} {
		s.goTo(path)
		s.until(title, fmt.Sprintf(`document.title === %q`, title+" – Cold Ember"))
	}
}

// TestWhatChangesIsTold to those who listen: the bar, the heats, and what will not do.
func TestWhatChangesIsTold(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "blade")
	assert.Empty(t, s.text("[data-testid=told]"))
	s.fill("design.heightMm", "75")
	s.until("too narrow", `/Bar \d+ mm \(\d+–\d+\)\. \d+ heats\. .*too narrow/.test(document.querySelector("[data-testid=told]").textContent)`)
	assert.Equal(t, "polite", js[string](s, `document.querySelector("[data-testid=told]").ariaLive`))
}

// TestHandlesAreLargeEnough for a pointer of any kind.
func TestHandlesAreLargeEnough(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	least := `Math.min(...[...document.querySelectorAll("[data-handle] .hit, [data-node] .hit, [data-testid=play]")].map(e => { const r = e.getBoundingClientRect(); return Math.min(r.width, r.height) }))`
	assert.GreaterOrEqual(t, js[float64](s, least), 24.0)
	s.keys("n")
	s.until("nodes", `document.querySelector("[data-node]")`)
	assert.GreaterOrEqual(t, js[float64](s, least), 24.0)
	require.NoError(t, s.Touch(1024, 768))
	s.until("for fingers", least+` >= 43.9`)
}

// TestLabelsDoNotOverlap on the pieces that have least room: as the browser draws them.
func TestLabelsDoNotOverlap(t *testing.T) {
	s := open(t)
	over := `(() => {
		const boxes = [...document.querySelectorAll("main svg [data-label], [data-dim]")].map(e => [e.dataset.dim ?? e.textContent, e.getBoundingClientRect()]);
		return boxes.flatMap(([a, p], i) => boxes.slice(i + 1).filter(([, q]) => Math.min(p.right, q.right) - Math.max(p.left, q.left) > 1 && Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top) > 1).map(([b]) => a + " over " + b));
	})()`
	for _, name := range []string{demo.Oyster, demo.Samphire, demo.Rigging} {
		s.bench(name, "blade")
		s.do(chromedp.Sleep(200 * time.Millisecond))
		assert.Empty(t, js[[]string](s, over), name)
		for range 3 {
			s.keys("]")
			s.do(chromedp.Sleep(300 * time.Millisecond))
			assert.Empty(t, js[[]string](s, over), name)
		}
	}
	s.bench(demo.Slicer, "blade")
	for _, f := range [][2]string{{"design.ricasso.lengthMm", "10"}, {"design.tang.lengthMm", "60"}, {"design.lengthMm", "900"}} {
		s.fill(f[0], f[1])
		s.until(f[0], `document.querySelector("[data-save=saved]") || document.querySelector("[data-save=saving]")`)
	}
	s.until("drawn", `document.querySelector("[data-figure=blade]").textContent === "900 mm"`)
	assert.Empty(t, js[[]string](s, over), "900 mm")
}

// axed is what finds fault with a state of a page.
type axed struct{ script string }

func (a axed) check(w *smith, state string) {
	w.t.Helper()
	w.do(chromedp.Sleep(250 * time.Millisecond))
	js[bool](w, a.script+"; true")
	found, err := chromedp.Run(w.Ctx, chromedp.Evaluate[[]string](`axe.run(document, {resultTypes: ["violations"]}).then(r =>
		r.violations.map(v => v.id + " (" + v.impact + "): " + v.nodes.map(n => n.target + " " + n.failureSummary).slice(0, 3).join(" | ")))`, chromedp.EvalAwaitPromise))
	require.NoError(w.t, err)
	assert.Empty(w.t, found, state)
}

// TestAxeFindsNothing of any weight, in any state that a page can be in. Every group has a window, and a page's time, of its own.
func TestAxeFindsNothing(t *testing.T) {
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	a := axed{string(axe)}
	for name, states := range map[string]func(*smith){"pages": a.pages, "dialogs": a.dialogs, "stages": a.stages, "at the fire": a.atTheFire, "heats and menus": a.heatsAndMenus, "day and phone": a.dayAndPhone} {
		t.Run(name, func(t *testing.T) { states(open(t)) })
	}
	t.Run("empty", func(t *testing.T) {
		w := openEmpty(t)
		for _, path := range []string{"/", "/rack", "/cuts", "/patterns", "/sheet", "/book", "/learned", "/day", "/practice/sheet"} {
			w.goTo(path)
			w.do(chromedp.WaitVisible(chromedp.CSS("main h1")))
			a.check(w, "empty "+path)
		}
	})
}

func (a axed) pages(w *smith) {
	for path, wait := range map[string]string{"/": "main li", "/patterns": "main li", "/rack": "main li", "/shop": "main fieldset", "/cuts": "main li", "/words": "main li", "/nowhere": "main h1", "/help": "main h2", "/practice": "main h1", "/practice/cold": "main h1, main svg", "/practice/colours": "main h1", "/practice/sheet": "main h1", "/learned": "main h1", "/sheet": "main h1", "/day": "main h1"} {
		w.goTo(path)
		w.do(chromedp.WaitVisible(chromedp.CSS(wait)))
		a.check(w, path)
	}
	w.goTo("/book")
	w.do(chromedp.WaitVisible(chromedp.CSS("[data-session]")))
	a.check(w, "the book")
}

func (a axed) dialogs(w *smith) {
	w.goTo("/?new")
	w.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog] [role=radiogroup] label")))
	a.check(w, "new piece")
	w.goTo("/patterns")
	w.click("main li a")
	w.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog]")))
	a.check(w, "a pattern")
	w.goTo("/rack")
	w.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	w.press("Table in")
	w.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog]")))
	a.check(w, "table in")
	w.goTo("/rack")
	w.click("[data-item='Lorry spring end']")
	w.do(chromedp.WaitVisible(chromedp.CSS("[data-verdict]")))
	a.check(w, "a piece of stock")
}

func (a axed) stages(w *smith) {
	for _, stage := range []string{"blade", "stock", "cut", "heats", "anvil", "cycles", "harden", "finish", "log"} {
		w.bench(demo.SlicerNarrow, stage)
		js[bool](w, `(document.querySelectorAll("aside details").forEach(d => { d.open = true }), true)`)
		a.check(w, stage+", all unfolded")
	}
	w.bench(demo.Rigging, "log")
	w.do(chromedp.WaitVisible(chromedp.CSS("[data-testid=log-overlay]")))
	a.check(w, "a whole log")
}

func (a axed) atTheFire(w *smith) {
	w.goTo("/pieces/" + w.piece(demo.Reed) + "/fire")
	w.do(chromedp.WaitVisible(chromedp.CSS("[data-testid=anvil]")))
	a.check(w, "at the anvil")
	for key, what := range map[string]string{"R": "a reading", "F": "a fault", "M": "a note"} {
		w.click("[aria-keyshortcuts=" + key + "]")
		w.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog]")))
		a.check(w, what)
		w.keys(kb.Escape)
		w.until("closed", `!document.querySelector("[role=dialog]")`)
	}
}

func (a axed) heatsAndMenus(w *smith) {
	w.bench(demo.SlicerNarrow, "heats")
	w.keys("]]")
	a.check(w, "one heat")
	w.click("[data-testid=compare-ways]")
	w.until("compared", `document.querySelectorAll("[data-testid=ways] tr[data-way]").length > 0`)
	a.check(w, "compare")
	w.keys(kb.Escape)
	for _, menu := range []string{"button[aria-label=More]", "[data-testid=print]", "[data-testid=key]"} {
		w.until("no dialog", `!document.querySelector("[role=dialog], [role=menu]")`)
		w.click(menu)
		a.check(w, menu)
		w.keys(kb.Escape)
	}
}

func (a axed) dayAndPhone(w *smith) {
	w.goTo("/")
	w.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	w.keys("t")
	w.until("day", `document.documentElement.dataset.theme === "day"`)
	w.bench(demo.SlicerNarrow, "heats")
	w.keys("]]")
	a.check(w, "one heat, by day")
	phone := w.window(390, 844)
	phone.bench(demo.SlicerNarrow, "cut")
	a.check(phone, "a phone")
}

// seeing is how somebody sees: larger, with colours of their own, without motion.
type seeing struct {
	wide, high int64 // of the window at 200 %
	media      map[string]string
}

// TestSeenAsSomebodyNeedsIt: at 200 % nothing has to be scrolled to both sides and nothing that is to be pressed is out of reach;
// with colours forced what has the focus and what is chosen are still seen; where motion is not wanted nothing moves.
func TestSeenAsSomebodyNeedsIt(t *testing.T) {
	s := open(t)
	paths := []string{"/", "/patterns", "/rack", "/shop", "/cuts", "/words", "/help", "/practice/cold", "/learned", "/pieces/" + s.piece(demo.Rigging) + "/heats", "/pieces/" + s.piece(demo.Rigging) + "/log"}
	for what, see := range map[string]seeing{
		"200 %":          {640, 400, nil},
		"forced colours": {1280, 800, map[string]string{"forced-colors": "active"}},
		"less motion":    {1280, 800, map[string]string{"prefers-reduced-motion": "reduce"}},
	} {
		w := s.window(see.wide, see.high)
		for feature, value := range see.media {
			_, err := chromedp.Call(w.Ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: feature, Value: value}}})
			require.NoError(t, err)
		}
		for _, path := range paths {
			w.goTo(path)
			w.until("there: "+path, `document.querySelector("main h1, main svg, main canvas, main [data-figure]")`)
			w.do(chromedp.Sleep(150 * time.Millisecond))
			assert.LessOrEqual(t, js[float64](w, `document.scrollingElement.scrollWidth - innerWidth`), 0.0, "%s at %s", path, what)
			switch what {
			case "200 %":
				assert.Empty(t, js[string](w, outOfReach), "%s at %s", path, what)
			case "forced colours":
				w.keys(kb.Tab)
				assert.NotEqual(t, "none 0px", js[string](w, `(() => { const c = getComputedStyle(document.activeElement); return c.outlineStyle + " " + c.outlineWidth })()`), "%s: the focus is seen", path)
			default:
				assert.Empty(t, js[string](w, `document.getAnimations().filter(a => a.playState === "running" && (a.effect.getTiming().duration > 10)).map(a => a.effect.target?.className).join(" | ")`), path)
			}
		}
	}
}

// outOfReach lists what is to be pressed and lies outside of whatever scrolls around it.
const outOfReach = `[...document.querySelectorAll("button, a[href], input, select")].filter(e => {
	if (!e.checkVisibility() || e.closest(".sr-only") || e.classList.contains("sr-only")) return false;
	const r = e.getBoundingClientRect();
	if (r.width === 0) return false;
	for (let p = e.parentElement; p; p = p.parentElement) {
		const s = getComputedStyle(p);
		if (/auto|scroll/.test(s.overflowX + s.overflowY) && (p.scrollHeight > p.clientHeight || p.scrollWidth > p.clientWidth)) return false;
	}
	return r.right < 0 || r.left > innerWidth || r.bottom < 0 || r.top > innerHeight;
}).map(e => (e.textContent || e.getAttribute("aria-label") || e.tagName).trim().slice(0, 30)).join(" | ")`

// openEmpty is a window on a file with nothing in it yet.
func openEmpty(t testing.TB) *smith {
	return openFile(t, filepath.Join(t.TempDir(), "own.db"), func(ctx context.Context, st *store.Store) error {
		return work.New(st, time.Now, work.RandomID).Ensure(ctx)
	})
}
