package planner

import (
	"math"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/finish"
	"coldember/core/harden"
	"coldember/core/plan"
)

// Finished is all that is said of grinding, fitting and sharpening the blade of a plan.
type Finished struct {
	Map      finish.Map     `json:"map"`
	Steps    []finish.Step  `json:"steps"`
	Surfaces []finish.Timed `json:"surfaces" doc:"with what each takes, from the quickest"`
	Handle   finish.Handle  `json:"handle"`
	Edge     finish.Edge    `json:"edge"`
	Sheath   finish.Sheath  `json:"sheath"`
	Account  finish.Account `json:"account"`
	Findings []fact.Warning `json:"findings"`
}

// FinishWork is what finishing the blade of a plan is laid out of. Errors are *blade.Error.
func FinishWork(req *plan.Request, p *plan.Plan) (*finish.Work, error) {
	a := Treat(req, p)
	return finishWork(req, &a)
}

func finishWork(req *plan.Request, a *harden.Advice) (*finish.Work, error) {
	s, err := steelOf(req)
	if err != nil {
		return nil, err
	}
	w := &finish.Work{Design: req.Design, Steel: *s, Layered: isLayered(req), AsForged: req.Choices.Harden == plan.HardenForged, HandleHides: req.Design.Handle != nil}
	if req.Finish != nil {
		w.Choices = *req.Finish
	}
	if l := req.Used(); l != nil {
		w.Paces = finish.Paces{Grind: paceOf(l.Grind), Sand: paceOf(l.Sand), Fit: paceOf(l.Fit)}
	}
	w.QuenchEdgeMm, w.Left, w.TemperC = a.EdgeAtQuenchMm, a.Left, a.Temper.OvenC
	return w, nil
}

// paceOf is what was learned of a pace.
func paceOf(t *plan.Taught) finish.Pace {
	if p := t.Pace(1); p != nil {
		return finish.Pace{Factor: p.Mid, Doubt: p.High / p.Mid}
	}
	return finish.Pace{}
}

// isLayered tells whether a blade is of several steels, so that an etch shows them.
func isLayered(req *plan.Request) bool {
	return req.Billet != nil || req.Choices.SteelPattern != "" && req.Choices.SteelPattern != plan.NoPattern || req.Bit != nil
}

// steelOf is the steel of a blade at the grinder: as it was forged, or was ground for the quench,
// or as calipers found it. Errors are *blade.Error.
func steelOf(req *plan.Request) (*finish.Steel, error) {
	c := finish.Choices{}
	if req.Finish != nil {
		c = *req.Finish
	}
	out := &finish.Steel{Readings: c.Readings, KeepsFlats: c.SurfaceOf(isLayered(req)) == finish.AsForged}
	was, fog, err := shapesOf(req)
	if err != nil {
		return nil, err
	}
	out.Forged, out.Finished = fog, was
	then := *req
	if c.Was != nil { // the steel is that of another knife
		then.Design = c.Was.Design
		if was, out.Forged, err = shapesOf(&then); err != nil {
			return nil, err
		}
		out.MovedMm, out.UpMm = c.Was.MovedMm, c.Was.UpMm
	}
	if c.Hardened && req.Choices.Harden != plan.HardenForged {
		left := leftOf(&then)
		out.Ground = &finish.Ground{Body: was, Left: harden.Left{EdgeMm: left.EdgeMm, FaceMm: left.FaceMm}}
	}
	return out, nil
}

// shapesOf are the finished blade and the forged one of a request.
func shapesOf(by *plan.Request) (finished, forged *blade.Body, err error) {
	req := by.Taught()
	bar, err := req.Bar.Even()
	if err != nil {
		return nil, nil, err
	}
	return bodies(&req, bar)
}

