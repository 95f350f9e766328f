package practice

import "math"

// what a goal measures of a cell.
func (w What) of(c *cell) float64 {
	switch w {
	case Wide:
		return c.wide
	case Edge:
		return c.edge
	case Thick:
		return c.thick()
	}
	return 0
}

// local tells whether a goal is of a stretch, and not of the whole piece.
func (w What) local() bool { return w == Wide || w == Thick || w == Edge }

// strayMm is how far the piece lies off a straight line at the most.
func (g *game) strayMm() (most float64) {
	for _, l := range g.line() {
		most = math.Max(most, math.Max(math.Abs(l.bow), math.Abs(l.sweep)))
	}
	return most
}

// off is how far a place is off what is wanted there.
func (g *game) off(x float64, c *cell) *Off {
	var out *Off
	for _, goal := range g.ex.Goals {
		if !goal.What.local() || x < goal.FromMm || x > goal.ToMm {
			continue
		}
		if out == nil {
			out = &Off{}
		}
		by := math.Round((goal.What.of(c)-goal.at(x))*100) / 100
		switch goal.What {
		case Wide:
			out.WideMm = &by
		case Thick:
			out.ThickMm = &by
		case Edge:
			out.EdgeMm = &by
		}
	}
	return out
}

// mark holds a goal against the piece: where it is farthest off.
func (g *game) mark(goal Goal) Mark {
	m := Mark{Goal: goal}
	switch goal.What {
	case Long:
		m.IsMm = g.lengthMm()
		m.Met = m.IsMm >= goal.WantMm-goal.WithinMm
		return m
	case NoCold:
		m.IsMm = float64(g.coldOnes)
		m.Met = g.coldOnes == 0
		return m
	case Straight:
		m.IsMm = math.Round(g.strayMm()*100) / 100
		m.Met = m.IsMm <= goal.WithinMm
		return m
	case Broken:
		for i, x := range g.middles() {
			if x >= goal.FromMm && x <= goal.ToMm {
				m.IsMm = math.Max(m.IsMm, g.cells[i].sharp)
			}
		}
		m.Met = m.IsMm <= brokenUnder
		return m
	}
	worst := -1.0
	for i, x := range g.middles() {
		if x < goal.FromMm || x > goal.ToMm {
			continue
		}
		is := goal.What.of(&g.cells[i])
		if d := math.Abs(is - goal.at(x)); d > worst {
			worst, m.IsMm = d, is
		}
	}
	m.Met = worst >= 0 && worst <= goal.WithinMm
	return m
}
