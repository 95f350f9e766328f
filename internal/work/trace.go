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
	Units    quantity.System `json:"units,omitempty" pattern:"^(mm|in)(,(32|64))?(,[CF])?(,comma)?(,sooner)?$" doc:"what a number without a unit is in"`
	Unit     string          `json:"unit,omitempty" enum:"mm,cm,in" doc:"that the drawing was made in; empty takes what the file says"`
	Scale    bool            `json:"scale,omitempty" doc:"scale the drawing to the length, whatever its unit says"`
	TurnEnds bool            `json:"turnEnds,omitempty" doc:"its point is at the right"`
	TurnOver bool            `json:"turnOver,omitempty" doc:"its edge is at the top"`
}

// lengthAgrees is how far a drawing's own length may be from the one stated.
const lengthAgrees = 0.02

// pickLoop is the loop that is nearest to the length that is stated, or else the largest: a drawing
// may have a tang larger than its blade. Where two outlines lie in each other and nothing says which
// is the blade, it is asked: errors are *edit.InvalidError.
func pickLoop(d drawing.Drawing, f OutlineFile) ([]blade.Node, error) {
	if length, bad := edit.Length(edit.Edit{Text: f.Length, Units: f.Units}, f.Length, 0); bad == nil && d.UnitMm > 0 {
		var best []blade.Node
		off := lengthAgrees
		for _, l := range d.Loops {
			if by := math.Abs(extentX(l)*d.UnitMm/length - 1); by <= off && (best == nil || by < off) {
				best, off = l, by
			}
		}
		if best != nil {
			return best, nil
		}
	}
	if d.Finished != nil {
		return d.Finished, nil
	}
	for i, outer := range d.Loops[:min(len(d.Loops), mostNested)] {
		for _, inner := range d.Loops[i+1 : min(len(d.Loops), mostNested)] {
			if extentX(inner) > nestedShare*extentX(outer) && extentY(inner) > nestedShare*extentY(outer) && lies(inner, outer) {
				unit := d.UnitMm
				if unit == 0 {
					unit = 1
				}
				return nil, edit.One("length", "outline.which", fact.Figures{"outerMm": extentX(outer) * unit, "innerMm": extentX(inner) * unit}, "")
			}
		}
	}
	return d.Loops[0], nil
}

// mostNested is how many of the largest loops are held against each other.
const mostNested = 12

// nestedShare is how much of an outline another is within it, for both to be taken for blades.
const nestedShare = .75

// lies tells whether a loop lies within another's box.
func lies(in, around []blade.Node) bool {
	within := func(k int) bool {
		a0, a1 := span(in, k)
		b0, b1 := span(around, k)
		return a0 >= b0-(b1-b0)*.02 && a1 <= b1+(b1-b0)*.02
	}
	return within(0) && within(1)
}

func span(l []blade.Node, k int) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, p := range l {
		lo, hi = math.Min(lo, p[k]), math.Max(hi, p[k])
	}
	return lo, hi
}

func extentY(l []blade.Node) float64 {
	lo, hi := span(l, 1)
	return hi - lo
}

// Traced is what a drawing holds: the outline of a blade proper, and where it is drawn too, that of
// the tang behind it with the ricasso between them.
type Traced struct {
	blade.Outline
	LengthMm  float64
	Tang      *blade.Outline
	RicassoMm float64
}

// ReadOutline makes an outline of a closed loop of a drawing, and of the tang that is drawn behind
// it. Errors are *edit.InvalidError, beside the field that mends it.
func ReadOutline(f OutlineFile) (out Traced, err error) {
	read := map[string]func([]byte) (drawing.Drawing, error){"svg": drawing.ReadSVG, "dxf": drawing.ReadDXF}[f.Format]
	if read == nil {
		return out, edit.One("format", "field.choice", nil, "")
	}
	d, err := read([]byte(f.Text))
	var de *drawing.Error
	if errors.As(err, &de) {
		return out, edit.One("text", de.Code, fact.Figures{"line": float64(de.Line)}, de.Detail)
	}
	if err != nil {
		return out, err
	}
	if err := statedUnit(&d, f); err != nil {
		return out, err
	}
	picked, err := pickLoop(d, f)
	if err != nil {
		return out, err
	}
	loop := turned(picked, f)
	if out.LengthMm, err = statedLength(f, extentX(loop)*d.UnitMm); err != nil {
		return out, err
	}
	if out.Outline, err = blade.TraceLoop(loop, out.LengthMm); err == nil {
		err = out.traceTang(loop, d.Loops, f)
	}
	var te *blade.TraceError
	if errors.As(err, &te) {
		return out, edit.One("text", te.Code, fact.Figures{"atMm": te.AtMm}, "")
	}
	return out, err
}

