package blade

import (
	"math"
	"slices"
	"sort"
)

// Limb is a stretch of a centre line, from the ricasso outward.
type Limb struct {
	LongMm float64
	PerMm  float64 // curvature toward the spine
	Turns  float64 // twisted into it
}

// Frame is a place on a centre line: where it is, out from its beginning and up toward
// the spine, which way it runs, and how far it is twisted.
type Frame struct {
	XMm, YMm float64
	AngleRad float64
	Turns    float64
}

// Off is the point that lies so far to the spine's side of the centre line, at right
// angles to it.
func (f Frame) Off(mm float64) (xMm, yMm float64) {
	sin, cos := math.Sincos(f.AngleRad)
	return f.XMm - mm*sin, f.YMm + mm*cos
}

// along goes s mm into a limb.
func (f Frame) along(l Limb, s float64) Frame {
	if l.LongMm > 0 {
		f.Turns += l.Turns * s / l.LongMm
	}
	// the chord of the arc: half its angle on, and as much shorter as its sine
	half, chord := l.PerMm*s/2, s
	if math.Abs(half) > 1e-6 {
		chord *= math.Sin(half) / half
	}
	f.XMm, f.YMm = f.XMm+chord*math.Cos(f.AngleRad+half), f.YMm+chord*math.Sin(f.AngleRad+half)
	f.AngleRad += 2 * half
	return f
}

// Centreline is a centre line of limbs, with the frames where each begins and the last
// ends.
type Centreline struct {
	of    []Limb
	ends  []float64 // how far out each limb ends
	start []Frame
}

// NewCentreline joins limbs; nil where none of them is bent or twisted.
func NewCentreline(of []Limb) *Centreline {
	if !slices.ContainsFunc(of, func(l Limb) bool { return l.PerMm != 0 || l.Turns != 0 }) {
		return nil
	}
	out := &Centreline{of: of, ends: make([]float64, len(of)), start: make([]Frame, len(of)+1)}
	end := 0.0
	for i, l := range of {
		end += l.LongMm
		out.ends[i], out.start[i+1] = end, out.start[i].along(l, l.LongMm)
	}
	return out
}

// At is the frame s mm out; past the last limb it goes straight on.
func (k *Centreline) At(s float64) Frame {
	i := sort.SearchFloat64s(k.ends, s)
	from := 0.0
	if i > 0 {
		from = k.ends[i-1]
	}
	if i == len(k.of) {
		return k.start[i].along(Limb{}, s-from)
	}
	return k.start[i].along(k.of[i], s-from)
}

// Centreline is that of the finished tang, from the shoulder; nil where it is straight.
func (t *Tang) Centreline(k TangKind) *Centreline {
	long, eye := t.LengthMm, t.LoopRodMm()
	twist := func(l Limb) Limb {
		l.Turns = t.TwistTurns * l.LongMm / long
		return l
	}
	var out []Limb
	straight := long - eye
	if k == WrappedTang {
		turn := t.TurnMm()
		front := (long - turn) / 2
		out = append(out, twist(Limb{LongMm: front, PerMm: -t.CurvePerMm()}), twist(Limb{LongMm: turn, PerMm: -math.Pi / turn}))
		straight -= front + turn
	}
	out = append(out, twist(Limb{LongMm: straight, PerMm: -t.CurvePerMm()}))
	if eye > 0 {
		out = append(out, twist(Limb{LongMm: eye, PerMm: -2 * math.Pi / eye}))
	}
	return NewCentreline(out)
}
