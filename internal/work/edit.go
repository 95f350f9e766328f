package work

import (
	"errors"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/stock"
)

// kindOf reads a field's quantity off its name: names carry their unit.
func kindOf(name string) quantity.Kind {
	switch {
	case strings.HasSuffix(name, "Mm"):
		return quantity.Length
	case strings.HasSuffix(name, "Fraction"), strings.HasSuffix(name, "Share"):
		return quantity.Percent
	case strings.HasSuffix(name, "Kg"):
		return quantity.Mass
	case strings.HasSuffix(name, "C"):
		return quantity.Temperature
	}
	return quantity.Number
}

// special fields of a piece are choices that set several figures at once; they
// report whether the choice exists.
var special = map[string]func(*Doc, string) bool{
	"allowances.school": func(d *Doc, v string) bool {
		s := blade.School(v)
		if !slices.Contains(blade.Schools(), s) {
			return false
		}
		d.Request.Allowances = s.Allowances()
		return true
	},
	"design.groove": func(d *Doc, v string) bool {
		switch v {
		case "none":
			d.Request.Design.Grind.Groove = nil
		case "fuller", "strip", "back":
			d.Request.Design.Grind.Groove = blade.NewGroove(v, d.Request.Design)
		default:
			return false
		}
		return true
	},
	"design.handle": func(d *Doc, v string) bool {
		b := &d.Request.Design
		switch {
		case v == "none":
			b.Handle = nil
		case v == "drawn" && !b.TangKind.Bare():
			b.Handle = blade.NewHandle(*b)
		default:
			return false
		}
		return true
	},
	"allowances.zones": func(d *Doc, v string) bool {
		a := &d.Request.Allowances
		switch v {
		case "same":
			a.Zones = nil
		case "own":
			z := a.ByZone()
			a.Zones = &z
		default:
			return false
		}
		return true
	},
	"bar.form": func(d *Doc, v string) bool {
		f := stock.Form(v)
		if !slices.Contains(stock.Forms(), f) {
			return false
		}
		if d.Request.Bar.Form != f {
			d.Request.Bar, d.StockID = stock.Usual(f), ""
		}
		return true
	},
	"choices.order": func(d *Doc, v string) bool { return setOrder(&d.Request.Choices, v, false) },
	"choices.stamp": func(d *Doc, v string) bool {
		d.Request.Choices.Stamp = v == "yes"
		return v == "yes" || v == "no"
	},
	"choices.forceOrder": func(d *Doc, v string) bool { return setOrder(&d.Request.Choices, v, true) },
	"smith.machine.dies": func(d *Doc, v string) bool { return setDies(&d.Request.Smith, v) },
	"smith.machine":      func(d *Doc, v string) bool { return setMachine(&d.Request.Smith, v) },
	"origin": func(d *Doc, v string) bool {
		o, ok := stock.FindOrigin(v)
		if v != "" && !ok {
			return false
		}
		d.Request.Origin = plan.Origin{ID: o.ID, Hazards: o.Hazards}
		return true
	},
	"origin.acknowledge": func(d *Doc, v string) bool {
		if h, ok := stock.FindHazard(v); !ok || h.Refuse {
			return false
		}
		o := &d.Request.Origin
		if !slices.Contains(o.Acknowledged, v) {
			o.Acknowledged = append(o.Acknowledged, v)
		}
		return true
	},
	"smith.hand": func(d *Doc, v string) bool {
		return takeUp(v, func(h forge.Smith) { d.Request.Smith = h })
	},
	"smith.hammer": func(d *Doc, v string) bool {
		return takeUp(v, func(h forge.Hammer) { d.Request.Smith = d.Request.Smith.WithHammer(h) })
	},
	"fire.hearth": func(d *Doc, v string) bool {
		return takeUp(v, func(h forge.Hearth) { d.Request.Fire = d.Request.Fire.WithHearth(h) })
	},
	"smith.skill": func(d *Doc, v string) bool { return setSkill(&d.Request.Smith, v) },
	"design.tangKind": func(d *Doc, v string) bool {
		k := blade.TangKind(v)
		if !slices.Contains(blade.TangKinds(), k) {
			return false
		}
		if k != d.Request.Design.TangKind {
			d.Request.Design.SetTang(k)
		}
		return true
	},
}

