package blade

import (
	"math"

	"coldember/core/fact"
)

// FlatBend bends the end of a blade flatwise over a form: spoon, bowl and hollowing knives.
// The blade is designed, forged and ground flat; its mid-plane keeps its length, so that the
// outline is that of the blade laid flat, and its volume stays.
type FlatBend struct {
	RadiusMm float64    `json:"radiusMm" doc:"of the form it is bent over: of its hollow face"`
	LongMm   float64    `json:"longMm" doc:"how much of the blade is bent, from the point"`
	AxisDeg  float64    `json:"axisDeg" doc:"of the form to the length of the blade: 90 lies across it, less turns its upper end to the point"`
	Hollow   HollowFace `json:"hollow" enum:"bevel,flat" doc:"the face that becomes the hollow one, of a blade that is bevelled on one side"`
}

// HollowFace is which face of a bent blade is the hollow one.
type HollowFace string

// With the bevel inside the edge cuts on the outside of the bend, and the other way round.
const (
	BevelInside HollowFace = "bevel"
	FlatInside  HollowFace = "flat"
)

// HollowFaces lists them.
func HollowFaces() []HollowFace { return []HollowFace{FlatInside, BevelInside} }

// Limits of a blade bent flatwise.
const (
	minFormMm, maxFormMm = 5, 600
	minAxisDeg           = 45
	maxTurnRad           = 3.6 // a little more than half a turn
)

// NewFlatBend is a spoon knife's usual bend for a design: its front half over a form that it
// goes half round.
func NewFlatBend(d Design) *FlatBend {
	long := math.Round(d.LengthMm * .6)
	return &FlatBend{RadiusMm: math.Max(minFormMm, math.Round(long/math.Pi*1.1)), LongMm: long, AxisDeg: 90, Hollow: FlatInside}
}

// MidRadiusMm is the radius of the mid-plane of a blade so thick.
func (f *FlatBend) MidRadiusMm(thickMm float64) float64 { return f.RadiusMm + thickMm/2 }

// Strain is how much the outer face is stretched (and the inner pressed): half the thickness
// over the radius of the mid-plane.
func (f *FlatBend) Strain(thickMm float64) float64 { return thickMm / 2 / f.MidRadiusMm(thickMm) }

func (d Design) validateFlatBend(c fact.Check) {
	f := d.FlatBend
	if f == nil {
		return
	}
	v := c.Within("flatBend")
	fact.OneOf(v, "hollow", f.Hollow, HollowFaces()...)
	v.Range("radiusMm", f.RadiusMm, minFormMm, maxFormMm)
	v.Range("axisDeg", f.AxisDeg, minAxisDeg, 180-minAxisDeg)
	axis := math.Max(minAxisDeg, math.Min(180-minAxisDeg, f.AxisDeg)) * math.Pi / 180
	room := d.LengthMm - d.HeightMm*math.Abs(math.Cos(axis)/math.Sin(axis)) // the heel stays flat
	most := math.Min(room, maxTurnRad*f.MidRadiusMm(d.SpineMm))
	v.Range("longMm", f.LongMm, math.Min(5, most), most)
}

// bender carries points of a flat blade to where they lie once it is bent.
type bender struct {
	x0, y0 float64 // where the bend begins
	nx, ny float64 // toward the point, at right angles to the form
	radius float64 // of the layer that keeps its length
	z0     float64 // where that lies across the thickness
	toward float64 // +1 where the face in front becomes the hollow one
}

// Bender of the body's blade; nil where it is not bent.
func (b *Body) Bender() func(p [3]float64) [3]float64 {
	f := b.Blade.FlatBend
	if f == nil {
		return nil
	}
	x0 := math.Min(f.LongMm, b.length)
	sin, cos := math.Sincos(f.AxisDeg * math.Pi / 180)
	k := bender{x0: x0, y0: (b.SpineY(x0) + b.EdgeY(x0)) / 2, nx: -sin, ny: cos, toward: -1}
	if (f.Hollow == BevelInside) != b.Blade.Grind.left() {
		k.toward = 1
	}
	k.z0 = b.middleZ(x0)
	k.radius = f.MidRadiusMm(b.thick.Predict(x0)) - k.toward*k.z0
	return k.put
}

