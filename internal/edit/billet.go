package edit

import (
	"errors"
	"reflect"
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
	switch rest {
	case "none":
		d.Billet = nil
		return nil
	case "log":
		return welded(d, e)
	case "log.delete":
		return without(&d.Welded, e)
	case "etch":
		d.EtchID = strings.TrimSpace(e.Text)
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
	case "alternate", "onCorner", "edgeSteelId", "edgeWay", "pattern", "by":
		wrong = laidChoice(&r, rest, e)
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
		keepBillet(d, r, rest == "for")
	}
	return wrong
}

// keepBillet keeps a recipe; one that is laid out otherwise by hand no longer has the count that was
// asked for.
func keepBillet(d *doc.Stock, r billet.Recipe, asked bool) {
	if !asked && d.Billet != nil && !reflect.DeepEqual(r.Billet, d.Billet.Billet) {
		r.WantLayers = 0
	}
	d.Billet = &r
}

// laidChoice sets what is chosen from a list, with what comes with it.
func laidChoice(r *billet.Recipe, field string, e Edit) *Problem {
	switch field {
	case "alternate":
		return yes(&r.Alternate, e)
	case "onCorner":
		return yes(&r.OnCorner, e)
	case "edgeSteelId":
		edgeBar(r, e)
	case "edgeWay":
		edgeWay(r, e)
	case "pattern":
		return patternOf(r, e)
	case "by":
		if r.By = forge.MachineKind(strings.TrimSpace(e.Text)); r.By == "hand" {
			r.By = ""
		}
	}
	return nil
}

// edgeBar is of another steel, a quarter of the bar at first; or there is none.
func edgeBar(r *billet.Recipe, e Edit) {
	if r.EdgeSteelID = strings.TrimSpace(e.Text); r.EdgeSteelID == "" || r.EdgeSteelID == "none" {
		r.EdgeSteelID, r.EdgeMm = "", 0
	} else if r.EdgeMm == 0 {
		r.EdgeMm = r.BarWidthMm / 4
	}
}

// edgeWay is how the steel of the edge meets the rest; a wrap and a bit are usual ones at first.
func edgeWay(r *billet.Recipe, e Edit) {
	r.EdgeWay = billet.EdgeWay(strings.TrimSpace(e.Text))
	switch r.EdgeWay {
	case billet.Wrapped:
		r.EdgeThickMm = r.BarThicknessMm / 5
	case billet.Cleft:
		r.EdgeThickMm = r.BarThicknessMm / 2
	default:
		r.EdgeWay, r.EdgeThickMm = "", 0
	}
}

// patternOf is another pattern, with what it cannot do without as it usually is. Steps that only layers
// have go where there are none.
func patternOf(r *billet.Recipe, e Edit) *Problem {
	p := billet.Pattern(strings.TrimSpace(e.Text))
	if !slices.Contains(billet.Patterns(), p) {
		return problemAt(e, "field.choice", -1)
	}
	r.Pattern = p
	if p.Ends() {
		if r.SliceMm == 0 {
			r.SliceMm = 12
		}
		r.Turns, r.Fours = 0, 0
		if p == billet.Mosaic {
			r.Fours, r.OnCorner = 1, true
		}
	}
	if p == billet.Ladder || p == billet.Pressed || p == billet.Dimple {
		usual := func(v *float64, mm float64) {
			if *v == 0 {
				*v = mm
			}
		}
		usual(&r.PitchMm, 10)
		usual(&r.DepthMm, 1.5)
		usual(&r.HalfMm, 4)
		usual(&r.RadiusMm, 4)
	}
	if !p.Filled() {
		r.Fill = nil
		return nil
	}
	r.Fill = billet.UsualFill(p)
	if p == billet.Cable && r.Turns == 0 {
		r.Turns = 4 // the lay of a usual rope
	}
	r.Steps = slices.DeleteFunc(r.Steps, func(s billet.Step) bool {
		return s.Kind == billet.Clean || s.Kind == billet.Restack || s.Kind == billet.Fold
	})
	if p == billet.Chain {
		r.Flux, r.WidthMm = billet.Canister, r.Fill.CanMm
		if len(r.Stack) < 2 {
			r.Stack = append(r.Stack, billet.Layer{SteelID: "15N20", ThicknessMm: 1})
		}
	}
	return nil
}

// welded is what happened to a billet: "kind; millimetres or layers; words". A split and what was
// salvaged come off a bar that is welded.
func welded(d *doc.Stock, e Edit) *Problem {
	p := strings.SplitN(e.Text, ";", 3)
	w := doc.Welded{Kind: strings.TrimSpace(p[0])}
	if !slices.Contains(doc.WeldedKinds(), w.Kind) {
		return problemAt(e, "field.choice", 0)
	}
	if len(d.Welded) >= doc.MostWelded {
		return problemAt(e, "billet.logFull", -1)
	}
	if len(p) > 1 && strings.TrimSpace(p[1]) != "" {
		if bad := muchOf(&w, p[1], e, len(p[0])+1); bad != nil {
			return bad
		}
	}
	if len(p) > 2 {
		w.Words = strings.TrimSpace(p[2])
	}
	if w.Kind == "note" && w.Words == "" {
		return problemAt(e, "billet.logWords", -1)
	}
	if w.Kind == "split" || w.Kind == "salvaged" {
		barOf(d, e.fire) // laid in the same breath it has no length yet
		switch made := d.Billet != nil && d.Billet.Made; {
		case w.Mm < 0 || made && w.Mm >= d.Piece.LengthMm:
			at := problemAt(e, "billet.logLong", len(p[0])+1)
			at.Figures = fact.Figures{"limitMm": d.Piece.LengthMm}
			return at
		case made:
			d.Piece.LengthMm -= w.Mm
		}
	}
	d.Welded = append(slices.Clone(d.Welded), w)
	return nil
}

// muchOf reads how much: layers are counted, all else is a length of the bar.
func muchOf(w *doc.Welded, text string, e Edit, offset int) *Problem {
	if w.Kind != "layers" {
		mm, bad := Length(e, text, offset)
		w.Mm = mm
		return bad
	}
	n, err := strconv.Atoi(strings.TrimSpace(text))
	if err != nil || n < 0 || n > billet.MostLayers {
		return problemAt(e, "billet.logLayers", offset)
	}
	w.Layers = n
	return nil
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
	p, bad := parts(e, 2, "billet.wantParts")
	if bad != nil {
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
	out, err := r.For(want, e.fire)
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
	p, bad := parts(e, 2, "billet.moveOrder")
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
func barOf(d *doc.Stock, fire forge.Fire) {
	if d.Billet == nil || d.Billet.Made && d.Piece.LengthMm > 0 {
		return // one that was welded is as long as it was measured, or as what was cut left it
	}
	o, err := d.Billet.Out(fire)
	if err != nil || len(o.Shares) == 0 {
		return // Validate says so
	}
	d.Piece = stock.Item{Form: stock.Flat, WidthMm: d.Billet.BarWidthMm, ThicknessMm: d.Billet.BarThicknessMm, LengthMm: o.LengthMm, Dead: d.Piece.Dead}
	d.SteelID, d.Believed = o.Shares[0].SteelID, false
}
