package figure

import (
	"coldember/core/blade"
	"coldember/core/plan"
)

// Stations of the section view, and steps of height in each.
const (
	viewStations = 33
	viewSteps    = 24
)

// heights above the edge at which thickness is judged, mm.
var behindHeights = [3]float64{1, 5, 10}

// Sections are cross-sections of a finished blade along its length, with the thickness behind the edge.
func Sections(b *blade.Body) []plan.SectionView {
	out := make([]plan.SectionView, 0, viewStations)
	for i := range viewStations {
		x := b.LengthMm() * (float64(i) + .5) / viewStations
		s := b.SectionAt(x)
		p := s.Properties()
		v := plan.SectionView{XMm: micron(x), HeightMm: micron(s.HeightMm), AngleDeg: micron(s.EdgeAngleDeg()), AreaMm2: micron(p.AreaMm2), FlatwiseMm4: micron(p.FlatwiseMm4), OneFace: s.Kind.OneSided()}
		set, high := s.Set()
		backSet, backHigh := s.BackSet()
		v.SetDeg, v.BevelMm, v.BackSetDeg, v.BackMm = micron(set), micron(high), micron(backSet), micron(backHigh)
		aside := s.Kind.OneSided() || len(s.Grooves) > 0 && s.Grooves[0].OneFace
		for k := range viewSteps + 1 {
			if aside {
				front, back := s.FacesAt(s.HeightMm * float64(k) / viewSteps)
				if b.Blade.Grind.BevelSide == blade.LeftBevel && s.Kind.OneSided() {
					front = -back
				}
				v.Front = append(v.Front, micron(front))
			}
			v.T = append(v.T, micron(s.ThicknessAt(s.HeightMm*float64(k)/viewSteps)))
		}
		for k, h := range behindHeights {
			v.BehindMm[k] = micron(s.ThicknessAt(min(h, s.HeightMm)))
		}
		out = append(out, v)
	}
	return out
}
