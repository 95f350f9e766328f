package work

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/internal/text"
)

// NamedHammer is a hammer of the shop.
type NamedHammer struct {
	Name string `json:"name"`
	forge.Hammer
}

// NamedHearth is a forge of the shop.
type NamedHearth struct {
	Name string `json:"name"`
	forge.Hearth
}

func usualHammer(id string) (NamedHammer, bool) {
	h, ok := forge.UsualHammers()[id]
	return NamedHammer{Name: text.Say("hammer."+id, nil), Hammer: h}, ok
}

func usualHearth(id string) (NamedHearth, bool) {
	h, ok := forge.UsualHearths()[id]
	return NamedHearth{Name: text.Say("hearth."+id, nil), Hearth: h}, ok
}

// usualSets gives a shop that never said which hammers and forges it has the
// usual ones.
func (s *Settings) usualSets() {
	if s.Hammers == nil {
		for _, id := range []string{"light", "usual", "heavy"} {
			h, _ := usualHammer(id)
			s.Hammers = append(s.Hammers, h)
		}
	}
	if s.Hearths == nil {
		h, _ := usualHearth("gas")
		s.Hearths = []NamedHearth{h}
	}
}

func (s *Settings) validateSets(c fact.Check) {
	name := func(at fact.Check, n string, seen map[string]bool) {
		if strings.TrimSpace(n) == "" {
			at.Fail("name", "field.nameMissing", nil)
		}
		if seen[n] {
			at.Fail("name", "field.nameTaken", nil)
		}
		seen[n] = true
	}
	seen := map[string]bool{}
	for i, h := range s.Hammers {
		at := c.Within("hammers." + strconv.Itoa(i))
		name(at, h.Name, seen)
		forge.NewSmith(forge.Steady).WithHammer(h.Hammer).Validate(at)
	}
	seen = map[string]bool{}
	for i, h := range s.Hearths {
		at := c.Within("hearths." + strconv.Itoa(i))
		name(at, h.Name, seen)
		forge.NewFire().WithHearth(h.Hearth).Validate(at)
	}
}

// editSets adds a usual hammer or forge (hammers.add, hearths.add) under a name
// that is free, or takes one away by its place; known is false for other fields.
func (s *Settings) editSets(e Edit) (known bool, bad *FieldProblem) {
	switch e.Field {
	case "hammers.add":
		s.Hammers, bad = addUsual(s.Hammers, e, usualHammer, func(h *NamedHammer) *string { return &h.Name })
	case "hearths.add":
		s.Hearths, bad = addUsual(s.Hearths, e, usualHearth, func(h *NamedHearth) *string { return &h.Name })
	case "hammers.remove":
		s.Hammers, bad = without(s.Hammers, e)
	case "hearths.remove":
		s.Hearths, bad = without(s.Hearths, e)
	default:
		return false, nil
	}
	return true, bad
}

// addUsual adds the usual tool that an edit names, numbered where its name is
// taken.
func addUsual[T any](list []T, e Edit, usual func(string) (T, bool), name func(*T) *string) ([]T, *FieldProblem) {
	x, ok := usual(e.Text)
	if !ok {
		return list, problemAt(e, "field.choice", -1)
	}
	base, now := *name(&x), name(&x)
	for n := 2; slices.ContainsFunc(list, func(o T) bool { return *name(&o) == *now }); n++ {
		*now = base + " " + strconv.Itoa(n)
	}
	return append(slices.Clone(list), x), nil
}

// without the one at the place that an edit names.
func without[T any](list []T, e Edit) ([]T, *FieldProblem) {
	i, err := strconv.Atoi(e.Text)
	if err != nil || i < 0 || i >= len(list) {
		return list, problemAt(e, "field.unknown", -1)
	}
	return slices.Delete(slices.Clone(list), i, i+1), nil
}

// takeUp decodes a tool that is sent whole and hands it over.
func takeUp[T any](v string, use func(T)) bool {
	var x T
	d := json.NewDecoder(strings.NewReader(v))
	d.DisallowUnknownFields()
	if d.Decode(&x) != nil {
		return false
	}
	use(x)
	return true
}
