package e2e

import (
	"testing"

	"coldember/internal/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatTheSteelSaid: each factor of the book with its band and the pieces behind it; switched off and forgotten;
// a plan that is edited goes by it, and says so, and does without it at a touch.
func TestWhatTheSteelSaid(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	s.click("[data-testid=to-learned]")
	s.until("by the yard hand", `document.querySelector("[data-whose='Yard hand'] [data-lesson=blow]")`)
	s.until("enough of them", `Number(document.querySelector("[data-whose='Yard hand'] [data-lesson=blow]").dataset.n) >= 10`)
	s.click("[data-whose='Yard hand'] [data-lesson=blow] summary")
	s.until("whether it held", `document.querySelector("[data-whose='Yard hand'] [data-lesson=blow] [data-testid=held]").textContent.includes("held")`)

	require.Nil(t, s.stored(demo.Slicer).Doc.Request.Learned, "planned before there was a book")
	s.edited(demo.Slicer, "design.heightMm", "41")
	require.NotNil(t, s.stored(demo.Slicer).Doc.Request.Learned)
	s.bench(demo.Slicer, "heats")
	s.until("by the book", `document.querySelector("[data-testid=by-the-book]").textContent.includes("What a blow moves ×") && document.querySelector("[data-testid=really]").textContent.includes("at your pace")`)
	was := s.text("[data-figure=cut]")
	s.click("[data-testid=by-table]")
	s.until("by the table", `document.querySelector("[data-testid=by-the-book]")?.dataset.table === "true"`)
	s.eventually("kept", func() bool { return s.stored(demo.Slicer).Doc.Request.Choices.ByTable })
	assert.NotEqual(t, was, s.text("[data-figure=cut]"))

	s.goTo("/learned")
	s.click("[data-whose='Yard hand'] [data-lesson=blow] [data-testid=switch]")
	s.until("off", `document.querySelector("[data-whose='Yard hand'] [data-lesson=blow]").dataset.off === "true"`)
	s.edited(demo.Slicer, "choices.byTable", "no")
	assert.Nil(t, s.stored(demo.Slicer).Doc.Request.Learned.Blow)
	assert.NotNil(t, s.stored(demo.Slicer).Doc.Request.Learned.Heats)
}
