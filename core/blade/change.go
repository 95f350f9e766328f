package blade

import "math"

// Thinner is a design with every thickness of its blade times k.
func (d Design) Thinner(k float64) Design {
	d.SpineMm, d.TipMm, d.MidMm = d.SpineMm*k, d.TipMm*k, d.MidMm*k
	nodes := make([]TaperNode, len(d.TaperNodes))
	for i, n := range d.TaperNodes {
		n.ThicknessMm *= k
		nodes[i] = n
	}
	if d.TaperNodes = nodes; len(nodes) == 0 {
		d.TaperNodes = nil
	}
	return d
}

// Lower is a design that is so many millimetres less high, its ricasso with it as far as the tang lets it.
func (d Design) Lower(byMm float64) Design {
	d.HeightMm -= byMm
	d.Ricasso.HeightMm = math.Max(d.Tang.HeightAtShoulderMm+2, d.Ricasso.HeightMm-byMm)
	return d
}

// Shorter is a design whose blade is so many millimetres shorter.
func (d Design) Shorter(byMm float64) Design {
	d.LengthMm -= byMm
	return d
}
