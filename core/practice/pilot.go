package practice

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"

	"coldember/core/forge"
)

// How the pilot looks ahead (judgement): blows of one action, places along the bar, what is worth doing, how hot it wants the
// steel, and how often it goes to the fire in vain before it gives up.
const (
	pilotBlows   = 3
	pilotStepMm  = 6.0
	worthDoing   = 1e-4
	pilotHotC    = 1060.0
	pilotSpareC  = 25.0
	pilotInVain  = 3
	pilotActions = 500
	faultWeighs  = 50.0
	straysWeigh  = .6
	sharpWeighs  = .08
)

// overWeighs is by how much more it weighs to have gone too far than to have it still to do.
var overWeighs = map[What]float64{Wide: 1.5, Thick: 2, Edge: 2}

// clone is a piece to try things on: every blow lands as much as blows do on the mean, so that what is tried is what is to be
// expected.
func (g *game) clone() *game {
	out := *g
	out.cells, out.faults, out.said = slices.Clone(g.cells), slices.Clone(g.faults), nil
	out.rng = rand.New(rand.NewPCG(1, 1))
	factor := out.smith.EnergyFactor
	if factor == 0 {
		factor = 1
	}
	out.smith.EnergyFactor, out.smith.LandShare = factor*out.smith.LandShare, 1
	return &out
}

// wrong is how far a piece is from its goals, all of it summed up; what is gone too far weighs more than what is to come.
func (g *game) wrong() (sum float64) {
	at := g.middles()
	for _, goal := range g.ex.Goals {
		sum += g.missing(goal, at)
	}
	length := g.lengthMm()
	for i := range g.cells {
		c := &g.cells[i]
		sum += c.side * c.side / 2
		if math.Min(at[i], length-at[i]) < 3*c.thick() && c.wide > lipRatio*c.thick() {
			sum += sharpWeighs * c.sharp // a lip waits there
		}
	}
	blamed := !g.ex.bends || g.straightWanted()
	for _, l := range g.line() {
		v := l.bow / bowMm
		sum += straysWeigh * v * v / float64(len(g.cells))
		if blamed {
			v = l.sweep / sweepMm
			sum += straysWeigh * v * v / float64(len(g.cells))
		}
	}
	for _, f := range g.faults {
		if !f.Kind.Mends() {
			sum += faultWeighs
		}
	}
	return sum + faultWeighs*float64(g.coldOnes)
}

// missing is how far a piece is from one goal.
func (g *game) missing(goal Goal, at []float64) (sum float64) {
	switch goal.What {
	case NoCold:
		return 0
	case Long:
		return math.Max(0, (goal.WantMm-g.lengthMm())/goal.WithinMm) / 4
	case Straight:
		v := g.strayMm() / goal.WithinMm
		return v * v / 4
	case Broken:
		for i, x := range at {
			if x >= goal.FromMm && x <= goal.ToMm {
				sum += math.Max(0, g.cells[i].sharp-.3) / 10
			}
		}
		return sum
	}
	n, off, worst := 0.0, 0.0, 0.0
	for i, x := range at {
		if x < goal.FromMm || x > goal.ToMm {
			continue
		}
		d := (goal.What.of(&g.cells[i]) - goal.at(x)) / goal.WithinMm
		if d < 0 {
			d *= overWeighs[goal.What]
		}
		n, off, worst = n+1, off+d*d, math.Max(worst, math.Abs(d))
	}
	if n == 0 {
		return 0
	}
	return off/n + worst*worst/4
}

// straightWanted tells whether one of the goals is to be straight.
func (g *game) straightWanted() bool {
	return slices.ContainsFunc(g.ex.Goals, func(k Goal) bool { return k.What == Straight })
}

// reach is the stretch that the goals are of.
func (g *game) reach() (from, to float64) {
	from, to = math.Inf(1), 0
	for _, k := range g.ex.Goals {
		if k.What.local() || k.What == Broken {
			from, to = math.Min(from, k.FromMm), math.Max(to, k.ToMm)
		}
	}
	if from > to {
		return 0, g.lengthMm()
	}
	return from, math.Min(to, g.lengthMm())
}

// toForge tells whether there is more to do than to straighten.
func (g *game) toForge() bool {
	return slices.ContainsFunc(g.ex.Goals, func(k Goal) bool { return k.What != Straight && k.What != NoCold && !g.mark(k).Met })
}

