package edit

import (
	"math"
	"reflect"
	"slices"
	"strings"

	"coldember/core/forge"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
)

var stockTable = table[doc.Stock]{
	exact: map[string]func(*doc.Stock, Edit) *Problem{
		"name":   name(func(d *doc.Stock) *string { return &d.Name }),
		"notes":  text(func(d *doc.Stock) *string { return &d.Notes }),
		"origin": stockOrigin,
		"steelId": func(d *doc.Stock, e Edit) *Problem {
			if strings.TrimSpace(e.Text) != d.SteelID {
				d.Analysis = nil // it was of another steel
			}
			return setMember(d, e)
		},
		"known": choice(func(d *doc.Stock, v string) bool {
			d.Believed = v == "no"
			return v == "yes" || v == "no"
		}),
	},
	groups: map[string]func(*doc.Stock, string, Edit) *Problem{
		"test":   finding,
		"hazard": func(d *doc.Stock, rest string, e Edit) *Problem { return toggle(&d.Hazards, rest, e) },
		"seen":   func(d *doc.Stock, rest string, e Edit) *Problem { return toggle(&d.Acknowledged, rest, e) },
		"coupon": func(d *doc.Stock, rest string, e Edit) *Problem { return toggle(&d.Coupon, rest, e) },
		"dead":   dead,
		"billet": laid,
		"analysis": func(d *doc.Stock, rest string, e Edit) *Problem {
			return analysis(&d.Analysis, d.SteelID, rest, e)
		},
		"layer": layer,
	},
	members: func(d *doc.Stock) any { return d },
	closed:  []string{"parentId", "believed"},
}

// Stock makes edits on a piece of stock; nothing is changed if any field cannot be.
// A steel that is only believed follows what is known of the piece. The fire is the shop's: in
// it a billet is welded. Errors are *InvalidError.
func Stock(d doc.Stock, edits []Edit, fire forge.Fire) (doc.Stock, error) {
	out := doc.Copy(d)
	edits = slices.Clone(edits)
	for i := range edits {
		edits[i].fire = fire
	}
	if err := each(edits, func(e Edit) *Problem { return stockTable.edit(&out, e) }); err != nil {
		return d, err
	}
	for _, e := range edits {
		if strings.HasPrefix(e.Field, "billet.") {
			barOf(&out, fire)
			break
		}
	}
	if out.Believed && out.Origin != "" {
		if b, err := stock.Believe(out.Origin, out.Findings, nil); err == nil {
			out.SteelID = b.SteelID
		}
		for _, e := range edits {
			if e.Field == "steelId" && e.Text != out.SteelID {
				p := problemAt(e, "stock.presumed", -1)
				p.Found = out.SteelID
				return d, &InvalidError{Fields: []Problem{*p}}
			}
		}
	}
	return out, nil
}

// newBar is the origin of bar that was bought as steel.
const newBar = "bar"

// NewStock makes a piece of stock of typed fields. Salvage is presumed by what it was, which
// its form may tell, and has the hazards of it, unless its steel is said to be known or has a
// certificate. Errors are *InvalidError.
func NewStock(form stock.Form, edits []Edit, fire forge.Fire) (doc.Stock, error) {
	first := []string{"certificate", "origin", "known"} // what the others depend on, in this order
	rank := func(e Edit) int {
		if i := slices.Index(first, e.Field); i >= 0 {
			return i
		}
		return len(first)
	}
	edits = slices.Clone(edits)
	// a leaf that is said to be new bar is a leaf spring's all the same
	told := func(e Edit) bool { return e.Field == "origin" && e.Text != "" && e.Text != newBar }
	if o, ok := stock.PresumedOrigin(form); ok && !slices.ContainsFunc(edits, told) {
		edits = append(slices.DeleteFunc(edits, func(e Edit) bool { return e.Field == "origin" }), Edit{Field: "origin", Text: o})
	}
	slices.SortStableFunc(edits, func(a, b Edit) int { return rank(a) - rank(b) })
	return Stock(doc.Stock{Piece: stock.Item{Form: form}, Count: 1}, edits, fire)
}

func stockOrigin(d *doc.Stock, e Edit) *Problem {
	if e.Text == "" {
		d.Origin, d.Believed = "", false
		return nil
	}
	o, ok := stock.FindOrigin(e.Text)
	if !ok {
		return problemAt(e, "field.choice", -1)
	}
	if d.Origin == o.ID { // what has been said of it since holds
		return nil
	}
	d.Origin = o.ID
	d.Believed = d.Believed || d.Certificate == "" && o.ID != newBar
	for _, h := range o.Hazards {
		if !slices.Contains(d.Hazards, h) {
			d.Hazards = append(d.Hazards, h)
		}
	}
	return nil
}

