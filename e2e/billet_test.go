package e2e

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/internal/demo"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABilletIsLaidAndForged: laid on the rack, its steps changed with what they leave of it, and a
// knife of it etched.
func TestABilletIsLaidAndForged(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.click("[data-testid=lay-billet]")
	s.until("laid", `document.querySelectorAll("[data-strata]").length === 5 && document.querySelector("[data-testid=billet-sum]").textContent.startsWith("13 layers")`)
	put := func(field, text string) {
		s.do(chromedp.Focus(chromedp.CSS(fmt.Sprintf("[data-field=%q]", field))))
		js[bool](s, fmt.Sprintf(`(document.querySelector('[data-field=%q]').select(), true)`, field))
		s.keys(text + "\r")
	}
	put("billet.repeats", "8")
	s.until("more of them", `document.querySelector("[data-testid=billet-sum]").textContent.startsWith("17 layers")`)
	put("billet.steps.0.perFaceMm", "3")
	s.until("not a layer away", `document.querySelector("[data-field='billet.steps.0.perFaceMm'][aria-invalid=true]")`)
	s.press("Cut and restack")
	s.until("multiplied", `document.querySelector("[data-testid=billet-sum]").textContent.startsWith("65 layers")`)
	s.click("[data-testid=billet-steps] li:last-child [aria-label='Remove the step']")
	s.until("as before", `document.querySelector("[data-testid=billet-sum]").textContent.startsWith("17 layers")`)
	js[bool](s, `(document.querySelector("[data-place='3']").scrollIntoView({ block: "center" }), true)`)
	at := js[[]float64](s, `[3, 2].flatMap((n) => { const r = document.querySelector("[data-place='" + n + "'] [data-grip]").getBoundingClientRect(); return [r.x + 40, r.y + 12]; })`)
	for _, e := range []input.DispatchTouchEventParams{
		{Type: input.DispatchTouchEventTypeTouchStart, TouchPoints: []*input.TouchPoint{{X: at[0], Y: at[1]}}},
		{Type: input.DispatchTouchEventTypeTouchMove, TouchPoints: []*input.TouchPoint{{X: at[0], Y: (at[1] + at[3]) / 2}}},
		{Type: input.DispatchTouchEventTypeTouchMove, TouchPoints: []*input.TouchPoint{{X: at[2], Y: at[3]}}},
		{Type: input.DispatchTouchEventTypeTouchEnd, TouchPoints: []*input.TouchPoint{}},
	} {
		_, err := chromedp.Call(s.Ctx, input.DispatchTouchEvent, e)
		require.NoError(t, err)
	}
	s.until("cropped before it is drawn", `[...document.querySelectorAll("[data-step]")].map((x) => x.dataset.step).join() === "clean,weld,crop,draw"`)
	s.click("[data-testid=billet-steps] li:nth-child(3) [aria-label='Move it down']")
	s.until("and back", `[...document.querySelectorAll("[data-step]")].map((x) => x.dataset.step).join() === "clean,weld,draw,crop"`)
	s.choose("billet.edgeSteelId", "80CrV2")
	s.until("an edge bar of a quarter", `document.querySelector("[data-field='billet.edgeMm']")?.value === "7.5"`)
	put("billet.beside", "2")
	s.until("welded to each other", `document.querySelector("[data-testid=billet-lost]").textContent.includes("Weld bars and edge")`)
	put("billet.for", "many; 210")
	s.until("not a count", `document.querySelector("[data-field='billet.for'][aria-invalid=true]")`)
	put("billet.for", "61; 210")
	s.until("laid for it", `/^(59|6[0-3]) layers/.test(document.querySelector("[data-testid=billet-sum]").textContent) && document.querySelector("[data-step=restack]")`)
	id := js[string](s, `location.pathname.split("/")[2]`)
	stored, err := s.app.Work.StockItem(context.Background(), id)
	require.NoError(t, err)
	assert.InDelta(t, stored.Doc.Billet.BarWidthMm, stored.Doc.Piece.WidthMm, 0, "the rack has the bar that it comes to")
	assert.GreaterOrEqual(t, stored.Doc.Piece.LengthMm, 210.0, "as long as was wanted")
	assert.Less(t, stored.Doc.Piece.LengthMm, 220.0, "a millimetre of the stack is some of the bar")
	s.click("header a.press-act")
	s.until("to a knife of it", `location.search.includes("stock=") || document.querySelector("[role=dialog]")`)
}

// TestABilletIsLaidForItsBlade: as much as the piece that is planned from it takes.
func TestABilletIsLaidForItsBlade(t *testing.T) {
	s := open(t)
	p := s.stored(demo.Trimmer)
	s.goTo("/billets/" + p.Doc.StockID)
	s.until("the piece is named", fmt.Sprintf(`document.querySelector('[data-count=%q]')`, demo.Trimmer))
	s.choose("billet.made", "planned")
	s.click("[data-testid=billet-for-pieces]")
	s.eventually("long enough for it, and not much more", func() bool {
		item, err := s.app.Work.StockItem(context.Background(), p.Doc.StockID)
		require.NoError(t, err)
		long := item.Doc.Piece.LengthMm
		return long >= p.Summary.CutLengthMm && long < p.Summary.CutLengthMm+25
	})
}

