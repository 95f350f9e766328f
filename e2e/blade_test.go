package e2e

import (
	"fmt"
	"image"
	"image/color"
	"image/png"
	"os"
	"path/filepath"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (s *smith) design(name string) blade.Design { return s.stored(name).Doc.Request.Design }

func (s *smith) eventually(what string, ok func() bool) {
	s.t.Helper()
	require.Eventually(s.t, ok, 40*time.Second, 50*time.Millisecond, what)
}

// middle of what matches, px.
func (s *smith) middle(css string) (x, y float64) {
	s.t.Helper()
	at := js[[]float64](s, fmt.Sprintf(`(() => { const r = document.querySelector(%q).getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]; })()`, css))
	return at[0], at[1]
}

func (s *smith) press(words string) {
	s.t.Helper()
	js[bool](s, fmt.Sprintf(`(() => { for (const b of document.querySelectorAll("details button")) if (b.textContent.includes(%q)) b.closest("details").open = true; return true })()`, words))
	s.do(chromedp.Click(chromedp.Search("//button[contains(., '" + words + "')]")))
}

func (s *smith) pick(field, choice string) {
	s.t.Helper()
	s.unfold("aside [data-field='" + field + "']")
	s.do(chromedp.Focus(chromedp.CSS("aside [data-field='" + field + "']")))
	s.keys("\r")
	option := chromedp.Search("//*[@role='option'][contains(., '" + choice + "')]")
	s.do(chromedp.WaitVisible(option), chromedp.Click(option))
}

// TestTheTaperIsDrawnByNodes below the outline: added, dragged, moved by keys,
// taken out.
func TestTheTaperIsDrawnByNodes(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.keys("n")
	s.until("thickness is drawn large", `document.querySelector("section svg").textContent.includes("×4")`)
	s.press("Node in the taper")
	s.eventually("a node half way", func() bool { return len(s.design(demo.Rigging).TaperNodes) == 1 })
	node := "[data-node='taper.0']"
	s.until("to take hold of", `document.querySelector("`+node+`")`)
	x, y := s.middle(node)
	before := s.design(demo.Rigging).TaperNodes[0].ThicknessMm
	s.do(chromedp.DragAndDropXY(x, y, x-30, y-6, 6))
	s.eventually("thicker, nearer the point", func() bool {
		n := s.design(demo.Rigging).TaperNodes[0]
		return n.ThicknessMm > before+.2 && n.AtFraction < .48
	})
	s.do(chromedp.Focus(chromedp.CSS(node)))
	thick := s.design(demo.Rigging).TaperNodes[0].ThicknessMm
	s.keys(kb.ArrowDown)
	s.eventually("a tenth thinner", func() bool { return s.design(demo.Rigging).TaperNodes[0].ThicknessMm < thick-.05 })
	s.keys(kb.Delete)
	s.eventually("straight again", func() bool { return len(s.design(demo.Rigging).TaperNodes) == 0 })
}

// TestNodesSnapAndLock as the smith has chosen.
func TestNodesSnapAndLock(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "blade")
	s.keys("n")
	last := len(s.design(demo.Slicer).OwnOutline().Edge) - 1
	heel := fmt.Sprintf("[data-node='edge.%d']", last)
	s.until("the heel", `document.querySelector("`+heel+`")`)
	s.do(chromedp.Focus(chromedp.CSS(heel)))
	s.keys(kb.ArrowRight)
	s.keys(kb.ArrowDown)
	s.eventually("it moves down, not along", func() bool {
		d := s.design(demo.Slicer)
		return d.HeightMm > 48.5 && d.LengthMm == 205
	})
	s.click("[data-rule=lockLength]")
	s.do(chromedp.Focus(chromedp.CSS(heel)))
	s.keys(kb.ArrowRight + kb.ArrowRight)
	s.eventually("unlocked, it makes the blade longer", func() bool { return s.design(demo.Slicer).LengthMm > 206.5 })
	spine := s.design(demo.Slicer).OwnOutline().Spine
	assert.InDelta(t, 0, spine[0][0], 1e-9, "the point stays")
	s.click("[data-rule=lockHeel]")
	height := s.design(demo.Slicer).HeightMm
	s.do(chromedp.Focus(chromedp.CSS(heel)))
	s.keys(kb.ArrowDown)
	node := fmt.Sprintf("[data-node='edge.%d']", last-1)
	x, y := s.middle(node)
	s.do(chromedp.DragAndDropXY(x, y, x-8, y+9, 6))
	s.eventually("another node moves, by whole millimetres", func() bool {
		n := s.design(demo.Slicer).OwnOutline().Edge[last-1]
		return n[0] == float64(int(n[0])) && n[1] == float64(int(n[1]))
	})
	assert.InDelta(t, height, s.design(demo.Slicer).HeightMm, 1e-9, "the heel is locked")
}

