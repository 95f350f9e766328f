package e2e

import (
	"encoding/base64"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// dropBytes drops a file on the page, its bytes by an expression that a promise answers with.
func (s *smith) dropBytes(name, bytes string) {
	s.t.Helper()
	_, err := chromedp.Run(s.Ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(async () => {
		const d = new DataTransfer();
		d.items.add(new File([await %s], %q));
		const to = document.querySelector("main > div") ?? document.querySelector("main");
		for (const kind of ["dragenter", "dragover", "drop"]) to.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: d }));
		return true;
	})()`, bytes, name), chromedp.EvalAwaitPromise))
	require.NoError(s.t, err)
}

// TestAPieceIsSharedByAFile: written from the menu of a piece, dropped on another shop's pieces, and open there; dropped twice it
// is there twice. What is no piece is told.
func TestAPieceIsSharedByAFile(t *testing.T) {
	s := open(t)
	id := s.piece(demo.Rigging)
	s.bench(demo.Rigging, "blade")
	s.click("[data-testid=print]")
	s.until("in the menu", `document.querySelector("[data-print=share]")`)
	assert.Equal(t, "/api/v1/pieces/"+id+"/share.zip", js[string](s, `document.querySelector("[data-print=share]").getAttribute("href")`))
	file := `fetch("/api/v1/pieces/` + id + `/share.zip").then(r => r.arrayBuffer())`
	for _, name := range []string{demo.Rigging + " 2", demo.Rigging + " 3"} {
		s.goTo("/")
		s.until("pieces", `document.querySelectorAll("main li").length > 5`)
		s.dropBytes("knife.zip", file)
		s.until("it is open", fmt.Sprintf(`location.pathname.startsWith("/pieces/") && document.title.includes(%q)`, name))
	}
	assert.Equal(t, s.stored(demo.Rigging).Doc.Request.Design, s.stored(demo.Rigging+" 2").Doc.Request.Design)
	s.goTo("/")
	s.until("pieces", `document.querySelectorAll("main li").length > 5`)
	s.dropBytes("knife.zip", `Promise.resolve("no archive")`)
	s.until("refused in words", `document.body.textContent.includes("knife.zip was not taken")`)
}

// TestAPatternIsPrintedWithItsSquares, and comes back from a picture of the page.
func TestAPatternIsPrintedWithItsSquares(t *testing.T) {
	s := open(t)
	patterns, _, err := s.app.Work.Patterns(t.Context(), false)
	require.NoError(t, err)
	s.goTo("/patterns/" + patterns[0].ID)
	s.until("in its sheet", `document.querySelector("[data-export=page]")`)
	page, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch(document.querySelector("[data-export=page]").href).then(r => r.arrayBuffer()).then(b => { let s = ""; for (const x of new Uint8Array(b)) s += String.fromCharCode(x); return btoa(s) })`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	pdf, err := base64.StdEncoding.DecodeString(page)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "page.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	picture, err := exec.CommandContext(t.Context(), "pdftoppm", "-r", "200", "-png", "-singlefile", file).Output()
	require.NoError(t, err)
	s.goTo("/patterns")
	s.until("patterns", `document.querySelectorAll("main a, main li").length > 5`)
	s.dropBytes("photo.png", fmt.Sprintf(`Promise.resolve(Uint8Array.from(atob(%q), c => c.charCodeAt(0)))`, base64.StdEncoding.EncodeToString(picture)))
	s.eventually("it is in the library", func() bool {
		all, _, err := s.app.Work.Patterns(t.Context(), false)
		return err == nil && len(all) == len(patterns)+1
	})
	s.dropBytes("photo.png", `Promise.resolve("no picture")`)
	s.until("refused in words", `document.body.textContent.includes("photo.png was not taken")`)
}
