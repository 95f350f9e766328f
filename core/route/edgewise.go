package route

import (
	"math"

	"coldember/core/forge"
	"coldember/core/plan"
)

// Work on edge.
const (
	BuckleRatio  = 3.0  // width over thickness: past it a bar folds when it is struck on edge
	TurnsHelp    = 2.0  // times that, by light taps and flat blows in turn (judgement)
	edgewiseTurn = 0.08 // strain of one turn on edge: a light tap that does not buckle (judgement)
)

// Narrowing is how far a zone is narrowed from the bar by the operation that
// draws it: its least width, ok where it is more than a tap.
func (r *Route) Narrowing(zone string) (leastMm float64, ok bool) {
	least := math.Inf(1)
	for _, c := range r.Cells {
		if c.Zone == zone {
			least = math.Min(least, c.Preform.WidthMm)
		}
	}
	return least, math.Log(r.Bar.WidthMm/least) > edgewiseTurn
}

// EdgeTurns is how many times the planner has the piece turned on edge and back:
// as long as it is more than three times as wide as thick, the narrowing goes by
// light taps, each set straight by flat blows. 0 where it need not.
func (r *Route) EdgeTurns(op *forge.Operation) int {
	zone := map[forge.Kind]string{forge.Point: plan.ZonePoint, forge.DrawTang: plan.ZoneTang}[op.Kind]
	w, t := r.Bar.WidthMm, r.Bar.ThicknessMm
	least, narrows := r.Narrowing(zone)
	if zone == "" || !narrows || w/t <= BuckleRatio+1e-9 {
		return 0
	}
	return int(math.Ceil(math.Log(w/math.Max(least, BuckleRatio*t))/edgewiseTurn - 1e-9))
}
