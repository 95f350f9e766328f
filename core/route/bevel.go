package route

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/section"
)

// BevelSweep of the blade from its section two thirds of the way to the heel. A stretch bends in the heat in
// which it is bevelled and is trued before the next, so that a blade longer than its fire bends less.
func BevelSweep(b *blade.Body, req plan.Request) forge.Bend {
	x := b.LengthMm() * 2 / 3
	s := b.SectionAt(x)
	if s.Kind == section.Rect || s.EdgeMm >= s.SpineMm {
		return forge.Bend{}
	}
	spread := req.Smith.BevelSpread(req.Choices.Method, s.HeightMm)
	return forge.BevelBend(s, s.SpineMm, spread, req.Smith.Bends()*math.Min(1, req.Fire.HotLengthMm/b.LengthMm()), b.LengthMm())
}

// truedEveryHeat tells whether bevelling is trued at the end of every heat: where the smith does so, and where
// the blade does not come to heat at once, which no pre-curve would meet.
func (r *Route) truedEveryHeat() bool {
	switch r.Req.Choices.Curve {
	case plan.CorrectAsYou:
		return true
	case plan.LetSweep:
		return false
	}
	return r.bladeMm > r.Req.Fire.HotLengthMm*(1+forge.HotSlack)
}

// TruedEveryHeat tells whether the correction is done at the ends of the heats of the bevels.
func (r *Route) TruedEveryHeat() bool { return r.bevelled() && r.truedEveryHeat() }

// preCurve is how far the blade is bent before its bevels, 1/mm: what they will bend it, but no more than lies on the anvil.
func (r *Route) preCurve() float64 {
	if r.Req.Choices.Curve != plan.PreCurveFirst || r.truedEveryHeat() || r.Bend.CurvaturePerMm <= 0 {
		return 0
	}
	return math.Min(r.Bend.CurvaturePerMm, forge.CurvatureOf(forge.MostRise*r.bladeMm, r.bladeMm))
}

// PreCurveMm is how far the point is bent down before the bevels.
func (r *Route) PreCurveMm() float64 { return forge.Rise(r.preCurve(), r.bladeMm) }
