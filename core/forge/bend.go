package forge

import (
	"math"

	"coldember/core/section"
)

// BendFactor scales the free curvature of a stretch in the heat in which it is bevelled, until a
// smith's log teaches better (judgement: .14–.25; a blade of 100 mm rises some 12 mm, one of
// 250 mm some 32 where each stretch is trued before the next).
const BendFactor = 0.18

// MostRise is the share of its length by which a blade is bent on purpose (judgement: .12–.18):
// more does not lie on the anvil any more.
const MostRise = 0.15

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
	b.RiseMm = Rise(b.CurvaturePerMm, lengthMm)
	return b
}

// Rise is how far the end of a length stands off its straight line where it is bent evenly, mm.
func Rise(curvaturePerMm, lengthMm float64) float64 {
	if math.Abs(curvaturePerMm) < straightPerMm {
		return 0
	}
	return (1 - math.Cos(curvaturePerMm*lengthMm)) / curvaturePerMm
}

// CurvatureOf is the curvature that raises the end of a length by so much, at most half of it, 1/mm: the
// inverse of Rise.
func CurvatureOf(riseMm, lengthMm float64) float64 {
	k := 2 * riseMm / (lengthMm * lengthMm) // of a shallow arc; (1 − cos)/θ by Newton from there
	for range 8 {
		t := k * lengthMm
		if math.Abs(t) < 1e-9 {
			return k
		}
		k -= (Rise(k, lengthMm) - riseMm) / ((t*math.Sin(t) - (1 - math.Cos(t))) / (k * k))
	}
	return k
}
