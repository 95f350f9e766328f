package blade

import (
	"math"
	"slices"
	"sort"

	"coldember/core/section"
)

// Mesh is a closed surface of triangles, in mm: x from the point, y from edge
// to spine, z across the thickness. Triangles run counter-clockwise seen from
// outside. Blade, ricasso and tang are a closed shell each, let into the one before it by a hair, so
// that no edge of one lies on an edge of another; the holes of a finished tang go through it.
type Mesh struct {
	Vertices  [][3]float64
	Triangles [][3]int
}

// Density of a mesh: stations along the blade, and steps from edge to spine.
const (
	meshStations = 160
	meshSteps    = 24
	roundSteps   = 36   // of faces that are curved
	groovedSteps = 72   // where a groove begins and ends between two of them
	meshStartMm  = 0.01 // the very point has no height
	bentBladeMm  = 0.4  // between stations where a blade is bent flatwise
)

// Density of a tang that is bent or twisted: a section for so many mm.
const bentStepMm = 0.06

// BentMesh is Mesh with the blade as it is bent flatwise, and the tang as it is bent and
// twisted, of this kind.
func (b *Body) BentMesh(k TangKind) (m Mesh) {
	t := b.Blade.Tang
	var line *Centreline
	if t != nil {
		line = t.Centreline(k)
	}
	step := b.tangStepMm()
	if line != nil {
		step = bentStepMm
	}
	m, ricasso, from := b.mesh(step)
	defer func() { b.letIn(&m, ricasso, from) }()
	if put := b.Bender(); put != nil {
		for i := range m.Vertices[:ricasso] {
			m.Vertices[i] = put(m.Vertices[i])
		}
	}
	if line == nil {
		return m
	}
	x0 := b.length
	if r := b.Blade.Ricasso; r != nil {
		x0 += r.LengthMm
	}
	y0 := b.SpineY(b.length) + t.CentreMm(0)
	for i := from; i < len(m.Vertices); i++ {
		v := &m.Vertices[i]
		f := line.At(v[0] - x0)
		// the section turns about its own middle, and stands across the line there
		middle := b.SpineY(b.length) + t.CentreMm(v[0]-x0)
		sin, cos := math.Sincos(2 * math.Pi * f.Turns)
		up, z := v[1]-middle, v[2]
		up, v[2] = middle-y0+up*cos-z*sin, z*cos+up*sin
		out, side := f.Off(up)
		v[0], v[1] = x0+out, y0+side
	}
	return m
}

// Density of a straight tang: sections enough for a taper, and for an outline of its own.
const (
	straightSteps = 8
	outlineStepMm = 0.5
)

// Mesh of the body, flat and with its tang straight.
func (b *Body) Mesh() Mesh {
	m, ricasso, tang := b.mesh(b.tangStepMm())
	b.letIn(&m, ricasso, tang)
	return m
}

// letInMm is how far a shell goes into the one before it.
const letInMm = 0.02

// letIn draws what begins at a shoulder into what is before it.
func (b *Body) letIn(m *Mesh, ricasso, tang int) {
	x := b.length
	for i := ricasso; i < len(m.Vertices); i++ {
		if i == tang && b.Blade.Ricasso != nil {
			x += b.Blade.Ricasso.LengthMm
		}
		if v := &m.Vertices[i]; math.Abs(v[0]-x) < letInMm/4 {
			v[0] -= letInMm
		}
	}
}

func (b *Body) tangStepMm() float64 {
	if t := b.Blade.Tang; t != nil && t.Outline == nil {
		return t.LengthMm / straightSteps
	}
	return outlineStepMm
}

// mesh of the body, with a section of the tang every so many mm; ricasso and tang are the
// first vertices behind blade and ricasso.
func (b *Body) mesh(stepMm float64) (m Mesh, ricasso, tang int) {
	xs := b.meshStations()
	steps := meshSteps
	switch k := b.Blade.Grind.Kind; {
	case b.Blade.Grind.Groove != nil:
		steps = groovedSteps
	case k == section.Lens || k == section.Convex || k == section.Hollow:
		steps = roundSteps
	}
	around := 2 * (steps + 1)
	m = Mesh{Vertices: make([][3]float64, 0, (len(xs)+2)*around), Triangles: make([][3]int, 0, 2*(len(xs)+2)*around)}
	for _, x := range xs {
		b.ring(&m, x, steps)
	}
	m.Loft(0, around)
	ricasso = len(m.Vertices)
	x, heel := b.length, b.SpineY(b.length)
	if r := b.Blade.Ricasso; r != nil {
		from := len(m.Vertices)
		for _, s := range r.Stations() {
			m.box(x+s, heel+r.RiseMm, r.HeightAt(s), r.ThicknessMm)
		}
		m.Loft(from, 4)
		x += r.LengthMm
	}
	tang = len(m.Vertices)
	if t := b.Blade.Tang; t != nil && len(t.Holes) > 0 {
		t.drill(&m, x, heel, stepMm)
	} else if t != nil {
		from := tang
		for _, s := range t.stations(stepMm) {
			h, k := t.At(s)
			m.box(x+s, heel-t.TopMm(s), h, k)
		}
		m.Loft(from, 4)
	}
	return m, ricasso, tang
}

