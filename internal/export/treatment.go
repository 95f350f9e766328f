package export

import (
	"math"
	"strconv"
	"strings"

	"coldember/core/harden"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// Hardening is what is said of the treatment of a blade, and how it was asked for.
type Hardening struct {
	Advice    harden.Advice
	Treatment harden.Treatment
}

// temperScale are the colours of bright steel that was tempered so hot for an hour, °C.
var temperScale = []float64{200, 220, 240, 255, 270, 285, 300, 315, 335}

// lines are the steps of hardening and tempering in words, the same as on the page, and what is to
// be known of them.
func (h *Hardening) lines(units quantity.System) (steps, findings []string) {
	a, t := &h.Advice, &h.Treatment
	for _, f := range a.Findings {
		findings = append(findings, text.Say(f.Code, text.Figures(f.Figures, units)))
	}
	if !a.Hardens {
		return nil, findings
	}
	temp := func(c float64) string { return quantity.FormatTemperature(c, units) }
	say := func(code string, with map[string]string) { steps = append(steps, text.Say(code, with)) }
	say("treat.heatTo", map[string]string{"c": temp(a.AustenitiseC), "colour": text.HeatColour(a.AustenitiseC)})
	if a.SoakS > 0 {
		steps[0] += " " + text.Say("treat.soak", map[string]string{"time": lasted(a.SoakS)})
	}
	bath := strings.ToLower(text.Say("bath."+string(a.Bath.Class), nil))
	say("treat.intoBath", map[string]string{"bath": bath, "c": temp(a.Bath.WarmC), "edge": quantity.FormatThickness(a.EdgeAtQuenchMm, units)})
	steps[1] += " " + text.Say("treat.inBath", map[string]string{"edge": secs(a.EdgeS), "spine": secs(a.SpineS)})
	if a.WindowEdgeS > 0 {
		say("treat.window", map[string]string{"edge": secs(a.WindowEdgeS), "spine": secs(a.WindowSpineS)})
	} else {
		say("treat.windowNone", nil)
	}
	say("treat.file", nil)
	if a.Temper.OvenC <= 0 {
		say("treat.temperCoupon", nil)
		return steps, findings
	}
	colour := temperScale[0]
	for _, c := range temperScale {
		if math.Abs(c-a.Temper.ColourC) < math.Abs(colour-a.Temper.ColourC) {
			colour = c
		}
	}
	say("treat.temper", map[string]string{
		"times": strconv.Itoa(t.Times), "hours": strconv.FormatFloat(t.Hours, 'f', -1, 64), "c": temp(a.Temper.OvenC),
		"colour": text.Say("temperColour."+strconv.Itoa(int(colour)), nil),
	})
	return steps, findings
}

func secs(s float64) string {
	if s < 10 {
		return strconv.FormatFloat(s, 'f', 1, 64) + " s"
	}
	return strconv.Itoa(int(math.Round(s))) + " s"
}

// hardening writes the treatment under the heats of a card: on a page of its own where there is
// no room left.
func (s *sheet) hardening(h *Hardening, units quantity.System) {
	steps, findings := h.lines(units)
	s.y += 1.5 + s.text(s.margin, s.y+1, s.width(), s.face("label", 12, ink), text.Say("stage.harden", nil))
	for i, l := range steps {
		s.text(s.margin, s.y, 6, s.face("narrow", 9, quiet), strconv.Itoa(i+1))
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 8.6, ink), l)
	}
	for _, l := range findings {
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 8, ember), l)
	}
	if len(steps) > 0 {
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 7.4, quiet), text.Say("caution.quench", nil)+" "+text.Say("caution.brittle", nil))
	}
}