// middleZ is how far in front of the mid-plane of its spine the steel of the blade lies on the
// mean, up to x: there it keeps its length when it is bent, and so its volume. 0 where both
// faces are alike.
func (b *Body) middleZ(x float64) float64 {
	if g := b.Blade.Grind; !g.Kind.OneSided() && (g.Groove == nil || g.Groove.Faces != 1) {
		return 0
	}
	const stations, steps = 60, 24
	v, m := 0.0, 0.0
	for i := range stations {
		s := b.SectionAt(x * (float64(i) + .5) / stations)
		for k := range steps {
			front, back := s.FacesAt(s.HeightMm * (float64(k) + .5) / steps)
			v += (front - back) * s.HeightMm
			m += (front - back) * s.HeightMm * (front + back) / 2
		}
	}
	if v <= 0 {
		return 0
	}
	if b.Blade.Grind.left() {
		m = -m
	}
	return m / v
}

func (k bender) put(p [3]float64) [3]float64 {
	s := (p[0]-k.x0)*k.nx + (p[1]-k.y0)*k.ny
	if s <= 0 {
		return p
	}
	sin, cos := math.Sincos(s / k.radius)
	r := k.radius - k.toward*(p[2]-k.z0)
	out := r*sin - s
	return [3]float64{p[0] + out*k.nx, p[1] + out*k.ny, k.z0 + k.toward*(k.radius-r*cos)}
}

// BentStations is how many stations a bent blade is drawn through.
const BentStations = 120

// Bent is a bent blade as it is drawn: its outline seen from the side, as it lies on the flat
// of its heel; its outline seen from the spine, x and how far out of the plane; how far it
// reaches; and how far its point stands out.
type Bent struct {
	Side    []Node  `json:"side"`
	Spine   []Node  `json:"spine"`
	ReachMm float64 `json:"reachMm" doc:"from the heel to where it reaches furthest ahead"`
	DepthMm float64 `json:"depthMm" doc:"how far it stands out of the flat of its heel"`
	TurnDeg float64 `json:"turnDeg" doc:"how far round the form it goes"`
	FormMm  float64 `json:"formMm" doc:"diameter of the form"`
	Strain  float64 `json:"strain" doc:"of the outer face"`

	EdgeStrain float64 `json:"edgeStrain" doc:"of the outer side of the edge"`
}

// BentBlade draws the blade as it is bent; nil where it is not.
func (b *Body) BentBlade() *Bent {
	put := b.Bender()
	if put == nil {
		return nil
	}
	f := b.Blade.FlatBend
	thick := b.thick.Predict(math.Min(f.LongMm, b.length))
	out := &Bent{FormMm: 2 * f.RadiusMm, Strain: f.Strain(thick), EdgeStrain: b.Blade.Grind.EdgeMm / 2 / f.MidRadiusMm(thick), TurnDeg: f.LongMm / f.MidRadiusMm(thick) * 180 / math.Pi}
	around := func(first, second func(x float64) [3]float64, of, by int) (loop []Node) {
		for i := range BentStations + 1 {
			p := put(first(b.length * float64(i) / BentStations))
			loop = append(loop, Node{p[of], p[by]})
		}
		for i := range BentStations + 1 {
			p := put(second(b.length * float64(BentStations-i) / BentStations))
			loop = append(loop, Node{p[of], p[by]})
		}
		return loop
	}
	out.Side = around(
		func(x float64) [3]float64 { return [3]float64{x, b.SpineY(x), 0} },
		func(x float64) [3]float64 { return [3]float64{x, b.EdgeY(x), 0} }, 0, 1)
	face := func(sign float64) func(x float64) [3]float64 {
		return func(x float64) [3]float64 { return [3]float64{x, b.SpineY(x), sign * b.thick.Predict(x) / 2} }
	}
	out.Spine = around(face(1), face(-1), 0, 2)
	for _, n := range out.Spine {
		out.DepthMm = math.Max(out.DepthMm, math.Abs(n[1])-thick/2)
		out.ReachMm = math.Max(out.ReachMm, b.length-n[0])
	}
	return out
}
