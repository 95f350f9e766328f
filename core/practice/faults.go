package practice

import "math"

// FaultKind is what went wrong.
type FaultKind string

// Faults of a piece. The last six are shapes, and are worked out again; the others stay.
const (
	Crack    FaultKind = "crack"
	Burnt    FaultKind = "burnt"
	Buckle   FaultKind = "buckle"
	Fold     FaultKind = "fold"     // a point that folded over
	Lip      FaultKind = "lip"      // skin that ran ahead over sharp corners
	ColdShut FaultKind = "coldShut" // a lip that was struck in
	Ricasso  FaultKind = "ricasso"  // what has to stay was struck thinner
	Gouge    FaultKind = "gouge"
	Uneven   FaultKind = "uneven" // a bevel off the middle
	Bowed    FaultKind = "bowed"
	Twisted  FaultKind = "twisted"
	Swept    FaultKind = "swept"
	Pits     FaultKind = "pits" // scale that was struck in
)

// FaultKinds lists them.
func FaultKinds() []FaultKind {
	return []FaultKind{Crack, Burnt, Buckle, Fold, Lip, ColdShut, Ricasso, Gouge, Uneven, Bowed, Twisted, Swept, Pits}
}

// Mends tells whether it is a shape that can be worked out again.
func (k FaultKind) Mends() bool {
	switch k {
	case Gouge, Uneven, Bowed, Twisted, Swept:
		return true
	}
	return false
}

// Fault is something that is wrong with a piece, and where.
type Fault struct {
	Kind FaultKind `json:"kind" enum:"crack,burnt,buckle,fold,lip,coldShut,ricasso,gouge,uneven,bowed,twisted,swept,pits"`
	AtMm float64   `json:"atMm"`
}

// From when a shape is wrong (judgement): bevels struck so much more on one side; off a straight line; twisted over all; scale
// struck in so deep; and what is kept struck thinner by this share.
const (
	unevenStrain = .35
	bowMm        = 1.5
	sweepMm      = 3.0
	twistDeg     = 8.0
	pitDeepMm    = .12
	keptShare    = .94
)

// fault notes one, near a place once.
func (g *game) fault(k FaultKind, atMm float64) {
	for _, f := range g.faults {
		if f.Kind == k && math.Abs(f.AtMm-atMm) < gougeOverMm {
			return
		}
	}
	g.faults = append(g.faults, Fault{k, math.Round(atMm*10) / 10})
}

// has tells whether there is a fault of this kind.
func (g *game) has(k FaultKind) bool {
	for _, f := range g.faults {
		if f.Kind == k {
			return true
		}
	}
	return false
}

// look finds what is wrong with the shape, and forgets what was worked out.
func (g *game) look() {
	kept := g.faults[:0]
	for _, f := range g.faults {
		if !f.Kind.Mends() {
			kept = append(kept, f)
		}
	}
	g.faults = kept
	at := g.middles()
	for i := range g.cells {
		c := &g.cells[i]
		if c.keptMm > 0 && c.thick() < keptShare*c.keptMm {
			g.fault(Ricasso, at[i])
		}
		if c.pitMm > pitDeepMm {
			g.fault(Pits, at[i])
		}
		if math.Abs(c.side) > unevenStrain {
			g.fault(Uneven, at[i])
		}
		if g.gouged(at, i) {
			g.fault(Gouge, at[i])
		}
	}
	g.lookAlong(at)
}

// gouged tells whether a cell lies much lower than what is beside it on both sides.
func (g *game) gouged(at []float64, i int) bool {
	left, right := -1.0, -1.0
	for j := range g.cells {
		switch d := at[j] - at[i]; {
		case d < 0 && d >= -gougeOverMm:
			left = math.Max(left, g.cells[j].spine)
		case d > 0 && d <= gougeOverMm:
			right = math.Max(right, g.cells[j].spine)
		}
	}
	return left > 0 && right > 0 && g.cells[i].spine < gougeShare*math.Min(left, right)
}

// lookAlong looks along the piece: bowed, swept, twisted.
func (g *game) lookAlong(at []float64) {
	line := g.line()
	worst := func(of func(l lineAt) float64, limit float64, k FaultKind) {
		most, where := 0.0, 0.0
		for i, l := range line {
			if v := math.Abs(of(l)); v > most {
				most, where = v, at[i]
			}
		}
		if most > limit {
			g.fault(k, where)
		}
	}
	worst(func(l lineAt) float64 { return l.bow }, bowMm, Bowed)
	if !g.ex.bends {
		worst(func(l lineAt) float64 { return l.sweep }, sweepMm, Swept)
	}
	worst(func(l lineAt) float64 { return l.twistDeg }, twistDeg, Twisted)
}

// lineAt is how far a place lies off the straight line between the ends, mm: away from the edge, toward the near side; and how
// far it is twisted against the middle of the piece.
type lineAt struct{ sweep, bow, twistDeg float64 }

// line is how the piece lies: the curves of its cells summed up.
func (g *game) line() []lineAt {
	out := make([]lineAt, len(g.cells))
	var y, z, up, side, turn, x float64
	xs := make([]float64, len(g.cells))
	for i := range g.cells {
		c := &g.cells[i]
		l := c.longMm()
		out[i] = lineAt{y + up*l/2, z + side*l/2, (turn + c.twist*l/2) * 180 / math.Pi}
		xs[i] = x + l/2
		y, z = y+(up+c.sweep*l/2)*l, z+(side+c.bow*l/2)*l
		up, side, turn, x = up+c.sweep*l, side+c.bow*l, turn+c.twist*l, x+l
	}
	mid := out[len(out)/2].twistDeg
	a, b := out[0], out[len(out)-1]
	for i := range out {
		f := (xs[i] - xs[0]) / (xs[len(xs)-1] - xs[0])
		out[i].sweep -= a.sweep + f*(b.sweep-a.sweep)
		out[i].bow -= a.bow + f*(b.bow-a.bow)
		out[i].twistDeg -= mid
	}
	return out
}
