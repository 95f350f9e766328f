package section

import (
	"fmt"
	"math"
	"sort"

	"gonum.org/v1/gonum/integrate/quad"
)

// Kind names the shape of a section.
type Kind string

// The kinds of section.
const (
	Rect    Kind = "rect"
	Flat    Kind = "flat"
	Chisel  Kind = "chisel"
	Convex  Kind = "convex"
	Hollow  Kind = "hollow"
	Diamond Kind = "diamond"
	Lens    Kind = "lens"
)

// Kinds lists them in the order they are offered.
func Kinds() []Kind { return []Kind{Flat, Convex, Chisel, Hollow, Diamond, Lens, Rect} }

// DoubleEdged tells whether the section has two edges.
func (k Kind) DoubleEdged() bool { return k == Diamond || k == Lens }

// OneSided tells whether one face is flat.
func (k Kind) OneSided() bool { return k == Chisel }

// Section is one cross-section. BevelHeightMm 0 means the whole height;
// SwedgeHeightMm 0 means no false edge.
type Section struct {
	Kind           Kind    `json:"kind"`
	HeightMm       float64 `json:"heightMm"`
	SpineMm        float64 `json:"spineMm"`
	EdgeMm         float64 `json:"edgeMm,omitempty"`
	BevelHeightMm  float64 `json:"bevelHeightMm,omitempty"`
	WheelRadiusMm  float64 `json:"wheelRadiusMm,omitempty"`
	SwedgeHeightMm float64 `json:"swedgeHeightMm,omitempty"`
	SwedgeEdgeMm   float64 `json:"swedgeEdgeMm,omitempty"`

	Grooves []Groove `json:"grooves,omitempty"`

	// RunOut is how much of the way the bevel has run out into the flat, 0–1: in
	// a plunge it goes to 1 and the section is as thick as its spine all over.
	RunOut float64 `json:"runOut,omitempty"`
}

// Groove is a circular hollow between two heights: a fuller, a hollow middle
// strip, or with OneFace the hollowed back of a blade ground on one side.
type Groove struct {
	LowMm   float64 `json:"lowMm"`
	HighMm  float64 `json:"highMm"`
	DepthMm float64 `json:"depthMm" doc:"in each face, at its middle"`
	OneFace bool    `json:"oneFace,omitempty"`
}

// at is the depth in one face at y mm above the edge.
func (g Groove) at(y float64) float64 {
	if y <= g.LowMm || y >= g.HighMm || g.DepthMm <= 0 {
		return 0
	}
	c, d := g.HighMm-g.LowMm, g.DepthMm
	r := (c*c/4 + d*d) / (2 * d)
	off := y - (g.LowMm+g.HighMm)/2
	return math.Sqrt(r*r-off*off) - (r - d)
}

// faces is how many faces the groove is in.
func (g Groove) faces() float64 {
	if g.OneFace {
		return 1
	}
	return 2
}

// Error says why a section is not possible: Code for the catalogue, the field
// and the figure that would be right.
type Error struct {
	Code    string
	Field   string
	LimitMm float64
}

func (e *Error) Error() string {
	return fmt.Sprintf("section: %s (%s, %.2f mm)", e.Code, e.Field, e.LimitMm)
}

// Validate returns an *Error where the section cannot be: no height or
// thickness, a wheel too small for its bevel, or a hollow that meets itself.
func (s Section) Validate() error {
	switch {
	case s.HeightMm <= 0:
		return &Error{Code: "section.height", Field: "heightMm"}
	case s.SpineMm <= 0:
		return &Error{Code: "section.spine", Field: "spineMm"}
	case s.EdgeMm < 0:
		return &Error{Code: "section.edge", Field: "edgeMm"}
	}
	if err := s.validateGrooves(); err != nil {
		return err
	}
	if s.Kind != Hollow {
		return nil
	}
	hb := s.bevel()
	if s.WheelRadiusMm < hb/2 {
		return &Error{Code: "section.wheelTooSmall", Field: "wheelRadiusMm", LimitMm: hb / 2}
	}
	for i := range 65 {
		if s.ThicknessAt(hb*float64(i)/64) < -1e-9 {
			return &Error{Code: "section.facesCross", Field: "wheelRadiusMm", LimitMm: hb * hb / (4 * (s.EdgeMm + s.SpineMm) / 2)}
		}
	}
	return nil
}

// validateGrooves refuses a groove outside the section, touching edge or
// spine, deeper than a half circle, or through the blade.
func (s Section) validateGrooves() error {
	for _, g := range s.Grooves {
		c := g.HighMm - g.LowMm
		switch {
		case g.LowMm <= 0 || g.HighMm >= s.HeightMm || c <= 0:
			return &Error{Code: "section.groovePlace", Field: "grooves", LimitMm: s.HeightMm}
		case g.DepthMm <= 0 || g.DepthMm > c/2:
			return &Error{Code: "section.grooveDepth", Field: "grooves", LimitMm: c / 2}
		}
		plain := s
		plain.Grooves = nil
		for i := range 33 {
			y := g.LowMm + c*float64(i)/32
			if t := plain.ThicknessAt(y); t-g.faces()*g.at(y) <= 0 {
				return &Error{Code: "section.grooveDepth", Field: "grooves", LimitMm: t / g.faces()}
			}
		}
	}
	return nil
}

func (s Section) bevel() float64 {
	if s.BevelHeightMm <= 0 || s.BevelHeightMm > s.HeightMm {
		return s.HeightMm
	}
	return s.BevelHeightMm
}

