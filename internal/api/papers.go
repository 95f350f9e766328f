package api

import (
	"context"
	"errors"
	"slices"
	"strconv"
	"time"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"
)

// Format is what a piece or a pattern is written as: a format of its blade, or one of the
// papers of its plan.
type Format string

// Papers of a plan.
const (
	Card   Format = "card"   // one page to take to the fire
	Bench  Format = "bench"  // every heat with its sketch
	Heats  Format = "heats"  // every heat as a table
	Gauges Format = "gauges" // to cut out and pin by the anvil

	FittingsPDF Format = "fittings"    // handle and sheath, exactly 1:1
	FittingsSVG Format = "fittingsSvg" // the same as outlines
	FittingsDXF Format = "fittingsDxf"
	ForCustomer Format = "customer" // one page without the shop's figures
)

// What is written of the newest session of a piece at the fire.
const (
	Made    Format = "made"    // one page as made
	LogCSV  Format = "log"     // what happened, as a table
	LogJSON Format = "session" // all of it, with the frozen plan
)

// Page is a pattern on paper, with squares that hold all of it.
const Page Format = "page"

// ForSharing is the whole piece of work as a file for another shop.
const ForSharing Format = "share"

// Papers lists them.
func Papers() []Format {
	return []Format{Card, Bench, Heats, Gauges, FittingsPDF, FittingsSVG, FittingsDXF, ForCustomer, Made, LogCSV, LogJSON, ForSharing}
}

// IsPaper tells whether a format is one of them.
func IsPaper(f Format) bool { return slices.Contains(Papers(), f) }

// CanWrite tells whether there is such a format at all.
func CanWrite(f Format) bool {
	return IsPaper(f) || f == Page || slices.Contains(export.Formats(), export.Format(f))
}

// Paper is a written file with the end of its name; Inline is shown, not kept.
type Paper struct {
	export.File
	Suffix string
	Inline bool
}

// PieceFile writes a piece of work in a format, in the units and on the paper of the shop.
func PieceFile(ctx context.Context, w *work.Work, p work.Piece, f Format) (Paper, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return Paper{}, err
	}
	r, units, paper := p.Doc.Request, shop.Doc.System(), shop.Doc.Paper
	if !IsPaper(f) {
		file, err := export.Write(export.Subject{Name: p.Doc.Name, Design: r.Design, Allowances: r.Allowances, Piece: &r}, export.Format(f), units, paper)
		return Paper{File: file, Suffix: "." + string(f)}, err
	}
	if f == Made || f == LogCSV || f == LogJSON {
		now, err := w.FireOf(ctx, p.ID)
		if errors.Is(err, work.ErrNotFound) {
			return Paper{}, &work.StateError{Code: "session.neverAtFire"}
		}
		if err != nil {
			return Paper{}, err
		}
		return SessionFile(ctx, w, now.ID, f)
	}
	if f == ForSharing {
		return sharedFile(ctx, w, p.ID)
	}
	if p.Doc, err = w.OnTheRack(ctx, p.Doc); err != nil {
		return Paper{}, err
	}
	r = p.Doc.Request
	pl, err := w.Plan(ctx, p.Doc)
	if err != nil {
		return Paper{}, err
	}
	pdf := func(data []byte, err error, name string) (Paper, error) {
		return Paper{File: export.File{Data: data, ContentType: "application/pdf"}, Suffix: name, Inline: true}, err
	}
	switch f {
	case Card:
		within, err := w.Within(ctx, p.Doc)
		if err != nil {
			return Paper{}, err
		}
		data, err := export.FireCard(p.Doc.Name, p.Doc.Request, pl, within, units, paper)
		return pdf(data, err, named("card", ".pdf"))
	case Gauges:
		c := session.Freeze(&r, pl, planner.TreatmentSteps(&r, pl))
		data, err := export.Gauges(p.Doc.Name, &c, export.Subject{Name: p.Doc.Name, Design: r.Design, Allowances: r.Allowances, Piece: &r}, units, paper)
		return pdf(data, err, named("gauges", ".pdf"))
	case FittingsPDF, FittingsSVG, FittingsDXF, ForCustomer:
		return finishPaper(ctx, w, p, pl, f, units, paper)
	case Bench:
		h := export.Hardening{Advice: planner.Treat(&r, pl)}
		data, err := export.BenchCard(p.Doc.Name, pl, &h, units, paper)
		return pdf(data, err, named("bench", ".pdf"))
	default:
		data, err := export.HeatsCSV(pl, &export.Hardening{Advice: planner.Treat(&r, pl)}, units)
		return Paper{File: export.File{Data: data, ContentType: "text/csv; charset=utf-8"}, Suffix: named("heats", ".csv")}, err
	}
}

