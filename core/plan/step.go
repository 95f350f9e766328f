package plan

import (
	"strconv"
	"strings"

	"coldember/core/forge"
)

// Reading is what the calipers should say at a station.
type Reading struct {
	Zone        string  `json:"zone" enum:"point,blade,ricasso,tang"`
	AtMm        float64 `json:"atMm" doc:"from the point of the piece as it then is"`
	HeightMm    float64 `json:"heightMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	// What they say at the anvil, where the steel is as hot as it is there at the end of the heat; 0: as cold.
	HeightHotMm    float64 `json:"heightHotMm,omitempty"`
	ThicknessHotMm float64 `json:"thicknessHotMm,omitempty"`
	WithinMm       float64 `json:"withinMm,omitempty" doc:"how near the calipers have to be"`
}

// Step is one step of the work, of whatever family: what all steps have stands
// here, and what only its family has in the payload of that family. Exactly one
// payload is there.
type Step struct {
	ID           string    `json:"id" doc:"of its own: there may be several of a kind"`
	Kind         string    `json:"kind" enum:"straighten,weld,weldOn,slit,scarf,weldBit,corners,upset,breakDown,point,setDown,tang,ricasso,notch,profile,preCurve,bevel,falseEdge,correct,planish,stamp,twist,widenTang,lineCurve,formFlat,tangCurve,punch,cutOff,loop,weldLoop,wrap,harden,normalise,anneal,soften"`
	Zones        []string  `json:"zones" enum:"point,blade,ricasso,tang"`
	After        string    `json:"after,omitempty" doc:"the step that it has to come after"`
	BecauseCode  string    `json:"becauseCode,omitempty"`
	CautionCodes []string  `json:"cautionCodes"`
	Heats        float64   `json:"heats" doc:"fractional: what is left of a heat goes to the next operation"`
	Passes       int       `json:"passes"`
	TimeS        float64   `json:"timeS"`
	StartC       float64   `json:"startC"`
	EndC         float64   `json:"endC"`
	TargetC      float64   `json:"targetC,omitempty" doc:"that it is brought to, where not what the rest is"`
	ScaleMm3     float64   `json:"scaleMm3"`
	Readings     []Reading `json:"readings,omitempty"`

	Forging *Forging `json:"forging,omitempty"`
	Thermal *Thermal `json:"thermal,omitempty"`
}

// Forging is the payload of an operation of hammer or machine.
type Forging struct {
	Face    forge.Face `json:"face,omitempty" enum:"flat,round,peenAcross,peenAlong,anvilEdge,bevel"`
	Support string     `json:"support,omitempty" doc:"under the piece, where not the anvil's face"`
	Heavy   bool       `json:"heavy,omitempty" doc:"a machine may do it"`
	Machine string     `json:"machine,omitempty" doc:"what does it, where not the hand hammer"`
	Dies    forge.Dies `json:"dies,omitempty" doc:"of the machine"`
	// What a break-down comes to: a square where width and thickness are one.
	PreformWidthMm     float64 `json:"preformWidthMm,omitempty"`
	PreformThicknessMm float64 `json:"preformThicknessMm,omitempty"`

	StopMm       float64 `json:"stopMm,omitempty" doc:"how far a press is let close, or the gap of rolls at the last pass"`
	TaperMm      float64 `json:"taperMm,omitempty" doc:"by how much thicker it is left at the thick end: the stop, or the gap, is opened by that along the stretch"`
	NewDies      bool    `json:"newDies,omitempty" doc:"the dies are changed for it"`
	Blows        float64 `json:"blows"`
	LowC         float64 `json:"lowC,omitempty" doc:"where it stops, if not where the rest does"`
	BendPerMm    float64 `json:"bendPerMm,omitempty"`
	ExtraMm      float64 `json:"extraMm,omitempty" doc:"drawn so much longer before: a twist takes it"`
	BendRiseMm   float64 `json:"bendRiseMm,omitempty"`
	EdgeRatio    float64 `json:"edgeRatio,omitempty" doc:"width over thickness as the operation finds it, where it goes by turns"`
	EdgeTurns    int     `json:"edgeTurns,omitempty" doc:"times that it is turned on edge for light taps and back for flat blows"`
	EdgeBlows    float64 `json:"edgeBlows,omitempty" doc:"of the blows, those on edge"`
	Strokes      float64 `json:"strokes,omitempty" doc:"turns of the wrench, bends or stamps, where it is no work of the hammer's energy"`
	SpreadNeeded float64 `json:"spreadNeeded,omitempty"`
	SpreadGiven  float64 `json:"spreadGiven,omitempty" doc:"by this face; of operations whose face the smith chooses"`
}

// Thermal is the payload of a thermal cycle or of the hardening.
type Thermal struct {
	SoakS     float64 `json:"soakS,omitempty" doc:"held at heat before the quench"`
	BathLowC  float64 `json:"bathLowC,omitempty" doc:"how warm the oil of a quench is kept"`
	BathHighC float64 `json:"bathHighC,omitempty"`
}

// Hammer is the payload of an operation of hammer or machine, or an empty one.
func (s *Step) Hammer() Forging {
	if s.Forging == nil {
		return Forging{}
	}
	return *s.Forging
}

// Fire is the payload of a thermal cycle or of the hardening, or an empty one.
func (s *Step) Fire() Thermal {
	if s.Thermal == nil {
		return Thermal{}
	}
	return *s.Thermal
}

// OperationID names the nth operation of a kind, from 1: by its kind, with a number
// from the second on.
func OperationID(k forge.Kind, n int) string {
	if n <= 1 {
		return string(k)
	}
	return string(k) + strconv.Itoa(n)
}

// KindOf is the kind of the operation with this id.
func KindOf(id string) forge.Kind { return forge.Kind(strings.TrimRight(id, "0123456789")) }

// Part is the share of an operation done in one heat.
type Part struct {
	LowC      float64 `json:"lowC,omitempty" doc:"where it is too cold to go on"`
	Operation string  `json:"operation"`
	FromShare float64 `json:"fromShare"`
	ToShare   float64 `json:"toShare"`
	Blows     float64 `json:"blows"`
	WorkS     float64 `json:"workS"`
	LimitS    float64 `json:"limitS" doc:"seconds from the fire until the piece is too cold for it"`
	FromMm    float64 `json:"fromMm" doc:"the stretch that is worked, on the piece as it then is"`
	ToMm      float64 `json:"toMm"`
	Goal      *Goal   `json:"goal,omitempty" doc:"the one figure to reach; none where no caliper tells"`
}

// Measure is what of a piece a caliper tells.
type Measure string

// Height is across the piece, edge to spine; Thickness at the spine; EdgeThickness at the
// edge; Rise how far the point stands off the straight.
const (
	Height        Measure = "height"
	Thickness     Measure = "thickness"
	EdgeThickness Measure = "edgeThickness"
	Rise          Measure = "rise"
)

// Measures lists them.
func Measures() []Measure { return []Measure{Height, Thickness, EdgeThickness, Rise} }

// Goal is the figure that a step in a heat changes most, at one place.
type Goal struct {
	Measure Measure `json:"measure" enum:"height,thickness,edgeThickness,rise"`
	Mm      float64 `json:"mm"`
	HotMm   float64 `json:"hotMm,omitempty" doc:"what it reads at the anvil, as hot as the steel is there then; 0: as cold"`
	FromMm  float64 `json:"fromMm" doc:"what it is before"`
	AtMm    float64 `json:"atMm" doc:"from the point of the piece as it then is"`

	// FromHotMm and AtHotMm are the same as they read on the hot steel.
	FromHotMm float64 `json:"fromHotMm,omitempty"`
	AtHotMm   float64 `json:"atHotMm,omitempty"`

	Zone     string  `json:"zone" enum:"point,blade,ricasso,tang"`
	WithinMm float64 `json:"withinMm"`
}

// Slab is a section of the piece that comes to heat, or goes cold, as this law of cooling says
// of a bar of that size.
type Slab struct {
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	FromC       float64 `json:"fromC" doc:"before"`
}

// HeatStep is one trip fire → anvil → fire as the smith counts it.
type HeatStep struct {
	Number   int       `json:"number"`
	Parts    []Part    `json:"parts"`
	StartC   float64   `json:"startC"`
	EndC     float64   `json:"endC"`
	FireS    float64   `json:"fireS"`
	CarryS   float64   `json:"carryS"`
	WorkS    float64   `json:"workS"`
	BrushS   float64   `json:"brushS"`
	Blows    int       `json:"blows"`
	FuelG    float64   `json:"fuelG"`
	ScaleMm3 float64   `json:"scaleMm3"`
	ScaleG   float64   `json:"scaleG"`
	HotSoFar float64   `json:"hotSoFarS"`
	Curve    []Moment  `json:"curve" doc:"the coldest worked spot from the fire to the last blow"`
	HotFrom  float64   `json:"hotFromMm"`
	HotTo    float64   `json:"hotToMm"`
	Readings []Reading `json:"readings"`
	Shape    []Station `json:"shape"`
	Joined   *Joined   `json:"joined,omitempty"`
	Rest     bool      `json:"rest,omitempty" doc:"rest the arm before the next heat"`
	LimitS   float64   `json:"limitS" doc:"seconds from the fire until the piece is too cold to go on"`
	Slow     Slab      `json:"slow" doc:"the worked spot that comes to heat last"`
	Cold     Slab      `json:"cold" doc:"the worked spot that goes cold first, as it is at the last blow"`
}

// Moment is a temperature at a time from the fire.
type Moment struct {
	S float64 `json:"s"`
	C float64 `json:"c"`
}
