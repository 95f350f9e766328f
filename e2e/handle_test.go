package e2e

import (
	"fmt"
	"testing"

	"coldember/core/plan"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestARodHandleIsDrawnAsItIsBent: twisted, curved and with its eye, on the finished
// blade and heat by heat, in the flat and as one steps through.
func TestARodHandleIsDrawnAsItIsBent(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.pick("design.tangKind", "Rod, its own handle")
	s.until("its fields", `document.querySelector("aside input[data-field='design.tang.twistTurns']")`)
	s.fill("design.tang.lengthMm", "150")
	s.fill("design.tang.twistTurns", "2")
	s.fill("design.tang.loopMm", "10")
	s.until("the marks end where it ends", `(() => { const right = q => Math.max(...[...document.querySelectorAll(q)].map(e => e.getBoundingClientRect().right)); return right("[data-way]") <= right("svg g[data-zone=tang] path") + 4; })()`)
	s.until("twisted on the finished blade", `document.querySelector("[data-testid=twist-finished]").getAttribute("d").split("M").length === 9`)
	s.saved()
	s.bench(demo.Rigging, "heats")
	s.until("its operations", `document.querySelector("[data-operation=twist]") && document.querySelector("[data-operation=loop]")`)
	// as it is to be: the shown outline still moves there
	lowest := `(() => { const y = document.querySelector(".morph[data-zone=tang] path").getAttribute("d").match(/,-?[\d.]+/g).map(v => Number(v.slice(1))); return Math.max(...y) - Math.min(...y); })()`
	s.click("[data-heat='4']")
	s.until("not twisted yet", `document.querySelector("[data-testid=twist-middle]").getAttribute("d") === ""`)
	eye := js[int](s, `Number([...document.querySelectorAll("[data-heat]")].find(b => b.getAttribute("aria-label").includes("eye")).dataset.heat)`)
	s.click(fmt.Sprintf("[data-heat='%d']", eye-2))
	s.until("twisted after its heats", `document.querySelector("[data-testid=twist-middle]").getAttribute("d").split("M").length >= 8`)
	straight := js[float64](s, lowest)
	s.leave()
	s.keys("]")
	s.keys("]")
	s.until("the eye hangs below the tang", fmt.Sprintf("%s > %v", lowest, 1.5*straight))
	s.atFire(demo.Rigging)
	s.until("on the whole screen", `[...document.querySelectorAll("[data-testid=anvil] svg path")].length >= 3`)
	s.keys(kb.Escape)
	s.until("back with its book", `document.querySelector("[data-testid=log-panel]")`)
}

// TestHardeningIsLastOrForcedOtherwise: taken into the plan, shown after the cycles,
// refused before a heat with the reason, and put off again with one press.
func TestHardeningIsLastOrForcedOtherwise(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.pick("choices.cycles", "One, then a slow anneal")
	s.until("its operation", `document.querySelector("[data-operation=cycle2]")`)
	s.click("[data-operation=cycle2]")
	s.until("it cools slowly", `document.querySelector("[data-testid=heat-detail] dl").textContent.includes("until cold") && !document.querySelector("[data-testid=heat-detail] dl").textContent.includes("still air")`)
	s.bench(demo.Rigging, "heats")
	s.pick("choices.harden", "From the forge, ground hard")
	s.until("last of all", `[...document.querySelectorAll("[data-operation]")].at(-1).dataset.operation === "harden"`)
	s.until("its cautions", `document.querySelector("[data-caution='caution.quench']")`)
	s.saved()
	s.do(chromedp.Focus(chromedp.CSS("[data-grip=harden]")))
	s.keys(kb.ArrowUp)
	s.until("why not", `document.querySelector("[data-testid=order-broken]")?.textContent.includes("Nothing hot after hardening")`)
	s.click("[data-testid=order-force]")
	s.until("what comes of it", `document.querySelector("[data-warning='warn.order.nothingHotAfterHardening']")?.textContent.includes("260")`)
	s.click("[data-remedy='choices.order']")
	s.until("the planner's again", `!document.querySelector("[data-warning='warn.order.nothingHotAfterHardening']")`)
	s.until("much to grind hard", `document.querySelector("[data-warning='warn.grindHot']")?.textContent.includes("310")`)
	s.until("a remedy that was planned", `document.querySelector("[data-remedy='choices.harden']")?.textContent === "Harden it later"`)
	s.pick("choices.holding", "Welded rod")
	s.pick("choices.rodWeld", "In the fire, scarf on scarf")
	s.until("what is only worth knowing is folded away", `/\d notes/.test(document.querySelector("[data-testid=notes]")?.textContent) && !document.querySelector("[data-warning='warn.weldHeat']").checkVisibility()`)
	s.click("[data-testid=notes]")
	s.until("and there when asked for", `document.querySelector("[data-warning='warn.weldHeat']").checkVisibility()`)
	s.click("[data-remedy='choices.harden']")
	s.until("later", `!document.querySelector("[data-operation=harden]")`)
	s.saved()
	assert.Equal(t, plan.HardenLater, s.stored(demo.Rigging).Doc.Request.Choices.Harden)
}

// TestARodIsWeldedInTheFire as the first heat, and a remedy of two figures is one step.
func TestARodIsWeldedInTheFire(t *testing.T) {
	s := open(t)
	s.bench(demo.Oyster, "heats")
	s.pick("choices.rodWeld", "In the fire, scarf on scarf")
	s.until("its operation", `document.querySelector("[data-operation=weldOn]")`)
	s.until("its place", `document.querySelector("[data-heat='1']").getAttribute("aria-label").includes("Weld the rod on")`)
	s.saved()

	s.bench(demo.Rigging, "blade")
	s.fill("allowances.faceMm", "0.05")
	s.saved()
	s.bench(demo.Rigging, "stock")
	s.fill("bar.thicknessMm", "3.7")
	s.saved()
	s.bench(demo.Rigging, "heats")
	s.until("a gouge would stay", `document.querySelector("[data-warning='warn.gouge']")`)
	before := s.stored(demo.Rigging)
	s.click("[data-warning='warn.gouge'] ~ [data-remedy]")
	s.until("mended", `!document.querySelector("[data-warning='warn.gouge']")`)
	s.saved()
	after := s.stored(demo.Rigging)
	require.NotEqual(t, before.Doc.Request.Bar.ThicknessMm, after.Doc.Request.Bar.ThicknessMm)
	require.NotEqual(t, before.Doc.Request.Allowances, after.Doc.Request.Allowances)
	s.leave()
	s.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	s.eventually("one step back", func() bool {
		r := s.stored(demo.Rigging).Doc.Request
		return r.Bar.ThicknessMm == before.Doc.Request.Bar.ThicknessMm && r.Allowances == before.Doc.Request.Allowances
	})
}
