package session

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"coldember/core/fact"
	"coldember/core/plan"
)

// Kind is what happened.
type Kind string

// What happens at the fire.
const (
	In        Kind = "in"        // into the fire
	Out       Kind = "out"       // out of it
	FirstBlow Kind = "firstBlow" // of this heat
	LastBlow  Kind = "lastBlow"
	Back      Kind = "back"   // into the fire again, the step in hand done
	Done      Kind = "done"   // the step in hand, and on with the next in the same heat
	NotYet    Kind = "notYet" // back into the fire, the step in hand not done
	Past      Kind = "past"   // the step in hand went past its figure: too thin
	Read      Kind = "reading"
	Faulty    Kind = "fault"
	Noted     Kind = "note"
	Pictured  Kind = "picture"
	Break     Kind = "break"
	Resume    Kind = "resume"
	Undo      Kind = "undo"
	ToHarden  Kind = "toHarden" // on to hardening and tempering
	Treated   Kind = "treated"  // a step of those is done
	Saw       Kind = "seen"     // something was seen of it
	Completed Kind = "finished" // the knife is finished, and this is what it came to
)

// Kinds lists them.
func Kinds() []Kind {
	return []Kind{In, Out, FirstBlow, LastBlow, Back, Done, NotYet, Past, Read, Faulty, Noted, Pictured, Break, Resume, Undo, ToHarden, Treated, Saw, Completed}
}

// StandIn begins the name of a device that stands in for steel or an instrument: what it tells never happened.
const StandIn = "simulated-"

// ByStandIn tells whether an event was told by a stand-in, or what it read was.
func (e *Event) ByStandIn() bool {
	return strings.HasPrefix(e.Device, StandIn) || e.Reading != nil && strings.HasPrefix(e.Reading.By, StandIn)
}

// Quantity is what is read at the fire.
type Quantity string

// What can be read beside the measures of a caliper (plan.Measure).
const (
	Length      Quantity = "length"
	Weight      Quantity = "weight"
	Temperature Quantity = "temperature"
	Fuel        Quantity = "fuel" // what is left of it
)

// Quantities lists all that can be read.
func Quantities() []Quantity {
	out := []Quantity{}
	for _, m := range plan.Measures() {
		out = append(out, Quantity(m))
	}
	return append(out, Length, Weight, Temperature, Fuel)
}

// Reading is a figure that was read. Exactly the value of its quantity counts.
type Reading struct {
	Quantity Quantity `json:"quantity" enum:"height,thickness,edgeThickness,rise,length,weight,temperature,fuel"`
	Mm       float64  `json:"mm,omitempty"`
	MassG    float64  `json:"massG,omitempty"`
	TempC    float64  `json:"tempC,omitempty"`
	AtMm     float64  `json:"atMm,omitempty" doc:"from the point of the piece as it then is"`
	Hot      bool     `json:"hot,omitempty" doc:"the steel was hot: it is brought to cold"`
	ReadMm   float64  `json:"readMm,omitempty" readOnly:"true" doc:"what the calipers said, where mm is brought to cold from it"`
	By       string   `json:"by,omitempty" doc:"the instrument that told it, where it was not typed"`
}

// FaultKind is what went wrong.
type FaultKind string

// FaultKinds lists what can go wrong with a piece at the fire.
func FaultKinds() []FaultKind {
	return []FaultKind{"lip", "crack", "coldShut", "buckle", "gouge", "burnt", "bent", "dropped"}
}

// Fault is something that went wrong, and where.
type Fault struct {
	Kind    FaultKind `json:"kind" enum:"lip,crack,coldShut,buckle,gouge,burnt,bent,dropped"`
	AtMm    float64   `json:"atMm,omitempty" doc:"from the point"`
	DepthMm float64   `json:"depthMm,omitempty"`
}

// Side is which face of the blade is up: the one that carries the mark, or the other.
type Side string

// The sides.
const (
	MarkSide  Side = "mark"
	OtherSide Side = "other"
)

// Event is one thing that happened at the fire. It never changes, and is never removed.
type Event struct {
	ID     string `json:"id" doc:"made where it arose"`
	Device string `json:"device" doc:"the screen it arose on"`
	Seq    int    `json:"seq" doc:"of that device, from 1"`
	Saw    string `json:"saw,omitempty" doc:"the last event that the device knew of"`
	AtMs   int64  `json:"atMs" doc:"by the device's own clock, since 1970"`
	// OffMs is how far the device's clock was behind the server's when this was heard of.
	OffMs int64 `json:"offMs,omitempty"`

	Kind    Kind     `json:"kind" enum:"in,out,firstBlow,lastBlow,back,done,notYet,past,reading,fault,note,picture,break,resume,undo,toHarden,treated,seen,finished"`
	Step    string   `json:"step,omitempty" doc:"of the course, or of the treatment; that in hand if empty"`
	Side    Side     `json:"side,omitempty" enum:"mark,other" doc:"that was up"`
	Blows   int      `json:"blows,omitempty" doc:"where they were counted"`
	Reading *Reading `json:"reading,omitempty"`
	Fault   *Fault   `json:"fault,omitempty"`
	Seen    *Seen    `json:"seen,omitempty"`
	Final   *Final   `json:"final,omitempty"`
	Text    string   `json:"text,omitempty"`
	Picture string   `json:"picture,omitempty" doc:"its id"`
	Undoes  string   `json:"undoes,omitempty" doc:"the event that is taken back"`
}

