// Package api is the HTTP resources under /api/v1: typed in and out, mapped to
// the use cases. No rule of the job lives here.
package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"strconv"
	"strings"

	"coldember/core/calc"
	"coldember/core/quantity"
	"coldember/core/whatif"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/export"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// statusGone answers a client that has left; nothing reads it.
const statusGone = 499

// FieldMessage is a field problem in words.
type FieldMessage struct {
	Field   string `json:"field"`
	Code    string `json:"code"`
	Message string `json:"message"`
	Text    string `json:"text,omitempty"`
	Offset  int    `json:"offset" doc:"byte of the typed text that is wrong; -1 where not known"`
}

// Problem is what every error looks like (RFC 9457).
type Problem struct {
	Type    string         `json:"type,omitempty"`
	Title   string         `json:"title"`
	Status  int            `json:"status"`
	Code    string         `json:"code"`
	Detail  string         `json:"detail"`
	Fields  []FieldMessage `json:"fields,omitempty"`
	Current any            `json:"current,omitempty" doc:"what is stored now, where a save came too late"`
}

func (p *Problem) Error() string { return p.Code + ": " + p.Detail }

// GetStatus is the HTTP status.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType names the media type of problems.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

func problem(status int, code string, with map[string]string) *Problem {
	return &Problem{Title: http.StatusText(status), Status: status, Code: code, Detail: text.Say(code, with)}
}

// WriteProblem answers with a problem outside of huma: unknown paths and
// methods, refused origins.
func WriteProblem(w http.ResponseWriter, status int, code string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(problem(status, code, nil))
}

func init() {
	// Whatever huma itself refuses (malformed JSON, wrong types) comes in the
	// same shape.
	huma.NewError = func(status int, msg string, errs ...error) huma.StatusError {
		var fields []FieldMessage
		for _, e := range errs {
			var d *huma.ErrorDetail
			if errors.As(e, &d) {
				fields = append(fields, FieldMessage{Field: d.Location, Code: "problem.body", Message: refusedAs(d.Message), Offset: -1})
			}
		}
		return refused(status, msg, fields)
	}
}

// fail maps an error of the use cases to a problem in the smith's units; what
// it does not know is logged and answered without its insides.
func fail(ctx context.Context, err error, units quantity.System) error {
	if err == nil {
		return nil
	}
	if p := Explain(err, units); p != nil {
		if p.Status >= http.StatusInternalServerError {
			slog.ErrorContext(ctx, p.Detail, "error", err)
		}
		return p
	}
	switch {
	case errors.Is(err, context.DeadlineExceeded), errors.Is(ctx.Err(), context.DeadlineExceeded):
		return problem(http.StatusServiceUnavailable, "problem.tooLong", nil)
	case errors.Is(err, context.Canceled), ctx.Err() != nil: // nobody waits for it any more
		return problem(statusGone, "problem.internal", nil)
	}
	slog.ErrorContext(ctx, text.Say("problem.internal", nil), "error", err)
	return problem(http.StatusInternalServerError, "problem.internal", nil)
}

// Explain tells an error of the use cases in words and in the smith's units, or is nothing
// where it is not one of them. It is how the command line speaks too.
func Explain(err error, units quantity.System) *Problem {
	var inv *edit.InvalidError
	var others *work.NotYoursError
	var stale *work.StaleError
	var state *work.StateError
	var in *calc.InputError
	var kind *calc.UnknownKindError
	var table *work.CSVError
	var file *export.FileError
	var none *whatif.NoFitError
	var newer *doc.NewerError
	var fault *work.Fault
	switch {
	case errors.As(err, &inv):
		p := problem(http.StatusUnprocessableEntity, "problem.invalid", nil)
		for _, f := range inv.Fields {
			p.Fields = append(p.Fields, fieldMessage(f, units))
		}
		return p
	case errors.As(err, &others):
		return problem(http.StatusForbidden, "school.notYours", nil)
	case errors.As(err, &stale):
		p := problem(http.StatusConflict, "problem.stale", nil)
		p.Current = current(stale.Current)
		return p
	case errors.As(err, &state):
		return problem(http.StatusConflict, state.Code, nil)
	case errors.As(err, &table):
		return fileProblem("file", table.Code, tableWords(table, units))
	case errors.As(err, &file):
		return fileProblem("text", file.Code, map[string]string{"line": strconv.Itoa(file.Line), "found": file.Found})
	case errors.As(err, &none):
		p := fileProblem("stockId", none.Why.Code, text.Figures(none.Why.Figures, units))
		p.Code, p.Detail = "problem.noFit", text.Say("problem.noFit", nil)
		return p
	case errors.As(err, &in):
		return asked(in, units)
	case errors.As(err, &newer):
		return problem(http.StatusConflict, "problem.newer", nil)
	case errors.As(err, &kind):
		return problem(http.StatusNotFound, "calc.noKind", map[string]string{"found": kind.Kind, "kinds": strings.Join(calc.Kinds(), ", ")})
	case errors.Is(err, work.ErrNotFound):
		return problem(http.StatusNotFound, "problem.notFound", nil)
	case errors.As(err, &fault):
		return faultProblem(fault)
	}
	return nil
}

// fileProblem is a problem of one field whose words are those of a code.
func fileProblem(field, code string, with map[string]string) *Problem {
	p := problem(http.StatusUnprocessableEntity, "problem.invalid", nil)
	p.Fields = []FieldMessage{{Field: field, Code: code, Message: text.Say(code, with), Offset: -1}}
	return p
}

func tableWords(e *work.CSVError, units quantity.System) map[string]string {
	with := map[string]string{"line": strconv.Itoa(e.Line), "column": e.Column, "found": e.Found}
	if e.Code == "csv.otherForm" {
		with["found"] = text.Say("form."+e.Found, nil)
	}
	if e.Problem != nil {
		with["found"] = fieldMessage(*e.Problem, units).Message
	}
	return with
}

// Sentence is the whole of a problem as one says it: its fields where it has any.
func (p *Problem) Sentence() string {
	if len(p.Fields) == 0 {
		return p.Detail
	}
	out := make([]string, len(p.Fields))
	for i, f := range p.Fields {
		out[i] = f.Message
		if name := "field.name." + f.Field; f.Field != "file" && f.Field != "text" {
			out[i] = f.Field + ": " + f.Message
			if text.Has(name) {
				out[i] = text.Say(name, nil) + ": " + f.Message
			}
		}
	}
	return strings.Join(out, "\n")
}

func fieldMessage(f edit.Problem, units quantity.System) FieldMessage {
	with := text.FigureFor(f.Code, f.Figures, units)
	with["found"] = f.Found
	if f.Code == "stock.presumed" {
		with["found"] = text.Steel(f.Found)
	}
	with["example"], with["units"] = text.Say("quantity.example", nil), text.Say("quantity.units", nil)
	if units.Inches() {
		with["example"] = text.Say("quantity.exampleInches", nil)
	}
	return FieldMessage{Field: f.Field, Code: f.Code, Message: text.Say(f.Code, with), Text: f.Text, Offset: f.Offset}
}

// faultProblem tells what is wrong with the file by its name. None of them is a mistake
// of the program, nor of what was asked.
func faultProblem(f *work.Fault) *Problem {
	status := http.StatusServiceUnavailable
	if f.Code == work.DiskFull {
		status = http.StatusInsufficientStorage
	}
	return problem(status, string(f.Code), map[string]string{"path": f.Path})
}
