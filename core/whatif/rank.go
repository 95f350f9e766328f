package whatif

import (
	"context"
	"errors"
	"math"
	"sort"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/review"
	"coldember/core/route"
	"coldember/core/steel"
	"coldember/core/stock"
)

// Candidate is a piece of stock that a blade might be made from.
type Candidate struct {
	ID      string      `json:"id"`
	Piece   stock.Item  `json:"piece"`
	SteelID string      `json:"steelId"`
	Origin  plan.Origin `json:"origin"`
	// Analysis is its certificate's, or nil.
	Analysis *steel.Analysis `json:"analysis,omitempty"`
	// Certain is how sure the steel is, 0–1; CostPerG what a gram of it costs.
	Certain  float64 `json:"certainShare"`
	CostPerG float64 `json:"costPerG"`
}

// Ranked is a candidate with what it would take.
type Ranked struct {
	ID       string       `json:"id"`
	Feasible bool         `json:"feasible"`
	Refused  bool         `json:"refused" doc:"a hazard that no plan may pass"`
	Obstacle fact.Warning `json:"obstacle"`
	// Whole plans have heats and time; others were only screened by volume and
	// reach.
	Planned bool    `json:"planned"`
	CutMm   float64 `json:"cutMm"`
	// Four of five cases take a length between these; only of whole plans.
	LowMm   float64 `json:"lowMm,omitempty"`
	HighMm  float64 `json:"highMm,omitempty"`
	WasteG  float64 `json:"wasteG" doc:"burnt, ground off and cut away"`
	Heats   int     `json:"heats"`
	TimeS   float64 `json:"timeS"`
	Certain float64 `json:"certainShare"`
	Cost    float64 `json:"cost"`
	Hazards int     `json:"hazards" doc:"that want acknowledging"`
	Soft    bool    `json:"soft" doc:"a steel that does not harden"`
	Score   float64 `json:"score" doc:"less is better"`
}

// Weights of the score, in minutes: judgement. A gram wasted is a few seconds of
// grinding; a steel that nobody knows may cost the whole blade.
const (
	minutesPerGram   = 0.08
	minutesUncertain = 45.0
	minutesHazard    = 15.0
	minutesSoft      = 240.0
	screenLoss       = 0.10
	plannedAtMost    = 10
	screenMinPerGram = 0.25 // of forging, where it is not planned
)

// Rank orders candidates for a blade: first all are screened by volume and
// reach, then the best ten are planned whole. Errors are fact.FieldErrors of the
// blade itself, or the context's.
func Rank(ctx context.Context, req plan.Request, list []Candidate) ([]Ranked, error) {
	out := make([]Ranked, 0, len(list))
	byID := map[string]Candidate{}
	for _, c := range list {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		r, err := screen(req, c)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
		byID[c.ID] = c
	}
	byScore(out)
	planned := 0
	for i := range out {
		r := &out[i]
		if !r.Feasible || r.Refused || planned == plannedAtMost {
			continue
		}
		planned++
		if err := r.plan(ctx, req, byID[r.ID]); err != nil {
			return nil, err
		}
	}
	byScore(out)
	return out, nil
}

func byScore(list []Ranked) {
	class := func(r *Ranked) int {
		switch {
		case r.Refused:
			return 3
		case !r.Feasible:
			return 2
		case !r.Planned:
			return 1
		}
		return 0
	}
	sort.SliceStable(list, func(i, j int) bool {
		a, b := &list[i], &list[j]
		if ca, cb := class(a), class(b); ca != cb {
			return ca < cb
		}
		if a.Score != b.Score {
			return a.Score < b.Score
		}
		return a.ID < b.ID
	})
}

// Screen holds one candidate against volume and reach alone. Errors are fact.FieldErrors
// of the blade itself.
func Screen(req plan.Request, c Candidate) (Ranked, error) { return screen(on(req, c), c) }

// on is the request on a candidate.
func on(r plan.Request, c Candidate) plan.Request {
	r.Bar, r.SteelID, r.Origin, r.Analysis = c.Piece, c.SteelID, c.Origin, c.Analysis
	r.Steel = nil
	if !r.Bar.Sheet() {
		r.Choices.Start = "" // it is drawn out of what is no sheet
	}
	return r
}

