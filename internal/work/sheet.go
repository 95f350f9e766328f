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
	"coldember/internal/edit"
)

// SheetWay is what is cut out: the outline that is then forged (its bevels and taper are), or
// the finished one with what the grinder needs round it.
type SheetWay string

// The ways.
const (
	CutToForge SheetWay = "forge"
	CutToGrind SheetWay = "grind"
)

// SheetCut is what it is cut out with.
type SheetCut string

// Sawn cold, or with the hot chisel: no saw is needed and no dust made, but it leaves a burr and
// scale, and every stretch of it is a heat.
const (
	SawnCold SheetCut = "saw"
	CutHot   SheetCut = "hot"
)

// SheetOrder asks for pieces and patterns to be cut out of a plate, a disc or the like.
type SheetOrder struct {
	StockID     string        `json:"stockId"`
	Parts       []SheetWanted `json:"parts" maxItems:"60"`
	Way         SheetWay      `json:"way" enum:"forge,grind"`
	Cut         SheetCut      `json:"cut,omitempty" enum:"saw,hot" doc:"sawn cold if not said"`
	KerfMm      float64       `json:"kerfMm"`
	GapMm       float64       `json:"gapMm" doc:"beside the kerf, between two parts"`
	MarginMm    float64       `json:"marginMm" doc:"from the rim and from bad places"`
	MostTurnDeg float64       `json:"mostTurnDeg" doc:"that a part lies off the rolling; 90: as it likes"`
	Flip        bool          `json:"flip" doc:"parts may be turned over"`
	Held        []nest.Placed `json:"held,omitempty" maxItems:"60" doc:"put where they are by hand: they stay"`

	// Edits are the figures as they were typed, in place of them.
	Edits []edit.Edit `json:"edits,omitempty" maxItems:"4"`
}

// SheetWanted is a piece of work or a pattern, and how many of it.
type SheetWanted struct {
	PieceID   string `json:"pieceId,omitempty"`
	PatternID string `json:"patternId,omitempty"`
	Count     int    `json:"count" minimum:"1" maximum:"60"`
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
	c.Range("kerfMm", o.KerfMm, .1, 20)
	c.Range("gapMm", o.GapMm, 0, 30)
	c.Range("marginMm", o.MarginMm, 0, 100)
	c.Range("mostTurnDeg", o.MostTurnDeg, 0, 180)
	fact.OneOf(c, "way", o.Way, CutToForge, CutToGrind)
	fact.OneOf(c, "cut", o.Cut, SawnCold, CutHot, "")
	if len(o.Parts) == 0 {
		c.Fail("parts", "cutplan.nothing", nil)
	}
	return edit.Invalid(c.Err())
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
	item, err := w.StockItem(ctx, o.StockID)
	if err != nil {
		return out, missing("stockId", err)
	}
	sheet, bad, thick, err := nest.SheetOf(item.Doc.Piece)
	if err != nil {
		var se *stock.Error
		if errors.As(err, &se) {
			return out, edit.One("stockId", se.Code, nil, item.Doc.Name)
		}
		return out, err
	}
	out.Name, out.SteelID, out.ThicknessMm, out.Sheet = item.Doc.Name, item.Doc.SteelID, thick, sheet
	out.Bad = append(out.Bad, bad...)
	job := nest.Job{Sheet: sheet, GapMm: o.KerfMm + o.GapMm, MarginMm: o.MarginMm, MostTurnDeg: o.MostTurnDeg, Flip: o.Flip, Held: o.Held}
	if o.Cut == CutHot { // on both sides of the cut
		job.GapMm += 2 * hotLeaveMm
		job.MarginMm += hotLeaveMm
	}
	for _, b := range bad {
		job.Bad = append(job.Bad, b.Outline)
	}
	for _, p := range o.Parts {
		part, err := w.sheetPart(ctx, p, o.Way, thick)
		if err != nil {
			return out, err
		}
		if o.Cut == CutHot {
			part.CutHeats = int(math.Ceil(part.CutMm / hotMmAHeat))
			part.SawS = hotHeatS * float64(part.CutHeats)
		}
		out.Parts = append(out.Parts, part)
		job.Parts = append(job.Parts, nest.Part{Outline: part.Outline, Count: p.Count})
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
func (w *Work) sheetPart(ctx context.Context, p SheetWanted, way SheetWay, thick float64) (out SheetPart, err error) {
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
	if way == CutToForge {
		need = forged.ThickestMm()
	}
	if need > thick+1e-9 {
		return out, edit.One("parts", "nest.thin", fact.Figures{"needMm": need, "haveMm": thick}, out.Name)
	}
	// both are cut with the allowance round them; forged, it is the preform, lower by what its
	// bevels will spread, and shorter by what its taper will lengthen
	loop := figure.Around(forged, sheetTolMm)
	if way == CutToForge {
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
