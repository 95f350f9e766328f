package review

import (
	"slices"

	"coldember/core/fact"
	"coldember/core/plan"
)

// worse tells of which figure the worst place of a cause has most (or, where least, the least): findings of these
// codes are one, with their places.
var worse = map[string]struct {
	figure string
	least  bool
}{
	"warn.edgewise":      {figure: "ratio"},
	"warn.edgewiseFolds": {figure: "ratio"},
	"warn.shortHeat":     {figure: "workS", least: true},
}

// follows are findings that only follow from a stop: a bar that cannot give the blade at all folds and bends on the way.
// They are not told beside it, in the point and the blade.
var follows = map[string][]string{
	"warn.tooNarrow":      {"warn.upset", "warn.upsetBends", "warn.edgewise", "warn.edgewiseFolds"},
	"warn.tooNarrowUpset": {"warn.upset", "warn.upsetBends", "warn.edgewise", "warn.edgewiseFolds"},
	"warn.hopeless":       {"warn.hopelessBlows", "warn.tired"},
	"warn.hopelessBlows":  {"warn.tired"},
}

// gathered makes one finding of each cause: the worst place first, the others with it, and nothing of what only follows.
func gathered(list []fact.Warning) []fact.Warning {
	out := list[:0:0]
	for _, w := range list {
		by, many := worse[w.Code]
		at := slices.IndexFunc(out, func(had fact.Warning) bool { return many && had.Code == w.Code })
		switch {
		case slices.ContainsFunc(list, func(stop fact.Warning) bool { return isSequel(w, stop.Code) }):
		case at < 0:
			out = append(out, w)
		case (w.Figures[by.figure] > out[at].Figures[by.figure]) != by.least:
			w.Also = append([]fact.Where{out[at].Where}, out[at].Also...)
			out[at] = w
		default:
			out[at].Also = append(out[at].Also, w.Where)
		}
	}
	return out
}

// isSequel tells whether a finding only follows from a stop: there is nothing to do about it but what the stop asks for.
func isSequel(w fact.Warning, stop string) bool {
	elsewhere := w.Where.Zone == plan.ZoneTang || w.Where.Zone == plan.ZoneRicasso
	return slices.Contains(follows[stop], w.Code) && !elsewhere
}
