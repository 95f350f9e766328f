package plan

import (
	"context"
	"errors"
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"
)

// Mark is a stretch of the bar that becomes a zone.
type Mark struct {
	Zone   string  `json:"zone"`
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
}

// BarPlan is what is taken from the bar.
type BarPlan struct {
	// RodMm3 of the tang is of a rod that is welded on, RodMm long.
	RodMm3 float64 `json:"rodMm3,omitempty"`
	RodMm  float64 `json:"rodMm,omitempty"`

	WidthMm      float64 `json:"widthMm"`
	ThicknessMm  float64 `json:"thicknessMm"`
	AreaMm2      float64 `json:"areaMm2"`
	AvailableMm  float64 `json:"availableMm" doc:"the longest stretch without dead spots"`
	FromMm       float64 `json:"fromMm,omitempty" doc:"where that stretch begins on the piece"`
	CutLengthMm  float64 `json:"cutLengthMm"`
	StartMm3     float64 `json:"startMm3"`
	LossFraction float64 `json:"lossFraction" doc:"that sizes the bar"`
	ScaleShare   float64 `json:"scaleShare" doc:"as the heats compute it"`
	LeftMm       float64 `json:"leftMm" doc:"of the bar after the cut; negative: short by so much"`
	Marks        []Mark  `json:"marks"`

	// Down is the bar that the piece is first broken down to.
	Down *DownBar `json:"down,omitempty"`
}

// DownBar is the even bar that comes of a lump, with the chalk marks on it.
type DownBar struct {
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	LengthMm    float64 `json:"lengthMm"`
	Marks       []Mark  `json:"marks"`
}

// Totals sum the plan up. Fractional figures size the bar; Heats is what a
// smith will count.
type Totals struct {
	Heats           int     `json:"heats"`
	FractionalHeats float64 `json:"fractionalHeats"`
	Cycles          int     `json:"cycles"`
	Blows           int     `json:"blows"`
	TimeS           float64 `json:"timeS" doc:"fire and anvil, forging heats"`
	CycleTimeS      float64 `json:"cycleTimeS"`
	FuelG           float64 `json:"fuelG"`
	SoakC           float64 `json:"soakC"`
	LowC            float64 `json:"lowC"`
	DecarbMm        float64 `json:"decarbMm" doc:"deepest, to 90 % of the carbon, under the scale"`
	UsefulJ         float64 `json:"usefulJ"`
	Money           Money   `json:"money"`
}

// Plan is the answer.
type Plan struct {
	Version     int                `json:"version"`
	Laws        int                `json:"laws"`
	Steel       steel.Grade        `json:"steel"`
	School      blade.School       `json:"school" doc:"whose preset the allowances are, or own"`
	Finished    blade.Measures     `json:"finished"`
	Whole       blade.Assembled    `json:"whole" doc:"the finished blade with its handle"`
	Forged      blade.Measures     `json:"forged"`
	ForgedZones map[string]float64 `json:"forgedZones"`
	Bar         BarPlan            `json:"bar"`
	Ledger      []Line             `json:"ledger"`
	Findings    []blade.Finding    `json:"findings" doc:"the finished blade against what is usual for its use"`
	Suggested   Suggestion         `json:"suggested"`
	Feasibility []Feasibility      `json:"feasibility"`
	Bend        forge.Bend         `json:"bend"`
	Operations  []Step             `json:"operations"`
	Heats       []HeatStep         `json:"heats"`
	Totals      Totals             `json:"totals"`
	Warnings    []fact.Warning     `json:"warnings"`
	Drawing     Drawing            `json:"drawing"`
	Sections    []SectionView      `json:"sections"`
	Prep        []Prep             `json:"prep" doc:"what is done before the first heat"`
	// SuggestFirst is what to forge first with so much stock to spare.
	SuggestFirst First         `json:"suggestFirst" enum:"point,tang"`
	Nodes        blade.Outline `json:"nodes" doc:"the outline of the finished blade as nodes to be moved"`
}

// scarceShare of the cut left over on the bar: with less, the tang first tells
// what is left for the blade (judgement).
const scarceShare = 0.25

