package practice

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/section"
)

// leastEdgeMm is as thin as an edge is forged here.
const leastEdgeMm = .4

// halfAtEdge is how thick the half of a section at its edge is on the mean.
func halfAtEdge(c *cell) float64 { return (3*c.edge + c.spine) / 4 }

// bend is the curve that bevelling has given a section so far, by the law of plans.
func (g *game) bend(c *cell, method forge.Method) float64 {
	if c.edge >= bevelledShare*c.spine {
		return 0
	}
	s := section.Section{Kind: section.Flat, HeightMm: c.wide, SpineMm: c.spine, EdgeMm: c.edge, BevelHeightMm: c.wide}
	return forge.BevelBend(s, c.spine, g.smith.BevelSpread(method, c.wide), g.smith.Bends(), 1).CurvaturePerMm
}

// bevel is a blow on the edge half from one side: it thins the edge, spreads the section by the school of bevelling, and lengthens
// the edge more than the spine, which bends it as plans say. What one side gets more than the other puts the edge off the middle,
// bows the bar and twists it.
func (g *game) bevel(c *cell, strain float64, a *Action) {
	was, bent := c.thick(), g.bend(c, a.method())
	half := halfAtEdge(c) * math.Exp(-strain)
	c.edge = math.Max(leastEdgeMm, (4*half-c.spine)/3)
	thinned := math.Log(was / c.thick())
	c.wide *= math.Exp(g.smith.BevelSpread(a.method(), c.wide) * thinned)
	c.sweep += g.bend(c, a.method()) - bent
	side := a.sign() * thinned
	c.side += a.sign() * strain
	c.bow += bowShare * side / c.thick()
	c.twist += twistShare * side / c.wide
}

// Corners (judgement): how much less sharp a blow at 45° leaves them; up to how wide for its thickness a bar stands on one; how
// far from an end they are knocked in; and how sharp they count as broken.
const (
	easesBy     = .34
	standsAt    = 1.6
	brokenUnder = .5
)

// rolls tells whether a bar laid on a corner rolls over onto its flat: a wide one does, but for its end, which is knocked in there.
func (g *game) rolls(a *Action, c *cell) bool {
	end := math.Min(a.AtMm, g.lengthMm()-a.AtMm) < c.wide
	if end || c.wide/c.thick() < standsAt || c.sharp > brokenUnder {
		return false
	}
	g.say("coach.rolls", true, fact.Figures{"ratioTimes": c.wide / c.thick(), "limitTimes": standsAt})
	return true
}

// corner is a blow at 45°: it breaks the corners; at an end it knocks them in, the more the nearer the end; and a square is
// drawn by it both ways.
func (g *game) corner(c *cell, strain, atMm float64, tool forge.Tool) {
	c.sharp = math.Max(0, c.sharp-easesBy)
	fromEnd := math.Min(atMm, g.lengthMm()-atMm)
	switch {
	case fromEnd < c.wide && c.wide > c.thick()*standsAt:
		g.narrow(c, strain*(1-fromEnd/c.wide), tool, 0)
	case c.wide < c.thick()*standsAt:
		c.thin(strain / 2)
		c.wide *= math.Exp(-strain / 2)
	}
}

// Skin over sharp corners (judgement): from how high for its contact the outside runs ahead of the middle (as the warning of
// plans), how far until it is a lip, and what strain on it strikes it in. A free end folds from so wide for its thickness, so far
// from it.
const (
	lipRatio      = 2.0
	lipStrain     = .12
	foldsInStrain = .02
	foldsAt       = 4.5
	endMm         = 12.0
)

// runAhead lets the skin of an end with sharp corners run over it under a blow that does not reach its middle.
func (g *game) runAhead(c *cell, strain, atMm float64) {
	ratio := c.wide / c.thick()
	if fromEnd := math.Min(atMm, g.lengthMm()-atMm); fromEnd > c.thick()*2 {
		return
	}
	g.overlap(c, ratio, strain, atMm)
}

// overlap adds to the lip of a cell.
func (g *game) overlap(c *cell, ratio, strain, atMm float64) {
	if c.sharp <= brokenUnder || ratio <= lipRatio || strain <= 0 {
		return
	}
	was := c.lip
	c.lip += strain * (ratio - lipRatio)
	if was <= lipStrain && c.lip > lipStrain {
		g.fault(Lip, atMm)
		g.say("coach.lip", true, fact.Figures{"ratioTimes": ratio, "limitTimes": lipRatio})
	}
}
