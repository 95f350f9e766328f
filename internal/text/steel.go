package text

import "coldember/core/steel"

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
