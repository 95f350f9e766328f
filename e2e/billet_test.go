package e2e

import (
	"context"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/internal/demo"

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
	js[bool](s, `(() => {
		const data = new DataTransfer(), steps = document.querySelectorAll("[data-testid=billet-steps] li");
		const tell = (el, kind) => el.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }));
		tell(steps[3].querySelector("[draggable]"), "dragstart"), tell(steps[2], "dragover"), tell(steps[2], "drop");
		return true;
	})()`)
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
	s.until("the piece is named", fmt.Sprintf(`document.querySelector('[data-for=%q]')`, demo.Trimmer))
	s.choose("billet.made", "planned")
	s.click(fmt.Sprintf("[data-for=%q]", demo.Trimmer))
	s.eventually("long enough for it, and not much more", func() bool {
		item, err := s.app.Work.StockItem(context.Background(), p.Doc.StockID)
		require.NoError(t, err)
		long := item.Doc.Piece.LengthMm
		return long >= p.Summary.CutLengthMm && long < p.Summary.CutLengthMm+25
	})
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
	s.until("what it can show", `document.querySelectorAll("[data-wish]").length === 3`)
	js[bool](s, `(() => { const r = document.querySelector("[data-testid=face-deeper]"); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(r, "6"); r.dispatchEvent(new Event("input", { bubbles: true })); return true; })()`)
	s.until("deeper, and fine again", `document.querySelector("[data-testid=face]").dataset.deeper === "0.30" && document.querySelector("[data-testid=face]").dataset.nx === "1200"`)
	png, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-testid=face] a[href*=png]").href).then((r) => r.blob()).then((b) => b.type)`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.Equal(t, "image/png", png)
}
