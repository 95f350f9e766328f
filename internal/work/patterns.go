package work

import (
	"context"
	"time"

	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/steel"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Pattern is a stored pattern; Revision counts its states.
type Pattern struct {
	ID       string
	Version  int
	Revision int
	Doc      doc.Pattern
	Sketch   []plan.Station // the finished blade, to be drawn
	Archived bool
}

// Revision is one state of a pattern, measured on a bar.
type Revision struct {
	N         int
	CreatedAt time.Time
	Doc       doc.Pattern
	Sketch    []plan.Station
	Measures  PatternFigures
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

func patternOf(row store.PatternRow) (Pattern, error) {
	d, err := doc.Decode[doc.Pattern](row.Doc)
	if err != nil {
		return Pattern{}, err
	}
	sketch, err := figure.Sketch(d.Design)
	if err != nil {
		err = &doc.BrokenError{Kind: "pattern", Err: err}
	}
	return Pattern{ID: row.ID, Version: row.Version, Revision: row.Head, Doc: d, Sketch: sketch, Archived: row.ArchivedAt != nil}, err
}

// Pattern reads one pattern at its newest revision.
func (w *Work) Pattern(ctx context.Context, id string) (out Pattern, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.Pattern(id)
		if err == nil {
			out, err = patternOf(row)
		}
		return err
	})
	return out, err
}

// Patterns lists the library, or what was taken off it, and what cannot be read.
func (w *Work) Patterns(ctx context.Context, archived bool) (out []Pattern, aside []Unreadable, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.Patterns(archived)
		for _, row := range rows {
			p, err := patternOf(row)
			if u, bad := unreadable(row.ID, err); bad {
				aside = append(aside, u)
				continue
			}
			out = append(out, p)
		}
		return err
	})
	return out, aside, err
}

func (w *Work) newPattern(name string) store.Pattern {
	now := w.now()
	return store.Pattern{ID: w.newID(), Name: doc.StoredName(name), Head: 1, Version: 1, CreatedAt: now, UpdatedAt: now}
}

// AddPattern puts a design into the library.
func (w *Work) AddPattern(ctx context.Context, d doc.Pattern) (Pattern, error) {
	if d.Tags == nil {
		d.Tags = []string{}
	}
	if err := d.Validate(); err != nil {
		return Pattern{}, edit.Invalid(err)
	}
	row := w.newPattern(d.Name)
	if err := w.store.Write(ctx, func(tx store.Tx) error { return tx.AddPattern(row, doc.Encode(d)) }); err != nil {
		return Pattern{}, err
	}
	w.tell(Event{"pattern", row.ID, 1})
	return w.Pattern(ctx, row.ID)
}

// DuplicatePattern puts a copy into the library, its name counted.
func (w *Work) DuplicatePattern(ctx context.Context, id string) (Pattern, error) {
	p, err := w.Pattern(ctx, id)
	if err != nil {
		return p, err
	}
	d := doc.Copy(p.Doc)
	if d.Name, err = w.freePatternName(ctx, d.Name); err != nil {
		return Pattern{}, err
	}
	return w.AddPattern(ctx, d)
}

// SavePattern adds a revision; the ones before stay.
func (w *Work) SavePattern(ctx context.Context, id string, version int, d doc.Pattern) (Pattern, error) {
	if d.Tags == nil {
		d.Tags = []string{}
	}
	if err := d.Validate(); err != nil {
		return Pattern{}, edit.Invalid(err)
	}
	err := w.store.Write(ctx, func(tx store.Tx) error {
		row, err := tx.Pattern(id)
		if err != nil {
			return err
		}
		if row.Version != version {
			return errStale
		}
		return swapped(tx.RevisePattern(row.Pattern, doc.StoredName(d.Name), w.now(), doc.Encode(d)))
	})
	return w.savedPattern(ctx, id, version, err)
}

func (w *Work) savedPattern(ctx context.Context, id string, version int, err error) (Pattern, error) {
	now := func() (Pattern, error) { return w.Pattern(ctx, id) }
	if err != nil {
		return Pattern{}, staleOr(err, now)
	}
	w.tell(Event{"pattern", id, version + 1})
	return now()
}

// History lists the revisions of a pattern, newest first, measured on a bar of
// this section. What cannot be read is left out.
func (w *Work) History(ctx context.Context, id string, barWidthMm, barThicknessMm float64) (out []Revision, err error) {
	c := fact.NewCheck()
	c.Range("barWidthMm", barWidthMm, 3, 200)
	c.Range("barThicknessMm", barThicknessMm, .8, 80)
	if err := c.Err(); err != nil {
		return nil, edit.Invalid(err)
	}
	err = w.store.Read(ctx, func(tx store.Tx) error {
		if _, err := tx.Pattern(id); err != nil {
			return err
		}
		rows, err := tx.PatternRevisions(id)
		for _, row := range rows {
			r, err := revisionOf(row, barWidthMm, barThicknessMm)
			if _, bad := unreadable(id, err); bad {
				continue
			}
			out = append(out, r)
		}
		return err
	})
	return out, err
}

func revisionOf(row store.PatternRevision, w, t float64) (Revision, error) {
	d, err := doc.Decode[doc.Pattern](row.Doc)
	if err != nil {
		return Revision{}, err
	}
	fin, fog, drawn, err := figure.Bodies(d.Design, d.Allowances)
	if err != nil {
		return Revision{}, &doc.BrokenError{Kind: "pattern", Err: err}
	}
	m, f := fin.Measure(), fog.Measure()
	return Revision{N: row.N, CreatedAt: row.CreatedAt, Doc: d, Sketch: drawn.Finished, Measures: PatternFigures{
		LengthMm: d.Design.LengthMm, HeightMm: d.Design.HeightMm, SpineMm: d.Design.SpineMm, OverallMm: m.OverallLengthMm,
		MassG: m.MassG, BalanceMm: m.BalanceFromPointMm, ForgedMassG: f.VolumeMm3 * steel.DensityGPerCm3 / 1000,
		BarMm: f.VolumeMm3 / (w * t), BarWidthMm: w, BarThicknessMm: t,
	}}, nil
}

// EditPattern applies typed fields to a pattern as a new revision.
func (w *Work) EditPattern(ctx context.Context, id string, version int, edits []edit.Edit) (Pattern, error) {
	p, err := w.Pattern(ctx, id)
	if err != nil {
		return p, err
	}
	d, err := edit.Pattern(p.Doc, edits)
	if err != nil {
		return p, err
	}
	return w.SavePattern(ctx, id, version, d)
}

// RestoreRevision makes an old revision the newest again, as a new one.
func (w *Work) RestoreRevision(ctx context.Context, id string, version, n int) (Pattern, error) {
	var d doc.Pattern
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := tx.PatternRevision(id, n)
		if err == nil {
			d, err = doc.Decode[doc.Pattern](row.Doc)
		}
		return err
	})
	if err != nil {
		return Pattern{}, err
	}
	return w.SavePattern(ctx, id, version, d)
}

// ArchivePattern takes a pattern off the library, or puts it back; its revisions
// stay.
func (w *Work) ArchivePattern(ctx context.Context, id string, version int, archived bool) (Pattern, error) {
	now := w.now()
	err := w.store.Write(ctx, func(tx store.Tx) error {
		return swapped(tx.ArchivePattern(id, version, now, when(archived, now)))
	})
	return w.savedPattern(ctx, id, version, err)
}
