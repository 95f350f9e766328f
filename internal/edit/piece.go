package edit

import (
	"slices"
	"strings"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/internal/doc"
)

// mostInOrder bounds an order that is typed.
const mostInOrder = 60

var piece = table[doc.Piece]{
	exact: map[string]func(*doc.Piece, Edit) *Problem{
		"name":              name(func(d *doc.Piece) *string { return &d.Name }),
		"notes":             text(func(d *doc.Piece) *string { return &d.Notes }),
		"owner":             text(func(d *doc.Piece) *string { return &d.Owner }),
		"shared":            func(d *doc.Piece, e Edit) *Problem { return yes(&d.Shared, e) },
		"allowances.school": choice(setSchool),
		"allowances.zones":  choice(setZones),
		"bar.form":          choice(setForm),
		"steelId": func(d *doc.Piece, e Edit) *Problem {
			d.Request.Analysis, d.Request.Billet = nil, nil // it was of another steel
			return setMember(&d.Request, e)
		},
		"origin":             choice(setOrigin),
		"origin.acknowledge": choice(acknowledge),
		"choices.order":      choice(func(d *doc.Piece, v string) bool { return setOrder(&d.Request.Choices, v, false) }),
		"choices.forceOrder": choice(func(d *doc.Piece, v string) bool { return setOrder(&d.Request.Choices, v, true) }),
		"choices.stamp": choice(func(d *doc.Piece, v string) bool {
			d.Request.Choices.Stamp = v == "yes"
			return v == "yes" || v == "no"
		}),
		"choices.soften":     func(d *doc.Piece, e Edit) *Problem { return yes(&d.Request.Choices.Soften, e) },
		"choices.byTable":    func(d *doc.Piece, e Edit) *Problem { return yes(&d.Request.Choices.ByTable, e) },
		"design.groove":      choice(setGroove),
		"bit":                choice(func(d *doc.Piece, v string) bool { return setBit(&d.Request, v) }),
		"design.flatBend":    choice(func(d *doc.Piece, v string) bool { return setFlatBend(&d.Request.Design, v) }),
		"design.setDeg":      func(d *doc.Piece, e Edit) *Problem { return setBevel(&d.Request.Design, e) },
		"design.handle":      choice(setHandle),
		"design.hand":        func(d *doc.Piece, e Edit) *Problem { return fitHand(&d.Request.Design, e) },
		"design.hole":        func(d *doc.Piece, e Edit) *Problem { return drill(&d.Request.Design, e) },
		"design.tangKind":    choice(func(d *doc.Piece, v string) bool { return setTangKind(&d.Request.Design, v) }),
		"design.tangForm":    choice(func(d *doc.Piece, v string) bool { return setTangForm(&d.Request.Design, v) }),
		"smith.skill":        choice(func(d *doc.Piece, v string) bool { return setSkill(&d.Request.Smith, v) }),
		"smith.machine":      choice(func(d *doc.Piece, v string) bool { return setMachine(&d.Request.Smith, v) }),
		"smith.machine.dies": choice(func(d *doc.Piece, v string) bool { return setDies(&d.Request.Smith, v) }),
		"smith.hand": choice(func(d *doc.Piece, v string) bool {
			return whole(v, func(h forge.Smith) { d.Request.Smith = h })
		}),
		"smith.hammer": choice(func(d *doc.Piece, v string) bool {
			return whole(v, func(h forge.Hammer) { d.Request.Smith = d.Request.Smith.WithHammer(h) })
		}),
		"smith.anvil": choice(func(d *doc.Piece, v string) bool {
			a, ok := forge.UsualAnvils()[v]
			if ok {
				d.Request.Smith = d.Request.Smith.WithAnvil(a)
			}
			return ok
		}),
		"smith.hammerKg": func(d *doc.Piece, e Edit) *Problem {
			return swung(&d.Request.Smith, func() *Problem { return setMember(&d.Request, e) })
		},
		"fire.tempC":      hotFire,
		"fire.fuelKgPerH": hotFire,
		"fire.hearth": choice(func(d *doc.Piece, v string) bool {
			return whole(v, func(h forge.Hearth) { d.Request.Fire = d.Request.Fire.WithHearth(h) })
		}),
	},
	groups: map[string]func(*doc.Piece, string, Edit) *Problem{
		"outline":   func(d *doc.Piece, rest string, e Edit) *Problem { return outline(&d.Request.Design, rest, e) },
		"taper":     func(d *doc.Piece, rest string, e Edit) *Problem { return taper(&d.Request.Design, rest, e) },
		"tool":      func(d *doc.Piece, rest string, e Edit) *Problem { return tool(&d.Request.Choices, rest, e) },
		"picture":   picture,
		"treatment": treatment,
		"finish":    finishing,
		"analysis": func(d *doc.Piece, rest string, e Edit) *Problem {
			return analysis(&d.Request.Analysis, d.Request.SteelID, rest, e)
		},
		"bar": func(d *doc.Piece, _ string, e Edit) *Problem {
			d.StockID = "" // no longer the piece on the rack
			return setMember(&d.Request, e)
		},
	},
	members: func(d *doc.Piece) any { return &d.Request },
	closed:  []string{"version", "origin.id", "fire.fuelAtC"},
}

