package edit

import (
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"coldember/core/blade"
	"coldember/core/quantity"
	"coldember/core/steel"
)

// table is the registry of what can be typed into one kind of document.
type table[T any] struct {
	// exact are fields of their own, by their whole name.
	exact map[string]func(*T, Edit) *Problem
	// groups are fields by the first part of their name; the rest is handed over.
	groups map[string]func(d *T, rest string, e Edit) *Problem
	// members is what the other fields are members of.
	members func(*T) any
	// closed are members that are not typed, though they are there.
	closed []string
}

// edit applies one edit.
func (t *table[T]) edit(d *T, e Edit) *Problem {
	if f := t.exact[e.Field]; f != nil {
		return f(d, e)
	}
	group, rest, _ := strings.Cut(e.Field, ".")
	if f := t.groups[group]; f != nil {
		return f(d, rest, e)
	}
	if slices.Contains(t.closed, e.Field) {
		return problemAt(e, "field.unknown", -1)
	}
	return setMember(t.members(d), e)
}

// choice is a field that takes one of a few words, or sets several figures by one;
// set tells whether it is one of them.
func choice[T any](set func(*T, string) bool) func(*T, Edit) *Problem {
	return func(d *T, e Edit) *Problem {
		if !set(d, e.Text) {
			return problemAt(e, "field.choice", -1)
		}
		return nil
	}
}

// text is a field that takes any text.
func text[T any](of func(*T) *string) func(*T, Edit) *Problem {
	return func(d *T, e Edit) *Problem {
		*of(d) = e.Text
		return nil
	}
}

// name is a field that is never empty.
func name[T any](of func(*T) *string) func(*T, Edit) *Problem {
	return func(d *T, e Edit) *Problem {
		if *of(d) = strings.TrimSpace(e.Text); *of(d) == "" {
			return problemAt(e, "field.nameMissing", 0)
		}
		return nil
	}
}

// words are the choices of types whose fields do not list them in a tag.
var words = map[reflect.Type][]string{
	reflect.TypeFor[blade.Use]():      stringsOf(blade.Uses()),
	reflect.TypeFor[blade.Shape]():    stringsOf(append(blade.Shapes(), blade.Own)),
	reflect.TypeFor[blade.Material](): stringsOf(append(blade.GripMaterials(), blade.FittingMaterials()...)),
}

func stringsOf[T ~string](list []T) []string {
	out := make([]string, len(list))
	for i, v := range list {
		out[i] = string(v)
	}
	return out
}

// refuses is why a member may not be this text ("" where it may): one of its choices
// it must be, where it has any; the empty text goes back to what is usual where the
// field can be left out.
func refuses(f reflect.StructField, v string) (code string) {
	list := words[f.Type]
	if tag := f.Tag.Get("enum"); tag != "" {
		list = strings.Split(tag, ",")
	}
	tag, options, _ := strings.Cut(f.Tag.Get("json"), ",")
	switch {
	case tag == "steelId" && v == "":
		return "field.steelMissing"
	case tag == "steelId":
		if _, err := steel.Find(v); err != nil {
			return "field.steel"
		}
	case list != nil && !slices.Contains(list, v) && (v != "" || !strings.Contains(options, "omitempty")):
		return "field.choice"
	}
	return ""
}

// setMember writes one typed text into the struct that root points to.
func setMember(root any, e Edit) *Problem {
	v, f, ok := member(reflect.ValueOf(root).Elem(), e.Field)
	if !ok {
		return problemAt(e, "field.unknown", -1)
	}
	switch v.Kind() {
	case reflect.String:
		word := strings.TrimSpace(e.Text)
		if code := refuses(f, word); code != "" {
			return problemAt(e, code, -1)
		}
		v.SetString(word)
	case reflect.Float64, reflect.Int:
		n, bad := figure(f.Name, e)
		if bad != nil {
			return bad
		}
		if v.Kind() == reflect.Int {
			if n != math.Trunc(n) {
				return problemAt(e, "field.whole", -1)
			}
			v.SetInt(int64(n))
		} else {
			v.SetFloat(n)
		}
	default:
		return problemAt(e, "field.unknown", -1)
	}
	return nil
}

// figure reads a typed figure of what its name says.
func figure(name string, e Edit) (float64, *Problem) {
	k, text := quantity.KindOf(name), e.Text
	if k == quantity.Mass && strings.TrimRight(text, "0123456789., /") == "" {
		text += " kg" // a hammer's mass is spoken of in kilograms, or pounds
		if e.Units.Inches() {
			text = e.Text + " lb"
		}
	}
	n, bad := parse(e, text, k, 0)
	if k == quantity.Mass {
		n /= 1000
	}
	return n, bad
}

// Figures reads typed figures into the fields that they name, for requests that have no
// document. Errors are *InvalidError.
func Figures(edits []Edit, into map[string]*float64) error {
	return each(edits, func(e Edit) *Problem {
		to, ok := into[e.Field]
		if !ok {
			return problemAt(e, "field.unknown", -1)
		}
		v, bad := figure(e.Field, e)
		if bad == nil {
			*to = v
		}
		return bad
	})
}

// member finds a field by its dotted JSON name; a number picks from a list.
func member(v reflect.Value, path string) (reflect.Value, reflect.StructField, bool) {
	var last reflect.StructField
	for part := range strings.SplitSeq(path, ".") {
		if n, err := strconv.Atoi(part); err == nil && v.Kind() == reflect.Slice && n >= 0 && n < v.Len() {
			v = v.Index(n)
			continue
		}
		if v.Kind() == reflect.Pointer && !v.IsNil() {
			v = v.Elem()
		}
		if v.Kind() != reflect.Struct {
			return v, last, false
		}
		f, in, ok := fieldOf(v, part)
		if !ok {
			return v, last, false
		}
		v, last = f, in
	}
	return v, last, true
}

// fieldOf finds a field of a struct, or of one embedded in it, by its JSON name.
func fieldOf(v reflect.Value, name string) (reflect.Value, reflect.StructField, bool) {
	for i := range v.NumField() {
		f := v.Type().Field(i)
		if f.Anonymous {
			if in, field, ok := fieldOf(v.Field(i), name); ok {
				return in, field, true
			}
			continue
		}
		if tag, _, _ := strings.Cut(f.Tag.Get("json"), ","); tag == name && tag != "-" {
			f.Name = name // figures are told by the name that is typed
			return v.Field(i), f, true
		}
	}
	return v, reflect.StructField{}, false
}
