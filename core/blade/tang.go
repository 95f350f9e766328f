package blade

import (
	"math"
	"slices"

	"coldember/core/fact"
)

// TangKind is the school of tang.
type TangKind string

// Hidden tangs are drawn narrow and go into the handle; full tangs show all
// round it; partial tangs are as high as the handle in front and stop half way.
// A rod is the handle itself, of one piece with the blade; a wrapped tang is
// drawn out long and turned back on itself to make the grip.
const (
	HiddenTang  TangKind = "hidden"
	FullTang    TangKind = "full"
	PartialTang TangKind = "partial"
	RodTang     TangKind = "rod"
	WrappedTang TangKind = "wrapped"
)

// TangKinds lists them.
func TangKinds() []TangKind {
	return []TangKind{HiddenTang, FullTang, PartialTang, RodTang, WrappedTang}
}

// Within tells whether the tang goes into a handle and is closed in by it.
func (k TangKind) Within() bool { return k == HiddenTang || k == PartialTang }

// Bare tells whether the tang is its own handle.
func (k TangKind) Bare() bool { return k == RodTang || k == WrappedTang }

// Hole goes through the tang; AtMm from the shoulder. A slot is a hole that is longer than it
// is high, with round ends: it makes a full tang lighter.
type Hole struct {
	AtMm       float64  `json:"atMm"`
	DiameterMm float64  `json:"diameterMm"`
	LongMm     float64  `json:"longMm,omitempty" doc:"length of a slot along the tang, its ends included; 0: a round hole"`
	OffMm      float64  `json:"offMm,omitempty" doc:"how far above the tang's middle it lies; negative: below"`
	Made       HoleMade `json:"made,omitempty" enum:"drilled,punched" doc:"punched hot and drifted it spreads its steel to both sides instead of losing it; drilled if not said"`
}

// HoleMade is how a hole is made.
type HoleMade string

// The ways.
const (
	Drilled HoleMade = "drilled"
	Punched HoleMade = "punched"
)

// slugShare of a punched hole's mouth falls out as its slug, and what is filed to size
// (judgement); the rest goes into the swell beside it.
const slugShare = 0.25

// asForged is a punched hole as the drift leaves it.
func (h Hole) asForged() Hole {
	k := math.Sqrt(1 - slugShare)
	h.DiameterMm, h.LongMm = h.DiameterMm*k, h.LongMm*k
	return h
}

// HalfMm is how far it reaches along the tang from its middle.
func (h Hole) HalfMm() float64 { return math.Max(h.LongMm, h.DiameterMm) / 2 }

// Mouth is its edge as a closed polygon that keeps within a hundredth of a millimetre: along
// the tang from the shoulder, and over the tang's middle where the hole is.
func (h Hole) Mouth() []Node {
	const n = 64
	out := make([]Node, n)
	r, half := h.DiameterMm/2, math.Max(0, h.LongMm-h.DiameterMm)/2
	for i := range out {
		s, c := math.Sincos(2 * math.Pi * (float64(i) + .5) / n)
		out[i] = Node{h.AtMm + math.Copysign(half, c) + r*c, h.OffMm + r*s}
	}
	return out
}

// AreaMm2 is that of its mouth.
func (h Hole) AreaMm2() float64 {
	return math.Pi/4*h.DiameterMm*h.DiameterMm + math.Max(0, h.LongMm-h.DiameterMm)*h.DiameterMm
}

// Tang lies behind the shoulder; height and thickness fall linearly. DropMm is
// how far its top lies below the spine (for drawing and handle, not volume).
type Tang struct {
	LengthMm              float64 `json:"lengthMm"`
	HeightAtShoulderMm    float64 `json:"heightAtShoulderMm"`
	HeightAtEndMm         float64 `json:"heightAtEndMm"`
	ThicknessAtShoulderMm float64 `json:"thicknessAtShoulderMm"`
	ThicknessAtEndMm      float64 `json:"thicknessAtEndMm"`
	DropMm                float64 `json:"dropMm,omitempty"`
	Holes                 []Hole  `json:"holes,omitempty"`
	ShoulderRadiusMm      float64 `json:"shoulderRadiusMm,omitempty" doc:"of the corner between shoulder and tang; 0: not said"`
	TwistTurns            float64 `json:"twistTurns,omitempty" doc:"whole turns twisted into a tang that is its own handle"`
	CurveMm               float64 `json:"curveMm,omitempty" doc:"how far the middle of the tang is bent out of its chord"`
	LoopMm                float64 `json:"loopMm,omitempty" doc:"inner diameter of an eye turned at its end"`
	WeldAtMm              float64 `json:"weldAtMm,omitempty" doc:"where a rod is welded on, behind the shoulder; 0: of one piece"`
	LoopEnd               LoopEnd `json:"loopEnd,omitempty" enum:"open,welded" doc:"whether the eye is welded shut; open if not said"`

	// Outline is that of a full tang with a shape of its own: x behind the shoulder, y over
	// the spine of the heel, its spine the tang's top. The heights are then looked at only at
	// the shoulder.
	Outline *Outline `json:"outline,omitempty"`

	sides *tangSides // of the outline
	whole []Node     // of the bottom before notches are driven in
}

