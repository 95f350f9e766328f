package e2e

import (
	"context"
	"strconv"
	"strings"
	"testing"
	"time"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPiecesAreRenamedCopiedArchivedAndFound(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.do(chromedp.Focus(chromedp.CSS("input[data-field=name]")))
	js[bool](s, `(document.querySelector("input[data-field=name]").select(), true)`)
	s.keys("Bosun's knife\r")
	s.saved()
	s.goTo("/")
	s.until("renamed", `document.querySelector("main").textContent.includes("Bosun's knife")`)
	s.click(`button[aria-label="Duplicate Bosun's knife"]`)
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]")))
	s.goTo("/")
	s.until("copied", `document.querySelector("main").textContent.includes("Bosun's knife 2")`)
	s.click(`button[aria-label="Archive Bosun's knife 2"]`)
	s.until("archived", `document.querySelectorAll("main li a").length === 9`)
	s.do(chromedp.Click(chromedp.Search("//header//button[contains(., 'Archive')]")))
	s.click(`button[aria-label="Restore Bosun's knife 2"]`)
	s.do(chromedp.Click(chromedp.Search("//header//button[contains(., 'Archive')]")))
	s.until("restored", `document.querySelectorAll("main li a").length === 10`)
	s.do(chromedp.KeyEvent("k", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	s.until("the finder", `document.querySelector("[role=dialog] [role=combobox]")`)
	s.keys("knife 2")
	s.until("one found", `document.querySelectorAll("[role=option]").length === 1`)
	s.keys("\r")
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]")))
	assert.Equal(t, "Bosun's knife 2", js[string](s, `document.querySelector("input[data-field=name]").value`))
}

func TestTheRackTakesABar(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.until("the rack", `document.querySelectorAll("main li").length === 13`)
	s.keys("n")
	s.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog] input[data-field=name]")))
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Keep')]")))
	s.until("what is missing", `document.querySelector("[role=dialog] [role=alert]")`)
	for field, text := range map[string]string{"name": "Off-cut", "piece.widthMm": "30", "piece.thicknessMm": "6", "piece.lengthMm": "250"} {
		s.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field='" + field + "']")))
		s.keys(text)
	}
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Keep')]")))
	s.until("the steel is asked", `document.querySelector("[role=dialog] [role=alert]")?.textContent.includes("which steel")`)
	s.choose("steelId", "1084")
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Keep')]")))
	s.until("its own page", `document.querySelector("main h1")?.textContent === "Off-cut" && document.querySelector("[data-testid=drawn] svg")`)
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Take off')]")))
	s.until("and off again", `document.querySelectorAll("main li a[data-item]").length === 13`)
	s.keys("n")
	s.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog] input[data-field=name]")))
	s.choose("origin", "Leaf spring")
	s.until("its form comes with it, and no steel is asked", `document.querySelector("[role=dialog] input[data-field='piece.chordMm']") && !document.querySelector("[role=dialog] [data-field=steelId]")`)
	for field, text := range map[string]string{"name": "Cart spring", "piece.widthMm": "60", "piece.thicknessMm": "8", "piece.chordMm": "700"} {
		s.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field='" + field + "']")))
		s.keys(text)
	}
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Keep')]")))
	s.until("presumed, with its hazards", `document.querySelector("[data-verdict]") && document.querySelector("main").textContent.includes("tension")`)
}

func TestTheShopIsKept(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	css := "main input[data-field='smiths.0.hammerKg']"
	s.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Focus(chromedp.CSS(css)))
	s.keys("50\r")
	s.until("refused beside the field", `document.querySelector("main [role=alert]")?.textContent.includes("12 kg")`)
	js[bool](s, `(document.querySelector("`+css+`").select(), true)`)
	s.keys("1.5\r")
	s.until("kept", `!document.querySelector("main [role=alert]")`)
	require.Eventually(t, func() bool {
		shop, err := s.app.Work.Shop(context.Background())
		return err == nil && shop.Doc.Smiths[0].HammerKg == 1.5
	}, 40*time.Second, 50*time.Millisecond)
	s.keys(kb.Tab)
}

func TestHelpOpensAndUnknownPagesSaySo(t *testing.T) {
	s := open(t)
	s.goTo("/")
	s.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	s.keys("?")
	s.until("what the keyboard can do", `document.querySelector("[role=dialog]").textContent.includes("1 1/4 in")`)
	s.keys(kb.Escape)
	s.until("closed", `!document.querySelector("[role=dialog]")`)
	s.goTo("/nowhere")
	s.until("nothing here", `document.querySelector("main h1").textContent === "Nothing here"`)
}

// TestNothingIsWiderThanTheWindow on tablet and phone.
func TestNothingIsWiderThanTheWindow(t *testing.T) {
	s := open(t)
	for _, size := range [][2]int64{{1280, 800}, {1024, 768}, {390, 844}} {
		w := s.window(size[0], size[1])
		for _, path := range []string{"/", "/patterns", "/rack", "/shop", "/pieces/" + s.piece(demo.Slicer) + "/heats"} {
			w.goTo(path)
			w.do(chromedp.WaitReady(chromedp.CSS("main *")), chromedp.Sleep(250*time.Millisecond))
			over := js[float64](w, `document.scrollingElement.scrollWidth - innerWidth`)
			assert.LessOrEqual(t, over, 0.0, "%s at %v", path, size)
		}
	}
}

