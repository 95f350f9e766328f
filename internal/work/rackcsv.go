package work

import (
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/text"
)

// CSVError says where a table of stock is wrong.
type CSVError struct {
	Code   string
	Line   int
	Column string
	Found  string

	Problem *edit.Problem // of the field, where it is one
}

func (e *CSVError) Error() string {
	return fmt.Sprintf("csv: %s, line %d, column %q: %q", e.Code, e.Line, e.Column, e.Found)
}

// maxCSVRows bounds a table.
const maxCSVRows = 2000

// csvText are the columns that are words; the id says which piece of the rack it is. Figures follow, in millimetres and
// kilograms, named as in the API.
var csvText = []string{"id", "name", "form", "origin", "steelId", "known", "certificate", "place", "hazards", "notes"}

func csvFigures() []string {
	out := []string{"count", "cost", "weighedKg"}
	t := reflect.TypeFor[stock.Item]()
	for i := range t.NumField() {
		if f := t.Field(i); f.Type.Kind() == reflect.Float64 {
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			out = append(out, name)
		}
	}
	return out
}

// RackCSV writes the rack as a table: UTF-8, commas, a head line.
func (w *Work) RackCSV(ctx context.Context) ([]byte, error) {
	rack, _, err := w.Rack(ctx, false)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	out := csv.NewWriter(&b)
	rows := [][]string{tableColumns()}
	for _, s := range rack {
		rows = append(rows, tableLine(s.ID, s.Doc))
	}
	if err := out.WriteAll(rows); err != nil {
		return nil, fmt.Errorf("work: csv: %w", err)
	}
	return b.Bytes(), nil
}

// tableColumns are the columns of a table of stock.
func tableColumns() []string { return append(slices.Clone(csvText), csvFigures()...) }

// tableLine is a piece of stock in the columns.
func tableLine(id string, d doc.Stock) []string {
	known := "yes"
	if d.Believed {
		known = "no"
	}
	row := []string{id, d.Name, string(d.Piece.Form), d.Origin, d.SteelID, known, d.Certificate, d.Place, strings.Join(d.Hazards, " "), d.Notes}
	for i := range row {
		row[i] = text.Defused(row[i])
	}
	for _, name := range csvFigures() {
		row = append(row, csvNumber(d, name))
	}
	return row
}

// csvNumber prints one figure of a piece of stock; nothing where it has none.
func csvNumber(d doc.Stock, name string) string {
	n, _ := edit.StockFigure(&d, name)
	if *n == 0 {
		return ""
	}
	return strconv.FormatFloat(*n, 'f', -1, 64)
}

// TableRow is one line of a table of stock: which piece of the rack it is of (none: a new
// one), and what is typed of it.
type TableRow struct {
	Line  int
	ID    string
	Form  stock.Form
	Edits []edit.Edit
	Cells map[string]string // as they stand, by the field that each is an edit of
	// Hazards are all that the table knows of, if it has the column.
	Hazards    []string
	HasHazards bool
}

// ReadRackCSV reads a table of stock. Errors are *CSVError naming line and column.
func ReadRackCSV(data []byte) ([]TableRow, error) {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	if at := invalidUTF8(data); at >= 0 {
		return nil, &CSVError{Code: "csv.encoding", Line: 1 + bytes.Count(data[:at], []byte("\n"))}
	}
	r := csv.NewReader(bytes.NewReader(data))
	r.FieldsPerRecord, r.TrimLeadingSpace = -1, true
	if first, _, _ := bytes.Cut(data, []byte("\n")); bytes.Count(first, []byte(";")) > bytes.Count(first, []byte(",")) {
		r.Comma = ';'
	}
	head, err := r.Read()
	if err != nil {
		return nil, &CSVError{Code: "csv.empty", Line: 1}
	}
	if err := checkHead(head); err != nil {
		return nil, err
	}
	out := []TableRow{}
	for {
		row, err := r.Read()
		line := 0
		if len(row) > 0 {
			line, _ = r.FieldPos(0)
		}
		var pe *csv.ParseError
		switch {
		case errors.Is(err, io.EOF):
			return out, nil
		case errors.As(err, &pe):
			return nil, &CSVError{Code: "csv.quotes", Line: pe.Line}
		case err != nil:
			return nil, fmt.Errorf("work: csv: %w", err)
		case len(row) != len(head):
			return nil, &CSVError{Code: "csv.width", Line: line, Found: strconv.Itoa(len(row))}
		case len(out) == maxCSVRows:
			return nil, &CSVError{Code: "csv.tooMany", Line: line}
		}
		d, err := csvRow(head, row, line)
		if err != nil {
			return nil, err
		}
		out = append(out, d)
	}
}

