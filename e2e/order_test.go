package e2e

import (
	"fmt"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

const orderShown = `[...document.querySelectorAll("[data-grip]")].map(g => g.dataset.grip).join()`

// TestTheOrderIsTheSmiths: an operation is taken earlier with the keys or by its
// grip; an order that breaks a need says which, and is forced knowingly.
func TestTheOrderIsTheSmiths(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.until("the planner's", orderShown+`.startsWith("corners,point,setDown")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-grip=setDown]")))
	s.keys(kb.ArrowUp)
	s.until("taken", orderShown+`.startsWith("corners,setDown,point")`)
	s.saved()
	assert.Equal(t, "setDown", s.stored(demo.Rigging).Doc.Request.Choices.Order[1])

	js[bool](s, `(document.querySelector("[data-grip=preCurve]").scrollIntoView({block: "center"}), true)`)
	x, y := s.middle("[data-grip=bevel]")
	_, to := s.middle("[data-grip=profile]")
	s.do(chromedp.MouseEvent("mousePressed", x, y, chromedp.Button("left"), chromedp.ClickCount(1)),
		chromedp.MouseEvent("mouseMoved", x, (y+to)/2, chromedp.Button("left")),
		chromedp.MouseEvent("mouseMoved", x, to, chromedp.Button("left")),
		chromedp.MouseEvent("mouseReleased", x, to, chromedp.Button("left"), chromedp.ClickCount(1)))
	s.until("which need", `document.querySelector("[data-testid=order-broken]")?.textContent.includes("first")`)
	s.click("[data-testid=order-force]")
	s.until("forced", `!document.querySelector("[data-testid=order-broken]") && !!document.querySelector("[data-warning^='warn.order.']")`)
	s.saved()
	assert.True(t, s.stored(demo.Rigging).Doc.Request.Choices.Forced)
	s.click("[data-testid=order-planner]")
	s.until("the planner's again", orderShown+`.startsWith("corners,point,setDown") && !document.querySelector("[data-warning^='warn.order.']")`)
}

// TestAnotherToolShowsAtOnceWhatItDoes to spread, and the shop's prices what the
// piece costs.
func TestAnotherToolShowsAtOnceWhatItDoes(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "heats")
	s.click("[data-operation=profile]")
	s.until("what the face does", `document.querySelector("[data-testid=tool-spread]")?.textContent.includes("%")`)
	s.choose("tool.profile.face", "rounded face")
	s.saved()
	s.bench(demo.Slicer, "heats") // the first save goes by the book, so that its heats are others
	s.click("[data-operation=profile]")
	s.choose("tool.profile.support", "over the horn")
	s.saved()
	own := s.stored(demo.Slicer).Doc.Request.Choices.Tools
	assert.Len(t, own, 1)
	assert.EqualValues(t, "horn", own[0].Support)
	s.bench(demo.Slicer, "heats")
	s.fill("prices.hourPrice", "40")
	s.until("the money", `/until it is forged/.test(document.querySelector("[data-testid=money]")?.textContent)`)
}

// TestABentHandleAndAStampedMark: what the tang asks for is an operation with
// its strokes, and the mark is stamped.
func TestABentHandleAndAStampedMark(t *testing.T) {
	s := open(t)
	s.bench(demo.Oyster, "blade")
	s.fill("design.tang.curveMm", "3")
	s.saved()
	s.bench(demo.Oyster, "heats")
	s.until("its operation", `document.querySelector("[data-operation=tangCurve]")`)
	s.pick("choices.stamp", "Stamped hot")
	s.until("the mark", `document.querySelector("[data-operation=stamp]")`)
	s.saved()
	s.click("[data-operation=stamp]")
	s.until("its strokes", `document.querySelector("aside").textContent.includes("2 strokes")`)
}

// TestARodThatStaysShortensTheBar: where the weld lies is said, drawn, and taken
// off the bar.
func TestARodThatStaysShortensTheBar(t *testing.T) {
	s := open(t)
	s.bench(demo.Oyster, "blade")
	before := mm(t, s.text("[data-figure=cut]"))
	s.fill("design.tang.weldAtMm", "30")
	s.until("a shorter bar", `document.querySelector("[data-testid=seam]") && document.querySelector("[data-ledger='ledger.rod']")`)
	s.until("its length", fmt.Sprintf(`parseFloat(document.querySelector("[data-figure=cut]").textContent) < %v`, before-.5))
	s.saved()
}

// TestTheLipOfSharpCornersIsShown where the blows on the end would fold it.
func TestTheLipOfSharpCornersIsShown(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	s.pick("choices.corners", "Left standing")
	s.saved()
	assert.False(t, js[bool](s, `!!document.querySelector("[data-testid=lip]")`), "a short blunt end does not fold")
	s.bench(demo.Rigging, "stock")
	s.fill("bar.thicknessMm", "3.4")
	s.until("a lip", `document.querySelector("[data-testid=lip]")`)
}
