package practice

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// strike lets the hammer fall so often on a place.
func (g *game) strike(a *Action) {
	if a.Way == OnEnd {
		g.strikeEnd(a)
		return
	}
	tool := g.smith.Tool(a.Face)
	if a.Way == OnEdge {
		tool = g.smith.Tool(forge.OnEdge)
	}
	length := g.lengthMm()
	if a.AtMm < -tool.BiteMm/2 || a.AtMm > length+tool.BiteMm/2 {
		g.say("coach.nothing", true, nil)
		return
	}
	before := g.section(a.AtMm, tool.BiteMm)
	g.lie(turnMoveS)
	cold, done, rate := 0, 0, g.smith.RatePerS
	for range a.Blows {
		at, energy := a.AtMm, g.smith.UsefulJ()
		if g.rng.Float64() > g.smith.LandShare { // it does not land well
			energy *= glancesKeep
			at += glancesMm * (2*g.rng.Float64() - 1)
		}
		first, last := g.under(at, tool.BiteMm)
		if g.blow(a.Way, tool, at, energy) {
			cold++
		}
		done++
		g.pass(1/rate, func(i int) thermal.Surface {
			if i >= first && i <= last {
				return thermal.OnAnvil()
			}
			return thermal.Air()
		})
	}
	g.blows += done
	g.coldOnes += cold
	after := g.section(a.AtMm, tool.BiteMm)
	f := fact.Figures{"fromMm": before.thick, "toMm": after.thick, "wideMm": after.wide, "byMm": after.wide - before.wide, "tempC": after.tempC, "lowC": g.grade.ForgeLowC}
	if a.Way == OnEdge {
		f["fromMm"], f["toMm"], f["byMm"] = before.wide, after.wide, after.thick-before.thick
		g.say("coach.narrowed", false, f)
	} else {
		g.say("coach.thinned", false, f)
	}
	switch ratio := before.wide / before.thick; {
	case cold > 0:
		g.say("coach.cold", true, fact.Figures{"tempC": after.tempC, "lowC": g.grade.ForgeLowC})
	case a.Way == OnEdge && ratio > tallEdge:
		g.say("coach.tall", true, fact.Figures{"ratioTimes": ratio})
	case after.tempC < g.grade.ForgeLowC+40:
		g.say("coach.back", true, fact.Figures{"tempC": after.tempC, "lowC": g.grade.ForgeLowC})
	}
	g.look()
}

// lie lets time go by in the air.
func (g *game) lie(seconds float64) {
	g.pass(seconds, func(int) thermal.Surface { return thermal.Air() })
}

// under are the cells under a tool.
func (g *game) under(atMm, biteMm float64) (first, last int) {
	first, last = len(g.cells), -1
	for i, x := range g.middles() {
		if math.Abs(x-atMm) <= biteMm/2 {
			first, last = min(first, i), max(last, i)
		}
	}
	return first, last
}

// section is the mean of what lies under a tool.
func (g *game) section(atMm, biteMm float64) (c cell) {
	first, last := g.under(atMm, biteMm)
	n := float64(last - first + 1)
	for i := first; i <= last; i++ {
		c.wide, c.thick, c.tempC = c.wide+g.cells[i].wide/n, c.thick+g.cells[i].thick/n, c.tempC+g.cells[i].tempC/n
	}
	return c
}

// blow is one blow: the law of a stroke on what lies under the tool, shared out among the cells by how high they stand, and
// more in the middle of the face than at its rim. It answers whether any of it was too cold.
func (g *game) blow(way Way, tool forge.Tool, atMm, energyJ float64) (cold bool) {
	first, last := g.under(atMm, tool.BiteMm)
	if last < first {
		return false
	}
	at := g.middles()
	mean := g.section(atMm, tool.BiteMm)
	high, broad := mean.thick, mean.wide
	if way == OnEdge {
		high, broad = mean.wide, mean.thick
	}
	bite := 0.0
	for i := first; i <= last; i++ {
		bite += g.cells[i].longMm()
	}
	breadth := math.Min(tool.BreadthMm, broad)
	flow := steel.NewFlow(g.grade.CarbonPct, mean.tempC, g.smith.SpeedMPerS*1000/(2*high))
	s := forge.Stroke{HeightMm: high, BiteMm: bite, BreadthMm: breadth, StressMPa: flow.StressMPa(mostStrain) * g.grade.FlowFactor, UsefulJ: energyJ, TargetMm: .2, TempC: mean.tempC}
	struck := s.Strike()
	leans := way == OnEdge && mean.wide/mean.thick > tallestEdge
	// what stands high is struck first: each cell by how far it stands over the lowest, and by its place under the face
	weights, sum := make([]float64, last-first+1), 0.0
	for i := first; i <= last; i++ {
		c := &g.cells[i]
		h := c.thick
		if way == OnEdge {
			h = c.wide
		}
		u := 2 * math.Abs(at[i]-atMm) / tool.BiteMm
		w := (1 - (1-rimWeight)*u*u) * math.Pow(h/high, 4)
		weights[i-first] = w
		sum += w * c.mm3
	}
	whole := 0.0
	for i := first; i <= last; i++ {
		whole += g.cells[i].mm3
	}
	for i := first; i <= last; i++ {
		c := &g.cells[i]
		strain := struck.Strain * weights[i-first] * whole / sum * breadth / broad
		if leans { // it leans over, and nothing is narrowed
			g.fault(Buckle, at[i])
			strain = 0
		}
		spread := tool.Spread(c.wide)
		if way == OnEdge {
			spread = tool.Spread(c.thick)
			c.wide *= math.Exp(-strain)
			c.thick *= math.Exp(spread * strain)
		} else {
			c.thick *= math.Exp(-strain)
			c.wide *= math.Exp(spread * strain)
		}
		c.tempC += struck.RiseC
		if low := g.grade.ForgeLowC; c.tempC < low && strain > 0 {
			c.damage += strain / bears(c.tempC, low)
			if c.damage >= 1 && !c.cracked {
				c.cracked = true
				g.fault(Crack, at[i])
				g.say("coach.crack", true, fact.Figures{"tempC": c.tempC, "lowC": low})
			}
		}
	}
	if leans {
		g.say("coach.buckle", true, fact.Figures{"ratioTimes": mean.wide / mean.thick})
	}
	return mean.tempC < g.grade.ForgeLowC
}

// bears is how much strain steel bears below the lower limit of forging before it cracks: little at room temperature, much
// just under the limit (judgement).
func bears(tempC, lowC float64) float64 {
	u := math.Max(0, math.Min(1, (tempC-thermal.AmbientC)/(lowC-thermal.AmbientC)))
	return crackCold * math.Pow(crackWarm/crackCold, u)
}

// look finds places that lie much lower than what is beside them, and forgets those that were worked out.
func (g *game) look() {
	kept := g.faults[:0]
	for _, f := range g.faults {
		if f.Kind != Gouge {
			kept = append(kept, f)
		}
	}
	g.faults = kept
	at := g.middles()
	for i := range g.cells {
		left, right := -1.0, -1.0
		for j := range g.cells {
			switch d := at[j] - at[i]; {
			case d < 0 && d >= -gougeOverMm:
				left = math.Max(left, g.cells[j].thick)
			case d > 0 && d <= gougeOverMm:
				right = math.Max(right, g.cells[j].thick)
			}
		}
		if left > 0 && right > 0 && g.cells[i].thick < gougeShare*math.Min(left, right) {
			g.fault(Gouge, at[i])
		}
	}
}
