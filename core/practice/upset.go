package practice

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// How long, in its thicknesses, a hot end may stand free under blows on it before it bends; and how far one blow drives it
// together at the most (judgement).
const (
	freeTimes   = 3.0
	mostUpset   = .06
	leastFreeMm = 4.0
)

// hotEnd is what gives way under a blow on the point: the cells from the point that are hot enough to forge.
func (g *game) hotEnd() (last int, freeMm, mm3 float64) {
	last = -1
	for i := range g.cells {
		c := &g.cells[i]
		if c.tempC < g.grade.ForgeLowC {
			break
		}
		last, freeMm, mm3 = i, freeMm+c.longMm(), mm3+c.mm3
	}
	return last, freeMm, mm3
}

// drive is one blow on the end: its work drives the hot end together, each cell by how soft it is (as forge does an upset). Where
// too much of it stands free it bends.
func (g *game) drive(energyJ float64) {
	last, free, volume := g.hotEnd()
	if last < 0 || free < leastFreeMm {
		return
	}
	thin := math.Inf(1)
	for i := range g.cells[:last+1] {
		thin = math.Min(thin, math.Min(g.cells[i].thick(), g.cells[i].wide))
	}
	if free > freeTimes*thin {
		g.fault(Buckle, free/2)
		g.say("coach.bends", true, fact.Figures{"freeMm": free, "limitMm": freeTimes * thin})
		return
	}
	stress, soft := make([]float64, last+1), 0.0
	mean := 0.0
	for i := range stress {
		c := &g.cells[i]
		f := steel.NewFlow(g.grade.CarbonPct, c.tempC, g.smith.SpeedMPerS*1000/(2*free))
		stress[i] = f.StressMPa(mostStrain) * g.grade.FlowFactor
		mean += stress[i] * c.mm3 / volume
		soft += c.mm3 / stress[i]
	}
	q := forge.Redundancy(free, math.Sqrt(g.cells[0].wide*g.cells[0].thick()))
	strain := math.Min(mostUpset, energyJ*1000/(mean*q*volume))
	for i := range stress {
		c := &g.cells[i]
		e := strain * volume / (stress[i] * soft)
		k := math.Exp(e / 2)
		c.wide, c.edge, c.spine = c.wide*k, c.edge*k, c.spine*k
	}
	g.overlap(&g.cells[0], free/thin, strain, g.cells[0].longMm()/2)
}

// strikeEnd lets the hammer fall on the point so often.
func (g *game) strikeEnd(a *Action) {
	before := g.lengthMm()
	was := g.cells[0]
	g.lie(turnMoveS)
	cold := 0
	for range a.Blows {
		if last, free, _ := g.hotEnd(); last < 0 || free < leastFreeMm {
			cold++
		}
		if g.rng.Float64() < g.smith.LandShare {
			g.drive(g.smith.BlowJ())
		}
		g.lie(1 / g.smith.RatePerS)
	}
	g.blows += a.Blows
	g.coldOnes += cold
	g.say("coach.driven", false, fact.Figures{"shorterMm": before - g.lengthMm(), "fromMm": was.thick(), "toMm": g.cells[0].thick()})
	if cold > 0 {
		g.say("coach.cold", true, fact.Figures{"tempC": g.cells[0].tempC, "lowC": g.grade.ForgeLowC})
	}
	g.look()
}
