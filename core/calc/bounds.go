package calc

import (
	"fmt"
	"reflect"
	"strings"

	"coldember/core/fact"
	"coldember/core/quantity"
)

// The most that a question can be about. No law holds out there, and with more a sum
// runs over, or goes on for ever.
const (
	leastC, mostC = -273.15, 3000.0
	mostMm        = 1e6
	mostOther     = 1e12
	mostRows      = 10000
)

// refuse names a field of the question that cannot be.
func refuse(field, code string, figures fact.Figures) error {
	return fact.FieldErrors{{Field: field, Code: code, Figures: figures}}
}

// bounded returns an error naming the first figure that no law can answer for.
func bounded(v reflect.Value, path string) error {
	switch v.Kind() { //nolint:exhaustive // nothing else holds figures
	case reflect.Pointer:
		if !v.IsNil() {
			return bounded(v.Elem(), path)
		}
	case reflect.Array, reflect.Slice:
		if v.Len() > mostRows {
			return refuse(path, "calc.rows", fact.Figures{"most": mostRows, "n": float64(v.Len())})
		}
		for i := range v.Len() {
			if err := bounded(v.Index(i), fmt.Sprintf("%s.%d", path, i)); err != nil {
				return err
			}
		}
	case reflect.Struct:
		for i := range v.NumField() {
			name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
			if err := bounded(v.Field(i), strings.TrimPrefix(path+"."+name, ".")); err != nil {
				return err
			}
		}
	case reflect.Float64:
		return within(path, v.Float())
	case reflect.Int:
		return within(path, float64(v.Int()))
	}
	return nil
}

func within(path string, v float64) error {
	low, high := -mostOther, mostOther
	switch quantity.KindOf(path) { //nolint:exhaustive // the others have no bound of their own
	case quantity.Temperature:
		low, high = leastC, mostC
	case quantity.Length:
		low, high = -mostMm, mostMm
	}
	if !(v >= low && v <= high) {
		return refuse(path, "calc.range", fact.Figures{"lowest": low, "highest": high})
	}
	return nil
}
