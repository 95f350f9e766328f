package forge

import "math"

// side is what strokes fall on: the faces of the piece, or its edges, to which it is turned.
type side int

const (
	onFaces side = iota
	onEdges
	sides
)

// on is what strokes on a side owe a cell, as strain.
func (e *effort) on(s side) float64 {
	if s == onEdges {
		return e.edge
	}
	return e.flat
}

// worked is how far a cell has come with what strokes on each side owed it as the heat began, and
// whether what is left of that is spared. One that owes nothing is gone over on its faces.
type worked struct {
	share  [sides]float64
	spared [sides]bool
}

// all is the share of all that a cell owed.
func (w *worked) all(e *effort) float64 {
	if e.flat+e.edge == 0 {
		return w.share[onFaces]
	}
	return (w.share[onFaces]*e.flat + w.share[onEdges]*e.edge) / (e.flat + e.edge)
}

// left is what strokes on a side are still to bring a cell, as strain.
func (w *worked) left(e *effort, s side) float64 {
	if w.spared[s] {
		return 0
	}
	return e.on(s) * (1 - w.share[s])
}

// place is where the tool may be put: the cells under it, what strokes on that side owed them as
// the heat began and are still to bring, and how much coverage leaves to one blow: strain times volume.
type place struct {
	side                       side
	first, last                int
	longMm                     float64
	leftMm3, allMm3, coversMm3 float64
}

// under is the place whose cells end with at, or those that end the stretch.
func (b *blows) under(at int, s side) place {
	cells := b.r.Bar.Cells
	bite := b.d.face.Bears(cells[at].ThicknessMm)
	if s == onEdges {
		bite = b.d.onEdge.Bears(cells[at].WidthMm)
	}
	p := place{side: s, first: at, last: at, longMm: cells[at].LengthMm(), coversMm3: math.Inf(1)}
	for p.first > b.rec.First && p.longMm < bite {
		p.first--
		p.longMm += cells[p.first].LengthMm()
	}
	for p.last < b.rec.Last && p.longMm < bite {
		p.last++
		p.longMm += cells[p.last].LengthMm()
	}
	both := 0.0
	for i := p.first; i <= p.last; i++ {
		e, w, v := &b.r.work[i], &b.done[i-b.rec.First], cells[i].VolumeMm3
		p.leftMm3, p.allMm3, both = p.leftMm3+w.left(e, s)*v, p.allMm3+e.on(s)*v, both+(e.flat+e.edge)*v
		if s == onFaces && e.flat+e.edge == 0 {
			p.allMm3, both = p.allMm3+leastOwed*v, both+leastOwed*v
			if !b.over(w) {
				p.leftMm3 += leastOwed * v * (1 - w.share[onFaces])
			}
		}
	}
	if b.binds {
		p.coversMm3 = both * b.goesOver(p.longMm)
	}
	return p
}

// leastOwed stands for what a cell owes that is only gone over, as a strain.
const leastOwed = 1e-6

// goesOver is the share of what the cells under so much contact owe that coverage leaves to one blow that lands.
func (b *blows) goesOver(longMm float64) float64 {
	return b.most / b.d.lands * math.Max(1, b.longMm/longMm)
}

// over tells whether a cell that owes nothing is gone over, to half a blow; it need not be where the rest takes more blows.
func (b *blows) over(w *worked) bool {
	return !b.binds || w.spared[onFaces] || 1-w.share[onFaces] < math.Max(1e-9, b.goesOver(b.d.face.BiteMm)/2)
}

// next is where the tool is put: where, after the blow, least is done; among places that one blow
// finishes, where most is left. There is none where every cell has had what it owed, or is spared it.
func (b *blows) next() (best place, some bool) {
	least, most := math.Inf(1), 0.0
	for s := onFaces; s < sides; s++ {
		for at := b.rec.Last; at >= b.rec.First; at-- {
			p := b.under(at, s)
			if p.leftMm3 <= 1e-9*p.allMm3 {
				continue
			}
			if b.gives[s] == 0 {
				b.measure(&p)
			}
			all := p.allMm3 / math.Min(b.gives[s], p.coversMm3) // in blows
			left, after := p.leftMm3/p.allMm3*all, 1.0
			if left > hardest {
				after = (all - left + 1) / all
			}
			if after < least-1e-9 || after < least+1e-9 && left > most*(1+1e-9) {
				least, most, best, some = after, left, p, true
			}
		}
	}
	return best, some
}
