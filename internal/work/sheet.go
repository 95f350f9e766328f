package work

import (
	"context"
	"errors"
	"math"

	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/nest"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
)

// SheetOrder asks for pieces and patterns to be cut out of a plate, a disc or the like of the rack,
// or of the blank of a piece of work as it came out.
type SheetOrder struct {
	StockID string `json:"stockId,omitempty"`
	BlankID string `json:"blankId,omitempty" doc:"a piece of work, whose blank is the sheet"`
	doc.Laying

	// Edits are the figures as they were typed, in place of them.
	Edits []edit.Edit `json:"edits,omitempty" maxItems:"4"`
}

// SheetPart is one of them as it is cut out, and what it takes to forge it from a bar instead.
type SheetPart struct {
	Name     string       `json:"name"`
	Outline  nest.Polygon `json:"outline"`
	MassG    float64      `json:"massG" doc:"as it is cut out"`
	CutMm    float64      `json:"cutMm" doc:"around it"`
	SawS     float64      `json:"sawS" doc:"of sawing, or of fire and chisel"`
	CutHeats int          `json:"cutHeats,omitempty" doc:"of cutting it out hot"`
	GrindG   float64      `json:"grindG" doc:"then ground off"`

	// Sawn is what is left to forge of it; Bar what forging it whole comes to: for a pattern, from the flat as it is sold, of the
	// steel of the sheet, that takes least of time and waste.
	Sawn  *SheetForge   `json:"sawn,omitempty" doc:"none where all of it is ground"`
	Bar   *SheetBar     `json:"bar,omitempty" doc:"none where no bar forges it"`
	NoBar *fact.Warning `json:"noBar,omitempty" doc:"why none does"`

	ForgedGrindG float64 `json:"forgedGrindG" doc:"ground off the one that is forged whole"`

	needMm float64 // of thickness
}

// SheetFault is a part that lies too near another, or too near the rim or a bad place.
type SheetFault = nest.Fault

// SheetPlan is the answer.
type SheetPlan struct {
	Order       SheetOrder     `json:"order"`
	Name        string         `json:"name"`
	SteelID     string         `json:"steelId"`
	ThicknessMm float64        `json:"thicknessMm"`
	Sheet       nest.Polygon   `json:"sheet"`
	Bad         []nest.Bad     `json:"bad"`
	Parts       []SheetPart    `json:"parts"`
	Layout      nest.Layout    `json:"layout"`
	Outlines    []nest.Polygon `json:"outlines" doc:"the parts where they lie"`
	Faults      []SheetFault   `json:"faults" doc:"of parts that were put by hand"`

	UsedG  float64 `json:"usedG" doc:"of the sheet up to the straight cut"`
	WasteG float64 `json:"wasteG" doc:"of that, what is in no part"`
	RestG  float64 `json:"restG" doc:"left whole behind it"`
	SawS   float64 `json:"sawS"`
	Heats  int     `json:"heats,omitempty" doc:"of cutting out hot"`
}

// Sawing cold: what a smith's saw cuts of steel, mm² a second (judgement: a bandsaw some 25,
// a hacksaw a tenth of it).
const sawMm2PerS = 12.0

// Cutting hot (judgement): so much of an outline a heat, so long for fire and chisel; and what
// is left outside of it for burr and scale.
const (
	hotMmAHeat = 70.0
	hotHeatS   = 150.0
	hotLeaveMm = 1.0
)

// tolMm is how far the outlines that are laid keep from those that are drawn.
const sheetTolMm = 0.05

func (o *SheetOrder) validate() error {
	c := fact.NewCheck()
	o.Validate(c)
	return edit.Invalid(c.Err())
}

// sheet is what outlines are laid on.
type sheet struct {
	name, steelID string
	outline       nest.Polygon
	bad           []nest.Bad
	thickMm       float64
	thin          func(needMm float64) []nest.Bad // of one that is not evenly thick
}

// sheetOf is the sheet of an order, whose parts need so much thickness.
func (w *Work) sheetOf(ctx context.Context, o *SheetOrder) (sheet, error) {
	if o.BlankID != "" {
		return w.blankSheet(ctx, o.BlankID)
	}
	item, err := w.StockItem(ctx, o.StockID)
	if err != nil {
		return sheet{}, missing("stockId", err)
	}
	outline, bad, thick, err := nest.SheetOf(item.Doc.Piece)
	var se *stock.Error
	if errors.As(err, &se) {
		return sheet{}, edit.One("stockId", se.Code, nil, item.Doc.Name)
	}
	return sheet{name: item.Doc.Name, steelID: item.Doc.SteelID, outline: outline, bad: bad, thickMm: thick}, err
}