// Make plans a request. It is deterministic and gives no partial result: the
// error is fact.FieldErrors for fields that cannot be, or context's.
func Make(ctx context.Context, req Request) (*Plan, error) {
	if err := req.Validate(); err != nil {
		return nil, err
	}
	grade, err := steel.Find(req.SteelID)
	if err != nil {
		return nil, err
	}
	if req.Steel != nil {
		grade = *req.Steel
	}
	if w := req.Origin.Window; w != nil {
		grade.ForgeLowC, grade.ForgeHighC = math.Max(grade.ForgeLowC, w.LowC), math.Min(grade.ForgeHighC, w.HighC)
	}
	bar, err := req.Bar.Start()
	if err != nil {
		return nil, err
	}
	finished := req.Forged
	forged := req.Forged
	if forged == nil {
		b := req.Design.Blade()
		f := req.forgedShape(b, bar)
		finished, forged = &b, &f
	}
	fin, err := blade.New(*finished)
	if err != nil {
		return nil, fieldError(err)
	}
	fog, err := blade.New(*forged)
	if err != nil {
		return nil, fieldError(err)
	}
	zones := zonesOf(fog)
	r := newRoute(&req, bar, fog, zones)
	r.bend, r.steel = bend(fog, req), grade
	along := feasibility(fog, zones, bar.WidthMm, bar.ThicknessMm, req.Choices.Method)
	if err := r.refuseOrder(r.operations()); err != nil {
		return nil, err
	}
	shop := forge.Shop{Smith: req.Smith, Fire: req.Fire, Steel: grade}
	work := forge.NewBudget(ctx, workBoundACell*len(r.cells))
	s, err := r.settle(work, shop)
	if err != nil {
		return nil, r.refusal(work, err, along, shop)
	}
	p := &Plan{Version: RequestVersion, Laws: LawsVersion, Steel: grade, School: req.Allowances.School(), Finished: fin.Measure(), Forged: fog.Measure(), Bend: r.bend}
	p.ForgedZones = map[string]float64{}
	for _, c := range r.cells {
		p.ForgedZones[c.zone] += c.volume
	}
	p.Bar = r.barPlan(s, zones)
	p.Prep = r.prepare(p.Bar.StartMm3 / (bar.AreaMm2 * bar.WholeMm))
	p.Ledger = ledger(p, &req, r.bar, s.spareMm3(r.cells))
	p.Feasibility = along
	p.Drawing = drawing(fin, fog, zones)
	p.Sections = sections(fin)
	if req.Forged == nil {
		p.Nodes = req.Design.OwnOutline()
		p.Whole = fin.Assemble(req.Design)
		p.Drawing.addHandle(fin, req.Design)
		if p.Drawing.bendHandle(&req.Design) {
			p.Whole.PointAngleDeg = p.Drawing.Push.angleDeg()
		}
		p.Drawing.Finished = bendTang(p.Drawing.Finished, p.Drawing.FinishedZones, &req.Design)
		p.Drawing.Forged = bendTang(p.Drawing.Forged, p.Drawing.ForgedZones, &req.Design)
	}
	r.schedule(p, s)
	p.Totals.Money = req.Prices.cost(p.Bar.StartMm3, p.Totals.FuelG, p.Totals.TimeS+p.Totals.CycleTimeS)
	p.Totals.SoakC, p.Totals.LowC, p.Totals.UsefulJ = s.run.SoakC(), s.run.Shop.LowC(), req.Smith.UsefulJ()
	for i := range s.run.Bar.Cells {
		p.Totals.DecarbMm = math.Max(p.Totals.DecarbMm, s.run.Bar.Cells[i].Decarb(0.9))
	}
	p.SuggestFirst = PointFirst
	if p.Bar.LeftMm < scarceShare*p.Bar.CutLengthMm {
		p.SuggestFirst = TangFirst
	}
	p.Findings, p.Suggested = fin.Judge(req.Design.Use), suggest(p, &req)
	p.Warnings = r.warnings(p, s)
	return p, nil
}

// forgedShape is the blade with its allowances; a ricasso higher than the bar is
// spread to it, and thins by that. A taper that is ground later is not in it.
func (r Request) forgedShape(b blade.Blade, bar stock.Start) blade.Blade {
	if r.Choices.Taper == GroundTaper {
		thickest := 0.0
		for _, n := range b.Thickness {
			thickest = math.Max(thickest, n[1])
		}
		b.Thickness = []blade.Node{{0, thickest}, {b.Thickness[len(b.Thickness)-1][0], thickest}}
	}
	f := b.Forged(r.Allowances, bar.ThicknessMm)
	if r.Choices.Notch == NotchForged && f.Ricasso != nil {
		f.Ricasso.NotchMm = b.Ricasso.NotchMm
	}
	if k := f.Ricasso; k != nil && bar.ThicknessMm > 0 && k.HeightMm > bar.WidthMm {
		spread := math.Log(k.HeightMm/bar.WidthMm) / forge.MostSpread(r.Choices.Method, bar.WidthMm)
		k.ThicknessMm = math.Max(b.Ricasso.ThicknessMm, math.Min(k.ThicknessMm, bar.ThicknessMm*math.Exp(-spread)))
	}
	return f
}

