package forge

import "math"

// outcome is what came of a blow.
type outcome int

const (
	struck  outcome = iota // whether it landed or not
	spared                 // less than half a blow is left there: it is as near as whole blows come
	stalled                // a press bears no more
)

// blow is one blow: the part that it makes of what is left under it, its energy over that of the mean one,
// the work of a unit of strain, and how many mean ones are left there.
type blow struct {
	part, energy, workMPa, left float64
}

// A hand strikes a little harder where that finishes a place in whole blows, and lighter where less is left (judgement).
const (
	hardest = 4.0 / 3 // of the energy of the mean blow
	harder  = 4       // blows, the last ones on a place
)

// measure is the blow that a place asks for; false where a press bears no more.
func (b *blows) measure(p *place) (k blow, bears bool) {
	k = blow{part: 1, energy: 1, left: 1}
	for range 3 { // how far it goes asks for the stress on its way, and that for how far it goes
		strainMm3, work, capped := b.goes(p, k.part)
		if strainMm3 == 0 {
			return k, false
		}
		k.workMPa, b.gives[p.side] = work, strainMm3
		k.left = p.leftMm3 / math.Min(strainMm3, p.coversMm3)
		whole := math.Floor(k.left)
		switch {
		case whole == 0:
			k.energy, k.part = k.left, 1
		case whole <= harder && k.left < hardest*whole && b.op.Machine == nil && !capped && strainMm3 <= p.coversMm3:
			k.energy, k.part = k.left/whole, 1/whole
		default:
			k.energy, k.part = 1, 1/k.left
		}
	}
	return k, true
}

// worthIt is the least part of a blow that is struck where calipers or later work make up for it (judgement).
const worthIt = 0.5

// strike is one blow on a place, and what came of it.
func (b *blows) strike(p *place) (blow, outcome) {
	k, bears := b.measure(p)
	switch {
	case !bears:
		return k, stalled
	case k.left < worthIt && (b.near(p) || b.comesAgain(p)):
		for i := p.first; i <= p.last; i++ {
			b.done[i-b.rec.First].spared[p.side] = true
		}
		return k, spared
	case b.r.hand.lands(b.d.lands): // else it moves the piece, not the steel
		for i := p.first; i <= p.last; i++ {
			b.advance(i, p, &k)
		}
	}
	return k, struck
}

// nearMm is what calipers tell on scaly steel (judgement).
const nearMm = 0.06

// near tells whether all that is spared a place, with what strokes on this side would still bring, is less than calipers tell.
func (b *blows) near(p *place) bool {
	for i := p.first; i <= p.last; i++ {
		e, w := &b.r.work[i], &b.done[i-b.rec.First]
		if w.left(e, p.side) == 0 {
			continue
		}
		c, t := &b.r.Bar.Cells[i], &b.op.Targets[i-b.op.First]
		off := math.Max(math.Abs(c.WidthMm-t.WidthMm), math.Max(math.Abs(c.SpineMm-t.SpineMm), math.Abs(c.EdgeMm-t.EdgeMm)))
		short, all := 0.0, 0.0
		for s := onFaces; s < sides; s++ {
			left := e.on(s) * (1 - w.share[s])
			if all += left; s == p.side || w.spared[s] {
				short += left
			}
		}
		if off*short > nearMm*all {
			return false
		}
	}
	return true
}

// comesAgain tells whether heavy work comes to all of a place after this operation, and takes what is left of it.
func (b *blows) comesAgain(p *place) bool {
	for i := p.first; i <= p.last; i++ {
		if !b.r.worksLater(i) {
			return false
		}
	}
	return true
}

// leastTime of a mean blow is what the lightest takes (judgement).
const leastTime = .25

// lasts is how long a blow of a share of the energy takes over a mean one: the arm swings less far, or further. It is the power of
// the energy that goes through the mean blow and the tap.
func lasts(energy float64) float64 {
	return math.Max(leastTime, math.Pow(energy, math.Log(tapRate)/(-2*math.Log(tapSpeed))))
}

// goes is how far a mean blow takes the cells of a place, with the mean stress on the way through a part of what they owe: strain
// times volume, and the work of a unit of it, MPa; nought where a press bears no more. capped tells whether it is the most of one stroke.
func (b *blows) goes(p *place, part float64) (strainMm3, workMPa float64, capped bool) {
	var wide, thick, stress, edges, all float64
	for i := p.first; i <= p.last; i++ {
		c, e, w := &b.r.Bar.Cells[i], &b.r.work[i], &b.done[i-b.rec.First]
		g := &b.r.flows[c.Steel]
		f := g.law.At(c.TempC, e.logRate)
		from, by := e.flat*w.share[onFaces]+e.edge*w.share[onEdges], part*w.left(e, p.side)
		bracket := 0.0
		for _, at := range [...]float64{.2113, .7887} { // its mean on the way, by Gauss at two places
			bracket += g.held.StressMPa(math.Max(1e-3, from+by*at)) / 2
		}
		v := c.VolumeMm3 * (by + leastOwed) // the blow goes into what still owes
		wide, thick, stress, all = wide+v*c.WidthMm, thick+v*c.ThicknessMm, stress+v*g.grade.FlowFactor*f.BaseMPa*bracket, all+v
		if e.flat > 0 {
			edges += v * math.Max(0, 1-e.edge/e.flat)
		}
	}
	wide, thick, stress, edges = wide/all, thick/all, stress/all, edges/all
	tool, high, broad := b.d.face, thick, wide
	if p.side == onEdges {
		tool, high, broad, edges = b.d.onEdge, wide, thick, 0
	}
	s := Stroke{HeightMm: high, BiteMm: tool.Bears(high), BreadthMm: math.Min(tool.BreadthMm, broad), StressMPa: stress, UsefulJ: b.d.energyMJ / 1000, ForceKN: b.d.forceKN}
	if b.d.forceKN > 0 {
		s.BiteMm = math.Min(p.longMm, tool.BiteMm)
	}
	gain, q, bite := s.gain(mostStrain)
	strainMm3 = gain * high * bite * s.BreadthMm
	if capped = gain >= mostStrain*(1-1e-9); capped { // done at one stroke, the next one overlaps it
		strainMm3 *= coverStep
		if b.d.turns {
			strainMm3 /= 1 + edges
		}
	}
	return strainMm3, stress * q, capped
}

// advance carries a cell as far as a blow on its place takes it, and warms it by the work of it.
func (b *blows) advance(i int, p *place, k *blow) {
	c, e, w := &b.r.Bar.Cells[i], &b.r.work[i], &b.done[i-b.rec.First]
	if e.flat+e.edge == 0 {
		if b.binds {
			w.share[onFaces] = math.Min(1, w.share[onFaces]+b.goesOver(p.longMm))
		}
		return
	}
	before, strain := w.all(e), k.part*w.left(e, p.side)
	if strain == 0 {
		return
	}
	w.share[p.side] += strain / e.on(p.side)
	c.advance(b.op.Targets[i-b.op.First], math.Min(1, (w.all(e)-before)/(1-before)))
	c.TempC += riseC(k.workMPa*strain, c.TempC)
}