// TestAHandleIsPutOnTheTang: sized to a hand, with a guard and a hole; what does
// not hold is said.
func TestAHandleIsPutOnTheTang(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	bare := s.text("section[aria-label=Ledger] p")
	s.click("[data-testid=fit-hand]")
	s.until("drawn over the tang", `document.querySelector("[data-testid=handle] [data-part=grip]") && document.querySelector("[data-testid=push]")`)
	s.until("weighed", `document.querySelector("[data-testid=whole-figures]")`)
	s.saved()
	assert.NotEqual(t, bare, s.text("section[aria-label=Ledger] p"), "the whole knife is told")
	s.fill("design.handle.guard.lengthMm", "6")
	s.until("a guard", `document.querySelector("[data-testid=handle] [data-part=guard]")`)
	s.press("Drill a hole")
	s.until("a hole", `document.querySelector("[data-testid=hole]")`)
	s.fill("design.tang.holes.0.atMm", "5")
	s.until("too near", `document.querySelector("[data-warning='warn.holeShoulder']").textContent.includes("from the shoulder")`)
	s.fill("design.handle.topDropMm", "6")
	s.until("a step, and no wall", `document.querySelector("[data-warning='warn.spineStepDown']").textContent.includes("does not flow") && document.querySelector("[data-warning='warn.handleWall']").textContent.includes("left around the tang")`)
	s.fill("design.tang.weldAtMm", "8")
	s.until("a seam at the ricasso", `document.querySelector("[data-warning='warn.weldSeam']").textContent.includes("weld is 8 mm")`)
	s.press("×")
	s.until("no hole", `!document.querySelector("[data-testid=hole]")`)
	s.pick("design.tangKind", "wrapped")
	s.until("its own handle", `!document.querySelector("[data-testid=handle] [data-part]")`)
	s.saved()
	assert.Equal(t, blade.WrappedTang, s.design(demo.Rigging).TangKind)
}

func TestTheTangIsTaperedByItsHandles(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	assert.False(t, js[bool](s, `!!document.querySelector("[data-handle='design.tang.heightAtEndMm']")`))
	js[bool](s, `(document.querySelectorAll("svg [data-zone=tang]")[1].dispatchEvent(new MouseEvent("click", {bubbles: true})), true)`)
	s.until("both ends, both ways", `document.querySelectorAll("[data-handle^='design.tang.']").length === 5`)
	before := s.design(demo.Rigging).Tang
	x, y := s.middle("[data-handle='design.tang.heightAtEndMm']")
	s.do(chromedp.DragAndDropXY(x, y, x, y+8, 5))
	s.do(chromedp.Focus(chromedp.CSS("[data-handle='design.tang.thicknessAtEndMm']")))
	s.keys(kb.ArrowUp + kb.ArrowUp)
	s.eventually("higher and thicker at its end", func() bool {
		now := s.design(demo.Rigging).Tang
		return now.HeightAtEndMm > before.HeightAtEndMm && now.ThicknessAtEndMm > before.ThicknessAtEndMm
	})
}