// LoopEnd is what becomes of the end of an eye.
type LoopEnd string

// An eye is turned and left, or its scarfed end is welded to the stem.
const (
	OpenLoop   LoopEnd = "open"
	WeldedLoop LoopEnd = "welded"
)

// TwistMm is how much longer a tang is drawn because twisting shortens it: what its fibres,
// each a helix round the axis and as long as before, lose on the mean over its section.
func (t *Tang) TwistMm() (mm float64) {
	if t.TwistTurns <= 0 || t.LengthMm <= 0 {
		return 0
	}
	const n = 24
	h, k := t.At(t.LengthMm / 2)
	for i := range n {
		for j := range n {
			y, z := h*((float64(i)+.5)/n-.5), k*((float64(j)+.5)/n-.5)
			mm += math.Hypot(t.LengthMm, 2*math.Pi*t.TwistTurns*math.Hypot(y, z)) - t.LengthMm
		}
	}
	return mm / n / n
}

// At is height and thickness of the tang s mm behind the shoulder. Of a tang with an outline
// it wants the one that Blade or New made.
func (t *Tang) At(s float64) (heightMm, thicknessMm float64) {
	f := s / t.LengthMm
	thicknessMm = t.ThicknessAtShoulderMm + (t.ThicknessAtEndMm-t.ThicknessAtShoulderMm)*f
	if t.sides != nil {
		return t.sides.top.Predict(s) - t.sides.bottom.Predict(s), thicknessMm
	}
	return t.HeightAtShoulderMm + (t.HeightAtEndMm-t.HeightAtShoulderMm)*f, thicknessMm
}

// LoopRodMm is the length of tang that the eye at its end takes.
func (t *Tang) LoopRodMm() float64 {
	if t.LoopMm <= 0 {
		return 0
	}
	return math.Pi * (t.LoopMm + t.ThicknessAtEndMm)
}

// CurvePerMm is the curvature of the arc that CurveMm bends the tang to.
func (t *Tang) CurvePerMm() float64 { return 8 * t.CurveMm / (t.LengthMm * t.LengthMm) }

// TurnMm is the length of a wrapped tang that goes into the turn at its end.
func (t *Tang) TurnMm() float64 { return math.Min(loopMm, t.LengthMm/2) }

// TopMm is how far the top of the tang lies below the spine, s mm behind the
// shoulder: it narrows toward its own centre line.
func (t *Tang) TopMm(s float64) float64 {
	if t.sides != nil {
		return -t.sides.top.Predict(s)
	}
	h, _ := t.At(s)
	return t.DropMm + (t.HeightAtShoulderMm-h)/2
}

// volume is the tang's volume and first moment about its shoulder, holes
// taken out.
func (t *Tang) volume() (v, m float64) {
	t.between(0, t.LengthMm, func(s, ds float64) {
		h, k := t.At(s)
		v += h * k * ds
		m += h * k * ds * s
	})
	for _, hole := range t.Holes {
		_, k := t.At(hole.AtMm)
		a := hole.AreaMm2() * k
		v -= a
		m -= a * hole.AtMm
	}
	return v, m
}

// LeastHoleAtMm keeps the rim of a hole away from the shoulder, where a blade
// bends most; two hole diameters if that is more.
const LeastHoleAtMm = 12.0

// Proportions of a tang.
const (
	usualShoulderRadiusMm = 2.0
	usualRimMm            = 3.0 // of steel beside a hole
	hangAtMm              = 10  // before the end of a rod, a hole to hang it by
	blockOver             = 1.6 // times the spine: a ricasso thicker than that is a bolster
	loopMm                = 40  // of a wrapped tang, for the turn at its end
)

