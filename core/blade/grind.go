package blade

import (
	"math"

	"coldember/core/section"
)

// Grind is the section along the blade, scaled to the local height.
type Grind struct {
	Kind           section.Kind `json:"kind" enum:"flat,convex,chisel,hollow,diamond,lens,rect"`
	BevelFraction  float64      `json:"bevelFraction,omitempty" doc:"bevel height as a fraction of the local height; 0 or 1 is full"`
	EdgeMm         float64      `json:"edgeMm,omitempty"`
	WheelRadiusMm  float64      `json:"wheelRadiusMm,omitempty"`
	SwedgeFraction float64      `json:"swedgeFraction,omitempty" doc:"height of a false edge as a fraction of the local height"`
	SwedgeEdgeMm   float64      `json:"swedgeEdgeMm,omitempty"`
	SwedgeLongMm   float64      `json:"swedgeLongMm,omitempty" doc:"how far a false edge, or the sharpened back of a clip, runs from the point; 0: to the heel"`
	Groove         *Groove      `json:"groove,omitempty"`
	BevelSide      BevelSide    `json:"bevelSide,omitempty" enum:"right,left" doc:"of a blade ground on one side: which face has the bevel, edge down and point away; right if not said"`

	// The grind may change along the blade.
	PlungeMm           float64 `json:"plungeMm,omitempty" doc:"over this length before the heel the bevel runs out into the full thickness"`
	PointBevelFraction float64 `json:"pointBevelFraction,omitempty" doc:"bevel height at the point, running straight to that at the heel; 0: the same"`
	PointEdgeMm        float64 `json:"pointEdgeMm,omitempty" doc:"edge thickness at the point, likewise; 0: the same"`
}

// at is bevel height (fraction), edge thickness and how far the bevel has run
// out, x mm from the point of a blade of this length. The plunge is a smooth
// step, level at both ends.
func (g *Grind) at(x, lengthMm float64) (bevel, edgeMm, runOut float64) {
	bevel, edgeMm = g.BevelFraction, g.EdgeMm
	if bevel <= 0 {
		bevel = 1
	}
	u := x / lengthMm
	if p := g.PointBevelFraction; p > 0 {
		bevel = p + (bevel-p)*u
	}
	if p := g.PointEdgeMm; p > 0 {
		edgeMm = p + (edgeMm-p)*u
	}
	if v := (x - lengthMm + g.PlungeMm) / g.PlungeMm; g.PlungeMm > 0 && v > 0 {
		runOut = v * v * (3 - 2*v)
	}
	return bevel, edgeMm, runOut
}

// swedgeFade is the share of a false edge over which it runs out.
const swedgeFade = 0.15

// swedge is the height of the false edge as a share of the local height, x mm from the point.
func (g *Grind) swedge(x float64) float64 {
	if g.SwedgeLongMm <= 0 {
		return g.SwedgeFraction
	}
	left := (g.SwedgeLongMm - x) / (swedgeFade * g.SwedgeLongMm)
	return g.SwedgeFraction * math.Max(0, math.Min(1, left))
}

// BevelSide is the face of the bevel where only one has it.
type BevelSide string

// The hand it is for: the bevel on its own side, the flat to the work.
const (
	RightBevel BevelSide = "right"
	LeftBevel  BevelSide = "left"
)

// left tells whether the bevel is on the left face.
func (g *Grind) left() bool { return g.Kind.OneSided() && g.BevelSide == LeftBevel }

// Groove runs along the blade between two shares of the local height: a fuller,
// a hollow middle strip or a hollowed back.
type Groove struct {
	LowFraction  float64 `json:"lowFraction"`
	HighFraction float64 `json:"highFraction"`
	DepthMm      float64 `json:"depthMm" doc:"in each face"`
	Faces        float64 `json:"faces" doc:"1 for the back alone, 2 for both"`
	FromMm       float64 `json:"fromMm" doc:"from the point"`
	ToMm         float64 `json:"toMm" doc:"from the point; 0 is to the heel"`

	WheelRadiusMm float64 `json:"wheelRadiusMm,omitempty" doc:"of the wheel that grinds it, however large: its depth follows from it and the height; 0: the depth is given"`
}

// depth of the groove where it is so high.
func (g *Groove) depth(highMm float64) float64 {
	if r := g.WheelRadiusMm; r > 0 {
		return r - math.Sqrt(math.Max(0, r*r-highMm*highMm/4))
	}
	return g.DepthMm
}

// at puts the groove into the section at x of a blade of this length.
func (g *Groove) at(x, lengthMm float64, s *section.Section) {
	to := g.ToMm
	if to <= 0 {
		to = lengthMm
	}
	depth := g.depth((g.HighFraction - g.LowFraction) * s.HeightMm)
	if x < g.FromMm || x > to || depth <= 0 {
		return
	}
	s.Grooves = []section.Groove{{LowMm: g.LowFraction * s.HeightMm, HighMm: g.HighFraction * s.HeightMm, DepthMm: depth, OneFace: g.Faces == 1}}
}
