package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPageWithoutTheKeySaysHowToGetIt, and works once it has it.
func TestAPageWithoutTheKeySaysHowToGetIt(t *testing.T) {
	s := open(t)
	s.do(chromedp.Navigate(s.app.URL + "/rack"))
	s.until("it says what to run", `document.querySelector("main")?.textContent.includes("coldember open")`)
	assert.Contains(t, s.text("h1"), "Locked")
	if file := os.Getenv("SHOT4"); file != "" {
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	s.goTo("/rack")
	s.until("the rack", `document.querySelectorAll("main li").length > 5`)
}