// screen holds a candidate against volume and reach, without forging it.
func screen(req plan.Request, c Candidate) (Ranked, error) {
	r := Ranked{ID: c.ID, Certain: c.Certain}
	if g, err := steel.Find(c.SteelID); err == nil {
		r.Soft = g.AustenitiseC == 0 && !g.Assumed
	}
	seen := map[string]bool{}
	for _, a := range c.Origin.Acknowledged {
		seen[a] = true
	}
	for _, id := range c.Origin.Hazards {
		if h, ok := stock.FindHazard(id); ok && h.Refuse {
			r.Refused = true
			r.Obstacle = fact.Warning{Code: "hazard." + id, Severity: fact.Stop}
		} else if ok && !seen[id] {
			r.Hazards++
		}
	}
	start, err := c.Piece.Even()
	if err != nil {
		var se *stock.Error
		if !errors.As(err, &se) {
			return r, err
		}
		if !r.Refused {
			r.Obstacle = fact.Warning{Code: se.Code, Severity: fact.Stop}
		}
		return r, nil
	}
	d := req.Design.Blade()
	fin, err := blade.New(d)
	if err != nil {
		return r, plan.FieldError(err)
	}
	fog, err := blade.New(figure.ForgedShape(req, d, start))
	if err != nil {
		return r, plan.FieldError(err)
	}
	forged := fog.Measure()
	req.CellCount = screenCells
	rt := route.New(&req, start, fog, figure.ZonesOf(fog))
	trim, kerf := req.EndsMm()
	r.CutMm = (forged.VolumeMm3-rt.RodMm3())/(1-screenLoss)/start.AreaMm2 + trim + kerf
	r.waste(r.CutMm*start.AreaMm2, fin.Measure().MassG, c)
	probe := &plan.Plan{Feasibility: route.Feasibility(fog, figure.ZonesOf(fog), start.WidthMm, start.ThicknessMm, req.Smith, req.Choices.Method)}
	probe.Bar.LeftMm = start.LengthMm - r.CutMm
	probe.Bar.CutLengthMm, probe.Bar.AvailableMm = r.CutMm, start.LengthMm
	probe.Warnings = review.BarWarnings(rt, probe)
	if o := probe.Obstacle(); o.Code != "" {
		if !r.Refused {
			r.Obstacle = o
		}
	} else {
		r.Feasible = true
	}
	r.score(r.WasteG * screenMinPerGram)
	return r, nil
}

// screenCells is how coarsely a screened piece is looked at.
const screenCells = 12

func (r *Ranked) waste(startMm3, finishedG float64, c Candidate) {
	g := startMm3 * steel.DensityGPerCm3 / 1000
	r.WasteG = math.Max(0, g-finishedG)
	r.Cost = g * c.CostPerG
}

func (r *Ranked) score(minutes float64) {
	r.Score = minutes + r.WasteG*minutesPerGram + (1-r.Certain)*minutesUncertain + float64(r.Hazards)*minutesHazard
	if r.Soft {
		r.Score += minutesSoft
	}
}

// plan makes the whole plan of a candidate.
func (r *Ranked) plan(ctx context.Context, req plan.Request, c Candidate) error {
	p, err := planner.Make(ctx, on(req, c))
	var fe fact.FieldErrors
	if errors.As(err, &fe) {
		r.Feasible, r.Obstacle = false, fact.Warning{Code: fe[0].Code, Severity: fact.Stop, Figures: fe[0].Figures}
		return nil
	}
	if err != nil {
		return err
	}
	r.Planned, r.CutMm, r.LowMm, r.HighMm, r.Heats, r.TimeS = true, p.Bar.CutLengthMm, p.Bar.LowMm, p.Bar.HighMm, p.Totals.Heats, p.Totals.TimeS
	r.waste(p.Bar.StartMm3, p.Finished.MassG, c)
	if o := p.Obstacle(); o.Code != "" {
		r.Feasible, r.Planned, r.Obstacle = false, false, o
	}
	r.score(p.Totals.TimeS / 60)
	return nil
}
