package plan

import (
	"coldember/core/forge"
)

// Curve is the school of dealing with the sweep that bevelling gives.
type Curve string

// The schools of curve.
const (
	PreCurveFirst Curve = "preCurve"
	CorrectAsYou  Curve = "correct"
	LetSweep      Curve = "sweep"
)

// Holding is the school of holding the piece.
type Holding string

// WholeBar is cut off last and held by hand; Tongs hold a piece cut to length;
// a WeldedRod holds a short piece and is cut off last.
const (
	WholeBar  Holding = "wholeBar"
	Tongs     Holding = "tongs"
	WeldedRod Holding = "weldedRod"
)

// First is the school of what is forged first.
type First string

// PointFirst fixes the blade's length in a long bar; TangFirst knows what is
// left for the blade where stock is short.
const (
	PointFirst First = "point"
	TangFirst  First = "tang"
)

// Taper is the school of thinning toward the point.
type Taper string

// Notch is how a finger notch is made.
type Notch string

// NotchCut is ground or filed after forging; NotchForged is driven in over a
// bottom fuller.
const (
	NotchCut    Notch = "cut"
	NotchForged Notch = "forged"
)

// ForgedTaper thins before the bevels; GroundTaper bevels a blade of even
// thickness and grinds the taper, as thin stock allows.
const (
	ForgedTaper Taper = "forged"
	GroundTaper Taper = "ground"
)

// Corners is whether the corners of the bar are broken before it is forged.
type Corners string

// CornersFirst breaks them all along; CornersLeft spares the heat.
const (
	CornersFirst Corners = "first"
	CornersLeft  Corners = "left"
)

// Cycles is the school of normalising.
type Cycles string

// The schools of normalising.
const (
	Descending Cycles = "descending"
	Equal      Cycles = "equal"
	Once       Cycles = "once"
	SlowAnneal Cycles = "anneal" // one, then softened slowly for grinding and drilling
)

// Choices are the schools a smith chooses among.
type Choices struct {
	Method  forge.Method `json:"method" enum:"pinchOut,pushIn"`
	Curve   Curve        `json:"curve" enum:"preCurve,correct,sweep"`
	Holding Holding      `json:"holding" enum:"wholeBar,tongs,weldedRod"`
	Cycles  Cycles       `json:"cycles" enum:"descending,equal,once,anneal"`
	First   First        `json:"first,omitempty" enum:"point,tang" doc:"point if not said"`
	Taper   Taper        `json:"taper,omitempty" enum:"forged,ground" doc:"forged if not said"`

	Tools   []ToolUse `json:"tools,omitempty" doc:"where the smith takes another tool than the planner"`
	Corners Corners   `json:"corners,omitempty" enum:"first,left" doc:"first if not said"`
	Notch   Notch     `json:"notch,omitempty" enum:"cut,forged" doc:"how a finger notch is made; cut if not said"`
	Soften  bool      `json:"soften,omitempty" doc:"held below the critical point after the cycles, to be drilled and bent cold"`
	Even    Even      `json:"even,omitempty" enum:"forgeLow,stored,kiln" doc:"how it is brought to an even heat; in the forge run low if not said"`
	Harden  Harden    `json:"harden,omitempty" enum:"later,forged" doc:"when it is hardened; later, once ground, if not said"`
	// ByTable: by the laws alone, whatever the shop's book taught.
	ByTable bool `json:"byTable,omitempty"`

	SteelPattern SteelPattern `json:"steelPattern,omitempty" enum:"none,quarter,middle" doc:"what of a patterned steel is to show; none if not said"`
	Start        Start        `json:"start,omitempty" enum:"bar,sheet" doc:"drawn from the bar, or cut out of the sheet that it is and then forged; from the bar if not said"`
	RodWeld      RodWeld      `json:"rodWeld,omitempty" enum:"arc,fire" doc:"how a rod is welded on; by arc, cold, if not said"`
	Stamp        bool         `json:"stamp,omitempty" doc:"a mark is stamped while it is soft and hot"`
	Order        []string     `json:"order,omitempty" doc:"operations as the smith takes them; the planner's order if empty"`
	Forced       bool         `json:"forced,omitempty" doc:"the order is wanted although it breaks a need"`
}

// Start is what the forging begins with.
type Start string

// FromBar draws everything out of the bar; FromSheet begins with an outline that is sawn out of
// a plate, a disc or the like, so that only bevels, taper and thickness are forged.
const (
	FromBar   Start = "bar"
	FromSheet Start = "sheet"
)

// ForgedFirst is the school of what is forged first.
func (c Choices) ForgedFirst() First {
	if c.First == TangFirst {
		return TangFirst
	}
	return PointFirst
}

// RodWeld is how a rod is welded on.
type RodWeld string

// ByArc is done cold, before the first fire; InTheFire is a heat, scarf on scarf.
const (
	ByArc     RodWeld = "arc"
	InTheFire RodWeld = "fire"
)

// SteelPattern is what of a patterned steel is to show on the blade.
type SteelPattern string

// NoPattern is steel without one, or whatever comes; LoopsQuarterDeep are the loops of a
// twisted billet, StarsNearMiddle its stars.
const (
	NoPattern        SteelPattern = "none"
	LoopsQuarterDeep SteelPattern = "quarter"
	StarsNearMiddle  SteelPattern = "middle"
)

// DepthShare is how deep it lies under the face, as a share of the thickness:
// the layers thin with the piece (near the middle: judgement).
func (p SteelPattern) DepthShare() float64 {
	switch p {
	case LoopsQuarterDeep:
		return .25
	case StarsNearMiddle:
		return .4
	}
	return 0
}

// ToolUse is the smith's own face and support for an operation; empty is the
// planner's.
type ToolUse struct {
	Operation string        `json:"operation"`
	Face      forge.Face    `json:"face,omitempty" enum:"flat,round,peenAcross,peenAlong"`
	Support   forge.Support `json:"support,omitempty" enum:"face,horn,edge,fuller"`

	// By is the hand or a machine; the quicker of hand and the smith's own machine if empty.
	By   By         `json:"by,omitempty" enum:"hand,striker,powerHammer,press,rollingMill"`
	Dies forge.Dies `json:"dies,omitempty" enum:"flat,drawing,crowned" doc:"of the machine; its own if empty"`
}

// By is what works an operation: the hand, or a kind of machine.
type By string

// ByHand is the hand hammer; every other By is a forge.MachineKind.
const ByHand By = "hand"

// Ways lists them.
func Ways() []By {
	out := []By{ByHand}
	for _, m := range forge.MachineKinds() {
		out = append(out, By(m))
	}
	return out
}

// Tooled tells whether the smith chooses face and support for operations of this
// kind: those that move steel with the hammer.
func Tooled(k forge.Kind) bool {
	switch k {
	case forge.BreakDown, forge.Point, forge.DrawTang, forge.WidenTang, forge.Profile:
		return true
	}
	return false
}

// Even is how a piece is brought to an even heat for its cycles and its hardening.
type Even string

// ForgeLow runs the forge low and moves the piece; Stored turns the burner off and uses what heat
// is in the lining; Kiln holds it.
const (
	ForgeLow Even = "forgeLow"
	Stored   Even = "stored"
	Kiln     Even = "kiln"
)

// Harden is when the piece is hardened.
type Harden string

// HardenLater hardens once the bevels are ground, which is no part of the forging;
// HardenForged as it comes from the forge, to be ground hard.
const (
	HardenLater  Harden = "later"
	HardenForged Harden = "forged"
)
