package text

import (
	"sort"
	"strings"

	"coldember/core/fact"
	"coldember/core/quantity"
)

// Line is one thing to look out for, in words.
type Line struct {
	Words string
	Stop  bool
}

// Warnings puts warnings into words, the gravest first; the same words for two
// zones are said once.
func Warnings(ws []fact.Warning, s quantity.System) []Line {
	rank := map[fact.Severity]int{fact.Stop: 0, fact.Warn: 1, fact.Note: 2}
	sorted := append([]fact.Warning(nil), ws...)
	sort.SliceStable(sorted, func(i, j int) bool { return rank[sorted[i].Severity] < rank[sorted[j].Severity] })
	zones, order, stop := map[string][]string{}, []string{}, map[string]bool{}
	for _, w := range sorted {
		words := Say(w.Code, Figures(w.Figures, s))
		if _, seen := zones[words]; !seen {
			order = append(order, words)
			zones[words] = nil
		}
		for _, z := range w.Zones() {
			zones[words] = append(zones[words], Say("zone."+z, nil))
		}
		stop[words] = stop[words] || w.Severity == fact.Stop
	}
	out := make([]Line, len(order))
	for i, words := range order {
		out[i] = Line{Words: words, Stop: stop[words]}
		if z := zones[words]; len(z) > 0 {
			out[i].Words = strings.Join(z, ", ") + ": " + words
		}
	}
	return out
}
