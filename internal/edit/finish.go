package edit

import (
	"slices"
	"strings"

	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/planner"
	"coldember/internal/doc"
)

// Taken is what a blade that was measured at the grinder is to become: sent whole.
type Taken struct {
	Design   blade.Design     `json:"design"`
	Readings []finish.Reading `json:"readings"`
	Pits     []finish.Pit     `json:"pits"`
	Was      finish.Was       `json:"was"`
}

// finishing sets how a knife is ground, fitted and sharpened; the first that is set takes the
// usual ones along, "finish.usual" goes back to them, but keeps what was measured.
func finishing(d *doc.Piece, rest string, e Edit) *Problem {
	r := &d.Request
	c := finish.Choices{}
	if r.Finish != nil {
		c = *r.Finish
		c.Readings, c.Pits = slices.Clone(c.Readings), slices.Clone(c.Pits)
	}
	var wrong *Problem
	switch rest {
	case "usual":
		c = finish.Choices{Readings: c.Readings, Pits: c.Pits, Was: c.Was, Hardened: c.Hardened}
	case "forget":
		c.Readings, c.Pits, c.Was = nil, nil, nil
	case "kept":
		if !whole(e.Text, func(k finish.Kept) {
			c.Block = k.Block
			if h := r.Design.Handle; h != nil {
				h.Material = k.Material
			}
		}) {
			wrong = problemAt(e, "field.choice", -1)
		}
	case "worn":
		wrong = yes(&c.Worn, e)
	case "hardened":
		wrong = yes(&c.Hardened, e)
	case "reading.add":
		wrong = addReading(&c, e)
	case "pit.add":
		wrong = addPit(&c, e)
	case "reading.delete":
		wrong = without(&c.Readings, e)
	case "pit.delete":
		wrong = without(&c.Pits, e)
	case "hollow":
		mm, bad := Length(e, e.Text, 0)
		if bad != nil {
			return bad
		}
		r.Design = planner.HollowOf(r.Design, mm)
		return nil
	case "take":
		if !whole(e.Text, func(t Taken) { r.Design, c.Readings, c.Pits, c.Was = t.Design, t.Readings, t.Pits, &t.Was }) {
			wrong = problemAt(e, "field.choice", -1)
		}
	default:
		inner := e
		inner.Field = rest
		if wrong = setMember(&c, inner); wrong != nil {
			wrong.Field = e.Field
		}
	}
	if wrong != nil {
		return wrong
	}
	r.Finish = &c
	return nil
}

// parts are so many texts with semicolons between them; code says in which order they stand.
func parts(e Edit, n int, code string) ([]string, *Problem) {
	out := strings.Split(e.Text, ";")
	if len(out) != n {
		return nil, problemAt(e, code, len(e.Text))
	}
	return out, nil
}

// ordered is what of a list is wrong, in the words that say its order: the place stays that of the
// part.
func ordered(p *Problem, code string) *Problem {
	p.Code = code
	return p
}

// addReading adds "from the point; above the edge; thickness", the last with how far it lies off
// the centre line where that is said.
func addReading(c *finish.Choices, e Edit) *Problem {
	if strings.Count(e.Text, ";") == 2 {
		e.Text += "; 0"
	}
	p, bad := parts(e, 4, "finish.readingOrder")
	if bad != nil {
		return bad
	}
	var q finish.Reading
	at := 0
	for i, to := range []*float64{&q.XMm, &q.YMm, &q.ThicknessMm, &q.OffMm} {
		if *to, bad = Length(e, p[i], at); bad != nil {
			return ordered(bad, "finish.readingOrder")
		}
		at += len(p[i]) + 1
	}
	if q.XMm < 0 || q.YMm < 0 {
		return problemAt(e, "finish.readingOrder", 0)
	}
	c.Readings = append(c.Readings, q)
	return nil
}

// addPit adds "from the point; above the edge; front or back; depth".
func addPit(c *finish.Choices, e Edit) *Problem {
	p, bad := parts(e, 4, "finish.pitOrder")
	if bad != nil {
		return bad
	}
	q := finish.Pit{Face: finish.Face(strings.ToLower(strings.TrimSpace(p[2])))}
	if q.Face != finish.Front && q.Face != finish.Back {
		return problemAt(e, "finish.pitOrder", len(p[0])+len(p[1])+2)
	}
	if q.XMm, bad = Length(e, p[0], 0); bad != nil {
		return ordered(bad, "finish.pitOrder")
	}
	if q.YMm, bad = Length(e, p[1], len(p[0])+1); bad != nil {
		return ordered(bad, "finish.pitOrder")
	}
	if q.DepthMm, bad = Length(e, p[3], len(p[0])+len(p[1])+len(p[2])+3); bad != nil {
		return ordered(bad, "finish.pitOrder")
	}
	if q.XMm < 0 || q.YMm < 0 {
		return problemAt(e, "finish.pitOrder", 0)
	}
	c.Pits = append(c.Pits, q)
	return nil
}
