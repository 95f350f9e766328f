package e2e

import (
	"context"
	"fmt"
	"path/filepath"
	"strings"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// beginner has an empty file before them, and counts what it takes.
type beginner struct {
	*smith
	pressed, clicked, entries int
}

func begin(t *testing.T) *beginner {
	t.Helper()
	t.Parallel()
	s := openEmpty(t)
	s.goTo("/")
	s.until("an empty list says what to do", `document.querySelector("main").textContent.includes("three questions")`)
	return &beginner{smith: s}
}

// strike presses keys one after the other.
func (b *beginner) strike(keys string) {
	b.t.Helper()
	for _, k := range keys {
		b.pressed++
		b.keys(string(k))
	}
}

// on clicks what has the words.
func (b *beginner) on(css, words string) {
	b.t.Helper()
	b.clicked++
	at := chromedp.Search("//" + css + "[contains(., '" + words + "')]")
	b.do(chromedp.WaitVisible(at), chromedp.Click(at))
}

// enter types into the field that the hand is at.
func (b *beginner) enter(text string) { b.t.Helper(); b.entries++; b.keys(text) }

// at is the field that the hand is at.
func (b *beginner) at(field string) {
	b.t.Helper()
	b.until("the hand is at "+field, `document.activeElement?.dataset.field === "`+field+`"`)
}

// marked waits for the marks of a bar.
func (b *beginner) marked() {
	b.t.Helper()
	b.do(chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]")))
	b.until("the marks are on the bar", `document.querySelector("[data-figure=cut]").textContent.includes("mm") && document.querySelectorAll("section svg [data-mark]").length >= 3`)
	all, _, err := b.app.Work.Pieces(context.Background(), false)
	require.NoError(b.t, err)
	require.Len(b.t, all, 1)
	assert.InDelta(b.t, 25, all[0].Doc.Request.Bar.WidthMm, 1e-9)
	assert.InDelta(b.t, 5, all[0].Doc.Request.Bar.ThicknessMm, 1e-9)
}

// TestTheFirstBarIsMarkedByKeys: a knife of 100 mm on 25 × 5, in at most twelve keys.
func TestTheFirstBarIsMarkedByKeys(t *testing.T) {
	b := begin(t)
	b.strike("n")
	b.at("steelId")
	b.strike("1084")
	b.until("the steel is chosen", `document.activeElement.textContent.includes("1084")`)
	b.strike("\t25\t5\r")
	b.marked()
	assert.LessOrEqual(t, b.pressed, 12)
	p := b.stored("Utility knife")
	assert.InDelta(t, 100, p.Doc.Request.Design.LengthMm, 1e-9)
	assert.Equal(t, "1084", p.Doc.Request.SteelID)
}

// TestTheFirstBarIsMarkedByMouse in at most five clicks and three entries.
func TestTheFirstBarIsMarkedByMouse(t *testing.T) {
	b := begin(t)
	b.on("button", "New piece")
	b.until("the questions", `document.querySelector("[role=dialog] [data-field=steelId]")`)
	b.clicked++
	b.click("[role=dialog] [data-field=steelId]")
	b.on("*[@role='option']", "1084")
	b.clicked++
	b.click("[role=dialog] input[data-field='bar.widthMm']")
	b.enter("25")
	b.keys(kb.Tab)
	b.enter("5")
	b.on("button", "Plan it")
	b.marked()
	assert.LessOrEqual(t, b.clicked, 5)
	assert.LessOrEqual(t, b.entries, 3)
}

// TestTheFirstBarComesFromTheRack: put on the rack, and a knife made of it.
func TestTheFirstBarComesFromTheRack(t *testing.T) {
	b := begin(t)
	b.keys("k")
	b.until("an empty rack says what to do", `document.querySelector("main").textContent.includes("Add")`)
	b.keys("n")
	b.at("name")
	for field, text := range map[string]string{"name": "Bar", "piece.widthMm": "25", "piece.thicknessMm": "5", "piece.lengthMm": "1000"} {
		b.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field='" + field + "']")))
		b.keys(text)
	}
	b.choose("steelId", "1084")
	b.press("Keep")
	b.on("a", "Make a knife of this")
	b.until("the bar is chosen, and what comes of it is told", `document.querySelector("[role=dialog] [data-fit]")`)
	b.press("Plan it")
	b.marked()
}

