package blade

import (
	"math"
	"strconv"

	"coldember/core/fact"
	"coldember/core/steel"
)

// Handle is the grip with its fittings, from the shoulder back: guard, bolster,
// grip, pommel. The grip's section is a superellipse of exponent 3: fuller than
// an oval, softer than a slab.
type Handle struct {
	LengthMm      float64  `json:"lengthMm" doc:"of the grip alone"`
	FrontHeightMm float64  `json:"frontHeightMm"`
	MidHeightMm   float64  `json:"midHeightMm"`
	ButtHeightMm  float64  `json:"buttHeightMm"`
	WidthMm       float64  `json:"widthMm" doc:"across the flat of the blade"`
	TopDropMm     float64  `json:"topDropMm,omitempty" doc:"how far its top in front lies below the spine; negative: above"`
	ButtDropMm    float64  `json:"buttDropMm,omitempty" doc:"how far its middle falls from front to butt"`
	Material      Material `json:"material"`
	Guard         Fitting  `json:"guard"`
	Bolster       Fitting  `json:"bolster"`
	Pommel        Fitting  `json:"pommel"`

	HandBreadthMm float64 `json:"handBreadthMm,omitempty" doc:"across the knuckles, of the hand it is made for"`
	HandLengthMm  float64 `json:"handLengthMm,omitempty" doc:"wrist to the tip of the middle finger"`
}

// Fitting is a block on the tang; LengthMm 0 is none.
type Fitting struct {
	LengthMm float64  `json:"lengthMm" doc:"along the tang"`
	HeightMm float64  `json:"heightMm"`
	WidthMm  float64  `json:"widthMm"`
	Material Material `json:"material"`
}

// NewHandle is a handle of usual size on a design, a little higher than its
// ricasso.
func NewHandle(d Design) *Handle {
	h := &Handle{Material: "hardwood", WidthMm: 22, HandBreadthMm: 88, HandLengthMm: 188}
	h.Guard = Fitting{HeightMm: 32, WidthMm: 14, Material: "brass"}
	h.Bolster = Fitting{HeightMm: 26, WidthMm: 20, Material: "brass"}
	h.Pommel = Fitting{HeightMm: 28, WidthMm: 22, Material: "brass"}
	h.fit()
	switch d.TangKind {
	case PartialTang:
		h.LengthMm = d.Tang.LengthMm / partialShare
	case FullTang:
		h.LengthMm = d.Tang.LengthMm
		t := d.MadeTang()
		h.FrontHeightMm, _ = t.At(0)
		h.MidHeightMm, _ = t.At(t.LengthMm / 2)
		h.ButtHeightMm, _ = t.At(t.LengthMm)
		h.TopDropMm, h.ButtDropMm = t.TopMm(0), t.CentreMm(0)-t.CentreMm(t.LengthMm)
	default:
		h.LengthMm = d.Tang.LengthMm + blindEndMm
	}
	h.LengthMm = math.Max(60, h.LengthMm)
	return h
}

// A grip against the hand that holds it: judgement from common practice. The
// palm wants room at both ends; the girth brings the finger tips near the ball
// of the thumb.
const (
	roomForHandMm = 25.0
	midPerHand    = 0.165 // of the hand's length
	frontPerHand  = 0.145
	buttPerHand   = 0.160
	widthPerHand  = 0.120
	blindEndMm    = 12.0 // of grip behind the end of a hidden tang
	partialShare  = 0.6  // of the handle that a partial tang reaches into
)

func (h *Handle) fit() {
	r := func(v float64) float64 { return math.Round(v*2) / 2 } // half millimetres
	h.LengthMm = r(h.HandBreadthMm + roomForHandMm)
	h.MidHeightMm, h.WidthMm = r(h.HandLengthMm*midPerHand), r(h.HandLengthMm*widthPerHand)
	h.FrontHeightMm, h.ButtHeightMm = r(h.HandLengthMm*frontPerHand), r(h.HandLengthMm*buttPerHand)
}

// FitHand sizes handle and tang to the hand written in the handle (made first
// where there is none, but a bare tang is its own handle).
func (d *Design) FitHand(breadthMm, lengthMm float64) {
	if d.TangKind.Bare() {
		d.Tang.LengthMm = breadthMm + roomForHandMm
		if d.TangKind == WrappedTang {
			d.Tang.LengthMm = 2*d.Tang.LengthMm + loopMm
		}
		return
	}
	var h Handle
	if d.Handle == nil {
		h = *NewHandle(*d)
	} else {
		h = *d.Handle
	}
	h.HandBreadthMm, h.HandLengthMm = breadthMm, lengthMm
	h.fit()
	d.Handle = &h
	front := h.Guard.LengthMm + h.Bolster.LengthMm
	switch d.TangKind {
	case FullTang:
		d.Tang.LengthMm = front + h.LengthMm
	case PartialTang:
		d.Tang.LengthMm = math.Round(front + h.LengthMm*partialShare)
	default:
		d.Tang.LengthMm = front + h.LengthMm - blindEndMm
	}
}