// Piece makes edits on a copy of a piece; every field that cannot be is reported,
// and nothing is changed if any is. Errors are *InvalidError.
func Piece(d doc.Piece, edits []Edit) (doc.Piece, error) {
	out := doc.Copy(d) // edits reach behind pointers
	if err := each(edits, func(e Edit) *Problem { return piece.edit(&out, e) }); err != nil {
		return d, err
	}
	if was := d.Request; out.Request.Allowances == was.Allowances && was.Finish == nil && was.Forged == nil { // what is forged is forged
		out.Request.Allowances = d.Request.Allowances.Follow(&d.Request.Design, &out.Request.Design)
	}
	if err := out.Validate(); err != nil {
		return d, Invalid(err)
	}
	return out, nil
}

func setSchool(d *doc.Piece, v string) bool {
	s := blade.School(v)
	if !slices.Contains(blade.Schools(), s) {
		return false
	}
	d.Request.Allowances = s.AllowancesFor(&d.Request.Design)
	return true
}

func setZones(d *doc.Piece, v string) bool {
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
}

func setForm(d *doc.Piece, v string) bool {
	f := stock.Form(v)
	if !slices.Contains(stock.Forms(), f) {
		return false
	}
	if d.Request.Bar.Form != f {
		d.Request.Bar, d.StockID = stock.Usual(f), ""
		presume(d, f)
	}
	return true
}

// presume takes what the form of a piece tells of it: what it was, with its hazards, and the
// steel that such a piece is presumed to be. A form that steel is sold in tells nothing.
func presume(d *doc.Piece, f stock.Form) {
	id, ok := stock.PresumedOrigin(f)
	if !ok || !setOrigin(d, id) {
		return
	}
	if b, err := stock.Believe(id, nil, nil); err == nil {
		d.Request.SteelID = b.SteelID
	}
}

func setOrigin(d *doc.Piece, v string) bool {
	o, ok := stock.FindOrigin(v)
	if v != "" && !ok {
		return false
	}
	d.Request.Origin = plan.Origin{ID: o.ID, Hazards: o.Hazards}
	return true
}

func acknowledge(d *doc.Piece, v string) bool {
	if h, ok := stock.FindHazard(v); !ok || h.Refuse {
		return false
	}
	o := &d.Request.Origin
	if !slices.Contains(o.Acknowledged, v) {
		o.Acknowledged = append(o.Acknowledged, v)
	}
	return true
}

func setGroove(d *doc.Piece, v string) bool {
	switch v {
	case "none":
		d.Request.Design.Grind.Groove = nil
	case "fuller", "strip", "back":
		d.Request.Design.Grind.Groove = blade.NewGroove(v, d.Request.Design)
	default:
		return false
	}
	return true
}

func setHandle(d *doc.Piece, v string) bool {
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
}

func setTangKind(d *blade.Design, v string) bool {
	k := blade.TangKind(v)
	if !slices.Contains(blade.TangKinds(), k) {
		return false
	}
	if k != d.TangKind {
		d.SetTang(k)
	}
	return true
}

// setBit gives a piece a bit of tool steel of usual size, or none; one that is there keeps its
// figures.
func setBit(r *plan.Request, v string) bool {
	if v == "none" {
		r.Bit = nil
		return true
	}
	if !slices.Contains(plan.BitKinds(), plan.BitKind(v)) {
		return false
	}
	if r.Bit == nil {
		even, err := r.Bar.Even()
		if err != nil {
			even.WidthMm, even.ThicknessMm = r.Design.HeightMm, r.Design.SpineMm
		}
		r.Bit = plan.NewBit(plan.BitKind(v), r, even.WidthMm, even.ThicknessMm)
	}
	r.Bit.Kind = plan.BitKind(v)
	return true
}

