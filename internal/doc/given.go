package doc

import (
	"maps"
	"strings"

	"coldember/core/hour"

	"coldember/internal/text"
)

// Names that the program gave itself (a starter pattern, the first smith, a usual hammer or bath)
// are stored as their code, and read in the language that is spoken. A name that somebody typed
// in those words is the same name.

// SpokenName is a stored name as it is read.
func SpokenName(stored string) string { return text.Named(stored) }

// StoredName is a name as it is stored.
func StoredName(spoken string) string { return text.Coded(spoken, text.Language()) }

// withNames has every name of a document that may be one of the program's own put through f. Nothing
// of the document that came is changed.
func withNames[T Document](d T, f func(string) string) T {
	switch d := any(&d).(type) {
	case *Pattern:
		d.Name = f(d.Name)
	case *Piece:
		d.Name, d.Hand = f(d.Name), f(d.Hand)
	case *Session:
		d.Name, d.Hand = f(d.Name), f(d.Hand)
	case *Shop:
		d.Smiths = each(d.Smiths, func(h *Hand) { h.Name = f(h.Name) })
		d.Hammers = each(d.Hammers, func(h *NamedHammer) { h.Name = f(h.Name) })
		d.Hearths = each(d.Hearths, func(h *NamedHearth) { h.Name = f(h.Name) })
		d.Tongs = each(d.Tongs, func(t *NamedTongs) { t.Name = f(t.Name) })
		d.Baths = each(d.Baths, func(b *NamedBath) { b.Name = f(b.Name) })
		d.Ovens = each(d.Ovens, func(o *NamedOven) { o.Name = f(o.Name) })
		d.Blocks = each(d.Blocks, func(b *NamedBlock) { b.Name = f(b.Name) })
		d.Hours = each(d.Hours, func(h *hour.Hour) { h.Smith = f(h.Smith) })
		if d.Learned != nil {
			learned := maps.Clone(d.Learned)
			clear(learned)
			for key, choice := range d.Learned {
				learned[whose(key, f)] = choice
			}
			d.Learned = learned
		}
	}
	return d
}

// whose puts the name in the key of a learned factor through f.
func whose(key string, f func(string) string) string {
	if kind, of, ok := strings.Cut(key, "|"); ok {
		return kind + "|" + f(of)
	}
	return key
}

func each[T any](in []T, f func(*T)) []T {
	if in == nil {
		return nil
	}
	out := append(make([]T, 0, len(in)), in...)
	for i := range out {
		f(&out[i])
	}
	return out
}

// hasGivenNames (pattern 3 → 4, piece 6 → 7, session 5 → 6, shop 8 → 9): names that the program
// gave are codes. Until then there was English alone.
func hasGivenNames(m map[string]any) {
	coded := func(m map[string]any, field string) {
		if name, ok := m[field].(string); ok {
			m[field] = text.Coded(name, text.English)
		}
	}
	coded(m, "name")
	coded(m, "hand")
	for _, set := range []string{"smiths", "hammers", "hearths", "tongs", "baths", "ovens", "blocks"} {
		for _, one := range list(m[set]) {
			if one, ok := one.(map[string]any); ok {
				coded(one, "name")
			}
		}
	}
	if learned, ok := m["learned"].(map[string]any); ok {
		next := map[string]any{}
		for key, choice := range learned {
			next[whose(key, func(name string) string { return text.Coded(name, text.English) })] = choice
		}
		m["learned"] = next
	}
}
