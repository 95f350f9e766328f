package blade

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/interp"
)

// tangSides are a tang's top and bottom as curves over the distance behind the shoulder, y
// over the spine of the heel.
type tangSides struct {
	top, bottom interp.Predictor
	whole       interp.Predictor // the bottom before its notches; nil: it has none
	breaks      []float64
}

// Cut is a notch in the edge side of a tang: from and to behind the shoulder, and how deep.
type Cut struct {
	FromMm, ToMm, DepthMm float64
}

// How the hammer follows the outline of a tang: it fills every hollow that its round face
// does not reach into, and a notch is driven in over a rod (judgement).
const (
	hammerHollowMm = 25.0 // radius
	rodHollowMm    = 5.0
	notchLeastMm   = 1.5 // a hollow less deep is drawn, not driven in
	sideStepMm     = 0.5 // between samples of a side
	forgedStep     = 4   // samples between nodes of a forged side, at the most
	forgedTolMm    = 0.01
)

// profile makes the curves of an outline that is as long as the tang. Errors are *Error.
func (t *Tang) profile() error {
	if t.Outline == nil {
		t.sides = nil
		return nil
	}
	o := t.Outline
	top, err := fit(o.Spine, o.Join, o.SpineCorners, "tang.outline.spine")
	if err != nil {
		return err
	}
	bottom, err := fit(o.Edge, o.Join, o.EdgeCorners, "tang.outline.edge")
	if err != nil {
		return err
	}
	v := &tangSides{top: top, bottom: bottom}
	for _, nodes := range [][]Node{o.Spine, o.Edge} {
		for _, n := range nodes {
			v.breaks = append(v.breaks, n[0])
		}
		if end := nodes[len(nodes)-1][0]; math.Abs(end-t.LengthMm) > 1e-6 {
			return &Error{Code: "blade.buttsDiffer", Field: "tang.outline", AtMm: end}
		}
	}
	slices.Sort(v.breaks)
	v.breaks = slices.Compact(v.breaks)
	for i, s := range v.breaks {
		for k := range 8 {
			if i == 0 {
				break
			}
			before := v.breaks[i-1]
			u := before + (s-before)*float64(k+1)/8
			if top.Predict(u)-bottom.Predict(u) <= 0 {
				return &Error{Code: "blade.tangCrosses", Field: "tang.outline", AtMm: u}
			}
		}
	}
	if len(t.whole) > 1 {
		if v.whole, err = fit(t.whole, Straight, nil, "tang.outline.edge"); err != nil {
			return err
		}
	}
	t.sides = v
	return nil
}

// Stations are where a tang is drawn: its ends, or every so many mm of an outline of its own
// and every node.
func (t *Tang) Stations(stepMm float64) []float64 {
	if o := t.Outline; t.sides == nil || o.Join == Straight && len(t.sides.breaks) == 2 {
		return []float64{0, t.LengthMm}
	}
	return t.stations(stepMm)
}

func (t *Tang) stations(stepMm float64) (out []float64) {
	n := max(1, int(math.Ceil(t.LengthMm/stepMm)))
	if t.sides != nil {
		out = slices.Clone(t.sides.breaks)
	}
	for i := range n + 1 {
		out = append(out, t.LengthMm*float64(i)/float64(n))
	}
	slices.Sort(out)
	out = slices.CompactFunc(out, func(a, b float64) bool { return math.Abs(a-b) < 1e-6 })
	out[len(out)-1] = t.LengthMm
	return out
}

// CentreMm is the height of its middle over the spine of the heel, s mm behind the shoulder.
func (t *Tang) CentreMm(s float64) float64 {
	h, _ := t.At(s)
	return -t.TopMm(s) - h/2
}

// HighestMm is its height, before notches, where it is highest between two distances behind
// the shoulder.
func (t *Tang) HighestMm(from, to float64) (most float64) {
	for _, s := range t.Stations(sideStepMm) {
		if s >= from && s <= to {
			most = math.Max(most, t.WholeAt(s))
		}
	}
	return most
}

// WholeAt is its height before notches are driven into it.
func (t *Tang) WholeAt(s float64) float64 {
	if t.sides != nil && t.sides.whole != nil {
		return t.sides.top.Predict(s) - t.sides.whole.Predict(s)
	}
	h, _ := t.At(s)
	return h
}

// Notches are those that are driven into the forged tang.
func (t *Tang) Notches() (out []Cut) {
	if t.sides == nil || t.sides.whole == nil {
		return nil
	}
	var c *Cut
	for s := 0.0; s <= t.LengthMm; s += sideStepMm {
		h, _ := t.At(s)
		deep := t.WholeAt(s) - h
		if deep <= .05 {
			c = nil
			continue
		}
		if c == nil {
			out = append(out, Cut{FromMm: s})
			c = &out[len(out)-1]
		}
		c.ToMm, c.DepthMm = s, math.Max(c.DepthMm, deep)
	}
	return slices.DeleteFunc(out, func(c Cut) bool { return c.DepthMm < notchLeastMm })
}

// LinePerMm is the curvature that brings the line of a tang, which leaves the shoulder
// straight, to where the middle of its outline lies furthest off (judgement: the arc that
// reaches it); 0 where that is no more than 3 mm, which drawing takes along.
func (t *Tang) LinePerMm() float64 {
	const n, least = 60, 3.0
	if t.sides == nil {
		return 0
	}
	most, at := 0.0, t.LengthMm
	for i := range n {
		s := t.LengthMm * float64(i+1) / n
		if d := math.Abs(t.CentreMm(s) - t.CentreMm(0)); d > most {
			most, at = d, s
		}
	}
	if most <= least {
		return 0
	}
	return 2 * most / (at * at)
}

