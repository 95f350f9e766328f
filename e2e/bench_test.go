package e2e

import (
	"fmt"
	"path/filepath"
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

func mm(t *testing.T, text string) float64 {
	t.Helper()
	figure, _, _ := strings.Cut(text, " ")
	v, err := strconv.ParseFloat(figure, 64)
	require.NoError(t, err, text)
	return v
}

// TestALongerBladeTakesMoreBar: from the list, by keyboard, to the new bar.
func TestALongerBladeTakesMoreBar(t *testing.T) {
	s := open(t)
	s.goTo("/")
	s.do(chromedp.WaitVisible(chromedp.Search("//main//li//a[contains(., 'Rigging')]")), chromedp.Click(chromedp.Search("//main//li//a[contains(., 'Rigging')]")))
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-figure=cut]")))
	before := mm(t, s.text("[data-figure=cut]"))
	s.fill("design.lengthMm", "100+15")
	s.until("a longer bar", fmt.Sprintf(`parseFloat(document.querySelector("[data-figure=cut]").textContent) > %v`, before+5))
	s.saved()
	assert.InDelta(t, 115, s.stored(demo.Rigging).Doc.Request.Design.LengthMm, 1e-9)
	assert.Equal(t, "115 mm", s.text("[data-figure=blade]"))
	s.leave()
	s.keys("3")
	s.until("the stage of the cut", `document.querySelector("[data-testid=cut-length]")`)
	assert.Equal(t, s.text("[data-figure=cut]"), s.text("[data-testid=cut-length]"))
	assert.InDelta(t, s.stored(demo.Rigging).Summary.CutLengthMm, mm(t, s.text("[data-testid=cut-length]")), .51)
}

func TestADimensionOnTheDrawingIsAField(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	for field, text := range map[string]string{"design.heightMm": "26", "design.spineMm": "3.2mm", "bar.widthMm": "1 in"} {
		css := fmt.Sprintf(`[data-dim=%q] input`, field)
		s.do(chromedp.Focus(chromedp.CSS(css)))
		s.keys(text + "\r")
		s.saved()
	}
	r := s.stored(demo.Rigging).Doc.Request
	assert.InDelta(t, 26, r.Design.HeightMm, 1e-9)
	assert.InDelta(t, 3.2, r.Design.SpineMm, 1e-9)
	assert.InDelta(t, 25.4, r.Bar.WidthMm, 1e-9)
}

func TestANarrowBarIsHatchedWhereItWillNotDo(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "stock")
	assert.Empty(t, s.text("[data-warning^='warn.tooNarrow']"))
	assert.False(t, js[bool](s, `!!document.querySelector("[data-testid=hatch-wrong]")`))
	s.fill("bar.widthMm", "30")
	s.until("a warning", `document.querySelector("[data-warning^='warn.tooNarrow']")`)
	assert.Contains(t, s.text("[data-warning^='warn.tooNarrow']"), "would do")
	// the hatch lies on the blade, not on the tang
	over := js[bool](s, `(() => {
		const h = document.querySelector("[data-testid=hatch-wrong]").getBoundingClientRect();
		const tang = [...document.querySelectorAll("[data-zone=tang]")][0].getBoundingClientRect();
		const blade = [...document.querySelectorAll("[data-zone=blade]")][0].getBoundingClientRect();
		return h.left < blade.right && h.right > blade.left && h.right <= tang.left + 5;
	})()`)
	assert.True(t, over, "the hatch is where the bar is too narrow")
	s.saved()
	s.click("[data-stock='Wide bar']")
	s.until("no warning any more", `!document.querySelector("[data-warning^='warn.tooNarrow']") && !document.querySelector("[data-testid=hatch-wrong]")`)
}