// meshStations crowd toward the point and take in every node.
func (b *Body) meshStations() []float64 {
	xs := []float64{}
	for i := range meshStations + 1 {
		u := float64(i) / meshStations
		xs = append(xs, math.Max(meshStartMm, b.length*u*u))
	}
	for _, x := range b.breaks {
		if x > meshStartMm {
			xs = append(xs, x)
		}
	}
	if f := b.Blade.FlatBend; f != nil { // where it is bent, so that its arc is followed
		reach := math.Min(b.length, f.LongMm+b.Blade.Outline.highest())
		for i := range int(reach/bentBladeMm) + 1 {
			xs = append(xs, math.Max(meshStartMm, float64(i)*bentBladeMm))
		}
	}
	sort.Float64s(xs)
	return slices.CompactFunc(xs, func(a, c float64) bool { return math.Abs(a-c) < sliverMm })
}

// ring adds the section at x as a closed polygon: up one face, down the other.
func (b *Body) ring(m *Mesh, x float64, steps int) {
	s, bottom := b.SectionAt(x), b.EdgeY(x)
	left := b.Blade.Grind.left()
	back := make([][3]float64, steps+1)
	for i, y := range levels(&s, steps) {
		front, behind := s.FacesAt(y)
		if left {
			front, behind = -behind, -front
		}
		m.Vertices = append(m.Vertices, [3]float64{x, bottom + y, front})
		back[i] = [3]float64{x, bottom + y, behind}
	}
	for i := steps; i >= 0; i-- {
		m.Vertices = append(m.Vertices, back[i])
	}
}

// levels are the heights at which a section is cut, so many steps from edge to spine: even, but
// that one lies at each of its corners.
func levels(s *section.Section, steps int) []float64 {
	out := make([]float64, steps+1)
	for i := range out {
		out[i] = s.HeightMm * float64(i) / float64(steps)
	}
	last := 0
	for _, y := range s.Corners() {
		i := max(last+1, int(math.Round(y/s.HeightMm*float64(steps))))
		if i >= steps {
			break
		}
		out[i], last = y, i
	}
	return out
}

// box adds the ring of a rectangle hanging from top.
func (m *Mesh) box(x, top, height, thickness float64) {
	m.Vertices = append(m.Vertices, [3]float64{x, top - height, thickness / 2}, [3]float64{x, top, thickness / 2},
		[3]float64{x, top, -thickness / 2}, [3]float64{x, top - height, -thickness / 2})
}

// Loft joins the rings of n vertices from base on, and caps both ends. The halves of a face lie
// across it one way and the other in turn: where it is twisted one diagonal lies inside of the
// true surface and the other as far outside.
func (m *Mesh) Loft(base, n int) {
	last := (len(m.Vertices)-base)/n - 1
	at := func(ring, i int) int {
		if i == n {
			i = 0
		}
		return base + ring*n + i
	}
	for k := range last {
		for i := range n {
			if k%2 == 0 {
				m.Triangles = append(m.Triangles, [3]int{at(k, i), at(k+1, i), at(k+1, i+1)}, [3]int{at(k, i), at(k+1, i+1), at(k, i+1)})
			} else {
				m.Triangles = append(m.Triangles, [3]int{at(k, i), at(k+1, i), at(k, i+1)}, [3]int{at(k+1, i), at(k+1, i+1), at(k, i+1)})
			}
		}
	}
	// caps: strips between the two faces, which run against each other
	for i := range n/2 - 1 {
		a, b, c, d := i, i+1, n-2-i, n-1-i
		m.Triangles = append(m.Triangles, [3]int{at(0, a), at(0, b), at(0, c)}, [3]int{at(0, a), at(0, c), at(0, d)},
			[3]int{at(last, a), at(last, c), at(last, b)}, [3]int{at(last, a), at(last, d), at(last, c)})
	}
}

// VolumeMm3 is the volume enclosed, by the sum of signed tetrahedra.
func (m Mesh) VolumeMm3() float64 {
	v := 0.0
	for _, t := range m.Triangles {
		a, b, c := m.Vertices[t[0]], m.Vertices[t[1]], m.Vertices[t[2]]
		v += (a[0]*(b[1]*c[2]-b[2]*c[1]) - a[1]*(b[0]*c[2]-b[2]*c[0]) + a[2]*(b[0]*c[1]-b[1]*c[0])) / 6
	}
	return v
}
