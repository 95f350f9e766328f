package practice

import (
	"context"
	"math"
	"strconv"

	"coldember/core/colour"
	"coldember/core/fact"
	"coldember/core/forge"
)

// Do is what is done.
type Do string

// What can be done.
const (
	ToFire Do = "fire"
	Strike Do = "strike"
)

// Way is how the piece lies under the hammer.
type Way string

// Ways.
const (
	Flat   Way = "flat"
	OnEdge Way = "edge"
	OnEnd  Way = "end" // the blows fall on its point
)

// Action is one thing done.
type Action struct {
	Do      Do         `json:"do" enum:"fire,strike"`
	Seconds float64    `json:"seconds,omitempty" doc:"in the fire"`
	AtMm    float64    `json:"atMm,omitempty" doc:"struck, or in the middle of the fire, from the point of the piece as it is"`
	Way     Way        `json:"way,omitempty" enum:"flat,edge,end"`
	Face    forge.Face `json:"face,omitempty" enum:"flat,round,peenAcross,peenAlong"`
	Blows   int        `json:"blows,omitempty"`
}

// Bounds of what is played.
const (
	MostActions = 1000
	mostSeconds = 1200
	mostBlows   = 30
)

func (a *Action) validate(k fact.Check) {
	fact.OneOf(k, "do", a.Do, ToFire, Strike)
	if a.Do == ToFire {
		k.Range("seconds", a.Seconds, 1, mostSeconds)
		k.Range("atMm", a.AtMm, -1000, 5000)
		return
	}
	fact.OneOf(k, "way", a.Way, Flat, OnEdge, OnEnd)
	fact.OneOf(k, "face", a.Face, forge.DrawingFaces()...)
	k.Range("atMm", a.AtMm, -1000, 5000)
	k.Range("blows", float64(a.Blows), 1, mostBlows)
}

// Place is the piece at a place.
type Place struct {
	XMm     float64    `json:"x"`
	WideMm  float64    `json:"wideMm"`
	ThickMm float64    `json:"thickMm"`
	TempC   float64    `json:"tempC"`
	RGB     colour.RGB `json:"rgb" doc:"as it is seen in the light of the room"`
}

// Mark is a goal as it stands.
type Mark struct {
	Goal
	IsMm float64 `json:"isMm" doc:"where it is farthest from what is wanted; nought where the piece does not reach"`
	Met  bool    `json:"met"`
}

// Played is the piece as it lies there.
type Played struct {
	Places   []Place `json:"places"`
	LengthMm float64 `json:"lengthMm"`
	Heats    int     `json:"heats"`
	Blows    int     `json:"blows"`
	Cold     int     `json:"coldBlows"`
	TimeS    float64 `json:"timeS"`
	ScaleG   float64 `json:"scaleG"`
	Faults   []Fault `json:"faults"`
	Said     []Said  `json:"said" doc:"of the last action"`
	Marks    []Mark  `json:"marks"`
	Done     bool    `json:"done" doc:"every goal is met, and nothing is wrong with the piece"`
}

// densityGPerMm3 of steel.
const densityGPerMm3 = 7.85e-3

// Play is what comes of a list of actions on an exercise, as it is seen in a room. Errors are fact.FieldErrors, or the context's.
func Play(ctx context.Context, ex *Exercise, seed uint64, room colour.Room, actions []Action) (*Played, error) {
	k := fact.NewCheck()
	if ex == nil {
		k.Fail("exercise", "field.choice", nil)
		return nil, k.Err()
	}
	fact.OneOf(k, "room", room, colour.Rooms()...)
	k.Range("actions", float64(len(actions)), 0, MostActions)
	if err := k.Err(); err != nil {
		return nil, err
	}
	for i := range actions {
		actions[i].validate(k.Within("actions").Within(strconv.Itoa(i)))
	}
	if err := k.Err(); err != nil {
		return nil, err
	}
	g, err := newGame(ex, seed)
	if err != nil {
		return nil, err
	}
	g.say("coach.begin", false, fact.Figures{"lowC": g.grade.ForgeLowC, "highC": g.grade.ForgeHighC})
	for i := range actions {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		g.said = nil
		if a := &actions[i]; a.Do == ToFire {
			g.fire(a.Seconds, a.AtMm)
		} else {
			g.strike(a)
		}
	}
	return g.told(room), nil
}

func (g *game) told(room colour.Room) *Played {
	out := &Played{LengthMm: g.lengthMm(), Heats: g.heats, Blows: g.blows, Cold: g.coldOnes, TimeS: g.timeS, ScaleG: g.scaleMm3 * densityGPerMm3, Faults: append([]Fault{}, g.faults...), Said: g.said, Marks: []Mark{}}
	for i, x := range g.middles() {
		c := &g.cells[i]
		out.Places = append(out.Places, Place{x, c.wide, c.thick, c.tempC, colour.Seen(c.tempC, room).RGB})
	}
	out.Done = len(g.faults) == 0
	for _, goal := range g.ex.Goals {
		m := g.mark(goal)
		out.Marks = append(out.Marks, m)
		out.Done = out.Done && m.Met
	}
	return out
}

// mark holds a goal against the piece: where it is farthest off.
func (g *game) mark(goal Goal) Mark {
	m := Mark{Goal: goal}
	if goal.What == Long {
		m.IsMm = g.lengthMm()
		m.Met = m.IsMm >= goal.WantMm-goal.WithinMm
		return m
	}
	if goal.What == NoCold {
		m.IsMm = float64(g.coldOnes)
		m.Met = g.coldOnes == 0
		return m
	}
	worst := -1.0
	for i, x := range g.middles() {
		if x < goal.FromMm || x > goal.ToMm {
			continue
		}
		is := g.cells[i].thick
		if goal.What == Wide {
			is = g.cells[i].wide
		}
		if d := math.Abs(is - goal.at(x)); d > worst {
			worst, m.IsMm = d, is
		}
	}
	m.Met = worst >= 0 && worst <= goal.WithinMm
	return m
}