func TestInchesEverywhere(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "cut")
	s.keys("u")
	s.until("inches", `document.querySelector("[data-figure=cut]").textContent.includes(" in (")`)
	assert.Regexp(t, `^4( \d+/\d+)? in \(4?[ \d/]+–4[ \d/]+\)$`, s.text("[data-figure=cut]"))
	assert.False(t, js[bool](s, `/\d\s?mm\b/.test(document.querySelector("main").innerText)`), "no millimetre is left: %s", js[string](s, `document.querySelector("main").innerText.match(/.{20}\d\s?mm\b/)?.[0] ?? ""`))
	before := s.stored(demo.Rigging).Doc.Request.Design
	s.keys("1")
	s.fill("design.lengthMm", "4 1/2")
	s.saved()
	assert.InDelta(t, 114.3, s.stored(demo.Rigging).Doc.Request.Design.LengthMm, 1e-9)
	assert.InDelta(t, before.HeightMm, s.stored(demo.Rigging).Doc.Request.Design.HeightMm, 0, "switching units changes nothing that is stored")
}

// TestUndoSaveRestart: what is undone and what is saved is there after the
// server has gone and come back.
func TestUndoSaveRestart(t *testing.T) {
	data := filepath.Join(t.TempDir(), "demo.db")
	s := openFile(t, data, buildDemo)
	s.bench(demo.Rigging, "blade")
	s.fill("design.lengthMm", "95")
	s.saved()
	s.fill("design.heightMm", "26")
	s.saved()
	s.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	s.until("undone", `document.querySelector("aside input[data-field='design.heightMm']").value === "24"`)
	s.saved()
	s.do(chromedp.Navigate("about:blank")) // left before the server goes: what it still fetched would be refused
	require.NoError(t, s.app.Close())

	s = openFile(t, data, buildDemo)
	s.bench(demo.Rigging, "blade")
	assert.Equal(t, "95 mm", s.text("[data-figure=blade]"))
	s.do(chromedp.KeyEvent("y", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	s.until("redone after the restart", `document.querySelector("aside input[data-field='design.heightMm']").value === "26"`)
	s.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.Sleep(300*time.Millisecond), chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	s.until("all undone", `document.querySelector("[data-figure=blade]").textContent === "86 mm"`)
}

func TestWhatCannotBeIsKeptAsTyped(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	cut := s.text("[data-figure=cut]")
	for text, says := range map[string]string{"5m": "Between 20 mm and 1200 mm", "12 furlongs": "no unit known here", "-3": "Between", "NaN": "figure is missing", "0": "Between"} {
		s.fill("design.lengthMm", text)
		s.until(text+" refused", `document.querySelector("aside [role=alert]")`)
		s.until(says, fmt.Sprintf(`document.querySelector("aside [role=alert]").textContent.includes(%q)`, says))
		assert.Equal(t, text, js[string](s, `document.querySelector("aside input[data-field='design.lengthMm']").value`))
		assert.Equal(t, cut, s.text("[data-figure=cut]"), "the last good plan stays")
	}
	s.fill("design.heightMm", "25")
	s.until("the rest is saved", `document.querySelector("[data-save=wrong]")`)
	require.Eventually(t, func() bool { return s.stored(demo.Rigging).Doc.Request.Design.HeightMm == 25 }, 40*time.Second, 50*time.Millisecond)
	s.do(chromedp.Reload(), chromedp.WaitVisible(chromedp.CSS("aside [role=alert]")))
	kept := js[string](s, `document.querySelector("aside input[data-field='design.lengthMm']").value`)
	assert.NotEmpty(t, kept)
	assert.NotEqual(t, "86", kept, "what was typed survives a reload")
	s.do(chromedp.Focus(chromedp.CSS("aside input[data-field='design.lengthMm']")), chromedp.KeyEvent(kb.Escape))
	s.until("taken back", `document.querySelector("aside input[data-field='design.lengthMm']").value === "86" && document.querySelector("[data-save=saved]")`)
}

// TestTwoWindowsDoNotOverwriteEachOther: one that has nothing typed follows the other;
// one that has is asked whose is to be kept.
func TestTwoWindowsDoNotOverwriteEachOther(t *testing.T) {
	a := open(t)
	a.bench(demo.Rigging, "blade")
	b := a.window(1280, 800)
	b.bench(demo.Rigging, "blade")
	length := `document.querySelector("aside input[data-field='design.lengthMm']").value`
	a.fill("design.lengthMm", "89")
	a.saved()
	b.until("the other window follows", length+` === "89"`)

	b.fill("design.heightMm", "x")
	b.until("something is typed", `document.querySelector("[data-save=wrong]")`)
	a.fill("design.lengthMm", "91")
	a.saved()
	b.fill("design.lengthMm", "97")
	b.until("told", `document.querySelector("[data-save=stale]")`)
	bar := b.text("main > div > [role=alert]")
	assert.Contains(t, bar, "97")
	assert.Contains(t, bar, "91 mm")
	b.do(chromedp.Click(chromedp.Search("//button[contains(., 'Save mine')]")))
	require.Eventually(t, func() bool { return a.stored(demo.Rigging).Doc.Request.Design.LengthMm == 97 }, 40*time.Second, 50*time.Millisecond)
	assert.Equal(t, "x", js[string](b, `document.querySelector("aside input[data-field='design.heightMm']").value`), "what was typed is still there")
	a.until("and back", length+` === "97"`)
}

func TestHeatsScrubTheMiddleDrawing(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "heats")
	assert.True(t, js[bool](s, `!!document.querySelector("[data-caution='caution.sharpFromNow']")`), "cautions stand at their steps")
	whole := js[string](s, `document.querySelector("svg [data-zone=blade] path").getAttribute("d")`)
	s.keys("]")
	s.until("first heat", `document.querySelector("[data-heat='1'][aria-pressed=true]")`)
	s.keys("]]]")
	s.until("fourth heat", `document.querySelector("[data-heat='4'][aria-pressed=true]")`)
	s.until("the piece as it is after that heat", `document.querySelector("svg [data-zone=blade] path").getAttribute("d") !== "`+whole+`"`)
	assert.Regexp(t, `Heat 4 of \d+`, s.text("[data-testid=heat-detail]"))
	assert.True(t, js[bool](s, `!!document.querySelector("[data-testid=hot-stretch]")`))
	s.keys("[")
	s.until("back one", `document.querySelector("[data-heat='3'][aria-pressed=true]")`)
	s.keys(kb.Escape)
	s.until("whole plan", `!document.querySelector("[data-heat][aria-pressed=true]")`)
	s.click("[data-operation=bevel]")
	s.until("its first heat", `document.querySelector("[data-heat][aria-pressed=true]")`)
	s.until("what to do", `document.querySelector("[data-testid=heat-detail]").textContent.includes("Heel to point")`)
}

func TestHandlesAreDraggedAndMovedByKeys(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	at := js[[]float64](s, `(() => { const r = document.querySelector("[data-handle='design.lengthMm']").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]; })()`)
	s.do(chromedp.DragAndDropXY(at[0], at[1], at[0]+35, at[1], 8))
	s.until("longer", `parseFloat(document.querySelector("[data-figure=blade]").textContent) > 90`)
	s.saved()
	dragged := s.stored(demo.Rigging).Doc.Request.Design.LengthMm
	assert.Greater(t, dragged, 90.0)
	assert.InDelta(t, 0, dragged*2-float64(int(dragged*2+.5)), 1e-6, "it snaps to halves")
	s.do(chromedp.Focus(chromedp.CSS("[data-handle='design.heightMm']")))
	s.keys(kb.ArrowUp + kb.ArrowUp)
	s.until("two higher", `document.querySelector("[data-handle='design.heightMm']").getAttribute("aria-valuenow") === "26"`)
	s.saved()
}

func TestFlipZoomAndSelection(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "cut")
	pointLeft := `document.querySelector("[data-zone=point]").getBoundingClientRect().left < document.querySelector("[data-zone=tang]").getBoundingClientRect().left`
	assert.True(t, js[bool](s, pointLeft))
	s.keys("f")
	s.until("flipped", "!("+pointLeft+")")
	width := js[float64](s, `document.querySelector("[data-zone=blade]").getBoundingClientRect().width`)
	s.keys("+")
	s.until("larger", fmt.Sprintf(`document.querySelector("[data-zone=blade]").getBoundingClientRect().width > %v`, width*1.2))
	s.keys("0")
	s.until("fits again", fmt.Sprintf(`Math.abs(document.querySelector("[data-zone=blade]").getBoundingClientRect().width - %v) < 1`, width))
	s.do(chromedp.Click(chromedp.Search("//aside//button[contains(., 'Ricasso')]")))
	s.until("lit everywhere", `[...document.querySelectorAll("[data-zone=ricasso] path[stroke='var(--act)'], [data-mark=ricasso] rect[stroke='var(--act)']")].length >= 4`)
}