// between integrates over a stretch behind the shoulder, split at every node.
func (t *Tang) between(from, to float64, f func(s, ds float64)) {
	a := from
	step := func(e float64) {
		for i, g := range gaussX {
			f(a+g*(e-a), gaussW[i]*(e-a))
		}
		a = e
	}
	if t.sides != nil {
		for _, x := range t.sides.breaks {
			if x > a && x < to {
				step(x)
			}
		}
	}
	if to > a {
		step(to)
	}
}

// VolumeMm3 is its volume between two distances behind the shoulder, its holes not taken out.
func (t *Tang) VolumeMm3(from, to float64) (v float64) {
	if t.sides == nil { // both fall straight
		h0, t0 := t.At(from)
		h1, t1 := t.At(to)
		return (to - from) / 6 * (2*h0*t0 + h0*t1 + h1*t0 + 2*h1*t1)
	}
	t.between(from, to, func(s, ds float64) {
		h, k := t.At(s)
		v += h * k * ds
	})
	return v
}

// HoleMm3 is what its holes take between two distances behind the shoulder.
func (t *Tang) HoleMm3(from, to float64) (v float64) {
	const n = 32
	for _, h := range t.Holes {
		a, b := h.span()
		a, b = math.Max(a, from), math.Min(b, to)
		for i := range n {
			if b <= a {
				break
			}
			s := a + (b-a)*(float64(i)+.5)/n
			_, k := t.At(s)
			v += 2 * h.reachAt(s) * k * (b - a) / n
		}
	}
	return v
}

// forged is the tang to forge: thicker by the allowance on each face and higher by those of
// spine and edge where it has an outline that shows; hollows that no hammer reaches into are
// filled. Notches that are driven in are in it.
func (t *Tang) forged(z ZoneAllowances, notches bool) *Tang {
	f := *t
	f.Holes = nil
	for _, h := range t.Holes { // the others are drilled after forging
		if h.Made == Punched {
			f.Holes = append(f.Holes, h.asForged())
		}
	}
	f.ThicknessAtShoulderMm += 2 * z.TangFaceMm
	f.ThicknessAtEndMm += 2 * z.TangFaceMm
	if t.sides == nil {
		f.DropMm += z.SpineMm
		return &f
	}
	// the forged ricasso hangs from its own spine, which is higher by the allowance
	top := t.grown(func(s float64) float64 { return t.sides.top.Predict(s) }, z.SpineMm, hammerHollowMm)
	down := func(s float64) float64 { return -t.sides.bottom.Predict(s) }
	whole := t.grown(down, z.EdgeMm, hammerHollowMm)
	bottom := whole
	if notches {
		bottom = t.grown(down, z.EdgeMm, rodHollowMm)
		f.whole = nodesOf(whole, t.LengthMm, -1, -z.SpineMm)
	}
	f.Outline = &Outline{Join: Straight, Spine: nodesOf(top, t.LengthMm, 1, -z.SpineMm), Edge: nodesOf(bottom, t.LengthMm, -1, -z.SpineMm)}
	if f.profile() != nil {
		f.sides = nil // New says what is wrong
	}
	return &f
}

// grown is a side moved out by p, at right angles to where it runs, with hollows of less
// than a radius filled: rolled over by a disc from outside. One sample every step.
func (t *Tang) grown(f func(s float64) float64, p, radius float64) []float64 {
	n := max(8, int(math.Ceil(t.LengthMm/sideStepMm)))
	step := t.LengthMm / float64(n)
	out, in := int((radius+p)/step), int(radius/step)
	y := make([]float64, n+1+2*(out+in)) // beyond its ends it goes straight on
	for i := range y {
		y[i] = f(math.Max(0, math.Min(t.LengthMm, float64(i-out-in)*step)))
	}
	roll := func(y []float64, reach int, r, sign float64) []float64 {
		lift := make([]float64, reach+1)
		for k := range lift {
			d := float64(k) * step
			lift[k] = sign * math.Sqrt(math.Max(0, r*r-d*d))
		}
		rolled := make([]float64, len(y)-2*reach)
		for i := range rolled {
			best := y[i+reach] + lift[0]
			for k := 1; k <= reach; k++ {
				for _, v := range [2]float64{y[i+reach-k] + lift[k], y[i+reach+k] + lift[k]} {
					if sign*v > sign*best {
						best = v
					}
				}
			}
			rolled[i] = best
		}
		return rolled
	}
	return roll(roll(y, out, radius+p, 1), in, radius, -1)
}

// nodesOf makes nodes of samples along a length, dropping those that lie on the chord of
// their neighbours.
func nodesOf(y []float64, lengthMm, sign, up float64) (out []Node) {
	step := lengthMm / float64(len(y)-1)
	last := 0
	for i := range y {
		if i > 0 && i < len(y)-1 && i-last < forgedStep {
			chord := y[last] + (y[i+1]-y[last])*float64(i-last)/float64(i+1-last)
			if math.Abs(y[i]-chord) < forgedTolMm {
				continue
			}
		}
		last = i
		out = append(out, Node{step * float64(i), sign*y[i] + up})
	}
	return out
}
