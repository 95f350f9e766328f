package e2e

import (
	"context"
	"image"
	"image/color"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"testing"

	"coldember/core/photo"
	"coldember/core/replan"
	"coldember/internal/demo"
	"coldember/internal/export"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// blankOnSheet is a picture from straight above of a blank of so much length and height on a printed sheet.
func blankOnSheet(t *testing.T, longMm, highMm float64) string {
	const perMm, marginMm = 6.0, 8.0
	sheet := export.PhotoSheet("a4")
	img := image.NewGray(image.Rect(0, 0, int((sheet.WideMm+2*marginMm)*perMm), int((sheet.HighMm+2*marginMm)*perMm)))
	for y := range img.Rect.Dy() {
		for x := range img.Rect.Dx() {
			mmX, mmY := float64(x)/perMm-marginMm, float64(y)/perMm-marginMm
			v := uint8(238)
			for k, c := range [4][2]float64{{0, 0}, {sheet.WideMm, 0}, {sheet.WideMm, sheet.HighMm}, {0, sheet.HighMm}} {
				if d := math.Hypot(mmX-c[0], mmY-c[1]); d < photo.RingMm/2 && d > photo.WhiteMm/2 || k == 0 && d < photo.DotMm/2 {
					v = 15
				}
			}
			if u := mmX - 20; u > 0 && u < longMm && math.Abs(mmY-sheet.HighMm/2) < highMm/2*math.Sqrt(math.Min(1, u/15)) {
				v = 60
			}
			img.SetGray(x, y, color.Gray{Y: v})
		}
	}
	file := filepath.Join(t.TempDir(), "blank.png")
	f, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, img))
	require.NoError(t, f.Close())
	return file
}

// session is the id of the newest session of a piece.
func (s *smith) session(name string) string {
	s.t.Helper()
	f, err := s.app.Work.FireOf(context.Background(), s.piece(name))
	require.NoError(s.t, err)
	return f.ID
}

// TestABladeIsLaidIntoAPhotograph: the finished blade lies in the blank that was read, is moved by keys and by hand, and is
// told when it sticks out; by itself it comes back to where there is most to spare.
func TestABladeIsLaidIntoAPhotograph(t *testing.T) {
	s := open(t)
	s.goTo("/sessions/" + s.session(demo.Net) + "/replan")
	s.until("the page", `document.querySelector("[data-testid=photo-file]")`)
	s.do(chromedp.SetUploadFiles(chromedp.CSS("[data-testid=photo-file]"), []string{blankOnSheet(t, 230, 50)}))
	least := `Number(document.querySelector("[data-testid=inside]")?.dataset.least)`
	s.until("laid in", least+" > 0.5")
	best := js[float64](s, least)
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=inside] svg")))
	for range 60 {
		s.keys(kb.ArrowUp)
	}
	s.until("out over the spine", least+" < 0")
	assert.Contains(t, s.text("[data-testid=inside-said]"), "sticks out")
	s.click("[data-testid=inside-seek]")
	s.until("back again", least+" > 0")
	assert.InDelta(t, best, js[float64](s, least), .1)
	x, y := s.middle("[data-testid=inside] svg")
	s.do(chromedp.DragAndDropXY(x, y, x, y-120, 4))
	s.until("dragged out", least+" < 0")
	s.keys(kb.PageUp)
	s.until("turned", `document.querySelector("[data-testid=inside-said]")`)
}

// TestThePatternOfAPieceRunsOut: said as far as it is good, the blade is offered shorter.
func TestThePatternOfAPieceRunsOut(t *testing.T) {
	s := open(t)
	id := s.session(demo.Reed)
	s.goTo("/sessions/" + id + "/replan")
	s.until("the page", `document.querySelector("[data-testid=replan-good]")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=replan-good]")))
	s.keys("180")
	s.click("[data-testid=replan-ask]")
	s.until("shorter", `document.querySelector("[data-way=shorter]") && !document.querySelector("[data-way=asPlanned]")`)
	s.until("why", `document.querySelector("[data-testid=replan-worst]").textContent.includes("not good for a blade")`)
	s.click("[data-take=shorter]")
	s.until("the anvil", `location.pathname.endsWith("/anvil")`)
	s.eventually("kept with what was said", func() bool {
		f, err := s.app.Work.FireOf(context.Background(), s.piece(demo.Reed))
		require.NoError(t, err)
		return f.ID != id && f.Doc.Measured != nil && f.Doc.Measured.GoodToMm == 180 && f.Doc.Measured.Lost == replan.PointEnd
	})
}
