package work

import (
	"context"
	"slices"
	"strings"
	"time"

	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/internal/store"
)

// Revision is one state of a pattern.
type Revision struct {
	N         int       `json:"n"`
	CreatedAt time.Time `json:"createdAt"`
	PatternDoc
	Sketch   []plan.Station `json:"sketch"`
	Measures PatternFigures `json:"measures"`
}

// PatternFigures are what two revisions are compared by.
type PatternFigures struct {
	LengthMm       float64 `json:"lengthMm"`
	HeightMm       float64 `json:"heightMm"`
	SpineMm        float64 `json:"spineMm"`
	OverallMm      float64 `json:"overallMm"`
	MassG          float64 `json:"massG"`
	BalanceMm      float64 `json:"balanceMm" doc:"from the point"`
	ForgedMassG    float64 `json:"forgedMassG"`
	BarMm          float64 `json:"barMm" doc:"of the bar it is compared on, before any loss"`
	BarWidthMm     float64 `json:"barWidthMm"`
	BarThicknessMm float64 `json:"barThicknessMm"`
}

// History lists the revisions of a pattern, newest first, measured on a bar of
// this section.
func (w *Work) History(ctx context.Context, id string, barWidthMm, barThicknessMm float64) ([]Revision, error) {
	c := fact.NewCheck()
	c.Range("barWidthMm", barWidthMm, 3, 200)
	c.Range("barThicknessMm", barThicknessMm, .8, 80)
	if err := c.Err(); err != nil {
		return nil, invalid(err)
	}
	out := []Revision{}
	err := w.store.Read(ctx, func(tx store.Tx) error {
		if _, err := store.Find[store.Pattern](tx, "id = ?", id); err != nil {
			return err
		}
		rows, err := store.List[store.PatternRevision](tx, "n desc", "pattern_id = ?", id)
		for _, row := range rows {
			r, err := revisionOf(row, barWidthMm, barThicknessMm)
			if err != nil {
				return err
			}
			out = append(out, r)
		}
		return err
	})
	return out, err
}

func revisionOf(row store.PatternRevision, w, t float64) (Revision, error) {
	doc, err := decode[PatternDoc](row.Doc)
	if err != nil {
		return Revision{}, err
	}
	fin, fog, drawn, err := figure.Draw(doc.Design, doc.Allowances)
	if err != nil {
		return Revision{}, err
	}
	m, f := fin.Measure(), fog.Measure()
	return Revision{N: row.N, CreatedAt: row.CreatedAt, PatternDoc: doc, Sketch: drawn.Finished, Measures: PatternFigures{
		LengthMm: doc.Design.LengthMm, HeightMm: doc.Design.HeightMm, SpineMm: doc.Design.SpineMm, OverallMm: m.OverallLengthMm,
		MassG: m.MassG, BalanceMm: m.BalanceFromPointMm, ForgedMassG: f.VolumeMm3 * steel.DensityGPerCm3 / 1000,
		BarMm: f.VolumeMm3 / (w * t), BarWidthMm: w, BarThicknessMm: t,
	}}, nil
}

// EditPattern applies typed fields to a pattern as a new revision. Beside name,
// design and allowances there are tags (words with commas between), scale (a
// factor for everything), scaleLength, scaleHeight and scaleThickness.
func (w *Work) EditPattern(ctx context.Context, id string, version int, edits []Edit) (Pattern, error) {
	p, err := w.Pattern(ctx, id)
	if err != nil {
		return p, err
	}
	doc, err := decode[PatternDoc](encode(p.PatternDoc))
	if err != nil {
		return p, err
	}
	err = editAll(edits, func(e Edit) *FieldProblem { return editPattern(&doc, e) })
	if err != nil {
		return p, err
	}
	return w.SavePattern(ctx, id, version, doc)
}

func editPattern(d *PatternDoc, e Edit) *FieldProblem {
	switch e.Field {
	case "tags":
		d.Tags = []string{}
		for t := range strings.SplitSeq(e.Text, ",") {
			if t = strings.TrimSpace(t); t != "" && !slices.Contains(d.Tags, t) {
				d.Tags = append(d.Tags, t)
			}
		}
		return nil
	case "scale", "scaleLength", "scaleHeight", "scaleThickness":
		k, bad := typedFigure(e.Field+"Share", e) // typed in per cent
		if bad != nil {
			return bad
		}
		if !(k >= .2 && k <= 5) {
			return &FieldProblem{FieldError: fact.FieldError{Field: e.Field, Code: "field.rangePercent", Figures: fact.Figures{"lowest": .2, "highest": 5}}, Text: e.Text, Offset: -1}
		}
		one := map[bool]float64{true: k, false: 1}
		all := e.Field == "scale"
		d.Design = d.Design.Scaled(one[all || e.Field == "scaleLength"], one[all || e.Field == "scaleHeight"], one[all || e.Field == "scaleThickness"])
		return nil
	}
	return setField(d, e)
}

// RestoreRevision makes an old revision the newest again, as a new one.
func (w *Work) RestoreRevision(ctx context.Context, id string, version, n int) (Pattern, error) {
	var doc PatternDoc
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.PatternRevision](tx, "pattern_id = ? AND n = ?", id, n)
		if err == nil {
			doc, err = decode[PatternDoc](row.Doc)
		}
		return err
	})
	if err != nil {
		return Pattern{}, err
	}
	return w.SavePattern(ctx, id, version, doc)
}

// ArchivePattern takes a pattern off the library; its revisions stay.
func (w *Work) ArchivePattern(ctx context.Context, id string, version int) (Pattern, error) {
	ok := false
	err := w.store.Write(ctx, func(tx store.Tx) (err error) {
		ok, err = store.Swap[store.Pattern](tx, id, version, w.now(), map[string]any{"archived_at": w.now()})
		return err
	})
	if err != nil {
		return Pattern{}, err
	}
	p, err := w.Pattern(ctx, id)
	if err == nil && !ok {
		err = &StaleError{Current: p}
	}
	return p, err
}
