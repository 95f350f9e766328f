package session

import (
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/quantity"
)

// ParseReading reads a reading as it is typed, in the smith's units: its value, and for a
// caliper or a temperature the place along the piece. Errors are a *FieldError that names the
// value ("text") or the place ("atMm").
func ParseReading(q Quantity, text, at string, units quantity.System) (r Reading, err error) {
	r.Quantity = q
	kind := quantity.Length
	switch q {
	case Weight, Fuel:
		kind = quantity.Mass
	case Temperature:
		kind = quantity.Temperature
	}
	v, err := quantity.Parse(text, kind, units)
	if err != nil {
		return r, &FieldError{"text", err}
	}
	switch kind {
	case quantity.Mass:
		r.MassG = v
	case quantity.Temperature:
		r.TempC = v
	default:
		r.Mm = v
	}
	if at != "" && Placed(q) {
		if r.AtMm, err = quantity.Parse(at, quantity.Length, units); err != nil {
			return r, &FieldError{"atMm", err}
		}
	}
	return r, nil
}

// Placed tells whether a quantity is read at a place of the piece.
func Placed(q Quantity) bool {
	return q == Quantity(plan.Height) || q == Quantity(plan.Thickness) || q == Quantity(plan.EdgeThickness) || q == Temperature
}

// FieldError is what of a typed reading cannot be read: Err is a *quantity.ParseError.
type FieldError struct {
	Field string
	Err   error
}

func (e *FieldError) Error() string { return e.Field + ": " + e.Err.Error() }

// Unwrap is what was wrong with the text.
func (e *FieldError) Unwrap() error { return e.Err }

// Problems are what of an event cannot be, in the form of a list that may be empty.
func Problems(e *Event, c *Course) fact.FieldErrors {
	if wrong, ok := e.Validate(c).(fact.FieldErrors); ok { //nolint:errorlint // as Validate returns it
		return wrong
	}
	return fact.FieldErrors{}
}
