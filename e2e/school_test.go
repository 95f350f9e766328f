package e2e

import (
	"fmt"
	"testing"

	"coldember/e2e/harness"
	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAClassAtItsBenches: two students are paired by name in Shop; each plans a piece of their own; one shares it, and the other
// looks at it, is told whose it is, and takes a copy; the teacher at the machine sees both.
func TestAClassAtItsBenches(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	s.click("[data-testid=shelf-on]")
	s.until("on", `document.querySelector("[data-testid=shelf-panel]").dataset.on === "true"`)
	base := s.app.Shelf.State().Addresses[0]
	joins := func(name string) *smith {
		s.click("[data-testid=pair-student]")
		s.until("a code for a student", `document.querySelector("[data-testid=shelf-pairing]")?.textContent.includes("Student")`)
		var code string // the page may still show the code before it, which somebody has used
		s.eventually("a code to type", func() bool {
			if p := s.app.Shelf.State().Pairing; p != nil {
				code = p.Code
			}
			return code != ""
		})
		b, err := harness.NewBrowser(chromedp.Flag("ignore-certificate-errors", true))
		require.NoError(t, err)
		t.Cleanup(b.Close)
		p, err := b.NewPage(1280, 800)
		require.NoError(t, err)
		t.Cleanup(p.Close)
		one := &smith{t: t, app: s.app, Page: p}
		one.do(chromedp.Navigate(base + "/pair?code=" + code))
		one.until("the form", `document.querySelector("input[name=name]")?.value === ""`)
		js[bool](one, fmt.Sprintf(`(document.querySelector("input[name=name]").value = %q, document.querySelector("button").click(), true)`, name))
		one.until("in", fmt.Sprintf(`document.querySelector("[data-me=student]")?.textContent.includes(%q)`, name))
		return one
	}
	plans := func(one *smith, name string) string {
		one.do(chromedp.Navigate(base + "/?new"))
		one.until("three questions", `document.querySelector("[role=dialog] [role=radiogroup]")`)
		js[bool](one, `(document.querySelector("[role=dialog] button.press-act").click(), true)`)
		one.until("its bench", `/^\/pieces\/[^/]+/.test(location.pathname) && document.querySelector("[data-figure=cut]")`)
		one.do(chromedp.Focus(chromedp.CSS("input[data-field=name]")))
		js[bool](one, `(document.querySelector("input[data-field=name]").select(), true)`)
		one.keys(name + "\r")
		one.until("named", fmt.Sprintf(`document.querySelector("[data-save=saved]") && document.title.includes(%q)`, name))
		return js[string](one, `location.pathname.split("/")[2]`)
	}
	ada, ben := joins("Ada"), joins("Ben")
	assert.Equal(t, 0, js[int](ada, `document.querySelectorAll("main li").length`), "the yard's work is not the class's")
	assert.False(t, js[bool](ada, `!!document.querySelector("nav a[href='/shop']")`))
	hers := plans(ada, "Ada's knife")
	plans(ben, "Ben's knife")
	ben.do(chromedp.Navigate(base + "/pieces/" + hers))
	ben.until("not there", `document.querySelector("main").textContent.length > 0 && !document.querySelector("[data-figure=cut]")`)
	ada.click("button[aria-label=More]")
	ada.until("the menu", `document.querySelector("[data-do=share]")`)
	ada.click("[data-do=share]")
	ada.until("shared", `document.querySelector("[data-save=saved]")`)
	s.eventually("kept", func() bool {
		p, err := s.app.Work.Piece(t.Context(), hers)
		return err == nil && p.Doc.Shared
	})
	ben.do(chromedp.Navigate(base + "/"))
	ben.until("hers is there", `[...document.querySelectorAll("main li [data-owner]")].some(e => e.textContent.includes("of Ada"))`)
	ben.do(chromedp.Navigate(base + "/pieces/" + hers + "/blade"))
	ben.until("looked at", `document.querySelector("[data-others]") && document.querySelector("[data-figure=cut]")`)
	js[bool](ben, `(document.querySelector("[data-others] button").click(), true)`)
	ben.until("a copy of his own", `!location.pathname.includes("`+hers+`") && document.querySelector("[data-figure=cut]") && !document.querySelector("[data-others]")`)
	// the yard's own is given to her
	s.click("nav a[href='/']")
	to := fmt.Sprintf("main a[href^='/pieces/%s']", s.piece(demo.Rigging))
	s.until("the yard's own", fmt.Sprintf("document.querySelector(%q)", to))
	s.click(to)
	s.until("its bench", `document.querySelector("[data-figure=cut]")`)
	s.do(chromedp.Focus(chromedp.CSS("button[aria-label=More]")))
	s.keys(kb.Enter)
	s.until("the class is in the menu", `document.querySelector("[data-do=give]")`)
	s.keys("who") // letters choose in a menu, though w alone goes to the words
	s.until("by its letters", `document.activeElement?.dataset.do === "give"`)
	s.keys(kb.Enter)
	s.until("the sheet", `document.activeElement?.dataset.field === "owner"`)
	s.keys("Ada")
	s.eventually("it is hers", func() bool {
		p, err := s.app.Work.Piece(t.Context(), s.piece(demo.Rigging))
		return err == nil && p.Doc.Owner == "Ada"
	})
	s.goTo("/")
	s.until("the teacher sees all", fmt.Sprintf(`["of Ada", "of Ben", %q].every(t => document.querySelector("main").textContent.includes(t))`, demo.Rigging))
}
