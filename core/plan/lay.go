package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
)

// limb is a stretch of a centre line, from the ricasso outward.
type limb struct {
	longMm float64
	perMm  float64 // curvature toward the spine
	turns  float64 // twisted into it
}

// frame is a place on a centre line: where it is, which way it runs, and how far
// it is twisted.
type frame struct{ x, y, angle, turns float64 }

// along goes s mm into a limb.
func (f frame) along(l limb, s float64) frame {
	if l.longMm > 0 {
		f.turns += l.turns * s / l.longMm
	}
	if math.Abs(l.perMm) < 1e-12 {
		f.x, f.y = f.x+s*math.Cos(f.angle), f.y+s*math.Sin(f.angle)
		return f
	}
	next := f.angle + l.perMm*s
	f.x += (math.Sin(next) - math.Sin(f.angle)) / l.perMm
	f.y += (math.Cos(f.angle) - math.Cos(next)) / l.perMm
	f.angle = next
	return f
}

// outAlong is the frame s mm out along limbs, from a straight one at nought; past the
// last it goes straight on.
func outAlong(limbs []limb, s float64) (f frame) {
	for _, l := range limbs {
		if s <= l.longMm {
			return f.along(l, s)
		}
		f, s = f.along(l, l.longMm), s-l.longMm
	}
	return f.along(limb{}, s)
}

// bent tells whether any of the limbs is.
func bent(limbs []limb) bool {
	for _, l := range limbs {
		if l.perMm != 0 || l.turns != 0 {
			return true
		}
	}
	return false
}

// lay bends a straight drawing: it stays where it is at anchorMm from the point;
// ahead of that it follows one run of limbs, about the height y0 of its centre
// line there, and behind it the other.
func lay(st []Station, anchorMm, aheadY, behindY float64, ahead, behind []limb) {
	for i := range st {
		s := &st[i]
		limbs, y0, side := behind, behindY, 1.0
		if s.XMm < anchorMm {
			limbs, y0, side = ahead, aheadY, -1
		}
		if !bent(limbs) {
			continue
		}
		f := outAlong(limbs, math.Abs(s.XMm-anchorMm))
		put := func(y float64) (float64, float64) {
			return micron(anchorMm + side*(f.x-(y-y0)*math.Sin(f.angle))), micron(y0 + f.y + (y-y0)*math.Cos(f.angle))
		}
		s.TwistDeg = math.Round(f.turns * 360)
		s.XMm, _ = put((s.SpineY + s.EdgeY) / 2)
		var spineX, edgeX float64
		spineX, s.SpineY = put(s.SpineY)
		edgeX, s.EdgeY = put(s.EdgeY)
		if f.angle != 0 {
			s.SpineX, s.EdgeX = &spineX, &edgeX
		}
	}
}

// Spine is the station's point on the spine.
func (s *Station) Spine() (x, y float64) {
	if s.SpineX != nil {
		return *s.SpineX, s.SpineY
	}
	return s.XMm, s.SpineY
}

// Edge is the station's point on the edge.
func (s *Station) Edge() (x, y float64) {
	if s.EdgeX != nil {
		return *s.EdgeX, s.EdgeY
	}
	return s.XMm, s.EdgeY
}

// HeightMm is the height of the section there.
func (s *Station) HeightMm() float64 {
	x0, y0 := s.Spine()
	x1, y1 := s.Edge()
	return math.Hypot(x0-x1, y0-y1)
}

// anchor is the first cell of the ricasso, or of the tang where there is none:
// whatever is bent, it lies still. It is len(cells) for a blade alone.
func (r *route) anchor() int {
	for i := range r.cells {
		if z := r.cells[i].zone; z == ZoneRicasso || z == ZoneTang {
			return i
		}
	}
	return len(r.cells)
}

// bendAsItIs bends the straight drawing of a state as its cells are bent.
func (r *route) bendAsItIs(st []Station, bar forge.Bar) {
	k := r.anchor()
	of := func(i int) limb {
		c := &bar.Cells[i]
		return limb{c.LengthMm(), c.CurvePerMm, c.TwistTurns}
	}
	var ahead, behind []limb
	at := 0.0
	for i := range bar.Cells {
		if i < k {
			at += bar.Cells[i].LengthMm()
			ahead = append([]limb{of(i)}, ahead...)
		} else {
			behind = append(behind, of(i))
		}
	}
	lay(st, at, midway(st, ZoneBlade), midway(st, ZoneTang), ahead, behind)
}

// midway is the height of the centre line at the handle's end of a zone that lies
// ahead of the ricasso, at the front end of the tang.
func midway(st []Station, zone string) (y float64) {
	for i := range st {
		if st[i].Zone == zone {
			y = (st[i].SpineY + st[i].EdgeY) / 2
			if zone == ZoneTang {
				return y
			}
		}
	}
	return y
}

// bentStations is how many stations a tang is drawn with where it is bent.
const bentStations = 72

// bendTang bends a straight drawing of the blade, and what it says of its zones, as
// its tang is to be bent.
func bendTang(st []Station, spans []Span, d *blade.Design) []Station {
	z := &spans[len(spans)-1]
	limbs := tangLimbs(&d.Tang, d.TangKind)
	if z.Zone != ZoneTang || !bent(limbs) {
		return st
	}
	first, last := st[len(st)-2], st[len(st)-1]
	st = st[:len(st)-2]
	for i := range bentStations + 1 {
		u := float64(i) / bentStations
		mix := func(a, b float64) float64 { return a + (b-a)*u }
		s := first
		s.XMm, s.SpineY, s.EdgeY, s.ThicknessMm = mix(s.XMm, last.XMm), mix(s.SpineY, last.SpineY), mix(s.EdgeY, last.EdgeY), mix(s.ThicknessMm, last.ThicknessMm)
		st = append(st, s)
	}
	lay(st, z.FromMm, 0, midway(st, ZoneTang), nil, limbs)
	z.ToMm = z.FromMm
	for i := range st[len(st)-bentStations-1:] {
		z.ToMm = math.Max(z.ToMm, st[len(st)-1-i].XMm)
	}
	return st
}

// tangLimbs are the bends of a finished tang, from the shoulder.
func tangLimbs(t *blade.Tang, k blade.TangKind) []limb {
	long, eye := t.LengthMm, t.LoopRodMm()
	twist := func(l limb) limb {
		l.turns = t.TwistTurns * l.longMm / long
		return l
	}
	var out []limb
	straight := long - eye
	if k == blade.WrappedTang {
		turn := t.TurnMm()
		front := (long - turn) / 2
		out = append(out, twist(limb{front, -t.CurvePerMm(), 0}), twist(limb{turn, -math.Pi / turn, 0}))
		straight -= front + turn
	}
	out = append(out, twist(limb{straight, -t.CurvePerMm(), 0}))
	if eye > 0 {
		out = append(out, twist(limb{eye, -2 * math.Pi / eye, 0}))
	}
	return out
}