// TestTheOutlineIsMovedByItsNodes with the mouse, the keys and the list.
func TestTheOutlineIsMovedByItsNodes(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "blade")
	before := s.stored(demo.Slicer).Summary.CutLengthMm
	s.keys("n")
	s.until("nodes", `document.querySelectorAll("[data-node]").length > 6`)
	drag := func(node string, dx, dy float64) {
		at := js[[]float64](s, fmt.Sprintf(`(() => { const r = document.querySelector("[data-node='%s']").getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]; })()`, node))
		s.do(chromedp.DragAndDropXY(at[0], at[1], at[0]+dx, at[1]+dy, 6))
	}
	n := len(s.stored(demo.Slicer).Doc.Request.Design.OwnOutline().Edge)
	drag(fmt.Sprintf("edge.%d", n-2), 0, 20)
	s.saved()
	d := s.stored(demo.Slicer).Doc.Request.Design
	assert.Equal(t, "own", string(d.Shape))
	require.NotNil(t, d.Outline)
	assert.Greater(t, s.stored(demo.Slicer).Summary.CutLengthMm, before, "a deeper belly takes more bar")
	moved := d.OwnOutline().Edge[n-2][1]
	s.do(chromedp.Focus(chromedp.CSS(fmt.Sprintf("[data-node='edge.%d']", n-2))))
	s.keys(kb.ArrowUp + kb.ArrowUp)
	s.until("saved", `document.querySelector("[data-save=saved]")`)
	require.Eventually(t, func() bool {
		return s.stored(demo.Slicer).Doc.Request.Design.OwnOutline().Edge[n-2][1] > moved+.9
	}, 40*time.Second, 50*time.Millisecond)
	s.keys("c")
	require.Eventually(t, func() bool { return len(s.stored(demo.Slicer).Doc.Request.Design.Outline.EdgeCorners) == 1 }, 40*time.Second, 50*time.Millisecond)
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Node on the spine')]")))
	require.Eventually(t, func() bool { return len(s.stored(demo.Slicer).Doc.Request.Design.Outline.Spine) == 3 }, 40*time.Second, 50*time.Millisecond)
	s.saved()
	good := js[string](s, `[...document.querySelectorAll("svg [data-zone=blade] path")].at(-1).getAttribute("d")`)
	// across the spine: marked where it is, the last good shape stays
	field := fmt.Sprintf("outline.edge.%d", n-2)
	s.do(chromedp.Focus(chromedp.CSS(fmt.Sprintf("[data-node='edge.%d']", n-2))))
	s.until("its figures", fmt.Sprintf(`document.querySelector("aside input[data-field='%s']")`, field))
	s.fill(field, "150; 20")
	s.until("marked", `document.querySelector("[data-node].wrong")`)
	s.until("said", `document.querySelector("aside [role=alert]").textContent.includes("cross")`)
	assert.Equal(t, good, js[string](s, `[...document.querySelectorAll("svg [data-zone=blade] path")].at(-1).getAttribute("d")`))
	assert.Equal(t, "150; 20", js[string](s, fmt.Sprintf(`document.querySelector("aside input[data-field='%s']").value`, field)))
}