// Bounds of what a device may send.
const (
	MostEvents = 50_000 // of a session
	mostSeq    = 1 << 50
	mostID     = 64
	mostText   = 5000
	mostAtMs   = 1 << 43 // some time in the year 2248
	mostBlows  = 5000
	mostBy     = 60
)

// Validate reports everything of an event that cannot be on this course, as fact.FieldErrors
// that name what would be right.
func (e *Event) Validate(c *Course) error {
	k := fact.NewCheck()
	for field, id := range map[string]string{"id": e.ID, "device": e.Device} {
		if !plainID(id) {
			k.Fail(field, "field.id", nil)
		}
	}
	for field, id := range map[string]string{"saw": e.Saw, "picture": e.Picture, "undoes": e.Undoes} {
		if id != "" && !plainID(id) {
			k.Fail(field, "field.id", nil)
		}
	}
	k.Range("seq", float64(e.Seq), 1, mostSeq)
	k.Range("atMs", float64(e.AtMs), 1, mostAtMs)
	k.Range("blows", float64(e.Blows), 0, mostBlows)
	fact.OneOf(k, "kind", e.Kind, Kinds()...)
	fact.OneOf(k, "side", e.Side, "", MarkSide, OtherSide)
	if e.Step != "" && c.StepAt(e.Step) < 0 && c.TreatAt(e.Step) < 0 {
		k.Fail("step", "session.noStep", fact.Figures{"highest": float64(len(c.Steps))})
	}
	if utf8.RuneCountInString(e.Text) > mostText {
		k.Fail("text", "field.tooLong", fact.Figures{"highest": mostText})
	}
	e.Seen.validate(k.Within("seen"), c)
	e.Final.validate(k.Within("final"), c)
	e.validateTold(k, c)
	return k.Err()
}

// validateTold reports what of an event is missing that its kind tells.
func (e *Event) validateTold(k fact.Check, c *Course) {
	switch e.Kind {
	case ToHarden, Treated:
		if len(c.Treatment) == 0 {
			k.Fail("kind", "session.noTreatment", nil)
		}
	case Completed:
		if e.Final == nil {
			k.Fail("final", "session.finalNothing", nil)
		}
	case Saw:
		if e.saysNothing() {
			k.Fail("seen", "session.sawNothing", nil)
		}
	case Read:
		e.Reading.validate(k.Within("reading"), c)
	case Faulty:
		e.Fault.validate(k.Within("fault"), c)
	case Noted:
		if e.Text == "" {
			k.Fail("text", "session.noText", nil)
		}
	case Pictured:
		if e.Picture == "" {
			k.Fail("picture", "session.noPicture", nil)
		}
	case Undo:
		if e.Undoes == "" || e.Undoes == e.ID {
			k.Fail("undoes", "session.undoesNothing", nil)
		}
	}
}

// plainID tells whether an id is one that a device may make.
func plainID(id string) bool {
	if id == "" || len(id) > mostID {
		return false
	}
	for _, b := range []byte(id) {
		if (b < '0' || b > '9') && (b < 'A' || b > 'Z') && (b < 'a' || b > 'z') && b != '-' {
			return false
		}
	}
	return true
}

// A reading may be so many times what the piece is or becomes: beyond, it is of another unit
// or a slip of the pen.
const plausible = 3

func (r *Reading) validate(k fact.Check, c *Course) {
	if r == nil {
		k.Fail("quantity", "session.noReading", nil)
		return
	}
	fact.OneOf(k, "quantity", r.Quantity, Quantities()...)
	if utf8.RuneCountInString(r.By) > mostBy {
		k.Fail("by", "field.tooLong", fact.Figures{"highest": mostBy})
	}
	if r.ReadMm != 0 {
		k.Fail("readMm", "field.unknown", nil) // it is told, not asked
	}
	length := c.LongestMm()
	switch r.Quantity {
	case Weight:
		k.Range("massG", r.MassG, 1, plausible*math.Max(1, c.StartG))
		return
	case Fuel:
		k.Range("massG", r.MassG, 0, 1e6)
		return
	case Temperature:
		k.Range("tempC", r.TempC, -40, 1600)
	case Length:
		k.Range("mm", r.Mm, 1, plausible*length)
		return
	case Quantity(plan.Rise):
		k.Range("mm", r.Mm, -length, length)
		return
	default:
		k.Range("mm", r.Mm, .05, plausible*c.largest(r.Quantity))
	}
	k.Range("atMm", r.AtMm, 0, 1.2*length)
}

func (f *Fault) validate(k fact.Check, c *Course) {
	if f == nil {
		k.Fail("kind", "session.noFault", nil)
		return
	}
	if !slices.Contains(FaultKinds(), f.Kind) {
		k.Fail("kind", "field.choice", nil)
	}
	k.Range("atMm", f.AtMm, 0, 1.2*c.LongestMm())
	k.Range("depthMm", f.DepthMm, 0, math.Max(c.largest(Quantity(plan.Thickness)), c.largest(Quantity(plan.Height))))
}

// String names an event for a message.
func (e *Event) String() string { return fmt.Sprintf("%s %s/%d %s", e.ID, e.Device, e.Seq, e.Kind) }
