package e2e

import (
	"fmt"
	"strings"
	"testing"

	"coldember/core/session"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABladeIsHardenedOnTheBench: where it hardens is drawn, a slower bath leaves a line, edits
// are undone, and the window is counted down from a key.
func TestABladeIsHardenedOnTheBench(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "harden")
	s.until("hard through", `document.querySelector("[data-testid=temper-line]")?.dataset.whole === "true"`)
	s.leave()
	s.keys("c")
	s.until("counted", `/edge \d+ s/.test(document.querySelector("[data-testid=window-clock]")?.textContent)`)
	s.edited(demo.Slicer, "design.spineMm", "4mm") // so thick a slow oil leaves a line
	s.bench(demo.Slicer, "harden")
	s.until("still hard through", `document.querySelector("[data-testid=temper-line]")?.dataset.whole === "true"`)
	s.pick("treatment.bath.class", "Slow oil")
	s.until("a line", `document.querySelector("[data-testid=temper-line]").dataset.whole === "false" && document.querySelectorAll("[data-testid=temper-line] path").length === 3`)
	s.until("what others would do", `document.querySelector("[data-bath=fastOil]").textContent.includes("hard through")`)
	s.until("no time to straighten stands first", `document.querySelector("[data-testid=harden-panel] [data-finding]").dataset.finding === "harden.noWindow"`)
	s.until("what when it stays soft", `document.querySelector("[data-mend=soft] ol").textContent.includes("A faster bath: fast oil hardens thicker") || document.querySelector("[data-mend=soft] ol").textContent.includes("A faster bath: medium oil hardens thicker")`)
	s.click("[data-mend=warped] summary")
	s.until("open", `document.querySelector("[data-mend=warped]").open && document.querySelector("[data-mend=warped] ol").checkVisibility()`)
	s.fill("treatment.bath.longMm", "60")
	s.until("too long for its bath", `document.querySelector("[data-finding='harden.longBath']").textContent.includes("this bath takes 60")`)
	s.fill("treatment.bath.longMm", "0")
	s.until("long enough", `!document.querySelector("[data-finding='harden.longBath']")`)
	s.fill("treatment.wantHardness", "58")
	s.until("softer", `document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("58") || document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("57.")|| document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("58.")`)
	s.fill("treatment.bath.warmC", "300")
	s.until("refused where it is typed", `document.querySelector("input[data-field='treatment.bath.warmC'][aria-invalid=true]")`)
	s.bench(demo.Slicer, "harden")
	s.fill("treatment.dipMm", "14")
	s.until("drawn from the spine", `Number(document.querySelector("[data-testid=spine-draw]")?.dataset.coolAt) >= 0`)
	js[bool](s, `(() => { const r = document.querySelector("[data-testid=spine-draw] input"); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(r, "210"); r.dispatchEvent(new Event("input", { bubbles: true })); return true; })()`)
	s.until("not heat enough", `document.querySelector("[data-testid=spine-draw]").textContent.includes("not heat enough")`)
	s.bench(demo.Slicer, "cycles")
	s.until("the grain after each", `document.querySelectorAll("[data-testid=grain] li").length === 5`)
	s.pick("choices.cycles", "One")
	s.until("one left", `document.querySelectorAll("[data-cycle]").length === 1`)
}

// TestATimerIsOnEveryPage, survives a reload, and is stopped from another.
func TestATimerIsOnEveryPage(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "harden")
	s.click("[data-start=temper]")
	s.until("it runs", `/^1:59:\d\d$|^2:00:00$/.test(document.querySelector("[data-timer=temper] [role=timer]")?.textContent)`)
	s.goTo("/rack")
	s.until("here too", `document.querySelector("[data-timer=temper]")?.textContent.includes("Rigging knife: Temper 1")`)
	other := s.window(1280, 800)
	other.goTo("/book")
	other.until("and there", `document.querySelector("[data-timer=temper]")`)
	other.click("[data-timer=temper] button")
	s.until("stopped", `!document.querySelector("[data-testid=timers]")`)
	assert.Empty(t, s.text("[data-testid=timers]"))
}

