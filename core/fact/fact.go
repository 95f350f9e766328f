package fact

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"coldember/core/quantity"
)

// Severity orders warnings.
type Severity string

// The severities: Stop cannot work as planned, Warn wants a decision, Note is
// worth knowing.
const (
	Stop Severity = "stop"
	Warn Severity = "warn"
	Note Severity = "note"
)

// Figures are the numbers behind a statement; names carry their unit.
type Figures map[string]float64

// Where places a warning: on a zone, on an operation, or between two distances
// from the point of the forged shape.
type Where struct {
	Zone      string  `json:"zone,omitempty" enum:"point,blade,ricasso,tang"`
	Operation string  `json:"operation,omitempty"`
	FromMm    float64 `json:"fromMm,omitempty"`
	ToMm      float64 `json:"toMm,omitempty"`
}

// Warning is something the smith should know.
type Warning struct {
	Code     string   `json:"code"`
	Severity Severity `json:"severity" enum:"stop,warn,note"`
	Figures  Figures  `json:"figures,omitempty"`
	// Steels are grades that stand in its sentence, by their ids.
	Steels []string `json:"steels,omitempty"`
	Where  Where    `json:"where"`
	// Also are other places of the same cause; the figures are those of the worst.
	Also []Where `json:"also,omitempty"`
	// Remedy is what it proposes itself. It is told once a plan with it is rid of the finding, not before.
	Remedy *Remedy `json:"-"`
}

// Zones lists those of its places, each once.
func (w *Warning) Zones() (out []string) {
	for _, at := range append([]Where{w.Where}, w.Also...) {
		if at.Zone != "" && !slices.Contains(out, at.Zone) {
			out = append(out, at.Zone)
		}
	}
	return out
}

// Remedy is a field and what it would be set to: a length, or a choice; and what
// else has to be set with it.
type Remedy struct {
	Field string    `json:"field"`
	Mm    float64   `json:"mm,omitempty"`
	Text  string    `json:"text,omitempty"`
	And   []Setting `json:"and,omitempty"`
}

// Setting is another field of a remedy.
type Setting struct {
	Field string  `json:"field"`
	Mm    float64 `json:"mm,omitempty"`
	Text  string  `json:"text,omitempty"`
}

// FieldError says which field cannot be as it is; its figures name what would
// be right (usually lowest and highest).
type FieldError struct {
	Field   string  `json:"field"`
	Code    string  `json:"code"`
	Figures Figures `json:"figures,omitempty"`
}

// FieldErrors is an error made of every field that is wrong.
type FieldErrors []FieldError

func (e FieldErrors) Error() string {
	parts := make([]string, len(e))
	for i, f := range e {
		parts[i] = fmt.Sprintf("%s: %s %v", f.Field, f.Code, f.Figures)
	}
	sort.Strings(parts)
	return strings.Join(parts, "; ")
}

// Check collects field errors.
type Check struct {
	prefix string
	errs   *FieldErrors
}

// NewCheck starts a collection.
func NewCheck() Check { return Check{errs: new(FieldErrors)} }

// Within returns a check that puts name before the fields it reports.
func (c Check) Within(name string) Check { return Check{prefix: c.prefix + name + ".", errs: c.errs} }

// Range reports value when it is not within lowest…highest (NaN never is).
func (c Check) Range(field string, value, lowest, highest float64) {
	// a limit may hang on a figure that is none, which is told of by itself
	if math.IsNaN(lowest) {
		lowest = 0
	}
	if math.IsNaN(highest) {
		highest = math.Max(lowest, noLimit)
	}
	if !(value >= lowest && value <= highest) {
		c.Fail(field, rangeCode(field), Figures{"lowest": lowest, "highest": highest})
	}
}

// noLimit is more than any figure of the job.
const noLimit = 1e4

// rangeCode tells the catalogue what the figures measure, so that they can be
// printed in the smith's units.
func rangeCode(field string) string {
	switch quantity.KindOf(field) {
	case quantity.Length:
		return "field.rangeLength"
	case quantity.Temperature:
		return "field.rangeTemperature"
	case quantity.Mass:
		return "field.rangeKg"
	case quantity.Speed:
		return "field.rangeSpeed"
	case quantity.MassRate:
		return "field.rangeRate"
	case quantity.MassPrice:
		return "field.rangePrice"
	case quantity.Percent:
		return "field.rangePercent"
	}
	return "field.range"
}

// OneOf reports value when it is none of the choices.
func OneOf[T ~string](c Check, field string, value T, choices ...T) {
	for _, k := range choices {
		if k == value {
			return
		}
	}
	c.Fail(field, "field.choice", nil)
}

// Fail reports a field; what was said of it first stands.
func (c Check) Fail(field, code string, figures Figures) {
	for _, e := range *c.errs {
		if e.Field == c.prefix+field {
			return
		}
	}
	*c.errs = append(*c.errs, FieldError{Field: c.prefix + field, Code: code, Figures: figures})
}

// Err is nil, or FieldErrors with all that was reported.
func (c Check) Err() error {
	if len(*c.errs) == 0 {
		return nil
	}
	return *c.errs
}
