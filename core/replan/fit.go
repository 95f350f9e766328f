package replan

import (
	"math"

	"coldember/core/figure"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
)

// How near steel has to come to what is to be forged of it (judgement): calipers on scaly steel, and a hammer.
const (
	areaSlack   = .03
	lessTang    = .012 // of the whole that may be missing at its end: a tang a little shorter
	mostEnough  = 4.0
	hairs       = 1.02 // a section that is just enough stays so
	thickSlack  = .2
	highSlack   = .4
	gatherLeast = .85 // of a thickness that edge blows still thicken again
)

// Short is where steel is missing.
type Short struct {
	AtMm    float64 `json:"atMm" doc:"from the point of the piece as it is"`
	ThickMm float64 `json:"thickMm" doc:"too thin by so much"`
	HighMm  float64 `json:"highMm" doc:"too low by so much"`
	Share   float64 `json:"share" doc:"of the section that is wanted there"`
	Bad     bool    `json:"bad,omitempty" doc:"there is steel, but none that is good for a blade"`
	end     bool    // nothing is left of the piece
}

// laid is a piece over what is to be forged of it.
type laid struct {
	bar   forge.Bar
	short []Short
	// needMm3 is what all of it takes, scale to come with it.
	needMm3 float64
}

// wanted is the section that a cell is forged to.
func wanted(c *figure.Cell) (highMm, thickMm float64) { return c.Final.WidthMm, c.Final.ThicknessMm }

// lay gives every cell what lies at its place in the volume, in order from the point. What is more than is needed can be
// left at the handle's end, or cut off before the point, or some of both: as it fits best.
func (p *profile) lay(l *planner.Laid, toCome float64) laid {
	best := p.laidFrom(l, toCome, 0)
	if spare := p.mm3 - best.needMm3; spare > lessTang*best.needMm3 && len(best.short) > 0 {
		for k := 1.0; k <= cutSteps && len(best.short) > 0; k++ {
			if on := p.laidFrom(l, toCome, spare*k/cutSteps); len(on.short) < len(best.short) {
				best = on
			}
		}
	}
	return best
}

// cutSteps is in how many steps of what is spare a cut before the point is tried.
const cutSteps = 8

// laidFrom is lay with so much cut off before the point. Where the piece ends early its last cells have nothing, which is
// short by all of them.
func (p *profile) laidFrom(l *planner.Laid, toCome, cutMm3 float64) laid {
	out := laid{bar: forge.Bar{Cells: make([]forge.Cell, len(l.Cells))}}
	missing, ends := 0.0, []Short{}
	k, left := p.after(cutMm3) // slice in hand, and what of it is left
	for i := range l.Cells {
		c := &l.Cells[i]
		need := c.VolumeMm3 * (1 + toCome)
		high, thick := wanted(c)
		if c.Rod {
			out.bar.Cells[i] = cellOf(c, c.VolumeMm3, high, thick, c.Final.EdgeMm, c.Final.SpineMm)
			continue
		}
		out.needMm3 += need
		var got, long, area, h, spine, edge, at, lastMm float64
		for got < need-1e-9 && k < len(p.slices) {
			take := math.Min(need-got, left)
			s := &p.slices[k]
			dx := s.dx * take / s.mm3
			got, long = got+take, long+dx
			h, spine, edge, at = h+s.station.HeightMm()*dx, spine+s.station.ThicknessMm*dx, edge+s.station.EdgeMm*dx, at+s.station.XMm*dx
			area, lastMm = area+take, s.station.XMm
			if left -= take; left <= 1e-9*s.mm3 {
				if k++; k < len(p.slices) {
					left = p.slices[k].mm3
				}
			}
		}
		if got < need {
			missing += need - got
		}
		if long <= 0 || got < need*(1-areaSlack) {
			ends = append(ends, Short{AtMm: p.endMm(), ThickMm: thick, HighMm: high, end: true})
			out.bar.Cells[i] = cellOf(c, need, high, thick, c.Final.EdgeMm, c.Final.SpineMm)
			continue
		}
		if blade := c.Zone == plan.ZonePoint || c.Zone == plan.ZoneBlade; blade && p.goodToMm > 0 && lastMm > p.goodToMm+placedMm {
			out.short = append(out.short, Short{AtMm: p.goodToMm, ThickMm: thick, HighMm: high, Bad: true, end: true})
		}
		h, spine, edge, at = h/long, spine/long, edge/long, at/long
		mean := area / long / h
		out.bar.Cells[i] = cellOf(c, need, h, mean, edge, spine)
		by := math.Sqrt(p.enoughAt(l, i) * hairs)
		if s, bad := shortOf(l, h*by, mean*by, high, thick*(1+toCome)); bad && (c.Zone != plan.ZonePoint || s.Share < 1-2*areaSlack) {
			s.AtMm = at // a point is brought to its shape by its own blows, where there is steel for it
			out.short = append(out.short, s)
		}
	}
	if missing > lessTang*out.needMm3 {
		out.short = append(out.short, ends...)
	}
	return out
}

