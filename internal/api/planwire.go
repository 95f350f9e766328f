package api

import (
	"math"

	"coldember/core/blade"
	"coldember/core/plan"
	"coldember/core/whatif"
)

// Plan is a plan as the page shows it: the drawing of every heat, nine tenths of a
// whole plan, is left out and asked for on its own (States).
type Plan struct {
	*plan.Plan
	Heats  []Heat `json:"heats"`
	States Bounds `json:"states" doc:"how much room the piece takes in any heat"`
}

// Heat is one trip fire → anvil → fire, without its drawing.
type Heat struct {
	Number   int            `json:"number"`
	Parts    []Part         `json:"parts"`
	StartC   float64        `json:"startC"`
	EndC     float64        `json:"endC"`
	FireS    float64        `json:"fireS"`
	CarryS   float64        `json:"carryS"`
	WorkS    float64        `json:"workS"`
	BrushS   float64        `json:"brushS"`
	Blows    int            `json:"blows"`
	FuelG    float64        `json:"fuelG"`
	ScaleMm3 float64        `json:"scaleMm3"`
	ScaleG   float64        `json:"scaleG"`
	HotSoFar float64        `json:"hotSoFarS"`
	HotFrom  float64        `json:"hotFromMm"`
	HotTo    float64        `json:"hotToMm"`
	Readings []plan.Reading `json:"readings"`
	Rest     bool           `json:"rest,omitempty" doc:"rest the arm before the next heat"`
}

// Part is the share of an operation done in one heat, without what only the anvil asks for.
type Part struct {
	Operation string  `json:"operation"`
	FromShare float64 `json:"fromShare"`
	ToShare   float64 `json:"toShare"`
	Blows     float64 `json:"blows"`
}

func partOf(p plan.Part) Part { return Part{p.Operation, p.FromShare, p.ToShare, p.Blows} }

// State is the piece as it is after a heat, and how it cooled in it.
type State struct {
	Number int            `json:"number"`
	Shape  []plan.Station `json:"shape"`
	Joined *plan.Joined   `json:"joined,omitempty"`
	Curve  []plan.Moment  `json:"curve" doc:"the coldest worked spot from the fire to the last blow"`
}

// Bounds is a rectangle around all the shapes of a plan, and the thickest of them.
type Bounds struct {
	FromMm      float64 `json:"fromMm"`
	ToMm        float64 `json:"toMm"`
	TopMm       float64 `json:"topMm"`
	BottomMm    float64 `json:"bottomMm"`
	ThicknessMm float64 `json:"thicknessMm"`
}

// planOf is a plan for the page; nil stays nil.
func planOf(p *plan.Plan) *Plan {
	if p == nil {
		return nil
	}
	out := &Plan{Plan: p, Heats: make([]Heat, len(p.Heats))}
	b := Bounds{FromMm: math.Inf(1), ToMm: math.Inf(-1), TopMm: math.Inf(-1), BottomMm: math.Inf(1)}
	for i := range p.Heats {
		h := &p.Heats[i]
		out.Heats[i] = Heat{
			Number: h.Number, Parts: each(h.Parts, partOf), StartC: h.StartC, EndC: h.EndC, FireS: h.FireS, CarryS: h.CarryS, WorkS: h.WorkS, BrushS: h.BrushS,
			Blows: h.Blows, FuelG: h.FuelG, ScaleMm3: h.ScaleMm3, ScaleG: h.ScaleG, HotSoFar: h.HotSoFar, HotFrom: h.HotFrom, HotTo: h.HotTo,
			Readings: h.Readings, Rest: h.Rest,
		}
		for k := range h.Shape {
			b.take(&h.Shape[k])
		}
	}
	if len(p.Heats) > 0 {
		out.States = b
	}
	return out
}

func (b *Bounds) take(s *plan.Station) {
	for _, at := range []func() (x, y float64){s.Spine, s.Edge} {
		x, y := at()
		b.FromMm, b.ToMm = math.Min(b.FromMm, x), math.Max(b.ToMm, x)
		b.BottomMm, b.TopMm = math.Min(b.BottomMm, y), math.Max(b.TopMm, y)
	}
	b.ThicknessMm = math.Max(b.ThicknessMm, s.ThicknessMm)
}

// statesOf are the shapes and coolings of all heats.
func statesOf(p *plan.Plan) []State {
	if p == nil {
		return nil
	}
	out := make([]State, len(p.Heats))
	for i, h := range p.Heats {
		out[i] = State{Number: h.Number, Shape: h.Shape, Joined: h.Joined, Curve: h.Curve}
	}
	return out
}

// Fit is the largest blade of a pattern that a piece of stock gives.
type Fit struct {
	Length    float64      `json:"lengthShare"`
	Height    float64      `json:"heightShare"`
	Thickness float64      `json:"thicknessShare"`
	Limit     string       `json:"limit" doc:"what stops it from being larger: volume, heat (another one, and its scale), limits, or the code of an obstacle"`
	Design    blade.Design `json:"design"`
	Plan      *Plan        `json:"plan"`
}

func fitOf(f *whatif.Fit) *Fit {
	if f == nil {
		return nil
	}
	return &Fit{Length: f.Length, Height: f.Height, Thickness: f.Thickness, Limit: f.Limit, Design: f.Design, Plan: planOf(f.Plan)}
}
