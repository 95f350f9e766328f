package work

import (
	"slices"
	"strconv"
	"strings"

	"coldember/core/stock"
)

// editStock applies typed fields to what is known of a piece of stock. Beside
// its figures there are:
//
//	origin           "coilSpring"      what it was: brings its hazards along; "" forgets
//	known            "yes" or "no"     whether its steel is known, or believed
//	test.spark       "manyBursts"      a finding; "" takes it back
//	hazard.coating   "on" or "off"     what is dangerous about it
//	seen.coating     "on" or "off"     a hazard that was seen to
//	coupon.quench    "on" or "off"     a step of the coupon that is done
//	dead.add         "40; 62; hole"    a dead stretch
//	dead.delete      "0"
func editStock(d StockDoc, edits []Edit) (StockDoc, error) {
	d.Piece.Dead = slices.Clone(d.Piece.Dead)
	err := editAll(edits, func(e Edit) *FieldProblem {
		group, what, _ := strings.Cut(e.Field, ".")
		switch group {
		case "origin":
			return d.setOrigin(e)
		case "known":
			d.Believed = e.Text == "no"
			return nil
		case "test":
			return d.setFinding(what, e)
		case "hazard":
			return toggle(&d.Hazards, what, e)
		case "seen":
			return toggle(&d.Acknowledged, what, e)
		case "coupon":
			return toggle(&d.Coupon, what, e)
		case "dead":
			return d.editDead(what, e)
		}
		return setField(&d, e)
	})
	if d.Believed && d.Origin != "" {
		if b, err := stock.Believe(d.Origin, d.Findings, nil); err == nil {
			d.SteelID = b.SteelID
		}
	}
	return d, err
}

func (d *StockDoc) setOrigin(e Edit) *FieldProblem {
	if e.Text == "" {
		d.Origin, d.Believed = "", false
		return nil
	}
	o, ok := stock.FindOrigin(e.Text)
	if !ok {
		return problemAt(e, "field.choice", -1)
	}
	d.Origin = o.ID
	d.Believed = d.Believed || d.Certificate == "" && o.ID != "bar"
	for _, h := range o.Hazards {
		if !slices.Contains(d.Hazards, h) {
			d.Hazards = append(d.Hazards, h)
		}
	}
	return nil
}

func (d *StockDoc) setFinding(test string, e Edit) *FieldProblem {
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

func toggle(list *[]string, what string, e Edit) *FieldProblem {
	if what == "" || e.Text != "on" && e.Text != "off" {
		return problemAt(e, "field.choice", -1)
	}
	*list = slices.DeleteFunc(slices.Clone(*list), func(s string) bool { return s == what })
	if e.Text == "on" {
		*list = append(*list, what)
	}
	return nil
}

func (d *StockDoc) editDead(what string, e Edit) *FieldProblem {
	if what == "delete" {
		i, err := strconv.Atoi(e.Text)
		if err != nil || i < 0 || i >= len(d.Piece.Dead) {
			return problemAt(e, "outline.noNode", -1)
		}
		d.Piece.Dead = slices.Delete(d.Piece.Dead, i, i+1)
		return nil
	}
	parts := strings.Split(e.Text, ";")
	if what != "add" || len(parts) != 3 || !slices.Contains(stock.Whys(), strings.TrimSpace(parts[2])) {
		return problemAt(e, "stock.deadText", -1)
	}
	from, bad := typedLength(e, parts[0], 0)
	if bad != nil {
		return bad
	}
	to, bad := typedLength(e, parts[1], len(parts[0])+1)
	if bad != nil {
		return bad
	}
	if !(from >= 0 && to > from) {
		return problemAt(e, "stock.dead", -1)
	}
	d.Piece.Dead = append(d.Piece.Dead, stock.Dead{FromMm: from, ToMm: to, Why: strings.TrimSpace(parts[2])})
	return nil
}