// tries are what is worth a thought at a place.
func (g *game) tries(x float64, forges bool) (out []Action) {
	out = append(out, Action{Do: Straighten, Way: Flat, AtMm: x}, Action{Do: Straighten, Way: OnEdge, AtMm: x})
	if !forges || !g.toForge() && !g.has(Gouge) {
		return out
	}
	hit := func(a Action) {
		a.Do, a.AtMm = Strike, x
		out = append(out, a)
	}
	hit(Action{Way: Corner, Face: forge.FlatFace})
	for _, face := range []forge.Face{forge.FlatFace, forge.PeenAcross, forge.PeenAlong} {
		hit(Action{Way: Flat, Face: face})
	}
	hit(Action{Way: Flat, Face: forge.FlatFace, Side: Far})
	hit(Action{Way: OnEdge, Face: forge.FlatFace})
	hit(Action{Way: Flat, Face: forge.FlatFace, Support: forge.OverEdge})
	for _, k := range g.ex.Goals {
		if k.What == Edge {
			hit(Action{Way: Bevel})
			hit(Action{Way: Bevel, Side: Far})
		}
	}
	return out
}

// next is what an experienced smith would do now; ok is false where nothing would help.
func (g *game) next() (best Action, ok bool) {
	if best, ok = g.best(pilotBlows); ok {
		return best, ok
	}
	return g.best(1)
}

// best is the best that so many blows do.
func (g *game) best(blows int) (best Action, ok bool) {
	from, to := g.reach()
	was := g.wrong()
	least := was - worthDoing
	at := g.middles()
	for x := pilotStepMm/2 - 2*pilotStepMm; x < g.lengthMm(); x += pilotStepMm {
		hot := false
		for i := range at {
			hot = hot || math.Abs(at[i]-math.Max(x, at[0])) < cellMm && g.cells[i].tempC > g.grade.ForgeLowC+pilotSpareC
		}
		if !hot {
			continue
		}
		for _, a := range g.tries(x, x > from-3*pilotStepMm && x < to+pilotStepMm) {
			a.Blows = blows
			c := g.clone()
			c.act(&a)
			if w := c.wrong(); w < least {
				best, least, ok = a, w, true
			}
		}
	}
	return best, ok
}

// toFire is how an experienced smith heats it: about what is to be struck, until it is hot through, and no hotter.
func (g *game) toFire(otherEnd bool) Action {
	from, to := g.reach()
	if otherEnd {
		from, to = math.Max(0, g.lengthMm()-g.ex.HotMm), g.lengthMm()
	}
	a := Action{Do: ToFire, AtMm: math.Max(0, math.Min((from+to)/2, from+g.ex.HotMm/2))}
	if from < g.ex.HotMm/4 {
		a.AtMm = 0
	}
	c := g.clone()
	most := math.Min(pilotHotC, g.ex.FireC-40)
	for a.Seconds = 5; a.Seconds < mostSeconds; a.Seconds += 5 {
		c.fire(5, a.AtMm)
		at := c.middles()
		cool, hot := math.Inf(1), 0.0
		for i, x := range at {
			hot = math.Max(hot, c.edgeC(&c.cells[i]))
			if x >= from && x <= math.Min(to, from+g.ex.HotMm*.7) {
				cool = math.Min(cool, c.cells[i].tempC)
			}
		}
		if cool >= most || hot > g.grade.ForgeHighC-10 {
			return a
		}
	}
	return a
}

// Pilot forges an exercise as an experienced smith would, as far as the pilot sees: always what brings it nearest to its goals.
// It answers with what was done, and gives up where nothing helps any more. Errors are those of the exercise, or the context's.
func Pilot(ctx context.Context, ex *Exercise, seed uint64) ([]Action, error) {
	g, err := newGame(ex, seed)
	if err != nil {
		return nil, err
	}
	var out []Action
	do := func(a Action) {
		out = append(out, a)
		g.act(&a)
	}
	for vain := 0; len(out) < pilotActions && vain <= pilotInVain; {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if g.done() {
			break
		}
		if a, ok := g.next(); ok {
			vain = 0
			do(a)
			continue
		}
		do(g.toFire(vain > 0 && vain%2 == 1))
		vain++
		do(Action{Do: Brush})
	}
	return out, nil
}

// done tells whether every goal is met, and nothing is wrong with the piece.
func (g *game) done() bool {
	for _, k := range g.ex.Goals {
		if !g.mark(k).Met {
			return false
		}
	}
	return len(g.faults) == 0
}
