package forge

import "math"

// Kind names an operation.
type Kind string

// The operations, in the order of a point-first hand-hammer smith.
const (
	Straighten Kind = "straighten"
	Corners    Kind = "corners"
	BreakDown  Kind = "breakDown"
	Point      Kind = "point"
	SetDown    Kind = "setDown"
	DrawTang   Kind = "tang"
	SetUp      Kind = "ricasso"
	Profile    Kind = "profile"
	PreCurve   Kind = "preCurve"
	Bevel      Kind = "bevel"
	Correct    Kind = "correct"
	Planish    Kind = "planish"
	CutOff     Kind = "cutOff"

	Weld      Kind = "weld"
	Upset     Kind = "upset"
	FalseEdge Kind = "falseEdge"
	Notch     Kind = "notch"
	Stamp     Kind = "stamp"
	Twist     Kind = "twist"
	TangCurve Kind = "tangCurve"
	WidenTang Kind = "widenTang"
	LineCurve Kind = "lineCurve"
	FormFlat  Kind = "formFlat"
	Slit      Kind = "slit"
	Scarf     Kind = "scarf"
	WeldBit   Kind = "weldBit"
	Punch     Kind = "punch"
	WeldLoop  Kind = "weldLoop"
	Loop      Kind = "loop"
	Wrap      Kind = "wrap"
	WeldOn    Kind = "weldOn"
	Harden    Kind = "harden"
)

// Kinds lists the operations.
func Kinds() []Kind {
	return []Kind{
		Straighten, Corners, BreakDown, Point, SetDown, DrawTang, SetUp, Profile, PreCurve, Bevel, Correct, Planish, CutOff,
		Weld, WeldOn, Upset, FalseEdge, Notch, Stamp, Twist, TangCurve, WidenTang, LineCurve, FormFlat, Slit, Scarf, WeldBit, Punch, WeldLoop, Loop, Wrap, Harden,
	}
}

// Operation carries the cells First…Last (inclusive) to their targets.
type Operation struct {
	ID      string
	Kind    Kind
	Face    Face
	Support Support

	// Mixes, with FlatFace, has the hand change between it and the peen laid across, which
	// holds the width; FlatShare is how much of the work the flat face then does.
	Mixes     bool
	FlatShare float64
	First     int
	Last      int
	Targets   []Target // one a cell of the range; nil keeps the section
	BendPer   float64  // curvature to give or take out, 1/mm
	Turning   Turning  // what becomes of the centre line
	Machine   *Machine // that does it; nil: the hand hammer
	Fixed     bool     // the smith will have it so: by this machine, or by hand

	// Stretches are those it is worked in, each by its first cell; nil has them found when the
	// operation begins, and whether the hand is not quicker than the machine.
	Stretches []int

	// Floors are the fewest strokes of each stretch, and Back whether they are taken from the
	// point to the handle; both are found with the stretches.
	Floors []float64
	Back   bool

	// Strokes, where it is more than 0, is how many turns of the wrench, bends or
	// stamps the operation takes, whatever the hammer's energy.
	Strokes float64
	FreeMm  float64 // that stands free of an upset

	// SoakC and LowC, where they are more than 0, are its own temperatures.
	SoakC, LowC float64
	// SteelLowC is the lower limit of the steel that it works, where that is another than that of the piece; 0: it is not.
	SteelLowC float64
}

// A cut shears: its share of the tensile flow stress (von Mises), and its Q (judgement).
const (
	shearShare = 0.577
	shearQ     = 1.2
)

// Light tells whether the blows are light taps, which may go on below the lower limit.
func (k Kind) Light() bool {
	return k == Straighten || k == Corners || k == Planish || k == PreCurve || k == Correct || k == TangCurve || k == LineCurve
}

// advance carries the cell the fraction q of what is left.
func (c *Cell) advance(to Target, q float64) {
	lerp := func(a, b float64) float64 { return a * math.Pow(b/a, q) }
	c.WidthMm = lerp(c.WidthMm, to.WidthMm)
	c.ThicknessMm = lerp(c.ThicknessMm, to.ThicknessMm)
	c.EdgeMm = lerp(c.EdgeMm, to.EdgeMm)
	c.SpineMm = lerp(c.SpineMm, to.SpineMm)
}
