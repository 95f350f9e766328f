package e2e

import (
	"context"
	"fmt"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAPieceIsMeasuredAndPlannedAnew: what cannot be is told at its place, scale against calipers is asked about, a
// point that was lost is offered what it can still become, and one of it is taken: the piece is planned so, and the
// anvil goes on from there.
func TestAPieceIsMeasuredAndPlannedAnew(t *testing.T) {
	s := open(t)
	p := s.stored(demo.Reed)
	was, err := s.app.Work.FireOf(context.Background(), p.ID)
	require.NoError(t, err)
	s.bench(demo.Reed, "log")
	s.click("[data-testid=to-replan]")
	s.until("where to measure", `document.querySelectorAll("[data-station$='.heightMm']").length >= 5`)
	put := func(css, text string) {
		s.do(chromedp.Focus(chromedp.CSS(css)))
		js[bool](s, fmt.Sprintf(`(document.querySelector(%q).select(), true)`, css))
		s.keys(text)
	}
	s.click("[data-testid=replan-ask]")
	s.until("nothing was read", `[...document.querySelectorAll("[role=alert]")].some((x) => x.textContent.includes("at the least"))`)
	put("[data-station='2.heightMm']", "30")
	put("[data-station='2.thicknessMm']", "60")
	s.click("[data-testid=replan-ask]")
	s.until("never so thick", `document.querySelector("[data-station='2.thicknessMm'][aria-invalid=true]")`)
	n := js[int](s, `document.querySelectorAll("[data-station$='.heightMm']").length`)
	for i := range n {
		for _, k := range []string{"heightMm", "thicknessMm"} {
			css := fmt.Sprintf("[data-station='%d.%s']", i, k)
			put(css, js[string](s, fmt.Sprintf(`document.querySelector(%q).placeholder`, css)))
		}
	}
	put("[data-testid=replan-weight]", "90 g")
	s.click("[data-testid=replan-ask]")
	s.until("which is right", `document.querySelector("[data-testid=replan-differ]")`)
	put("[data-testid=replan-weight]", " ")
	s.click("[data-testid=replan-ask]")
	s.until("as planned", `document.querySelector("[data-way]")?.dataset.way === "asPlanned"`)

	long := js[float64](s, `Number(document.querySelector("[data-testid=replan-length]").placeholder)`)
	put("[data-testid=replan-length]", fmt.Sprintf("%.0f", long-40))
	for i := range n {
		css := fmt.Sprintf("[data-station='%d.atMm']", i)
		at := js[float64](s, fmt.Sprintf(`Number(document.querySelector(%q).value)`, css)) - 40
		if at < 2 { // it is gone
			put(fmt.Sprintf("[data-station='%d.heightMm']", i), " ")
			put(fmt.Sprintf("[data-station='%d.thicknessMm']", i), " ")
			continue
		}
		put(css, fmt.Sprintf("%.1f", at))
	}
	s.click("[data-testid=replan-ask]")
	s.until("shorter", `document.querySelector("[data-way=shorter]") && !document.querySelector("[data-way=asPlanned]")`)
	s.click("[data-take=shorter]")
	s.until("the anvil", `location.pathname.endsWith("/anvil")`)
	s.eventually("another session", func() bool {
		now, err := s.app.Work.FireOf(context.Background(), p.ID)
		require.NoError(t, err)
		return now.ID != was.ID && now.Doc.FromID == was.ID && !now.Changed
	})
	assert.Less(t, s.stored(demo.Reed).Doc.Request.Design.LengthMm, p.Doc.Request.Design.LengthMm-20)
	again, err := s.app.Work.Fire(context.Background(), was.ID)
	require.NoError(t, err)
	assert.Equal(t, was.Doc.Course, again.Doc.Course, "the frozen one is as it was")
}
