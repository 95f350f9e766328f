package e2e

import (
	"context"
	"strings"
	"testing"

	"coldember/e2e/harness"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestATabletOnTheShelf: turned on in Shop, paired by the code that the bench shows, it shows what is at the fire and tells
// what happens there; the bench sees it, and lets it in no more.
func TestATabletOnTheShelf(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	s.click("[data-testid=shelf-on]")
	s.until("on", `document.querySelector("[data-testid=shelf-panel]").dataset.on === "true"`)
	fingerprint := s.text("[data-testid=shelf-fingerprint]")
	s.click("[data-testid=shelf-pair]")
	s.until("a code", `document.querySelector("[data-testid=shelf-code]")?.textContent.length === 6`)
	code := s.text("[data-testid=shelf-code]")
	s.until("squares", `document.querySelector("[data-testid=shelf-pairing] img").naturalWidth > 20`)

	b, err := harness.NewBrowser(chromedp.Flag("ignore-certificate-errors", true)) // as somebody who compared them goes on
	require.NoError(t, err)
	t.Cleanup(b.Close)
	p, err := b.NewPage(1024, 768)
	require.NoError(t, err)
	t.Cleanup(func() { assert.Empty(t, p.Faults()); p.Close() })
	tablet := &smith{t: t, app: s.app, Page: p}
	at := s.app.Shelf.State().Addresses[0]
	tablet.do(chromedp.Navigate(at + "/"))
	tablet.until("asked for the code", `document.querySelector("input[name=code]")`)
	assert.Contains(t, tablet.text("body"), fingerprint)
	tablet.do(chromedp.Navigate(at + "/pair?code=" + code))
	tablet.until("brought along", `document.querySelector("input[name=code]").value.length === 6`)
	tablet.do(chromedp.Click(chromedp.CSS("button")))
	tablet.until("at the fire", `document.querySelector("[data-testid=shelf]")?.textContent.includes("Reed slasher")`)
	assert.NotContains(t, tablet.text("body"), "Rack", "nothing else is there")
	tablet.do(chromedp.Click(chromedp.Search("//a[contains(., '" + demo.Reed + "')]")))
	tablet.until("at the anvil", `document.querySelector("[data-testid=anvil]")`)
	was := js[int](tablet, events)
	tablet.keys(" ")
	tablet.until("told", events+` > `+strings.TrimSpace(js[string](tablet, `String(`+events+`)`))+` - 1 && `+events+` >= 1`)
	s.eventually("heard", func() bool {
		f, err := s.app.Work.FireOf(context.Background(), s.piece(demo.Reed))
		require.NoError(t, err)
		return f.Count > was
	})
	tablet.keys("\x1b")
	tablet.until("back on the list", `location.pathname === "/shelf"`)

	s.until("listed", `document.querySelector("[data-access=screen]")`)
	s.click("[data-access=screen] [data-testid=access-revoke]")
	s.until("gone", `!document.querySelector("[data-access=screen]")`)
	tablet.do(chromedp.Reload())
	tablet.until("to be paired again", `document.querySelector("input[name=code]")`)
	s.click("[data-testid=shelf-on]")
	s.until("off", `document.querySelector("[data-testid=shelf-panel]").dataset.on === "false"`)
}
