package colour

import (
	"math"
	"math/rand/v2"

	"coldember/core/fact"
)

// Kind is what an eye is asked.
type Kind string

// Kinds: say how hot it is; say when it is as hot as is wanted; say how hot it was tempered.
const (
	Say    Kind = "say"
	Now    Kind = "now"
	Temper Kind = "temper"
)

// Kinds lists them.
func Kinds() []Kind { return []Kind{Say, Now, Temper} }

// Question names one: the same seed and number are always the same question.
type Question struct {
	Kind Kind   `json:"kind" enum:"say,now,temper"`
	Room Room   `json:"room" enum:"dark,lit,day"`
	Seed uint64 `json:"seed"`
	N    int    `json:"n"`
}

// Frame is what is seen at a moment.
type Frame struct {
	AtS    float64 `json:"atS"`
	Colour RGB     `json:"colour"`
	Cooler RGB     `json:"cooler" doc:"of its ends, which lag behind"`
	Magnet bool    `json:"magnet" doc:"it pulls"`
	Shadow bool    `json:"shadow,omitempty" doc:"the shadow of the transformation goes through it"`
}

// Asked is a question as it is shown.
type Asked struct {
	Question
	Wall    RGB     `json:"wall"`
	TargetC float64 `json:"targetC,omitempty" doc:"of now: to be said when it is as hot"`
	Frames  []Frame `json:"frames" doc:"one, or those of a bar that heats"`
}

// Bounds of what is asked, and how a bar heats (judgement): ends that lag behind; a rate that falls as it nears the fire; the
// transformation of carbon steel on heating, that holds it up and is seen as a shadow.
const (
	lowestC, highestC   = 560.0, 1250.0
	lowTemper, topTemps = 195.0, 335.0
	lagK                = 90.0
	frameS              = .2
	framesS             = 45.0
	shadowFromC         = 722.0
	shadowToC           = 752.0
	shadowSlower        = .3
	mostAnswers         = 2000
)

var targets = []float64{780, 800, 830, 860, 950, 1050, 1150, 1220}

// Validate reports what cannot be. Errors are fact.FieldErrors.
func (q *Question) Validate() error {
	k := fact.NewCheck()
	fact.OneOf(k, "kind", q.Kind, Kinds()...)
	fact.OneOf(k, "room", q.Room, Rooms()...)
	k.Range("n", float64(q.N), 0, 1e6)
	return k.Err()
}

func (q *Question) rng() *rand.Rand {
	n := uint64(max(0, q.N)) //nolint:gosec // never below nought
	return rand.New(rand.NewPCG(q.Seed, n<<8|uint64(len(q.Kind))<<4|uint64(len(q.Room))))
}

// hot is how hot the bar of a question is at a time, and its target.
func (q *Question) hot() (at func(s float64) float64, targetC float64) {
	rng := q.rng()
	switch q.Kind {
	case Temper:
		c := math.Round(lowTemper + (topTemps-lowTemper)*rng.Float64())
		return func(float64) float64 { return c }, 0
	case Say:
		c := math.Round(lowestC + (highestC-lowestC)*rng.Float64())
		return func(float64) float64 { return c }, 0
	}
	targetC = targets[rng.IntN(len(targets))]
	from, fire := targetC-140-60*rng.Float64(), targetC+80+120*rng.Float64()
	pace := .05 + .05*rng.Float64() // of what is left, a second
	steps := make([]float64, 0, int(framesS/frameS)+2)
	const dt = .02
	for c, s := from, 0.0; s <= framesS+frameS; s += dt {
		if len(steps) <= int(s/frameS) {
			steps = append(steps, c)
		}
		k := pace
		if c > shadowFromC && c < shadowToC {
			k *= shadowSlower
		}
		c += k * (fire - c) * dt
	}
	return func(s float64) float64 {
		i := min(max(0, int(s/frameS)), len(steps)-2)
		return steps[i] + (math.Min(s, framesS)/frameS-float64(i))*(steps[i+1]-steps[i])
	}, targetC
}

