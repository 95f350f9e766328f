package text

import (
	"strings"

	"coldember/core/fact"
	"coldember/core/quantity"
	"coldember/core/steel"
)

// Steel is what a grade is called: by its standard number, with words where it has any; its id, where there is no such grade.
func Steel(id string) string {
	if code := "steel.name." + id; Has(code) {
		return Say(code, nil)
	}
	if g, err := steel.Find(id); err == nil {
		return g.Name
	}
	return id
}

// Warning is a finding in its sentence.
func Warning(w *fact.Warning, units quantity.System) string {
	with := Figures(w.Figures, units)
	if len(w.Steels) > 0 {
		names := make([]string, len(w.Steels))
		for i, id := range w.Steels {
			names[i] = Steel(id)
		}
		with["steels"] = strings.Join(names, ", ")
	}
	return Say(w.Code, with)
}
