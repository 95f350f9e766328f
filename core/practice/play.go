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
	ToFire     Do = "fire"
	Strike     Do = "strike"
	Straighten Do = "straighten" // light taps on the hump
	Bend       Do = "bend"       // over the horn
	Brush      Do = "brush"
	Wait       Do = "wait" // it lies in the air
)

// Way is how the piece lies under the hammer.
type Way string

// Ways.
const (
	Flat   Way = "flat"
	OnEdge Way = "edge"
	OnEnd  Way = "end"    // the blows fall on its point
	Corner Way = "corner" // at 45°
	Bevel  Way = "bevel"  // angled, on the half at its edge
)

// Side is which of two sides is up: a face; on edge, near is its spine.
type Side string

// Sides.
const (
	Near Side = "near"
	Far  Side = "far"
)

// Action is one thing done.
type Action struct {
	Do      Do            `json:"do" enum:"fire,strike,straighten,bend,brush,wait"`
	Seconds float64       `json:"seconds,omitempty" doc:"in the fire, or in the air"`
	AtMm    float64       `json:"atMm,omitempty" doc:"struck, or in the middle of the fire, from the point of the piece as it is"`
	Way     Way           `json:"way,omitempty" enum:"flat,edge,end,corner,bevel"`
	Side    Side          `json:"side,omitempty" enum:"near,far" doc:"that is up; near if not said"`
	Face    forge.Face    `json:"face,omitempty" enum:"flat,round,peenAcross,peenAlong"`
	Support forge.Support `json:"support,omitempty" enum:"face,horn,edge,fuller"`
	Method  forge.Method  `json:"method,omitempty" enum:"pinchOut,pushIn" doc:"of bevelling; pinched out if not said"`
	Blows   int           `json:"blows,omitempty"`
}

// sign is the side as a sign.
func (a *Action) sign() float64 {
	if a.Side == Far {
		return -1
	}
	return 1
}

func (a *Action) method() forge.Method {
	if a.Method == "" {
		return forge.PinchOut
	}
	return a.Method
}

// Bounds of what is played.
const (
	MostActions = 1000
	mostSeconds = 1200
	mostBlows   = 30
)

func (a *Action) validate(k fact.Check) {
	fact.OneOf(k, "do", a.Do, ToFire, Strike, Straighten, Bend, Brush, Wait)
	switch a.Do {
	case Brush:
		return
	case ToFire, Wait:
		k.Range("seconds", a.Seconds, .1, mostSeconds)
		k.Range("atMm", a.AtMm, -1000, 5000)
		return
	case Straighten, Bend:
		fact.OneOf(k, "way", a.Way, Flat, OnEdge)
	default:
		fact.OneOf(k, "way", a.Way, Flat, OnEdge, OnEnd, Corner, Bevel)
		fact.OneOf(k, "face", a.Face, append(forge.DrawingFaces(), "")...)
		fact.OneOf(k, "support", a.Support, append(forge.Supports(), "")...)
		fact.OneOf(k, "method", a.Method, forge.PinchOut, forge.PushIn, "")
	}
	fact.OneOf(k, "side", a.Side, Near, Far, "")
	k.Range("atMm", a.AtMm, -1000, 5000)
	k.Range("blows", float64(a.Blows), 1, mostBlows)
}

// Place is the piece at a place.
type Place struct {
	XMm     float64    `json:"x"`
	WideMm  float64    `json:"wideMm"`
	ThickMm float64    `json:"thickMm" doc:"on the mean"`
	EdgeMm  float64    `json:"edgeMm"`
	SpineMm float64    `json:"spineMm"`
	SweepMm float64    `json:"sweepMm,omitempty" doc:"off the straight line between the ends, away from the edge"`
	BowMm   float64    `json:"bowMm,omitempty" doc:"likewise, toward the near side"`
	TurnDeg float64    `json:"turnDeg,omitempty" doc:"twisted against the middle of the piece"`
	TempC   float64    `json:"tempC"`
	RGB     colour.RGB `json:"rgb" doc:"as it is seen in the light of the room"`
	Off     *Off       `json:"off,omitempty" doc:"of what is wanted there"`
}

// Off is how far a place is off what is wanted; nil where nothing is wanted of it.
type Off struct {
	WideMm  *float64 `json:"wideMm,omitempty"`
	ThickMm *float64 `json:"thickMm,omitempty"`
	EdgeMm  *float64 `json:"edgeMm,omitempty"`
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
	StrayMm  float64 `json:"strayMm" doc:"off a straight line, bowed or swept"`
	PitMm    float64 `json:"pitMm" doc:"deepest that scale was struck in"`
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
	fact.OneOf(k, "room", room, colour.Rooms()...)
	if err := k.Err(); err != nil {
		return nil, err
	}
	g, err := played(ctx, ex, seed, actions)
	if err != nil {
		return nil, err
	}
	return g.told(room), nil
}

// played is the piece after a list of actions. Errors are fact.FieldErrors, or the context's.
func played(ctx context.Context, ex *Exercise, seed uint64, actions []Action) (*game, error) {
	k := fact.NewCheck()
	if ex == nil {
		k.Fail("exercise", "field.choice", nil)
		return nil, k.Err()
	}
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
	return g, g.play(ctx, actions)
}

// play does all of it, one after the other.
func (g *game) play(ctx context.Context, actions []Action) error {
	g.say("coach.begin", false, fact.Figures{"lowC": g.grade.ForgeLowC, "highC": g.grade.ForgeHighC})
	for i := range actions {
		if err := ctx.Err(); err != nil {
			return err
		}
		g.act(&actions[i])
	}
	return nil
}

// act does one thing.
func (g *game) act(a *Action) {
	g.said = nil
	switch a.Do {
	case ToFire:
		g.fire(a.Seconds, a.AtMm)
	case Wait:
		g.lie(a.Seconds)
		g.say("coach.waited", false, fact.Figures{"seconds": a.Seconds, "tempC": g.hottest()})
	case Brush:
		g.brush()
	case Straighten:
		g.straighten(a)
	case Bend:
		g.bendIt(a)
	default:
		g.strike(a)
	}
}

// hottest is how hot the piece is where it is hottest.
func (g *game) hottest() (c float64) {
	for i := range g.cells {
		c = math.Max(c, g.cells[i].tempC)
	}
	return c
}

func (g *game) told(room colour.Room) *Played {
	out := &Played{LengthMm: g.lengthMm(), Heats: g.heats, Blows: g.blows, Cold: g.coldOnes, TimeS: g.timeS, ScaleG: g.scaleMm3 * densityGPerMm3, Faults: append([]Fault{}, g.faults...), Said: g.said, Marks: []Mark{}}
	line := g.line()
	r := func(mm float64) float64 { return math.Round(mm*1000) / 1000 }
	for i, x := range g.middles() {
		c, l := &g.cells[i], line[i]
		out.Places = append(out.Places, Place{
			XMm: r(x), WideMm: c.wide, ThickMm: c.thick(), EdgeMm: c.edge, SpineMm: c.spine, SweepMm: r(l.sweep), BowMm: r(l.bow), TurnDeg: r(l.twistDeg),
			TempC: c.tempC, RGB: colour.Seen(c.tempC, room).RGB, Off: g.off(x, c),
		})
		out.PitMm = math.Max(out.PitMm, c.pitMm)
	}
	out.StrayMm = r(g.strayMm())
	out.Done = len(g.faults) == 0
	for _, goal := range g.ex.Goals {
		m := g.mark(goal)
		out.Marks = append(out.Marks, m)
		out.Done = out.Done && m.Met
	}
	return out
}
