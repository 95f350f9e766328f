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
				s.keys("s") // both faces in turn, or it bows
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
	// beside the plan, heat by heat
	s.do(chromedp.Click(chromedp.CSS("[data-testid=beside] summary")))
	s.until("planned beside practised", `document.querySelector("[data-beside=mine]") && document.querySelector("[data-beside=plan] path")`)
	assert.Equal(t, "0", js[string](s, `document.querySelector("[data-testid=beside-heat]").value`))
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=beside-heat]")), chromedp.KeyEvent(kb.ArrowRight))
	s.until("the first heat", `document.querySelector("[data-beside=mine]").textContent.includes("3 blows")`)
	// a billet is practised as one steel; a piece that was forged has its log beside it
	s.goTo("/practice/piece/" + s.piece(demo.Trimmer))
	s.until("its bar", `document.querySelectorAll("[data-goal]").length > 4`)
	s.goTo("/practice/piece/" + s.piece(demo.Rigging))
	s.until("its bar", `document.querySelectorAll("[data-goal]").length > 4`)
	s.do(chromedp.Click(chromedp.CSS("[data-testid=beside] summary")))
	s.until("as forged", `document.querySelector("[data-beside=real] path")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=beside-heat]")), chromedp.KeyEvent(kb.End))
	s.until("what was read stands over it", `document.querySelectorAll("[data-beside=real] line").length > 2`)
}

// TestASmithIsAskedAndTheSheetIsKept: what an experienced smith would do is done at a touch until it is done; it goes on the
// sheet under a name, is taken off and put back, and the sheet is a table.
func TestASmithIsAskedAndTheSheetIsKept(t *testing.T) {
	s := open(t)
	s.goTo("/practice/straighten")
	s.until("advice", `document.querySelector("[data-testid=advice-do]")`)
	assert.Contains(t, s.text("[data-testid=faults]"), "Bowed")
	done := `!!document.querySelector("[data-testid=practice-done]")`
	count := func() int {
		return js[int](s, `JSON.parse(localStorage.getItem("coldember.practice.straighten") ?? '{"actions":[]}').actions.length`)
	}
	for n := 0; n < 60 && !js[bool](s, done); n++ {
		was := count()
		s.until("what next", `document.querySelector("[data-testid=advice-do]:not(:disabled)")`)
		s.click("[data-testid=advice-do]")
		s.eventually("done", func() bool { return count() == was+1 })
		s.until("asked anew", done+` || document.querySelector("[data-testid=advice-do]:not(:disabled)")`)
	}
	s.until("straight", done)
	s.do(chromedp.Focus(chromedp.CSS("[data-field='practice.who']")))
	s.keys("Ida")
	s.click("[data-testid=practice-keep]")
	s.until("on the sheet", `document.body.textContent.includes("It is on the sheet")`)
	s.goTo("/practice/sheet")
	s.until("a line", `document.querySelector("[data-practised=Ida]")?.textContent.includes("crooked")`)
	s.click("[data-practised=Ida] [data-testid=practised-remove]")
	s.until("off", `!document.querySelector("[data-practised=Ida]")`)
	s.click("[data-testid=practised-restore]")
	s.until("back", `document.querySelector("[data-practised=Ida]")`)
	js[bool](s, `(fetch("/api/v1/practice/sheet.csv").then(r => r.text()).then(t => { window.sheet = t }), true)`)
	s.until("as a table", `window.sheet?.includes("Ida,straighten,,true")`)
}

// TestAHotBarCoolsWhileOneLooks: the clock runs until it is stopped, and what lies waiting is one thing.
func TestAHotBarCoolsWhileOneLooks(t *testing.T) {
	s := open(t)
	s.goTo("/practice/cold")
	s.until("the bar", `document.querySelector("[data-said='coach.begin']")`)
	s.click("[data-testid=practice-fire]")
	s.until("hot", `document.querySelector("[data-said^='coach.hot'], [data-said='coach.notYet']")`)
	js[bool](s, `(document.activeElement.blur(), true)`)
	s.keys("c")
	s.until("it cools", `(() => { const a = JSON.parse(localStorage.getItem("coldember.practice.cold")).actions; return a.length === 2 && a[1].do === "wait" && a[1].seconds >= 2 })()`)
	s.keys("c")
	s.until("stopped", `!document.querySelector("[data-testid=practice-clock]").checked`)
}
