package work

import (
	"context"
	"errors"
	"math"
	"strings"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/internal/doc"
	"coldember/internal/drawing"
	"coldember/internal/edit"
)

// OutlineFile is an outline to be taken from a drawing. Length is the blade's,
// point to heel, as typed; empty takes what the unit stated says, or else the file's own. Where both
// are there and differ by more than 2 %, the file is refused unless Scale.
type OutlineFile struct {
	Format   string          `json:"format" enum:"svg,dxf"`
	Text     string          `json:"text"`
	Length   string          `json:"length"`
	Units    quantity.System `json:"units,omitempty" pattern:"^(mm|in)(,(32|64))?(,[CF])?$" doc:"what a number without a unit is in"`
	Unit     string          `json:"unit,omitempty" enum:"mm,cm,in" doc:"that the drawing was made in; empty takes what the file says"`
	Scale    bool            `json:"scale,omitempty" doc:"scale the drawing to the length, whatever its unit says"`
	TurnEnds bool            `json:"turnEnds,omitempty" doc:"its point is at the right"`
	TurnOver bool            `json:"turnOver,omitempty" doc:"its edge is at the top"`
}

// lengthAgrees is how far a drawing's own length may be from the one stated.
const lengthAgrees = 0.02

// pickLoop is the largest loop that is as long as stated, or else the largest:
// a drawing may have a tang larger than its blade.
func pickLoop(d drawing.Drawing, f OutlineFile) []blade.Node {
	if length, bad := edit.Length(edit.Edit{Text: f.Length, Units: f.Units}, f.Length, 0); bad == nil && d.UnitMm > 0 {
		for _, l := range d.Loops {
			if math.Abs(extentX(l)*d.UnitMm/length-1) <= lengthAgrees {
				return l
			}
		}
	}
	return d.Loops[0]
}

// ReadOutline makes an outline of a closed loop of a drawing. Errors are
// *edit.InvalidError, beside the field that mends it.
func ReadOutline(f OutlineFile) (blade.Outline, float64, error) {
	read := map[string]func([]byte) (drawing.Drawing, error){"svg": drawing.ReadSVG, "dxf": drawing.ReadDXF}[f.Format]
	if read == nil {
		return blade.Outline{}, 0, edit.One("format", "field.choice", nil, "")
	}
	d, err := read([]byte(f.Text))
	var de *drawing.Error
	if errors.As(err, &de) {
		return blade.Outline{}, 0, edit.One("text", de.Code, fact.Figures{"line": float64(de.Line)}, de.Detail)
	}
	if err != nil {
		return blade.Outline{}, 0, err
	}
	if err := statedUnit(&d, f); err != nil {
		return blade.Outline{}, 0, err
	}
	loop := turned(pickLoop(d, f), f)
	length, err := statedLength(f, extentX(loop)*d.UnitMm)
	if err != nil {
		return blade.Outline{}, 0, err
	}
	o, err := blade.TraceLoop(loop, length)
	var te *blade.TraceError
	if errors.As(err, &te) {
		return blade.Outline{}, 0, edit.One("text", te.Code, fact.Figures{"atMm": te.AtMm}, "")
	}
	return o, length, err
}

func turned(loop []blade.Node, f OutlineFile) []blade.Node {
	out := make([]blade.Node, len(loop))
	for i, p := range loop {
		if f.TurnEnds {
			p[0] = -p[0]
		}
		if f.TurnOver {
			p[1] = -p[1]
		}
		out[i] = p
	}
	return out
}

func extentX(loop []blade.Node) float64 {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, p := range loop {
		lo, hi = math.Min(lo, p[0]), math.Max(hi, p[0])
	}
	return hi - lo
}

// statedLength is the length typed, checked against the file's own (0: it says
// none).
func statedLength(f OutlineFile, fileMm float64) (float64, error) {
	if strings.TrimSpace(f.Length) == "" {
		if fileMm <= 0 {
			return 0, edit.One("length", "drawing.noUnit", nil, "")
		}
		return fileMm, lengthRange(fileMm)
	}
	length, bad := edit.Length(edit.Edit{Field: "length", Text: f.Length, Units: f.Units}, f.Length, 0)
	if bad != nil {
		return 0, &edit.InvalidError{Fields: []edit.Problem{*bad}}
	}
	if err := lengthRange(length); err != nil {
		return 0, err
	}
	if fileMm > 0 && !f.Scale && math.Abs(fileMm/length-1) > lengthAgrees {
		return 0, edit.One("length", "drawing.length", fact.Figures{"fileMm": fileMm, "statedMm": length}, "")
	}
	return length, nil
}

func lengthRange(mm float64) error {
	if mm >= 20 && mm <= 1200 {
		return nil
	}
	return edit.One("length", "drawing.range", fact.Figures{"lengthMm": mm, "lowest": 20, "highest": 1200}, "")
}

// statedUnit takes the unit that the smith says the drawing was made in, checked against
// the one that the file says.
func statedUnit(d *drawing.Drawing, f OutlineFile) error {
	if f.Unit == "" {
		return nil
	}
	mm, ok := map[string]float64{"mm": 1, "cm": 10, "in": 25.4}[f.Unit]
	if !ok {
		return edit.One("unit", "field.choice", nil, f.Unit)
	}
	if d.UnitMm > 0 && !f.Scale && math.Abs(d.UnitMm/mm-1) > lengthAgrees {
		return edit.One("unit", "drawing.unit", fact.Figures{"fileMm": d.UnitMm}, "")
	}
	d.UnitMm = mm
	return nil
}

// PatternOfOutline is a pattern that has the outline of a drawing, and all else as the first
// of the starters. Errors are *edit.InvalidError.
func PatternOfOutline(name string, f OutlineFile) (doc.Pattern, error) {
	o, _, err := ReadOutline(f)
	if err != nil {
		return doc.Pattern{}, err
	}
	d := blade.Starters()[0].Design
	d.SetOutline(o)
	d.Ricasso.HeightMm = d.HeightMm * heelShare
	d.SetTang(d.TangKind)
	return doc.Pattern{Name: name, Tags: []string{}, Design: d, Allowances: blade.ThickAndGrind.Allowances()}, nil
}

// heelShare is how high a ricasso is drawn behind an outline that says nothing of it.
const heelShare = .86

// TraceOutline gives a piece the outline of a drawing, as one step of its
// history.
func (w *Work) TraceOutline(ctx context.Context, id string, version int, f OutlineFile) (Piece, *plan.Plan, error) {
	o, _, err := ReadOutline(f)
	if err != nil {
		return Piece{}, nil, err
	}
	seen, err := w.seen(ctx, id, version)
	if err != nil {
		return Piece{}, nil, err
	}
	d := doc.Copy(seen.Doc)
	d.Request.Design.SetOutline(o)
	return w.keep(ctx, id, version, d, "", nil)
}
