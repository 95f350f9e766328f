package route

import "math"

// Work on edge.
const (
	BuckleRatio  = 3.0  // width over thickness: past it a bar folds when it is struck on edge
	TurnsHelp    = 2.0  // times that, by light taps and flat blows in turn (judgement)
	edgewiseTurn = 0.08 // strain of one turn on edge: a light tap that does not buckle (judgement)
)

// EdgeTurns is how many times a stretch as it is, width over thickness ratio, is turned on
// edge and back to be narrowed by a true strain: as long as it is more than three times as
// wide as thick the narrowing goes by light taps, each set straight by flat blows. 0 where it
// need not.
func EdgeTurns(ratio, narrowed float64) int {
	if narrowed <= edgewiseTurn || ratio <= BuckleRatio+1e-9 {
		return 0
	}
	return int(math.Ceil(math.Min(narrowed, math.Log(ratio/BuckleRatio))/edgewiseTurn - 1e-9))
}
