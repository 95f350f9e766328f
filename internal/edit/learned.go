package edit

import (
	"maps"
	"slices"
	"strings"

	"coldember/core/learn"
	"coldember/internal/doc"
)

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
	switch strings.TrimSpace(e.Text) {
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
	if all[rest] = c; c == (learn.Choice{}) {
		delete(all, rest)
	}
	if len(all) > doc.MostLearned {
		return problemAt(e, "field.choice", -1)
	}
	s.Learned = all
	return nil
}