// finishPaper writes what is cut for handle and sheath, or the customer's page.
func finishPaper(ctx context.Context, w *work.Work, p work.Piece, pl *plan.Plan, f Format, units quantity.System, paper string) (Paper, error) {
	fin, err := w.Finish(ctx, p.Doc)
	if err != nil {
		return Paper{}, err
	}
	d := p.Doc.Request.Design
	switch f {
	case FittingsSVG, FittingsDXF:
		cut := export.Fittings(d, &fin)
		if len(cut) == 0 {
			return Paper{}, &work.StateError{Code: "fittings.none"}
		}
		if f == FittingsSVG {
			return Paper{File: export.File{Data: export.SVG(p.Doc.Name, cut), ContentType: "image/svg+xml"}, Suffix: named("fittings", ".svg")}, nil
		}
		return Paper{File: export.File{Data: export.DXF(cut), ContentType: "image/vnd.dxf"}, Suffix: named("fittings", ".dxf")}, nil
	case FittingsPDF:
		data, err := export.FittingsSheet(p.Doc.Name, d, &fin, units, paper)
		return Paper{File: export.File{Data: data, ContentType: "application/pdf"}, Suffix: named("fittings", ".pdf"), Inline: true}, err
	}
	promised, err := w.Promise(ctx, p.ID)
	if err != nil {
		return Paper{}, err
	}
	told := export.Promise{}
	if promised.Price > 0 {
		told.Price = strconv.FormatFloat(promised.Price, 'f', 0, 64)
	}
	if !promised.Day.IsZero() {
		told.Day = text.Day(promised.Day)
	}
	data, err := export.Customer(p.Doc.Name, &p.Doc.Request, pl, &fin, told, units, paper)
	return Paper{File: export.File{Data: data, ContentType: "application/pdf"}, Suffix: named("customer", ".pdf"), Inline: true}, err
}

// SessionFile writes a session at the fire in one of its formats.
func SessionFile(ctx context.Context, w *work.Work, id string, f Format) (Paper, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return Paper{}, err
	}
	m, err := madeOf(ctx, w, id)
	if err != nil {
		return Paper{}, err
	}
	switch f {
	case Made:
		data, err := export.AsMade(m, shop.Doc.System(), shop.Doc.Paper)
		return Paper{File: export.File{Data: data, ContentType: "application/pdf"}, Suffix: named("made", ".pdf"), Inline: true}, err
	case LogCSV:
		data, err := export.SessionCSV(m)
		return Paper{File: export.File{Data: data, ContentType: "text/csv; charset=utf-8"}, Suffix: named("log", ".csv")}, err
	default:
		data, err := export.SessionJSON(m)
		return Paper{File: export.File{Data: data, ContentType: "application/json"}, Suffix: named("log", ".json")}, err
	}
}

// madeOf is a session to be written.
func madeOf(ctx context.Context, w *work.Work, id string) (export.Made, error) {
	f, err := w.Fire(ctx, id)
	if err != nil {
		return export.Made{}, err
	}
	events, err := w.Happened(ctx, id, 0)
	if err != nil {
		return export.Made{}, err
	}
	c := &f.Doc.Course
	return export.Made{
		Name: f.Doc.Name, Hand: f.Doc.Hand, Steel: text.Steel(c.Steel), Request: f.Doc.Request, Course: c, Events: events, Book: session.BookOf(c, events), Zone: time.Local,
	}, nil
}

// PatternFile writes a pattern in a format of its blade.
func PatternFile(ctx context.Context, w *work.Work, p work.Pattern, f Format) (Paper, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return Paper{}, err
	}
	d := p.Doc
	s := export.Subject{Name: d.Name, Tags: d.Tags, Design: d.Design, Allowances: d.Allowances}
	if f == Page {
		data, err := export.PatternPage(s, shop.Doc.System(), shop.Doc.Paper)
		return Paper{File: export.File{Data: data, ContentType: "application/pdf"}, Suffix: named("pattern", ".pdf"), Inline: true}, err
	}
	file, err := export.Write(s, export.Format(f), shop.Doc.System(), shop.Doc.Paper)
	return Paper{File: file, Suffix: "." + string(f)}, err
}

type exportIn struct {
	ID     string `path:"id"`
	Format string `path:"format" enum:"svg,dxf,pdf,3mf,stl,json,page"`
}

func (h *handlers) ofPiece(ctx context.Context, id string, f Format) (*fileOut, error) {
	p, err := h.work.Piece(ctx, id)
	if err != nil {
		return nil, fail(ctx, err, "")
	}
	paper, err := PieceFile(ctx, h.work, p, f)
	return fileOf(ctx, h, p.Doc.Name, paper, err)
}

func (h *handlers) ofPattern(ctx context.Context, in *exportIn) (*fileOut, error) {
	p, err := h.work.Pattern(ctx, in.ID)
	if err != nil {
		return nil, fail(ctx, err, "")
	}
	paper, err := PatternFile(ctx, h.work, p, Format(in.Format))
	return fileOf(ctx, h, p.Doc.Name, paper, err)
}

func fileOf(ctx context.Context, h *handlers, name string, p Paper, err error) (*fileOut, error) {
	if err != nil {
		_, err = answer(ctx, h, p, err)
		return nil, err
	}
	how := download(name, p.Suffix)
	if p.Inline {
		how = inline(name, p.Suffix)
	}
	return &fileOut{ContentType: p.ContentType, Disposition: how, Body: p.Data}, nil
}
