package edit

import (
	"encoding/json"
	"errors"
	"strconv"
	"strings"

	"coldember/core/quantity"
)

// parse reads a quantity out of a text that begins at offset of what was typed.
func parse(e Edit, text string, k quantity.Kind, offset int) (float64, *Problem) {
	v, err := quantity.Parse(text, k, e.Units)
	var pe *quantity.ParseError
	if errors.As(err, &pe) {
		p := problemAt(e, string(pe.Code), min(offset+pe.Offset, len(e.Text)))
		p.Found = pe.Found
		return 0, p
	}
	return v, nil
}

// Length reads one length out of a longer text, starting at offset.
func Length(e Edit, text string, offset int) (float64, *Problem) {
	return parse(e, text, quantity.Length, offset)
}

// Number reads the whole text as a plain number.
func Number(e Edit) (float64, *Problem) { return parse(e, e.Text, quantity.Number, 0) }

// pair reads "x; y".
func pair(e Edit) (x, y float64, bad *Problem) {
	left, right, ok := strings.Cut(e.Text, ";")
	if !ok {
		return 0, 0, problemAt(e, "outline.pair", len(e.Text))
	}
	if x, bad = Length(e, left, 0); bad != nil {
		return 0, 0, bad
	}
	y, bad = Length(e, right, len(left)+1)
	return x, y, bad
}

// place reads a place in a list of so many.
func place(text string, of int) (int, bool) {
	i, err := strconv.Atoi(strings.TrimSpace(text))
	return i, err == nil && i >= 0 && i < of
}

// whole decodes a tool that is sent whole and hands it over.
func whole[T any](v string, use func(T)) bool {
	var x T
	d := json.NewDecoder(strings.NewReader(v))
	d.DisallowUnknownFields()
	if d.Decode(&x) != nil {
		return false
	}
	use(x)
	return true
}
