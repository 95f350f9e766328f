package calc

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
)

//go:embed examples.json
var examplesJSON []byte

var examples = func() map[string]json.RawMessage {
	var all map[string]json.RawMessage
	if err := json.Unmarshal(examplesJSON, &all); err != nil {
		panic(fmt.Sprintf("calc: embedded examples: %v", err))
	}
	return all
}()

// Example is an input of a kind that has an answer, as JSON.
func Example(kind string) string { return string(examples[kind]) }

// Field is a field of an input: its name, within others where it has dots; what it holds; and
// whether it can be left out.
type Field struct {
	Name     string
	Holds    Holds
	List     bool     // of them
	N        int      // of Numbers
	OneOf    []string // of a Text: only these
	Doc      string
	Optional bool
}

// Holds is what a field holds.
type Holds string

// What there is.
const (
	Number  Holds = "number"
	Numbers Holds = "numbers" // N of them
	Text    Holds = "text"
	YesNo   Holds = "yesNo"
)

// Fields lists what a kind takes, or nothing where there is no such kind.
func Fields(kind string) []Field {
	k, ok := kinds[kind]
	if !ok {
		return nil
	}
	return fieldsOf(k.in, "", nil)
}

func fieldsOf(t reflect.Type, path string, out []Field) []Field {
	for i := range t.NumField() {
		f := t.Field(i)
		name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		if f.Anonymous && name == "" {
			out = fieldsOf(f.Type, path, out)
			continue
		}
		if name == "-" || !f.IsExported() {
			continue
		}
		in, list := f.Type, false
		for in.Kind() == reflect.Pointer || in.Kind() == reflect.Slice && in.Elem().Kind() != reflect.Uint8 {
			if in.Kind() == reflect.Slice {
				list = true
			}
			in = in.Elem()
		}
		full := path + name
		if in.Kind() == reflect.Struct {
			if list {
				full += "[]"
			}
			out = fieldsOf(in, full+".", out)
			continue
		}
		is := Field{Name: full, List: list, Doc: f.Tag.Get("doc"), Optional: strings.Contains(options, "omitempty")}
		is.holds(in, f.Tag.Get("enum"))
		out = append(out, is)
	}
	return out
}

func (f *Field) holds(t reflect.Type, enum string) {
	switch t.Kind() { //nolint:exhaustive // all others are numbers
	case reflect.Bool:
		f.Holds = YesNo
	case reflect.String:
		f.Holds = Text
		if enum != "" {
			f.OneOf = strings.Split(enum, ",")
		}
	case reflect.Array:
		f.Holds, f.N = Numbers, t.Len()
	default:
		f.Holds = Number
	}
}
