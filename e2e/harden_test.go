package e2e

import (
	"testing"

	"coldember/internal/demo"

	"github.com/stretchr/testify/assert"
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
	s.fill("treatment.wantHardness", "58")
	s.until("softer", `document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("58") || document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("57.")|| document.querySelector("[data-testid=harden-hrc]").textContent.startsWith("58.")`)
	s.fill("treatment.bath.warmC", "300")
	s.until("refused where it is typed", `document.querySelector("input[data-field='treatment.bath.warmC'][aria-invalid=true]")`)
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
