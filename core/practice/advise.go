package practice

import (
	"context"
	"math"
	"slices"
	"strconv"

	"coldember/core/colour"
	"coldember/core/fact"
)

// Advice is what an experienced smith would do next, as far as the pilot sees.
type Advice struct {
	Action Action `json:"action"`
	Done   bool   `json:"done" doc:"there is nothing more to do"`

	// Instead is what such a smith would do where nothing brings the piece nearer any more: grind what is too much, or
	// begin again where too little is left; Worst is the goal that is missed by most.
	Instead Instead `json:"instead,omitempty" enum:"grind,again"`
	Worst   *Mark   `json:"worst,omitempty"`
}

// Instead is what is done instead of going on.
type Instead string

// Where a piece will not come nearer.
const (
	Grind Instead = "grind"
	Again Instead = "again"
)

// When a piece is given up (judgement): so many trips to the fire in vain, or so many whose blows brought it nearer by less
// than a share of what was left.
const (
	slowTrips = 8
	slowShare = .02
)

// Advise tells what an experienced smith would do after a list of actions. Errors are those of Play.
func Advise(ctx context.Context, ex *Exercise, seed uint64, actions []Action) (*Advice, error) {
	g, err := played(ctx, ex, seed, actions)
	if err != nil {
		return nil, err
	}
	if g.done() {
		return &Advice{Done: true}, nil
	}
	vain, slow, err := tried(ctx, ex, seed, actions)
	if err != nil {
		return nil, err
	}
	if slow {
		return g.given(), nil
	}
	if a, ok := g.next(); ok {
		return &Advice{Action: a}, nil
	}
	if vain > pilotInVain {
		return g.given(), nil
	}
	from, _ := g.reach()
	return &Advice{Action: g.toFire(g.tempAt(from) > pilotHotC-60)}, nil
}

// tried is how many of the last trips to the fire were in vain, with no blow after them, and whether the last ones hardly
// brought the piece nearer at all.
func tried(ctx context.Context, ex *Exercise, seed uint64, actions []Action) (vain int, slow bool, err error) {
	g, err := newGame(ex, seed)
	if err != nil {
		return 0, false, err
	}
	var left []float64 // that was wrong with it at each trip
	for i := range actions {
		if err := ctx.Err(); err != nil {
			return 0, false, err
		}
		switch actions[i].Do {
		case ToFire:
			vain, left = vain+1, append(left, g.wrong())
		case Brush, Wait:
		default:
			vain = 0
		}
		g.act(&actions[i])
	}
	if n := len(left); n > slowTrips {
		least := slices.Min(left[:n-slowTrips])
		slow = slices.Min(append(left[n-slowTrips:], g.wrong())) > least*(1-slowShare)
	}
	return vain, slow, nil
}

// given is the advice to leave off: what is missed by most, and what to do about it.
func (g *game) given() *Advice {
	out := &Advice{Instead: Again}
	most := 0.0
	for _, goal := range g.ex.Goals {
		m := g.mark(goal)
		if m.Met || goal.WithinMm <= 0 {
			continue
		}
		if off := math.Abs(m.IsMm-goal.WantMm) / goal.WithinMm; off > most {
			most, out.Worst = off, &m
		}
	}
	if w := out.Worst; w != nil && w.What != Long && w.What != NoCold && w.IsMm > w.WantMm {
		out.Instead = Grind
	}
	return out
}

// tempAt is how hot the piece is at a place.
func (g *game) tempAt(x float64) float64 {
	best := 0
	at := g.middles()
	for i := range at {
		if at[i] <= x {
			best = i
		}
	}
	return g.cells[best].tempC
}

// Step is a heat of a way that was gone: what was struck in it, and how the piece lay after it.
type Step struct {
	Heat    int      `json:"heat"`
	Actions []Action `json:"actions"`
	After   *Played  `json:"after"`
}

// Heats are the states of a play after each of its heats, the bar first. Errors are those of Play.
func Heats(ctx context.Context, ex *Exercise, seed uint64, room colour.Room, actions []Action) ([]Step, error) {
	if _, err := played(ctx, ex, seed, actions[:0]); err != nil {
		return nil, err
	}
	g, err := newGame(ex, seed)
	if err != nil {
		return nil, err
	}
	out := []Step{{Actions: []Action{}, After: g.told(room)}}
	k := fact.NewCheck()
	k.Range("actions", float64(len(actions)), 0, MostActions)
	for i := range actions {
		actions[i].validate(k.Within("actions").Within(strconv.Itoa(i)))
	}
	if err := k.Err(); err != nil {
		return nil, err
	}
	for i := range actions {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		a := actions[i]
		if a.Do == ToFire {
			out = append(out, Step{Heat: len(out), Actions: []Action{}})
		}
		g.act(&a)
		last := &out[len(out)-1]
		last.Actions = append(last.Actions, a)
		if i == len(actions)-1 || actions[i+1].Do == ToFire {
			last.After = g.told(room)
		}
	}
	return out, nil
}