// TestOtherBilletsAreLaid: of ends, and of a chain in a can; what they ask and warn of; what it takes by
// hand and by a press.
func TestOtherBilletsAreLaid(t *testing.T) {
	s := open(t)
	s.goTo("/rack")
	s.click("[data-testid=lay-billet]")
	s.until("reckoned by hand", `document.querySelector("[data-step=draw] [data-testid=step-labour]")?.textContent.includes("strokes") && document.querySelector("[data-step=clean] [data-testid=step-labour]")?.textContent.includes("less ground off")`)
	strokes := `Number(document.querySelector("[data-step=draw] [data-testid=step-labour]").textContent.match(/([0-9]+) strokes/)[1])`
	byHand := js[int](s, strokes)
	s.choose("billet.by", "Press")
	s.until("fewer strokes", strokes+fmt.Sprintf(` * 3 < %d`, byHand))
	s.choose("billet.pattern", "mosaic: ends of four in one")
	s.until("slices are counted", `document.querySelector("[data-field='billet.sliceMm']")?.value === "12" && document.querySelector("[data-testid=billet-lost]").textContent.includes("Laid to four")`)
	s.choose("billet.pattern", "chain in a can of powder")
	s.until("its links in the powder, light and dark", `document.querySelector("[data-testid=face-bar]") && (() => { const c = document.querySelector("[data-testid=face-bar]"); const d = c.getContext("2d").getImageData(0, 0, c.width, c.height).data; let n = 0; for (let i = 0; i < d.length; i += 4) n += d[i] > 180 ? 1 : 0; return n > d.length / 4 * .3 && n < d.length / 4 * .97; })()`)
	s.until("no layers to clean", `document.querySelector("[data-finding='billet.can']") && !document.querySelector("[data-step=clean]") && document.querySelector("[data-field='billet.fill.linkMm']")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-field='billet.widthMm']")))
	js[bool](s, `(document.querySelector("[data-field='billet.widthMm']").select(), true)`)
	s.keys("20\r")
	s.until("the links do not fit", `document.querySelector("[data-finding='billet.canNarrow']")?.textContent.includes("28 mm")`)
}

// TestWhatHappenedToABillet is noted beside it, what splits comes off the bar, and the picture of its test etch is
// shown beside the computed face, which is there in the round too.
func TestWhatHappenedToABillet(t *testing.T) {
	s := open(t)
	p := s.stored(demo.Trimmer)
	was, err := s.app.Work.StockItem(context.Background(), p.Doc.StockID)
	require.NoError(t, err)
	entries := len(was.Doc.Welded)
	s.goTo("/billets/" + p.Doc.StockID)
	s.until("there", `document.querySelector("[data-testid=billet-log]")`)
	s.choose("billet-log-kind", "Split")
	s.do(chromedp.SendKeys(chromedp.CSS("[data-testid=log-much]"), "1900"))
	s.click("[data-testid=log-add]")
	s.until("no bar is so long", `[...document.querySelectorAll("[role=alert]")].some((x) => x.textContent.includes("The bar is only"))`)
	js[bool](s, `(document.querySelector("[data-testid=log-much]").select(), true)`)
	s.keys("12")
	s.do(chromedp.SendKeys(chromedp.CSS("[data-testid=log-words]"), "at the tong end"))
	s.click("[data-testid=log-add]")
	s.until("noted", fmt.Sprintf(`document.querySelectorAll("[data-entry]").length === %d && document.querySelector("[data-testid=billet-log]").textContent.includes("12 mm: at the tong end")`, entries+1))
	now, err := s.app.Work.StockItem(context.Background(), p.Doc.StockID)
	require.NoError(t, err)
	assert.InDelta(t, was.Doc.Piece.LengthMm-12, now.Doc.Piece.LengthMm, 1e-9, "it came off the bar")

	file := filepath.Join(t.TempDir(), "etch.png")
	img := image.NewGray(image.Rect(0, 0, 60, 20))
	for i := range img.Pix {
		img.Pix[i] = byte(i)
	}
	var data bytes.Buffer
	require.NoError(t, png.Encode(&data, img))
	require.NoError(t, os.WriteFile(file, data.Bytes(), 0o600))
	s.do(chromedp.SetUploadFiles(chromedp.CSS("[data-testid=etch-file]"), []string{file}))
	s.until("the etch is shown", `document.querySelector("[data-testid=etch]")?.naturalWidth === 60`)
	s.bench(demo.Trimmer, "finish")
	s.until("beside the face", `document.querySelector("[data-testid=face-etch]")?.naturalWidth === 60`)
	s.click("[data-testid=face-in-round]")
	s.until("in the round", `document.querySelector("[data-testid=face-round]")?.dataset.drawn?.split(" ").slice(0, 2).every((n) => Number(n) > 100) || document.querySelector("[role=dialog]").textContent.includes("draws nothing in the round")`)
}

// TestTheDrawnFaceIsTheChain: two hundred points of the picture on the page, each computed here from
// shape, volume and layers alone, are as bright as the layer that shows there.
func TestTheDrawnFaceIsTheChain(t *testing.T) {
	s := open(t)
	s.bench(demo.Trimmer, "finish")
	s.until("fine", `document.querySelector("[data-testid=face]")?.dataset.nx === "1200"`)
	p := s.stored(demo.Trimmer)
	req := p.Doc.Request
	made, err := s.app.Work.Plan(context.Background(), p.Doc)
	require.NoError(t, err)
	fin, err := blade.New(req.Design.Blade())
	require.NoError(t, err)
	even, err := req.Bar.Even()
	require.NoError(t, err)
	forged, err := blade.New(figure.ForgedShape(req, fin.Blade, even))
	require.NoError(t, err)
	o, err := req.Billet.Out(req.Fire)
	require.NoError(t, err)
	onBar := 0.0
	for _, m := range made.Bar.Marks {
		if m.Zone == "point" || m.Zone == "blade" {
			onBar = max(onBar, m.ToMm)
		}
	}
	bright := map[string]bool{}
	for _, x := range o.Shares {
		bright[x.SteelID] = x.Tone == billet.Bright
	}
	// scale ate as deep on every side of the bar: its skin is not the bar's
	sides := o.Bar.ForgedWidthMm + o.Bar.ForgedThicknessMm
	kept, keptWide := 1-made.Bar.ScaleShare*o.Bar.ForgedWidthMm/sides, 1-made.Bar.ScaleShare*o.Bar.ForgedThicknessMm/sides
	require.Less(t, kept, .99)
	whole, _ := forged.VolumeMm3(0, forged.LengthMm())
	length := fin.LengthMm()
	lo, hi := 1e9, -1e9
	const nx, ny = 1200, 200
	for i := range nx {
		x := length * (float64(i) + .5) / nx
		lo, hi = min(lo, fin.EdgeY(x)), max(hi, fin.SpineY(x))
	}
	r := rand.New(rand.NewPCG(3, 5)) //nolint:gosec // points to look at
	type point struct {
		i, j   int
		bright bool
		face   string
	}
	var points []point
	for len(points) < 200 {
		i, j := r.IntN(nx), r.IntN(ny)
		x, y := length*(float64(i)+.5)/nx, hi-(hi-lo)*(float64(j)+.5)/ny
		sec := fin.SectionAt(x)
		up := y - fin.EdgeY(x)
		if up < .3 || up > sec.HeightMm-.3 {
			continue
		}
		side, face := 1.0, "front"
		if len(points)%2 == 1 {
			side, face = -1, "back"
		}
		xf := x + forged.LengthMm() - length
		at := forged.SectionAt(xf)
		v, _ := forged.VolumeMm3(0, xf)
		share := o.Bar.LayerAt(billet.Point{
			XMm: onBar * v / whole, YMm: ((y-forged.EdgeY(xf))/at.HeightMm - .5) * o.Bar.ForgedWidthMm * keptWide, DepthShare: sec.ThicknessAt(up) / at.ThicknessAt(y-forged.EdgeY(xf)) * kept, Side: side,
		})
		end, near, id := 0.0, 1.0, ""
		for _, l := range o.Laid {
			end += l.ThicknessMm
			near = min(near, max(end-share, share-end))
			if id == "" && end >= share {
				id = l.SteelID
			}
		}
		if near < .012 {
			continue // on a seam the picture has the mean of both
		}
		points = append(points, point{i, j, bright[id], face})
	}
	var asked []string
	for _, q := range points {
		asked = append(asked, fmt.Sprintf("[%d,%d,%q]", q.i, q.j, q.face))
	}
	seen := js[[]int](s, `[`+strings.Join(asked, ",")+`].map(([x, y, f]) => document.querySelector("[data-testid=face-" + f + "]").getContext("2d").getImageData(x, y, 1, 1).data[0])`)
	same := 0
	for k, q := range points {
		if (seen[k] > 139) == q.bright {
			same++
		}
	}
	assert.GreaterOrEqual(t, same, 199, "of 200: at most one by a seam")
	s.until("what it can show", `document.querySelectorAll("[data-wish]").length === 5`)
	js[bool](s, `(() => { const r = document.querySelector("[data-testid=face-deeper]"); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(r, "6"); r.dispatchEvent(new Event("input", { bubbles: true })); return true; })()`)
	s.until("deeper, and fine again", `document.querySelector("[data-testid=face]").dataset.deeper === "0.30" && document.querySelector("[data-testid=face]").dataset.nx === "1200"`)
	png, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-testid=face] a[href*=png]").href).then((r) => r.blob()).then((b) => b.type)`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, "image/png", png)
}
