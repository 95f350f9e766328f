package e2e

import (
	"os"
	"testing"
	"time"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

func (s *smith) shot(name string) {
	time.Sleep(400 * time.Millisecond)
	b, err := chromedp.Run(s.Ctx, chromedp.CaptureScreenshot())
	require.NoError(s.t, err)
	require.NoError(s.t, os.WriteFile("/tmp/shots/"+name+".png", b, 0o600))
}

func TestZZ(t *testing.T) {
	s := open(t)
	s.bench(demo.Rigging, "harden")
	s.until("line", `document.querySelector("[data-testid=treat-steps]")`)
	s.shot("harden")
	js[bool](s, `(document.querySelector("[data-testid=mends]").scrollIntoView(), true)`)
	s.shot("harden2")
	s.bench(demo.Rigging, "cycles")
	s.until("line", `document.querySelector("[data-testid=grain]")`)
	s.shot("cycles")
	s.goTo("/shop")
	s.until("x", `document.querySelector("[data-add='ovens.add']")`)
	js[bool](s, `(document.querySelector("[data-add='tongs.add']").scrollIntoView(), true)`)
	s.shot("shop")
	s.goTo("/day?p=" + s.piece(demo.Rigging) + "&p=" + s.piece(demo.Slicer) + "&p=" + s.piece(demo.Oyster) + "&g=60&n=1&c=1")
	s.until("x", `document.querySelector("[data-placed=set]")`)
	s.shot("day")
	s.atFire(demo.Rigging)
	s.keys("h")
	s.until("to heat", `document.querySelector("[data-testid=treat-step]")`)
	s.skip(600)
	s.touch(" ")
	s.shot("quench")
	s.keys("s")
	s.until("asked", `document.querySelector("[data-testid=seen-form]")`)
	s.shot("seen")
}
