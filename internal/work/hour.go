package work

import (
	"context"
	"maps"
	"slices"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/hour"
	"coldember/core/learn"
	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/doc"
)

// HourRead is what an hour at the forge tells, and what became narrower by it: the totals of a usual knife by the table alone
// and by what was measured, of the same smith at the same fire.
type HourRead struct {
	Hour   hour.Hour     `json:"hour"`
	Found  hour.Tells    `json:"found"`
	Knife  string        `json:"knife" doc:"which pattern of those that ship"`
	Before whatif.Within `json:"before"`
	After  whatif.Within `json:"after"`
}

// hourKnife is the pattern, and the bar, that an hour is tried on.
const (
	hourKnife   = "utility"
	hourSteelID = "1084"
)

// smithOf is a smith of the shop by name; else the usual one.
func smithOf(s *doc.Shop, name string) forge.Smith {
	for i := range s.Smiths {
		if s.Smiths[i].Name == name {
			return s.Smiths[i].Smith
		}
	}
	return forge.NewSmith(forge.Steady)
}

// choices are what the shop says of factors, with what was measured of each.
func choices(s *doc.Shop) map[string]learn.Choice {
	out := maps.Clone(s.Learned)
	if out == nil {
		out = map[string]learn.Choice{}
	}
	for i := range s.Hours {
		h := &s.Hours[i]
		if h.Off {
			continue
		}
		found := hour.Read(h, smithOf(s, h.Smith), s.Fire)
		for kind, f := range map[learn.Kind]*hour.FactorFound{learn.Blow: found.Blow, learn.Spread: found.Spread, learn.Scale: found.Scale} {
			if f == nil {
				continue
			}
			k := learn.Key{Of: h.Smith, Kind: kind}
			if kind.ByForge() {
				k.Of = learn.ForgeOf(s.Fire)
			}
			c := out[k.String()]
			c.Measured = &learn.HourFactor{Factor: f.Factor, SdLog: f.SdLog}
			out[k.String()] = c
		}
	}
	return out
}

// Hours are the hours of the shop, each read out.
func (w *Work) Hours(ctx context.Context) ([]HourRead, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]HourRead, 0, len(shop.Doc.Hours))
	for i := range shop.Doc.Hours {
		h := shop.Doc.Hours[i]
		v := HourRead{Hour: h, Knife: hourKnife, Found: hour.Read(&h, smithOf(&shop.Doc, h.Smith), shop.Doc.Fire)}
		req := w.hourRequest(&shop.Doc, &h)
		doubt := whatif.UsualDoubt()
		before, err := whatif.BeWithin(ctx, req, doubt)
		if err != nil {
			return nil, err
		}
		v.Before, v.After = *before, *before
		one := doc.Shop{Smiths: shop.Doc.Smiths, Fire: shop.Doc.Fire, Hours: []hour.Hour{h}}
		if l := learn.For(learn.Book(nil, choices(&one)), h.Smith, learn.ForgeOf(shop.Doc.Fire)); l != nil {
			req.Learned = l
			after, err := whatif.BeWithin(ctx, req, doubt)
			if err != nil {
				return nil, err
			}
			v.After = *after
		}
		out = append(out, v)
	}
	return out, nil
}

// hourRequest is the knife that an hour is tried on.
func (w *Work) hourRequest(s *doc.Shop, h *hour.Hour) plan.Request {
	all := blade.Starters()
	d := all[max(0, slices.IndexFunc(all, func(x blade.Starter) bool { return x.ID == hourKnife }))].Design
	req := plan.NewRequest(d, hourSteelID, stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 6, LengthMm: 600}, forge.Steady)
	req.Smith, req.Fire = smithOf(s, h.Smith), s.Fire
	return req
}
