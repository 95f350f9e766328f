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
	place := func(n int) int {
		if i, err := strconv.Atoi(e.Text); err == nil && i >= 0 && i < n {
			return i
		}
		bad = problemAt(e, "field.unknown", -1)
		return -1
	}
	free := func(name string, taken func(string) bool) string {
		for n, try := 2, name; ; n++ {
			if !taken(try) {
				return try
			}
			try = name + " " + strconv.Itoa(n)
		}
	}
	switch e.Field {
	case "hammers.add":
		h, ok := usualHammer(e.Text)
		if !ok {
			return true, problemAt(e, "field.choice", -1)
		}
		h.Name = free(h.Name, func(n string) bool {
			return slices.ContainsFunc(s.Hammers, func(x NamedHammer) bool { return x.Name == n })
		})
		s.Hammers = append(slices.Clone(s.Hammers), h)
	case "hearths.add":
		h, ok := usualHearth(e.Text)
		if !ok {
			return true, problemAt(e, "field.choice", -1)
		}
		h.Name = free(h.Name, func(n string) bool {
			return slices.ContainsFunc(s.Hearths, func(x NamedHearth) bool { return x.Name == n })
		})
		s.Hearths = append(slices.Clone(s.Hearths), h)
	case "hammers.remove":
		if i := place(len(s.Hammers)); i >= 0 {
			s.Hammers = slices.Delete(slices.Clone(s.Hammers), i, i+1)
		}
	case "hearths.remove":
		if i := place(len(s.Hearths)); i >= 0 {
			s.Hearths = slices.Delete(slices.Clone(s.Hearths), i, i+1)
		}
	default:
		return false, nil
	}
	return true, bad
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