// LaySheet lays parts on a piece of the rack. What is held by hand stays, and what is wrong
// with it is said. Errors are *edit.InvalidError, not found, or the context's.
func (w *Work) LaySheet(ctx context.Context, o SheetOrder) (SheetPlan, error) {
	out := SheetPlan{Parts: []SheetPart{}, Outlines: []nest.Polygon{}, Faults: []SheetFault{}, Bad: []nest.Bad{}}
	if err := edit.Figures(o.Edits, map[string]*float64{"kerfMm": &o.KerfMm, "gapMm": &o.GapMm, "marginMm": &o.MarginMm, "mostTurnDeg": &o.MostTurnDeg}); err != nil {
		return out, err
	}
	o.Edits, out.Order = nil, o
	if err := o.validate(); err != nil {
		return out, err
	}
	from, err := w.sheetOf(ctx, &o)
	if err != nil {
		return out, err
	}
	sheet, bad, thick := from.outline, from.bad, from.thickMm
	out.Name, out.SteelID, out.ThicknessMm, out.Sheet = from.name, from.steelID, thick, sheet
	job := nest.Job{Sheet: sheet, GapMm: o.KerfMm + o.GapMm, MarginMm: o.MarginMm, MostTurnDeg: o.MostTurnDeg, Flip: o.Flip, Held: o.Held}
	if o.Cut == doc.CutHot { // on both sides of the cut
		job.GapMm += 2 * hotLeaveMm
		job.MarginMm += hotLeaveMm
	}
	need := 0.0
	todo := make([]partWays, len(o.Parts))
	for i, p := range o.Parts {
		part, req, err := w.sheetPart(ctx, p, o.Way, &from)
		if err != nil {
			return out, err
		}
		todo[i] = partWays{req, p.PieceID != ""}
		if o.Cut == doc.CutHot {
			part.CutHeats = int(math.Ceil(part.CutMm / hotMmAHeat))
			part.SawS = hotHeatS * float64(part.CutHeats)
		}
		need = math.Max(need, part.needMm)
		out.Parts = append(out.Parts, part)
		job.Parts = append(job.Parts, nest.Part{Outline: part.Outline, Count: p.Count})
	}
	if err := w.ways(ctx, out.Parts, todo, &from, o.Way); err != nil {
		return out, err
	}
	if from.thin != nil {
		bad = append(bad, from.thin(need)...)
	}
	out.Bad = append(out.Bad, bad...)
	for _, b := range bad {
		job.Bad = append(job.Bad, b.Outline)
	}
	if err := job.Validate(); err != nil {
		return out, edit.Invalid(err)
	}
	out.Faults = append(out.Faults, job.Check(o.Held)...)
	if out.Layout, err = nest.Lay(ctx, job); err != nil {
		return out, edit.Invalid(err)
	}
	out.Outlines = append(out.Outlines, job.Outlines(out.Layout.Placed)...)
	g := func(mm2 float64) float64 { return mm2 * thick * steel.DensityGPerCm3 / 1000 }
	whole := sheet.AreaMm2()
	for _, b := range bad {
		whole -= b.Outline.AreaMm2()
	}
	out.UsedG, out.RestG = g(out.Layout.UsedMm2), g(math.Max(0, whole-out.Layout.UsedMm2))
	out.WasteG = math.Max(0, out.UsedG-g(out.Layout.PartsMm2))
	for _, p := range out.Layout.Placed {
		out.SawS += out.Parts[p.Part].SawS
		out.Heats += out.Parts[p.Part].CutHeats
	}
	return out, nil
}

// sheetPart is one part as it is cut out of a sheet, and what is asked to forge it.
func (w *Work) sheetPart(ctx context.Context, p doc.SheetWanted, way doc.SheetWay, from *sheet) (out SheetPart, req plan.Request, err error) {
	thick := from.thickMm
	if p.PieceID != "" {
		piece, err := w.Piece(ctx, p.PieceID)
		if err != nil {
			return out, req, missing("parts", err)
		}
		out.Name, req = piece.Doc.Name, piece.Doc.Request
	} else {
		pattern, err := w.Pattern(ctx, p.PatternID)
		if err != nil {
			return out, req, missing("parts", err)
		}
		shop, err := w.Shop(ctx)
		if err != nil {
			return out, req, err
		}
		out.Name, req = pattern.Doc.Name, patternOn(&pattern.Doc, &shop.Doc, from.steelID, stock.Item{})
	}
	finished, forged, _, err := figure.Bodies(req.Design, req.Allowances)
	if err != nil {
		return out, req, edit.Invalid(err)
	}
	need := finished.ThickestMm()
	if way == doc.CutToForge {
		need = forged.ThickestMm()
	}
	if out.needMm = need; need > thick+1e-9 {
		return out, req, edit.One("parts", "nest.thin", fact.Figures{"needMm": need, "haveMm": thick}, out.Name)
	}
	// both are cut with the allowance round them; forged, it is the preform, lower by what its
	// bevels will spread, and shorter by what its taper will lengthen
	loop := figure.Around(forged, sheetTolMm)
	if way == doc.CutToForge {
		loop = figure.Preform(forged, thick, sheetTolMm)
	}
	for _, n := range loop {
		out.Outline = append(out.Outline, nest.Point(n))
	}
	area := out.Outline.AreaMm2()
	out.MassG = area * thick * steel.DensityGPerCm3 / 1000
	out.CutMm = out.Outline.AroundMm()
	out.SawS = out.CutMm * thick / sawMm2PerS
	out.GrindG = math.Max(0, out.MassG-finished.Measure().MassG)
	out.ForgedGrindG = math.Max(0, forged.Measure().MassG-finished.Measure().MassG)
	return out, req, nil
}
