package blade

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"sort"

	"coldember/core/section"
	"coldember/core/steel"

	"gonum.org/v1/gonum/interp"
)

// Node is a point (x, y) of a curve.
type Node [2]float64

// Join tells how nodes are connected.
type Join string

// The joins: Smooth is monotone (Fritsch–Butland), so a curve never swings
// past its nodes.
const (
	Straight Join = "straight"
	Smooth   Join = "smooth"
)

// Outline is the blade seen from the side. Both curves start at x = 0 and end
// at the heel.
type Outline struct {
	Spine []Node `json:"spine"`
	Edge  []Node `json:"edge"`
	Join  Join   `json:"join,omitempty" enum:"straight,smooth"`
	// Corners are the nodes (by place, first 0) where a smooth curve turns
	// sharply; elsewhere it runs through its nodes without a kink.
	SpineCorners []int `json:"spineCorners,omitempty"`
	EdgeCorners  []int `json:"edgeCorners,omitempty"`
}

// Blade is a whole blade. Thickness is (x, full thickness at the spine or
// centre line).
type Blade struct {
	Outline   Outline  `json:"outline"`
	Thickness []Node   `json:"thickness"`
	Grind     Grind    `json:"grind"`
	Ricasso   *Ricasso `json:"ricasso,omitempty"`
	Tang      *Tang    `json:"tang,omitempty"`
	ChoilMm   float64  `json:"choilMm,omitempty" doc:"radius of a half-round stop cut into the edge just ahead of the heel"`

	FlatBend *FlatBend `json:"flatBend,omitempty"`
}

// Error says what is wrong with a blade, where along it, and the figure that
// would do.
type Error struct {
	Code  string
	Field string
	AtMm  float64
}

func (e *Error) Error() string {
	return fmt.Sprintf("blade: %s at %.1f mm (%s)", e.Code, e.AtMm, e.Field)
}

// Body is a blade ready to be measured.
type Body struct {
	Blade  Blade
	spine  interp.Predictor
	edge   interp.Predictor
	thick  interp.Predictor
	breaks []float64 // where a curve may have a corner
	length float64
}

// New checks the blade and prepares it. Errors are *Error or a section's.
func New(b Blade) (*Body, error) {
	body := &Body{Blade: b}
	curves := []struct {
		name    string
		nodes   []Node
		join    Join
		corners []int
		dst     *interp.Predictor
	}{
		{"outline.spine", b.Outline.Spine, b.Outline.Join, b.Outline.SpineCorners, &body.spine},
		{"outline.edge", b.Outline.Edge, b.Outline.Join, b.Outline.EdgeCorners, &body.edge},
		{"thickness", b.Thickness, Straight, nil, &body.thick},
	}
	xs := map[float64]bool{}
	for _, c := range curves {
		p, err := fit(c.nodes, c.join, c.corners, c.name)
		if err != nil {
			return nil, err
		}
		*c.dst = p
		for _, n := range c.nodes {
			xs[n[0]] = true
		}
	}
	body.length = b.Outline.Spine[len(b.Outline.Spine)-1][0]
	if other := b.Outline.Edge[len(b.Outline.Edge)-1][0]; math.Abs(other-body.length) > 1e-9 {
		return nil, &Error{Code: "blade.heelsDiffer", Field: "outline.edge", AtMm: other}
	}
	for x := range xs {
		if x >= 0 && x <= body.length {
			body.breaks = append(body.breaks, x)
		}
	}
	if g := b.Grind.Groove; g != nil {
		for _, x := range []float64{g.FromMm, g.ToMm} {
			if x > 0 && x < body.length {
				body.breaks = append(body.breaks, x)
			}
		}
	}
	if p := b.Grind.PlungeMm; p > 0 && p < body.length {
		body.breaks = append(body.breaks, body.length-p)
	}
	if l := b.Grind.SwedgeLongMm; b.Grind.SwedgeFraction > 0 && l > 0 && l < body.length {
		body.breaks = append(body.breaks, l*(1-swedgeFade), l)
	}
	if b.ChoilMm > 0 {
		c := choil{body.edge, body.length - b.ChoilMm, b.ChoilMm}
		body.edge = c
		body.breaks = append(body.breaks, c.breaks()...)
	}
	sort.Float64s(body.breaks)
	if b.Tang != nil && b.Tang.Outline != nil {
		t := *b.Tang
		if err := t.profile(); err != nil {
			return nil, err
		}
		body.Blade.Tang = &t
	}
	return body, body.check()
}

// check finds where the outline crosses itself or a section is impossible.
func (b *Body) check() error {
	const n = 96
	for i := 1; i <= n; i++ {
		x := b.length * float64(i) / n
		if b.spine.Predict(x)-b.edge.Predict(x) <= 0 {
			return &Error{Code: "blade.outlinesCross", Field: "outline", AtMm: x}
		}
		if b.thick.Predict(x) <= 0 {
			return &Error{Code: "blade.thickness", Field: "thickness", AtMm: x}
		}
		if g := b.Blade.Grind; g.Kind == section.Hollow || g.Groove != nil {
			var bad *section.Error
			err := b.SectionAt(x).Validate()
			switch {
			case errors.As(err, &bad) && bad.Field == "grooves":
				return &Error{Code: "blade.grooveThrough", Field: "grind.groove.depthMm", AtMm: x}
			case err != nil:
				return &Error{Code: "blade.facesCross", Field: "grind.wheelRadiusMm", AtMm: x}
			}
		}
	}
	return nil
}

