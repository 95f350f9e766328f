package work

import (
	"context"
	"errors"
	"math"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/nest"
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

	// What forging it whole from its bar comes to; 0 for a pattern, which has none.
	BarG  float64 `json:"barG,omitempty"`
	BarMm float64 `json:"barMm,omitempty"`
	Heats int     `json:"heats,omitempty"`
	FireS float64 `json:"fireS,omitempty"`

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
	for _, p := range o.Parts {
		part, err := w.sheetPart(ctx, p, o.Way, thick)
		if err != nil {
			return out, err
		}
		if o.Cut == doc.CutHot {
			part.CutHeats = int(math.Ceil(part.CutMm / hotMmAHeat))
			part.SawS = hotHeatS * float64(part.CutHeats)
		}
		need = math.Max(need, part.needMm)
		out.Parts = append(out.Parts, part)
		job.Parts = append(job.Parts, nest.Part{Outline: part.Outline, Count: p.Count})
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

// sheetPart is one part as it is cut out of so thick a sheet.
func (w *Work) sheetPart(ctx context.Context, p doc.SheetWanted, way doc.SheetWay, thick float64) (out SheetPart, err error) {
	var design blade.Design
	var allow blade.Allowances
	if p.PieceID != "" {
		piece, err := w.Piece(ctx, p.PieceID)
		if err != nil {
			return out, missing("parts", err)
		}
		made, err := w.Plan(ctx, piece.Doc)
		if err == nil {
			out.BarG, out.BarMm, out.Heats, out.FireS = made.Bar.StartMm3*steel.DensityGPerCm3/1000, made.Bar.CutLengthMm, made.Totals.Heats, made.Totals.TimeS
		}
		out.Name, design, allow = piece.Doc.Name, piece.Doc.Request.Design, piece.Doc.Request.Allowances
	} else {
		pattern, err := w.Pattern(ctx, p.PatternID)
		if err != nil {
			return out, missing("parts", err)
		}
		out.Name, design, allow = pattern.Doc.Name, pattern.Doc.Design, pattern.Doc.Allowances
	}
	finished, forged, _, err := figure.Bodies(design, allow)
	if err != nil {
		return out, edit.Invalid(err)
	}
	need := finished.ThickestMm()
	if way == doc.CutToForge {
		need = forged.ThickestMm()
	}
	if out.needMm = need; need > thick+1e-9 {
		return out, edit.One("parts", "nest.thin", fact.Figures{"needMm": need, "haveMm": thick}, out.Name)
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
	return out, nil
}
