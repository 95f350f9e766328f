package export

import (
	"slices"
	"strconv"
	"strings"

	"coldember/core/harden"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/text"
)

// Hardening is what is said of the treatment of a blade.
type Hardening struct{ Advice harden.Advice }

// TreatWords is a step of a treatment in words, in the smith's units.
func TreatWords(s *harden.Step, units quantity.System) string {
	with := text.Figures(s.Figures, units)
	for name, code := range s.Words {
		with[name] = text.Word(code, units)
	}
	out := make([]string, len(s.Codes))
	for i, code := range s.Codes {
		out[i] = text.Say(code, with)
	}
	return strings.Join(out, " ")
}

// write puts the treatment under the heats of a card; room is the page with room for another line.
func (h *Hardening) write(units quantity.System, room func() *sheet) {
	a := &h.Advice
	s := room()
	s.y += 1.5 + s.text(s.margin, s.y+1, s.width(), s.face("label", 12, ink), text.Say("stage.harden", nil))
	for i := range a.Steps {
		s = room()
		s.text(s.margin, s.y, 6, s.face("narrow", 9, quiet), strconv.Itoa(i+1))
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 8.6, ink), TreatWords(&a.Steps[i], units))
	}
	for i := range a.Findings {
		s = room()
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 8, ember), text.Warning(&a.Findings[i], units))
	}
	mends(a.Mends, units, room)
	s = room()
	if len(a.Steps) > 0 {
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 7.4, quiet), treatCautions(a))
	}
}

// mends writes what to do where the quench went another way.
func mends(all []harden.Mend, units quantity.System, room func() *sheet) {
	for _, m := range all {
		s := room()
		var do []string
		for _, d := range m.Do {
			do = append(do, text.Say(d.Code, map[string]string{"bath": bathName(d.Bath), "long": quantity.FormatLength(d.LongMm, units)}))
		}
		s.y += s.text(s.margin+6, s.y, s.width()-6, s.face("sans", 7.8, quiet), text.Say("mend.when."+m.When, nil)+": "+strings.Join(do, " "))
	}
}

// treatCautions are the dangers of the steps, each once.
func treatCautions(a *harden.Advice) string {
	var out []string
	for i := range a.Steps {
		for _, c := range a.Steps[i].Cautions {
			if said := text.Say(c, nil); !slices.Contains(out, said) {
				out = append(out, said)
			}
		}
	}
	return strings.Join(out, " ")
}

func bathName(b harden.BathClass) string {
	if b == "" {
		return ""
	}
	return text.Say("bath."+string(b), nil)
}

// treatName is a step of a treatment in a word or two: "Temper 2".
func treatName(id string) string {
	kind, n, _ := strings.Cut(id, "-")
	return text.Say("treat.step."+kind, map[string]string{"n": n})
}

// seenWords is what was seen of a step, in the smith's units.
func seenWords(v *session.Seen, units quantity.System) string {
	if v == nil {
		return ""
	}
	var out []string
	add := func(sight, value string) { out = append(out, text.Say("see."+sight, nil)+" "+value) }
	num := func(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
	if v.TempC != 0 {
		add("temp", quantity.FormatTemperature(v.TempC, units))
	}
	if v.BathC != 0 {
		add("bath", quantity.FormatTemperature(v.BathC, units))
	}
	if v.TimeS != 0 {
		add("time", text.Figure("timeS", v.TimeS, units))
	}
	if v.WarpMm != 0 {
		add("warp", quantity.FormatThickness(v.WarpMm, units))
	}
	if v.File != "" {
		add("file", text.Say("file."+string(v.File), nil))
	}
	if v.GrainNumber != 0 {
		add("grain", num(v.GrainNumber))
	}
	if v.HRC != 0 {
		add("hard", num(v.HRC))
	}
	return strings.Join(out, ", ")
}
