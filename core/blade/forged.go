package blade

import (
	"math"
	"slices"

	"coldember/core/fact"
	"coldember/core/section"

	"gonum.org/v1/gonum/interp"
)

// Allowances are what the hammer leaves for the grinder.
type Allowances struct {
	FaceMm        float64 `json:"faceMm" doc:"left on each face"`
	OutlineMm     float64 `json:"outlineMm" doc:"left around edge, spine and point"`
	ForgingEdgeMm float64 `json:"forgingEdgeMm" doc:"the edge is not forged thinner than this"`

	// Zones, when given, stand in for the general figures where a zone wants
	// another.
	Zones *ZoneAllowances `json:"zones,omitempty"`
}

// ZoneAllowances are what is left zone by zone.
type ZoneAllowances struct {
	PointFaceMm   float64 `json:"pointFaceMm" doc:"on each face at the point; it runs straight to the blade's at the heel"`
	RicassoFaceMm float64 `json:"ricassoFaceMm"`
	TangFaceMm    float64 `json:"tangFaceMm"`
	SpineMm       float64 `json:"spineMm" doc:"along the spine"`
	EdgeMm        float64 `json:"edgeMm" doc:"along the edge"`
	PointMm       float64 `json:"pointMm" doc:"beyond the point"`
}

// ByZone is the allowances zone by zone: the smith's, or the general figures.
func (a Allowances) ByZone() ZoneAllowances {
	if a.Zones != nil {
		return *a.Zones
	}
	return ZoneAllowances{a.FaceMm, a.FaceMm, a.FaceMm, a.OutlineMm, a.OutlineMm, a.OutlineMm}
}

// School is how close to the finished shape a smith forges.
type School string

// The schools of allowance.
const (
	ThickAndGrind School = "thick"
	ForgeClose    School = "close"
	ForgedFlats   School = "flats"
)

// OwnSchool is allowances that are no preset's.
const OwnSchool School = "own"

// School tells whose preset for this design the allowances are.
func (a Allowances) School(d *Design) School {
	for _, s := range Schools() {
		if s.AllowancesFor(d) == a {
			return s
		}
	}
	return OwnSchool
}

// Schools lists them.
func Schools() []School { return []School{ThickAndGrind, ForgeClose, ForgedFlats} }

// The presets are those of a blade that is ordinarySizeMm or more in the mean of length and
// height; of a smaller one so much less is left, but no less than leastShare of them: a hook of
// 45 × 12 mm that was left what a hunter is would be ground from twice its steel. Judgement.
const (
	ordinarySizeMm = 42.0 // geometric mean: 90 × 20 mm
	leastShare     = .5
	allowancesAMm  = 20 // they are told in so many parts of a millimetre
)

// AllowancesFor is the preset of the school for a design, by the size of the blade.
func (s School) AllowancesFor(d *Design) Allowances {
	a := s.Allowances()
	k := math.Sqrt(d.LengthMm*d.HeightMm) / ordinarySizeMm
	if k <= 0 || k >= 1 { // of none nothing is known
		return a
	}
	k = math.Max(k, leastShare)
	scaled := func(mm float64) float64 { return math.Round(mm*k*allowancesAMm) / allowancesAMm }
	return Allowances{FaceMm: scaled(a.FaceMm), OutlineMm: scaled(a.OutlineMm), ForgingEdgeMm: scaled(a.ForgingEdgeMm)}
}

// Follow is the allowances for a design that came of another: a preset goes with the size of
// the blade, a smith's own figures stay.
func (a Allowances) Follow(before, after *Design) Allowances {
	s := a.School(before)
	if s == OwnSchool {
		return a
	}
	return s.AllowancesFor(after)
}

// Allowances returns the preset of the school for a blade of ordinary size.
func (s School) Allowances() Allowances {
	switch s {
	case ForgeClose:
		return Allowances{FaceMm: 0.3, OutlineMm: 0.5, ForgingEdgeMm: 1.5}
	case ForgedFlats:
		return Allowances{FaceMm: 0.1, OutlineMm: 0.8, ForgingEdgeMm: 1.8}
	default:
		return Allowances{FaceMm: 0.6, OutlineMm: 1.5, ForgingEdgeMm: 2.2}
	}
}

