package forge

// Turning is what an operation does to the centre line: it brings a stretch to a
// curvature, adds to it (the sweep of bevels), or twists it. The sections stay.
type Turning struct {
	Brings   bool
	ToPerMm  float64 // with Brings: the curvature that it comes to, toward the spine
	AddPerMm float64 // over the whole operation
	Turns    float64 // twisted into the whole stretch
	FromEnd  bool    // cell after cell from the free end, as an eye is turned
}

// carry takes the cells of a pass from one share of it to another; all is how many
// cells the operation has.
func (t *Turning) carry(cells []Cell, from, to float64, all int) {
	if to <= from || !t.Brings && t.AddPerMm == 0 && t.Turns == 0 {
		return
	}
	n := float64(len(cells))
	for i := range cells {
		a, b := from, to
		if t.FromEnd {
			before := n - 1 - float64(i)
			a, b = share(from*n-before), share(to*n-before)
		}
		c := &cells[i]
		if t.Brings && a < 1 {
			c.CurvePerMm += (t.ToPerMm - c.CurvePerMm) * (b - a) / (1 - a)
		}
		c.CurvePerMm += t.AddPerMm * (b - a)
		c.TwistTurns += t.Turns / float64(all) * (b - a)
	}
}

func share(v float64) float64 { return max(0, min(1, v)) }
