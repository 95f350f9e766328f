package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// TestAnEyeIsTrained by the keyboard alone: it says how hot, is told the truth, and after some answers by how much it is off;
// what is no figure is told and nothing is lost; a bar that heats is called; temper colours are asked by day.
func TestAnEyeIsTrained(t *testing.T) {
	s := open(t)
	s.goTo("/practice/colours")
	s.until("steel", `document.querySelector("[data-testid=steel]") && document.activeElement?.dataset.testid === "eye-say"`)
	s.keys("rather hot\r")
	s.until("no figure", `document.querySelector("[data-testid=colours] [role=alert]")?.textContent`)
	assert.Equal(t, "rather hot", js[string](s, `document.querySelector("[data-testid=eye-say]").value`))
	js[bool](s, `(document.querySelector("[data-testid=eye-say]").select(), true)`)
	for n := range 5 {
		s.until("asked", fmt.Sprintf(`!document.querySelector("[data-testid=eye-was]") && document.activeElement?.dataset.testid === "eye-say" && JSON.parse(localStorage.getItem("coldember.eye") ?? "[]").length === %d`, n))
		s.keys("1250\r")
		s.until("the truth", `document.querySelector("[data-testid=eye-was]")`)
		s.keys("\r")
	}
	s.until("which way", `document.querySelector("[data-eye='say lit'] dd")?.textContent.includes("too high")`)
	s.choose("eye.kind", "Say when")
	s.until("a target", `document.querySelector("[data-testid=eye-now]")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=eye-now]")))
	s.keys(kb.Enter)
	s.until("it heats", `document.querySelector("[data-testid=eye-now]").textContent === "Now"`)
	s.keys(kb.Enter)
	s.until("judged", `document.querySelector("[data-testid=eye-was]")?.textContent.includes("early")`)
	s.click("[data-testid=eye-magnet]")
	s.until("the magnet", `document.querySelector("[data-testid=eye-pulls]")`)
	s.choose("eye.kind", "tempered")
	s.choose("eye.room", "Daylight")
	s.until("asked of it", `document.querySelector("[data-testid=eye-say]")`)
	s.do(chromedp.Focus(chromedp.CSS("[data-testid=eye-say]")))
	s.keys("220\r")
	s.until("judged", `document.querySelector("[data-testid=eye-was]")`)
}
