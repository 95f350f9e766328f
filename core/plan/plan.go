package plan

import (
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// Line is one line of the ledger, from the finished blade up to the bar.
type Line struct {
	Code      string       `json:"code"`
	VolumeMm3 float64      `json:"volumeMm3"`
	MassG     float64      `json:"massG"`
	BarMm     float64      `json:"barMm"`
	Total     bool         `json:"total,omitempty" doc:"a sum so far, not an addition"`
	Figures   fact.Figures `json:"figures,omitempty"`
	Parts     []Line       `json:"parts,omitempty" doc:"what an addition is made of"`
}

// Mark is a stretch of the bar that becomes a zone.
type Mark struct {
	Zone   string  `json:"zone" enum:"point,blade,ricasso,tang"`
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
}

// BarPlan is what is taken from the bar.
type BarPlan struct {
	// RodMm3 of the tang is of a rod that is welded on, RodMm long.
	RodMm3 float64 `json:"rodMm3,omitempty"`
	RodMm  float64 `json:"rodMm,omitempty"`

	Bit *BitPlan `json:"bit,omitempty"`

	// Blank is the outline that is sawn out, along it and over its middle; the bar is then the
	// rectangle around it.
	Blank []blade.Node `json:"blank,omitempty"`

	WidthMm      float64 `json:"widthMm"`
	ThicknessMm  float64 `json:"thicknessMm"`
	AreaMm2      float64 `json:"areaMm2"`
	AvailableMm  float64 `json:"availableMm" doc:"the longest stretch without dead spots"`
	FromMm       float64 `json:"fromMm,omitempty" doc:"where that stretch begins on the piece"`
	CutLengthMm  float64 `json:"cutLengthMm"`
	LowMm        float64 `json:"lowMm" doc:"four of five cases take a length to cut from here"`
	HighMm       float64 `json:"highMm" doc:"to here; both are the length to cut where an outline is sawn out"`
	StartMm3     float64 `json:"startMm3"`
	LossFraction float64 `json:"lossFraction" doc:"that sizes the bar"`
	ScaleShare   float64 `json:"scaleShare" doc:"as the heats compute it"`
	LeftMm       float64 `json:"leftMm" doc:"of the bar after the cut; negative: short by so much"`
	Marks        []Mark  `json:"marks"`

	// Down is the bar that the piece is first broken down to.
	Down *DownBar `json:"down,omitempty"`
}

// DownBar is the even bar that comes of a lump, with the chalk marks on it.
type DownBar struct {
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	LengthMm    float64 `json:"lengthMm"`
	Marks       []Mark  `json:"marks"`
}

// Totals sum the plan up. Fractional figures size the bar; Heats is what a
// smith will count.
type Totals struct {
	Heats           int     `json:"heats"`
	FractionalHeats float64 `json:"fractionalHeats"`
	Cycles          int     `json:"cycles"`
	Blows           int     `json:"blows"`
	TimeS           float64 `json:"timeS" doc:"fire and anvil, forging heats"`
	CycleTimeS      float64 `json:"cycleTimeS"`
	DieChanges      int     `json:"dieChanges,omitempty" doc:"of machines, between operations"`
	DieChangeS      float64 `json:"dieChangeS,omitempty" doc:"what they take, beside the time at fire and anvil"`
	FuelG           float64 `json:"fuelG"`
	SoakC           float64 `json:"soakC"`
	LowC            float64 `json:"lowC"`
	DecarbMm        float64 `json:"decarbMm" doc:"deepest, to 90 % of the carbon, under the scale"`
	UsefulJ         float64 `json:"usefulJ"`
	Money           Money   `json:"money"`
}

// LastsS is from the first heat to the last, s: the forging, what is changed on machines between, and the cycles after
// it. So a log counts as well.
func (t *Totals) LastsS() float64 { return t.TimeS + t.DieChangeS + t.CycleTimeS }

// Plan is the answer.
type Plan struct {
	Version     int                `json:"version"`
	Laws        int                `json:"laws"`
	Steel       steel.Grade        `json:"steel"`
	Learned     *Learned           `json:"learned,omitempty" doc:"what of the shop's book it goes by"`
	Really      *Really            `json:"really,omitempty" doc:"what it will take by the book, beside what is planned"`
	School      blade.School       `json:"school" doc:"whose preset the allowances are, or own"`
	Finished    blade.Measures     `json:"finished"`
	Whole       blade.Assembled    `json:"whole" doc:"the finished blade with its handle"`
	Forged      blade.Measures     `json:"forged"`
	ForgedZones map[string]float64 `json:"forgedZones"`
	Bar         BarPlan            `json:"bar"`
	Ledger      []Line             `json:"ledger"`
	Findings    []blade.Finding    `json:"findings" doc:"the finished blade against what is usual for its use"`
	Suggested   Suggestion         `json:"suggested"`
	Feasibility []Feasibility      `json:"feasibility"`
	Bend        forge.Bend         `json:"bend"`
	Operations  []Step             `json:"operations"`
	Heats       []HeatStep         `json:"heats"`
	Totals      Totals             `json:"totals"`
	Warnings    []fact.Warning     `json:"warnings"`
	Drawing     Drawing            `json:"drawing"`
	Sections    []SectionView      `json:"sections"`
	Prep        []Prep             `json:"prep" doc:"what is done before the first heat"`
	Anvil       string             `json:"anvil,omitempty" enum:"anvil,block,rail,stone" doc:"the usual one that it is forged on"`
	// SuggestFirst is what to forge first with so much stock to spare.
	SuggestFirst First          `json:"suggestFirst" enum:"point,tang"`
	Nodes        blade.Outline  `json:"nodes" doc:"the outline of the finished blade as nodes to be moved"`
	BevelSetDeg  float64        `json:"bevelSetDeg,omitempty" doc:"angle between bevel and flat at the heel, to set to platen or jig"`
	TangNodes    *blade.Outline `json:"tangNodes,omitempty" doc:"that of a full tang, from its shoulder"`
}

// Prep is what is done to a piece before the first heat, with what it costs of
// it.
type Prep struct {
	Code         string       `json:"code"`
	LossMm3      float64      `json:"lossMm3,omitempty"`
	Figures      fact.Figures `json:"figures,omitempty"`
	CautionCodes []string     `json:"cautionCodes"`
}

// Suggestion is what this plan would leave on each face for the grinder: the
// carbon-poor skin and the hammer marks. It is offered, never taken silently.
type Suggestion struct {
	FaceMm   float64 `json:"faceMm" doc:"carbon-poor skin and hammer marks, to the next 0.05 mm"`
	DecarbMm float64 `json:"decarbMm"`
	MarksMm  float64 `json:"marksMm"`
}