// HeightAt is the grip's height s mm behind its front: smooth through front,
// middle and butt.
func (h *Handle) HeightAt(s float64) float64 { return h.heights()(s) }

// heights is the grip's height over the distance behind its front.
func (h *Handle) heights() func(s float64) float64 {
	c, err := fit([]Node{{0, h.FrontHeightMm}, {h.LengthMm / 2, h.MidHeightMm}, {h.LengthMm, h.ButtHeightMm}}, Smooth, nil, "handle")
	if err != nil {
		return func(float64) float64 { return h.MidHeightMm }
	}
	return func(s float64) float64 { return c.Predict(math.Max(0, math.Min(h.LengthMm, s))) }
}

// Grip is how far the middle of the design's grip lies below the spine, and how high it is,
// over the distance behind its front. The scales of a full tang follow its outline.
func (d Design) Grip() func(s float64) (axisMm, heightMm float64) {
	h := d.Handle
	if d.TangKind == FullTang && d.Tang.Outline != nil {
		t := d.MadeTang()
		front := h.Guard.LengthMm + h.Bolster.LengthMm
		return func(s float64) (axisMm, heightMm float64) {
			at := math.Max(0, math.Min(t.LengthMm, front+s))
			high, _ := t.At(at)
			return -t.CentreMm(at), high
		}
	}
	high := h.heights()
	return func(s float64) (axisMm, heightMm float64) { return h.AxisMm(s), high(s) }
}

// AxisMm is how far the grip's middle line lies below the spine, s mm behind
// its front.
func (h *Handle) AxisMm(s float64) float64 {
	return h.TopDropMm + h.FrontHeightMm/2 + h.ButtDropMm*s/h.LengthMm
}

// gripExponent shapes the grip's section: |y/a|ⁿ + |z/b|ⁿ = 1.
const gripExponent = 3

// halfWidth is half the grip's width v mm above or below its middle line, of
// height h; negative beyond it.
func (h *Handle) halfWidth(v, heightMm float64) float64 {
	u := math.Abs(v) / (heightMm / 2)
	if u >= 1 {
		return -math.Abs(v) + heightMm/2
	}
	return h.WidthMm / 2 * math.Pow(1-math.Pow(u, gripExponent), 1./gripExponent)
}

// gripArea is the area of the superellipse in its box: 4ab·Γ(1+1/n)²/Γ(1+2/n).
var gripArea = math.Pow(math.Gamma(1+1./gripExponent), 2) / math.Gamma(1+2./gripExponent)

// Assembled is the whole knife: blade with handle and fittings.
type Assembled struct {
	MassG              float64 `json:"massG"`
	BalanceFromPointMm float64 `json:"balanceFromPointMm"`
	HandleG            float64 `json:"handleG"`
	FittingsG          float64 `json:"fittingsG"`
	LeastWallMm        float64 `json:"leastWallMm" doc:"of handle around the tang, or of a scale beside it; negative: the tang shows"`
	WallAtMm           float64 `json:"wallAtMm" doc:"behind the shoulder"`
	StepMm             float64 `json:"stepMm" doc:"from the spine down to the handle's top; negative: up"`
	PointAngleDeg      float64 `json:"pointAngleDeg" doc:"how far the point lies above the line of the push along the handle; negative: below"`
}

// Assemble puts the handle of the design on the body; nil for a bare tang or
// where no handle is drawn, but a bent tang is bent.
func (b *Body) Assemble(d Design) Assembled {
	m := b.Measure()
	out := Assembled{MassG: m.MassG, BalanceFromPointMm: m.BalanceFromPointMm}
	t := b.Blade.Tang
	if t == nil {
		return out
	}
	shoulder := b.length
	if b.Blade.Ricasso != nil {
		shoulder += b.Blade.Ricasso.LengthMm
	}
	moment := m.MassG * m.BalanceFromPointMm
	add := func(g, x float64) {
		out.MassG += g
		moment += g * x
	}
	if c := t.Centreline(d.TangKind); c != nil {
		v, vm := t.volume()
		g := v * steel.DensityGPerCm3 / 1000
		if v > 0 {
			moment += g * (t.bentMoment(c) - vm/v)
		}
	}
	if h := d.Handle; h != nil {
		s := shoulder
		for _, f := range []Fitting{h.Guard, h.Bolster} {
			g := f.massG(t, s-shoulder)
			out.FittingsG += g
			add(g, s+f.LengthMm/2)
			s += f.LengthMm
		}
		grip := d.Grip()
		out.grip(h, grip, t, d.TangKind, s, shoulder, add)
		g := h.Pommel.massG(t, s-shoulder+h.LengthMm)
		out.FittingsG += g
		add(g, s+h.LengthMm+h.Pommel.LengthMm/2)
		heel := b.SpineY(b.length)
		front, high := grip(0)
		butt, _ := grip(h.LengthMm)
		mid, _ := grip(h.LengthMm / 2)
		mid = heel - mid
		out.StepMm = front - high/2
		out.PointAngleDeg = (math.Atan2(b.SpineY(0)-mid, s+h.LengthMm/2) - math.Atan2(butt-front, h.LengthMm)) * 180 / math.Pi
	}
	if out.MassG > 0 {
		out.BalanceFromPointMm = moment / out.MassG
	}
	return out
}

