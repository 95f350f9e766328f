package blade

import (
	"math"
	"slices"
	"sort"

	"gonum.org/v1/gonum/mat"
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

// The line of a blade is looked at from behind its point, which is shaped, not bent.
const (
	lineFromShare = 0.2
	leastLineMm   = 6.0 // that drawing one side longer than the other takes along (judgement)
)

// LinePerMm is the curvature (toward the spine more than 0) that brings a straight blade to
// the middle line of its outline: least squares of a parabola that leaves the heel as it
// likes. 0 where the blade lies within 6 mm of a straight one.
func (b *Body) LinePerMm() float64 {
	const n = 48
	x := mat.NewDense(n, 3, nil)
	y := mat.NewVecDense(n, nil)
	for i := range n {
		s := b.length * (1 - lineFromShare) * (float64(i) + .5) / n // ahead of the heel
		x.SetRow(i, []float64{1, s, s * s / 2})
		y.SetVec(i, (b.SpineY(b.length-s)+b.EdgeY(b.length-s))/2)
	}
	var fit mat.VecDense
	if fit.SolveVec(x, y) != nil {
		return 0
	}
	k := fit.AtVec(2)
	if sag := math.Abs(k) * b.length * b.length / 8; sag < leastLineMm {
		return 0
	}
	return k
}