// Finish is what is said of finishing the blade of a plan. Errors are *blade.Error.
func Finish(req *plan.Request, p *plan.Plan) (Finished, error) {
	a := Treat(req, p)
	w, err := finishWork(req, &a)
	if err != nil {
		return Finished{}, err
	}
	out := Finished{Map: w.Steel.Off(finish.MapStations, finish.MapHeights, w.Choices.Pits), Steps: finish.Steps(w), Surfaces: finish.TimedSurfaces(w, before(req, p, &a)), Handle: finish.HandleOf(w, p.Whole.LeastWallMm), Edge: finish.EdgeOf(w), Sheath: finish.SheathOf(w), Findings: []fact.Warning{}}
	out.Account = finish.AccountOf(out.Steps, before(req, p, &a), w.Choices.Prices)
	out.judge()
	if err := out.seam(req, p, w); err != nil {
		return Finished{}, err
	}
	tidy(out.Map.Front)
	tidy(out.Map.Back)
	return out, nil
}

// Account is what the whole knife of a plan takes and costs: the same as Finish says. Errors are
// *blade.Error.
func Account(req *plan.Request, p *plan.Plan) (finish.Account, error) {
	a := Treat(req, p)
	w, err := finishWork(req, &a)
	if err != nil {
		return finish.Account{}, err
	}
	return finish.AccountOf(finish.Steps(w), before(req, p, &a), w.Choices.Prices), nil
}

// seam tells of an edge bar that ends too near to the edge. Errors are *billet.Error.
func (f *Finished) seam(req *plan.Request, p *plan.Plan, w *finish.Work) error {
	o, err := layered(req)
	if err != nil || o == nil || o.Bar == nil {
		return err
	}
	if up, at, ok := etched(o, w, p).Seam(); ok && up < billet.LeastSeamMm {
		f.Findings = append(f.Findings, fact.Warning{Code: "face.seamLow", Severity: fact.Warn, Figures: fact.Figures{"upMm": up, "atMm": at, "leastMm": billet.LeastSeamMm}})
	}
	return nil
}

// before is what the knife took until it was hardened.
func before(req *plan.Request, p *plan.Plan, a *harden.Advice) finish.Before {
	b := finish.Before{ForgeMin: (p.Totals.TimeS + p.Totals.DieChangeS) / 60, CyclesMin: p.Totals.CycleTimeS / 60, Steel: p.Totals.Money.Steel, Fuel: p.Totals.Money.Fuel, HourPrice: req.Prices.HourPrice}
	if a.Hardens {
		b.HardenMin = harden.QuenchMin + a.SoakS/60
	}
	return b
}

// judge tells of what does not come out as it is.
func (f *Finished) judge() {
	find := func(code string, s fact.Severity, figures fact.Figures) {
		f.Findings = append(f.Findings, fact.Warning{Code: code, Severity: s, Figures: figures})
	}
	if s := f.Map.Short; s != nil {
		find("finish.short", fact.Stop, fact.Figures{"mm": s.Mm, "atMm": s.XMm, "upMm": s.YMm, "shortMm": s.Mm})
	}
	for i, p := range f.Map.Pits {
		if !p.Outside && p.LeftMm < 0 {
			find("finish.pitDeep", fact.Stop, fact.Figures{"pit": float64(i + 1), "depthMm": p.DepthMm, "allowanceMm": p.AllowanceMm, "shortMm": -p.LeftMm, "atMm": p.XMm})
		}
	}
	if f.Map.OffMm > offCentreMm {
		find("finish.offCentre", fact.Warn, fact.Figures{"offMm": f.Map.OffMm, "mostMm": offCentreMm})
	}
	f.Findings = append(f.Findings, f.Handle.Findings...)
}

// offCentreMm is by how much steel may lie off the centre line (judgement).
const offCentreMm = .4

// Still is what the blade of a plan can still be, by what was measured of it. Errors are
// *blade.Error.
func Still(req *plan.Request, p *plan.Plan, others []finish.Other) ([]finish.Way, error) {
	w, err := FinishWork(req, p)
	if err != nil {
		return nil, err
	}
	ways := finish.Still(w, others)
	for i := range ways {
		ways[i].MassG = math.Round(ways[i].MassG*100) / 100
	}
	return ways, patterns(req, p, w, ways)
}

// tidy leaves what can be measured, and nothing of how it was computed.
func tidy(rows [][]float64) {
	for _, row := range rows {
		for i, v := range row {
			row[i] = math.Round(v*1e4) / 1e4
		}
	}
}