// TestTheFirstBarIsForAPattern that was looked at first; what is missing is said.
func TestTheFirstBarIsForAPattern(t *testing.T) {
	b := begin(t)
	b.keys("l")
	b.on("li//a", "Utility knife")
	b.on("a", "Plan this pattern")
	b.at("steelId")
	b.press("Plan it")
	b.until("the bar is asked for", `document.querySelectorAll("[role=dialog] [role=alert]").length === 3`)
	assert.Equal(t, "bar.lengthMm", js[string](b.smith, `[...document.querySelectorAll("[role=dialog] input[data-field^='bar.']")].at(-1).dataset.field`))
	b.choose("steelId", "1084")
	for field, text := range map[string]string{"bar.widthMm": "25", "bar.thicknessMm": "5"} {
		b.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field='" + field + "']")))
		b.keys(text)
	}
	b.press("Plan it")
	b.marked()
}

// TestTheFirstKnifeComesFromAFile: a drawing that does not say its unit is asked for it.
func TestTheFirstKnifeComesFromAFile(t *testing.T) {
	b := begin(t)
	file, err := filepath.Abs("../internal/drawing/testdata/light-polyline.dxf")
	require.NoError(t, err)
	b.do(chromedp.SetUploadFiles(chromedp.CSS("[data-testid=file-in]"), []string{file}))
	b.until("its name is there, its length is not", `document.querySelector("[role=dialog] input[data-field=name]")?.value === "light-polyline" && document.querySelector("[role=dialog] input[data-field=length]").value === ""`)
	b.press("Take this outline")
	b.at("steelId")
	b.keys("1084")
	b.keys("\t25\t5\r")
	b.marked()
	assert.InDelta(t, 120, b.stored("light-polyline").Doc.Request.Design.LengthMm, .1)
}

// drop lets a file fall on the page, as a hand would.
func (s *smith) drop(name, text string) {
	s.t.Helper()
	js[bool](s, fmt.Sprintf(`(() => {
		const what = new DataTransfer();
		what.items.add(new File([%q], %q));
		const on = document.querySelector("main h1");
		for (const type of ["dragenter", "dragover", "drop"]) on.dispatchEvent(new DragEvent(type, {bubbles: true, cancelable: true, dataTransfer: what}));
		return true;
	})()`, text, name))
}

// TestFilesAreDroppedWhereTheyBelong: a pattern on the library, a table on the rack, an
// outline on the bench; what belongs elsewhere, or is misspelt, is said and not taken.
func TestFilesAreDroppedWhereTheyBelong(t *testing.T) {
	s := open(t)
	s.goTo("/patterns")
	s.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	file, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("main li a").getAttribute("href").replace("/patterns/", "/api/v1/patterns/") + "/export/json").then(r => r.text())`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	s.drop("own.json", strings.Replace(file, `"heightMm"`, `"hieghtMm"`, 1))
	s.until("what is misspelt", `document.body.textContent.includes("“hieghtMm”, near line")`)
	assert.InDelta(t, 37, js[float64](s, `document.querySelectorAll("main li").length`), 0)
	s.drop("rack.csv", "name,form")
	s.until("elsewhere", `document.body.textContent.includes("none of these")`)
	s.drop("own.json", strings.Replace(file, `"Utility knife"`, `"Dropped knife"`, 1))
	s.until("it is in the library, and open", `document.querySelector("[role=dialog] h2")?.textContent === "Dropped knife"`)
	s.goTo("/rack")
	s.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	s.drop("more.csv", "name,form,diameterMm,lengthMm,steelId\nRod,round,10,300,W1\n")
	s.press("See what it does")
	s.until("told", `document.querySelector("[data-testid=table-read]")?.textContent.includes("1 new piece: Rod")`)
	s.bench(demo.Rigging, "blade")
	s.drop("outline.svg", `<svg width="100mm" viewBox="0 0 100 30"><path d="M0 0H100V30H30z"/></svg>`)
	s.press("Take this outline")
	s.until("taken", `document.querySelector("[data-figure=blade]").textContent === "100 mm"`)
}