// SetTang gives the tang the proportions of its school, from the ricasso: a
// hidden tang is a good half as high and tapers; a full tang is nearly the
// ricasso itself; a rod is as thick as the ricasso and hardly higher. The
// length stays, but where a tang becomes a grip of its own or stops being one.
func (d *Design) SetTang(k TangKind) {
	was := d.TangKind
	d.TangKind = k
	t, r := &d.Tang, d.Ricasso
	if k != FullTang {
		t.Outline = nil
		t.Holes = slices.DeleteFunc(slices.Clone(t.Holes), func(h Hole) bool { return h.LongMm > 0 })
	}
	t.ShoulderRadiusMm = usualShoulderRadiusMm
	if !k.Bare() {
		t.TwistTurns, t.LoopMm = 0, 0
	}
	if was == RodTang {
		t.Holes = nil // it was hung by
	}
	if k.Bare() {
		t.Holes, d.Handle = nil, nil
		if k == WrappedTang && was != WrappedTang {
			t.LengthMm = 2*t.LengthMm + loopMm
		}
	}
	if was == WrappedTang && k != WrappedTang {
		t.LengthMm = math.Max(60, (t.LengthMm-loopMm)/2)
	}
	thickest := math.Min(r.ThicknessMm, blockOver*math.Max(d.SpineMm, minThickMm)) // not of an integral bolster
	set := func(height, heightEnd, drop, thick, thickEnd float64) {
		t.HeightAtShoulderMm, t.HeightAtEndMm, t.DropMm = r.HeightMm*height, r.HeightMm*heightEnd, r.HeightMm*drop
		t.ThicknessAtShoulderMm, t.ThicknessAtEndMm = thickest*thick, thickest*thickEnd
	}
	switch k {
	case FullTang:
		set(1, .85, 0, 1, .85)
	case PartialTang:
		set(.8, .6, .1, 1, .8)
	case RodTang, WrappedTang:
		set(0, 0, .2, 1, .9)
		t.HeightAtShoulderMm, t.HeightAtEndMm = thickest*1.6, thickest*1.2
	default:
		set(.6, .34, .15, .95, .6)
	}
}

func (d Design) validateTang(c fact.Check) {
	t := c.Within("tang")
	longest := 600.0
	t.Range("lengthMm", d.Tang.LengthMm, 20, longest)
	shown := d.TangKind == FullTang && (d.Tang.Outline != nil || d.Handle != nil)
	most, least, rise := math.Max(3, d.Ricasso.HeightMm), 2.0, 0.0
	if shown { // it may be higher than the ricasso, run to nothing, and begin above the spine
		most, least, rise = maxHeightMm, 0, -mostRiseMm
	}
	t.Range("heightAtShoulderMm", d.Tang.HeightAtShoulderMm, 3, most)
	t.Range("heightAtEndMm", d.Tang.HeightAtEndMm, least, most)
	d.validateTangOutline(t)
	t.Range("thicknessAtShoulderMm", d.Tang.ThicknessAtShoulderMm, minThickMm, maxThickMm)
	t.Range("thicknessAtEndMm", d.Tang.ThicknessAtEndMm, minThickMm, maxThickMm)
	t.Range("dropMm", d.Tang.DropMm, rise, math.Max(0, most-d.Tang.HeightAtShoulderMm)+1e-9)
	t.Range("shoulderRadiusMm", d.Tang.ShoulderRadiusMm, 0, 10)
	t.Range("weldAtMm", d.Tang.WeldAtMm, 0, d.Tang.LengthMm)
	turns, eye := 0.0, 0.0 // only of a tang that is its own handle
	if d.TangKind.Bare() {
		turns, eye = 20, math.Max(0, d.Tang.LengthMm/2/math.Pi-d.Tang.ThicknessAtEndMm)
	}
	t.Range("twistTurns", d.Tang.TwistTurns, 0, turns)
	t.Range("loopMm", d.Tang.LoopMm, 0, eye)
	fact.OneOf(t, "loopEnd", d.Tang.LoopEnd, OpenLoop, WeldedLoop, "")
	t.Range("curveMm", d.Tang.CurveMm, 0, d.Tang.LengthMm/4)
	d.validateHoles(t)
}

// validateHoles reports what cannot be drilled or sawn out: a round hole is at most .8 of the
// tang's height, a slot keeps some steel all round.
func (d Design) validateHoles(t fact.Check) {
	made := d.MadeTang()
	for i, h := range d.Tang.Holes {
		v := t.Within("holes").Within(itoa(i))
		fact.OneOf(v, "made", h.Made, Drilled, Punched, "")
		half := h.HalfMm()
		if h.LongMm == 0 && h.OffMm == 0 {
			half = 0
		}
		v.Range("atMm", h.AtMm, half, math.Max(half, d.Tang.LengthMm-half))
		if h.AtMm < half || h.AtMm > d.Tang.LengthMm-half {
			continue
		}
		for k, other := range d.Tang.Holes[:i] {
			if made.apart(h, other) < leastRimMm {
				v.Fail("atMm", "blade.holesMeet", fact.Figures{"hole": float64(i + 1), "other": float64(k + 1)})
			}
		}
		high, _ := made.At(h.AtMm)
		v.Range("diameterMm", h.DiameterMm, 0.5, math.Max(0.5, high*.8))
		if h.LongMm != 0 {
			v.Range("longMm", h.LongMm, h.DiameterMm, d.Tang.LengthMm)
		}
		if d.TangKind != FullTang {
			v.Range("longMm", h.LongMm, 0, 0)
			v.Range("offMm", h.OffMm, 0, 0)
			continue
		}
		if low, highest := made.room(h); h.OffMm < low || h.OffMm > highest {
			v.Range("offMm", h.OffMm, low, math.Max(low, highest))
		}
	}
}

