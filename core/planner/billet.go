package planner

import (
	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/finish"
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
	b = etched(o, w, p)
	b.DeeperMm, b.Ground = deeperMm, ground
	return b, true, nil
}

// etched is the blade of some work as it etches.
func etched(o *billet.Outcome, w *finish.Work, p *plan.Plan) *billet.Blade {
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
	return &billet.Blade{Finished: w.Steel.Finished, Forged: w.Steel.Forged, Bar: *o.Bar, Laid: o.Laid, Tones: tones, Join: o.Join, OnBarMm: onBar, Eaten: p.Bar.ScaleShare, MovedMm: w.Steel.MovedMm, UpMm: w.Steel.UpMm}
}

// shallowest is the grade of a billet that hardens least deep: its edge is of that where the layer
// at it is.
func shallowest(o *billet.Outcome, ideal func(steel.Grade) float64) (steel.Grade, bool) {
	if g, err := steel.Find(o.Join.EdgeSteelID); err == nil && o.Join.EdgeMm > 0 {
		return g, true // the edge is of it, whatever lies above
	}
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

// patterns says of every way what it does to the pattern of a layered bar. Errors are *billet.Error.
func patterns(req *plan.Request, p *plan.Plan, w *finish.Work, ways []finish.Way) error {
	o, err := layered(req)
	if err != nil || o == nil || o.Bar == nil {
		return err
	}
	b := etched(o, w, p)
	for i := range ways {
		way := &ways[i]
		if way.Heat {
			continue
		}
		body, err := blade.New(way.Design.Blade())
		if err != nil {
			continue // no way that is offered comes here: each was drawn before
		}
		b.Finished, b.MovedMm, b.UpMm = body, way.Was.MovedMm, way.Was.UpMm
		share, shown := b.Depth()
		way.PatternShare, way.PatternShows = share, string(shown)
	}
	return nil
}