// MostFaceMm is the most that is left on a face.
const MostFaceMm = 4.0

// Validate reports every allowance that cannot be.
func (a Allowances) Validate(c fact.Check) {
	c.Range("faceMm", a.FaceMm, 0, MostFaceMm)
	c.Range("outlineMm", a.OutlineMm, 0, 10)
	c.Range("forgingEdgeMm", a.ForgingEdgeMm, 0.5, 6)
	if z := a.Zones; z != nil {
		w := c.Within("zones")
		w.Range("pointFaceMm", z.PointFaceMm, 0, MostFaceMm)
		w.Range("ricassoFaceMm", z.RicassoFaceMm, 0, MostFaceMm)
		w.Range("tangFaceMm", z.TangFaceMm, 0, MostFaceMm)
		w.Range("spineMm", z.SpineMm, 0, 10)
		w.Range("edgeMm", z.EdgeMm, 0, 10)
		w.Range("pointMm", z.PointMm, 0, 10)
	}
}

// keepBarMm is how much thicker than wanted a ricasso is left rather than
// forged down: grinding it away costs less than another heat.
const keepBarMm = 0.6

// keepFadeMm is over how much more of a bar that is left goes away, so that a hair more of bar makes no step.
const keepFadeMm = 0.3

// kept is how thick a ricasso is forged that is to be so thick, from a bar.
func kept(wantedMm, barMm float64) float64 {
	over := barMm - wantedMm
	if over <= keepBarMm {
		return barMm
	}
	return wantedMm + keepBarMm*math.Max(0, (keepBarMm+keepFadeMm-over)/keepFadeMm)
}

// Forged is the shape to forge: the finished blade with its allowances. The
// ricasso is left at the bar's thickness when that is within 0.6 mm above what
// is wanted, of a thicker bar the less of it the more it is, to 0.9 mm; and is never asked to be thicker than the bar (barThicknessMm 0:
// not considered). The tang gets its face allowance only; it is left long by
// nobody but the smith.
func (b Blade) Forged(a Allowances, barThicknessMm float64) Blade {
	f := b
	z, g := a.ByZone(), a.FaceMm
	f.Grind.Groove = nil // ground or scraped after forging
	f.ChoilMm = 0        // cut after forging
	f.Grind.EdgeMm = math.Max(b.Grind.EdgeMm+2*g, a.ForgingEdgeMm)
	if f.Grind.PointEdgeMm > 0 || z.PointFaceMm != g {
		point := b.Grind.PointEdgeMm
		if point <= 0 {
			point = b.Grind.EdgeMm
		}
		f.Grind.PointEdgeMm = math.Max(point+2*z.PointFaceMm, a.ForgingEdgeMm)
	}
	if b.FlatBend != nil {
		bend := *b.FlatBend
		bend.LongMm += z.PointMm
		f.FlatBend = &bend
	}
	if f.Grind.SwedgeLongMm > 0 {
		f.Grind.SwedgeLongMm += z.PointMm
	}
	if f.Grind.SwedgeFraction > 0 {
		f.Grind.SwedgeEdgeMm = math.Max(b.Grind.SwedgeEdgeMm+2*g, a.ForgingEdgeMm)
	}
	f.Outline = Outline{Join: b.Outline.Join}
	f.Outline.Spine, f.Outline.SpineCorners = grow(b.Outline.Spine, b.Outline.SpineCorners, b.Outline.Join, z.SpineMm, z.PointMm)
	f.Outline.Edge, f.Outline.EdgeCorners = grow(b.Outline.Edge, b.Outline.EdgeCorners, b.Outline.Join, -z.EdgeMm, z.PointMm)
	f.Thickness = f.thicker(z.PointFaceMm, g, z.PointMm)
	if b.Grind.Kind == section.Hollow {
		f.Grind.WheelRadiusMm = b.Grind.WheelRadiusMm * b.shallower(z.SpineMm+z.EdgeMm)
	}
	if b.Ricasso != nil {
		r := *b.Ricasso
		r.NotchMm = 0 // cut after forging
		r.HeightMm += z.SpineMm + z.EdgeMm
		r.ThicknessMm += 2 * z.RicassoFaceMm
		if barThicknessMm > 0 {
			r.ThicknessMm = kept(r.ThicknessMm, barThicknessMm)
		}
		f.Ricasso = &r
	}
	if b.Tang != nil {
		f.Tang = b.Tang.forged(z, false)
	}
	return f
}

