package practice

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// toolOf is what meets the steel in an action, over its support.
func (g *game) toolOf(a *Action) forge.Tool {
	t := g.smith.Tool(a.Face)
	switch a.Way {
	case OnEdge:
		t = g.smith.Tool(forge.OnEdge)
	case Bevel:
		t = g.smith.Tool(forge.BevelFace)
	case Corner:
		t = g.smith.Tool(forge.FlatFace)
	}
	if a.Support == forge.OverEdge && a.Way == Flat { // half on, half off
		return g.smith.Tool(forge.AnvilEdge)
	}
	k := a.Support.Share()
	t.BiteMm, t.SpreadMm = t.BiteMm*k, t.SpreadMm*k
	return t
}

// underHammerWPerM2K is the contact of the anvil with what lies under the hammer, where it is pressed onto it at every
// blow: more than on the mean of a stretch (judgement: 100–200).
const underHammerWPerM2K = 120.0

func underHammer() thermal.Surface {
	s := thermal.Air()
	s.AnvilWPerM2K = underHammerWPerM2K
	return s
}

// strike lets the hammer fall so often on a place.
func (g *game) strike(a *Action) {
	if a.Way == OnEnd {
		g.strikeEnd(a)
		return
	}
	tool := g.toolOf(a)
	length := g.lengthMm()
	if a.AtMm < -tool.BiteMm/2 || a.AtMm > length+tool.BiteMm/2 {
		g.say("coach.nothing", true, nil)
		return
	}
	before := g.section(a, tool.BiteMm)
	g.lie(turnMoveS)
	if a.Way == Corner && g.rolls(a, &before) {
		return
	}
	cold, rate := 0, g.smith.RatePerS
	for range a.Blows {
		first, last := g.under(a, tool.BiteMm)
		if s := g.section(a, tool.BiteMm); s.tempC < g.grade.ForgeLowC {
			cold++
		}
		if g.rng.Float64() < g.smith.LandShare { // else it moves the piece, not the steel
			g.blow(a, tool, g.smith.BlowJ())
		}
		g.pass(1/rate, func(i int) thermal.Surface {
			if i >= first && i <= last {
				return underHammer()
			}
			return thermal.Air()
		})
	}
	g.blows += a.Blows
	g.coldOnes += cold
	g.look()
	g.tell(a, &before, g.section(a, tool.BiteMm), cold)
}

// tell says what an action did, and what is to be minded.
func (g *game) tell(a *Action, before *cell, after cell, cold int) {
	f := fact.Figures{"fromMm": before.thick(), "toMm": after.thick(), "wideMm": after.wide, "byMm": after.wide - before.wide, "tempC": after.tempC, "lowC": g.grade.ForgeLowC}
	switch a.Way {
	case OnEdge:
		f["fromMm"], f["toMm"], f["byMm"] = before.wide, after.wide, after.thick()-before.thick()
		g.say("coach.narrowed", false, f)
	case Bevel:
		f["fromMm"], f["toMm"] = before.edge, after.edge
		g.say("coach.bevelled", false, f)
	case Corner:
		g.say("coach.cornered", false, fact.Figures{"wideMm": after.wide, "sharpShare": after.sharp})
	default:
		g.say("coach.thinned", false, f)
	}
	switch ratio := before.wide / before.thick(); {
	case cold > 0:
		g.say("coach.cold", true, fact.Figures{"tempC": after.tempC, "lowC": g.grade.ForgeLowC})
	case a.Way == OnEdge && ratio > tallEdge:
		g.say("coach.tall", true, fact.Figures{"ratioTimes": ratio})
	case math.Abs(after.side) > unevenStrain/2:
		g.say("coach.otherSide", true, fact.Figures{"strainTimes": math.Abs(after.side)})
	case after.tempC < g.grade.ForgeLowC+40:
		g.say("coach.back", true, fact.Figures{"tempC": after.tempC, "lowC": g.grade.ForgeLowC})
	}
}

// lie lets time go by in the air.
func (g *game) lie(seconds float64) {
	g.pass(seconds, func(int) thermal.Surface { return thermal.Air() })
}