// TestTheSectionFollowsThePointer along the blade, and takes a groove.
func TestTheSectionFollowsThePointer(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	title := `[...document.querySelectorAll("aside legend")].find(l => l.textContent.startsWith("Section"))?.textContent`
	s.until("a section", title)
	before := js[string](s, title)
	box := js[[]float64](s, `(() => { const r = document.querySelectorAll("svg [data-zone=blade]")[1].getBoundingClientRect(); return [r.left, r.top, r.width, r.height]; })()`)
	s.do(chromedp.MouseEvent("mouseMoved", box[0]+box[2]*.2, box[1]+box[3]*.4))
	s.until("another station", title+" !== "+fmt.Sprintf("%q", before))
	near := mm(t, strings.Fields(js[string](s, title))[1]+" mm")
	assert.InDelta(t, 86*.1+(86*.9)*.2, near, 12)
	behind := s.text("[data-testid=section-figures]")
	assert.Contains(t, behind, "°")
	mass := s.stored(demo.Rigging).Summary.MassG
	s.pick("design.groove", "Fuller")
	s.until("its depth", `document.querySelector("aside input[data-field='design.grind.groove.depthMm']")`)
	s.saved()
	assert.Less(t, s.stored(demo.Rigging).Summary.MassG, mass, "a fuller lightens")
	s.fill("design.grind.groove.depthMm", "3")
	s.until("refused", `document.querySelector("aside [role=alert]")?.textContent.includes("groove")`)
}

