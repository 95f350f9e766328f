package figure

import (
	"math"
	"slices"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
)

// lay bends a straight drawing: it stays where it is at anchorMm from the point;
// ahead of that it follows one centre line, about its own height there, and behind it
// the other. A nil one leaves it straight.
func lay(st []plan.Station, anchorMm float64, ahead, behind *blade.Centreline) {
	aheadY, behindY := midway(st, plan.ZoneBlade), midway(st, plan.ZoneTang)
	for i := range st {
		s := &st[i]
		k, y0, side := behind, behindY, 1.0
		if s.XMm < anchorMm {
			k, y0, side = ahead, aheadY, -1
		}
		if k == nil {
			continue
		}
		f := k.At(math.Abs(s.XMm - anchorMm))
		put := func(y float64) (float64, float64) {
			out, up := f.Off(y - y0)
			return micron(anchorMm + side*out), micron(y0 + up)
		}
		s.TwistDeg = math.Round(f.Turns * 360)
		s.XMm, _ = put((s.SpineY + s.EdgeY) / 2)
		var spineX, edgeX float64
		spineX, s.SpineY = put(s.SpineY)
		edgeX, s.EdgeY = put(s.EdgeY)
		if f.AngleRad != 0 {
			s.SpineX, s.EdgeX = &spineX, &edgeX
		}
	}
}

// anchor is the first cell of the ricasso, or of the tang where there is none:
// whatever is bent, it lies still. It is len(cells) for a blade alone.
func anchor(cells []Cell) int {
	for i := range cells {
		if z := cells[i].Zone; z == plan.ZoneRicasso || z == plan.ZoneTang {
			return i
		}
	}
	return len(cells)
}

// bendAsItIs bends the straight drawing of a state as its cells are bent.
func bendAsItIs(cells []Cell, st []plan.Station, bar forge.Bar) {
	k := anchor(cells)
	all := make([]blade.Limb, len(bar.Cells))
	at := 0.0
	for i := range bar.Cells {
		c := &bar.Cells[i]
		all[i] = blade.Limb{LongMm: c.LengthMm(), PerMm: c.CurvePerMm, Turns: c.TwistTurns}
		if i < k {
			at += all[i].LongMm
		}
	}
	slices.Reverse(all[:k])
	ahead, behind := blade.NewCentreline(all[:k]), blade.NewCentreline(all[k:])
	if ahead != nil || behind != nil {
		lay(st, at, ahead, behind)
	}
}

// midway is the height of the centre line at the handle's end of a zone that lies
// ahead of the ricasso, at the front end of the tang.
func midway(st []plan.Station, zone string) (y float64) {
	for i := range st {
		if st[i].Zone == zone {
			y = (st[i].SpineY + st[i].EdgeY) / 2
			if zone == plan.ZoneTang {
				return y
			}
		}
	}
	return y
}

// bentStations is how many stations a tang is drawn with where it is bent.
const bentStations = 72

// BendTang bends a straight drawing of the blade, and what it says of its zones, as
// its tang is to be bent.
func BendTang(st []plan.Station, spans []plan.Span, d *blade.Design) []plan.Station {
	z := &spans[len(spans)-1]
	tang := d.Tang.Centreline(d.TangKind)
	if z.Zone != plan.ZoneTang || tang == nil {
		return st
	}
	if d.TangKind != blade.FullTang { // its two ends alone are drawn where it is straight
		first, last := st[len(st)-2], st[len(st)-1]
		st = st[:len(st)-2]
		for i := range bentStations + 1 {
			u := float64(i) / bentStations
			mix := func(a, b float64) float64 { return a + (b-a)*u }
			s := first
			s.XMm, s.SpineY, s.EdgeY, s.ThicknessMm = mix(s.XMm, last.XMm), mix(s.SpineY, last.SpineY), mix(s.EdgeY, last.EdgeY), mix(s.ThicknessMm, last.ThicknessMm)
			st = append(st, s)
		}
	}
	lay(st, z.FromMm, nil, tang)
	z.ToMm = z.FromMm
	for i := range st {
		if st[i].Zone == plan.ZoneTang {
			z.ToMm = math.Max(z.ToMm, st[i].XMm)
		}
	}
	return st
}

// BendHandle bends handle, holes and the line of the push with the tang that is still
// drawn straight; it tells whether there is a push that turned by it.
func BendHandle(d *plan.Drawing, design *blade.Design) bool {
	z := d.FinishedZones[len(d.FinishedZones)-1]
	tang := design.Tang.Centreline(design.TangKind)
	if z.Zone != plan.ZoneTang || tang == nil {
		return false
	}
	y0 := midway(d.Finished, plan.ZoneTang)
	move := func(n blade.Node) blade.Node {
		if n[0] <= z.FromMm {
			return n
		}
		out, up := tang.At(n[0] - z.FromMm).Off(n[1] - y0)
		return blade.Node{micron(z.FromMm + out), micron(y0 + up)}
	}
	for i := range d.Handle {
		part := &d.Handle[i]
		for k, n := range part.Outline {
			part.Outline[k] = move(n)
		}
		part.FromMm, part.ToMm = math.Inf(1), 0
		for _, n := range part.Outline {
			part.FromMm, part.ToMm = math.Min(part.FromMm, n[0]), math.Max(part.ToMm, n[0])
		}
	}
	for i := range d.Holes {
		h := &d.Holes[i]
		at := move(blade.Node{h.XMm, h.YMm})
		h.XMm, h.YMm = at[0], at[1]
	}
	if d.Push == nil {
		return false
	}
	d.Push.Butt, d.Push.Front = move(d.Push.Butt), move(d.Push.Front)
	return true
}