// TestAllowancesByZoneAndTheirLedger: every allowance has its line.
func TestAllowancesByZoneAndTheirLedger(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.click("[data-ledger='ledger.grind'] button")
	s.until("line by line", `document.querySelector("[data-ledger='ledger.faces']") && document.querySelector("[data-ledger='ledger.forgingEdge']")`)
	s.pick("allowances.zones", "Each its own")
	s.fill("allowances.zones.tangFaceMm", "0")
	s.until("nothing on the tang", `!document.querySelector("[data-ledger='ledger.tangFaces']")`)
	s.saved()
	require.NotNil(t, s.stored(demo.Rigging).Doc.Request.Allowances.Zones)
	s.fill("design.grind.plungeMm", "6")
	s.until("taken", `document.querySelector("[data-save=saved]")`)
	assert.InDelta(t, 6, s.design(demo.Rigging).Grind.PlungeMm, 1e-9)
}

func TestWhatIsUnusualIsMarkedWhereItIs(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "blade")
	assert.False(t, js[bool](s, `!!document.querySelector("[data-unusual]")`))
	s.fill("design.spineMm", "7.5")
	s.until("marked", `document.querySelector("[data-unusual=stiff]")`)
	s.click("[data-unusual=stiff]")
	s.until("its sentence", `[...document.querySelectorAll("[data-radix-popper-content-wrapper]")].some(e => e.textContent.includes("Stiffer"))`)
}

// TestAPhotographIsTracedOver: put behind, scaled by two points, moved, and
// taken away again.
func TestAPhotographIsTracedOver(t *testing.T) {
	m := image.NewGray(image.Rect(0, 0, 600, 200))
	for x := 100; x < 500; x++ {
		m.SetGray(x, 100, color.Gray{Y: 255})
	}
	file := filepath.Join(t.TempDir(), "template.png")
	f, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, m))
	require.NoError(t, f.Close())

	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.keys("n")
	js[bool](s, `(document.querySelector("[data-testid=picture-panel]").open = true)`)
	s.do(chromedp.SetUploadFiles(chromedp.CSS("input[data-field=picture]"), []string{file}))
	s.until("behind the outline", `document.querySelector("[data-testid=picture]")`)
	at := s.stored(demo.Rigging).Doc.Picture
	require.NotNil(t, at)
	assert.Equal(t, 600, at.WidthPx)

	s.click("[data-testid=picture-two]")
	s.until("to be pressed", `document.querySelector("[data-testid=picture-grip]")`)
	box := js[[]float64](s, `(() => { const r = document.querySelector("[data-testid=picture-grip]").getBoundingClientRect(); return [r.left, r.top, r.width, r.height]; })()`)
	s.do(chromedp.MouseClickXY(box[0]+box[2]/4, box[1]+box[3]/2))
	s.until("one point", `document.querySelectorAll("[data-testid=picture-point]").length === 1`)
	s.do(chromedp.MouseClickXY(box[0]+box[2]*3/4, box[1]+box[3]/2))
	s.until("two points", `document.querySelectorAll("[data-testid=picture-point]").length === 2`)
	s.do(chromedp.Focus(chromedp.CSS("aside input[data-field='picture.apartMm']")))
	s.keys("60\r")
	s.eventually("300 px are 60 mm", func() bool {
		p := s.stored(demo.Rigging).Doc.Picture
		return p.MmPerPx > .195 && p.MmPerPx < .205
	})
	s.click("[data-testid=picture-move]")
	before := s.stored(demo.Rigging).Doc.Picture.XMm
	x, y := s.middle("[data-testid=picture-grip]")
	s.do(chromedp.DragAndDropXY(x, y, x+40, y, 5))
	s.eventually("moved", func() bool { return s.stored(demo.Rigging).Doc.Picture.XMm > before+2 })
	s.press("Take the picture away")
	s.until("gone", `!document.querySelector("[data-testid=picture]")`)
}