// under are the cells under a tool. Over the edge of the anvil only what lies beyond it toward the nearer end is struck.
func (g *game) under(a *Action, biteMm float64) (first, last int) {
	first, last = len(g.cells), -1
	half := g.lengthMm() / 2
	for i, x := range g.middles() {
		beyond := a.Support != forge.OverEdge || (x < a.AtMm) == (a.AtMm < half)
		reach := biteMm / 2
		if a.Support == forge.OverEdge {
			reach = biteMm
		}
		if beyond && math.Abs(x-a.AtMm) <= reach {
			first, last = min(first, i), max(last, i)
		}
	}
	return first, last
}

// section is the mean of what lies under a tool.
func (g *game) section(a *Action, biteMm float64) (c cell) {
	first, last := g.under(a, biteMm)
	n := float64(last - first + 1)
	for i := first; i <= last; i++ {
		o := &g.cells[i]
		c.wide, c.edge, c.spine, c.tempC = c.wide+o.wide/n, c.edge+o.edge/n, c.spine+o.spine/n, c.tempC+o.tempC/n
		c.side, c.sharp = c.side+o.side/n, c.sharp+o.sharp/n
	}
	return c
}

// contact is what a blow meets: how high and broad the steel stands there, and over what it is shared out.
type contact struct {
	first, last       int
	mean              cell
	highMm            float64
	breadthMm         float64 // of the contact, across the bar
	ofBreadth         float64 // of the whole width that it meets
	weights           []float64
	strain, riseC     float64
	wholeMm3, weighed float64
}

// meets works the law of a stroke out for what lies under the tool, shared out among the cells by how high they stand, and
// more in the middle of the face than at its rim.
func (g *game) meets(a *Action, tool forge.Tool, energyJ float64) (m contact, ok bool) {
	if m.first, m.last = g.under(a, tool.BiteMm); m.last < m.first {
		return m, false
	}
	m.mean = g.section(a, tool.BiteMm)
	broad := m.mean.wide
	high := func(c *cell) float64 { return c.thick() }
	switch a.Way {
	case OnEdge:
		high, broad = func(c *cell) float64 { return c.wide }, m.mean.thick()
	case Bevel: // the half of the width that is at the edge
		high, broad = halfAtEdge, m.mean.wide/2
	case Flat:
		if m.mean.edge < bevelledShare*m.mean.spine { // the spine alone stands up
			high, broad = func(c *cell) float64 { return c.spine }, m.mean.wide/2
		}
	}
	m.highMm = high(&m.mean)
	bite := 0.0
	for i := m.first; i <= m.last; i++ {
		bite += g.cells[i].longMm()
	}
	m.breadthMm = math.Min(tool.BreadthMm, broad)
	flow := steel.NewFlow(g.grade.CarbonPct, m.mean.tempC, g.smith.SpeedMPerS*1000/(2*m.highMm))
	s := forge.Stroke{HeightMm: m.highMm, BiteMm: bite, BreadthMm: m.breadthMm, StressMPa: flow.StressMPa(mostStrain) * g.grade.FlowFactor, UsefulJ: energyJ, TargetMm: .2, TempC: m.mean.tempC}
	struck := s.Strike()
	m.strain, m.riseC, m.ofBreadth = struck.Strain, struck.RiseC, m.breadthMm/broad
	at := g.middles()
	for i := m.first; i <= m.last; i++ {
		c := &g.cells[i]
		u := 2 * math.Abs(at[i]-a.AtMm) / tool.BiteMm
		if a.Support == forge.OverEdge {
			u = 0
		}
		w := (1 - (1-rimWeight)*math.Min(1, u*u)) * math.Pow(high(c)/m.highMm, 4)
		m.weights = append(m.weights, w)
		m.weighed += w * c.mm3
		m.wholeMm3 += c.mm3
	}
	return m, true
}

// share of the strain that cell i takes.
func (m *contact) share(i int) float64 {
	return m.strain * m.weights[i-m.first] * m.wholeMm3 / m.weighed * m.ofBreadth
}