// Of a tang that is drawn behind a blade (judgement): how far behind its heel it may begin, how far
// before it by rounding, and how long it is at the least.
const (
	mostRicassoMm = 80.0
	heelSlackMm   = 0.5
	leastTangMm   = 25.0
)

// traceTang finds the tang behind the blade: the longest loop that begins at its heel, or a ricasso
// behind it, and lies across its height there.
func (t *Traced) traceTang(loop []blade.Node, all [][]blade.Node, f OutlineFile) error {
	unitMm := t.LengthMm / extentX(loop)
	_, heelX := spanX(loop)
	heelY, bottomY := math.Inf(-1), math.Inf(1)
	for _, p := range loop {
		if (heelX-p[0])*unitMm < heelSlackMm {
			heelY, bottomY = math.Max(heelY, p[1]), math.Min(bottomY, p[1])
		}
	}
	var tang []blade.Node
	for _, l := range all {
		l = turned(l, f)
		from, to := spanX(l)
		gap, long := (from-heelX)*unitMm, (to-from)*unitMm
		if gap < -heelSlackMm || gap > mostRicassoMm || long < leastTangMm || tang != nil && long <= extentX(tang)*unitMm {
			continue
		}
		across := false
		for _, p := range l {
			across = across || p[1] < heelY && p[1] > bottomY
		}
		if across {
			tang, t.RicassoMm = l, math.Max(0, gap)
		}
	}
	if tang == nil {
		return nil
	}
	o, err := blade.TraceTang(tang, heelY, unitMm)
	t.Tang = &o
	return err
}

// full tells whether the tang that is drawn is as high as a grip: a full tang.
func (t *Traced) full() bool {
	if t.Tang == nil {
		return false
	}
	least := math.Inf(1)
	for _, share := range []float64{.25, .5, .75, .9} {
		x := share * t.Tang.Spine[len(t.Tang.Spine)-1][0]
		least = math.Min(least, heightAt(t.Tang.Spine, x)-heightAt(t.Tang.Edge, x))
	}
	heel := t.Spine[len(t.Spine)-1][1] - t.Edge[len(t.Edge)-1][1]
	return least > fullShare*heel
}

// heightAt is a side straight between its nodes.
func heightAt(nodes []blade.Node, x float64) float64 {
	for i := 1; i < len(nodes); i++ {
		if a, b := nodes[i-1], nodes[i]; x <= b[0] {
			return a[1] + (b[1]-a[1])*(x-a[0])/(b[0]-a[0])
		}
	}
	return nodes[len(nodes)-1][1]
}

// fullShare of the height at the heel is how high a full tang is at the least (judgement).
const fullShare = .45

// give puts what was traced into a design: the blade's outline, and that of a full tang where it has
// one.
func (t *Traced) give(d *blade.Design) {
	d.SetOutline(t.Outline)
	if d.TangKind == blade.FullTang && t.full() {
		if t.RicassoMm > heelSlackMm {
			d.Ricasso.LengthMm = t.RicassoMm
		}
		d.SetTangOutline(*t.Tang)
	}
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
	lo, hi := spanX(loop)
	return hi - lo
}

func spanX(loop []blade.Node) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, p := range loop {
		lo, hi = math.Min(lo, p[0]), math.Max(hi, p[0])
	}
	return lo, hi
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
	o, err := ReadOutline(f)
	if err != nil {
		return doc.Pattern{}, err
	}
	d := blade.Starters()[0].Design
	kind := d.TangKind
	if o.full() {
		kind = blade.FullTang
	}
	d.SetOutline(o.Outline)
	d.Ricasso.HeightMm = d.HeightMm * heelShare
	d.SetTang(kind)
	o.give(&d)
	return doc.Pattern{Name: name, Tags: []string{}, Design: d, Allowances: blade.ThickAndGrind.AllowancesFor(&d)}, nil
}

// heelShare is how high a ricasso is drawn behind an outline that says nothing of it.
const heelShare = .86

// TraceOutline gives a piece the outline of a drawing, as one step of its
// history.
func (w *Work) TraceOutline(ctx context.Context, id string, version int, f OutlineFile) (Piece, *plan.Plan, error) {
	o, err := ReadOutline(f)
	if err != nil {
		return Piece{}, nil, err
	}
	seen, err := w.seen(ctx, id, version)
	if err != nil {
		return Piece{}, nil, err
	}
	d := doc.Copy(seen.Doc)
	o.give(&d.Request.Design)
	return w.keep(ctx, id, version, d, "", nil)
}
