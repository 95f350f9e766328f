package practice

import (
	"context"
	"strconv"

	"coldember/core/colour"
	"coldember/core/fact"
)

// Advice is what an experienced smith would do next, as far as the pilot sees.
type Advice struct {
	Action Action `json:"action"`
	Done   bool   `json:"done" doc:"there is nothing more to do"`
}

// Advise tells what an experienced smith would do after a list of actions. Errors are those of Play.
func Advise(ctx context.Context, ex *Exercise, seed uint64, actions []Action) (*Advice, error) {
	g, err := played(ctx, ex, seed, actions)
	if err != nil {
		return nil, err
	}
	if g.done() {
		return &Advice{Done: true}, nil
	}
	if a, ok := g.next(); ok {
		return &Advice{Action: a}, nil
	}
	from, _ := g.reach()
	return &Advice{Action: g.toFire(g.tempAt(from) > pilotHotC-60)}, nil
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
