package plan

import "coldember/core/blade"

// SectionView is the cross-section of the finished blade at one station, ready
// to be drawn: T is the full thickness at equal steps from edge to spine.
type SectionView struct {
	XMm         float64    `json:"x"`
	HeightMm    float64    `json:"heightMm"`
	T           []float64  `json:"t"`
	BehindMm    [3]float64 `json:"behindMm" doc:"thickness 1, 5 and 10 mm above the edge; the spine's where it is lower"`
	AngleDeg    float64    `json:"angleDeg" doc:"between the faces at the edge, before sharpening"`
	AreaMm2     float64    `json:"areaMm2"`
	FlatwiseMm4 float64    `json:"flatwiseMm4" doc:"second moment against bending flatwise"`
	OneFace     bool       `json:"oneFace,omitempty" doc:"ground on one side: the other face is flat"`
}

// Stations of the section view, and steps of height in each.
const (
	viewStations = 33
	viewSteps    = 24
)

// heights above the edge at which thickness is judged, mm.
var behindHeights = [3]float64{1, 5, 10}

func sections(b *blade.Body) []SectionView {
	out := make([]SectionView, 0, viewStations)
	for i := range viewStations {
		x := b.LengthMm() * (float64(i) + .5) / viewStations
		s := b.SectionAt(x)
		p := s.Properties()
		v := SectionView{XMm: micron(x), HeightMm: micron(s.HeightMm), AngleDeg: micron(s.EdgeAngleDeg()), AreaMm2: micron(p.AreaMm2), FlatwiseMm4: micron(p.FlatwiseMm4), OneFace: s.Kind.OneSided()}
		for k := range viewSteps + 1 {
			v.T = append(v.T, micron(s.ThicknessAt(s.HeightMm*float64(k)/viewSteps)))
		}
		for k, h := range behindHeights {
			v.BehindMm[k] = micron(s.ThicknessAt(min(h, s.HeightMm)))
		}
		out = append(out, v)
	}
	return out
}
