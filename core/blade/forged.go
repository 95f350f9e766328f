package blade

import (
	"math"

	"coldember/core/fact"
)

// Allowances are what the hammer leaves for the grinder.
type Allowances struct {
	FaceMm        float64 `json:"faceMm" doc:"left on each face"`
	OutlineMm     float64 `json:"outlineMm" doc:"left around edge, spine and point"`
	ForgingEdgeMm float64 `json:"forgingEdgeMm" doc:"the edge is not forged thinner than this"`
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

// School tells whose preset the allowances are.
func (a Allowances) School() School {
	for _, s := range Schools() {
		if s.Allowances() == a {
			return s
		}
	}
	return OwnSchool
}

// Schools lists them.
func Schools() []School { return []School{ThickAndGrind, ForgeClose, ForgedFlats} }

// Allowances returns the preset of the school.
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

// Validate reports every allowance that cannot be.
func (a Allowances) Validate(c fact.Check) {
	c.Range("faceMm", a.FaceMm, 0, 4)
	c.Range("outlineMm", a.OutlineMm, 0, 10)
	c.Range("forgingEdgeMm", a.ForgingEdgeMm, 0.5, 6)
}

// keepBarMm is how much thicker than wanted a ricasso is left rather than
// forged down: grinding it away costs less than another heat.
const keepBarMm = 0.6

// Forged is the shape to forge: the finished blade with its allowances. The
// ricasso is left at the bar's thickness when that is within 0.6 mm above what
// is wanted, and is never asked to be thicker than the bar (barThicknessMm 0:
// not considered). The tang gets the face allowance only; it is left long by
// nobody but the smith.
func (b Blade) Forged(a Allowances, barThicknessMm float64) Blade {
	f := b
	p, g := a.OutlineMm, a.FaceMm
	f.Grind.Groove = nil // ground or scraped after forging
	f.Grind.EdgeMm = math.Max(b.Grind.EdgeMm+2*g, a.ForgingEdgeMm)
	if f.Grind.SwedgeFraction > 0 {
		f.Grind.SwedgeEdgeMm = math.Max(b.Grind.SwedgeEdgeMm+2*g, a.ForgingEdgeMm)
	}
	f.Outline = Outline{
		Join: b.Outline.Join, Spine: grow(b.Outline.Spine, p), Edge: grow(b.Outline.Edge, -p),
		SpineCorners: b.Outline.SpineCorners, EdgeCorners: b.Outline.EdgeCorners,
	}
	if p != 0 { // growing puts one node before the others
		f.Outline.SpineCorners, f.Outline.EdgeCorners = later(b.Outline.SpineCorners), later(b.Outline.EdgeCorners)
	}
	f.Thickness = make([]Node, 0, len(b.Thickness)+1)
	if p > 0 {
		f.Thickness = append(f.Thickness, Node{0, math.Max(b.Thickness[0][1]+2*g, f.Grind.EdgeMm)})
	}
	for _, n := range b.Thickness {
		f.Thickness = append(f.Thickness, Node{n[0] + p, math.Max(n[1]+2*g, f.Grind.EdgeMm)})
	}
	if b.Ricasso != nil {
		r := *b.Ricasso
		r.HeightMm += 2 * p
		r.ThicknessMm += 2 * g
		if barThicknessMm > 0 && (r.ThicknessMm > barThicknessMm || barThicknessMm-r.ThicknessMm <= keepBarMm) {
			r.ThicknessMm = barThicknessMm
		}
		f.Ricasso = &r
	}
	if b.Tang != nil {
		t := *b.Tang
		t.Holes = nil // drilled after forging
		t.ThicknessAtShoulderMm += 2 * g
		t.ThicknessAtEndMm += 2 * g
		t.DropMm += p
		f.Tang = &t
	}
	return f
}

func later(corners []int) []int {
	var out []int
	for _, c := range corners {
		out = append(out, c+1)
	}
	return out
}

// grow moves a curve outward by p (negative: downward) and along by |p|, and
// closes it on the point.
func grow(nodes []Node, p float64) []Node {
	if p == 0 {
		return nodes
	}
	out := make([]Node, 0, len(nodes)+1)
	out = append(out, Node{0, nodes[0][1]})
	for _, n := range nodes {
		out = append(out, Node{n[0] + math.Abs(p), n[1] + p})
	}
	return out
}