// TestADayOfSeveralPieces: chosen, drawn without two settings in an oven, moved by hand, and out
// as a calendar.
func TestADayOfSeveralPieces(t *testing.T) {
	s := open(t)
	s.goTo("/day")
	for _, name := range []string{demo.Rigging, demo.Slicer, demo.Oyster, demo.Sedge} {
		s.click(fmt.Sprintf("[data-day-piece=%q]", name))
	}
	s.until("the address keeps them", `new URLSearchParams(location.search).getAll("p").length === 4`)
	s.until("three of them", `document.querySelectorAll("[data-day-job]").length === 3 && document.querySelector("main").textContent.includes("Sedge knife")`)
	first := s.text("[data-day-job]:first-child a")
	s.click("[data-day-job]:first-child button[aria-label$=later]")
	s.until("later", fmt.Sprintf(`document.querySelectorAll("[data-day-job]")[1].dataset.dayJob === %q`, first))
	got, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-testid=day-ics]").href).then((r) => r.text())`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, 9, strings.Count(got, "BEGIN:VEVENT"), "a quench and two tempers each")
	assert.Contains(t, got, "temper at")
}

// TestHardeningIsGoneThroughAtTheAnvil: on from the forging by a key of its own, a touch a step
// with its seconds, what is seen is kept, and all of it stands in the log and on the bench.
func TestHardeningIsGoneThroughAtTheAnvil(t *testing.T) {
	s := open(t)
	s.atFire(demo.Slicer)
	s.until("cold", `document.querySelector("[data-testid=anvil]").dataset.phase === "ready"`)
	s.keys("h")
	s.until("to heat", `document.querySelector("[data-testid=treat-step]")?.textContent.includes("To heat")`)
	s.skip(600)
	s.touch(" ")
	s.until("quench", `document.querySelector("[data-testid=treat-step]").textContent === "Quench"`)
	s.until("its seconds", `Number(document.querySelector("[data-testid=treat-left]").textContent) > 0`)
	s.keys("s")
	s.until("asked", `document.querySelector("[data-testid=seen-form]")`)
	s.do(chromedp.SendKeys(chromedp.CSS("[data-seen=bath]"), "soon"))
	s.press("Keep")
	s.until("told at its field", `document.querySelector("[data-seen=bath][aria-invalid=true]")`)
	js[bool](s, `(document.querySelector("[data-seen=bath]").select(), true)`)
	s.do(chromedp.SendKeys(chromedp.CSS("[data-seen=bath]"), "58"))
	s.do(chromedp.SendKeys(chromedp.CSS("textarea[data-seen=text]"), "it flared once"))
	s.press("Keep")
	s.until("kept", `!document.querySelector("[data-testid=seen-form]")`)
	for range 6 {
		s.skip(60)
		s.touch(" ")
	}
	s.until("tempering", `/Temper|Cool/.test(document.querySelector("[data-testid=treat-step]")?.textContent)`)
	for range 5 {
		s.skip(7200)
		s.touch(" ")
		if js[bool](s, `!document.querySelector("[data-testid=treat-step]")`) {
			break
		}
	}
	s.until("done", `document.querySelector("[data-testid=anvil]").textContent.includes("Hardened and tempered")`)
	var book session.Book
	s.eventually("in the book", func() bool {
		book, _ = s.fire(demo.Slicer)
		return len(book.Treatment) >= 8
	})
	assert.InDelta(t, 58, book.Treatment[1].Seen.BathC, .01)
	s.bench(demo.Slicer, "log")
	s.until("in the log", `document.querySelector("[data-testid=log-panel]").textContent.includes("Bath 60 °C. it flared once")`)
	s.bench(demo.Slicer, "harden")
	s.until("and on the bench", `document.querySelector("[data-testid=treat-noted]").textContent.includes("it flared once")`)
}

