package practice

import (
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

// OfPlan is the exercise of a piece of work: its own bar, fire and hand, and its forged shape to come to. Pieces that do not
// begin as a bar of one steel that is drawn and spread are refused. Errors are fact.FieldErrors.
func OfPlan(id string, req *plan.Request, p *plan.Plan) (*Exercise, error) {
	b := &p.Bar
	if b.Blank != nil || b.Down != nil || b.Bit != nil || b.RodMm > 0 || req.Billet != nil || p.Totals.Heats == 0 {
		return nil, fact.FieldErrors{{Field: "pieceId", Code: "practice.noBar"}}
	}
	smith := req.Smith
	smith.Machine = nil
	ex := &Exercise{
		ID: id, SteelID: req.SteelID, WidthMm: b.WidthMm, ThicknessMm: b.ThicknessMm, LengthMm: b.StartMm3 / b.AreaMm2, FireC: req.Fire.TempC, HotMm: req.Fire.HotLengthMm,
		ParHeats: p.Totals.Heats, ParBlows: p.Totals.Blows, smith: &smith, atmosphere: req.Fire.Atmosphere, Goals: []Goal{},
	}
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
			s := in[int(share*float64(len(in)-1)+.5)]
			wide, thick := s.HeightMm(), s.ThicknessMm
			if s.EdgeMm > 0 { // a section that tapers is as thick, on the mean, as half-way up it
				thick = (s.ThicknessMm + s.EdgeMm) / 2
			}
			ex.Goals = append(ex.Goals,
				Goal{What: Wide, FromMm: s.XMm - goalReachMm, ToMm: s.XMm + goalReachMm, WantMm: wide, WithinMm: wideNearMm + wideNearShare*wide},
				Goal{What: Thick, FromMm: s.XMm - goalReachMm, ToMm: s.XMm + goalReachMm, WantMm: thick, WithinMm: thickNearMm + thickNearShare*thick})
		}
	}
	return ex, nil
}
