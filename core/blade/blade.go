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

// Grind is the section along the blade, scaled to the local height.
type Grind struct {
	Kind           section.Kind `json:"kind" enum:"flat,convex,chisel,hollow,diamond,lens,rect"`
	BevelFraction  float64      `json:"bevelFraction,omitempty" doc:"bevel height as a fraction of the local height; 0 or 1 is full"`
	EdgeMm         float64      `json:"edgeMm,omitempty"`
	WheelRadiusMm  float64      `json:"wheelRadiusMm,omitempty"`
	SwedgeFraction float64      `json:"swedgeFraction,omitempty" doc:"height of a false edge as a fraction of the local height"`
	SwedgeEdgeMm   float64      `json:"swedgeEdgeMm,omitempty"`
	SwedgeLongMm   float64      `json:"swedgeLongMm,omitempty" doc:"how far a false edge, or the sharpened back of a clip, runs from the point; 0: to the heel"`
	Groove         *Groove      `json:"groove,omitempty"`

	// The grind may change along the blade.
	PlungeMm           float64 `json:"plungeMm,omitempty" doc:"over this length before the heel the bevel runs out into the full thickness"`
	PointBevelFraction float64 `json:"pointBevelFraction,omitempty" doc:"bevel height at the point, running straight to that at the heel; 0: the same"`
	PointEdgeMm        float64 `json:"pointEdgeMm,omitempty" doc:"edge thickness at the point, likewise; 0: the same"`
}

// at is bevel height (fraction), edge thickness and how far the bevel has run
// out, x mm from the point of a blade of this length. The plunge is a smooth
// step, level at both ends.
func (g *Grind) at(x, lengthMm float64) (bevel, edgeMm, runOut float64) {
	bevel, edgeMm = g.BevelFraction, g.EdgeMm
	if bevel <= 0 {
		bevel = 1
	}
	u := x / lengthMm
	if p := g.PointBevelFraction; p > 0 {
		bevel = p + (bevel-p)*u
	}
	if p := g.PointEdgeMm; p > 0 {
		edgeMm = p + (edgeMm-p)*u
	}
	if v := (x - lengthMm + g.PlungeMm) / g.PlungeMm; g.PlungeMm > 0 && v > 0 {
		runOut = v * v * (3 - 2*v)
	}
	return bevel, edgeMm, runOut
}

// swedgeFade is the share of a false edge over which it runs out.
const swedgeFade = 0.15

// swedge is the height of the false edge as a share of the local height, x mm from the point.
func (g *Grind) swedge(x float64) float64 {
	if g.SwedgeLongMm <= 0 {
		return g.SwedgeFraction
	}
	left := (g.SwedgeLongMm - x) / (swedgeFade * g.SwedgeLongMm)
	return g.SwedgeFraction * math.Max(0, math.Min(1, left))
}

// Groove runs along the blade between two shares of the local height: a fuller,
// a hollow middle strip or a hollowed back.
type Groove struct {
	LowFraction  float64 `json:"lowFraction"`
	HighFraction float64 `json:"highFraction"`
	DepthMm      float64 `json:"depthMm" doc:"in each face"`
	Faces        float64 `json:"faces" doc:"1 for the back alone, 2 for both"`
	FromMm       float64 `json:"fromMm" doc:"from the point"`
	ToMm         float64 `json:"toMm" doc:"from the point; 0 is to the heel"`
}

// at puts the groove into the section at x of a blade of this length.
func (g *Groove) at(x, lengthMm float64, s *section.Section) {
	to := g.ToMm
	if to <= 0 {
		to = lengthMm
	}
	if x < g.FromMm || x > to || g.DepthMm <= 0 {
		return
	}
	s.Grooves = []section.Groove{{LowMm: g.LowFraction * s.HeightMm, HighMm: g.HighFraction * s.HeightMm, DepthMm: g.DepthMm, OneFace: g.Faces == 1}}
}

// Ricasso is the full-thickness piece between blade and tang.
type Ricasso struct {
	LengthMm    float64 `json:"lengthMm"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	NotchMm     float64 `json:"notchMm,omitempty" doc:"radius of a half-round finger notch in the middle of its edge side"`
	RiseMm      float64 `json:"riseMm,omitempty" doc:"how far its top stands over the spine: an integral bolster or guard that is drawn out of the bar"`
}

// HeightAt is the ricasso's height s mm behind the heel, the notch taken out.
func (r *Ricasso) HeightAt(s float64) float64 {
	if off := s - r.LengthMm/2; math.Abs(off) < r.NotchMm {
		return r.HeightMm - math.Sqrt(r.NotchMm*r.NotchMm-off*off)
	}
	return r.HeightMm
}

// SideMm2 is the area of its side from one distance behind the heel to another, the
// notch taken out.
func (r *Ricasso) SideMm2(from, to float64) float64 {
	cut := func(s float64) float64 { // of the notch, ahead of s
		n := r.NotchMm
		u := math.Max(-n, math.Min(n, s-r.LengthMm/2))
		if n <= 0 {
			return 0
		}
		return (u*math.Sqrt(math.Max(0, n*n-u*u)) + n*n*(math.Asin(u/n)+math.Pi/2)) / 2
	}
	return r.HeightMm*(to-from) - cut(to) + cut(from)
}

// Stations are where the ricasso is drawn: its ends, and closely round a notch.
func (r *Ricasso) Stations() []float64 {
	if r.NotchMm <= 0 {
		return []float64{0, r.LengthMm}
	}
	const n = 48
	out := []float64{0}
	for i := range n + 1 {
		out = append(out, r.LengthMm/2-r.NotchMm*math.Cos(math.Pi*float64(i)/n))
	}
	return append(out, r.LengthMm)
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
