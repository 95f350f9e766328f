package work

import (
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// CSVError says where a table of stock is wrong.
type CSVError struct {
	Code   string
	Line   int
	Column string
	Found  string
}

func (e *CSVError) Error() string {
	return fmt.Sprintf("csv: %s, line %d, column %q: %q", e.Code, e.Line, e.Column, e.Found)
}

// maxCSVRows bounds a table, mostInTable any figure in it.
const (
	maxCSVRows  = 2000
	mostInTable = 1e6
)

// csvText are the columns that are words; figures follow, in millimetres and
// kilograms, named as in the API.
var csvText = []string{"name", "form", "origin", "steelId", "known", "certificate", "place", "hazards", "notes"}

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
	head := append(slices.Clone(csvText), csvFigures()...)
	rows := [][]string{head}
	for _, s := range rack {
		known := "yes"
		if s.Doc.Believed {
			known = "no"
		}
		d := s.Doc
		row := []string{d.Name, string(d.Piece.Form), d.Origin, d.SteelID, known, d.Certificate, d.Place, strings.Join(d.Hazards, " "), d.Notes}
		for i := range row {
			row[i] = defused(row[i])
		}
		for _, name := range csvFigures() {
			row = append(row, csvNumber(d, name))
		}
		rows = append(rows, row)
	}
	if err := out.WriteAll(rows); err != nil {
		return nil, fmt.Errorf("work: csv: %w", err)
	}
	return b.Bytes(), nil
}

// csvNumber prints one figure of a piece of stock; nothing where it has none.
func csvNumber(d doc.Stock, name string) string {
	n, _ := edit.StockFigure(&d, name)
	if *n == 0 {
		return ""
	}
	return strconv.FormatFloat(*n, 'f', -1, 64)
}

// ReadRackCSV reads a table into pieces of stock. Errors are *CSVError naming
// line and column.
func ReadRackCSV(data []byte) ([]doc.Stock, error) {
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
	known := append(slices.Clone(csvText), csvFigures()...)
	for i := range head {
		head[i] = strings.TrimSpace(head[i])
		if !slices.Contains(known, head[i]) {
			return nil, &CSVError{Code: "csv.column", Line: 1, Column: head[i], Found: nearest(head[i], known)}
		}
	}
	for _, must := range []string{"name", "form"} {
		if !slices.Contains(head, must) {
			return nil, &CSVError{Code: "csv.missing", Line: 1, Column: must}
		}
	}
	out := []doc.Stock{}
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

func csvRow(head, row []string, line int) (doc.Stock, error) {
	d := doc.Stock{Count: 1}
	var edits []edit.Edit
	for i, name := range head {
		text := fused(strings.TrimSpace(row[i]))
		switch {
		case text == "":
		case name == "form":
			d.Piece.Form = stock.Form(text)
			if !slices.Contains(stock.Forms(), d.Piece.Form) {
				return d, &CSVError{Code: "csv.choice", Line: line, Column: name, Found: text}
			}
		case name == "hazards":
			for h := range strings.FieldsSeq(text) {
				edits = append(edits, edit.Edit{Field: "hazard." + h, Text: "on"})
			}
		case name == "known":
			edits = append(edits, edit.Edit{Field: name, Text: text})
		case slices.Contains(csvText, name):
			edits = append(edits, edit.Edit{Field: name, Text: text})
		default:
			v, err := strconv.ParseFloat(text, 64)
			if err != nil || math.IsNaN(v) || math.Abs(v) > mostInTable {
				return d, &CSVError{Code: "csv.number", Line: line, Column: name, Found: text}
			}
			if name == "count" {
				d.Count = int(v)
			} else if f, ok := edit.StockFigure(&d, name); ok {
				*f = v
			}
		}
	}
	d, err := edit.Stock(d, edits)
	if err == nil {
		err = edit.Invalid(d.Validate())
	}
	var bad *edit.InvalidError
	if errors.As(err, &bad) {
		f := bad.Fields[0]
		return d, &CSVError{Code: "csv.value", Line: line, Column: strings.TrimPrefix(f.Field, "piece."), Found: f.Text}
	}
	return d, err
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

// ImportRackCSV puts a whole table on the rack, or nothing of it.
func (w *Work) ImportRackCSV(ctx context.Context, data []byte) (int, error) {
	docs, err := ReadRackCSV(data)
	if err != nil {
		return 0, err
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		for _, d := range docs {
			if err := tx.AddStock(w.newStock(d)); err != nil {
				return err
			}
		}
		return nil
	})
	if err == nil && len(docs) > 0 {
		w.tell(Event{"stock", "", 0})
	}
	return len(docs), err
}

// runs are the letters that make a spreadsheet run what follows.
const runs = "=+-@\t\r'"

// defused is a text that a spreadsheet shows, and does not run.
func defused(text string) string {
	if text != "" && strings.ContainsRune(runs, rune(text[0])) {
		return "'" + text
	}
	return text
}

// fused is the reverse of defused.
func fused(text string) string {
	if len(text) > 1 && text[0] == '\'' && strings.ContainsRune(runs, rune(text[1])) {
		return text[1:]
	}
	return text
}
