package e2e

import (
	"fmt"
	"testing"

	"coldember/internal/demo"
	"coldember/internal/text"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

// tabTo goes on with Tab, as who has no mouse does, until what has the focus is what is meant.
func (s *smith) tabTo(css string) {
	s.t.Helper()
	for range 250 {
		if js[bool](s, fmt.Sprintf(`!!document.activeElement?.matches(%q)`, css)) {
			return
		}
		s.keys(kb.Tab)
	}
	require.Fail(s.t, "no way by keys to "+css)
}

func (s *smith) ctrl(key string) {
	s.t.Helper()
	s.do(chromedp.KeyEvent(key, chromedp.KeyModifiers(chromedp.ModifierCtrl)))
}

// TestEveryTaskByKeys: a piece is planned, changed, taken back, looked through heat by heat, printed, shared and practised; a bar
// goes on the rack; a sheet is laid; what is wanted is found; and the handbook is read, with no other hand than that on the keys.
func TestEveryTaskByKeys(t *testing.T) {
	s := open(t)
	s.goTo("/")
	s.until("pieces", `document.querySelector("main li")`)
	// a new piece
	s.keys("n")
	s.until("three questions", `document.querySelector("[role=dialog] [role=radiogroup]")`)
	s.tabTo("[role=dialog] [role=radio], [role=dialog] [role=radiogroup] input")
	s.keys(kb.ArrowRight)
	s.tabTo("[role=dialog] button.press-act")
	s.keys(kb.Enter)
	s.until("its bench", `/^\/pieces\/[^/]+/.test(location.pathname) && document.querySelector("[data-figure=cut]")`)
	// a figure is changed, and taken back
	s.keys("1")
	s.until("blade", `location.pathname.endsWith("/blade")`)
	s.tabTo("aside input[data-field='design.lengthMm']")
	was := js[string](s, `document.activeElement.value`)
	s.ctrl("a")
	s.keys("133\r")
	s.until("kept", `document.querySelector("[data-save=saved]") && document.querySelector("aside input[data-field='design.lengthMm']").value === "133"`)
	s.keys(kb.Escape)
	s.leave()
	s.ctrl("z")
	s.until("taken back", fmt.Sprintf(`document.querySelector("aside input[data-field='design.lengthMm']").value === %q`, was))
	// its heats
	s.keys("4")
	s.until("heats", `location.pathname.endsWith("/heats")`)
	s.keys("]")
	s.until("the first heat", `location.search.includes("heat=") || document.querySelector("[data-heat], [data-testid=heat]")`)
	s.keys(kb.Escape)
	// its papers
	s.tabTo("[data-testid=print]")
	s.keys(kb.Enter)
	s.until("the menu", `document.querySelector("[role=menu]")`)
	s.eventually("its last entries too", func() bool {
		if js[bool](s, `document.activeElement?.dataset.print === "share"`) {
			return true
		}
		s.keys(kb.ArrowDown) // what it does comes a moment later
		return false
	})
	s.keys(kb.Escape)
	// the rack
	s.leave()
	s.keys("k")
	s.until("the rack", `location.pathname === "/rack" && document.querySelector("[data-item]")`)
	s.keys("n")
	s.until("a form", `document.querySelector("[role=dialog] input[data-field=name]")`)
	for field, typed := range map[string]string{"name": "Keys alone", "piece.widthMm": "30", "piece.thicknessMm": "6", "piece.lengthMm": "400"} {
		js[bool](s, `(document.querySelector("[role=dialog]").focus(), true)`)
		s.tabTo(fmt.Sprintf("[role=dialog] input[data-field='%s']", field))
		s.ctrl("a")
		s.keys(typed)
	}
	s.keys(kb.Escape)
	// found and done
	s.until("closed", `!document.querySelector("[role=dialog]")`)
	s.ctrl("k")
	s.until("the finder", `document.activeElement?.getAttribute("role") === "combobox"`)
	s.keys("oyster kn")
	s.until("found", `document.querySelector("#found [aria-selected=true]")?.textContent.includes("Oyster")`)
	s.keys("\r")
	s.until("open", `location.pathname === "/pieces/`+s.piece(demo.Oyster)+`" || location.pathname.startsWith("/pieces/`+s.piece(demo.Oyster)+`/")`)
	s.ctrl("k")
	s.until("the finder", `document.activeElement?.getAttribute("role") === "combobox"`)
	s.keys("practise this")
	s.until("found", `document.querySelector("#found [aria-selected=true]")?.textContent.includes(`+"`"+text.Say("do.practise", nil)+"`"+`)`)
	s.keys("\r")
	s.until("practice", `location.pathname.startsWith("/practice/piece/") && document.querySelector("main svg")`)
	// the keys and the handbook
	s.leave()
	s.keys("?")
	s.until("the keys", `document.querySelector("[role=dialog] kbd")`)
	s.tabTo(`[role=dialog] a[href="/help"]`)
	s.keys("\r")
	s.until("the handbook", `location.pathname === "/help"`)
	s.tabTo(`main a[href="/help/harden"]`)
	s.keys("\r")
	s.until("a chapter", `location.pathname === "/help/harden"`)
}
