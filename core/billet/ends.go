package billet

import (
	"math"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/steel"
)

// Bounds of bars that are cut across (judgement): how often one is laid to four on itself, and what
// a band saw takes.
const (
	mostFours     = 3
	usualKerfMm   = 1.5
	mostDrawnOut  = 2.5 // times as long: ends are drawn to stripes
	leastSlice    = 1.0
	fourHeats     = 2
	endsPerFourth = 4
)

// Ends tells whether the face of a pattern is made of the ends of a bar.
func (p Pattern) Ends() bool { return p == EndGrain || p == Mosaic }

// endOf is where in the section of the bar that was cut a point of its face lies, from −1 to 1 across
// (u) and up through its layers (v). The bar is cut into slices, which are laid one behind the other
// with what was their section as the face; what was length is now depth.
func (b *Bar) endOf(p Point) (u, v float64) {
	x := p.XMm * (b.ForgedWidthMm * b.ForgedThicknessMm) / (b.WidthMm * b.SliceMm)
	tile := math.Floor(x / b.ThicknessMm)
	u, v = p.YMm/(b.ForgedWidthMm/2), 2*(x/b.ThicknessMm-tile)-1
	if b.TurnsPer100Mm == 0 {
		return u, v
	}
	atMm := tile*(b.SliceMm+usualKerfMm) + (1+p.DepthShare*p.Side)*b.SliceMm/2
	turn := 2 * math.Pi * b.TurnsPer100Mm / 100 * atMm
	if b.Hand == Left {
		turn = -turn
	}
	return turned(u, v, -turn)
}

// turned turns a point of a square of half side 1, true to area: through the disc and back.
func turned(u, v, angle float64) (across, up float64) {
	r, a := toDisc(u, v)
	a += angle
	return upOfDisc(r, a+math.Pi/2), upOfDisc(r, a)
}

// quartered is where in one bar a point of a section lies that was laid together of four of it, each
// a mirror of its neighbours, and drawn back to the size of one; so often.
func quartered(u, v float64, times int, onCorner bool) (across, up float64) {
	for range times {
		u, v = 2*math.Abs(u)-1, 2*math.Abs(v)-1
	}
	if onCorner {
		return turned(u, v, math.Pi/4)
	}
	return u, v
}

// ends takes a bar apart to slices and lays these to the bar that is forged: what saw and welds take,
// and what is left too short for another slice. It answers with the length that the slices come to
// as they lie, the whole of it in volume.
func (o *Outcome) ends(r *Recipe, fire forge.Fire, last *State, w *weldings) {
	if !r.Pattern.Ends() {
		return
	}
	g, err := steel.Find(last.Laid[0].SteelID)
	if err != nil {
		return
	}
	section := last.WidthMm * last.ThicknessMm
	long := last.LengthMm
	lost := func(step string, mm3 float64) {
		if mm3 > 1e-9 {
			o.Lost = append(o.Lost, Lost{step, grams(mm3), mm3 / r.patterned()})
		}
	}
	if r.Pattern == Mosaic {
		for range max(1, r.Fours) {
			kerf := math.Min(long, (endsPerFourth-1)*usualKerfMm)
			burnt := r.burn(fire, g, fourHeats, (long-kerf)*section, last.WidthMm*2, last.ThicknessMm*2, w)
			lost("fours", (kerf+(long-kerf)*burnt)*section)
			long = (long - kerf) * (1 - burnt)
		}
	}
	rows := max(1, r.Beside)
	n := int((long + usualKerfMm) / (r.SliceMm + usualKerfMm))
	n -= n % rows
	o.Slices = n
	used := float64(n) * r.SliceMm * section
	lost("slices", long*section-used)
	burnt := 0.0
	if used > 0 {
		burnt = r.burn(fire, g, joinHeats, used, last.WidthMm*float64(rows), r.SliceMm, w)
	}
	lost("slicesWeld", used*burnt)
	last.VolumeMm3 = used * (1 - burnt)
}

// judgeEnds tells what of slices a smith should know.
func (o *Outcome) judgeEnds(r *Recipe, last *State, find func(string, fact.Severity, fact.Figures)) {
	if !r.Pattern.Ends() {
		return
	}
	wide := last.WidthMm * float64(max(1, r.Beside))
	if o.Slices < 1 {
		find("billet.noSlice", fact.Stop, fact.Figures{"mm": r.SliceMm})
		return
	}
	longer := wide * r.SliceMm / r.patterned()
	if longer > mostDrawnOut {
		find("billet.drawnOut", fact.Note, fact.Figures{"times": longer, "limitMm": math.Max(leastSlice, mostDrawnOut*r.patterned()/wide)})
	}
	if square := last.WidthMm / last.ThicknessMm; r.Pattern == Mosaic && (square > 1.1 || square < 1/1.1) {
		find("billet.endNotSquare", fact.Warn, fact.Figures{"widthMm": last.WidthMm, "thicknessMm": last.ThicknessMm})
	}
	find("billet.endsHeld", fact.Note, nil)
}
