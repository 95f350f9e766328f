package route

import (
	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/section"
)

// BevelSweep of the blade from its section two thirds of the way to the heel.
func BevelSweep(b *blade.Body, req plan.Request) forge.Bend {
	x := b.LengthMm() * 2 / 3
	s := b.SectionAt(x)
	if s.Kind == section.Rect || s.EdgeMm >= s.SpineMm {
		return forge.Bend{}
	}
	spread := req.Smith.BevelSpread(req.Choices.Method, s.HeightMm)
	return forge.BevelBend(s, s.SpineMm, spread, req.Smith.Bends(), b.LengthMm())
}
