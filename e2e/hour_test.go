package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheHourInTheBrowser: begun in Shop, figures typed one after the other, what they tell and what became narrower; a
// figure that cannot be is told at its field; it is switched off, and thrown away.
func TestTheHourInTheBrowser(t *testing.T) {
	s := open(t)
	s.goTo("/shop")
	s.click("[data-testid=to-hour]")
	s.until("the hour", `document.querySelector("[data-testid=hour-page]")`)
	js[bool](s, `(document.querySelector("[data-begin]").click(), true)`)
	s.until("begun", `document.querySelector("[data-hour]")`)
	for field, text := range map[string]string{"hotKg": "0.35 kg", "waterKg": "2.5 kg", "waterRiseK": "25", "magnetS": "56", "glowMm": "105 mm"} {
		s.put("hours.0."+field, text)
	}
	s.until("how hot it is", `document.querySelector("[data-testid=hour-found]").textContent.includes("The fire is")`)
	for _, f := range [][2]string{{"stretchMm", "30 mm"}, {"blows", "30"}, {"lastedS", "17"}, {"afterWidthMm", "19.8 mm"}, {"afterThicknessMm", "12 mm"}} {
		s.put("hours.0."+f[0], f[1])
	}
	s.until("that cannot be", `document.querySelector("[data-task=blows]").textContent.includes("9.9")`)
	s.put("hours.0.afterThicknessMm", "6.6 mm")
	s.until("what a blow does", `document.querySelector("[data-testid=hour-found]").textContent.includes("A blow does")`)
	s.until("narrower", `document.querySelector("[data-testid=hour-narrower]").textContent.includes("before")`)
	s.click("[data-testid=hour-take]")
	shop, err := s.app.Work.Shop(t.Context())
	require.NoError(t, err)
	require.Len(t, shop.Doc.Hours, 1)
	s.eventually("taken", func() bool {
		shop, err := s.app.Work.Shop(t.Context())
		return err == nil && shop.Doc.Fire.HotLengthMm == 105
	})
	said, err := s.app.Work.Said(t.Context())
	require.NoError(t, err)
	measured := 0
	for _, l := range said.Learned {
		if l.Measured != nil {
			measured++
		}
	}
	assert.GreaterOrEqual(t, measured, 2, "blow and spread")
	s.press("Plans go by it")
	s.until("switched off", fmt.Sprintf(`document.querySelector("[data-hour]").textContent.includes(%q)`, "Plans leave it out"))
	s.press("Throw this hour away")
	s.until("gone", `!document.querySelector("[data-hour]")`)
}
