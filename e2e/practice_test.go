package e2e

import (
	"strings"
	"testing"

	"coldember/internal/demo"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// TestAnExerciseIsDoneByKeyboard: struck cold, the coach says so, and it is taken back; heated, struck along the end, again and
// again until every goal is met; it is there again after a reload.
func TestAnExerciseIsDoneByKeyboard(t *testing.T) {
	s := open(t)
	s.goTo("/practice")
	// one hand, so that the same keys always end alike
	js[bool](s, `(localStorage.setItem("coldember.practice.cold", JSON.stringify({ actions: [], seed: 5, undone: 0 })), true)`)
	s.do(chromedp.Focus(chromedp.CSS("[data-exercise=cold]")))
	s.keys(kb.Enter)
	s.until("the bar", `document.querySelector("[data-said='coach.begin']")`)
	js[bool](s, `(document.activeElement.blur(), true)`)
	s.keys(" ")
	s.until("cold", `document.querySelector("[data-said='coach.cold']")`)
	s.keys(kb.Backspace)
	s.until("taken back", `document.querySelector("[data-said='coach.begin']") && document.querySelector("[data-testid=marks]").textContent.includes("1 taken back")`)
	place := func() float64 {
		return js[float64](s, `Number(document.querySelector("[data-testid=hammer]").dataset.at)`)
	}
	actions := func() int {
		return js[int](s, `JSON.parse(localStorage.getItem("coldember.practice.cold")).actions.length`)
	}
	act := func(key string) {
		was := actions()
		s.keys(key)
		s.eventually("done", func() bool { return actions() == was+1 })
	}
	to := func(mm float64) {
		for place() < mm-1 {
			s.keys(kb.ArrowRight)
		}
		for place() > mm+1 {
			s.keys(kb.ArrowLeft)
		}
	}
	met := `!!document.querySelector("[data-testid=practice-done]")`
	for n := 0; n < 14 && !js[bool](s, met); n++ {
		act("f")
		if n == 0 {
			act("f") // the first heat is from cold
		}
		for _, at := range []float64{14, 24, 34, 44} {
			if js[bool](s, met) {
				break
			}
			// where it is still too thick, and hot enough
			to(at)
			thick := mm(t, strings.Fields(strings.SplitN(s.text("[data-testid=practice-here]"), "× ", 2)[1])[0]+" mm")
			if thick > 4.6 && js[bool](s, `!document.querySelector("[data-said='coach.back'], [data-said='coach.notYet']")`) {
				act(" ")
			}
		}
	}
	s.until("every goal", met)
	assert.Equal(t, "0", js[string](s, `document.querySelector("[data-goal=noCold] td:nth-child(3)").textContent`))
	s.do(chromedp.Reload())
	s.until("as it was", met)
	s.press("From the beginning")
	s.until("cold again", `document.querySelector("[data-said='coach.begin']")`)
}

// TestAPieceOfWorkIsPractised: from its stage at the anvil, with its own bar; a billet cannot be, and says why.
func TestAPieceOfWorkIsPractised(t *testing.T) {
	s := open(t)
	s.bench(demo.Slicer, "anvil")
	s.click("[data-testid=to-practice]")
	s.until("its bar", `document.querySelector("[data-said='coach.begin']") && document.querySelectorAll("[data-goal]").length > 8`)
	s.choose("practice.room", "Dark")
	s.until("another light", `JSON.parse(localStorage.getItem("coldember.practice." + location.pathname.split("/").at(-1))).room === "dark"`)
	s.click("[data-testid=practice-fire]")
	s.until("in the fire", `document.querySelector("[data-testid=marks]").textContent.includes("1 of")`)
	s.click("[data-testid=practice-strike]")
	s.until("struck", `document.querySelector("[data-said='coach.thinned']")`)
	s.goTo("/practice/piece/" + s.piece(demo.Trimmer))
	s.until("why not", `document.querySelector("[data-testid=practice] [role=alert]")?.textContent.includes("one steel")`)
}