func TestTheSuggestedAllowanceIsTakenWithOnePress(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.until("a suggestion", `document.querySelector("[data-testid=suggestion] button")`)
	before := s.stored(demo.Rigging).Doc.Request.Allowances.FaceMm
	s.click("[data-testid=suggestion] button")
	s.until("taken", `!document.querySelector("[data-testid=suggestion]")`)
	s.saved()
	assert.NotEqual(t, before, s.stored(demo.Rigging).Doc.Request.Allowances.FaceMm)
}

// TestWhatTheUseAsksIsSaid where a figure is not usual for it.
func TestWhatTheUseAsksIsSaid(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "blade")
	s.until("all usual", `document.querySelectorAll("[data-finding]").length === 4 && !document.querySelector("[data-usual=false]")`)
	s.fill("design.spineMm", "7.5")
	s.until("too stiff", `document.querySelector("[data-finding=stiff][data-usual=false]")?.textContent.includes("Stiffer")`)
	s.until("marked on the drawing", `document.querySelector("svg[role=img]").textContent.includes("unusual for its use") || document.querySelector("section svg").textContent.includes("unusual for its use")`)
}

// TestTheOutlineIsTakenFromAFile: a drawing is picked, its scale is checked, and
// the bench has its shape.
func TestTheOutlineIsTakenFromAFile(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "blade")
	s.keys("n")
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'From a drawing')]")))
	file, err := filepath.Abs("../internal/drawing/testdata/light-polyline.dxf")
	require.NoError(t, err)
	s.do(chromedp.WaitVisible(chromedp.CSS("[role=dialog] input[type=file]")), chromedp.SetUploadFiles(chromedp.CSS("[role=dialog] input[type=file]"), []string{file}))
	take := "[role=dialog] button[type=submit]"
	s.until("it can be taken", fmt.Sprintf(`!document.querySelector(%q).disabled`, take))
	assert.Empty(t, js[string](s, `document.querySelector("[role=dialog] input[data-field=length]").value`), "no length is put into the smith's mouth")
	s.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field=length]")))
	s.keys("86")
	s.click(take)
	s.until("the scale does not agree", `document.querySelector("[role=dialog] [role=alert]")?.textContent.includes("120 mm")`)
	js[bool](s, `(document.querySelector("[role=dialog] input[data-field=length]").select(), true)`)
	s.do(chromedp.Focus(chromedp.CSS("[role=dialog] input[data-field=length]")))
	s.keys("120")
	s.click(take)
	s.until("taken", `!document.querySelector("[role=dialog]") && document.querySelector("[data-figure=blade]").textContent === "120 mm"`)
	d := s.stored(demo.Rigging).Doc.Request.Design
	assert.Equal(t, "own", string(d.Shape))
	assert.InDelta(t, 30, d.HeightMm, .05)
}
