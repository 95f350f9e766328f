package edit

import (
	"errors"
	"slices"
	"strconv"
	"strings"

	"coldember/core/billet"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/stock"
	"coldember/internal/doc"
)

// laid sets a figure or a step of how a bar was laid: a usual one at first.
func laid(d *doc.Stock, rest string, e Edit) *Problem {
	if rest == "none" {
		d.Billet = nil
		return nil
	}
	r := billet.NewRecipe("1084", "15N20")
	if d.Billet != nil {
		r = *d.Billet
		r.Stack, r.Cap, r.Steps = slices.Clone(r.Stack), slices.Clone(r.Cap), slices.Clone(r.Steps)
	}
	var wrong *Problem
	switch rest {
	case "lay", "made":
		if rest == "made" {
			wrong = yes(&r.Made, e)
		}
	case "layer.add":
		r.Stack = append(r.Stack, r.Stack[len(r.Stack)-1])
	case "layer.delete":
		if len(r.Stack) == 1 {
			return problemAt(e, "billet.empty", -1)
		}
		wrong = without(&r.Stack, e)
	case "cap":
		wrong = capped(&r, e)
	case "step.add":
		wrong = addStep(&r, e)
	case "step.delete":
		wrong = without(&r.Steps, e)
	case "for":
		wrong = layFor(&r, e)
	case "step.move":
		wrong = moveStep(&r, e)
	case "alternate":
		wrong = yes(&r.Alternate, e)
	case "edgeSteelId":
		edgeBar(&r, e)
	default:
		if strings.HasSuffix(rest, "turnEverySecond") {
			wrong = turned(&r, rest, e)
			break
		}
		inner := e
		inner.Field = rest
		if wrong = setMember(&r, inner); wrong != nil {
			wrong.Field = e.Field
		}
	}
	if wrong == nil {
		d.Billet = &r
	}
	return wrong
}

// edgeBar is of another steel, a quarter of the bar at first; or there is none.
func edgeBar(r *billet.Recipe, e Edit) {
	if r.EdgeSteelID = strings.TrimSpace(e.Text); r.EdgeSteelID == "" || r.EdgeSteelID == "none" {
		r.EdgeSteelID, r.EdgeMm = "", 0
	} else if r.EdgeMm == 0 {
		r.EdgeMm = r.BarWidthMm / 4
	}
}

// capped lays the lowest layer on top too, or nothing.
func capped(r *billet.Recipe, e Edit) *Problem {
	on := false
	wrong := yes(&on, e)
	if wrong == nil {
		if r.Cap = nil; on {
			r.Cap = []billet.Layer{r.Stack[0]}
		}
	}
	return wrong
}

// turned turns every second piece of a restack over, or none.
func turned(r *billet.Recipe, rest string, e Edit) *Problem {
	at, ok := place(strings.Split(rest+".", ".")[1], len(r.Steps))
	if !ok {
		return problemAt(e, "field.unknown", -1)
	}
	return yes(&r.Steps[at].TurnEverySecond, e)
}

// layFor takes "layers; length of the bar": what to lay for a bar that is wanted.
func layFor(r *billet.Recipe, e Edit) *Problem {
	p, bad := parts(e, 2)
	if bad != nil {
		bad.Code = "billet.wantParts"
		return bad
	}
	n, err := strconv.Atoi(strings.TrimSpace(p[0]))
	if err != nil {
		return problemAt(e, "billet.wantParts", 0)
	}
	long, bad := Length(e, p[1], len(p[0])+1)
	if bad != nil {
		return bad
	}
	want := billet.Wanted{Layers: n, LengthMm: long}
	out, err := r.For(want, forge.NewFire())
	var wrong *billet.Error
	if errors.As(err, &wrong) {
		at := e
		if wrong.Field != "for" {
			at.Field = "billet." + wrong.Field
		}
		told := problemAt(at, wrong.Code, -1)
		told.Figures = fact.Figures{"limit": wrong.Limit, "limitMm": wrong.Limit}
		return told
	}
	*r = out
	return nil
}

// moveStep takes "from; to": a step to another place.
func moveStep(r *billet.Recipe, e Edit) *Problem {
	p, bad := parts(e, 2)
	if bad != nil {
		return bad
	}
	from, ok := place(p[0], len(r.Steps))
	to, there := place(p[1], len(r.Steps))
	if !ok || !there {
		return problemAt(e, "field.unknown", -1)
	}
	s := r.Steps[from]
	r.Steps = slices.Insert(slices.Delete(r.Steps, from, from+1), to, s)
	return nil
}

// addStep adds a usual one of its kind.
func addStep(r *billet.Recipe, e Edit) *Problem {
	usual := map[billet.Kind]billet.Step{
		billet.Clean: {PerFaceMm: .15}, billet.Weld: {Heats: 2}, billet.Draw: {WidthMm: r.WidthMm, ThicknessMm: 12}, billet.Crop: {EndsMm: 15}, billet.GrindSides: {PerSideMm: .5},
		billet.Restack: {Pieces: 4, KerfMm: 2, PerFaceMm: .4}, billet.Fold: {KerfMm: 0, PerFaceMm: .4},
	}
	k := billet.Kind(strings.TrimSpace(e.Text))
	s, ok := usual[k]
	if !ok {
		return problemAt(e, "field.choice", -1)
	}
	s.Kind = k
	r.Steps = append(r.Steps, s)
	return nil
}

// barOf is the bar that a billet comes to: its steel is the one it has most of.
func barOf(d *doc.Stock) {
	if d.Billet == nil || d.Billet.Made && d.Piece.LengthMm > 0 {
		return // one that was welded is as long as it was measured, or as what was cut left it
	}
	o, err := d.Billet.Out(forge.NewFire())
	if err != nil || len(o.Shares) == 0 {
		return // Validate says so
	}
	d.Piece = stock.Item{Form: stock.Flat, WidthMm: d.Billet.BarWidthMm, ThicknessMm: d.Billet.BarThicknessMm, LengthMm: o.LengthMm, Dead: d.Piece.Dead}
	d.SteelID, d.Believed = o.Shares[0].SteelID, false
}
