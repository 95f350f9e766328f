package e2e

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/quantity"
	"coldember/internal/demo"
	"coldember/internal/edit"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// edited sets fields of a piece as the page would, without the page.
func (s *smith) edited(name string, fields ...string) {
	s.t.Helper()
	p := s.stored(name)
	var edits []edit.Edit
	for i := 0; i < len(fields); i += 2 {
		edits = append(edits, edit.Edit{Field: fields[i], Text: fields[i+1], Units: quantity.Metric})
	}
	_, _, err := s.app.Work.SavePiece(context.Background(), p.ID, p.Version, edits)
	require.NoError(s.t, err)
}

// overtype types in place of what stands in a field.
func (s *smith) overtype(css, text string) {
	s.t.Helper()
	s.do(chromedp.Focus(chromedp.CSS(css)))
	js[bool](s, fmt.Sprintf(`(document.querySelector(%q).select(), true)`, css))
	s.keys(text)
	want := strings.TrimSuffix(text, "\r")
	s.until("typed", fmt.Sprintf(`[%q, ""].includes(document.querySelector(%q)?.value ?? "")`, want, css))
}

// TestThreeKnivesFromBlackToSheath: a hidden tang with a guard, a full tang with scales and a
// patterned kitchen knife are ground, fitted and sharpened by their steps, their fittings are on
// paper, and what they came to is in the book.
func TestThreeKnivesFromBlackToSheath(t *testing.T) {
	s := open(t)
	s.edited(demo.Slicer, "choices.steelPattern", "quarter", "design.handle", "drawn", "design.handle.bolster.lengthMm", "10", "finish.cover", "thermo")
	s.edited(demo.Net, "design.tangKind", "full", "design.handle", "drawn", "design.hole", "add", "design.hole", "add", "finish.cover", "leather")
	for _, knife := range []struct {
		name  string
		steps []string
		parts []string // of the fittings, by their words
	}{
		{demo.Rigging, []string{"profile", "bevels", "hard-60", "hard-220", "guard", "bore", "glue", "edge", "sheath"}, []string{"Guard: slot", "Grip across"}},
		{demo.Net, []string{"profile", "holes", "bevels", "scales", "fronts", "glue", "edge", "sheath"}, []string{"Grip across"}},
		{demo.Slicer, []string{"bevels", "etch", "bolster", "bore", "edge", "sheath"}, []string{"Bolster: slot", "Grip across"}},
	} {
		s.bench(knife.name, "finish")
		s.until("the map of both faces", `document.querySelectorAll("[data-testid=map-front] path[data-band]").length > 1 && document.querySelectorAll("[data-testid=map-back] path[data-band]").length > 1`)
		for _, step := range knife.steps {
			s.until(knife.name+" "+step, fmt.Sprintf(`document.querySelector("[data-step='%s']")`, step))
		}
		fittings := s.text("[data-testid=fittings]")
		for _, part := range knife.parts {
			assert.Contains(t, fittings, part, knife.name)
		}
		assert.NotContains(t, s.text("[data-testid=finish-panel]"), "{", "every figure is told")
		pdf, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-testid=fittings-pdf]").href).then((r) => r.text()).then((t) => t.slice(0, 4))`, chromedp.EvalAwaitPromise))
		require.NoError(t, err)
		assert.Equal(t, "%PDF", pdf)
		s.do(chromedp.SendKeys(chromedp.CSS("[data-final-field=massG]"), "soon"))
		s.click("[data-testid=final-keep]")
		s.until("told at once", `document.querySelector("[data-final-field=massG][aria-invalid=true]")`)
		s.overtype("[data-final-field=massG]", "143")
		s.click("[data-testid=final-keep]")
		s.until("in the book", `[...document.querySelectorAll("[data-final]")].some((e) => e.textContent.includes("143 g"))`)
		s.until("done", `document.querySelector("[data-figure=finish]").textContent === "done"`)
	}
}

