package work

import (
	"context"
	"errors"
	"reflect"
	"slices"
	"strings"

	"coldember/core/forge"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/text"
)

// RackChange is what a line of a table does to the rack.
type RackChange struct {
	Line    int
	ID      string // none: a new piece
	Name    string
	Changes []FieldChange // of a piece that is there; none: it stays as it is
}

// FieldChange is a column of a table whose value is another one than on the rack.
type FieldChange struct {
	Column string
	Was    string
	Is     string
}

// ReadRackTable tells what a table would do to the rack, which stays as it is. Errors are
// *CSVError naming line and column.
func (w *Work) ReadRackTable(ctx context.Context, data []byte) (out []RackChange, err error) {
	rows, err := ReadRackCSV(data)
	if err != nil {
		return nil, err
	}
	err = w.store.Read(ctx, func(tx store.Tx) error {
		merged, err := mergeTable(tx, rows)
		for _, m := range merged {
			out = append(out, m.change)
		}
		return err
	})
	return out, err
}

// ImportRackCSV takes a whole table into the rack, or nothing of it: a line with the id of a
// piece is that piece, all others are new. Errors are *CSVError naming line and column.
func (w *Work) ImportRackCSV(ctx context.Context, data []byte) (out []RackChange, err error) {
	rows, err := ReadRackCSV(data)
	if err != nil {
		return nil, err
	}
	var events []Event
	err = w.store.Write(ctx, func(tx store.Tx) error {
		merged, err := mergeTable(tx, rows)
		if err != nil {
			return err
		}
		for _, m := range merged {
			out = append(out, m.change)
			switch {
			case m.change.ID == "":
				item := w.newStock(m.doc)
				err = tx.AddStock(item)
				events = append(events, Event{"stock", item.ID, 1})
			case len(m.change.Changes) > 0:
				err = swapped(tx.SwapStock(m.change.ID, m.version, w.now(), doc.Encode(m.doc)))
				events = append(events, Event{"stock", m.change.ID, m.version + 1})
			}
			if err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	for _, e := range events {
		w.tell(e)
	}
	return out, nil
}

type mergedRow struct {
	change  RackChange
	doc     doc.Stock
	version int
}

func mergeTable(tx store.Tx, rows []TableRow) ([]mergedRow, error) {
	out := make([]mergedRow, 0, len(rows))
	seen := map[string]bool{}
	for _, r := range rows {
		if seen[r.ID] && r.ID != "" {
			return nil, &CSVError{Code: "csv.idTwice", Line: r.Line, Column: "id"}
		}
		seen[r.ID] = true
		m, err := mergeRow(tx, r)
		var bad *edit.InvalidError
		if errors.As(err, &bad) {
			f := bad.Fields[0]
			return nil, &CSVError{Code: "csv.value", Line: r.Line, Column: columnOf(f.Field), Found: f.Text, Problem: &f}
		}
		if err != nil {
			return nil, err
		}
		out = append(out, m)
	}
	return out, nil
}

// columnOf is the column of a table that a field stands in.
func columnOf(field string) string {
	if strings.HasPrefix(field, "hazard.") {
		return "hazards"
	}
	return strings.TrimPrefix(field, "piece.")
}

func mergeRow(tx store.Tx, r TableRow) (m mergedRow, err error) {
	m.change.Line = r.Line
	if r.ID != "" {
		was, err := stockIn(tx, r.ID)
		switch {
		case errors.Is(err, ErrNotFound): // of another rack: a new piece here
		case err != nil:
			return m, err
		case was.Archived:
			return m, &CSVError{Code: "csv.offRack", Line: r.Line, Column: "id"}
		case was.Doc.Piece.Form != r.Form:
			return m, &CSVError{Code: "csv.otherForm", Line: r.Line, Column: "form", Found: string(was.Doc.Piece.Form)}
		default:
			return mergeKnown(r, was)
		}
	}
	var typed []edit.Edit
	for _, e := range r.Edits {
		if e.Text != "" {
			typed = append(typed, e)
		}
	}
	if m.doc, err = edit.NewStock(r.Form, typed, forge.NewFire()); err != nil {
		return m, err
	}
	m.change.Name = m.doc.Name
	return m, edit.Invalid(m.doc.Validate())
}

// mergeKnown makes the edits of a line on a piece that is on the rack. An empty field takes
// away what is there; what a table has no column for stays.
func mergeKnown(r TableRow, was Stock) (m mergedRow, err error) {
	var typed []edit.Edit
	start := doc.Copy(was.Doc)
	stands := map[string]string{}
	for i, cell := range tableLine(was.ID, was.Doc) {
		stands[tableColumns()[i]] = text.Fused(cell)
	}
	for _, e := range r.Edits {
		cell, has := r.Cells[e.Field]
		switch {
		case has && cell == stands[columnOf(e.Field)]: // what stands there already is no edit
		case e.Text != "":
			typed = append(typed, e)
		case strings.HasPrefix(e.Field, "piece.") || e.Field == "cost" || e.Field == "weighedKg":
			if f, ok := edit.StockFigure(&start, strings.TrimPrefix(e.Field, "piece.")); ok {
				*f = 0
			}
		case e.Field != "count" && e.Field != "known" && e.Field != "steelId":
			typed = append(typed, e)
		}
	}
	for _, h := range was.Doc.Hazards {
		if r.HasHazards && !slices.Contains(r.Hazards, h) {
			typed = append(typed, edit.Edit{Field: "hazard." + h, Text: "off"})
		}
	}
	if m.doc, err = edit.Stock(start, typed, forge.NewFire()); err != nil {
		return m, err
	}
	m.version = was.Version
	m.change = RackChange{Line: r.Line, ID: was.ID, Name: m.doc.Name}
	before, after := tableLine(was.ID, was.Doc), tableLine(was.ID, m.doc)
	for i, column := range tableColumns() {
		if before[i] != after[i] {
			m.change.Changes = append(m.change.Changes, FieldChange{column, before[i], after[i]})
		}
	}
	if len(m.change.Changes) == 0 || reflect.DeepEqual(was.Doc, m.doc) {
		m.doc, m.change.Changes = was.Doc, nil
	}
	return m, edit.Invalid(m.doc.Validate())
}
