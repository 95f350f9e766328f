package practice

import (
	"math"
	"math/rand/v2"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// cell is a slice of the bar that moves together. Its edge and its spine are the thicknesses at the two ends of its
// width, alike until it is bevelled.
type cell struct {
	mm3, wide, edge, spine, tempC float64
	damage                        float64 // of cold work: it cracks at 1
	burnt, cracked                bool
	sharp                         float64 // how sharp its corners are: 1 as rolled, 0 broken
	lip                           float64 // how far its skin has run ahead over sharp corners, as strain
	scaleMm, pitMm                float64 // on it since it was brushed; struck into it
	side                          float64 // strain of bevels by blows on its near side, over that on its far side
	sweep, bow                    float64 // 1/mm: of its line away from the edge, and toward the near side
	twist                         float64 // rad/mm
	keptMm                        float64 // thickness that has to stay, of a ricasso; 0: none
}

// thick is its thickness on the mean.
func (c *cell) thick() float64 { return (c.edge + c.spine) / 2 }

// thin makes it so much thinner, by its true strain: where it is bevelled, the spine stands up and is struck first.
func (c *cell) thin(strain float64) {
	t := c.thick() * math.Exp(-strain)
	if spine := 2*t - c.edge; c.edge < bevelledShare*c.spine && spine > c.edge {
		c.spine = spine
		return
	}
	k := t / c.thick()
	c.edge, c.spine = c.edge*k, c.spine*k
}

// bevelledShare of the spine is what an edge is under that counts as bevelled.
const bevelledShare = .97

func (c *cell) longMm() float64 { return c.mm3 / (c.wide * c.thick()) }

// Said is what the coach says of the last action.
type Said struct {
	Code    string       `json:"code"`
	Figures fact.Figures `json:"figures,omitempty"`
	Warns   bool         `json:"warns,omitempty"`
}

// How the play is laid out, and what steel bears (judgement, but the lengths): cells of so much; a step of heat and of cold; how
// wide for its thickness a bar stands a blow on edge, and how far it leans from then on; how deep a place may lie under its
// neighbours before it is a gouge; how strained cold steel cracks, at room temperature and at the lower limit of forging; how far
// over its upper limit steel burns. A blow that does not land well moves the piece and not the steel, as in plans.
const (
	cellMm      = 2.5
	heatStepS   = .5
	tallEdge    = 3.0
	tallestEdge = 6.0
	gougeShare  = .88
	gougeOverMm = 12.0
	crackCold   = .05
	crackWarm   = .9
	burnsOverC  = 120.0
	edgeLeads   = .5  // of the way to the fire that a thin edge is ahead of its cell, per share that it is thinner
	turnMoveS   = 1.3 // a turn of the piece and a move along it, before the first blow of an action
	mostStrain  = .33
	rimWeight   = .5 // of a tool's face at its rim, over its middle
)

// game is a piece that is played.
type game struct {
	ex    *Exercise
	grade steel.Grade
	smith forge.Smith
	cells []cell
	rng   *rand.Rand

	timeS, scaleMm3        float64
	heats, blows, coldOnes int
	faults                 []Fault
	said                   []Said
}

func newGame(ex *Exercise, seed uint64) (*game, error) {
	var grade steel.Grade
	if ex.grade != nil {
		grade = *ex.grade
	} else if g, err := steel.Find(ex.SteelID); err == nil {
		grade = g
	} else {
		return nil, err
	}
	g := &game{ex: ex, grade: grade, smith: forge.NewSmith(forge.Steady), rng: rand.New(rand.NewPCG(seed, 0xf1))}
	if ex.smith != nil {
		g.smith = *ex.smith
	}
	n := max(4, int(math.Round(ex.LengthMm/cellMm)))
	for range n {
		g.cells = append(g.cells, cell{mm3: ex.WidthMm * ex.ThicknessMm * ex.LengthMm / float64(n), wide: ex.WidthMm, edge: ex.ThicknessMm, spine: ex.ThicknessMm, sharp: 1, tempC: thermal.AmbientC})
	}
	if ex.begin != nil {
		ex.begin(g)
	}
	if ex.kept != nil {
		ex.kept(g)
	}
	g.look()
	return g, nil
}

func (g *game) say(code string, warns bool, f fact.Figures) {
	g.said = append(g.said, Said{code, f, warns})
}

func (g *game) lengthMm() float64 {
	sum := 0.0
	for i := range g.cells {
		sum += g.cells[i].longMm()
	}
	return sum
}

// middles are where the cells lie, from the point.
func (g *game) middles() []float64 {
	out, x := make([]float64, len(g.cells)), 0.0
	for i := range g.cells {
		l := g.cells[i].longMm()
		out[i] = x + l/2
		x += l
	}
	return out
}

// pass lets time go by: every cell in what is round it, and heat runs along. Those under the hammer lie on the anvil.
func (g *game) pass(seconds float64, around func(i int) thermal.Surface) {
	g.timeS += seconds
	for left := seconds; left > 1e-9; left -= heatStepS {
		dt := math.Min(heatStepS, left)
		was := make([]float64, len(g.cells))
		for i := range g.cells {
			c := &g.cells[i]
			c.tempC = around(i).Step(c.wide, c.thick(), c.tempC, dt)
			was[i] = c.tempC
		}
		for i := range g.cells {
			c := &g.cells[i]
			flow := 0.0 // W, into this cell
			for _, j := range []int{i - 1, i + 1} {
				if j < 0 || j >= len(g.cells) {
					continue
				}
				o := &g.cells[j]
				area := math.Min(c.wide*c.thick(), o.wide*o.thick())
				flow += thermal.ConductivityWPerMK((was[i]+was[j])/2) * area / 1000 * (was[j] - was[i]) / ((c.longMm() + o.longMm()) / 2)
			}
			heat := thermal.DensityKgPerM3 * c.mm3 * 1e-9 * thermal.SpecificHeat(was[i])
			// no further than to the middle between it and its neighbours: a thin cell would swing
			c.tempC = was[i] + math.Max(-60, math.Min(60, flow*dt/heat))
		}
	}
}

// fire holds the piece in the fire: its hot length about a place, or what of it there is from an end, is heated; the rest lies
// in the air.
func (g *game) fire(seconds, aboutMm float64) {
	g.heats++
	at := g.middles()
	from := math.Max(0, math.Min(aboutMm-g.ex.HotMm/2, g.lengthMm()-g.ex.HotMm))
	forgeAt, air := thermal.Forge(g.ex.FireC), thermal.Air()
	atmosphere := g.ex.atmosphere
	if atmosphere == 0 {
		atmosphere = thermal.AtmosphereNeutral
	}
	clocks := make([]thermal.ScaleClock, len(g.cells))
	for left := seconds; left > 1e-9; left -= heatStepS {
		dt := math.Min(heatStepS, left)
		g.pass(dt, func(i int) thermal.Surface {
			if at[i] >= from && at[i] <= from+g.ex.HotMm {
				return forgeAt
			}
			return air
		})
		for i := range g.cells {
			clocks[i].Add(g.cells[i].tempC, dt, atmosphere)
		}
	}
	hottest := 0.0
	for i := range g.cells {
		c := &g.cells[i]
		hottest = math.Max(hottest, g.edgeC(c))
		g.scaleOff(c, clocks[i].LossMm())
		if g.edgeC(c) > g.grade.ForgeHighC+burnsOverC && !c.burnt {
			c.burnt = true
			g.fault(Burnt, at[i])
		}
	}
	switch {
	case g.has(Burnt):
		g.say("coach.burnt", true, fact.Figures{"tempC": hottest, "limitC": g.grade.ForgeHighC})
	case hottest > g.grade.ForgeHighC:
		g.say("coach.tooHot", true, fact.Figures{"tempC": hottest, "limitC": g.grade.ForgeHighC})
	case hottest < g.grade.ForgeLowC+50:
		g.say("coach.notYet", true, fact.Figures{"tempC": hottest, "lowC": g.grade.ForgeLowC})
	default:
		g.say("coach.hot", false, fact.Figures{"tempC": hottest})
	}
}

// edgeC is how hot the edge of a cell is in the fire: thin, it runs ahead of the rest.
func (g *game) edgeC(c *cell) float64 {
	return c.tempC + edgeLeads*math.Max(0, 1-c.edge/c.thick())*math.Max(0, g.ex.FireC-c.tempC)
}

// scaleOff takes scale of a depth off all faces of a cell, its length kept; it stays on it until it is brushed or struck off.
func (g *game) scaleOff(c *cell, mm float64) {
	if l, t := c.longMm(), c.thick(); mm > 0 && mm < .3*math.Min(math.Min(c.edge, t), c.wide) {
		was := c.mm3
		k := (t - 2*mm) / t
		c.wide, c.edge, c.spine = c.wide-2*mm, c.edge*k, c.spine*k
		c.mm3 = l * c.wide * c.thick()
		c.scaleMm += mm
		g.scaleMm3 += was - c.mm3
	}
}
