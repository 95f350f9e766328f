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
	Loop      Kind = "loop"
	Wrap      Kind = "wrap"
	WeldOn    Kind = "weldOn"
	Harden    Kind = "harden"
)

// Kinds lists the operations.
func Kinds() []Kind {
	return []Kind{
		Straighten, Corners, BreakDown, Point, SetDown, DrawTang, SetUp, Profile, PreCurve, Bevel, Correct, Planish, CutOff,
		Weld, WeldOn, Upset, FalseEdge, Notch, Stamp, Twist, TangCurve, Loop, Wrap, Harden,
	}
}

// Operation carries the cells First…Last (inclusive) to their targets.
type Operation struct {
	ID      string
	Kind    Kind
	Face    Face
	Support Support
	First   int
	Last    int
	Targets []Target // one a cell of the range; nil keeps the section
	BendPer float64  // curvature to give or take out, 1/mm
	Turning Turning  // what becomes of the centre line
	Passes  int      // stretches that fit the hot length

	// Strokes, where it is more than 0, is how many turns of the wrench, bends or
	// stamps the operation takes, whatever the hammer's energy.
	Strokes float64
	FreeMm  float64 // that stands free of an upset

	// SoakC and LowC, where they are more than 0, are its own temperatures.
	SoakC, LowC float64
}

// Judgement figures of the light operations: what share of the surface or the
// corner is worked, how far, and how hard the blow is (share of full speed).
const (
	cornerChamfer = 0.18 // of the thickness, broken at 45°
	cornerStrain  = 0.5
	planishDepth  = 0.1 // mm of hammer marks evened on each face
	planishStrain = 0.15
	shearShare    = 0.577 // shear over tensile flow stress (von Mises)
	lightBlow     = 0.6
	handStrain    = 0.1 // of work that is counted in strokes
)

// effort is the deformation one cell still owes: an equivalent volume brought
// to an effective strain with some redundancy.
type effort struct {
	volumeMm3  float64
	strain     float64
	redundancy float64
	heightMm   float64
	onEdge     float64 // share of the work that is struck on edge

	// set once a heat: of the rate of strain, and of the law's integral
	logRate, a, b float64
}

// effort of the cell for its target (nil where the section is kept); dieMm is
// the contact of a machine that does it (0: the hammer does).
func (op *Operation) effort(h Smith, dieMm float64, c *Cell, to *Target, remaining float64) effort {
	switch op.Kind {
	case Corners:
		k := cornerChamfer * math.Min(c.ThicknessMm, c.WidthMm)
		v := 2 * k * k * c.LengthMm() // four corners of k²/2
		return effort{volumeMm3: v * remaining, strain: cornerStrain, redundancy: Redundancy(k, k), heightMm: c.ThicknessMm}
	case Planish:
		v := 2 * planishDepth * c.WidthMm * c.LengthMm()
		return effort{volumeMm3: v * remaining, strain: planishStrain, redundancy: Redundancy(c.ThicknessMm, h.BiteMm(FlatFace, c.WidthMm)), heightMm: c.ThicknessMm}
	case PreCurve, Correct, TangCurve:
		return effort{volumeMm3: c.VolumeMm3 * remaining, strain: math.Abs(op.BendPer) * c.WidthMm / 4, redundancy: 1, heightMm: c.WidthMm}
	case Straighten:
		// bent flatwise out of its curve: the outermost fibre by t/2R, half of that
		// on the mean
		return effort{volumeMm3: c.VolumeMm3 * remaining, strain: math.Abs(op.BendPer) * c.ThicknessMm / 4, redundancy: 1, heightMm: c.ThicknessMm}
	case Stamp, Twist, Loop, Wrap, Weld, WeldOn, Notch:
		return effort{volumeMm3: c.VolumeMm3 * remaining, strain: handStrain, redundancy: 1, heightMm: c.ThicknessMm}
	case CutOff:
		// sheared through half the thickness from both sides
		v := c.WidthMm * c.ThicknessMm * c.ThicknessMm / 2
		return effort{volumeMm3: v * remaining, strain: shearShare, redundancy: 1.2, heightMm: c.ThicknessMm}
	}
	ew, et := math.Log(to.WidthMm/c.WidthMm), math.Log(to.ThicknessMm/c.ThicknessMm)
	edge := 0.0
	if ew < 0 {
		edge = -ew / (-ew + math.Abs(et) + 1e-12)
	}
	contact := dieMm // of a machine's dies, else of the hammer's face
	if contact <= 0 {
		contact = h.contactMm(op.Face, c.WidthMm) * op.Support.Share()
	}
	q := (1-edge)*Redundancy(c.ThicknessMm, contact) + edge*Redundancy(c.WidthMm, EdgeBiteMm)
	if op.Kind == Upset { // struck on its end: as high as it stands free
		q, edge = Redundancy(op.FreeMm, math.Sqrt(c.WidthMm*c.ThicknessMm)), 0
	}
	return effort{
		volumeMm3:  c.VolumeMm3,
		strain:     EffectiveStrain(c.WidthMm, c.ThicknessMm, to.WidthMm, to.ThicknessMm),
		redundancy: q,
		onEdge:     edge * Redundancy(c.WidthMm, EdgeBiteMm) / q,
		heightMm:   (1-edge)*c.ThicknessMm + edge*c.WidthMm,
	}
}

// light tells whether the blows are light.
func (k Kind) light() bool {
	return k == Straighten || k == Corners || k == Planish || k == PreCurve || k == Correct || k == TangCurve
}

// advance carries the cell the fraction q of what is left.
func (c *Cell) advance(to Target, q float64) {
	lerp := func(a, b float64) float64 { return a * math.Pow(b/a, q) }
	c.WidthMm = lerp(c.WidthMm, to.WidthMm)
	c.ThicknessMm = lerp(c.ThicknessMm, to.ThicknessMm)
	c.EdgeMm = lerp(c.EdgeMm, to.EdgeMm)
	c.SpineMm = lerp(c.SpineMm, to.SpineMm)
}
