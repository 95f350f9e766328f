package figure

import (
	"math"
	"slices"

	"coldember/core/blade"
	"coldember/core/plan"
)

// Solid is a drawn piece in the round, and the temperature at each of its vertices, °C: sections as wide, as thick and of
// the same area as they are drawn, lofted through its stations; every zone a closed shell of its own.
func Solid(stations []plan.Station) (m blade.Mesh, tempC []float64) {
	from := 0
	for i := 1; i <= len(stations); i++ {
		if i < len(stations) && stations[i].Zone == stations[from].Zone {
			continue
		}
		run := slices.Clone(stations[from:i])
		if i < len(stations) {
			if joins(stations[i-1], stations[i]) { // no step between: the shells touch
				run = append(run, stations[i])
			} else { // it goes on as it is to the shoulder
				run = append(run, moved(stations[i-1], &stations[i]))
			}
		}
		if len(run) > 1 {
			tempC = append(tempC, loft(&m, run)...)
		}
		from = i
	}
	return m, tempC
}

// moved is a station put to the middle of another.
func moved(s plan.Station, to *plan.Station) plan.Station {
	a, b := sectionOf(&s), sectionOf(to)
	dx, dy := b.x-a.x, b.y-a.y
	s.XMm, s.SpineY, s.EdgeY = s.XMm+dx, s.SpineY+dy, s.EdgeY+dy
	if s.SpineX != nil {
		spine, edge := *s.SpineX+dx, *s.EdgeX+dx
		s.SpineX, s.EdgeX = &spine, &edge
	}
	return s
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

// mostTurnRad is by how much a section may turn, by bend or twist, until the next: the chords of an arc and of a
// twist hold less than they should.
const mostTurnRad = 3 * math.Pi / 180

// loft draws a shell through the sections of a run, and answers with the temperature at each of its vertices.
func loft(m *blade.Mesh, run []plan.Station) (tempC []float64) {
	base := len(m.Vertices)
	ring := func(s standing) {
		m.Vertices = append(m.Vertices, s.ring()...)
		for len(tempC) < len(m.Vertices)-base {
			tempC = append(tempC, s.tempC)
		}
	}
	last := sectionOf(&run[0])
	ring(last)
	for i := range run[1:] {
		next := sectionOf(&run[i+1])
		next.upRad = last.upRad + math.Remainder(next.upRad-last.upRad, 2*math.Pi)
		n := math.Ceil(math.Max(math.Abs(next.upRad-last.upRad), math.Abs(next.twistRad-last.twistRad)) / mostTurnRad)
		for k := 1.0; k < n; k++ {
			ring(last.toward(next, k/n))
		}
		ring(next)
		last = next
	}
	m.Loft(base, ringOf)
	return tempC
}

// standing is a section as it stands in the round: where its middle is, which way up it leans, by what it is twisted,
// and its size.
type standing struct {
	x, y, upRad, twistRad             float64
	heightMm, edgeMm, spineMm, meanMm float64
	tempC                             float64
}

func sectionOf(s *plan.Station) standing {
	x0, y0 := s.Edge()
	x1, y1 := s.Spine()
	out := standing{x: (x0 + x1) / 2, y: (y0 + y1) / 2, upRad: math.Pi / 2, twistRad: s.TwistDeg * math.Pi / 180, heightMm: math.Max(s.HeightMm(), leastMm), spineMm: math.Max(s.ThicknessMm, leastMm), edgeMm: s.EdgeMm, meanMm: s.MeanMm, tempC: s.TempC}
	if out.edgeMm == 0 {
		out.edgeMm = out.spineMm
	}
	out.edgeMm = math.Max(out.edgeMm, leastMm)
	if out.meanMm == 0 {
		out.meanMm = (out.edgeMm + out.spineMm) / 2
	}
	if math.Hypot(x1-x0, y1-y0) > leastMm {
		out.upRad = math.Atan2(y1-y0, x1-x0)
	}
	return out
}

// toward is the section part of the way to another: along the arc that both stand across.
func (s standing) toward(to standing, u float64) standing {
	mix := func(a, b float64) float64 { return a + (b-a)*u }
	out := standing{
		upRad: mix(s.upRad, to.upRad), twistRad: mix(s.twistRad, to.twistRad), heightMm: mix(s.heightMm, to.heightMm),
		edgeMm: mix(s.edgeMm, to.edgeMm), spineMm: mix(s.spineMm, to.spineMm), meanMm: mix(s.meanMm, to.meanMm), tempC: mix(s.tempC, to.tempC),
	}
	// Hermite, with the tangents of an arc through both
	dx, dy := to.x-s.x, to.y-s.y
	chord, half := math.Hypot(dx, dy), (to.upRad-s.upRad)/2
	long := chord
	if math.Abs(half) > 1e-9 {
		long = chord * 2 * math.Tan(half/2) / math.Sin(half) // a cubic's for an arc of twice this angle
	}
	tangent := func(up float64) (float64, float64) {
		x, y := math.Sin(up), -math.Cos(up)
		if x*dx+y*dy < 0 {
			x, y = -x, -y
		}
		return x * long, y * long
	}
	ax, ay := tangent(s.upRad)
	bx, by := tangent(to.upRad)
	u2, u3 := u*u, u*u*u
	out.x = s.x*(2*u3-3*u2+1) + ax*(u3-2*u2+u) + to.x*(3*u2-2*u3) + bx*(u3-u2)
	out.y = s.y*(2*u3-3*u2+1) + ay*(u3-2*u2+u) + to.y*(3*u2-2*u3) + by*(u3-u2)
	return out
}

// ringOf is how many vertices a section has.
const ringOf = 6

// ring are the corners of a section of its height, its two thicknesses and its area: a bevel from the edge up to where it
// is as thick as at the spine, or, where it is leaner than a wedge, hollow.
func (s standing) ring() [][3]float64 {
	h, t, e, m := s.heightMm, s.spineMm, s.edgeMm, s.meanMm
	at, mid := 0.0, math.Max(leastMm, (4*m-t-e)/2)
	if m >= (t+e)/2 && t-e > leastMm {
		at, mid = h*(math.Min(1, 2*(t-m)/(t-e))-.5), t
	}
	return [][3]float64{
		s.place(-h/2, e/2), s.place(at, mid/2), s.place(h/2, t/2),
		s.place(h/2, -t/2), s.place(at, -mid/2), s.place(-h/2, -e/2),
	}
}

// place is a point of the section, v up from its middle and z out of the flat.
func (s standing) place(v, z float64) [3]float64 {
	sin, cos := math.Sincos(s.twistRad)
	v, z = v*cos-z*sin, v*sin+z*cos
	return [3]float64{s.x + v*math.Cos(s.upRad), s.y + v*math.Sin(s.upRad), z}
}