// editTool sets face or support of an operation, as tool.OPERATION.face; as
// tool.OPERATION it goes back to the planner's.
func editTool(c *plan.Choices, what string, e Edit) *FieldProblem {
	op, part, _ := strings.Cut(what, ".")
	i := slices.IndexFunc(c.Tools, func(t plan.ToolUse) bool { return t.Operation == op })
	switch {
	case !plan.Tooled(forge.Kind(op)):
		return problemAt(e, "field.unknown", -1)
	case part == "":
		c.Tools = slices.DeleteFunc(c.Tools, func(t plan.ToolUse) bool { return t.Operation == op })
		return nil
	case i < 0:
		c.Tools = append(c.Tools, plan.ToolUse{Operation: op})
		i = len(c.Tools) - 1
	}
	t := &c.Tools[i]
	switch face, support := forge.Face(e.Text), forge.Support(e.Text); {
	case part == "face" && slices.Contains(forge.DrawingFaces(), face):
		t.Face = face
	case part == "support" && slices.Contains(forge.Supports(), support):
		t.Support = support
	default:
		return problemAt(e, "field.choice", -1)
	}
	return nil
}

// setOrder takes the operations in this order, separated by commas; "planner"
// goes back to the planner's.
func setOrder(c *plan.Choices, v string, forced bool) bool {
	c.Order, c.Forced = nil, false
	if v == "planner" {
		return true
	}
	for id := range strings.SplitSeq(v, ",") {
		if id = strings.TrimSpace(id); id == "" || len(c.Order) > 40 {
			return false
		}
		c.Order = append(c.Order, id)
	}
	c.Forced = forced
	return true
}

// setMachine gives a smith a machine for the heavy work, or takes it away.
func setMachine(h *forge.Smith, v string) bool {
	switch k := forge.MachineKind(v); k {
	case "none":
		h.Machine = nil
	default:
		if !slices.Contains(forge.MachineKinds(), k) {
			return false
		}
		h.Machine = forge.NewMachine(k)
	}
	return true
}

// setDies changes a machine's dies with their usual bite.
func setDies(h *forge.Smith, v string) bool {
	d := forge.Dies(v)
	if h.Machine == nil || !slices.Contains(forge.DiesList(), d) {
		return false
	}
	h.Machine = h.Machine.WithDies(d)
	return true
}

func setSkill(h *forge.Smith, v string) bool {
	s := forge.Skill(v)
	if !slices.Contains(forge.Skills(), s) {
		return false
	}
	*h = h.WithSkill(s)
	return true
}

// apply makes the edits on a document; every field that cannot be is reported,
// and nothing is changed if any is.
func apply(doc Doc, edits []Edit) (Doc, error) {
	out, err := decode[Doc](encode(doc)) // edits reach behind pointers
	if err != nil {
		return doc, err
	}
	err = editAll(edits, func(e Edit) *FieldProblem {
		switch e.Field {
		case "name":
			if out.Name = strings.TrimSpace(e.Text); out.Name == "" {
				return problemAt(e, "field.nameMissing", 0)
			}
			return nil
		case "notes":
			out.Notes = e.Text
			return nil
		}
		if what, ok := strings.CutPrefix(e.Field, "outline."); ok {
			return editOutline(&out.Request.Design, what, e)
		}
		if what, ok := strings.CutPrefix(e.Field, "picture."); ok {
			return editPicture(&out, what, e)
		}
		if what, ok := strings.CutPrefix(e.Field, "tool."); ok {
			return editTool(&out.Request.Choices, what, e)
		}
		if what, ok := strings.CutPrefix(e.Field, "taper."); ok {
			return editTaper(&out.Request.Design, what, e)
		}
		switch e.Field {
		case "design.hand":
			return editHand(&out.Request.Design, e)
		case "design.hole":
			return editHole(&out.Request.Design, e)
		}
		if f, ok := special[e.Field]; ok {
			if !f(&out, e.Text) {
				return problemAt(e, "field.choice", -1)
			}
			return nil
		}
		if strings.HasPrefix(e.Field, "bar.") {
			out.StockID = "" // no longer the piece on the rack
		}
		return setField(&out.Request, e)
	})
	if err != nil {
		return doc, err
	}
	c := fact.NewCheck()
	out.Picture.validate(c)
	if err := invalid(c.Err()); err != nil {
		return doc, err
	}
	return out, nil
}

