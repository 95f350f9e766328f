package blade

import (
	"math"
	"slices"
	"sort"
	"sync"

	"coldember/core/fact"

	"gonum.org/v1/gonum/interp"
)

// Own is the shape of a design whose outline the smith has drawn.
const Own Shape = "own"

// Side names a curve of the outline.
type Side string

// The curves of the blade, and of a full tang.
const (
	SpineSide  Side = "spine"
	EdgeSide   Side = "edge"
	TangTop    Side = "tangTop"
	TangBottom Side = "tangBottom"
)

// Sides lists them.
func Sides() []Side { return []Side{SpineSide, EdgeSide, TangTop, TangBottom} }

// Limits of an outline that is drawn by hand.
const (
	maxNodes   = 60
	outlineTol = 0.08 // mm a preset may move when it is turned into a few nodes
)

// OwnOutline is the outline of the design as nodes at its present length and
// height: the smith's own, or few nodes that follow the preset (within 0.08 mm
// at a height of 30).
func (d Design) OwnOutline() Outline {
	if d.Outline != nil {
		return d.Outline.scaled(d.LengthMm, d.HeightMm)
	}
	return fewNodes()[d.Shape].scaled(d.LengthMm, d.HeightMm)
}

// fewNodes has every preset as a few nodes, found once at a usual size.
var fewNodes = sync.OnceValue(func() map[Shape]Outline {
	out := map[Shape]Outline{}
	for _, s := range Shapes() {
		if o, ok := s.drawn(120, 30); ok {
			out[s] = o
			continue
		}
		b := Design{Shape: s, LengthMm: 120, HeightMm: 30}.Blade()
		out[s] = Outline{Join: Smooth, Spine: fewer(b.Outline.Spine), Edge: fewer(b.Outline.Edge)}
	}
	return out
})

// fewer drops nodes for as long as the smooth curve stays within outlineTol of
// where it was.
func fewer(nodes []Node) []Node {
	whole, err := fit(nodes, Smooth, nil, "")
	if err != nil {
		return nodes
	}
	out := slices.Clone(nodes)
	for len(out) > 2 {
		best, least := -1, outlineTol
		for i := 1; i < len(out)-1; i++ {
			if dev := deviation(whole, slices.Delete(slices.Clone(out), i, i+1)); dev < least {
				best, least = i, dev
			}
		}
		if best < 0 {
			break
		}
		out = slices.Delete(out, best, best+1)
	}
	return out
}

// deviation is the largest distance in y of a curve through nodes from another.
func deviation(whole interp.Predictor, nodes []Node) float64 {
	c, err := fit(nodes, Smooth, nil, "")
	if err != nil {
		return math.Inf(1)
	}
	most, l := 0.0, nodes[len(nodes)-1][0]
	const n = 160
	for i := range n + 1 {
		x := l * math.Pow(float64(i)/n, 2) // dense at the point
		most = math.Max(most, math.Abs(c.Predict(x)-whole.Predict(x)))
	}
	return most
}

// scaled is the outline at another length and heel height, the spine of its heel at 0.
func (o Outline) scaled(lengthMm, heightMm float64) Outline {
	last, bottom := o.Spine[len(o.Spine)-1], o.Edge[len(o.Edge)-1]
	return o.raised(-last[1]).stretched(lengthMm/last[0], heightMm/(last[1]-bottom[1]))
}

// highest is the most that any node of the spine stands over any of the edge.
func (o *Outline) highest() (most float64) {
	for _, s := range o.Spine {
		for _, e := range o.Edge {
			most = math.Max(most, s[1]-e[1])
		}
	}
	return most
}

// each is the outline, with nothing of it shared, and every node put elsewhere.
func (o Outline) each(put func(Node) Node) Outline {
	o.SpineCorners, o.EdgeCorners = slices.Clone(o.SpineCorners), slices.Clone(o.EdgeCorners)
	for _, side := range []*[]Node{&o.Spine, &o.Edge} {
		*side = slices.Clone(*side)
		for i, n := range *side {
			(*side)[i] = put(n)
		}
	}
	return o
}

func (o Outline) raised(by float64) Outline {
	return o.each(func(n Node) Node { return Node{n[0], n[1] + by} })
}

func (o Outline) stretched(kx, ky float64) Outline {
	return o.each(func(n Node) Node { return Node{n[0] * kx, n[1] * ky} })
}

