package edit

import (
	"slices"
	"strconv"
	"strings"

	"coldember/core/forge"
	"coldember/core/hour"
	"coldember/core/stock"
	"coldember/internal/doc"
)

var shop = table[doc.Shop]{
	exact: map[string]func(*doc.Shop, Edit) *Problem{
		"smiths.add":     addSmith,
		"smiths.remove":  func(s *doc.Shop, e Edit) *Problem { return without(&s.Smiths, e) },
		"hammers.add":    func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Hammers, e, doc.UsualHammer, hammerName) },
		"hammers.remove": func(s *doc.Shop, e Edit) *Problem { return without(&s.Hammers, e) },
		"hearths.add":    func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Hearths, e, doc.UsualHearth, hearthName) },
		"tongs.add":      func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Tongs, e, doc.UsualTongs, tongsName) },
		"tongs.remove":   func(s *doc.Shop, e Edit) *Problem { return without(&s.Tongs, e) },
		"baths.add":      func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Baths, e, doc.UsualBath, bathName) },
		"baths.remove":   func(s *doc.Shop, e Edit) *Problem { return without(&s.Baths, e) },
		"ovens.add":      func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Ovens, e, doc.UsualOven, ovenName) },
		"ovens.remove":   func(s *doc.Shop, e Edit) *Problem { return without(&s.Ovens, e) },
		"blocks.add":     func(s *doc.Shop, e Edit) *Problem { return addUsual(&s.Blocks, e, doc.UsualBlock, blockName) },
		"blocks.remove":  func(s *doc.Shop, e Edit) *Problem { return without(&s.Blocks, e) },
		"hours.add":      addHour,
		"hours.remove":   func(s *doc.Shop, e Edit) *Problem { return without(&s.Hours, e) },
		"hearths.remove": func(s *doc.Shop, e Edit) *Problem { return without(&s.Hearths, e) },
	},
	groups: map[string]func(*doc.Shop, string, Edit) *Problem{
		"smiths":     ofSmith,
		"hearths":    ofHearth,
		"tongs":      ofTongs,
		"ovens":      ofOven,
		"likelihood": likelihood,
		"learned":    learnedChoice,
		"hours":      ofHour,
	},
	members: func(s *doc.Shop) any { return s },
	closed:  []string{"demo"},
}

// Shop makes edits on a copy of the settings; nothing is changed if any field cannot
// be. Errors are *InvalidError.
func Shop(s doc.Shop, edits []Edit) (doc.Shop, error) {
	out := doc.Copy(s)
	if err := each(edits, func(e Edit) *Problem { return shop.edit(&out, e) }); err != nil {
		return s, err
	}
	return out, nil
}

func hammerName(h *doc.NamedHammer) *string { return &h.Name }
func blockName(b *doc.NamedBlock) *string   { return &b.Name }
func bathName(b *doc.NamedBath) *string     { return &b.Name }
func ovenName(o *doc.NamedOven) *string     { return &o.Name }
func tongsName(t *doc.NamedTongs) *string   { return &t.Name }
func hearthName(h *doc.NamedHearth) *string { return &h.Name }

// mostInSet bounds a set of smiths, hammers or forges.
const mostInSet = 100

// addSmith adds a copy of the first smith under a name; of the usual one where there
// is none.
func addSmith(s *doc.Shop, e Edit) *Problem {
	h := doc.NewShop().Smiths[0]
	if len(s.Smiths) > 0 {
		h = s.Smiths[0]
	}
	if len(s.Smiths) >= mostInSet {
		return problemAt(e, "field.tooMany", -1)
	}
	h.Name = strings.TrimSpace(e.Text)
	s.Smiths = append(s.Smiths, h)
	return nil
}

// ofHearth are the fields of one forge.
func ofHearth(s *doc.Shop, rest string, e Edit) *Problem {
	at, what, _ := strings.Cut(rest, ".")
	i, ok := place(at, len(s.Hearths))
	if !ok || what == "fuelAtC" {
		return problemAt(e, "field.unknown", -1)
	}
	h := &s.Hearths[i].Hearth
	return hot(&h.TempC, &h.FuelKgPerH, &h.FuelAtC, func() *Problem { return setMember(s, e) })
}

// ofSmith are the fields of one smith; three of them set what a choice sets.
func ofSmith(s *doc.Shop, rest string, e Edit) *Problem {
	at, what, _ := strings.Cut(rest, ".")
	set := map[string]func(*forge.Smith, string) bool{"skill": setSkill, "machine": setMachine, "machine.dies": setDies}[what]
	i, ok := place(at, len(s.Smiths))
	switch {
	case what == "hammerKg" && ok:
		return swung(&s.Smiths[i].Smith, func() *Problem { return setMember(s, e) })
	case set == nil:
		return setMember(s, e)
	}
	if !ok || !set(&s.Smiths[i].Smith, e.Text) {
		return problemAt(e, "field.choice", -1)
	}
	return nil
}

