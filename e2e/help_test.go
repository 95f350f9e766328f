package e2e

import (
	"testing"

	"coldember/internal/demo"
	"coldember/internal/edit"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEverythingIsFound by a few letters: actions, settings down to the field, words, chapters, and what somebody wrote; and done
// or gone to with Enter.
func TestEverythingIsFound(t *testing.T) {
	s := open(t)
	// at once on a fresh page, by the place in the frame: words and no codes
	s.goTo("/")
	s.do(chromedp.Click(chromedp.Search("//nav//button[contains(., 'Find')]")))
	s.until("it may be typed", `document.activeElement?.getAttribute("role") === "combobox"`)
	s.keys("temper")
	s.until("a word by its name", `[...document.querySelectorAll("#found [role=option]")].some(e => e.textContent.includes("Temper") && e.textContent.includes("word"))`)
	assert.NotContains(t, s.text("#found"), "term.")
	s.keys(kb.Escape)
	p := s.stored(demo.Rigging)
	_, _, err := s.app.Work.SavePiece(t.Context(), p.ID, p.Version, []edit.Edit{{Field: "notes", Text: "grain like felt on the lee side"}})
	require.NoError(t, err)
	s.bench(demo.Rigging, "blade")
	find := func(letters, want string) {
		t.Helper()
		s.leave()
		js[bool](s, `(document.dispatchEvent(new KeyboardEvent("keydown", { key: "k", ctrlKey: true, bubbles: true })), true)`)
		s.until("the finder", `document.activeElement?.getAttribute("role") === "combobox"`)
		s.keys(letters)
		s.until(letters, `[...document.querySelectorAll("#found [role=option]")].some(o => o.textContent.includes("`+want+`"))`)
		js[bool](s, `([...document.querySelectorAll("#found [role=option]")].find(o => o.textContent.includes("`+want+`")).click(), true)`)
	}
	find("felt", "grain like felt")
	s.until("the piece", `location.pathname === "/pieces/`+p.ID+`"`)
	find("forge temp", "Forge temperature")
	s.until("its field", `location.pathname === "/shop" && document.activeElement?.dataset.field === "fire.tempC"`)
	find("night and day", "Switch night")
	s.until("by day", `document.documentElement.dataset.theme === "day"`)
	find("ricasso", "Ricasso")
	s.until("a word", `location.pathname.startsWith("/words/")`)
	find("without fire", "Without fire")
	s.until("a chapter", `location.pathname === "/help/practice"`)
	find("show the keys", "Show the keys")
	s.until("the keys", `document.querySelector("[role=dialog] kbd")`)
	s.click("[role=dialog] a[href=\"/help\"]")
	s.until("the handbook", `location.pathname === "/help"`)
	s.until("its drawings are there", `(() => { const all = [...document.querySelectorAll("main img")]; all.forEach(i => i.loading = "eager"); return all.length === 4 && all.every(i => i.complete && i.naturalWidth > 100) })()`)
	assert.GreaterOrEqual(t, js[float64](s, `document.querySelectorAll("main h2").length`), 10.0)
	s.press("First walk")
	s.until("it begins", `document.querySelector("[data-walk='1'], [data-walk='2']")`)
}