// side returns the nodes and corners of a curve.
func (o *Outline) side(s Side) (*[]Node, *[]int) {
	if s == EdgeSide || s == TangBottom {
		return &o.Edge, &o.EdgeCorners
	}
	return &o.Spine, &o.SpineCorners
}

// SetOutline takes an outline as the design's own: length and height follow it.
// Its heel is set at height 0 of the spine.
func (d *Design) SetOutline(o Outline) {
	last, bottom := o.Spine[len(o.Spine)-1], o.Edge[len(o.Edge)-1]
	d.Shape, d.LengthMm, d.HeightMm = Own, last[0], last[1]-bottom[1]
	if d.HeightMm > 0 && d.LengthMm > 0 {
		o = o.scaled(d.LengthMm, d.HeightMm)
	}
	d.Outline = &o
}

// outlineOf is the outline that a side is of, as nodes, and what takes it back; nil where
// the design has no such side.
func (d *Design) outlineOf(s Side) (*Outline, func(Outline)) {
	if s == SpineSide || s == EdgeSide {
		o := d.OwnOutline()
		return &o, d.SetOutline
	}
	return d.TangOutline(), d.SetTangOutline
}

// MoveNode puts a node at (x, y). The first and the last node of a curve keep
// their x: the length is changed as a figure.
func (d *Design) MoveNode(s Side, i int, x, y float64) bool {
	o, put := d.outlineOf(s)
	if o == nil {
		return false
	}
	nodes, _ := o.side(s)
	if i < 0 || i >= len(*nodes) {
		return false
	}
	if i == 0 || i == len(*nodes)-1 {
		x = (*nodes)[i][0]
	}
	(*nodes)[i] = Node{x, y}
	put(*o)
	return true
}

// MoveHeel moves the ends of both curves to x and leaves every other node where
// it is: the blade is made longer or shorter at the heel. A heel that would pass
// another node is refused by New.
func (d *Design) MoveHeel(x float64) {
	o := d.OwnOutline()
	for _, n := range []*[]Node{&o.Spine, &o.Edge} {
		*n = slices.Clone(*n)
		(*n)[len(*n)-1][0] = x
	}
	d.SetOutline(o)
}

// AddNode adds a node to a curve where it runs at x; false outside the curve,
// on a node or when there are too many.
func (d *Design) AddNode(s Side, x float64) bool {
	o, put := d.outlineOf(s)
	if o == nil {
		return false
	}
	nodes, corners := o.side(s)
	c, err := fit(*nodes, Smooth, *corners, "")
	at := sort.Search(len(*nodes), func(i int) bool { return (*nodes)[i][0] >= x })
	if err != nil || at == 0 || at == len(*nodes) || math.Abs((*nodes)[at][0]-x) < .1 || len(*nodes) >= maxNodes {
		return false
	}
	*nodes = slices.Insert(*nodes, at, Node{x, c.Predict(x)})
	for k := range *corners {
		if (*corners)[k] >= at {
			(*corners)[k]++
		}
	}
	put(*o)
	return true
}

// DeleteNode takes a node out; the ends stay.
func (d *Design) DeleteNode(s Side, i int) bool {
	o, put := d.outlineOf(s)
	if o == nil {
		return false
	}
	nodes, corners := o.side(s)
	if i <= 0 || i >= len(*nodes)-1 {
		return false
	}
	*nodes = slices.Delete(*nodes, i, i+1)
	var kept []int
	for _, c := range *corners {
		if c < i {
			kept = append(kept, c)
		} else if c > i {
			kept = append(kept, c-1)
		}
	}
	*corners = kept
	put(*o)
	return true
}

// ToggleCorner makes a smooth node a corner, or a corner smooth.
func (d *Design) ToggleCorner(s Side, i int) bool {
	o, put := d.outlineOf(s)
	if o == nil {
		return false
	}
	nodes, corners := o.side(s)
	if i <= 0 || i >= len(*nodes)-1 {
		return false
	}
	if at := slices.Index(*corners, i); at >= 0 {
		*corners = slices.Delete(slices.Clone(*corners), at, at+1)
	} else {
		*corners = append(slices.Clone(*corners), i)
		sort.Ints(*corners)
	}
	put(*o)
	return true
}

// Mirror makes the edge the spine turned over, about the middle of the heel:
// for blades with two edges.
func (d *Design) Mirror() {
	o := d.OwnOutline()
	sum := o.Spine[len(o.Spine)-1][1] + o.Edge[len(o.Edge)-1][1]
	o.Edge = make([]Node, len(o.Spine))
	for i, n := range o.Spine {
		o.Edge[i] = Node{n[0], sum - n[1]}
	}
	o.EdgeCorners = slices.Clone(o.SpineCorners)
	d.SetOutline(o)
}

