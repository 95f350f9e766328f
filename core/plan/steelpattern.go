package plan

import (
	"coldember/core/fact"
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

// depthShare is how deep it lies under the face, as a share of the thickness:
// the layers thin with the piece (near the middle: judgement).
func (p SteelPattern) depthShare() float64 {
	switch p {
	case LoopsQuarterDeep:
		return .25
	case StarsNearMiddle:
		return .4
	}
	return 0
}

// warnPattern: grinding that stops above the pattern where the blade is thickest, with
// what would have to be left on each face to reach it.
func (r *route) warnPattern(p *Plan, add adder) {
	s := r.req.Choices.SteelPattern.depthShare()
	if s == 0 || r.req.Forged != nil {
		return
	}
	heel := func(st []Station) (t float64) {
		for i := range st {
			if st[i].Zone == ZoneBlade {
				t = st[i].ThicknessMm
			}
		}
		return t
	}
	finished, forged := heel(p.Drawing.Finished), heel(p.Drawing.Forged)
	if deep, ground := s*forged, (forged-finished)/2; ground < deep-1e-6 {
		add("warn.patternDeep", fact.Warn, fact.Where{Zone: ZoneBlade}, fact.Figures{
			"depthMm": deep, "groundMm": ground, "forgedMm": forged, "needMm": s * finished / (1 - 2*s),
		})
	}
}
