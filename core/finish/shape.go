package finish

import (
	"math"
	"sort"

	"coldember/core/blade"
	"coldember/core/harden"
	"coldember/core/section"
)

// Steel is the blade as it is: the forged shape, or what it was ground to for the quench, or what
// calipers say of it.
type Steel struct {
	Forged   *blade.Body
	Finished *blade.Body
	Readings []Reading
	// Ground is what it was ground to for the quench, once that is done.
	Ground *Ground
	// KeepsFlats: what the bevel does not reach stays as it was forged.
	KeepsFlats bool
	// The finished blade lies in the steel with its heel at the forged one's, and its spine there
	// as far in as was planned, but for how far it is moved toward the point, and up.
	MovedMm, UpMm float64
}

// Ground is a blade as it was ground for the quench: the outline that it was ground to, in the
// forged one with its heel and spine as planned, and what was left on it.
type Ground struct {
	Body *blade.Body
	Left harden.Left
}

// hairMm is by how little a place may lie outside of the steel for its rounding.
const hairMm = 1e-6

// shift is how far the forged point lies ahead of the finished one.
func (s *Steel) shift() float64 {
	return s.Forged.LengthMm() - s.Finished.LengthMm() - s.MovedMm
}

// edgeY is the finished edge in the steel, at a place of the finished blade.
func (s *Steel) edgeY(x float64) float64 {
	return s.UpMm + s.Finished.EdgeY(math.Max(0, math.Min(s.Finished.LengthMm(), x)))
}

// cut is the steel across a station of the finished blade.
type cut struct {
	s        *Steel
	fin      section.Section
	forged   section.Section
	ground   section.Section
	ok       bool    // the forged shape reaches there, and what it was ground to
	up       float64 // the finished edge over the forged one
	upGround float64 // and over the one it was ground to
}

// cutAt is the steel at a station. Beyond either end of it there is none.
func (s *Steel) cutAt(x float64) cut {
	c := cut{s: s}
	if x >= 0 && x <= s.Finished.LengthMm() {
		c.fin = s.Finished.SectionAt(x)
	}
	xf := x + s.shift()
	if xf < -hairMm || xf > s.Forged.LengthMm()+hairMm {
		return c
	}
	xf = math.Max(0, math.Min(s.Forged.LengthMm(), xf))
	c.forged, c.up, c.ok = s.Forged.SectionAt(xf), s.edgeY(x)-s.Forged.EdgeY(xf), true
	if g := s.Ground; g != nil {
		xg := xf - (s.Forged.LengthMm() - g.Body.LengthMm())
		if xg < -hairMm {
			c.ok = false
			return c
		}
		xg = math.Max(0, xg)
		c.ground, c.upGround = g.Body.SectionAt(xg), s.edgeY(x)-g.Body.EdgeY(xg)
	}
	return c
}

// planned is the thickness that was forged and ground so far, y above the finished edge; ok is
// false where there is no steel.
func (c *cut) planned(y float64) (mm float64, ok bool) {
	at, ok := inside(y+c.up, c.forged.HeightMm)
	if !ok || !c.ok {
		return 0, false
	}
	mm = c.forged.ThicknessAt(at)
	if g := c.s.Ground; g != nil {
		at, ok = inside(y+c.upGround, c.ground.HeightMm)
		if !ok {
			return 0, false
		}
		mm = g.Left.ThicknessMm(c.ground.ThicknessAt(0), c.s.kept(&c.ground, at, mm), at/math.Max(hairMm, c.ground.HeightMm), mm)
	}
	return mm, true
}

func inside(y, high float64) (float64, bool) {
	return math.Max(0, math.Min(high, y)), y >= -hairMm && y <= high+hairMm
}

// finished is how thick the steel is left where there is isMm of it, y above the edge.
func (c *cut) finished(y, isMm float64) float64 { return c.s.kept(&c.fin, y, isMm) }

// kept is the thickness of a finished section, but for flats that stay as they were forged. There
// the bevel runs on as straight as it began, until it comes out of the steel.
func (s *Steel) kept(sec *section.Section, y, isMm float64) float64 {
	fin := sec.ThicknessAt(y)
	if !s.KeepsFlats || isMm <= fin {
		return fin
	}
	return math.Max(fin, math.Min(isMm, sec.Kept(y, isMm)))
}

// measured are the readings of a blade with what was planned where each was taken, station by
// station: the readings of one within sameStationMm.
type measured []caliperStation

type caliperStation struct {
	xMm float64
	at  []caliperShare
}

// caliperShare is by how much the steel differs from what was planned.
type caliperShare struct{ yMm, share, offMm float64 }

// sameStationMm is within which readings are of one station.
const sameStationMm = .5

func (s *Steel) measured() measured {
	var out measured
	for _, r := range s.Readings {
		c := s.cutAt(r.XMm)
		planned, ok := c.planned(r.YMm)
		if !ok || planned <= 0 {
			continue
		}
		here := caliperShare{r.YMm, r.ThicknessMm / planned, r.OffMm}
		joined := false
		for i := range out {
			if math.Abs(out[i].xMm-r.XMm) < sameStationMm {
				out[i].at, joined = append(out[i].at, here), true
			}
		}
		if !joined {
			out = append(out, caliperStation{r.XMm, []caliperShare{here}})
		}
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].xMm < out[j].xMm })
	return out
}

// nearest is the reading of a station that lies nearest in height.
func (s *caliperStation) nearest(y float64) *caliperShare {
	best := &s.at[0]
	for i := range s.at {
		if math.Abs(s.at[i].yMm-y) < math.Abs(best.yMm-y) {
			best = &s.at[i]
		}
	}
	return best
}