// apart is how much steel lies between two holes; less than nothing where they cross.
func (t *Tang) apart(a, b Hole) float64 {
	half := func(h Hole) float64 { return math.Max(0, h.LongMm-h.DiameterMm) / 2 }
	dx := math.Max(0, math.Abs(a.AtMm-b.AtMm)-half(a)-half(b))
	dy := t.CentreMm(a.AtMm) + a.OffMm - t.CentreMm(b.AtMm) - b.OffMm
	return math.Hypot(dx, dy) - (a.DiameterMm+b.DiameterMm)/2
}

// RimMm is the least steel above and below a hole.
func (t *Tang) RimMm(h Hole) float64 {
	low, high := t.room(h)
	return math.Min(h.OffMm-low, high-h.OffMm) + leastRimMm
}

// room is how far below and above the tang's middle a hole may lie: everywhere along it some
// steel is left.
func (t *Tang) room(h Hole) (lowest, highest float64) {
	const n = 16
	lowest, highest = math.Inf(-1), math.Inf(1)
	middle := t.CentreMm(h.AtMm)
	for i := range n + 1 {
		s := h.AtMm + h.HalfMm()*(float64(i)/n*2-1)
		high, _ := t.At(s)
		past := math.Max(0, math.Abs(s-h.AtMm)-math.Max(0, h.LongMm-h.DiameterMm)/2) // into its round end
		half := math.Sqrt(math.Max(0, h.DiameterMm*h.DiameterMm/4-past*past)) + leastRimMm
		top, bottom := -t.TopMm(s)-middle, -t.TopMm(s)-high-middle
		lowest, highest = math.Max(lowest, bottom+half), math.Min(highest, top-half)
	}
	return lowest, highest
}

// AddHole drills a hole where a pin usually goes: in the middle of what room is
// left behind the last one, well away from the shoulder.
func (d *Design) AddHole() bool {
	t := &d.Tang
	if len(t.Holes) >= 12 || d.TangKind == WrappedTang {
		return false
	}
	if d.TangKind == RodTang { // one to hang it by, near its end
		high, _ := t.At(t.LengthMm)
		at := math.Round(t.LengthMm - math.Max(hangAtMm, 1.5*high))
		if len(t.Holes) > 0 || t.LoopMm > 0 || at < LeastHoleAtMm {
			return false
		}
		t.Holes = []Hole{{AtMm: at, DiameterMm: math.Max(2, math.Floor(high/2)), Made: Punched}}
		return true
	}
	from := LeastHoleAtMm
	for _, h := range t.Holes {
		from = math.Max(from, h.AtMm)
	}
	at := math.Round(from + (t.LengthMm-from)*.45)
	made := d.MadeTang()
	h, _ := made.At(at)
	t.Holes = append(append([]Hole(nil), t.Holes...), Hole{AtMm: at, DiameterMm: math.Max(2, math.Min(5, math.Floor((h-2*usualRimMm)*2)/2))})
	return true
}

// AddSlot saws a slot out of a full tang, a third of it long, in the middle.
func (d *Design) AddSlot() bool {
	t := &d.Tang
	if len(t.Holes) >= 12 || d.TangKind != FullTang {
		return false
	}
	made := d.MadeTang()
	at := math.Round(t.LengthMm / 2)
	h, _ := made.At(at)
	t.Holes = append(append([]Hole(nil), t.Holes...), Hole{AtMm: at, DiameterMm: math.Max(2, math.Floor(h*.4)), LongMm: math.Round(t.LengthMm / 3)})
	return true
}

// DeleteHole takes one out.
func (d *Design) DeleteHole(i int) bool {
	if i < 0 || i >= len(d.Tang.Holes) {
		return false
	}
	h := append([]Hole(nil), d.Tang.Holes[:i]...)
	d.Tang.Holes = append(h, d.Tang.Holes[i+1:]...)
	return true
}