// NewGroove is a groove of usual proportions for a design: a fuller under the
// spine from near the heel, a hollow strip in the middle, or the hollowed back
// of a blade ground on one side.
func NewGroove(kind string, d Design) *Groove {
	depth := math.Round(d.TipMm*2) / 10 // a fifth of the thinnest spine
	switch kind {
	case "back":
		return &Groove{LowFraction: .2, HighFraction: .9, DepthMm: depth, Faces: 1, FromMm: d.LengthMm * .1}
	case "strip":
		return &Groove{LowFraction: .3, HighFraction: .75, DepthMm: depth, Faces: 2, FromMm: d.LengthMm * .2}
	default:
		return &Groove{LowFraction: .68, HighFraction: .86, DepthMm: depth, Faces: 2, FromMm: d.LengthMm * .35}
	}
}

// Scaled is the design with lengths, heights and thicknesses multiplied. The
// grinding wheel keeps its size, and so does the handle: the hand does not grow.
func (d Design) Scaled(length, height, thickness float64) Design {
	r, t := &d.Ricasso, &d.Tang
	for _, v := range []*float64{&d.LengthMm, &r.LengthMm, &t.LengthMm, &t.WeldAtMm, &d.Grind.PlungeMm} {
		*v *= length
	}
	for _, v := range []*float64{&d.HeightMm, &r.HeightMm, &t.HeightAtShoulderMm, &t.HeightAtEndMm, &t.DropMm} {
		*v *= height
	}
	for _, v := range []*float64{&d.SpineMm, &d.TipMm, &d.MidMm, &d.Grind.EdgeMm, &d.Grind.PointEdgeMm, &d.Grind.SwedgeEdgeMm, &r.ThicknessMm, &t.ThicknessAtShoulderMm, &t.ThicknessAtEndMm} {
		*v *= thickness
	}
	t.Holes = slices.Clone(t.Holes)
	for i := range t.Holes {
		h := &t.Holes[i]
		h.AtMm, h.OffMm = h.AtMm*length, h.OffMm*height
		if h.LongMm > 0 { // a pin keeps its size, a slot does not
			h.LongMm, h.DiameterMm = h.LongMm*length, h.DiameterMm*height
		}
	}
	if t.Outline != nil {
		o := t.Outline.stretched(length, height)
		t.Outline = &o
	}
	d.TaperNodes = slices.Clone(d.TaperNodes)
	for i := range d.TaperNodes {
		d.TaperNodes[i].ThicknessMm *= thickness
	}
	r.NotchMm *= math.Min(length, height)
	r.RiseMm *= height
	d.ChoilMm *= math.Min(length, height)
	if d.FlatBend != nil {
		f := *d.FlatBend
		f.LongMm, f.RadiusMm = f.LongMm*length, f.RadiusMm*length
		d.FlatBend = &f
	}
	d.Grind.SwedgeLongMm *= length
	if g := d.Grind.Groove; g != nil {
		c := *g
		c.FromMm, c.ToMm, c.DepthMm = g.FromMm*length, g.ToMm*length, g.DepthMm*thickness
		d.Grind.Groove = &c
	}
	return d
}

// validateOutline reports an own outline that cannot be.
func (d Design) validateOutline(c fact.Check) {
	if d.Outline == nil {
		if d.Shape == Own {
			c.Fail("shape", "field.choice", nil)
		}
		return
	}
	d.Outline.validate(c)
}

// validate reports nodes that make no curves.
func (o *Outline) validate(c fact.Check) {
	fact.OneOf(c.Within("outline"), "join", o.Join, Straight, Smooth, "")
	for _, s := range []struct {
		name    string
		nodes   []Node
		corners []int
	}{{"spine", o.Spine, o.SpineCorners}, {"edge", o.Edge, o.EdgeCorners}} {
		if len(s.nodes) < 2 || len(s.nodes) > maxNodes {
			c.Fail("outline."+s.name, "blade.fewNodes", nil)
			return
		}
		for _, i := range s.corners {
			if i <= 0 || i >= len(s.nodes)-1 {
				c.Fail("outline."+s.name, "blade.nodesOrder", fact.Figures{"atMm": 0})
				return
			}
		}
	}
	if o.Spine[0][0] != 0 || o.Edge[0][0] != 0 {
		c.Fail("outline", "blade.nodesOrder", fact.Figures{"atMm": 0})
	}
}