// editAll applies edits one by one and gathers what cannot be.
func editAll(edits []Edit, one func(Edit) *FieldProblem) error {
	var bad []FieldProblem
	for _, e := range edits {
		if p := one(e); p != nil {
			bad = append(bad, *p)
		}
	}
	if len(bad) > 0 {
		return &InvalidError{Fields: bad}
	}
	return nil
}

func problemAt(e Edit, code string, offset int) *FieldProblem {
	return &FieldProblem{FieldError: fact.FieldError{Field: e.Field, Code: code}, Text: e.Text, Offset: offset}
}

// setField writes one typed text into the struct that root points to. Figures
// are parsed by the quantity that the field's name tells.
func setField(root any, e Edit) *FieldProblem {
	v, name, ok := field(reflect.ValueOf(root).Elem(), e.Field)
	if !ok {
		return problemAt(e, "field.unknown", -1)
	}
	switch v.Kind() {
	case reflect.String:
		v.SetString(strings.TrimSpace(e.Text))
	case reflect.Float64:
		n, bad := typedFigure(name, e)
		if bad != nil {
			return bad
		}
		v.SetFloat(n)
	case reflect.Int:
		n, bad := typedFigure(name, e)
		if bad != nil {
			return bad
		}
		v.SetInt(int64(math.Round(n)))
	default:
		return problemAt(e, "field.unknown", -1)
	}
	return nil
}

// figure reads a typed figure.
func typedFigure(name string, e Edit) (float64, *FieldProblem) {
	k, text := kindOf(name), e.Text
	if k == quantity.Mass && strings.TrimRight(text, "0123456789., /") == "" {
		text += " kg" // a hammer's mass is spoken of in kilograms
	}
	n, err := quantity.Parse(text, k, e.Units)
	var pe *quantity.ParseError
	if errors.As(err, &pe) {
		p := problemAt(e, string(pe.Code), pe.Offset)
		p.Found = pe.Found
		return 0, p
	}
	if k == quantity.Mass {
		n /= 1000
	}
	return n, nil
}

// field finds a field by its dotted JSON name; a number picks from a list.
func field(v reflect.Value, path string) (reflect.Value, string, bool) {
	name := ""
	for part := range strings.SplitSeq(path, ".") {
		if n, err := strconv.Atoi(part); err == nil && v.Kind() == reflect.Slice && n >= 0 && n < v.Len() {
			v = v.Index(n)
			continue
		}
		if v.Kind() == reflect.Pointer && !v.IsNil() {
			v = v.Elem()
		}
		if v.Kind() != reflect.Struct {
			return v, "", false
		}
		f, ok := member(v, part)
		if !ok {
			return v, "", false
		}
		v, name = f, part
	}
	return v, name, true
}

// member finds a field of a struct, or of one embedded in it, by its JSON name.
func member(v reflect.Value, name string) (reflect.Value, bool) {
	for i := range v.NumField() {
		f := v.Type().Field(i)
		if f.Anonymous {
			if in, ok := member(v.Field(i), name); ok {
				return in, true
			}
			continue
		}
		if tag, _, _ := strings.Cut(f.Tag.Get("json"), ","); tag == name && tag != "-" {
			return v.Field(i), true
		}
	}
	return v, false
}
