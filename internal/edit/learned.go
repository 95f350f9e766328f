package edit

import (
	"maps"
	"slices"
	"strings"

	"coldember/core/learn"
	"coldember/internal/doc"
)

// mostSessionID bounds the id of a session.
const mostSessionID = 80

// learnedChoice switches a factor off or on, forgets what taught it until now, or remembers it again; rest
// is its kind and whose it is. The time of forgetting is set where it is kept.
func learnedChoice(s *doc.Shop, rest string, e Edit) *Problem {
	kind, of, ok := strings.Cut(rest, "|")
	if !ok || len(of) > 120 || !slices.Contains(learn.Kinds(), learn.Kind(kind)) {
		return problemAt(e, "field.unknown", -1)
	}
	all := maps.Clone(s.Learned)
	if all == nil {
		all = map[string]learn.Choice{}
	}
	c := all[rest]
	verb, session, _ := strings.Cut(strings.TrimSpace(e.Text), " ")
	if answers := verb == "count" || verb == "leave"; answers != (session != "") || len(session) > mostSessionID || answers && len(c.Answers) >= doc.MostAnswers {
		return problemAt(e, "field.choice", -1)
	}
	switch verb {
	case "count", "leave": // what is said of a piece that was asked about
		c = c.Answered(learn.Answer{Session: session, Counts: verb == "count"})
	case "on":
		c.Off = false
	case "off":
		c.Off = true
	case "forget":
		c.FromMs = -1
	case "remember":
		c.FromMs = 0
	default:
		return problemAt(e, "field.choice", -1)
	}
	if all[rest] = c; c.None() {
		delete(all, rest)
	}
	if len(all) > doc.MostLearned {
		return problemAt(e, "field.choice", -1)
	}
	s.Learned = all
	return nil
}