// after is the slice that begins behind so much of the piece, and what of it is left.
func (p *profile) after(mm3 float64) (k int, left float64) {
	if len(p.slices) > 0 {
		left = p.slices[0].mm3
	}
	for mm3 > 0 && k < len(p.slices) {
		take := math.Min(mm3, left)
		mm3 -= take
		if left -= take; left <= 1e-9*p.slices[k].mm3 {
			if k++; k < len(p.slices) {
				left = p.slices[k].mm3
			}
		}
	}
	return k, left
}

// calibrate learns from the piece as it was planned to be: what a cell of it seems to be short of for what it becomes, it is
// not, since the plan forges it from there. planned is a profile of nothing but the plan.
func (p *profile) calibrate(planned *profile, l *planner.Laid, toCome float64) {
	p.enough = map[string][]float64{}
	on := planned.laidFrom(l, toCome, 0)
	for i := range l.Cells {
		c, cell := &l.Cells[i], &on.bar.Cells[i]
		high, thick := wanted(c)
		k := 1.0
		for ; k < mostEnough && !c.Rod; k += .01 {
			by := math.Sqrt(k)
			if _, bad := shortOf(l, cell.WidthMm*by, cell.ThicknessMm*by, high, thick*(1+toCome)); !bad {
				break
			}
		}
		p.enough[c.Zone] = append(p.enough[c.Zone], k)
	}
}

// enoughAt is what was learned for the cell that lies as far along its zone.
func (p *profile) enoughAt(l *planner.Laid, i int) float64 {
	zone := l.Cells[i].Zone
	known := p.enough[zone]
	if len(known) == 0 {
		return 1
	}
	first, n := i, 0
	for first > 0 && l.Cells[first-1].Zone == zone {
		first--
	}
	for first+n < len(l.Cells) && l.Cells[first+n].Zone == zone {
		n++
	}
	return known[min(len(known)-1, (i-first)*len(known)/max(1, n))]
}

func cellOf(c *figure.Cell, mm3, w, t, edge, spine float64) forge.Cell {
	return forge.Cell{Zone: c.Zone, VolumeMm3: mm3, WidthMm: w, ThicknessMm: t, EdgeMm: edge, SpineMm: spine, TempC: 20}
}

func (p *profile) endMm() float64 {
	if n := len(p.slices); n > 0 {
		return p.slices[n-1].station.XMm
	}
	return 0
}

// shortOf tells whether a section of w × t can still become high × thick: it has to have the area; what it is too low
// by has to be there in thickness, to be spread; what it is too thin by in width, to be driven in on edge.
func shortOf(l *planner.Laid, w, t, high, thick float64) (Short, bool) {
	s := Short{ThickMm: math.Max(0, thick-t), HighMm: math.Max(0, high-w), Share: w * t / (high * thick)}
	if w*t < high*thick*(1-areaSlack)-highSlack*thickSlack {
		return s, true
	}
	if high > w+highSlack {
		spread := l.Setup.Smith.MostSpread(l.Method(), w)
		if t <= thick || math.Log(high/w) > spread*math.Log(t/thick)+.02 {
			return s, true
		}
	}
	if thick > t+thickSlack && t < gatherLeast*thick {
		return s, true
	}
	return s, false
}

// done tells of an operation whether nothing of it is left: it was done, and the piece is not thicker there than it leaves it,
// nor, at its ends, wider than it was to be by now, as it is where a point was lost.
func (l *laid) done(was map[string]bool, planned *laid) func(op *forge.Operation) bool {
	const thicker, wider, trued = 1.035, 1.0, .25 // judgement: what a hammer leaves, and what truing takes up
	return func(op *forge.Operation) bool {
		if !was[op.ID] {
			return false
		}
		if op.Targets == nil {
			return true
		}
		ends := op.Kind == forge.Point || op.Kind == forge.DrawTang || op.Kind == forge.SetDown
		by := wider
		if op.Kind == forge.SetUp {
			ends, by = true, trued
		}
		for i := op.First; i <= op.Last; i++ {
			c, to := &l.bar.Cells[i], &op.Targets[i-op.First]
			if c.ThicknessMm > to.ThicknessMm*thicker+thickSlack || ends && c.WidthMm > math.Max(to.WidthMm, planned.bar.Cells[i].WidthMm)+by {
				return false
			}
		}
		return true
	}
}

// worst of what is short.
func (l *laid) worst() *Short {
	var out *Short
	for i := range l.short {
		if s := &l.short[i]; out == nil || out.end && !s.end || s.end == out.end && s.Share < out.Share {
			out = &l.short[i]
		}
	}
	return out
}