// massG of a fitting over the tang it is slotted for, which begins at from.
func (f Fitting) massG(t *Tang, from float64) float64 {
	if f.LengthMm <= 0 {
		return 0
	}
	v := f.LengthMm * f.HeightMm * f.WidthMm
	if over := math.Min(f.LengthMm, t.LengthMm-from); over > 0 {
		h, k := t.At(from + over/2)
		v -= over * math.Min(h, f.HeightMm) * math.Min(k, f.WidthMm)
	}
	return math.Max(0, v) * f.Material.DensityGPerCm3() / 1000
}

// grip integrates the handle less the tang in it, in steps along it, and finds
// its thinnest wall.
func (out *Assembled) grip(h *Handle, along func(s float64) (axisMm, heightMm float64), t *Tang, kind TangKind, at, shoulder float64, add func(g, x float64)) {
	const n = 48
	dx := h.LengthMm / n
	out.LeastWallMm = math.Inf(1)
	for i := range n {
		s := dx * (float64(i) + .5)
		axis, high := along(s)
		area := high * h.WidthMm * gripArea
		behind := at - shoulder + s
		if behind < t.LengthMm {
			hole, thick := t.At(behind)
			var wall float64
			if kind == FullTang {
				area = h.scales(high, thick)
				wall = (h.WidthMm - thick) / 2
			} else {
				area = math.Max(0, area-hole*thick)
				top := axis - t.TopMm(behind) // above the middle line
				bottom := hole - top
				wall = math.Min(high/2-top, high/2-bottom)
				wall = math.Min(wall, h.halfWidth(math.Max(math.Abs(top), math.Abs(bottom)), high)-thick/2)
			}
			if wall < out.LeastWallMm {
				out.LeastWallMm, out.WallAtMm = wall, behind
			}
		}
		g := area * dx * h.Material.DensityGPerCm3() / 1000
		out.HandleG += g
		add(g, at+s)
	}
	if math.IsInf(out.LeastWallMm, 1) {
		out.LeastWallMm = 0
	}
}

// scales is the area of the two scales beside a full tang.
func (h *Handle) scales(high, thick float64) float64 {
	const n = 24
	a := 0.0
	for i := range n {
		v := high / 2 * (float64(i) + .5) / n
		a += math.Max(0, 2*h.halfWidth(v, high)-thick) * high / n
	}
	return a
}

// bentMoment is how far behind the shoulder the middle of a tang lies that follows a
// centre line.
func (t *Tang) bentMoment(c *Centreline) float64 {
	const n = 200
	v, m := 0.0, 0.0
	for i := range n {
		s := t.LengthMm * (float64(i) + .5) / n
		h, k := t.At(s)
		v += h * k
		m += h * k * c.At(s).XMm
	}
	return m / v
}

func itoa(i int) string { return strconv.Itoa(i) }

func (d Design) validateHandle(c fact.Check) {
	h := d.Handle
	if h == nil {
		return
	}
	v := c.Within("handle")
	v.Range("lengthMm", h.LengthMm, 40, 500)
	for name, mm := range map[string]float64{"frontHeightMm": h.FrontHeightMm, "midHeightMm": h.MidHeightMm, "buttHeightMm": h.ButtHeightMm} {
		v.Range(name, mm, 6, 90)
	}
	v.Range("widthMm", h.WidthMm, 4, 60)
	v.Range("topDropMm", h.TopDropMm, -20, 40)
	v.Range("buttDropMm", h.ButtDropMm, -80, 80)
	v.Range("handBreadthMm", h.HandBreadthMm, 0, 130)
	v.Range("handLengthMm", h.HandLengthMm, 0, 260)
	fact.OneOf(v, "material", h.Material, GripMaterials()...)
	for _, p := range []struct {
		name string
		f    Fitting
	}{{"guard", h.Guard}, {"bolster", h.Bolster}, {"pommel", h.Pommel}} {
		w := v.Within(p.name)
		w.Range("lengthMm", p.f.LengthMm, 0, 80)
		w.Range("heightMm", p.f.HeightMm, 0, 160)
		w.Range("widthMm", p.f.WidthMm, 0, 60)
		if p.f.LengthMm > 0 || p.f.Material != "" {
			fact.OneOf(w, "material", p.f.Material, FittingMaterials()...)
		}
	}
}
