package e2e

import (
	"os"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestACopyIsMadeAndPutBack on the page, and the other window follows.
func TestACopyIsMadeAndPutBack(t *testing.T) {
	s := open(t)
	other := s.window(1024, 768)
	other.goTo("/")
	s.goTo("/shop")
	s.until("no copies yet", `document.querySelector("[data-testid=copies]").textContent.includes("no copies yet")`)
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Make a copy now')]")))
	s.until("a copy", `document.querySelectorAll("[data-testid=copies] li").length === 1`)
	assert.Contains(t, s.text("[data-testid=copies] li"), "5 pieces")
	if file := os.Getenv("SHOT"); file != "" {
		js[bool](s, `(document.querySelector("[data-testid=copies]").scrollIntoView(), true)`)
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	other.click(`button[aria-label="Archive ` + demo.Rigging + `"]`)
	other.until("it is archived", `document.querySelectorAll("main li a").length === 4`)

	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Put back')]")))
	s.until("it asks", `document.querySelector("[role=dialog]")?.textContent.includes("5 pieces")`)
	if file := os.Getenv("SHOT2"); file != "" {
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Put it back')]")))
	s.until("what was there is a copy too", `document.querySelectorAll("[data-testid=copies] li").length === 2`)
	other.until("and the other window has it again", `document.querySelectorAll("main li a").length === 5`)
}
