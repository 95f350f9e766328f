package practice

import (
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
)

// How near a piece of work is to come to its forged shape here, and how far along a goal reaches (judgement: a hammer, and
// calipers on scaly steel).
const (
	wideNearMm, wideNearShare   = .8, .03
	thickNearMm, thickNearShare = .25, .06
	goalReachMm                 = 3.0
)

// goalShares are how far along a zone it is looked at.
var goalShares = map[string][]float64{plan.ZonePoint: {.7}, plan.ZoneBlade: {.2, .55, .9}, plan.ZoneRicasso: {.5}, plan.ZoneTang: {.35, .8}}

// OfPlan is the exercise of a piece of work: its own stock, fire and hand, and its forged shape to come to. What is joined to
// it (a bit, a rod, layers) is taken as one steel with it; what is sawn out of a sheet begins as its outline. Errors are
// fact.FieldErrors: of a piece that is not forged at all.
func OfPlan(id string, req *plan.Request, p *plan.Plan) (*Exercise, error) {
	b := &p.Bar
	if p.Totals.Heats == 0 || b.AreaMm2 <= 0 {
		return nil, fact.FieldErrors{{Field: "pieceId", Code: "practice.noBar"}}
	}
	smith := req.Smith
	smith.Machine = nil
	ex := &Exercise{
		ID: id, SteelID: req.SteelID, WidthMm: b.WidthMm, ThicknessMm: b.ThicknessMm, LengthMm: (b.StartMm3 + b.RodMm3) / b.AreaMm2, FireC: req.Fire.TempC, HotMm: req.Fire.HotLengthMm,
		ParHeats: p.Totals.Heats, ParBlows: p.Totals.Blows, smith: &smith, grade: &p.Steel, atmosphere: req.Fire.Atmosphere, Goals: []Goal{},
	}
	// a blade whose line is curved on purpose, or bent by its bevels, is not blamed for it
	ex.bends = p.Bend.CurvaturePerMm != 0 || req.Design.Tang.CurveMm > 0
	if b.Blank != nil {
		ex.begin = func(g *game) { g.sawn(b.Blank, b.ThicknessMm) }
	}
	ex.kept = func(g *game) { g.keepRicasso(p) }
	for _, zone := range []string{plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso, plan.ZoneTang} {
		var in []plan.Station
		for _, s := range p.Drawing.Forged {
			if s.Zone == zone {
				in = append(in, s)
			}
		}
		for _, share := range goalShares[zone] {
			if len(in) == 0 {
				continue
			}
			ex.want(in[int(share*float64(len(in)-1)+.5)])
		}
	}
	return ex, nil
}

// want adds the goals of a station of the forged shape.
func (ex *Exercise) want(s plan.Station) {
	near := func(w What, mm, within float64) {
		ex.Goals = append(ex.Goals, Goal{What: w, FromMm: s.XMm - goalReachMm, ToMm: s.XMm + goalReachMm, WantMm: mm, WithinMm: within})
	}
	wide, thick := s.HeightMm(), s.ThicknessMm
	if s.EdgeMm > 0 { // a section that tapers is as thick, on the mean, as half-way up it
		thick = (s.ThicknessMm + s.EdgeMm) / 2
	}
	near(Wide, wide, wideNearMm+wideNearShare*wide)
	near(Thick, thick, thickNearMm+thickNearShare*thick)
	if s.EdgeMm > 0 && s.EdgeMm < bevelledShare*s.ThicknessMm {
		ex.Bevels = true
		near(Edge, s.EdgeMm, 2*thickNearMm)
	}
}

// keepRicasso marks the cells that become a ricasso, by the volume ahead of them.
func (g *game) keepRicasso(p *plan.Plan) {
	thick := 0.0
	for _, s := range p.Drawing.Forged {
		if s.Zone == plan.ZoneRicasso {
			thick = s.ThicknessMm
		}
	}
	for _, m := range p.Bar.Marks {
		if m.Zone == plan.ZoneRicasso && thick > 0 {
			g.keep(m.FromMm, m.ToMm, math.Min(thick, g.ex.ThicknessMm))
		}
	}
}

// sawn cuts the bar to the outline that a blank was sawn out by.
func (g *game) sawn(outline []blade.Node, thickMm float64) {
	low, high := math.Inf(1), math.Inf(-1)
	for _, n := range outline {
		low, high = math.Min(low, n[0]), math.Max(high, n[0])
	}
	n := len(g.cells)
	for i := range g.cells {
		x := low + (high-low)*(float64(i)+.5)/float64(n)
		top, bottom := math.Inf(-1), math.Inf(1)
		for k := range outline {
			a, b := outline[k], outline[(k+1)%len(outline)]
			if (a[0] <= x) != (b[0] <= x) {
				y := a[1] + (b[1]-a[1])*(x-a[0])/(b[0]-a[0])
				top, bottom = math.Max(top, y), math.Min(bottom, y)
			}
		}
		c := &g.cells[i]
		c.wide = math.Max(2, top-bottom)
		c.mm3 = c.wide * thickMm * (high - low) / float64(n)
	}
}