// TestTheBladeIsTakenAwayInEveryFormat from the menu's own links.
func TestTheBladeIsTakenAwayInEveryFormat(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.click("[data-testid=print]")
	s.until("the papers", `[...document.querySelectorAll("[data-print]")].map(a => a.dataset.print).join() === "card,bench,fittings,customer,template,share,cuts"`)
	for _, paper := range []string{"card", "bench", "fittings", "customer", "template"} {
		got, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-print=`+paper+`]").href).then(r => r.text()).then(t => t.slice(0, 5))`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.Equal(t, "%PDF-", got, paper)
	}
	s.keys(kb.Escape)
	s.until("closed", `!document.querySelector("[data-print]")`)
	s.click("button[aria-label=More]")
	s.until("the formats", `document.querySelectorAll("[data-export]").length === 5`)
	for format, start := range map[string]string{"svg": "<?xml", "dxf": "  0", "3mf": "PK", "stl": "Cold Ember", "json": "{"} {
		got, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-export='`+format+`']").href).then(async r =>
			r.headers.get("content-disposition").includes("Rigging knife.`+format+`") ? (await r.text()).slice(0, 12) : "no name")`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.True(t, strings.HasPrefix(got, start), "%s starts with %q", format, got)
	}
}

// TestPatternsAreSearchedScaledAndCompared with their revisions.
func TestPatternsAreSearchedScaledAndCompared(t *testing.T) {
	s := open(t)
	s.goTo("/patterns")
	s.until("the library", `document.querySelectorAll("main li").length === 37`)
	s.do(chromedp.Focus(chromedp.CSS("main header input.pick")))
	s.keys("deep kitchen")
	s.until("one found", `document.querySelectorAll("main li").length === 1`)
	s.do(chromedp.Click(chromedp.Search("//main//li//a[contains(., 'Galley')]")))
	s.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog] input[data-field=scaleLength]")), chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field=scaleLength]")))
	s.keys("900\r")
	s.until("refused beside the field", `document.querySelector("[role=dialog] [role=alert]")?.textContent.includes("500")`)
	js[bool](s, `(document.querySelector("[role=dialog] input[data-field=scaleLength]").select(), true)`)
	s.keys("120\r")
	s.until("compared", `document.querySelector("[data-compare=lengthMm]")?.textContent.includes("+41 mm")`)
	s.until("heavier", `document.querySelector("[data-compare=massG]").textContent.includes("+")`)
	s.until("more bar", `document.querySelector("[data-compare=barMm]").textContent.includes("+")`)
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Make revision 1')]")))
	s.until("a third revision, as the first", `document.querySelector("[data-testid=compare]").textContent.includes("revision 3")`)
	all, _, err := s.app.Work.Patterns(context.Background(), false)
	require.NoError(t, err)
	for _, p := range all {
		if p.Doc.Name == demo.Slicer {
			assert.Equal(t, 3, p.Revision)
			assert.InDelta(t, 205, p.Doc.Design.LengthMm, 1e-9)
		}
	}
}

// TestTheShopsSetIsTakenUp: a forge is added in the shop, and a piece goes to it.
func TestTheShopsSetIsTakenUp(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-add='hearths.add']")))
	s.press("Coke forge")
	s.until("added", `!!document.querySelector("input[data-field='hearths.1.tempC']")`)
	s.bench(demo.Rigging, "heats")
	s.pick("fire.hearth", "Coke forge")
	s.eventually("its fire", func() bool { return s.stored(demo.Rigging).Doc.Request.Fire.TempC == 1300 })
	s.pick("smith.hammer", "Heavy hammer")
	s.eventually("its mass", func() bool { return s.stored(demo.Rigging).Doc.Request.Smith.HammerKg == 1.7 })
	s.pick("smith.machine", "Rolling mill")
	s.until("its rolls", `document.querySelector("aside input[data-field='smith.machine.rollMm']") && !document.querySelector("aside [data-field='smith.machine.dies']")`)
	s.pick("smith.machine", "Striker")
	s.until("a sledge", `[...document.querySelectorAll("aside label, aside span")].some(e => e.textContent === "Sledge")`)
	s.saved()
}

// TestTheFirstPageIsLight: no more than 200 kB of script as they are sent, and none of the
// bench or of the solid.
func TestTheFirstPageIsLight(t *testing.T) {
	s := open(t)
	s.goTo("/")
	s.do(chromedp.WaitVisible(chromedp.CSS("main li")))
	sent := js[[]string](s, `performance.getEntriesByType("resource").filter(e => e.name.endsWith(".js")).map(e => e.name.split("/").pop() + " " + e.encodedBodySize)`)
	sum := 0.0
	for _, f := range sent {
		name, bytes, _ := strings.Cut(f, " ")
		n, err := strconv.ParseFloat(bytes, 64)
		require.NoError(t, err)
		assert.Positive(t, n, name)
		assert.NotRegexp(t, "^(PiecePage|Solid)", name)
		sum += n
	}
	assert.Less(t, sum, 200e3, "%v", sent)
	t.Logf("%.0f kB of script", sum/1000)
}
