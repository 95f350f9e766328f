package finish

import (
	"math"

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
	OffMm   float64  `json:"offMm"`
	Regions []Region `json:"regions"`
	TotalG  float64  `json:"totalG"`
	// MissingG is what the finished blade has where there is no steel: it is in no region.
	MissingG float64     `json:"missingG,omitempty"`
	Pits     []PitAnswer `json:"pits"`
}

// Spot is a place of the blade with a figure.
type Spot struct {
	XMm float64 `json:"xMm"`
	YMm float64 `json:"yMm"`
	Mm  float64 `json:"mm"`
}

// Size of a map that a page draws.
const (
	MapStations = 72
	MapHeights  = 16
)

// Off maps what is to be ground off: nx stations, ny heights in each.
func (s *Steel) Off(nx, ny int, pits []Pit) Map {
	m := Map{LeastMm: math.Inf(1), Regions: []Region{}, Pits: []PitAnswer{}}
	length, found := s.Finished.LengthMm(), s.measured()
	for i := range nx {
		x := length * (float64(i) + .5) / float64(nx)
		c := s.cutAt(x)
		m.XMm = append(m.XMm, x)
		m.HeightMm = append(m.HeightMm, c.fin.HeightMm)
		m.EdgeY = append(m.EdgeY, s.Finished.EdgeY(x))
		front, back := make([]float64, ny), make([]float64, ny)
		for k := range ny {
			y := c.fin.HeightMm * float64(k) / float64(ny-1)
			f, b, ok := c.faces(found, x, y)
			if !ok {
				f, b = -c.fin.ThicknessAt(y)/2, -c.fin.ThicknessAt(y)/2
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
	regions, missing := s.Regions()
	m.MissingG = grams(missing)
	for _, r := range regions {
		m.Regions = append(m.Regions, r)
		m.TotalG += r.MassG
	}
	for _, p := range pits {
		m.Pits = append(m.Pits, s.pit(found, p))
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

// pit tells whether a pit comes out with what is ground off its face.
func (s *Steel) pit(m measured, p Pit) PitAnswer {
	a := PitAnswer{Pit: p}
	if p.XMm < 0 || p.XMm > s.Finished.LengthMm() {
		a.Outside = true
		return a
	}
	c := s.cutAt(p.XMm)
	f, b, ok := c.faces(m, p.XMm, p.YMm)
	if !ok || p.YMm < 0 || p.YMm > c.fin.HeightMm {
		a.Outside = true
		return a
	}
	if a.AllowanceMm = f; p.Face == Back {
		a.AllowanceMm = b
	}
	a.LeftMm = a.AllowanceMm - p.DepthMm
	return a
}

// Regions are what is ground off, part by part: outside of the finished outline, and off the faces
// within it. What is missing of the finished blade is counted apart, mm³.
func (s *Steel) Regions() (out []Region, missingMm3 float64) {
	add := func(what, zone string, v float64) { out = append(out, Region{what, zone, v, grams(v)}) }
	off, planned := 0.0, 0.0
	plain := *s
	plain.Readings, plain.KeepsFlats = nil, false
	plain.overFaces(func(n node) { planned += (n.isMm - n.finMm) * n.areaMm2 })
	s.overFaces(func(n node) {
		off += math.Max(0, n.isMm-n.finMm) * n.areaMm2
		missingMm3 += math.Max(0, n.finMm-n.isMm) * n.areaMm2
	})
	add("profile", "blade", s.bladeMm3()-s.Finished.Measure().Zones["blade"]-planned)
	add("faces", "blade", off)
	if faces, profile, ok := s.ricasso(); ok {
		add("faces", "ricasso", math.Max(0, faces))
		missingMm3 += math.Max(0, -faces)
		add("profile", "ricasso", profile)
	}
	if faces, profile, ok := s.tang(); ok {
		add("faces", "tang", math.Max(0, faces))
		missingMm3 += math.Max(0, -faces)
		add("profile", "tang", profile)
	}
	return out, missingMm3
}

// bladeMm3 is what there is of the blade proper, as planned.
func (s *Steel) bladeMm3() (v float64) {
	if s.Ground == nil {
		return s.Forged.Measure().Zones["blade"]
	}
	was := Steel{Forged: s.Forged, Finished: s.Ground.Body, Ground: s.Ground}
	was.overFaces(func(n node) { v += n.isMm * n.areaMm2 })
	return v
}

// ricasso is what comes off it, mm³. One whose flats stay keeps its faces; one that was ground for
// the quench keeps what was left on it.
func (s *Steel) ricasso() (faces, profile float64, ok bool) {
	f, r := s.Forged.Blade.Ricasso, s.Finished.Blade.Ricasso
	if f == nil || r == nil {
		return 0, 0, false
	}
	side := r.LengthMm * r.HeightMm
	was, is := s.Forged.Measure().Zones["ricasso"], s.Finished.Measure().Zones["ricasso"]
	thick := f.ThicknessMm
	if g := s.Ground; g != nil && !s.KeepsFlats && g.Body.Blade.Ricasso != nil {
		o := g.Body.Blade.Ricasso
		thick = math.Min(thick, o.ThicknessMm+2*g.Left.FaceMm)
		was = g.Body.Measure().Zones["ricasso"] + o.LengthMm*o.HeightMm*(thick-o.ThicknessMm)
	}
	faces = side * (thick - r.ThicknessMm)
	profile = was - is - faces
	if s.KeepsFlats {
		faces = 0
	}
	return faces, profile, true
}

// tang is what comes off it, mm³; once the blade was ground for the quench it is done.
func (s *Steel) tang() (faces, profile float64, ok bool) {
	f, t := s.Forged.Blade.Tang, s.Finished.Blade.Tang
	if f == nil || t == nil {
		return 0, 0, false
	}
	if s.Ground != nil {
		return 0, 0, true
	}
	const n = 64
	for i := range n {
		at := t.LengthMm * (float64(i) + .5) / n
		h, k := t.At(at)
		_, kf := f.At(at * f.LengthMm / t.LengthMm)
		faces += h * (kf - k) * t.LengthMm / n
	}
	return faces, s.Forged.Measure().Zones["tang"] - s.Finished.Measure().Zones["tang"] - faces, true
}

func grams(mm3 float64) float64 { return mm3 * steel.DensityGPerCm3 / 1000 }