// refusal tells whether a hammer that stalls is too light or the bar too small:
// a bar that would have to be upset all along burns away before it is there.
func (r *route) refusal(work *forge.Budget, err error, along []Feasibility, shop forge.Shop) error {
	var stall *forge.StallError
	var burnt *forge.BurntError
	var tooMuch *forge.TooMuchWorkError
	if !errors.As(err, &stall) && !errors.As(err, &burnt) && !errors.As(err, &tooMuch) {
		return fieldError(err)
	}
	field := map[stock.Form]string{stock.Square: "sideMm", stock.Round: "diameterMm", stock.Hex: "acrossFlatsMm", stock.Octagon: "acrossFlatsMm"}[r.req.Bar.Form]
	if field == "" {
		field = "thicknessMm"
	}
	for _, f := range along {
		if f.AreaRatio < 1 {
			_, t := remedy(along, r.bar.WidthMm, r.bar.ThicknessMm)
			return fact.FieldErrors{{Field: "bar." + field, Code: "plan.barTooSmall", Figures: fact.Figures{"widthMm": r.bar.WidthMm, "thicknessMm": t}}}
		}
	}
	if burnt != nil { // a heavier hammer may save it or not: no promise
		return fieldError(err)
	}
	kg, err := r.hammerThatMoves(work, shop)
	switch {
	case errors.As(err, &tooMuch):
		return fact.FieldErrors{{Field: "bar." + field, Code: "plan.tooMuchWork"}}
	case err != nil:
		return err
	case kg > 0:
		return fact.FieldErrors{{Field: "smith.hammerKg", Code: "forge.stalled", Figures: fact.Figures{"needKg": kg}}}
	}
	return fact.FieldErrors{{Field: "bar." + field, Code: "plan.barTooLarge"}}
}

// hammerThatMoves finds a hammer that does not stall on this piece, kg; 0 if
// none that an arm can swing does. Errors are those of the budget.
func (r *route) hammerThatMoves(work *forge.Budget, shop forge.Shop) (kg float64, err error) {
	for kg := shop.Smith.HammerKg * 1.25; kg <= forge.MaxHammerKg; kg *= 1.25 {
		shop.Smith.HammerKg = math.Ceil(kg*10) / 10
		if _, err := r.settle(work, shop); err == nil {
			return shop.Smith.HammerKg, nil
		}
		if err := work.Err(); err != nil {
			return 0, err
		}
	}
	return 0, nil
}

// fieldError puts what the geometry or the physics refused beside the field
// that would mend it.
func fieldError(err error) error {
	var be *blade.Error
	var we *forge.WindowError
	var weak *forge.TooWeakError
	var sec *section.Error
	var burnt *forge.BurntError
	switch {
	case errors.As(err, &burnt):
		return fact.FieldErrors{{Field: "allowances.forgingEdgeMm", Code: "plan.burnsAway." + burnt.Zone, Figures: fact.Figures{"heats": float64(burnt.Heats)}}}
	case errors.As(err, &be):
		return fact.FieldErrors{{Field: "design." + be.Field, Code: be.Code, Figures: fact.Figures{"atMm": be.AtMm}}}
	case errors.As(err, &sec):
		return fact.FieldErrors{{Field: "design.grind." + sec.Field, Code: sec.Code, Figures: fact.Figures{"limitMm": sec.LimitMm}}}
	case errors.As(err, &weak):
		return fact.FieldErrors{{Field: "smith.machine.forceKN", Code: "forge.pressWeak", Figures: fact.Figures{"needKN": weak.NeedKN}}}
	case errors.As(err, &we):
		return fact.FieldErrors{{Field: "fire.tempC", Code: "forge.noWindow", Figures: fact.Figures{"soakC": we.SoakC, "lowC": we.LowC, "needC": we.NeedForgeC}}}
	}
	return err
}