// TestSoftWorkIsForced: drilling after the quench is refused at its place and done all the same
// where it is wanted; the tank and the oven of the shop are taken up whole.
func TestSoftWorkIsForced(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "harden")
	s.pick("treatment.late.drill", "after it")
	s.until("refused", `document.querySelector("[data-testid=force-drill]")`)
	s.click("[data-testid=force-drill]")
	s.until("warned", `document.querySelector("[data-finding='harden.late.drill']") && document.querySelector("[data-treat='late-drill']")`)
	s.pick("treatment.way", "in a bath of oil")
	s.until("by oil", `document.querySelector("[data-treat='temper-1']").textContent.includes("oil bath")`)
	s.pick("treatment.oven", "Kitchen oven")
	s.until("in the oven", `document.querySelector("[data-treat='temper-1']").textContent.includes("in the oven at")`)
	s.pick("treatment.tank", "Medium oil")
	s.until("its tank", `document.querySelector("[data-treat=quench]").textContent.startsWith("Medium oil at 55")`)
	s.bench(demo.Slicer, "cycles")
	s.pick("choices.soften", "to drill")
	s.until("softened", `[...document.querySelectorAll("[data-cycle]")].at(-1).textContent.includes("Soften")`)
	s.pick("choices.even", "kiln")
	s.until("how", `document.querySelector("[data-testid=cycles-panel]").textContent.includes("Set the kiln")`)
}

// TestADayIsMovedByHand, its blocks by keys, its settings made one, its glue with it, and its
// timers begun.
func TestADayIsMovedByHand(t *testing.T) {
	s := open(t)
	s.goTo("/day?p=" + s.piece(demo.Rigging) + "&p=" + s.piece(demo.Slicer))
	s.until("two", `document.querySelectorAll("[data-day-job]").length === 2`)
	js[bool](s, `(document.querySelector("[data-placed=quench]").focus(), true)`)
	s.keys(kb.ArrowRight)
	s.keys(kb.ArrowRight)
	s.until("later, with what follows", `document.querySelector("[data-placed=quench]").dataset.from >= 5 && new URLSearchParams(location.search).getAll("m").length === 1`)
	s.do(chromedp.SetValue(chromedp.CSS("[data-testid=day-glue]"), "0"))
	s.click("[data-testid=day-unmove]")
	s.until("as early as can be", `Number(document.querySelector("[data-placed=quench]").dataset.from) === 0`)
	s.click("[data-testid=day-start]")
	s.until("its timers run", `document.querySelectorAll("[data-timer=temper]").length === 4`)
	s.goTo("/day?p=" + s.piece(demo.Rigging) + "&g=60&n=1&c=1")
	s.until("cycles and glue too", `document.querySelectorAll("[data-placed^=cycle]").length === 3 && document.querySelector("[data-placed=set]")`)
}

// TestHotSteelIsNamedByTheShopsSchool: chosen once, it stands at the bench and in the handbook.
func TestHotSteelIsNamedByTheShopsSchool(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "harden")
	s.until("as usual", `document.querySelector("[data-treat=soak]").textContent.includes("805 °C, cherry")`)
	s.goTo("/shop")
	s.click("[data-field=heatWords]")
	s.do(chromedp.Click(chromedp.Search("//*[@role='option'][contains(., 'orange is 900 °C')]")))
	s.until("chosen", `document.querySelector("[data-field=heatWords]").textContent.includes("900")`)
	s.bench(demo.Slicer, "harden")
	s.until("sooner", `document.querySelector("[data-treat=soak]").textContent.includes("805 °C, bright cherry")`)
	s.goTo("/help/fire")
	s.until("in the handbook", `[...document.querySelectorAll("[data-testid=heat-scale] li")].some((e) => e.textContent === "orange900 °C")`)
}
