package plan_test

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"reflect"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/section"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the table of bounds again")

// TestBounds holds the table of what can be typed at every field of a request: the least
// and the most of a number, and whether a word is looked at. A bound that moves, or a
// field that is no longer looked at, shows in the table.
func TestBounds(t *testing.T) {
	got := map[string]string{}
	for _, kind := range blade.TangKinds() {
		d := blade.Starters()[0].Design
		d.TangKind = kind
		r := plan.NewRequest(d, "80CrV2", stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}, forge.Steady)
		fill(reflect.ValueOf(&r).Elem())
		leaves(reflect.ValueOf(&r).Elem(), "", func(path string, v reflect.Value) {
			if was := told(&r, path, v); got[path] == "" || got[path] == was {
				got[path] = was
			} else {
				got[path+" ("+string(kind)+")"] = was
			}
		})
	}
	for _, form := range stock.Forms() {
		r := plan.NewRequest(blade.Starters()[0].Design, "80CrV2", stock.Usual(form), forge.Steady)
		fill(reflect.ValueOf(&r.Bar).Elem())
		leaves(reflect.ValueOf(&r.Bar).Elem(), "bar", func(path string, v reflect.Value) {
			if was := told(&r, path, v); was != "free" {
				got[fmt.Sprintf("%s of %s", path, form)] = was
			}
		})
	}
	variant := func(name, within string, change func(*plan.Request)) {
		r := plan.NewRequest(blade.Starters()[0].Design, "80CrV2", stock.Usual(stock.Flat), forge.Steady)
		change(&r)
		leaves(reflect.ValueOf(&r).Elem(), "", func(path string, v reflect.Value) {
			if strings.HasPrefix(path, within) {
				got[fmt.Sprintf("%s of %s", path, name)] = told(&r, path, v)
			}
		})
	}
	for _, k := range forge.MachineKinds() {
		variant(string(k), "smith.machine.", func(r *plan.Request) { r.Smith.Machine = &forge.Machine{Kind: k} })
	}
	for _, k := range section.Kinds() {
		variant(string(k), "design.grind.", func(r *plan.Request) { r.Design.Grind.Kind, r.Design.Grind.SwedgeFraction = k, .2 })
	}
	for _, s := range blade.Schools() {
		variant(string(s), "allowances.", func(r *plan.Request) { r.Allowances = s.Allowances() })
	}
	const file = "testdata/bounds.json"
	if *update {
		text, err := json.MarshalIndent(got, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(file, append(text, '\n'), 0o600))
	}
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	want := map[string]string{}
	require.NoError(t, json.Unmarshal(text, &want))
	assert.Equal(t, want, got)
}

// told is what a field says of what it can never take.
func told(r *plan.Request, path string, v reflect.Value) string {
	says := func() string {
		var all fact.FieldErrors
		if errors.As(r.Validate(), &all) {
			for _, e := range all {
				if e.Field == path && e.Figures["lowest"] != e.Figures["highest"] {
					return fmt.Sprintf("%g … %g", e.Figures["lowest"], e.Figures["highest"])
				} else if e.Field == path {
					return e.Code
				}
			}
		}
		return "free"
	}
	was := v.Interface()
	defer v.Set(reflect.ValueOf(was))
	switch v.Kind() { //nolint:exhaustive // no others are typed
	case reflect.Float64:
		v.SetFloat(1e12)
		if s := says(); s != "free" {
			return s
		}
		v.SetFloat(-1e12)
	case reflect.Int:
		v.SetInt(1 << 40)
	default:
		v.SetString("no such thing")
	}
	return says()
}

// fill makes what is not there: one of everything.
func fill(v reflect.Value) {
	switch v.Kind() { //nolint:exhaustive // plain values stay
	case reflect.Pointer:
		if v.IsNil() {
			v.Set(reflect.New(v.Type().Elem()))
		}
		fill(v.Elem())
	case reflect.Slice:
		if v.Len() == 0 {
			v.Set(reflect.MakeSlice(v.Type(), 1, 1))
		}
		for i := range v.Len() {
			fill(v.Index(i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() && f.Tag.Get("json") != "-" {
				fill(v.Field(i))
			}
		}
	}
}

// leaves visits every number and word below a value by its path.
func leaves(v reflect.Value, path string, visit func(string, reflect.Value)) {
	switch v.Kind() { //nolint:exhaustive // nothing else is typed
	case reflect.Pointer:
		if !v.IsNil() {
			leaves(v.Elem(), path, visit)
		}
	case reflect.Slice:
		for i := range min(v.Len(), 1) {
			leaves(v.Index(i), fmt.Sprintf("%s.%d", path, i), visit)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
			switch name {
			case "-":
			case "":
				leaves(v.Field(i), path, visit)
			default:
				leaves(v.Field(i), strings.TrimPrefix(path+"."+name, "."), visit)
			}
		}
	case reflect.Float64, reflect.Int, reflect.String:
		visit(path, v)
	}
}
