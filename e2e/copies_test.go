package e2e

import (
	"io"
	"os"
	"path/filepath"
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
	assert.Contains(t, s.text("[data-testid=copies] li"), "20 pieces")
	if file := os.Getenv("SHOT"); file != "" {
		js[bool](s, `(document.querySelector("[data-testid=copies]").scrollIntoView(), true)`)
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	other.click(`button[aria-label="Archive ` + demo.Rigging + `"]`)
	other.until("it is archived", `document.querySelectorAll("main li a").length === 8`)

	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Put back')]")))
	s.until("it asks", `document.querySelector("[role=dialog]")?.textContent.includes("20 pieces")`)
	if file := os.Getenv("SHOT2"); file != "" {
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	s.do(chromedp.Click(chromedp.Search("//button[contains(., 'Put it back')]")))
	s.until("what was there is a copy too", `document.querySelectorAll("[data-testid=copies] li").length === 2`)
	other.until("and the other window has it again", `document.querySelectorAll("main li a").length === 9`)
}

// TestAWholeShopIsPackedAndPutIn on the page, and what is none says so.
func TestAWholeShopIsPackedAndPutIn(t *testing.T) {
	s := open(t)
	res, err := s.app.Get("/api/v1/archive")
	require.NoError(t, err)
	zip, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Regexp(t, `^attachment; filename="cold-ember-[0-9-]+\.zip"$`, res.Header.Get("Content-Disposition"))
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "shop.zip"), filepath.Join(dir, "letter.zip")
	require.NoError(t, os.WriteFile(good, zip, 0o600))
	require.NoError(t, os.WriteFile(bad, []byte("a letter"), 0o600))
	pieces, _, err := s.app.Work.Pieces(t.Context(), false)
	require.NoError(t, err)
	_, err = s.app.Work.ArchivePiece(t.Context(), pieces[0].ID, true)
	require.NoError(t, err)

	s.goTo("/shop")
	s.do(chromedp.WaitReady(chromedp.CSS("[data-testid=whole] input")))
	s.do(chromedp.SetUploadFiles(chromedp.CSS("[data-testid=whole] input"), []string{bad}))
	s.until("it says what it is not", `document.querySelector("[data-testid=whole] [role=alert]")?.textContent.includes("no shop that was packed")`)
	if file := os.Getenv("SHOT3"); file != "" {
		js[bool](s, `(document.querySelector("[data-testid=whole]").scrollIntoView(), true)`)
		png, err := s.Shot()
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, png, 0o600))
	}
	s.do(chromedp.SetUploadFiles(chromedp.CSS("[data-testid=whole] input"), []string{good}))
	s.until("what was there is a copy", `document.querySelectorAll("[data-testid=copies] li").length === 1`)
	s.goTo("/")
	s.until("and all of it is here again", `document.querySelectorAll("main li a").length === 9`)
}
