package edit

import (
	"slices"
	"strconv"
	"strings"

	"coldember/core/blade"
)

// outline changes the outline by nodes.
func outline(d *blade.Design, what string, e Edit) *Problem {
	if d.Shape != blade.Own {
		d.Outline = nil // start from the preset that is shown
	}
	if what == "mirror" {
		d.Mirror()
		return nil
	}
	if what == "heel" {
		x, bad := Length(e, e.Text, 0)
		if bad != nil {
			return bad
		}
		d.MoveHeel(x)
		return nil
	}
	side, rest, _ := strings.Cut(what, ".")
	if s := blade.Side(side); slices.Contains(blade.Sides(), s) {
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
	if !slices.Contains(blade.Sides(), s) {
		return problemAt(e, "field.choice", 0)
	}
	done := false
	switch what {
	case "add":
		x, bad := Length(e, arg, len(word)+1)
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

// taper changes the distal taper by nodes.
func taper(d *blade.Design, what string, e Edit) *Problem {
	done := false
	switch what {
	case "add":
		x, bad := Length(e, e.Text, 0)
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

// setBevel sets the bevel to platen or jig.
func setBevel(d *blade.Design, e Edit) *Problem {
	deg, bad := Number(e)
	if bad != nil {
		return bad
	}
	if low, high, ok := d.SetBevel(deg); !ok {
		return outside(e, "field.range", low, high)
	}
	return nil
}

// fitHand fits handle and tang to a hand: "breadth; length".
func fitHand(d *blade.Design, e Edit) *Problem {
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

// drill drills a hole ("add"), saws a slot ("slot") or takes one out ("delete 1").
func drill(d *blade.Design, e Edit) *Problem {
	switch e.Text {
	case "add":
		if !d.AddHole() {
			return problemAt(e, "field.hole", -1)
		}
		return nil
	case "slot":
		if !d.AddSlot() {
			return problemAt(e, "field.slot", -1)
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
