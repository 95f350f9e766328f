package work

import (
	"context"
	"errors"
	"slices"
	"strconv"
	"strings"

	"coldember/core/fact"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/store"
)

// Shop reads the settings; a new database has the defaults.
func (w *Work) Shop(ctx context.Context) (Settings, error) {
	out := DefaultSettings()
	err := w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Shop](tx, "id = 1")
		if errors.Is(err, store.ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		if out, err = decode[Settings](row.Doc); err != nil {
			return err
		}
		out.usualSets()
		out.Version = row.Version
		return nil
	})
	return out, err
}

func (s Settings) validate() error {
	c := fact.NewCheck()
	fact.OneOf(c, "units", s.Units, quantity.Metric, quantity.Imperial)
	if !slices.Contains([]string{"night", "day", "system"}, s.Theme) {
		c.Fail("theme", "field.choice", nil)
	}
	if !slices.Contains([]string{"a4", "letter"}, s.Paper) {
		c.Fail("paper", "field.choice", nil)
	}
	if len(s.Smiths) == 0 {
		c.Fail("smiths", "field.smithMissing", nil)
	}
	names := map[string]bool{}
	for i, h := range s.Smiths {
		at := c.Within("smiths." + strconv.Itoa(i))
		if h.Name == "" {
			at.Fail("name", "field.nameMissing", nil)
		}
		if names[h.Name] {
			at.Fail("name", "field.nameTaken", nil)
		}
		names[h.Name] = true
		h.Validate(at)
	}
	s.validateSets(c)
	s.Fire.Validate(c.Within("fire"))
	s.Prices.Validate(c.Within("prices"))
	return invalid(c.Err())
}

// EditShop applies edits to the settings if nobody saved since version. Beside
// the fields there are smiths.add (a copy of the first, under this name),
// smiths.remove (by place) and smiths.N.skill, which sets what a skill sets.
func (w *Work) EditShop(ctx context.Context, version int, edits []Edit) (Settings, error) {
	s, err := w.Shop(ctx)
	if err != nil {
		return s, err
	}
	if s.Version != version {
		return s, &StaleError{Current: s}
	}
	next := s
	next.Smiths, next.Hammers, next.Hearths = slices.Clone(s.Smiths), slices.Clone(s.Hammers), slices.Clone(s.Hearths)
	if err := editAll(edits, next.edit); err != nil {
		return s, err
	}
	return w.SaveShop(ctx, next)
}

func (s *Settings) edit(e Edit) *FieldProblem {
	parts := strings.Split(e.Field, ".")
	if known, bad := s.editSets(e); known {
		return bad
	}
	switch {
	case e.Field == "smiths.add":
		h := s.Smiths[0]
		h.Name = strings.TrimSpace(e.Text)
		s.Smiths = append(s.Smiths, h)
		return nil
	case e.Field == "smiths.remove":
		n, err := strconv.Atoi(e.Text)
		if err != nil || n < 0 || n >= len(s.Smiths) {
			return problemAt(e, "field.unknown", -1)
		}
		s.Smiths = slices.Delete(s.Smiths, n, n+1)
		return nil
	case len(parts) == 3 && parts[0] == "smiths" && parts[2] == "skill":
		n, err := strconv.Atoi(parts[1])
		if err != nil || n < 0 || n >= len(s.Smiths) || !setSkill(&s.Smiths[n].Smith, e.Text) {
			return problemAt(e, "field.choice", -1)
		}
		return nil
	case len(parts) == 3 && parts[0] == "smiths" && parts[2] == "machine":
		n, err := strconv.Atoi(parts[1])
		if err != nil || n < 0 || n >= len(s.Smiths) || !setMachine(&s.Smiths[n].Smith, e.Text) {
			return problemAt(e, "field.choice", -1)
		}
		return nil
	case len(parts) == 4 && parts[0] == "smiths" && parts[3] == "dies":
		n, err := strconv.Atoi(parts[1])
		if err != nil || n < 0 || n >= len(s.Smiths) || !setDies(&s.Smiths[n].Smith, e.Text) {
			return problemAt(e, "field.choice", -1)
		}
		return nil
	case len(parts) == 4 && parts[0] == "likelihood":
		return s.editLikelihood(parts[1], parts[2], parts[3], e)
	case e.Field == "version" || e.Field == "demo":
		return problemAt(e, "field.unknown", -1)
	}
	return setField(s, e)
}

// editLikelihood sets the shop's own share of pieces of a family that give a
// result, as likelihood.TEST.RESULT.FAMILY; no text goes back to the table's.
func (s *Settings) editLikelihood(test, result, family string, e Edit) *FieldProblem {
	known := func(l stock.Likelihood) bool {
		return l.Test == test && l.Result == result && l.Family == family
	}
	s.Likelihoods = slices.DeleteFunc(slices.Clone(s.Likelihoods), known)
	if strings.TrimSpace(e.Text) == "" {
		return nil
	}
	if _, err := stock.Believe("bar", []stock.Finding{{Test: test, Result: result}}, nil); err != nil || !slices.ContainsFunc(stock.Families(), func(f stock.Family) bool { return f.ID == family }) {
		return problemAt(e, "field.unknown", -1)
	}
	v, bad := typedFigure("likelihoodShare", e)
	if bad != nil {
		return bad
	}
	if !(v >= .001 && v <= .999) {
		return &FieldProblem{FieldError: fact.FieldError{Field: e.Field, Code: "field.rangePercent", Figures: fact.Figures{"lowest": .001, "highest": .999}}, Text: e.Text, Offset: -1}
	}
	s.Likelihoods = append(s.Likelihoods, stock.Likelihood{Test: test, Result: result, Family: family, P: v})
	return nil
}

// SaveShop keeps the settings if nobody saved since s.Version.
func (w *Work) SaveShop(ctx context.Context, s Settings) (Settings, error) {
	if err := s.validate(); err != nil {
		return s, err
	}
	stale := false
	err := w.store.Write(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Shop](tx, "id = 1")
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
		if stale = row.Version != s.Version; stale {
			return nil
		}
		s.Version++
		return store.Put(tx, &store.Shop{ID: 1, Doc: encode(s), Version: s.Version, UpdatedAt: w.now()})
	})
	if err != nil {
		return s, err
	}
	now, err := w.Shop(ctx)
	if err == nil && stale {
		err = &StaleError{Current: now}
	}
	return now, err
}