func finding(d *doc.Stock, test string, e Edit) *Problem {
	d.Findings = slices.DeleteFunc(slices.Clone(d.Findings), func(f stock.Finding) bool { return f.Test == test })
	if e.Text == "" {
		return nil
	}
	for _, t := range stock.Tests() {
		if t.ID != test {
			continue
		}
		for _, r := range t.Results {
			if r.ID == e.Text {
				d.Findings = append(d.Findings, stock.Finding{Test: test, Result: r.ID})
				return nil
			}
		}
	}
	return problemAt(e, "field.choice", -1)
}

func toggle(list *[]string, what string, e Edit) *Problem {
	if what == "" || e.Text != "on" && e.Text != "off" {
		return problemAt(e, "field.choice", -1)
	}
	*list = slices.DeleteFunc(slices.Clone(*list), func(s string) bool { return s == what })
	if e.Text == "on" {
		*list = append(*list, what)
	}
	return nil
}

// layer adds layers to a stack, "count; thickness", or takes a kind of them out.
func layer(d *doc.Stock, what string, e Edit) *Problem {
	if what == "delete" {
		i, ok := place(e.Text, len(d.Piece.Layers))
		if !ok {
			return problemAt(e, "outline.noNode", -1)
		}
		d.Piece.Layers = slices.Delete(d.Piece.Layers, i, i+1)
		return nil
	}
	left, right, ok := strings.Cut(e.Text, ";")
	if what != "add" || !ok {
		return problemAt(e, "stock.layerText", -1)
	}
	n, bad := parse(e, left, quantity.Number, 0)
	if bad != nil {
		return bad
	}
	if n != math.Trunc(n) {
		return problemAt(e, "field.whole", 0)
	}
	mm, bad := Length(e, right, len(left)+1)
	if bad != nil {
		return bad
	}
	if !(n >= 1 && mm > 0) {
		return problemAt(e, "stock.layerText", -1)
	}
	d.Piece.Layers = append(d.Piece.Layers, stock.Layer{Count: int(n), ThicknessMm: mm})
	return nil
}

func dead(d *doc.Stock, what string, e Edit) *Problem {
	if what == "delete" {
		i, ok := place(e.Text, len(d.Piece.Dead))
		if !ok {
			return problemAt(e, "outline.noNode", -1)
		}
		d.Piece.Dead = slices.Delete(d.Piece.Dead, i, i+1)
		return nil
	}
	parts := strings.Split(e.Text, ";")
	if what != "add" || len(parts) != 3 && len(parts) != 5 || !slices.Contains(stock.Whys(), strings.TrimSpace(parts[2])) {
		return problemAt(e, "stock.deadText", -1)
	}
	from, bad := Length(e, parts[0], 0)
	if bad != nil {
		return bad
	}
	to, bad := Length(e, parts[1], len(parts[0])+1)
	if bad != nil {
		return bad
	}
	if !(from >= 0 && to > from) {
		return problemAt(e, "stock.dead", -1)
	}
	out := stock.Dead{FromMm: from, ToMm: to, Why: strings.TrimSpace(parts[2])}
	if len(parts) == 5 { // of a wide piece: from one side
		offset := len(parts[0]) + len(parts[1]) + len(parts[2]) + 3
		if out.FromAcrossMm, bad = Length(e, parts[3], offset); bad != nil {
			return bad
		}
		if out.ToAcrossMm, bad = Length(e, parts[4], offset+len(parts[3])+1); bad != nil {
			return bad
		}
		if !(out.FromAcrossMm >= 0 && out.ToAcrossMm > out.FromAcrossMm) {
			return problemAt(e, "stock.dead", -1)
		}
	}
	d.Piece.Dead = append(d.Piece.Dead, out)
	return nil
}

// StockFigure is a figure of a piece of stock, or of its form, by its name.
func StockFigure(d *doc.Stock, name string) (*float64, bool) {
	if name == "count" {
		n := float64(d.Count)
		return &n, true
	}
	for _, root := range []any{d, &d.Piece} {
		v, _, ok := member(reflect.ValueOf(root).Elem(), name)
		if ok && v.Kind() == reflect.Float64 {
			return v.Addr().Interface().(*float64), true
		}
	}
	return new(float64), false
}