// setFlatBend bends a blade flatwise, as is usual for its length, or leaves it straight.
func setFlatBend(d *blade.Design, v string) bool {
	d.FlatBend = nil
	if v == "bent" {
		d.FlatBend = blade.NewFlatBend(*d)
	}
	return v == "bent" || v == "none"
}

// setTangForm gives a full tang the outline of a form; "plain" has it follow its grip, or its
// taper.
func setTangForm(d *blade.Design, v string) bool {
	if v == "plain" {
		d.ClearTangOutline()
		return true
	}
	return d.TangForm(blade.TangForm(v))
}

// setOrder takes the operations in this order, separated by commas; "planner"
// goes back to the planner's.
func setOrder(c *plan.Choices, v string, forced bool) bool {
	c.Order, c.Forced = nil, false
	if v == "planner" {
		return true
	}
	for id := range strings.SplitSeq(v, ",") {
		if id = strings.TrimSpace(id); !slices.Contains(forge.Kinds(), plan.KindOf(id)) || len(c.Order) == mostInOrder {
			return false
		}
		c.Order = append(c.Order, id)
	}
	c.Forced = forced
	return true
}

// tool sets face, support, machine or dies of an operation, as tool.ID.face; as tool.ID it
// goes back to the planner's.
func tool(c *plan.Choices, what string, e Edit) *Problem {
	op, part, _ := strings.Cut(what, ".")
	is := func(t plan.ToolUse) bool { return t.Operation == op }
	i := slices.IndexFunc(c.Tools, is)
	switch {
	case !plan.Tooled(plan.KindOf(op)) && (!plan.KindOf(op).Heavy() && !plan.KindOf(op).Trues() || part == "face" || part == "support"):
		return problemAt(e, "field.unknown", -1)
	case part == "":
		c.Tools = slices.DeleteFunc(c.Tools, is)
		return nil
	case i < 0:
		c.Tools = append(c.Tools, plan.ToolUse{Operation: op})
		i = len(c.Tools) - 1
	}
	t := &c.Tools[i]
	switch face, support, by, dies := forge.Face(e.Text), forge.Support(e.Text), plan.By(e.Text), forge.Dies(e.Text); {
	case part == "face" && slices.Contains(forge.DrawingFaces(), face):
		t.Face = face
	case part == "support" && slices.Contains(forge.Supports(), support):
		t.Support = support
	case part == "by" && (e.Text == "quicker" || slices.Contains(plan.Ways(), by)):
		if t.By = by; e.Text == "quicker" {
			t.By = ""
		}
	case part == "dies" && slices.Contains(forge.DiesList(), dies):
		t.Dies = dies
	default:
		return problemAt(e, "field.choice", -1)
	}
	return nil
}

// setMachine gives a smith a machine for the heavy work, or takes it away.
func setMachine(h *forge.Smith, v string) bool {
	k := forge.MachineKind(v)
	switch {
	case v == "none":
		h.Machine = nil
	case slices.Contains(forge.MachineKinds(), k):
		h.Machine = forge.NewMachine(k)
	default:
		return false
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

// swung changes the mass of a hammer: where its speed and pace are the arm's they follow it.
func swung(h *forge.Smith, change func() *Problem) *Problem {
	was := *h
	if bad := change(); bad != nil {
		return bad
	}
	*h = was.WithHammerKg(h.HammerKg)
	return nil
}

// hot changes how hot a forge is or what it burns, and keeps how hot it was when that was measured.
func hot(tempC, fuelKgPerH, fuelAtC *float64, change func() *Problem) *Problem {
	wasC, burnt := *tempC, *fuelKgPerH
	if bad := change(); bad != nil {
		return bad
	}
	switch {
	case *fuelKgPerH != burnt:
		*fuelAtC = *tempC
	case *tempC != wasC && *fuelAtC == 0:
		*fuelAtC = wasC
	}
	return nil
}

// hotFire is hot for the fire of a piece.
func hotFire(d *doc.Piece, e Edit) *Problem {
	f := &d.Request.Fire
	return hot(&f.TempC, &f.FuelKgPerH, &f.FuelAtC, func() *Problem { return setMember(&d.Request, e) })
}

func setSkill(h *forge.Smith, v string) bool {
	s := forge.Skill(v)
	if !slices.Contains(forge.Skills(), s) {
		return false
	}
	*h = h.WithSkill(s)
	return true
}