// NotchedTang is the tang to forge with its notches driven in.
func (b Blade) NotchedTang(a Allowances) *Tang { return b.Tang.forged(a.ByZone(), true) }

// shallower is how much larger the circle of a hollow is over bevels that more mm of
// outline make higher: where the blade is highest the forged hollow is as deep as the
// ground one, so that it takes no steel that the grinder needs, and cannot meet itself
// where the ground one does not.
func (b Blade) shallower(more float64) float64 {
	highest := b.Outline.highest()
	if highest <= 0 {
		return 1
	}
	k := 1 + more/highest
	return k * k
}

// HeelRunMm is how far ahead of the heel a blade runs into a ricasso that is left a little thicker (judgement: half a face of the
// hammer, which bridges them).
const HeelRunMm = 12.0

// RunInto has a blade that is a little thinner at the heel than its ricasso run into it, as far as the steel there can be left
// thicker, mm. What is more than a ricasso is left thicker by is a shoulder that was asked for, and stays.
func (b Blade) RunInto(mostMm float64) Blade {
	if b.Ricasso == nil {
		return b
	}
	thickness := b.Thickness
	heel := thickness[len(thickness)-1]
	over := b.Ricasso.ThicknessMm - heel[1]
	if over > keepBarMm || math.Min(over, mostMm) <= 0 {
		return b
	}
	from := math.Max(heel[0]-HeelRunMm, heel[0]/2)
	out := make([]Node, 0, len(thickness)+1)
	for i, n := range thickness {
		if n[0] < from-leastGapMm {
			out = append(out, n)
			continue
		}
		if i > 0 {
			a := thickness[i-1]
			out = append(out, Node{from, a[1] + (n[1]-a[1])*(from-a[0])/(n[0]-a[0])})
		}
		break
	}
	out = append(out, Node{heel[0], heel[1] + math.Min(over, mostMm)})
	b.Thickness = out
	return b
}

// thicker adds to the thickness, from point's allowance to heel's, moves it
// along by ahead, and keeps it from falling below the edge's.
func (b Blade) thicker(pointFace, heelFace, ahead float64) []Node {
	nodes := b.Thickness
	if pointFace != heelFace && len(nodes) == 2 { // bent where it meets the edge's least
		mid := Node{(nodes[0][0] + nodes[1][0]) / 2, (nodes[0][1] + nodes[1][1]) / 2}
		nodes = []Node{nodes[0], mid, nodes[1]}
	}
	l := nodes[len(nodes)-1][0]
	out := make([]Node, 0, len(nodes)+1)
	add := func(n Node, x float64) {
		u := n[0] / l
		_, edge, _ := b.Grind.at(u*l, l)
		out = append(out, Node{x, math.Max(n[1]+2*(pointFace+(heelFace-pointFace)*u), edge)})
	}
	if ahead > 0 {
		add(nodes[0], 0)
	}
	for _, n := range nodes {
		add(n, n[0]+ahead)
	}
	return out
}

// How an outline is grown.
const (
	mostMiter  = 1.5  // times the allowance that a corner may reach
	leastGapMm = 1e-3 // between two nodes
	besideMm   = 1e-3 // of a node, where the curve's direction is taken

	denseMm    = 3.0   // between nodes put on a smooth curve,
	denseRad   = 0.035 // or so much of a turn
	denseDepth = 7     // halvings, at the most
)

