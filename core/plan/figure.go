package plan

import (
	"coldember/core/fact"
)

// Figure is what of a patterned steel is to show on the blade.
type Figure string

// NoFigure is steel without one, or whatever comes; QuarterDeep are the loops of a
// twisted billet, NearMiddle its stars.
const (
	NoFigure    Figure = "none"
	QuarterDeep Figure = "quarter"
	NearMiddle  Figure = "middle"
)

// depthShare is how deep a figure lies under the face, as a share of the thickness:
// the layers thin with the piece (near the middle: judgement).
func (f Figure) depthShare() float64 {
	switch f {
	case QuarterDeep:
		return .25
	case NearMiddle:
		return .4
	}
	return 0
}

// warnFigure: grinding that stops above the figure where the blade is thickest, with
// what would have to be left on each face to reach it.
func (r *route) warnFigure(p *Plan, add adder) {
	s := r.req.Choices.Figure.depthShare()
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
		add("warn.figureDeep", fact.Warn, fact.Where{Zone: ZoneBlade}, fact.Figures{
			"depthMm": deep, "groundMm": ground, "forgedMm": forged, "needMm": s * finished / (1 - 2*s),
		})
	}
}