// Ask is a question as it is shown. Errors are fact.FieldErrors.
func Ask(q Question) (*Asked, error) {
	if err := q.Validate(); err != nil {
		return nil, err
	}
	hot, target := q.hot()
	out := &Asked{Question: q, Wall: Wall(q.Room), TargetC: target}
	frame := func(s float64) Frame {
		c := hot(s)
		if q.Kind == Temper {
			t := Tempered(c, q.Room)
			return Frame{Colour: t, Cooler: t, Magnet: true}
		}
		return Frame{AtS: s, Colour: Seen(c, q.Room).RGB, Cooler: Seen(c-lagK, q.Room).RGB, Magnet: Magnet(c), Shadow: q.Kind == Now && c > shadowFromC && c < shadowToC}
	}
	if q.Kind != Now {
		out.Frames = []Frame{frame(0)}
		return out, nil
	}
	for s := 0.0; s <= framesS; s += frameS {
		out.Frames = append(out.Frames, frame(s))
	}
	return out, nil
}

// Answer is what was said: how hot, or of now when.
type Answer struct {
	Question
	SaidC float64 `json:"saidC,omitempty"`
	AtS   float64 `json:"atS,omitempty"`
}

// Judged is an answer with the truth.
type Judged struct {
	TrueC float64 `json:"trueC"`
	SaidC float64 `json:"saidC"`
	OffK  float64 `json:"offK" doc:"said less true: above nought it was taken for hotter than it was"`
}

// Judge holds an answer against the truth. Of now, what was said is the target. Errors are fact.FieldErrors.
func Judge(a Answer) (Judged, error) {
	if err := a.Validate(); err != nil {
		return Judged{}, err
	}
	k := fact.NewCheck()
	hot, target := a.hot()
	if a.Kind == Now {
		k.Range("atS", a.AtS, 0, framesS)
		c := hot(a.AtS)
		return Judged{TrueC: c, SaidC: target, OffK: target - c}, k.Err()
	}
	k.Range("saidC", a.SaidC, 20, 1500)
	c := hot(0)
	return Judged{TrueC: c, SaidC: a.SaidC, OffK: a.SaidC - c}, k.Err()
}

// Eye is how an eye reads: by how much it is off in a room, and which way.
type Eye struct {
	Kind    Kind    `json:"kind" enum:"say,now,temper"`
	Room    Room    `json:"room" enum:"dark,lit,day"`
	N       int     `json:"n"`
	OffK    float64 `json:"offK" doc:"on average: below nought it takes steel for colder than it is"`
	SpreadK float64 `json:"spreadK" doc:"half of what four answers in five lie within"`
	Known   bool    `json:"known" doc:"there are enough to say"`
}

// known is how many answers say which way an eye is off; fourInFive the half-width of a normal band of that.
const (
	known      = 5
	fourInFive = 1.2816
)

// Learn is what answers say of an eye, by kind and room, in the order of Kinds and Rooms. Errors are fact.FieldErrors.
func Learn(answers []Answer) ([]Eye, error) {
	if len(answers) > mostAnswers {
		return nil, fact.FieldErrors{{Field: "answers", Code: "field.range", Figures: fact.Figures{"lowest": 0, "highest": mostAnswers}}}
	}
	off := map[[2]string][]float64{}
	for i := range answers {
		j, err := Judge(answers[i])
		if err != nil {
			return nil, err
		}
		k := [2]string{string(answers[i].Kind), string(answers[i].Room)}
		off[k] = append(off[k], j.OffK)
	}
	out := []Eye{}
	for _, kind := range Kinds() {
		for _, room := range Rooms() {
			v := off[[2]string{string(kind), string(room)}]
			if len(v) == 0 {
				continue
			}
			e := Eye{Kind: kind, Room: room, N: len(v), Known: len(v) >= known}
			for _, x := range v {
				e.OffK += x / float64(len(v))
			}
			sum := 0.0
			for _, x := range v {
				sum += (x - e.OffK) * (x - e.OffK)
			}
			if len(v) > 1 {
				e.SpreadK = fourInFive * math.Sqrt(sum/float64(len(v)-1))
			}
			out = append(out, e)
		}
	}
	return out, nil
}