// at is the share of the planned thickness at a place, and how far off the centre line its middle
// lies: along the blade between the stations on either side, beyond the last as there.
func (m measured) at(x, y float64) (share, offMm float64) {
	if len(m) == 0 {
		return 1, 0
	}
	i := sort.Search(len(m), func(i int) bool { return m[i].xMm >= x })
	if i == 0 || i == len(m) {
		r := m[min(i, len(m)-1)].nearest(y)
		return r.share, r.offMm
	}
	a, b := m[i-1].nearest(y), m[i].nearest(y)
	f := (x - m[i-1].xMm) / (m[i].xMm - m[i-1].xMm)
	return a.share + (b.share-a.share)*f, a.offMm + (b.offMm-a.offMm)*f
}

// asIs is the thickness of the steel there is, and its offset from the centre line.
func (c *cut) asIs(m measured, x, y float64) (mm, offMm float64, ok bool) {
	mm, ok = c.planned(y)
	if !ok {
		return 0, 0, false
	}
	share, off := m.at(x, y)
	return mm * share, off, true
}

// AsIs is the thickness and the offset of the steel there is at a place of the finished blade, mm:
// as planned, times what the calipers found it to be at the readings on either side.
func (s *Steel) AsIs(x, y float64) (mm, offMm float64, ok bool) {
	c := s.cutAt(x)
	return c.asIs(s.measured(), x, y)
}

// faces is what is ground off either face at a place.
func (c *cut) faces(m measured, x, y float64) (front, back float64, ok bool) {
	is, off, ok := c.asIs(m, x, y)
	if !ok {
		return 0, 0, false
	}
	f, b := c.fin.FacesAt(y)
	kept := c.finished(y, is) - c.fin.ThicknessAt(y)
	// a blade ground on one side keeps its back where the spine's back is
	mid := off
	if c.fin.Kind.OneSided() {
		ff, fb := c.forged.FacesAt(math.Max(0, math.Min(c.forged.HeightMm, y+c.up)))
		mid += (ff + fb) / 2
		f += kept
	} else {
		f, b = f+kept/2, b-kept/2
	}
	front, back = mid+is/2-f, b-(mid-is/2)
	if c.fin.Kind.OneSided() && front < 0 && back > 0 { // so much less comes off its back
		less := math.Min(-front, back)
		front, back = front+less, back-less
	}
	return front, back, true
}

// node is a small part of the two faces: where it is, how much of the height lies below it, its
// area, and how thick the steel is there and is left.
type node struct {
	x, y, share, areaMm2 float64
	edgeMm               float64 // finished thickness of the edge at its station
	isMm, finMm          float64 // as it is; as it is left
}

// stretches are how many parts a blade is summed in, at least.
const stretches = 24

// overFaces sums over what lies within the finished outline: Gauss's points over the stretches on
// which the shapes run without a corner.
func (s *Steel) overFaces(visit func(node)) {
	m, length, d := s.measured(), s.Finished.LengthMm(), s.shift()
	ends := []float64{0, length}
	for _, b := range s.Forged.Breaks() {
		ends = append(ends, b-d)
	}
	ends = append(ends, s.Finished.Breaks()...)
	for i := 1; i < stretches; i++ {
		ends = append(ends, length*float64(i)/stretches)
	}
	sort.Float64s(ends)
	for i := 1; i < len(ends); i++ {
		a, b := ends[i-1], ends[i]
		if b-a < 1e-9 || a < 0 || b > length+1e-9 {
			continue
		}
		for k, g := range gaussX {
			x := a + g*(b-a)
			c := s.cutAt(x)
			s.overCut(&c, m, x, gaussW[k]*(b-a), visit)
		}
	}
}

// overCut sums over the height of one station that stands for wideMm of the blade.
func (s *Steel) overCut(c *cut, m measured, x, wideMm float64, visit func(node)) {
	ends := append([]float64{0, c.fin.HeightMm}, c.fin.Corners()...)
	for _, y := range c.forged.Corners() {
		if y -= c.up; y > 0 && y < c.fin.HeightMm {
			ends = append(ends, y)
		}
	}
	sort.Float64s(ends)
	edge := c.fin.ThicknessAt(0)
	for i := 1; i < len(ends); i++ {
		a, b := ends[i-1], ends[i]
		for k, g := range gaussX {
			y := a + g*(b-a)
			n := node{x: x, y: y, share: y / c.fin.HeightMm, areaMm2: gaussW[k] * (b - a) * wideMm, edgeMm: edge, finMm: c.fin.ThicknessAt(y)}
			if is, _, ok := c.asIs(m, x, y); ok {
				n.isMm, n.finMm = is, c.finished(y, is)
			}
			visit(n)
		}
	}
}

// Six-point Gauss–Legendre on [0, 1].
var (
	gaussX = []float64{0.033765242898424, 0.169395306766868, 0.380690406958402, 0.619309593041598, 0.830604693233132, 0.966234757101576}
	gaussW = []float64{0.085662246189585, 0.180380786524069, 0.233956967286346, 0.233956967286346, 0.180380786524069, 0.085662246189585}
)

// Across is the steel across a station of the finished blade, at n even heights from edge to spine:
// how thick it is left in the end, and how thick it is, mm; 0 where there is none.
func (s *Steel) Across(x float64, n int) (finishedMm, isMm []float64) {
	c, m := s.cutAt(x), s.measured()
	for k := range n {
		y := c.fin.HeightMm * float64(k) / float64(max(1, n-1))
		is, _, ok := c.asIs(m, x, y)
		fin := c.fin.ThicknessAt(y)
		if ok {
			fin = c.finished(y, is)
		}
		finishedMm, isMm = append(finishedMm, fin), append(isMm, is)
	}
	return finishedMm, isMm
}
