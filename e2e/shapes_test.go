package e2e

import (
	"os"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAFullTangIsShapedOnTheBench: a form, its nodes moved with the keys, a slot sawn out, a
// grip that it then no longer follows; undone step by step.
func TestAFullTangIsShapedOnTheBench(t *testing.T) {
	s := open(t)
	s.edited(demo.Rigging, "design.handle", "none")
	s.bench(demo.Rigging, "blade")
	s.pick("design.tangKind", "Full tang")
	s.pick("design.tangForm", "Hooked butt")
	s.saved()
	require.NotNil(t, s.design(demo.Rigging).Tang.Outline)
	s.press("Saw a slot")
	s.eventually("a slot", func() bool { h := s.design(demo.Rigging).Tang.Holes; return len(h) == 1 && h[0].LongMm > 10 })
	s.until("drawn", `document.querySelectorAll("[data-testid=hole]").length === 1`)
	s.leave()
	s.keys("n")
	s.until("its nodes", `document.querySelectorAll("[data-node^='tangBottom.']").length > 4`)
	before := s.design(demo.Rigging).Tang.Outline.Edge[2]
	s.do(chromedp.Focus(chromedp.CSS("[data-node='tangBottom.2']")))
	for range 3 {
		s.keys(kb.ArrowDown)
	}
	s.eventually("moved by three", func() bool {
		now := s.design(demo.Rigging).Tang.Outline.Edge[2]
		return now[1] < before[1]-2.9 && now[1] > before[1]-3.1 && now[0] == before[0]
	})
	s.press("Node on top of the tang")
	s.until("one more", `document.querySelectorAll("[data-node^='tangTop.']").length > 5`)
	s.leave()
	s.keys("n")
	s.pick("design.tangForm", "Straight, as figured")
	s.saved()
	assert.Nil(t, s.design(demo.Rigging).Tang.Outline)
	s.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(2)))
	s.eventually("back again", func() bool { return s.design(demo.Rigging).Tang.Outline != nil })
}

// TestABladeIsBentAndItsEdgeSet: flatwise over a form, drawn as bent, said where it is too
// tight; its bevel set by its angle; a stop cut ahead of its heel.
func TestABladeIsBentAndItsEdgeSet(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.pick("design.flatBend", "Yes")
	s.until("as bent", `document.querySelector("[data-testid=bend-figures]") && document.querySelector("[data-testid=bent]")`)
	s.fill("design.flatBend.longMm", "20")
	s.fill("design.flatBend.radiusMm", "6")
	s.until("too tight", `document.body.textContent.includes("is tight for")`)
	s.saved()
	s.bench(demo.Rigging, "heats")
	s.until("its operation", `document.querySelector("[data-operation=formFlat]")`)
	s.bench(demo.Rigging, "blade")
	s.pick("design.grind.kind", "Chisel")
	s.pick("design.grind.bevelSide", "left face")
	s.fill("design.setDeg", "12")
	s.eventually("by its angle", func() bool {
		d := s.design(demo.Rigging)
		return d.Grind.BevelSide == blade.LeftBevel && d.BevelSetDeg() > 11.99 && d.BevelSetDeg() < 12.01
	})
	s.fill("design.setDeg", "89")
	s.until("out of its range", `document.querySelector("[data-field='design.setDeg']").getAttribute("aria-invalid") === "true"`)
}

// TestAnEdgeOfAnotherSteelIsWeldedIn: chosen with the stock, its depth said, and first of all
// at the fire.
func TestAnEdgeOfAnotherSteelIsWeldedIn(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "stock")
	s.pick("bit", "In a cleft")
	s.until("how deep", `document.querySelector("[data-testid=bit-figures]")`)
	s.fill("bit.widthMm", "5")
	s.until("too shallow, with what would do", `document.body.textContent.includes("deep at the edge")`)
	s.saved()
	if f := os.Getenv("SHOT"); f != "" {
		time.Sleep(400 * time.Millisecond)
		b, _ := s.Shot()
		_ = os.WriteFile(f, b, 0o644)
	}
	s.bench(demo.Rigging, "heats")
	s.until("first", `[...document.querySelectorAll("[data-operation]")].slice(0, 2).map(e => e.dataset.operation).join() === "slit,weldBit"`)
	s.until("seen in the forged shape", `document.querySelector("[data-testid=bit-seam]")`)
	s.bench(demo.Rigging, "stock")
	s.pick("bit", "No, all of one steel")
	s.until("gone", `!document.querySelector("[data-testid=bit-figures]")`)
}

// TestAPieceIsSawnOutOfItsSheet: its outline lies in the rectangle around it, it takes fewer
// heats, and goes back to the bar.
func TestAPieceIsSawnOutOfItsSheet(t *testing.T) {
	s := open(t)
	s.bench(demo.Sedge, "cut")
	before := js[int](s, `document.querySelectorAll("[data-heat]").length`)
	s.pick("choices.start", "an outline sawn out of it")
	s.until("its outline", `document.querySelector("[data-testid=blank]") && !document.querySelector("[data-testid=sure]")`)
	s.saved()
	assert.LessOrEqual(t, js[int](s, `document.querySelectorAll("[data-heat]").length`), before)
	s.pick("choices.start", "the bar, drawn out")
	s.until("a bar again", `!document.querySelector("[data-testid=blank]") && document.querySelector("[data-testid=sure]")`)
}
