package figure

import (
	"math"

	"coldember/core/blade"
	"coldember/core/plan"
)

// Solid is a drawn piece in the round: sections from the edge's thickness to the
// spine's, lofted through its stations; every zone a closed shell of its own.
func Solid(stations []plan.Station) blade.Mesh {
	var m blade.Mesh
	from := 0
	for i := 1; i <= len(stations); i++ {
		if i < len(stations) && stations[i].Zone == stations[from].Zone {
			continue
		}
		run := append([]plan.Station(nil), stations[from:i]...)
		if i < len(stations) && joins(stations[i-1], stations[i]) {
			run = append(run, stations[i]) // no step between: the shells touch
		}
		if len(run) > 1 {
			loft(&m, run)
		}
		from = i
	}
	return m
}

// joins tells whether two stations are one run of surface, with no shoulder
// between them.
func joins(a, b plan.Station) bool {
	const step = 0.75
	if a.SpineX != nil || b.SpineX != nil {
		return abs(a.HeightMm()-b.HeightMm()) < 2*step
	}
	return abs(a.SpineY-b.SpineY) < step && abs(a.EdgeY-b.EdgeY) < step
}

func abs(v float64) float64 { return max(v, -v) }

// leastMm keeps a shell from having no volume at the very point.
const leastMm = 0.02

func loft(m *blade.Mesh, run []plan.Station) {
	base := len(m.Vertices)
	for _, s := range run {
		edge := s.EdgeMm
		if edge == 0 {
			edge = s.ThicknessMm
		}
		t, e := max(s.ThicknessMm, leastMm)/2, max(edge, leastMm)/2
		half := max(s.HeightMm(), leastMm) / 2
		m.Vertices = append(m.Vertices, turned(&s, -half, e), turned(&s, half, t), turned(&s, half, -t), turned(&s, -half, -e))
	}
	m.Loft(base, 4)
}

// turned is a point of the section, v up from its middle and z out of the flat, as
// the section stands there: leaning where the piece is bent, turned where twisted.
func turned(s *plan.Station, v, z float64) [3]float64 {
	sin, cos := math.Sincos(s.TwistDeg * math.Pi / 180)
	v, z = v*cos-z*sin, v*sin+z*cos
	x0, y0 := s.Edge()
	x1, y1 := s.Spine()
	h := max(math.Hypot(x1-x0, y1-y0), leastMm)
	up := [2]float64{(x1 - x0) / h, (y1 - y0) / h}
	if up == [2]float64{} {
		up[1] = 1
	}
	return [3]float64{(x0+x1)/2 + v*up[0], (y0+y1)/2 + v*up[1], z}
}
