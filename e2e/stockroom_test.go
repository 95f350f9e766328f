package e2e

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"coldember/internal/demo"
	"coldember/internal/work"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (s *smith) item(name string) work.Stock {
	s.t.Helper()
	all, _, err := s.app.Work.Rack(context.Background(), false)
	require.NoError(s.t, err)
	for _, x := range all {
		if x.Doc.Name == name {
			return x
		}
	}
	s.t.Fatalf("no %q on the rack", name)
	return work.Stock{}
}

func (s *smith) choose(field, option string) {
	s.t.Helper()
	s.unfold("[data-field='" + field + "']")
	s.do(chromedp.ScrollIntoView(chromedp.CSS("[data-field='"+field+"']")), chromedp.Focus(chromedp.CSS("[data-field='"+field+"']")))
	s.keys("\r")
	o := chromedp.Search("//*[@role='option'][contains(., '" + option + "')]")
	s.do(chromedp.WaitVisible(o), chromedp.Click(o))
}

// put types into a field of a page and leaves it.
func (s *smith) put(field, text string) {
	s.t.Helper()
	css := "input[data-field='" + field + "']"
	s.unfold(css)
	s.do(chromedp.WaitVisible(chromedp.CSS(css)), chromedp.Focus(chromedp.CSS(css)))
	js[bool](s, `(document.querySelector("`+css+`").select(), true)`)
	s.keys(text + "\r")
}

