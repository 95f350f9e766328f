package finish

import (
	"math"
	"sort"

	"coldember/core/blade"
	"coldember/core/section"
	"coldember/core/steel"
)

// Face is a side of the blade: the one that carries the bevel of a blade ground on one side, or
// the mark, is the front.
type Face string

// The faces.
const (
	Front Face = "front"
	Back  Face = "back"
)

// Reading is a thickness that calipers say of the cold blade, YMm above the edge at XMm from the
// finished point. OffMm is by how much the middle of that thickness lies off the centre line,
// toward the front.
type Reading struct {
	XMm         float64 `json:"xMm"`
	YMm         float64 `json:"yMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	OffMm       float64 `json:"offMm,omitempty"`
}

// Pit is a spot that lies deeper than the face around it.
type Pit struct {
	XMm     float64 `json:"xMm"`
	YMm     float64 `json:"yMm" doc:"above the edge"`
	Face    Face    `json:"face" enum:"front,back"`
	DepthMm float64 `json:"depthMm" doc:"below the face around it"`
}

// Region is what is ground off a part of the knife.
type Region struct {
	What      string  `json:"what" enum:"profile,faces"`
	Zone      string  `json:"zone" enum:"blade,ricasso,tang"`
	VolumeMm3 float64 `json:"volumeMm3"`
	MassG     float64 `json:"massG"`
}

// PitAnswer is whether a pit comes out.
type PitAnswer struct {
	Pit
	AllowanceMm float64 `json:"allowanceMm" doc:"that is ground off there, on that face"`
	LeftMm      float64 `json:"leftMm" doc:"of the allowance under the pit; negative: so much too deep"`
	Outside     bool    `json:"outside,omitempty" doc:"it lies where the finished blade is not"`
}

// Map is the steel to be ground off the two faces of the blade proper: at stations along it, and
// in each at even steps from edge to spine.
type Map struct {
	XMm      []float64   `json:"x"`
	HeightMm []float64   `json:"heightMm"`
	EdgeY    []float64   `json:"edgeY" doc:"of the finished edge, over the spine of the heel"`
	Front    [][]float64 `json:"frontMm"`
	Back     [][]float64 `json:"backMm"`
	LeastMm  float64     `json:"leastMm"`
	MostMm   float64     `json:"mostMm"`
	// Short is where the finished thickness does not hold; its figure is how much is missing.
	Short *Spot `json:"short,omitempty"`
	// OffMm is the most by which the steel lies off the centre line.
	OffMm   float64     `json:"offMm"`
	Regions []Region    `json:"regions"`
	TotalG  float64     `json:"totalG"`
	Pits    []PitAnswer `json:"pits"`
}

// Spot is a place of the blade with a figure.
type Spot struct {
	XMm float64 `json:"xMm"`
	YMm float64 `json:"yMm"`
	Mm  float64 `json:"mm"`
}

// Steel is the blade as it is: the forged shape, or what calipers say of it.
type Steel struct {
	Forged   *blade.Body
	Finished *blade.Body
	Readings []Reading
	// The finished blade lies in the steel with its heel at the forged one's, and its spine there
	// as far in as was planned, but for how far it is moved toward the point, and up.
	MovedMm, UpMm float64
}

// shift is how far the forged point lies ahead of the finished one.
func (s *Steel) shift() float64 {
	return s.Forged.LengthMm() - s.Finished.LengthMm() - s.MovedMm
}

// edgeY is the finished edge in the steel, at a place of the finished blade.
func (s *Steel) edgeY(x float64) float64 {
	return s.UpMm + s.Finished.EdgeY(math.Max(0, math.Min(s.Finished.LengthMm(), x)))
}

// forgedAt is the thickness of the forged shape at a place of the finished blade; ok is false
// where it has none.
func (s *Steel) forgedAt(x, y float64) (mm float64, ok bool) {
	xf := x + s.shift()
	if xf < 0 || xf > s.Forged.LengthMm() {
		return 0, false
	}
	at := s.edgeY(x) + y - s.Forged.EdgeY(xf)
	sec := s.Forged.SectionAt(xf)
	if at < 0 || at > sec.HeightMm {
		return 0, false
	}
	return sec.ThicknessAt(at), true
}

// AsIs is the thickness and the offset of the steel there is: as forged, times what the calipers
// found it to be at the readings on either side, evenly between them.
func (s *Steel) AsIs(x, y float64) (mm, offMm float64, ok bool) {
	mm, ok = s.forgedAt(x, y)
	if !ok || len(s.Readings) == 0 {
		return mm, 0, ok
	}
	share, off := s.found(x, y)
	return mm * share, off, true
}

// found is by how much the steel differs from what was forged as planned, by the readings: along
// the blade between those on either side of a place, each station by the reading nearest in height.
func (s *Steel) found(x, y float64) (share, off float64) {
	type station struct{ x, share, off, away float64 }
	var at []station
	for _, r := range s.Readings {
		planned, ok := s.forgedAt(r.XMm, r.YMm)
		if !ok || planned <= 0 {
			continue
		}
		here := station{r.XMm, r.ThicknessMm / planned, r.OffMm, math.Abs(r.YMm - y)}
		joined := false
		for i := range at {
			if math.Abs(at[i].x-here.x) < sameStationMm {
				if joined = true; here.away < at[i].away {
					at[i] = here
				}
			}
		}
		if !joined {
			at = append(at, here)
		}
	}
	if len(at) == 0 {
		return 1, 0
	}
	sort.Slice(at, func(i, j int) bool { return at[i].x < at[j].x })
	i := sort.Search(len(at), func(i int) bool { return at[i].x >= x })
	switch {
	case i == 0:
		return at[0].share, at[0].off
	case i == len(at):
		return at[i-1].share, at[i-1].off
	}
	a, b := at[i-1], at[i]
	f := (x - a.x) / (b.x - a.x)
	return a.share + (b.share-a.share)*f, a.off + (b.off-a.off)*f
}

// sameStationMm is within which readings are of one station.
const sameStationMm = .5

// Size of a map that a page draws.
const (
	MapStations = 72
	MapHeights  = 16
)

// Off maps what is to be ground off: nx stations, ny heights in each.
func (s *Steel) Off(nx, ny int, pits []Pit) Map {
	m := Map{LeastMm: math.Inf(1), Regions: []Region{}, Pits: []PitAnswer{}}
	length := s.Finished.LengthMm()
	for i := range nx {
		x := length * (float64(i) + .5) / float64(nx)
		sec := s.Finished.SectionAt(x)
		m.XMm = append(m.XMm, x)
		m.HeightMm = append(m.HeightMm, sec.HeightMm)
		m.EdgeY = append(m.EdgeY, s.Finished.EdgeY(x))
		front, back := make([]float64, ny), make([]float64, ny)
		for k := range ny {
			y := sec.HeightMm * float64(k) / float64(ny-1)
			f, b, ok := s.faces(x, y, &sec)
			if !ok {
				f, b = -sec.ThicknessAt(y)/2, -sec.ThicknessAt(y)/2
			}
			front[k], back[k] = f, b
			m.least(x, y, math.Min(f, b))
			m.MostMm = math.Max(m.MostMm, math.Max(f, b))
		}
		m.Front, m.Back = append(m.Front, front), append(m.Back, back)
	}
	for _, r := range s.Readings {
		m.OffMm = math.Max(m.OffMm, math.Abs(r.OffMm))
	}
	s.regions(&m)
	for _, p := range pits {
		m.Pits = append(m.Pits, s.pit(p))
	}
	return m
}

// shortMm is by how much steel may be short without anybody seeing it.
const shortMm = .02

func (m *Map) least(x, y, mm float64) {
	if mm >= m.LeastMm {
		return
	}
	m.LeastMm = mm
	if mm < -shortMm {
		m.Short = &Spot{x, y, -mm}
	}
}

// faces is what is ground off either face at a place.
func (s *Steel) faces(x, y float64, sec *section.Section) (front, back float64, ok bool) {
	is, off, ok := s.AsIs(x, y)
	if !ok {
		return 0, 0, false
	}
	f, b := sec.FacesAt(y)
	// a blade ground on one side keeps its back where the spine's back is
	mid := 0.0
	if sec.Kind.OneSided() {
		if xf := x + s.shift(); xf >= 0 && xf <= s.Forged.LengthMm() {
			forged := s.Forged.SectionAt(xf)
			at := s.edgeY(x) + y - s.Forged.EdgeY(xf)
			ff, fb := forged.FacesAt(math.Max(0, math.Min(forged.HeightMm, at)))
			mid = (ff + fb) / 2
		}
	}
	mid += off
	return mid + is/2 - f, b - (mid - is/2), true
}

// pit tells whether a pit comes out with what is ground off its face.
func (s *Steel) pit(p Pit) PitAnswer {
	a := PitAnswer{Pit: p}
	length := s.Finished.LengthMm()
	if p.XMm < 0 || p.XMm > length {
		a.Outside = true
		return a
	}
	sec := s.Finished.SectionAt(p.XMm)
	if p.YMm < 0 || p.YMm > sec.HeightMm {
		a.Outside = true
		return a
	}
	f, b, ok := s.faces(p.XMm, p.YMm, &sec)
	if !ok {
		a.Outside = true
		return a
	}
	if a.AllowanceMm = f; p.Face == Back {
		a.AllowanceMm = b
	}
	a.LeftMm = a.AllowanceMm - p.DepthMm
	return a
}

// regions sums what is ground off: outside of the finished outline, and off the faces within it,
// part by part.
func (s *Steel) regions(m *Map) {
	add := func(what, zone string, v float64) {
		m.Regions = append(m.Regions, Region{what, zone, v, v * steel.DensityGPerCm3 / 1000})
		m.TotalG += v * steel.DensityGPerCm3 / 1000
	}
	was, is := s.Forged.Measure().Zones, s.Finished.Measure().Zones
	faces := s.bladeFaces()
	add("profile", "blade", was["blade"]-is["blade"]-faces)
	add("faces", "blade", faces)
	if f, r := s.Forged.Blade.Ricasso, s.Finished.Blade.Ricasso; f != nil && r != nil {
		side := r.LengthMm * r.HeightMm
		faces := side * (f.ThicknessMm - r.ThicknessMm)
		add("faces", "ricasso", faces)
		add("profile", "ricasso", was["ricasso"]-is["ricasso"]-faces)
	}
	if f, t := s.Forged.Blade.Tang, s.Finished.Blade.Tang; f != nil && t != nil {
		faces := 0.0
		const n = 64
		for i := range n {
			at := t.LengthMm * (float64(i) + .5) / n
			h, k := t.At(at)
			_, kf := f.At(at * f.LengthMm / t.LengthMm)
			faces += h * (kf - k) * t.LengthMm / n
		}
		add("faces", "tang", faces)
		add("profile", "tang", was["tang"]-is["tang"]-faces)
	}
}

// bladeFaces is what of the blade proper lies within the finished outline and off its faces, mm³: by quadrature over the stretches
// on which both shapes run without a corner.
func (s *Steel) bladeFaces() (mm3 float64) {
	d := s.shift()
	cuts := []float64{0, s.Finished.LengthMm()}
	for _, b := range s.Forged.Breaks() {
		cuts = append(cuts, b-d)
	}
	cuts = append(cuts, s.Finished.Breaks()...)
	sort.Float64s(cuts)
	for i := 1; i < len(cuts); i++ {
		a, b := cuts[i-1], cuts[i]
		if b-a < 1e-9 || a < 0 {
			continue
		}
		for k, g := range gaussX {
			mm3 += s.facesMm2(a+g*(b-a)) * gaussW[k] * (b - a)
		}
	}
	return mm3
}

// facesMm2 is the same of one station.
func (s *Steel) facesMm2(x float64) float64 {
	forged := s.Forged.SectionAt(x + s.shift())
	fin := s.Finished.SectionAt(x)
	up := s.edgeY(x) - s.Forged.EdgeY(x+s.shift()) // the finished edge over the forged one
	cuts := append([]float64{0, fin.HeightMm}, fin.Corners()...)
	for _, y := range forged.Corners() {
		if y -= up; y > 0 && y < fin.HeightMm {
			cuts = append(cuts, y)
		}
	}
	sort.Float64s(cuts)
	inside := 0.0
	for i := 1; i < len(cuts); i++ {
		a, b := cuts[i-1], cuts[i]
		for k, g := range gaussX {
			y := a + g*(b-a)
			if at := y + up; at >= 0 && at <= forged.HeightMm {
				inside += gaussW[k] * (b - a) * forged.ThicknessAt(at)
			}
		}
	}
	return inside - fin.AreaMm2()
}

// Six-point Gauss–Legendre on [0, 1].
var (
	gaussX = []float64{0.033765242898424, 0.169395306766868, 0.380690406958402, 0.619309593041598, 0.830604693233132, 0.966234757101576}
	gaussW = []float64{0.085662246189585, 0.180380786524069, 0.233956967286346, 0.233956967286346, 0.180380786524069, 0.085662246189585}
)
