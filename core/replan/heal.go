package replan

import (
	"math"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/steel"
)

// Heal tells whether the worst place can be made good, and by what; or why not.
type Heal struct {
	Can     bool         `json:"can"`
	Code    string       `json:"code"`
	Figures fact.Figures `json:"figures"`
}

// stop is how long a blade of the planned section there is steel for, tang and ricasso as planned.
func (a *asking) stop() float64 {
	perMm, rest := 0.0, 0.0
	for i := range a.planned.Cells {
		c := &a.planned.Cells[i]
		if c.Rod {
			continue
		}
		if v := c.VolumeMm3 * (1 + a.toCome); c.Zone == plan.ZonePoint || c.Zone == plan.ZoneBlade {
			perMm += v
		} else {
			rest += v
		}
	}
	long := a.req.Design.LengthMm
	return math.Max(0, math.Min(long, (a.p.mm3-rest)/(perMm/long)))
}

// heal tells of the worst place: steel can be driven into it from an end that is near, if there is enough of it; a neck in the
// middle of a blade cannot be filled.
func (a *asking) heal(s *Short, enough bool) Heal {
	end := a.p.endMm()
	near := math.Min(s.AtMm, end-s.AtMm)
	at := between(a.now.Shape, s.AtMm)
	free := upsetFree * at.ThicknessMm
	f := fact.Figures{"atMm": s.AtMm, "nearMm": near, "limitMm": free, "shortMm": math.Max(s.ThickMm, s.HighMm)}
	switch {
	case s.Bad: // no hammer makes it good
		return Heal{false, "replan.cannotHeal", f}
	case !enough:
		return Heal{false, "replan.tooLittle", f}
	case near > free:
		return Heal{false, "replan.cannotHeal", f}
	}
	return Heal{true, "replan.heal", f}
}

// healed is what was planned, its neck driven up again first; nil where that cannot be.
func (a *asking) healed(r *Remains) *candidate {
	if r.Heal == nil || !r.Heal.Can {
		return nil
	}
	on := a.p.lay(a.planned, a.toCome)
	if a.p.mm3 < on.needMm3 {
		return nil
	}
	for i := range on.bar.Cells { // what is short is upset to what is wanted, its volume from its neighbours
		c, cell := &a.planned.Cells[i], &on.bar.Cells[i]
		if high, thick := wanted(c); cell.WidthMm*cell.ThicknessMm < high*thick*(1+a.toCome) {
			cell.ThicknessMm = high * thick * (1 + a.toCome) / cell.WidthMm
		}
	}
	on.short = nil
	return &candidate{way: Way{
		What: "heal", Design: a.req.Design, Allowances: a.req.Allowances, Figures: r.Heal.Figures, GivenUp: healCosts, MassG: a.was.MassG,
		SpareG: (a.p.mm3 - on.needMm3) * steel.DensityGPerCm3 / 1000,
	}, req: a.req, laid: a.planned, on: on}
}

// leastOf is the place that was read farthest under what was planned there; nil where none is by more than a hand is off.
func (a *asking) leastOf() *Short {
	const off = .96
	var out *Short
	long := a.now.Shape[len(a.now.Shape)-1].XMm
	shift := a.m.shift(long)
	for _, s := range a.m.Stations {
		was := between(a.now.Shape, s.AtMm+shift)
		if s.HeightMm == 0 {
			s.HeightMm = was.HeightMm()
		}
		if s.ThicknessMm == 0 {
			s.ThicknessMm = was.ThicknessMm
		}
		share := s.HeightMm * s.ThicknessMm / (was.HeightMm() * was.ThicknessMm)
		if share < off && (out == nil || share < out.Share) {
			out = &Short{AtMm: s.AtMm, ThickMm: math.Max(0, was.ThicknessMm-s.ThicknessMm), HighMm: math.Max(0, was.HeightMm()-s.HeightMm), Share: share}
		}
	}
	return out
}
