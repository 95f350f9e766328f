package harden

import "math"

// Left is how a blade is ground for the quench. It is the one place where its thickness then is
// known: hardening, straightening, cautions and grinding all ask it.
type Left struct {
	EdgeMm float64 `json:"edgeMm" doc:"thickness of the edge then"`
	FaceMm float64 `json:"faceMm" doc:"left on each face at the spine for after the quench"`
	// AsItIs: nothing is ground before, or it was ground and measured already.
	AsItIs bool `json:"asItIs,omitempty"`
}

// ThicknessMm is what is there at the quench, at a share of the height (0: edge, 1: spine) where
// the finished blade is finishedMm thick, and edgeMm at its edge, and the steel before it is ground
// for the quench is isMm. What is left runs evenly from the edge to the spine, and is never more
// than there is; mm.
func (l Left) ThicknessMm(edgeMm, finishedMm, share, isMm float64) float64 {
	if l.AsItIs {
		return isMm
	}
	more := math.Max(2*l.FaceMm, l.EdgeMm-edgeMm)
	return math.Min(isMm, finishedMm+more+(2*l.FaceMm-more)*share)
}

// of is a station's thickness as it is quenched, from the edge up.
func (l Left) of(p *Profile) []float64 {
	n := len(p.ThicknessMm)
	out := make([]float64, n)
	for i, t := range p.ThicknessMm {
		is := math.Inf(1)
		if i < len(p.IsMm) {
			is = p.IsMm[i]
		}
		if out[i] = l.ThicknessMm(p.ThicknessMm[0], t, float64(i)/float64(max(1, n-1)), is); math.IsInf(out[i], 1) {
			out[i] = t // nobody said how thick it is
		}
	}
	return out
}

// Left is how a blade of bladeMm is ground for its quench: to the edge that was chosen, or that is
// advised.
func (t *Treatment) Left(bladeMm float64) Left {
	if t.EdgeAtQuenchMm > 0 {
		return Left{EdgeMm: t.EdgeAtQuenchMm}
	}
	return Left{EdgeMm: AdvisedEdgeMm(t.Bath.Class, bladeMm)}
}

func (c *Case) left() Left {
	l := c.Treatment.Left(c.LengthMm)
	l.FaceMm, l.AsItIs = c.FaceMm, c.AsItIs
	return l
}