// checkHead trims the names of the columns and finds one that is not known, or there twice.
func checkHead(head []string) error {
	known := tableColumns()
	for i := range head {
		head[i] = strings.TrimSpace(head[i])
		if !slices.Contains(known, head[i]) {
			return &CSVError{Code: "csv.column", Line: 1, Column: head[i], Found: nearest(head[i], known)}
		}
		if slices.Contains(head[:i], head[i]) {
			return &CSVError{Code: "csv.columnTwice", Line: 1, Column: head[i]}
		}
	}
	for _, must := range []string{"name", "form"} {
		if !slices.Contains(head, must) {
			return &CSVError{Code: "csv.missing", Line: 1, Column: must}
		}
	}
	return nil
}

// csvRow makes edits of a line: what a table says goes the way of what is typed.
func csvRow(head, row []string, line int) (TableRow, error) {
	out := TableRow{Line: line, Cells: map[string]string{}}
	for i, name := range head {
		text := text.Fused(strings.TrimSpace(row[i]))
		switch {
		case name == "id":
			out.ID = text
		case name == "form":
			if out.Form = stock.Form(text); !slices.Contains(stock.Forms(), out.Form) {
				return out, &CSVError{Code: "csv.choice", Line: line, Column: name, Found: text}
			}
		case name == "hazards":
			out.HasHazards = true
			for h := range strings.FieldsSeq(text) {
				out.Hazards = append(out.Hazards, h)
				out.Edits = append(out.Edits, edit.Edit{Field: "hazard." + h, Text: "on"})
			}
		case slices.Contains(csvText, name):
			out.Edits = append(out.Edits, edit.Edit{Field: name, Text: text})
			out.Cells[name] = text
		default:
			e, err := csvFigure(name, text)
			if err != nil {
				return out, &CSVError{Code: "csv.value", Line: line, Column: name, Found: text, Problem: err}
			}
			out.Edits = append(out.Edits, e)
			out.Cells[e.Field] = text
		}
	}
	return out, nil
}

// csvFigure is a figure of a table as it is typed into its field: in millimetres and
// kilograms where it has no unit, shares as fractions where they have no per cent.
func csvFigure(name, text string) (edit.Edit, *edit.Problem) {
	e := edit.Edit{Field: name, Text: text, Units: quantity.Metric}
	if !slices.Contains([]string{"count", "cost", "weighedKg"}, name) {
		e.Field = "piece." + name
	}
	if quantity.KindOf(name) == quantity.Percent && text != "" && !strings.Contains(text, "%") {
		v, bad := edit.Number(e)
		if bad != nil {
			return e, bad
		}
		e.Text = strconv.FormatFloat(v*100, 'f', -1, 64) + " %"
	}
	return e, nil
}

func invalidUTF8(data []byte) int {
	for i := 0; i < len(data); {
		r, n := utf8.DecodeRune(data[i:])
		if r == utf8.RuneError && n == 1 {
			return i
		}
		i += n
	}
	return -1
}

// nearest is the known name that is most like another, for a remedy.
func nearest(name string, known []string) string {
	best, most := "", 2
	for _, k := range known {
		common := 0
		for common < len(k) && common < len(name) && strings.EqualFold(k[:common+1], name[:common+1]) {
			common++
		}
		if common > most {
			best, most = k, common
		}
	}
	return best
}
