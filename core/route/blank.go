package route

import (
	"math"

	"coldember/core/plan"
)

// blank makes the bar of a piece that is sawn out of a sheet: as thick as the sheet, and as wide
// as the outline is anywhere.
func (r *Route) blank() {
	r.Bar.WidthMm = 0
	for i := range r.Cells {
		r.Bar.WidthMm = math.Max(r.Bar.WidthMm, r.SawnMm(i))
	}
	r.Bar.AreaMm2 = r.Bar.WidthMm * r.Bar.ThicknessMm
	r.Bar.BendRadiusMm = 0 // it is cut out of what is flat
}

// SawnMm is how wide the outline is sawn where a cell begins: as it is before bevels, for what
// its shoulders and notches are cut out with it.
func (r *Route) SawnMm(i int) float64 {
	c := &r.Cells[i]
	if c.Zone == plan.ZonePoint || c.Zone == plan.ZoneBlade {
		return c.Preform.WidthMm
	}
	return c.Final.WidthMm
}
