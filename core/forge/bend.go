package forge

import (
	"math"

	"coldember/core/section"
)

// BendFactor scales the free curvature until a smith's log teaches better.
const BendFactor = 0.25

// straightPerMm is the curvature below which a bar counts as straight.
const straightPerMm = 1e-9

// Bend is how bevelling curves the bar away from its edge (positive: the point
// rises toward the spine). Pre-curve is the same, toward the edge.
type Bend struct {
	CurvaturePerMm float64 `json:"curvaturePerMm"`
	RiseMm         float64 `json:"riseMm"`
	MeanElongation float64 `json:"meanElongation"`
}

// BevelBend computes the bend of a forged section bevelled from a rectangle of
// startThicknessMm with this spread, over lengthMm after bevelling. The free
// elongation of each fibre is (1−S)ln(t0/t1); the least-squares line through
// it, weighted by t1, gives the curvature.
func BevelBend(s section.Section, startThicknessMm, spread, bendFactor, lengthMm float64) Bend {
	const n = 400
	var w, wy, wyy, we, wye float64
	for i := range n {
		y := s.HeightMm * (float64(i) + 0.5) / n
		t := s.ThicknessAt(y)
		if t <= 0 {
			continue
		}
		e := (1 - spread) * math.Log(startThicknessMm/t)
		w += t
		wy += t * y
		wyy += t * y * y
		we += t * e
		wye += t * y * e
	}
	slope := (w*wye - wy*we) / (w*wyy - wy*wy)
	b := Bend{CurvaturePerMm: -slope * bendFactor, MeanElongation: we / w}
	if math.Abs(b.CurvaturePerMm) < straightPerMm {
		b.CurvaturePerMm = 0
		return b
	}
	b.RiseMm = (1 - math.Cos(b.CurvaturePerMm*lengthMm)) / b.CurvaturePerMm
	return b
}