// TestAFinishIsChosenByItsHours: each with its time, belt satin as usual; a step that was timed is in
// the log, and a mistyped one is told at its place.
func TestAFinishIsChosenByItsHours(t *testing.T) {
	s := open(t)
	s.bench(demo.Net, "finish")
	s.until("belt satin", `document.querySelector("[data-field='finish.surface']").textContent.includes("belt satin") && !document.querySelector("[data-step^=sand], [data-step=etch]")`)
	s.pick("finish.surface", "hand satin, 400")
	s.until("sanded to 400", `document.querySelector("[data-step='sand-400']") && !document.querySelector("[data-step='sand-600']")`)
	s.saved()
	s.do(chromedp.SendKeys(chromedp.CSS("[data-took-field='hard-60']"), "soon\r"))
	s.until("told at its place", `document.querySelector("[data-took-field='hard-60'][aria-invalid=true]")`)
	s.overtype("[data-took-field='hard-60']", "14\r")
	s.until("logged", `document.querySelector("[data-took='hard-60']")?.textContent.includes("14 min")`)
}

// TestAPitIsGroundRound: told at its place, what the blade can still be is taken with one click,
// and taken back with one.
func TestAPitIsGroundRound(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "finish")
	s.until("nothing to save", `!document.querySelector("[data-testid=ways]")`)
	s.do(chromedp.SendKeys(chromedp.CSS("[data-field='finish.pit.add']"), "50; 14; side; 1.1\r"))
	s.until("which face", `document.querySelector("[data-field='finish.pit.add'][aria-invalid=true]")`)
	s.overtype("[data-field='finish.pit.add']", "50; 14; back; 1.1\r")
	s.until("too deep", `document.querySelector("[data-finding='finish.pitDeep']") && document.querySelector("[data-pit=stays]")`)
	s.until("ways", `document.querySelector("[data-way=thinner] button")`)
	was := s.design(demo.Rigging).SpineMm
	s.click("[data-way=thinner] button")
	s.until("it comes out", `document.querySelector("[data-way=asPlanned]") && !document.querySelector("[data-finding='finish.pitDeep']")`)
	s.saved()
	assert.Less(t, s.design(demo.Rigging).SpineMm, was)
	s.leave()
	s.click("[aria-label=Undo]")
	s.until("taken back", `document.querySelector("[data-finding='finish.pitDeep']")`)
	s.eventually("as it was", func() bool { return s.design(demo.Rigging).SpineMm == was })
}

// TestFittingsAreMeasuredBack by a reader that is not ours: slot, block and sheath of the sheet to
// a tenth of a millimetre.
func TestFittingsAreMeasuredBack(t *testing.T) {
	if exec.Command("python3", "-c", "import ezdxf").Run() != nil {
		t.Skip("no outside reader of DXF is here")
	}
	s := open(t)
	p := s.stored(demo.Rigging)
	f, err := s.app.Work.Finish(context.Background(), p.Doc)
	require.NoError(t, err)
	s.bench(demo.Rigging, "finish")
	dxf, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](fmt.Sprintf(`fetch("/api/v1/pieces/%s/fittings.dxf").then((r) => r.text())`, p.ID), chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "fittings.dxf")
	require.NoError(t, os.WriteFile(file, []byte(dxf), 0o600))
	out, err := exec.Command("python3", "-c", `
import ezdxf, sys
for p in ezdxf.readfile(sys.argv[1]).modelspace().query("POLYLINE"):
    v = [q.dxf.location for q in p.vertices]
    print(p.dxf.layer, max(q.x for q in v) - min(q.x for q in v), max(q.y for q in v) - min(q.y for q in v))
`, file).Output()
	require.NoError(t, err)
	size := map[string][2]float64{}
	for _, line := range strings.Split(strings.TrimSpace(string(bytes.TrimSpace(out))), "\n") {
		var layer string
		var w, h float64
		_, err := fmt.Sscan(line, &layer, &w, &h)
		require.NoError(t, err, line)
		if _, seen := size[layer]; !seen {
			size[layer] = [2]float64{w, h}
		}
	}
	slot := f.Handle.Slots[0]
	assert.InDelta(t, slot.WidthMm, size["SLOT"][0], .1)
	assert.InDelta(t, slot.LengthMm, size["SLOT"][1], .1)
	assert.InDelta(t, slot.Fitting.HeightMm, size["BLOCK"][1], .1)
	assert.InDelta(t, slot.DrillMm, size["DRILL"][0], .1)
	assert.InDelta(t, f.Sheath.WrapMm, size["SHEATH"][1], .1)
	assert.InDelta(t, f.Sheath.LongMm, size["SHEATH"][0], .1)
	assert.InDelta(t, p.Doc.Request.Design.Handle.LengthMm, size["GRIP"][0], .1)
}
