package e2e

import (
	"os"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// TestOutlinesAreLaidOnASheet: picked and counted, laid by themselves, moved by the keys until
// one is too near, said so, laid anew, and saved to cut by.
func TestOutlinesAreLaidOnASheet(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.do(chromedp.Click(chromedp.CSS("a[href='/sheet']")))
	s.until("the parts", `document.querySelector("input[data-want='Marking knife']")`)
	s.do(chromedp.Click(chromedp.CSS("[data-field='sheet.stock']")))
	s.do(chromedp.Click(chromedp.Search("//*[@role='option'][contains(., 'harrow disc')]")))
	count := func(name, n string) {
		s.do(chromedp.Focus(chromedp.CSS("input[data-want='" + name + "']")))
		s.keys(n)
	}
	count("Marking knife", "3")
	count("Spoon knife", "2")
	s.press("Lay them out")
	s.until("five of them", `document.querySelectorAll("[data-part]").length === 5`)
	assert.Empty(t, s.text("[data-testid=sheet-faults]"))
	assert.Contains(t, s.text("[data-testid=sheet-figures]"), "Left whole")
	assert.Equal(t, 2, js[int](s, `document.querySelectorAll("[data-testid=sheet-ways] [data-way=sawn]").length`), "each part told both ways")
	for _, way := range []string{"sawn", "forged"} {
		assert.Regexp(t, `g\s*(\d+ min|–)?\s*\d+\s*\d+ min`, s.text("[data-testid=sheet-ways] [data-way="+way+"]"))
	}
	assert.Contains(t, s.text("[data-testid=sheet-ways] [data-way=forged]"), "as sold")
	if f := os.Getenv("SHOT"); f != "" {
		b, _ := s.Shot()
		_ = os.WriteFile(f, b, 0o644)
	}
	s.do(chromedp.Focus(chromedp.CSS("[data-part='4']")))
	before := js[string](s, `document.querySelector("[data-part='4']").ariaLabel`)
	for range 9 {
		s.keys(kb.ArrowUp)
	}
	s.until("moved", `document.querySelector("[data-part='4']").ariaLabel !== "`+before+`"`)
	for range 3 {
		s.do(chromedp.Focus(chromedp.CSS("[data-part='4']")), chromedp.KeyEvent(kb.ArrowLeft, chromedp.KeyModifiers(8)))
	}
	for range 12 {
		s.do(chromedp.Focus(chromedp.CSS("[data-part='4']")), chromedp.KeyEvent(kb.ArrowDown, chromedp.KeyModifiers(8)))
	}
	s.until("off the sheet, and said", `document.querySelector("[data-testid=sheet-faults]")`)
	s.press("Lay all anew")
	s.until("sound again", `!document.querySelector("[data-testid=sheet-faults]") && document.querySelectorAll("[data-part]").length === 5`)
	// what is saved is what lies there
	js[bool](s, `(() => { const made = URL.createObjectURL; window.saved = []; URL.createObjectURL = b => { b.text().then(t => window.saved.push(t)); return made.call(URL, b); }; return true })()`)
	s.click("[data-save=dxf]")
	s.until("a DXF", `window.saved.length === 1`)
	dxf := js[string](s, `window.saved[0]`)
	assert.Equal(t, 5, strings.Count(strings.ReplaceAll(dxf, "\r", ""), "POLYLINE\n  8\nPART\n"), "each part once")
	assert.Equal(t, 1, strings.Count(strings.ReplaceAll(dxf, "\r", ""), "LAYER\n  2\nPART\n"), "on one layer")
	s.click("[data-save=svg]")
	s.until("an SVG", `window.saved.length === 2`)
	assert.Equal(t, 5, strings.Count(js[string](s, `window.saved[1]`), `id="part`))
	// a move is taken back; what is kept is there again, and sawn out leaves pieces with their steel
	s.do(chromedp.Focus(chromedp.CSS("[data-part='0']")))
	was := js[string](s, `document.querySelector("[data-part='0']").ariaLabel`)
	s.keys("r")
	s.until("turned", `document.querySelector("[data-part='0']").ariaLabel !== "`+was+`"`)
	s.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	s.until("as it was", `document.querySelector("[data-part='0']").ariaLabel === "`+was+`"`)
	s.click("[data-testid=sheet-keep]")
	s.until("kept", `document.querySelector("[data-testid=sheet-kept]").textContent.includes("Marking knife, Spoon knife")`)
	s.goTo("/rack")
	s.do(chromedp.Click(chromedp.Search("//main//a[contains(., 'harrow disc')]")))
	s.do(chromedp.Click(chromedp.Search("//a[contains(., 'Laid on it')]")))
	s.until("as it was kept", `document.querySelectorAll("[data-part]").length === 5 && document.querySelector("[data-part='0']").ariaLabel === "`+was+`"`)
	count("Cleaver", "1")
	s.press("Lay all anew")
	s.until("too thin, with what it needs", `[...document.querySelectorAll("[role=alert]")].some(e => e.textContent.includes("of thickness"))`)
	s.click("[data-testid=sheet-sawn]")
	s.until("sawn out", `document.querySelector("[data-testid=sheet-kept]").textContent.includes("5 blanks are sawn out")`)
	count("Cleaver", "0")
	s.press("Lay them out")
	s.until("bad where they were", `document.querySelectorAll("[data-testid=sheet] path title").length >= 5`)
}
