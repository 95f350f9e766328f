package e2e

import (
	"strings"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAHeatIsSeenInTheRoundAndItsCooling: the curve with its stop, the solid
// turned with keys, or a still where there is no WebGL.
func TestAHeatIsSeenInTheRoundAndItsCooling(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.click("[data-heat='4']")
	s.until("how it cools", `document.querySelector("[data-testid=cooling] svg")?.getAttribute("aria-label").includes("seconds") || document.querySelector("[data-testid=cooling] svg")?.getAttribute("aria-label").includes(" s at the anvil")`)
	s.until("how near", `document.querySelector("[data-testid=heat-detail] table").textContent.includes("±")`)
	s.click("[data-testid=in-the-round]")
	s.until("in the round", `document.querySelector("[data-testid=solid] canvas") || document.querySelector("[data-testid=solid-still]")`)
	if js[bool](s, `!!document.querySelector("[data-testid=solid]")`) {
		s.until("drawn", `Number(document.querySelector("[data-testid=solid]").dataset.drawn) > 200`)
		s.do(chromedp.Focus(chromedp.CSS("[data-testid=solid]")))
		s.keys(kb.ArrowRight + kb.ArrowRight + kb.ArrowUp)
		s.until("turned", `document.querySelector("[data-testid=solid]").dataset.turned === "0.30 -0.15"`)
	}
}

// TestTwoWaysAreComparedAndOneIsTaken, and the cards of the heats are there.
func TestTwoWaysAreComparedAndOneIsTaken(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.click("[data-testid=compare-ways]")
	s.until("figures", `document.querySelectorAll("[data-testid=ways] tr[data-way]").length === 9`)
	s.choose("way", "Rolling mill")
	s.until("by machine", `[...document.querySelectorAll("[data-testid=ways] th")].some(t => t.textContent === "Rolling mill")`)
	s.choose("way", "Wide bar")
	s.until("from another bar", `[...document.querySelectorAll("[data-testid=ways] th")].some(t => t.textContent.startsWith("Wide bar"))`)
	s.choose("way", "Tang first")
	s.until("another way", `[...document.querySelectorAll("[data-testid=ways] th")].some(t => t.textContent === "Tang first")`)
	s.until("either with what it is known to", `(() => { const of = [...document.querySelectorAll("[data-testid=ways] tr[data-way='rank.heats'] td")]; return of.length === 2 && of.every(e => /^\d+ \(\d+–\d+\)$/.test(e.textContent)); })()`)
	s.press("Take this way")
	s.eventually("taken", func() bool { return s.stored(demo.Rigging).Doc.Request.Choices.First == "tang" })
	s.until("in the list", `(() => { const ops = [...document.querySelectorAll("[data-operation]")].map(o => o.dataset.operation); return ops.indexOf("tang") < ops.indexOf("point"); })()`)
	got, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-testid=heats-csv]").href).then(async r => r.headers.get("content-type") + " " + (await r.text()).length)`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(got, "text/csv"), got)
}

// TestAWarningIsSetRightWithOnePress.
func TestAWarningIsSetRightWithOnePress(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.fill("allowances.forgingEdgeMm", "1")
	s.until("told", `document.querySelector("[data-warning='warn.edgeThin']")`)
	s.click("[data-remedy='allowances.forgingEdgeMm']")
	s.until("gone", `!document.querySelector("[data-warning='warn.edgeThin']")`)
	s.saved()
	assert.InDelta(t, 1.5, s.stored(demo.Rigging).Doc.Request.Allowances.ForgingEdgeMm, 1e-9)
}

// TestAMachineTakesTheHeavyWork: chosen, compared, and refused where it is too
// weak.
func TestAMachineTakesTheHeavyWork(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "heats")
	before := s.stored(demo.Slicer).Summary.Heats
	s.pick("smith.machine", "Power hammer")
	s.eventually("fewer heats", func() bool { return s.stored(demo.Slicer).Summary.Heats < before })
	s.until("who does it", `document.querySelector("[data-operation=profile]").textContent.includes("Power hammer") && document.querySelector("[data-operation=bevel]").textContent.includes("Power hammer") && !document.querySelector("[data-operation=planish]").textContent.includes("Power hammer")`)
	s.until("its caution", `document.querySelector("[data-caution='caution.machine']")`)
	s.pick("smith.machine", "Press")
	s.until("its force", `document.querySelector("aside input[data-field='smith.machine.forceKN']")`)
	s.saved()
	s.fill("smith.machine.forceKN", "11")
	s.until("too weak, and what would do", `document.querySelector("aside [role=alert]")?.textContent.includes("kN would")`)
}

// TestTheHeatsPlayAndTheTotalsHaveTheirBands: one press plays them through; whole
// plans are drawn with progress, and can be stopped.
func TestTheHeatsPlayAndTheTotalsHaveTheirBands(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.click("[data-testid=play]")
	s.until("it goes on by itself", `document.querySelector("[data-heat='3'][aria-pressed=true]")`)
	s.click("[data-testid=play]")
	s.keys(kb.Escape)
	s.until("the whole plan", `document.querySelector("[data-testid=doubts-ask]")`)
	s.click("[data-testid=doubts-ask]")
	s.until("progress", `document.querySelector("[data-testid=doubts] progress")`)
	s.until("a first answer", `document.querySelector("[data-testid=doubts-say]")?.textContent.includes("Four in five")`)
	if js[bool](s, `!!document.querySelector("[data-testid=doubts-stop]")`) {
		js[bool](s, `(document.querySelector("[data-testid=doubts-stop]")?.click(), true)`)
	}
	s.until("stopped or done", `document.querySelector("[data-testid=doubts-ask]")`)
	assert.Regexp(t, `\d+–\d+ heats`, s.text("[data-testid=doubts-say]"))
}
