package section

import "math"

// FacesAt is where the two faces lie at y mm above the edge, across the thickness: front and
// back of the mid-plane of the spine. A blade ground on one side has its bevel in front and its
// flat behind; a groove in one face is in the back.
func (s Section) FacesAt(y float64) (frontMm, backMm float64) {
	plain := s
	plain.Grooves = nil
	frontMm = plain.ThicknessAt(y) / 2
	if s.Kind.OneSided() {
		frontMm = plain.ThicknessAt(y) - s.SpineMm/2
	}
	for _, g := range s.Grooves {
		if !g.OneFace {
			frontMm -= g.at(y)
		}
	}
	return frontMm, frontMm - s.ThicknessAt(y)
}

// Set is how a bevel is held to the platen or in the jig: the angle between its chord and the
// flat of the blade (its mid-plane where both sides are ground), and how high it then reaches
// from the edge. Both are 0 where there is no bevel.
func (s Section) Set() (angleDeg, heightMm float64) {
	rise, high := (s.SpineMm-s.EdgeMm)/2, s.bevel()
	switch s.Kind {
	case Rect:
		return 0, 0
	case Chisel:
		rise *= 2
	case Diamond, Lens:
		high = s.HeightMm / 2
	}
	if rise <= 0 || high <= 0 {
		return 0, 0
	}
	return math.Atan(rise/high) * 180 / math.Pi, high
}

// BackSet is the same for a false edge, from the spine down.
func (s Section) BackSet() (angleDeg, heightMm float64) {
	rise := (s.SpineMm - s.SwedgeEdgeMm) / 2
	if s.SwedgeHeightMm <= 0 || rise <= 0 {
		return 0, 0
	}
	return math.Atan(rise/s.SwedgeHeightMm) * 180 / math.Pi, s.SwedgeHeightMm
}

// Kept is the thickness that is left at y mm above the edge of a section whose flats stay as they
// were forged, isMm thick there: above its bevel the bevel runs on as straight as its chord, and in
// a plunge it runs out into the flat that is there. Grooves and a false edge are ground as ever.
func (s Section) Kept(y, isMm float64) float64 {
	left := s.ThicknessAt(y)
	switch {
	case s.Kind.DoubleEdged(), s.SwedgeHeightMm > 0 && y > s.HeightMm-s.SwedgeHeightMm:
		return left
	}
	for _, g := range s.Grooves {
		if g.at(y) > 0 {
			return left
		}
	}
	if hb := s.bevel(); y > hb {
		left = math.Max(left, s.EdgeMm+(s.SpineMm-s.EdgeMm)*y/hb)
	}
	return left + math.Max(0, isMm-left)*s.RunOut
}
