package plan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
)

// Work on edge.
const (
	buckleRatio  = 3.0  // width over thickness: past it a bar folds when it is struck on edge
	turnsHelp    = 2.0  // times that, by light taps and flat blows in turn (judgement)
	edgewiseTurn = 0.08 // strain of one turn on edge: a light tap that does not buckle (judgement)
)

// narrowing is how far a zone is narrowed from the bar by the operation that
// draws it: its least width, ok where it is more than a tap.
func (r *route) narrowing(zone string) (leastMm float64, ok bool) {
	least := math.Inf(1)
	for _, c := range r.cells {
		if c.zone == zone {
			least = math.Min(least, c.preform.WidthMm)
		}
	}
	return least, math.Log(r.bar.WidthMm/least) > edgewiseTurn
}

// edgeTurns is how many times the planner has the piece turned on edge and back:
// as long as it is more than three times as wide as thick, the narrowing goes by
// light taps, each set straight by flat blows. 0 where it need not.
func (r *route) edgeTurns(op *forge.Operation) int {
	zone := map[forge.Kind]string{forge.Point: ZonePoint, forge.DrawTang: ZoneTang}[op.Kind]
	w, t := r.bar.WidthMm, r.bar.ThicknessMm
	least, narrows := r.narrowing(zone)
	if zone == "" || !narrows || w/t <= buckleRatio+1e-9 {
		return 0
	}
	return int(math.Ceil(math.Log(w/math.Max(least, buckleRatio*t))/edgewiseTurn - 1e-9))
}

// warnEdgewise: work on edge that has to go by turns, and a bar so wide for its
// thickness that turns do not help.
func (r *route) warnEdgewise(add adder) {
	ratio := r.bar.WidthMm / r.bar.ThicknessMm
	for _, on := range []struct {
		zone string
		kind forge.Kind
	}{{ZonePoint, forge.Point}, {ZoneTang, forge.DrawTang}} {
		_, narrows := r.narrowing(on.zone)
		if !narrows || ratio <= buckleRatio+1e-9 {
			continue
		}
		at := fact.Where{Zone: on.zone, Operation: string(on.kind)}
		if limit := buckleRatio * turnsHelp; ratio > limit+1e-9 {
			add("warn.edgewiseFolds", fact.Warn, at, fact.Figures{"ratio": ratio, "limit": limit})
			continue
		}
		add("warn.edgewise", fact.Note, at, fact.Figures{"ratio": ratio, "limit": buckleRatio})
	}
}
