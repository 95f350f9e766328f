package plan

import "coldember/core/blade"

// Solid is a drawn piece in the round: sections from the edge's thickness to the
// spine's, lofted through its stations; every zone a closed shell of its own.
func Solid(stations []Station) blade.Mesh {
	var m blade.Mesh
	from := 0
	for i := 1; i <= len(stations); i++ {
		if i < len(stations) && stations[i].Zone == stations[from].Zone {
			continue
		}
		run := append([]Station(nil), stations[from:i]...)
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
func joins(a, b Station) bool {
	const step = 0.75
	return abs(a.SpineY-b.SpineY) < step && abs(a.EdgeY-b.EdgeY) < step
}

func abs(v float64) float64 { return max(v, -v) }

// leastMm keeps a shell from having no volume at the very point.
const leastMm = 0.02

func loft(m *blade.Mesh, run []Station) {
	base := len(m.Vertices)
	for _, s := range run {
		edge := s.EdgeMm
		if edge == 0 {
			edge = s.ThicknessMm
		}
		top, bottom := s.SpineY, min(s.EdgeY, s.SpineY-leastMm)
		t, e := max(s.ThicknessMm, leastMm)/2, max(edge, leastMm)/2
		m.Vertices = append(m.Vertices, [3]float64{s.XMm, bottom, e}, [3]float64{s.XMm, top, t}, [3]float64{s.XMm, top, -t}, [3]float64{s.XMm, bottom, -e})
	}
	m.Loft(base, 4)
}
