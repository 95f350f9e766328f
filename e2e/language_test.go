package e2e

import (
	"context"
	"fmt"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"coldember/internal/demo"
	"coldember/internal/demo/demotest"
	"coldember/internal/store"
	"coldember/internal/text"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheShopSpeaksSpanish: chosen in Shop, on every page, in errors and on paper; figures with a comma, shown and typed. It is not
// run beside others, since a program speaks one language.
func TestTheShopSpeaksSpanish(t *testing.T) {
	t.Cleanup(func() { text.Use(text.English) })
	data := filepath.Join(t.TempDir(), "demo.db")
	demotest.Copy(t, data)
	s := openFile(t, data, func(context.Context, *store.Store) error { return nil })
	s.goTo("/shop")
	s.choose("language", "Español")
	s.until("in Spanish", `document.documentElement.lang === "es" && document.querySelector("main h1")?.textContent === "Taller"`)
	assert.Equal(t, "es", text.Language())
	english := `(() => { const w = [...document.querySelectorAll("button, h1, h2, label, legend, th")].map(e => e.textContent.trim()).filter(t => /\b(the|of|and|with|heats|blade)\b/.test(t.replace("Galley slicer, from the 32 mm bar", ""))); return w.join(" | ") })()`
	for path, want := range map[string]string{
		"/": "Trabajo nuevo", "/patterns": "Modelos", "/rack": "Estante", "/cuts": "Plan de corte", "/book": "El libro", "/day": "El día", "/words": "Palabras",
		"/practice": "Práctica", "/practice/colours": "Entrenar el ojo", "/practice/taper": "Una punta cuadrada", "/sheet": "Cortar de una plancha", "/learned": "Lo que dijo el acero",
	} {
		s.goTo(path)
		s.until(want, fmt.Sprintf(`document.querySelector("main")?.textContent.includes(%q)`, want))
		assert.Empty(t, js[string](s, english), path)
		s.until("a steel that is not known, in Spanish", `!document.querySelector("main").innerText.includes("unknown")`)
		assert.Empty(t, js[string](s, `(document.querySelector("main").innerText.match(/\b[a-z]+\.[a-z]+[A-Z.][a-zA-Z.]*\b/) ?? [""])[0]`), "%s: a code and no words", path)
	}
	rigging := text.Say("starter.rigging", nil)
	for _, stage := range []string{"blade", "stock", "cut", "heats", "anvil", "cycles", "harden", "finish", "log"} {
		s.bench(rigging, stage)
		s.until(stage, `document.querySelector("aside")`)
		assert.Empty(t, js[string](s, english), stage)
	}
	s.bench(rigging, "heats")
	s.until("with commas", `/\d,\d mm/.test(document.querySelector("main").textContent)`)
	assert.NotRegexp(t, `\d\.\d`, s.text("aside"))
	s.bench(rigging, "blade")
	s.fill("design.lengthMm", "87,525")
	s.saved()
	assert.InDelta(t, 87.525, s.stored(rigging).Doc.Request.Design.LengthMm, 1e-9)
	s.until("shown so", `document.querySelector("aside input[data-field='design.lengthMm']").value === "87,525"`)
	s.fill("design.lengthMm", "mucho")
	s.until("in words", `document.querySelector("aside").textContent.includes("Falta aquí una cifra")`)
	got, err := chromedp.Run(s.Ctx, chromedp.Evaluate[string](`fetch("/api/v1/pieces/`+s.piece(rigging)+`/card.pdf").then(r => r.arrayBuffer()).then(b => btoa(String.fromCharCode(...new Uint8Array(b).slice(0, 5))))`, chromedp.EvalAwaitPromise))
	require.NoError(t, err)
	assert.NotEmpty(t, got)
	cmd := exec.CommandContext(t.Context(), "../bin/coldember", "pieces", "--data", filepath.Join(t.TempDir(), "none.db"))
	cmd.Env = append(cmd.Environ(), "LC_ALL=es_ES.UTF-8")
	out, err := cmd.CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "No hay archivo")
	s.goTo("/shop")
	s.choose("language", "English")
	s.until("English again", `document.documentElement.lang === "en" && document.querySelector("main h1")?.textContent === "Shop"`)
}

// TestLongerWordsFit: with every word two fifths longer nothing is cut off that is to be read, and nothing is wider than the
// window.
func TestLongerWordsFit(t *testing.T) {
	s := open(t)
	cut := `[...document.querySelectorAll("main button, main h1, main h2, main legend, main th, main label, nav a")].filter(e => e.checkVisibility() && getComputedStyle(e).overflow !== "visible" && !e.closest(".truncate, .sr-only") && e.scrollWidth > e.clientWidth + 1).map(e => e.textContent.trim().slice(0, 40)).join(" | ")`
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		w := s.window(size[0], size[1])
		w.goTo("/words")
		js[bool](w, `(localStorage.setItem("coldember.language", "qlong"), true)`)
		for _, path := range []string{"/", "/patterns", "/rack", "/shop", "/cuts", "/book", "/day", "/practice", "/practice/cold", "/sheet", "/pieces/" + s.piece(demo.Slicer) + "/blade", "/pieces/" + s.piece(demo.Slicer) + "/heats", "/pieces/" + s.piece(demo.Slicer) + "/harden", "/pieces/" + s.piece(demo.Slicer) + "/finish"} {
			w.goTo(path)
			w.until("longer words at "+path, `document.querySelector("nav")?.textContent.includes("oo") && document.querySelector("main h1, main canvas, main svg, main section") && !document.querySelector("main").textContent.includes("momentoo")`)
			assert.LessOrEqual(t, js[float64](w, `document.scrollingElement.scrollWidth - innerWidth`), 0.0, "%s at %v", path, size)
			assert.Empty(t, strings.TrimSpace(js[string](w, cut)), "%s at %v", path, size)
		}
	}
}