// TestTheRackTellsWhatAPieceIs: drawn, tested, its hazards seen to, dead
// stretches placed, the scale held against its dimensions.
func TestTheRackTellsWhatAPieceIs(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.until("every piece is drawn", `document.querySelectorAll("main li svg").length === 13`)
	s.until("what must not be heated is said", `document.querySelector("[data-item='Mooring chain']").textContent.includes("Do not heat")`)
	s.click("[data-item='Old plane iron']")
	s.until("its page", `document.querySelector("[data-testid=belief]")`)
	before := s.item("Old plane iron").Belief.Shares[0]
	s.choose("test.spark", "many bursts")
	s.eventually("a finding", func() bool { return len(s.item("Old plane iron").Doc.Findings) == 1 })
	after := s.item("Old plane iron").Belief.Shares
	assert.NotEqual(t, before.Now, after[0].Now)
	s.until("its likelihood is shown", `document.querySelector("[data-test=spark]").textContent.includes("give this")`)
	s.choose("test.oilQuench", "stayed soft")
	s.choose("test.waterQuench", "stayed soft")
	s.until("contradictory, no winner", `document.querySelector("[data-verdict=contradictory]")`)
	s.put("piece.lengthMm", "200")
	s.eventually("longer", func() bool { return s.item("Old plane iron").Doc.Piece.LengthMm == 200 })
	s.put("weighedKg", "0.5")
	s.until("the scale differs", `document.querySelector("[data-testid=weight-differs]")`)
	s.put("piece.thicknessMm", "0")
	s.until("refused at the place", `document.querySelector("[data-field='piece.thicknessMm'][aria-invalid=true]")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-field='dead.from']")))
	s.keys("10")
	s.do(chromedp.Focus(chromedp.CSS("[data-field='dead.to']")))
	s.keys("20\r")
	s.eventually("a dead stretch", func() bool { return len(s.item("Old plane iron").Doc.Piece.Dead) == 2 })
	s.click("[data-testid=ask-fits]")
	s.until("what fits is told", `document.querySelectorAll("[data-testid=fits] li").length > 10`)
}

func TestATableComesInWholeOrNotAtAll(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.until("the rack", `document.querySelectorAll("main li").length === 13`)
	got := js[string](s, `document.querySelector("[data-testid=csv-out]").getAttribute("href")`)
	assert.Equal(t, "/api/v1/stock.csv", got)
	bad, good := filepath.Join(t.TempDir(), "bad.csv"), filepath.Join(t.TempDir(), "good.csv")
	require.NoError(t, os.WriteFile(bad, []byte("name,form,widthMm,thicknessMm,lengthMm,steelId\nA,flat,20,5,500,1084\nB,flat,wide,5,500,1084\n"), 0o600))
	require.NoError(t, os.WriteFile(good, []byte("name,form,widthMm,thicknessMm,lengthMm,steelId\nA,flat,20,5,500,1084\nB,flat,22,5,500,1084\n"), 0o600))
	s.press("Table in")
	file := "[role=dialog] input[type=file]"
	s.do(chromedp.WaitVisible(chromedp.CSS(file)), chromedp.SetUploadFiles(chromedp.CSS(file), []string{bad}))
	s.press("See what it does")
	s.until("line and column are named", `document.querySelector("[role=dialog] [role=alert]")?.textContent.includes("Line 3, column widthMm")`)
	s.do(chromedp.SetUploadFiles(chromedp.CSS(file), []string{good}))
	s.press("See what it does")
	s.until("what it does is told", `document.querySelector("[data-testid=table-read]")?.textContent.includes("2 new pieces: A, B")`)
	s.press("Take it into the rack")
	s.until("both are there", `document.querySelectorAll("main li").length === 15`)
}

// TestABladeFindsItsBar: what will not do and why, the ways out, two candidates
// side by side, and a lump with its hazards.
func TestABladeFindsItsBar(t *testing.T) {
	s := open(t)
	s.bench(demo.SlicerNarrow, "stock")
	s.until("ranked", `document.querySelector("[data-ranked='Wide bar'][data-feasible=true]")`)
	s.until("why not", `document.querySelector("[data-ranked='Thin bar'][data-feasible=false]").textContent.includes("too narrow")`)
	s.until("what must not into the fire comes last", `[...document.querySelectorAll("[data-ranked]")].at(-1).dataset.ranked === "Mooring chain"`)
	s.until("ways out", `document.querySelector("[data-hope='hope.wider'][data-works=true]") && document.querySelector("[data-hope='hope.lower']")`)
	s.click("[data-compare-stock='Wide bar']")
	s.click("[data-compare-stock='Hay-rake tines']")
	s.until("side by side", `document.querySelectorAll("[data-testid=compare] figure").length === 2 && document.querySelector("[data-figure-of='rank.heats']")`)
	s.press("Take Wide bar")
	s.until("the bar will do", `!document.querySelector("[data-testid=hopes]") && document.querySelector("[data-stock='Wide bar'][aria-pressed=true]")`)
	s.saved()
	s.click("[data-stock='Hay-rake tines']")
	s.until("straightened first", `document.querySelector("[data-figure=stock]").textContent.includes("spring")`)
	s.eventually("its origin comes along", func() bool { return s.stored(demo.SlicerNarrow).Doc.Request.Origin.ID == "tine" })
	s.click("[data-stock='Half a harrow disc']")
	s.until("a hazard stops it", `document.querySelector("[data-warning='hazard.coating']")`)
	s.press("I have seen to this")
	s.eventually("seen to", func() bool {
		return len(s.stored(demo.SlicerNarrow).Doc.Request.Origin.Acknowledged) == 1
	})
}

func TestTheLargestBladeAndWhatAMillimetreCosts(t *testing.T) {
	s := open(t)
	s.bench(demo.Oyster, "stock")
	s.until("costs", `document.querySelectorAll("[data-testid=costs] tr").length === 5`)
	s.click("[data-testid=largest-ask]")
	s.until("an answer", `document.querySelector("[data-testid=largest]") || document.querySelector("aside [role=alert]")`)
	before := s.stored(demo.Oyster).Doc.Request.Design.LengthMm
	s.press("Make it so")
	s.eventually("taken", func() bool { return s.stored(demo.Oyster).Doc.Request.Design.LengthMm != before })
	p := s.stored(demo.Oyster)
	assert.LessOrEqual(t, p.Summary.CutLengthMm, 36.01, "it still comes of one roller")
	assert.Greater(t, p.Summary.CutLengthMm, 30., "and uses it")
	s.do(chromedp.Focus(chromedp.CSS("[data-slide='design.spineMm']")))
	spine := p.Doc.Request.Design.SpineMm
	js[bool](s, `(() => { const e = document.querySelector("[data-slide='design.spineMm']"); const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set; set.call(e, e.min); e.dispatchEvent(new Event("input", {bubbles: true})); return true; })()`)
	s.eventually("thinner", func() bool { return s.stored(demo.Oyster).Doc.Request.Design.SpineMm < spine })
}

// TestACutIsBookedAndMade, its band on the bar; and a class of knives is cut
// from the rack.
func TestACutIsBookedAndMade(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "cut")
	s.until("how sure", `document.querySelectorAll("[data-testid=sure] dd").length === 3 && document.querySelector("[data-testid=sure-band]")`)
	s.goTo("/cuts")
	s.do(chromedp.WaitVisible(chromedp.CSS("[data-want='"+demo.Rigging+"']")), chromedp.Focus(chromedp.CSS("[data-want='"+demo.Rigging+"']")))
	js[bool](s, `(document.activeElement.select(), true)`)
	s.keys("6\r")
	s.until("laid", `document.querySelectorAll("[data-testid=cut-group] svg g").length === 6`)
	s.click("[data-testid=take-cuts]")
	s.until("booked", `document.querySelector("main [role=status]")?.textContent.includes("6 cuts")`)
	assert.Greater(t, s.item("Yard bar").BookedMm, 600.)
	s.bench(demo.Rigging, "cut")
	s.until("it stands booked", `document.querySelector("[data-cut=body][data-state=booked]")`)
	s.press("I have cut it")
	s.until("made", `document.querySelector("[data-cut=body][data-state=made]")`)
	assert.Less(t, s.item("Yard bar").Doc.Piece.LengthMm, 900.)
	s.goTo("/rack/" + s.item("Yard bar").ID)
	s.until("its history", `document.querySelector("[data-testid=history]")?.textContent.includes("Rigging knife")`)
}

// TestTwoWindowsBookTheSameBar: one wins, the other is told.
func TestTwoWindowsBookTheSameBar(t *testing.T) {
	a := open(t)
	b := a.window(1280, 800)
	for _, s := range []*smith{a, b} {
		s.goTo("/cuts")
		s.do(chromedp.WaitVisible(chromedp.CSS("[data-want='"+demo.Slicer+"']")), chromedp.Focus(chromedp.CSS("[data-want='"+demo.Slicer+"']")))
		js[bool](s, `(document.activeElement.select(), true)`)
		s.keys("2\r")
		s.until("laid", `document.querySelector("[data-testid=take-cuts]")`)
	}
	a.click("[data-testid=take-cuts]")
	a.until("booked", `document.querySelector("main [role=status]")`)
	b.click("[data-testid=take-cuts]")
	b.until("told", `document.querySelector("main [role=alert]")?.textContent.includes("Wide bar")`)
}