// Breaks are where a curve of the blade proper may have a corner, in order from the point.
func (b *Body) Breaks() []float64 { return slices.Clone(b.breaks) }

// LengthMm is the length of the blade proper, point to heel.
func (b *Body) LengthMm() float64 { return b.length }

// OverallMm is the length with ricasso and tang.
func (b *Body) OverallMm() float64 {
	l := b.length
	if r := b.Blade.Ricasso; r != nil {
		l += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		l += t.LengthMm
	}
	return l
}

// SpineY and EdgeY are the outline at x, 0 ≤ x ≤ LengthMm.
func (b *Body) SpineY(x float64) float64 { return b.spine.Predict(x) }

// EdgeY is the edge curve at x.
func (b *Body) EdgeY(x float64) float64 { return b.edge.Predict(x) }

// SectionAt is the section of the blade proper at x.
func (b *Body) SectionAt(x float64) section.Section {
	h, g := b.spine.Predict(x)-b.edge.Predict(x), b.Blade.Grind
	s := section.Section{
		Kind: g.Kind, HeightMm: h, SpineMm: b.thick.Predict(x),
		WheelRadiusMm: g.WheelRadiusMm, SwedgeHeightMm: g.swedge(x) * h, SwedgeEdgeMm: g.SwedgeEdgeMm,
	}
	var bevel float64
	if bevel, s.EdgeMm, s.RunOut = g.at(x, b.length); bevel < 1 {
		s.BevelHeightMm = bevel * h
	}
	if g.Groove != nil && h > 0 {
		g.Groove.at(x, b.length, &s)
	}
	return s
}

// Four-point Gauss–Legendre on [0, 1]: exact for the degree-7 polynomials that
// straight joins give; smooth joins and hollows are cut fine enough.
var (
	gaussX = [4]float64{0.069431844202973713, 0.33000947820757187, 0.66999052179242813, 0.93056815579702629}
	gaussW = [4]float64{0.17392742256872693, 0.32607257743127307, 0.32607257743127307, 0.17392742256872693}
)

// integrate runs f over [from, to] of the blade proper with weight dx, split at
// every node.
func (b *Body) integrate(from, to float64, f func(x, dx float64)) {
	a := from
	step := func(e float64) {
		if e <= a {
			return
		}
		for i, g := range gaussX {
			f(a+g*(e-a), gaussW[i]*(e-a))
		}
		a = e
	}
	for _, x := range b.breaks {
		if x > from && x < to {
			step(x)
		}
	}
	step(to)
}

// VolumeMm3 is the volume of the blade proper between two stations, and its
// first moment about x = 0.
func (b *Body) VolumeMm3(from, to float64) (v, moment float64) {
	b.integrate(from, to, func(x, dx float64) {
		if s := b.SectionAt(x); s.HeightMm > 0 {
			a := s.AreaMm2() * dx
			v += a
			moment += a * x
		}
	})
	return v, moment
}

// Measures is what a blade amounts to. Zones has blade, ricasso and tang in
// mm³.
type Measures struct {
	VolumeMm3          float64            `json:"volumeMm3"`
	MassG              float64            `json:"massG"`
	OverallLengthMm    float64            `json:"overallLengthMm"`
	BalanceFromPointMm float64            `json:"balanceFromPointMm"`
	Zones              map[string]float64 `json:"zones"`
}

// Measure integrates the blade: volume to 0.05 % of the exact solid, balance
// point of the bare steel.
func (b *Body) Measure() Measures {
	v, m := b.VolumeMm3(0, b.length)
	zones := map[string]float64{"blade": v}
	x := b.length
	if r := b.Blade.Ricasso; r != nil {
		rv := (r.LengthMm*r.HeightMm - math.Pi/2*r.NotchMm*r.NotchMm) * r.ThicknessMm
		zones["ricasso"] = rv
		v += rv
		m += rv * (x + r.LengthMm/2)
		x += r.LengthMm
	}
	if t := b.Blade.Tang; t != nil {
		tv, tm := t.volume()
		zones["tang"] = tv
		v += tv
		m += tm + tv*x
	}
	out := Measures{VolumeMm3: v, MassG: v * steel.DensityGPerCm3 / 1000, OverallLengthMm: b.OverallMm(), Zones: zones}
	if v > 0 {
		out.BalanceFromPointMm = m / v
	}
	return out
}

// ThickestMm is the thickness of blade, ricasso or tang, whichever is most.
func (b *Body) ThickestMm() (most float64) {
	for _, n := range b.Blade.Thickness {
		most = math.Max(most, n[1])
	}
	if r := b.Blade.Ricasso; r != nil {
		most = math.Max(most, r.ThicknessMm)
	}
	if t := b.Blade.Tang; t != nil {
		most = math.Max(most, math.Max(t.ThicknessAtShoulderMm, t.ThicknessAtEndMm))
	}
	return most
}
