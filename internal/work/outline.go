package work

import (
	"errors"
	"strconv"
	"strings"

	"coldember/core/blade"
	"coldember/core/quantity"
)

// editOutline changes the outline by nodes:
//
//	outline.spine.3   "42; -3.5"   puts the node there, from point and heel's spine
//	outline.add       "edge 60mm"  adds a node where the curve runs
//	outline.delete    "spine 3"
//	outline.corner    "spine 3"    makes it a corner, or smooth again
//	outline.mirror    ""           makes the edge the spine turned over
//	outline.heel      "205mm"      moves the heel along, the other nodes stay
func editOutline(d *blade.Design, what string, e Edit) *FieldProblem {
	if d.Shape != blade.Own {
		d.Outline = nil // start from the preset that is shown
	}
	if what == "mirror" {
		d.Mirror()
		return nil
	}
	if what == "heel" {
		x, bad := typedLength(e, e.Text, 0)
		if bad != nil {
			return bad
		}
		d.MoveHeel(x)
		return nil
	}
	side, rest, _ := strings.Cut(what, ".")
	if s := blade.Side(side); s == blade.SpineSide || s == blade.EdgeSide {
		i, err := strconv.Atoi(rest)
		if err != nil {
			return problemAt(e, "field.unknown", -1)
		}
		x, y, bad := pair(e)
		if bad != nil {
			return bad
		}
		if !d.MoveNode(s, i, x, y) {
			return problemAt(e, "outline.noNode", -1)
		}
		return nil
	}
	word, arg, _ := strings.Cut(strings.TrimSpace(e.Text), " ")
	s := blade.Side(word)
	if s != blade.SpineSide && s != blade.EdgeSide {
		return problemAt(e, "field.choice", 0)
	}
	done := false
	switch what {
	case "add":
		x, bad := typedLength(e, arg, len(word)+1)
		if bad != nil {
			return bad
		}
		done = d.AddNode(s, x)
	case "delete", "corner":
		i, err := strconv.Atoi(arg)
		if err != nil {
			return problemAt(e, "outline.noNode", len(word)+1)
		}
		if what == "delete" {
			done = d.DeleteNode(s, i)
		} else {
			done = d.ToggleCorner(s, i)
		}
	default:
		return problemAt(e, "field.unknown", -1)
	}
	if !done {
		return problemAt(e, "outline.noNode", -1)
	}
	return nil
}

// pair reads "x; y".
func pair(e Edit) (x, y float64, bad *FieldProblem) {
	left, right, ok := strings.Cut(e.Text, ";")
	if !ok {
		return 0, 0, problemAt(e, "outline.pair", len(e.Text))
	}
	if x, bad = typedLength(e, left, 0); bad != nil {
		return 0, 0, bad
	}
	y, bad = typedLength(e, right, len(left)+1)
	return x, y, bad
}

// typedLength reads one length out of a longer text, starting at offset.
func typedLength(e Edit, text string, offset int) (float64, *FieldProblem) {
	v, err := quantity.Parse(text, quantity.Length, e.Units)
	var pe *quantity.ParseError
	if errors.As(err, &pe) {
		p := problemAt(e, string(pe.Code), offset+pe.Offset)
		p.Found = pe.Found
		return 0, p
	}
	return v, nil
}