// ThicknessAt is the full thickness in mm at y mm above the edge, 0 ≤ y ≤
// HeightMm.
func (s Section) ThicknessAt(y float64) float64 {
	t := s.grind(y)
	if s.RunOut > 0 {
		t += (s.SpineMm - t) * s.RunOut
	}
	if s.SwedgeHeightMm > 0 && y > s.HeightMm-s.SwedgeHeightMm {
		f := (s.HeightMm - y) / s.SwedgeHeightMm
		t = math.Min(t, s.SwedgeEdgeMm+(s.SpineMm-s.SwedgeEdgeMm)*f)
	}
	for _, g := range s.Grooves {
		t -= g.faces() * g.at(y)
	}
	return t
}

// EdgeAngleDeg is the angle between the two faces at the edge, from the slope
// of the thickness over the lowest half millimetre; a sharpened bevel comes on
// top of it.
func (s Section) EdgeAngleDeg() float64 {
	const step = 0.5
	y := math.Min(step, s.HeightMm/4)
	return 2 * math.Atan((s.ThicknessAt(y)-s.ThicknessAt(0))/2/y) * 180 / math.Pi
}

func (s Section) grind(y float64) float64 {
	te, ts, h := s.EdgeMm, s.SpineMm, s.HeightMm
	hb := s.bevel()
	switch s.Kind {
	case Diamond:
		return te + (ts-te)*(1-math.Abs(2*y/h-1))
	case Lens:
		u := 2*y/h - 1
		return te + (ts-te)*(1-u*u)
	case Rect:
		return ts
	}
	if y >= hb {
		return ts
	}
	u := y / hb
	switch s.Kind {
	case Convex:
		return te + (ts-te)*(1-(1-u)*(1-u))
	case Hollow:
		r, d := s.WheelRadiusMm, hb/2-y
		return te + (ts-te)*u - 2*(math.Sqrt(r*r-d*d)-math.Sqrt(r*r-hb*hb/4))
	default: // flat and chisel have the same thickness, differently sided
		return te + (ts-te)*u
	}
}

// Corners are the heights, between edge and spine, at which the section has a corner.
func (s Section) Corners() (out []float64) {
	for _, y := range s.breaks() {
		if y > 0 && y < s.HeightMm && (len(out) == 0 || y > out[len(out)-1]) {
			out = append(out, y)
		}
	}
	return out
}

// breaks are the heights at which t(y) has a corner.
func (s Section) breaks() []float64 {
	b := []float64{0, s.HeightMm}
	if s.Kind == Diamond {
		b = append(b, s.HeightMm/2)
	}
	if hb := s.bevel(); hb < s.HeightMm && !s.Kind.DoubleEdged() {
		b = append(b, hb)
	}
	if sw := s.SwedgeHeightMm; sw > 0 && sw < s.HeightMm {
		b = append(b, s.HeightMm-sw)
		// where the false edge meets the grind, if inside the swedge
		lo, hi := s.HeightMm-sw, s.HeightMm
		f := func(y float64) float64 {
			return s.SwedgeEdgeMm + (s.SpineMm-s.SwedgeEdgeMm)*(s.HeightMm-y)/sw - s.grind(y)
		}
		if f(lo) > 1e-12 && f(hi) < 0 {
			for range 60 {
				if mid := (lo + hi) / 2; f(mid) > 0 {
					lo = mid
				} else {
					hi = mid
				}
			}
			b = append(b, lo)
		}
	}
	for _, g := range s.Grooves {
		b = append(b, g.LowMm, g.HighMm)
	}
	sort.Float64s(b)
	return b
}

// gauss holds the nodes and weights of 6-point Gauss–Legendre on [0, 1]:
// exact for the polynomials here, 1e-9 for the hollow's circle.
var gaussX, gaussW = func() ([]float64, []float64) {
	x, w := make([]float64, 6), make([]float64, 6)
	quad.Legendre{}.FixedLocations(x, w, 0, 1)
	return x, w
}()

// Properties are the integrals of a section.
type Properties struct {
	AreaMm2        float64 `json:"areaMm2"`
	CentroidMm     float64 `json:"centroidMm"`      // from the edge
	EdgewiseMm4    float64 `json:"edgewiseMm4"`     // second moment about the centroid, bending edge to spine
	FlatwiseMm4    float64 `json:"flatwiseMm4"`     // second moment about the mid-plane, ∫t³/12 dy
	MeanThickness  float64 `json:"meanThicknessMm"` // area over height
	LargestThickMm float64 `json:"largestThicknessMm"`
}

// Properties integrates the section.
func (s Section) Properties() Properties {
	var a, m1, m2, i float64
	b := s.breaks()
	largest := 0.0
	for k := 1; k < len(b); k++ {
		w := b[k] - b[k-1]
		for j, x := range gaussX {
			y := b[k-1] + x*w
			t, g := s.ThicknessAt(y), gaussW[j]*w
			a += g * t
			m1 += g * t * y
			m2 += g * t * y * y
			i += g * t * t * t / 12
			largest = math.Max(largest, t)
		}
	}
	p := Properties{AreaMm2: a, FlatwiseMm4: i, LargestThickMm: largest}
	if a > 0 {
		p.CentroidMm = m1 / a
		p.EdgewiseMm4 = m2 - m1*m1/a
		p.MeanThickness = a / s.HeightMm
	}
	return p
}

// AreaMm2 is the area alone.
func (s Section) AreaMm2() float64 { return s.Properties().AreaMm2 }
