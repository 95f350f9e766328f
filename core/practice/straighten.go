package practice

import (
	"math"

	"coldember/core/fact"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// Taps that bend (judgement): softer and quicker than blows, as in plans; over how much of the piece one reaches.
const (
	tapShare   = .36
	tapRate    = 1.5
	tapReachMm = 40.0
)

// bendPerTap is by how much a tap bends a piece there, rad: its work over the moment at which the section gives way whole
// (thickness × width² × flow stress ÷ 4 on edge, width × thickness² ÷ 4 on the flat).
func (g *game) bendPerTap(a *Action) (rad float64, m cell) {
	m = g.section(&Action{AtMm: a.AtMm}, tapReachMm)
	flow := steel.NewFlow(g.grade.CarbonPct, m.tempC, 1)
	t := m.thick()
	moment := flow.StressMPa(.05) * g.grade.FlowFactor * m.wide * t * t / 4
	if a.Way == OnEdge {
		moment = moment * m.wide / t
	}
	return g.smith.BlowJ() * g.smith.LandShare * tapShare * 1000 / moment, m
}

// tap is what straightening and bending have in common: time goes by, and cold steel is harmed.
func (g *game) tap(a *Action, each func(c *cell, rad, atMm, longMm float64)) {
	if a.AtMm < 0 || a.AtMm > g.lengthMm() {
		g.say("coach.nothing", true, nil)
		return
	}
	g.lie(turnMoveS)
	cold := 0
	for range a.Blows {
		rad, m := g.bendPerTap(a)
		at := g.middles()
		first, last := g.under(&Action{AtMm: a.AtMm}, tapReachMm)
		long := 0.0
		for i := first; i <= last; i++ {
			long += g.cells[i].longMm()
		}
		for i := first; i <= last; i++ {
			c := &g.cells[i]
			each(c, rad, at[i], long)
			g.harm(c, rad/long*c.thick()/2, at[i])
		}
		if m.tempC < g.grade.ForgeLowC-lightUnderC {
			cold++
		}
		g.pass(1/(tapRate*g.smith.RatePerS), func(i int) thermal.Surface {
			if i >= first && i <= last {
				return underHammer()
			}
			return thermal.Air()
		})
	}
	g.blows += a.Blows
	g.coldOnes += cold
	g.look()
}

// lightUnderC is how far below the lower limit light taps may go on, as in plans.
const lightUnderC = 100

// straighten taps a curve out: on the flat a bow and a twist, on edge a sweep. No tap goes past straight.
func (g *game) straighten(a *Action) {
	before := g.line()
	toward := func(v *float64, by float64) {
		if math.Abs(*v) <= by {
			*v = 0
			return
		}
		*v -= math.Copysign(by, *v)
	}
	g.tap(a, func(c *cell, rad, _, long float64) {
		if a.Way == OnEdge {
			toward(&c.sweep, rad/long)
			return
		}
		toward(&c.bow, rad/long)
		toward(&c.twist, rad/long)
	})
	after := g.line()
	of := func(l []lineAt) (v float64) {
		for _, p := range l {
			d := math.Abs(p.bow)
			if a.Way == OnEdge {
				d = math.Abs(p.sweep)
			}
			v = math.Max(v, d)
		}
		return v
	}
	g.say("coach.straightened", false, fact.Figures{"fromMm": of(before), "toMm": of(after)})
}

// bendIt bends a piece over the horn: on edge away from its edge or toward it, on the flat toward its near or its far side.
func (g *game) bendIt(a *Action) {
	g.tap(a, func(c *cell, rad, _, long float64) {
		if a.Way == OnEdge {
			c.sweep -= a.sign() * rad / long // near: toward the edge
			return
		}
		c.bow += a.sign() * rad / long
	})
	most := 0.0
	for _, l := range g.line() {
		v := l.bow
		if a.Way == OnEdge {
			v = l.sweep
		}
		most = math.Max(most, math.Abs(v))
	}
	g.say("coach.bent", false, fact.Figures{"riseMm": most})
}

// brushS is how long a brush takes over the hot end (judgement).
const brushS = 3.0

// brush takes the scale off.
func (g *game) brush() {
	most := 0.0
	for i := range g.cells {
		most = math.Max(most, g.cells[i].scaleMm)
		g.cells[i].scaleMm = 0
	}
	g.lie(brushS)
	g.say("coach.brushed", false, fact.Figures{"scaleMm": most})
}
