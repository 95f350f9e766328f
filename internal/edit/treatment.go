package edit

import (
	"slices"
	"strings"

	"coldember/core/harden"
	"coldember/core/steel"
	"coldember/internal/doc"
)

// treatment sets how a blade is hardened and tempered: the first that is set takes the usual one of
// the steel along, "treatment" with nothing goes back to it, and a bath brings its own figures.
func treatment(d *doc.Piece, rest string, e Edit) *Problem {
	r := &d.Request
	if rest == "usual" {
		r.Treatment = nil
		return nil
	}
	if r.Treatment == nil {
		g, err := steel.Find(r.SteelID)
		if err != nil {
			return problemAt(e, "field.steel", -1)
		}
		if r.Steel != nil {
			g = *r.Steel
		}
		t := harden.NewTreatment(r.Joined(g))
		r.Treatment = &t
	}
	switch rest {
	case "bath.class":
		c := harden.BathClass(strings.TrimSpace(e.Text))
		if !slices.Contains(harden.BathClasses(), c) {
			return problemAt(e, "field.choice", -1)
		}
		litres := r.Treatment.Bath.VolumeL
		r.Treatment.Bath = harden.NewBath(c)
		r.Treatment.Bath.VolumeL = litres
		return nil
	case "kiln":
		return yes(&r.Treatment.Kiln, e)
	case "tank":
		return choice(func(t *harden.Treatment, v string) bool { return whole(v, func(b harden.Bath) { t.Bath = b }) })(r.Treatment, e)
	case "oven":
		return choice(func(t *harden.Treatment, v string) bool { return whole(v, t.TakeUp) })(r.Treatment, e)
	case "way":
		w := harden.Way(strings.TrimSpace(e.Text))
		if !slices.Contains(harden.Ways(), w) {
			return problemAt(e, "field.choice", -1)
		}
		r.Treatment.SetWay(w)
		return nil
	}
	if work, ok := strings.CutPrefix(rest, "late."); ok {
		return late(r.Treatment, harden.Work(work), e)
	}
	return setMember(r, e)
}

// late leaves a work until after the quench, or does it before.
func late(t *harden.Treatment, w harden.Work, e Edit) *Problem {
	if !slices.Contains(harden.Works(), w) {
		return problemAt(e, "field.unknown", -1)
	}
	is := true
	switch text := strings.TrimSpace(e.Text); {
	case text == "forced":
		t.Forced = true
	case text == "yes" && !t.Forced:
		return problemAt(e, "need.softBeforeHardening", -1)
	default:
		if wrong := yes(&is, e); wrong != nil {
			return wrong
		}
	}
	if t.Late = slices.DeleteFunc(slices.Clone(t.Late), func(o harden.Work) bool { return o == w }); is {
		t.Late = append(t.Late, w)
	}
	if len(t.Late) == 0 {
		t.Late, t.Forced = nil, false
	}
	return nil
}

// analysis sets one share of a certificate, the first from the usual composition of the grade;
// "analysis.usual" goes back to that.
func analysis(to **steel.Analysis, steelID, rest string, e Edit) *Problem {
	if rest == "usual" {
		*to = nil
		return nil
	}
	g, err := steel.Find(steelID)
	if err != nil {
		return problemAt(e, "field.steel", -1)
	}
	a := steel.AnalysisOf(g)
	if *to != nil {
		a = **to
	}
	e.Field = rest
	if wrong := setMember(&a, e); wrong != nil {
		wrong.Field = "analysis." + rest
		return wrong
	}
	*to = &a
	return nil
}