// blow is one blow that lands.
func (g *game) blow(a *Action, tool forge.Tool, energyJ float64) {
	m, ok := g.meets(a, tool, energyJ)
	if !ok {
		return
	}
	at := g.middles()
	leans := g.leans(a, &m, at)
	for i := m.first; i <= m.last; i++ {
		c := &g.cells[i]
		strain := m.share(i)
		if leans { // it goes over, and nothing is narrowed
			strain = 0
		}
		g.pressIn(c, strain, at[i])
		switch a.Way {
		case OnEdge:
			g.runAhead(c, strain, at[i])
			g.narrow(c, strain, tool, a.sign())
		case Bevel:
			g.bevel(c, strain, a)
		case Corner:
			g.corner(c, strain, at[i], tool)
		default:
			g.flatten(c, strain, tool, a.sign(), at[i])
		}
		c.tempC += m.riseC
		g.harm(c, strain, at[i])
	}
}

// Curves that uneven work leaves (judgement): of a blow on one face, in its strain over the thickness; on one edge, over the width;
// and the twist of a bevel from one side, over the width.
const (
	bowShare     = .02
	edgeBowShare = .03
	twistShare   = .002
)

// flatten is a blow on a face.
func (g *game) flatten(c *cell, strain float64, tool forge.Tool, side, atMm float64) {
	spread := tool.Spread(c.wide) * g.spreads()
	c.thin(strain)
	c.wide *= math.Exp(spread * strain)
	c.bow += side * bowShare * strain / c.thick()
	if c.lip > lipStrain && strain > foldsInStrain { // it is struck in
		g.fault(ColdShut, atMm)
		g.say("coach.coldShut", true, nil)
		c.lip = 0
	}
}

// narrow is a blow on an edge.
func (g *game) narrow(c *cell, strain float64, tool forge.Tool, side float64) {
	spread := tool.Spread(c.thick()) * g.spreads()
	c.wide *= math.Exp(-strain)
	k := math.Exp(spread * strain)
	c.edge, c.spine = c.edge*k, c.spine*k
	c.sweep += side * edgeBowShare * strain / c.wide
}

// spreads is how much more or less than the law this hand spreads.
func (g *game) spreads() float64 {
	if f := g.smith.SpreadFactor; f > 0 {
		return f
	}
	return 1
}

// leans tells whether a bar on edge goes over under the blow: a free end folds sooner.
func (g *game) leans(a *Action, m *contact, at []float64) bool {
	if a.Way != OnEdge {
		return false
	}
	ratio := m.mean.wide / m.mean.thick()
	end := math.Min(a.AtMm, g.lengthMm()-a.AtMm) < endMm
	switch {
	case end && ratio > foldsAt:
		g.fault(Fold, at[m.first])
		g.say("coach.fold", true, fact.Figures{"ratioTimes": ratio})
		return true
	case !end && ratio > tallestEdge:
		g.fault(Buckle, at[(m.first+m.last)/2])
		g.say("coach.buckle", true, fact.Figures{"ratioTimes": ratio})
		return true
	}
	return false
}

// harm is what cold steel takes of a strain.
func (g *game) harm(c *cell, strain, atMm float64) {
	low := g.grade.ForgeLowC
	if c.tempC >= low || strain <= 0 {
		return
	}
	c.damage += strain / bears(c.tempC, low)
	if c.damage >= 1 && !c.cracked {
		c.cracked = true
		g.fault(Crack, atMm)
		g.say("coach.crack", true, fact.Figures{"tempC": c.tempC, "lowC": low})
	}
}

// bears is how much strain steel bears below the lower limit of forging before it cracks: little at room temperature, much
// just under the limit (judgement).
func bears(tempC, lowC float64) float64 {
	u := math.Max(0, math.Min(1, (tempC-thermal.AmbientC)/(lowC-thermal.AmbientC)))
	return crackCold * math.Pow(crackWarm/crackCold, u)
}

// pressIn strikes the scale on a cell into it, and the rest off it.
func (g *game) pressIn(c *cell, strain, atMm float64) {
	if strain <= 0 || c.scaleMm <= 0 {
		return
	}
	if c.scaleMm > scaleBearsMm {
		c.pitMm = math.Max(c.pitMm, c.scaleMm*pressedShare)
		if c.pitMm > pitDeepMm {
			g.fault(Pits, atMm)
		}
	}
	c.scaleMm = 0
}

// Scale (judgement): thinner than this it flies off; of thicker so much of its depth is struck in.
const (
	scaleBearsMm = .08
	pressedShare = .6
)