// bend of the blade from its section two thirds of the way to the heel.
func bend(b *blade.Body, req Request) forge.Bend {
	x := b.LengthMm() * 2 / 3
	s := b.SectionAt(x)
	if s.Kind == section.Rect || s.EdgeMm >= s.SpineMm {
		return forge.Bend{}
	}
	spread := forge.BevelSpread(req.Choices.Method, forge.BevelBiteMm, s.HeightMm)
	return forge.BevelBend(s, s.SpineMm, spread, forge.BendFactor, b.LengthMm())
}

// SizeMarks lays forged zone volumes along a bar with one loss for all: the
// chalk marks from the point, and the length to cut with trim and kerf.
func SizeMarks(names []string, forgedMm3 []float64, lossFraction, areaMm2, trimMm, kerfMm float64) (marks []Mark, cutMm, startMm3 float64) {
	starts := make([]float64, len(forgedMm3))
	for i, v := range forgedMm3 {
		starts[i] = v / (1 - lossFraction)
	}
	return layOut(names, starts, areaMm2, trimMm, kerfMm)
}

// layOut lays start volumes along a bar.
func layOut(names []string, startMm3 []float64, areaMm2, trimMm, kerfMm float64) (marks []Mark, cutMm, total float64) {
	x := 0.0
	for i, v := range startMm3 {
		l := v / areaMm2
		marks = append(marks, Mark{Zone: names[i], FromMm: x, ToMm: x + l})
		x += l
	}
	cutMm = x + trimMm + kerfMm
	return marks, cutMm, cutMm * areaMm2
}

func (r *route) barPlan(s *settled, zones []zone) BarPlan {
	names, forged, start := make([]string, len(zones)), make([]float64, len(zones)), make([]float64, len(zones))
	var vf, vs, rod, rodMm float64
	for k, z := range zones {
		names[k] = z.Name
		for i, c := range r.cells {
			if c.zone == z.Name && c.rod {
				rod, rodMm = rod+c.volume, rodMm+c.to-c.from
			} else if c.zone == z.Name {
				forged[k] += c.volume
				start[k] += s.start[i]
			}
		}
		vf, vs = vf+forged[k], vs+start[k]
	}
	q := r.req.Sizing
	b := BarPlan{
		WidthMm: r.bar.WidthMm, ThicknessMm: r.bar.ThicknessMm, AreaMm2: r.bar.AreaMm2, AvailableMm: r.bar.LengthMm, FromMm: r.bar.FromMm,
		ScaleShare: s.loss, LossFraction: 1 - vf/vs, RodMm3: rod, RodMm: rodMm,
	}
	if q.LossMode == ThumbLoss {
		b.LossFraction = q.ThumbLossFraction
		b.Marks, b.CutLengthMm, b.StartMm3 = SizeMarks(names, forged, q.ThumbLossFraction, r.bar.AreaMm2, q.TrimMm, q.KerfMm)
	} else {
		b.Marks, b.CutLengthMm, b.StartMm3 = layOut(names, start, r.bar.AreaMm2, q.TrimMm, q.KerfMm)
	}
	b.onTheTaper(r)
	b.Down = r.downBar(s)
	b.LeftMm = b.AvailableMm - b.CutLengthMm
	return b
}

// onTheTaper moves the marks of a tapered piece to where its volume reaches.
func (b *BarPlan) onTheTaper(r *route) {
	at := func(mm float64) float64 { return r.req.Bar.AtVolume(r.bar, mm*r.bar.AreaMm2) }
	for i := range b.Marks {
		b.Marks[i].FromMm, b.Marks[i].ToMm = at(b.Marks[i].FromMm), at(b.Marks[i].ToMm)
	}
	b.CutLengthMm = at(b.CutLengthMm)
}

// downBar is the piece right after its break-down, with the marks on it; nil
// where there is none.
func (r *route) downBar(s *settled) *DownBar {
	for i := len(s.run.Heats) - 1; i >= 0; i-- {
		h := &s.run.Heats[i]
		if h.Operation != string(forge.BreakDown) {
			continue
		}
		out := &DownBar{WidthMm: h.After.Cells[0].WidthMm, ThicknessMm: h.After.Cells[0].ThicknessMm}
		for k := range h.After.Cells {
			c := &h.After.Cells[k]
			l := c.LengthMm()
			if n := len(out.Marks); n == 0 || out.Marks[n-1].Zone != c.Zone {
				out.Marks = append(out.Marks, Mark{Zone: c.Zone, FromMm: out.LengthMm, ToMm: out.LengthMm})
			}
			out.LengthMm += l
			out.Marks[len(out.Marks)-1].ToMm = out.LengthMm
		}
		return out
	}
	return nil
}