// ofTongs are the fields of one pair of tongs: a box jaw has lips so far apart as its jaws are
// usually wide, until it is measured.
func ofTongs(s *doc.Shop, rest string, e Edit) *Problem {
	at, what, _ := strings.Cut(rest, ".")
	if wrong := setMember(s, e); wrong != nil || what != "jaw" {
		return wrong
	}
	if i, ok := place(at, len(s.Tongs)); ok {
		if t := &s.Tongs[i]; t.Jaw == forge.BoxJaw && t.WideMm == 0 {
			t.WideMm = forge.UsualTongs()["box"].WideMm
		}
	}
	return nil
}

// addHour begins the hour of a smith of the shop.
func addHour(s *doc.Shop, e Edit) *Problem {
	name := strings.TrimSpace(e.Text)
	if !slices.ContainsFunc(s.Smiths, func(h doc.Hand) bool { return h.Name == name }) {
		return problemAt(e, "field.choice", -1)
	}
	if len(s.Hours) >= mostInSet || slices.ContainsFunc(s.Hours, func(h hour.Hour) bool { return h.Smith == name }) {
		return problemAt(e, "field.tooMany", -1)
	}
	s.Hours = append(s.Hours, hour.New(name))
	return nil
}

// ofHour are the fields of one hour.
func ofHour(s *doc.Shop, rest string, e Edit) *Problem {
	at, what, _ := strings.Cut(rest, ".")
	i, ok := place(at, len(s.Hours))
	if !ok || what == "smith" {
		return problemAt(e, "field.unknown", -1)
	}
	h := &s.Hours[i]
	switch what {
	case "off":
		return yes(&h.Off, e)
	case "steelId":
		h.SteelID = strings.TrimSpace(e.Text)
		return nil
	}
	return setMember(s, e)
}

// ofOven are the fields of one oven.
func ofOven(s *doc.Shop, rest string, e Edit) *Problem {
	at, what, _ := strings.Cut(rest, ".")
	i, ok := place(at, len(s.Ovens))
	if what != "kiln" || !ok {
		return setMember(s, e)
	}
	return yes(&s.Ovens[i].Kiln, e)
}

// yes sets what is or is not.
func yes(to *bool, e Edit) *Problem {
	switch strings.TrimSpace(e.Text) {
	case "yes":
		*to = true
	case "no":
		*to = false
	default:
		return problemAt(e, "field.choice", -1)
	}
	return nil
}

// addUsual adds the usual tool that an edit names, numbered where its name is
// taken.
func addUsual[T any](list *[]T, e Edit, usual func(string) (T, bool), name func(*T) *string) *Problem {
	x, ok := usual(e.Text)
	if !ok {
		return problemAt(e, "field.choice", -1)
	}
	if len(*list) >= mostInSet {
		return problemAt(e, "field.tooMany", -1)
	}
	base, now := *name(&x), name(&x)
	for n := 2; slices.ContainsFunc(*list, func(o T) bool { return *name(&o) == *now }); n++ {
		*now = base + " " + strconv.Itoa(n)
	}
	*list = append(*list, x)
	return nil
}

// without takes the one at the place that an edit names out of a list.
func without[T any](list *[]T, e Edit) *Problem {
	i, ok := place(e.Text, len(*list))
	if !ok {
		return problemAt(e, "field.unknown", -1)
	}
	*list = slices.Delete(*list, i, i+1)
	return nil
}

// How sure a likelihood may be: never quite.
const (
	leastLikely = .001
	mostLikely  = .999
)

// likelihood sets the shop's own share of pieces of a family that give a result, as
// likelihood.TEST.RESULT.FAMILY; no text goes back to the table's.
func likelihood(s *doc.Shop, rest string, e Edit) *Problem {
	parts := strings.Split(rest, ".")
	if len(parts) != 3 {
		return problemAt(e, "field.unknown", -1)
	}
	l := stock.Likelihood{Test: parts[0], Result: parts[1], Family: parts[2]}
	s.Likelihoods = slices.DeleteFunc(s.Likelihoods, func(o stock.Likelihood) bool {
		return o.Test == l.Test && o.Result == l.Result && o.Family == l.Family
	})
	if strings.TrimSpace(e.Text) == "" {
		return nil
	}
	_, err := stock.Believe("bar", []stock.Finding{{Test: l.Test, Result: l.Result}}, nil)
	if err != nil || !slices.ContainsFunc(stock.Families(), func(f stock.Family) bool { return f.ID == l.Family }) {
		return problemAt(e, "field.unknown", -1)
	}
	v, bad := figure("likelihoodShare", e)
	if bad != nil {
		return bad
	}
	if !(v >= leastLikely && v <= mostLikely) {
		return outside(e, "field.rangePercent", leastLikely, mostLikely)
	}
	l.P = v
	s.Likelihoods = append(s.Likelihoods, l)
	return nil
}