// grow moves a curve out by p (negative: down) at right angles to where it runs, and
// along by ahead, and closes it on the point. Nothing reaches further ahead than the
// point does. The heel goes straight up or down, to keep its place. Corners are
// where they were.
func grow(nodes []Node, corners []int, join Join, p, ahead float64) (out []Node, turned []int) {
	if p == 0 && ahead == 0 {
		return nodes, corners
	}
	beside := func(i, by int) Node { return nodes[i+by] }
	if join == Smooth {
		c, err := fit(nodes, Smooth, corners, "")
		if err != nil {
			return nodes, corners // it is refused as it is
		}
		nodes, corners = dense(c, nodes, corners)
		beside = func(i, by int) Node {
			x := nodes[i][0] + float64(by)*besideMm
			return Node{x, c.Predict(x)}
		}
	}
	out = append(out, Node{0, nodes[0][1]})
	last := len(nodes) - 1
	for i, n := range nodes {
		ux, uy := 0.0, 1.0
		if i < last {
			before := nodes[i] // at the point it runs one way only
			if i > 0 {
				before = beside(i, -1)
			}
			ux, uy = outward(before, nodes[i], beside(i, 1))
		}
		g := Node{n[0] + ahead + max(-ahead, ux*p), n[1] + uy*p}
		if i == 0 && g[0] <= leastGapMm {
			continue // it runs straight up from the point
		}
		if i == 0 && join == Smooth { // round the point, half way from straight ahead to the side
			mx, my := ux-1, uy*math.Copysign(1, p)
			l := math.Hypot(mx, my)
			if r := (Node{ahead * (1 + mx/l), n[1] + p*math.Abs(my/l)}); r[0] > leastGapMm && g[0]-r[0] > leastGapMm {
				out = append(out, r)
			}
		}
		if i == last {
			g[0] = n[0] + ahead
		}
		for len(out) > 1 && g[0]-out[len(out)-1][0] < leastGapMm && i == last {
			out = out[:len(out)-1]
		}
		if g[0]-out[len(out)-1][0] < leastGapMm {
			continue // the inside of a bend closes up
		}
		out = append(out, g)
		if slices.Contains(corners, i) {
			turned = append(turned, len(out)-1)
		}
	}
	return out, turned
}

// dense puts nodes on a smooth curve between its own, closer where it turns more, so
// that it can be moved without changing.
func dense(c interp.Predictor, nodes []Node, corners []int) (out []Node, turned []int) {
	runs := func(from, to float64) float64 { return math.Atan2(c.Predict(to)-c.Predict(from), to-from) }
	var between func(from, to Node, depth int)
	between = func(from, to Node, depth int) {
		turns := math.Abs(runs(from[0], from[0]+besideMm) - runs(to[0]-besideMm, to[0]))
		if l := to[0] - from[0]; depth == 0 || l < denseMm && (turns < denseRad || l < 4*besideMm) {
			return
		}
		x := (from[0] + to[0]) / 2
		mid := Node{x, c.Predict(x)}
		between(from, mid, depth-1)
		out = append(out, mid)
		between(mid, to, depth-1)
	}
	for i, n := range nodes {
		if i > 0 {
			between(nodes[i-1], n, denseDepth)
		}
		if slices.Contains(corners, i) {
			turned = append(turned, len(out))
		}
		out = append(out, n)
	}
	return out, turned
}

// outward is a step of one off a curve that runs from before through at to after, at
// right angles to it; at a corner along the middle, and as much longer as that needs.
func outward(before, at, after Node) (x, y float64) {
	unit := func(a, b Node) (float64, float64) {
		dx, dy := b[0]-a[0], b[1]-a[1]
		l := math.Hypot(dx, dy)
		return -dy / l, dx / l
	}
	x1, y1 := unit(at, after)
	if before == at {
		return x1, y1
	}
	x0, y0 := unit(before, at)
	x, y = x0+x1, y0+y1
	// the half angle between them: |sum| is twice its cosine
	half := math.Hypot(x, y) / 2
	long := math.Min(mostMiter, 1/half) / (2 * half)
	return x * long, y * long
}
