package planner

import (
	"coldember/core/billet"
	"coldember/core/plan"
	"coldember/core/steel"
)

// layered is what the billet of a request comes to; nil where it is of one steel. Errors are
// *billet.Error.
func layered(req *plan.Request) (*billet.Outcome, error) {
	if req.Billet == nil {
		return nil, nil //nolint:nilnil // there is none, and nothing is wrong
	}
	o, err := req.Billet.Out(req.Fire)
	return &o, err
}

// Etched is the blade of a plan as it etches: so much ground deeper on each face, its bevels forged
// or ground into a flat bar. ok is false where its bar has no layers. Errors are *blade.Error and
// *billet.Error.
func Etched(req *plan.Request, p *plan.Plan, deeperMm float64, ground bool) (b *billet.Blade, ok bool, err error) {
	o, err := layered(req)
	if err != nil || o == nil || o.Bar == nil {
		return nil, false, err
	}
	w, err := FinishWork(req, p)
	if err != nil {
		return nil, false, err
	}
	tones := map[string]billet.Tone{}
	for _, s := range o.Shares {
		tones[s.SteelID] = s.Tone
	}
	onBar := 0.0
	for _, m := range p.Bar.Marks {
		if m.Zone == plan.ZonePoint || m.Zone == plan.ZoneBlade {
			onBar = max(onBar, m.ToMm)
		}
	}
	return &billet.Blade{Finished: w.Steel.Finished, Forged: w.Steel.Forged, Bar: *o.Bar, Laid: o.Laid, Tones: tones, OnBarMm: onBar, DeeperMm: deeperMm, Ground: ground}, true, nil
}

// shallowest is the grade of a billet that hardens least deep: its edge is of that where the layer
// at it is.
func shallowest(o *billet.Outcome, ideal func(steel.Grade) float64) (steel.Grade, bool) {
	var out steel.Grade
	found := false
	for _, s := range o.Shares {
		g, err := steel.Find(s.SteelID)
		if err != nil || g.AustenitiseC == 0 {
			continue
		}
		if !found || ideal(g) < ideal(out) {
			out, found = g, true
		}
	}
	return out, found
}
