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
	Holds    string // number, text, yes or no, a list of any of them, or one of a few words
	Doc      string
	Optional bool
}

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
		in, list := f.Type, ""
		for in.Kind() == reflect.Pointer || in.Kind() == reflect.Slice && in.Elem().Kind() != reflect.Uint8 {
			if in.Kind() == reflect.Slice {
				list = "list of "
			}
			in = in.Elem()
		}
		full := path + name
		if in.Kind() == reflect.Struct {
			if list != "" {
				full += "[]"
			}
			out = fieldsOf(in, full+".", out)
			continue
		}
		out = append(out, Field{Name: full, Holds: list + holds(in, f.Tag.Get("enum")), Doc: f.Tag.Get("doc"), Optional: strings.Contains(options, "omitempty")})
	}
	return out
}

func holds(t reflect.Type, enum string) string {
	switch t.Kind() {
	case reflect.Bool:
		return "yes or no"
	case reflect.String:
		if enum != "" {
			return strings.ReplaceAll(enum, ",", "|")
		}
		return "text"
	case reflect.Array:
		return fmt.Sprintf("%d numbers", t.Len())
	default:
		return "number"
	}
}
