package e2e

import (
	"fmt"
	"strings"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABladeIsHardenedOnTheBench: where it hardens is drawn, a slower bath leaves a line, edits
// are undone, and the window is counted down from a key.
func TestABladeIsHardenedOnTheBench(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "harden")
	s.until("hard through", `document.querySelector("[data-testid=temper-line]")?.dataset.whole === "true"`)
	s.pick("treatment.bath.class", "Slow oil")
	s.until("a line", `document.querySelector("[data-testid=temper-line]").dataset.whole === "false" && document.querySelectorAll("[data-testid=temper-line] path").length === 3`)
	s.until("what others would do", `document.querySelector("[data-bath=fastOil]").textContent.includes("hard through")`)
	s.saved()
	s.leave()
	s.keys("c")
	s.until("counted", `/edge \d+ s/.test(document.querySelector("[data-testid=window-clock]")?.textContent)`)
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
	s.until("here too", `document.querySelector("[data-timer=temper]")?.textContent.includes("Rigging knife: Temper 1 of 2")`)
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
