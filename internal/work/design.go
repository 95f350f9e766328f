package work

import (
	"strconv"
	"strings"

	"coldember/core/blade"
)

// editTaper changes the distal taper by nodes:
//
//	taper.1        "42mm; 3.1mm"  puts the node there: from the point; thickness
//	taper.add      "60mm"         adds one where the taper runs
//	taper.delete   "1"
func editTaper(d *blade.Design, what string, e Edit) *FieldProblem {
	done := false
	switch what {
	case "add":
		x, bad := typedLength(e, e.Text, 0)
		if bad != nil {
			return bad
		}
		done = d.AddTaperNode(x)
	case "delete":
		i, err := strconv.Atoi(strings.TrimSpace(e.Text))
		done = err == nil && d.DeleteTaperNode(i)
	default:
		i, err := strconv.Atoi(what)
		if err != nil {
			return problemAt(e, "field.unknown", -1)
		}
		x, t, bad := pair(e)
		if bad != nil {
			return bad
		}
		done = d.MoveTaperNode(i, x, t)
	}
	if !done {
		return problemAt(e, "outline.noNode", -1)
	}
	return nil
}

// editHand fits handle and tang to a hand: "breadth; length".
func editHand(d *blade.Design, e Edit) *FieldProblem {
	breadth, length, bad := pair(e)
	if bad != nil {
		return bad
	}
	const least, most = 50, 260
	if breadth < least || breadth > length || length > most {
		return problemAt(e, "field.hand", -1)
	}
	d.FitHand(breadth, length)
	return nil
}

// editHole drills a hole ("add") or takes one out ("delete 1").
func editHole(d *blade.Design, e Edit) *FieldProblem {
	if e.Text == "add" {
		if !d.AddHole() {
			return problemAt(e, "field.hole", -1)
		}
		return nil
	}
	rest, ok := strings.CutPrefix(e.Text, "delete ")
	i, err := strconv.Atoi(rest)
	if !ok || err != nil || !d.DeleteHole(i) {
		return problemAt(e, "outline.noNode", -1)
	}
	return nil
}
