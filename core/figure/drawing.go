package figure

import (
	"math"
	"slices"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
)

// Sketch is the finished blade of a design ready to be drawn, without a plan.
// Errors are fact.FieldErrors.
func Sketch(d blade.Design) ([]plan.Station, error) {
	body, err := blade.New(d.Blade())
	if err != nil {
		return nil, plan.FieldError(err)
	}
	return stations(body, ZonesOf(body)), nil
}

// Bodies makes finished blade and forged shape of a design, with their drawing,
// for what needs no bar and no heats. Errors are fact.FieldErrors.
func Bodies(d blade.Design, a blade.Allowances) (finished, forged *blade.Body, out plan.Drawing, err error) {
	b := d.Blade()
	return bodies(b, b.Forged(a, 0))
}

// BodiesOf are those of a piece of work, whose bar sets what it is forged to.
func BodiesOf(r plan.Request) (finished, forged *blade.Body, out plan.Drawing, err error) {
	bar, err := r.Bar.Even()
	if err != nil {
		return nil, nil, out, err
	}
	b := r.Design.Blade()
	return bodies(b, ForgedShape(r, b, bar))
}

func bodies(fin, fog blade.Blade) (finished, forged *blade.Body, out plan.Drawing, err error) {
	if finished, err = blade.New(fin); err != nil {
		return nil, nil, out, plan.FieldError(err)
	}
	if forged, err = blade.New(fog); err != nil {
		return nil, nil, out, plan.FieldError(err)
	}
	return finished, forged, Drawn(finished, forged, ZonesOf(forged)), nil
}

// Drawn is the drawing of a finished blade and its forged shape, in the zones given.
func Drawn(fin, fog *blade.Body, forgedZones []Zone) plan.Drawing {
	fz := ZonesOf(fin)
	return plan.Drawing{Bent: bent(fin), Finished: stations(fin, fz), Forged: stations(fog, forgedZones), FinishedZones: spans(fz), ForgedZones: spans(forgedZones)}
}

// bent rounds the drawing of a bent blade: a plan carries it.
func bent(b *blade.Body) *blade.Bent {
	out := b.BentBlade()
	if out == nil {
		return nil
	}
	for _, loop := range [][]blade.Node{out.Side, out.Spine} {
		for i := range loop {
			loop[i] = blade.Node{micron(loop[i][0]), micron(loop[i][1])}
		}
	}
	return out
}

func spans(zones []Zone) []plan.Span {
	out := make([]plan.Span, len(zones))
	for i, z := range zones {
		out[i] = plan.Span{Zone: z.Name, FromMm: z.FromMm, ToMm: z.ToMm}
	}
	return out
}

// drawnStations is how many stations a blade is drawn with; they crowd toward
// the point where the outline turns.
const drawnStations = 44

// A tang with an outline is drawn every so many mm, and at no more places than this.
const (
	tangDrawnMm   = 3.0
	tangDrawnMost = 60
)

func stations(b *blade.Body, zones []Zone) []plan.Station {
	var out []plan.Station
	l := b.LengthMm()
	meets := zones[0].ToMm // drawn once for the point and once for the blade
	done := false
	for i := range drawnStations + 1 {
		u := float64(i) / drawnStations
		x := l * u * u
		if !done && x >= meets {
			done = true
			for _, z := range []Zone{zones[0], zones[1]} {
				s := at(b, zones[:2], meets)
				s.Zone = z.Name
				out = append(out, s)
			}
		}
		if x != meets {
			out = append(out, at(b, zones[:2], x))
		}
	}
	for _, z := range zones[2:] {
		xs := []float64{z.FromMm, z.ToMm}
		if r := b.Blade.Ricasso; z.Name == plan.ZoneRicasso && r != nil {
			xs = r.Stations()
			for i := range xs {
				xs[i] += z.FromMm
			}
		}
		if t := b.Blade.Tang; z.Name == plan.ZoneTang && t != nil {
			xs = t.Stations(math.Max(tangDrawnMm, t.LengthMm/tangDrawnMost))
			for i := range xs {
				xs[i] += z.FromMm
			}
		}
		xs[0] += 1e-6
		for _, x := range xs {
			out = append(out, at(b, zones, x))
		}
	}
	return out
}

func at(b *blade.Body, zones []Zone, x float64) plan.Station {
	p, ok := SliceAt(b, zones, x)
	if !ok { // the very point
		y := b.SpineY(0)
		return plan.Station{XMm: x, SpineY: y, EdgeY: b.EdgeY(0), ThicknessMm: b.SectionAt(0).SpineMm, Zone: plan.ZonePoint}
	}
	return plan.Station{XMm: x, SpineY: p.SpineY, EdgeY: p.EdgeY, ThicknessMm: p.SpineMm, Zone: p.Zone}
}

// perCell is how many stations a simulated cell is drawn with.
const perCell = 3

// CurledPerCell is how many where a tang is turned into an eye or folded back.
const CurledPerCell = 10

// notchSeenMm is how deep a notch in the tang is at the least, to be drawn as one.
const notchSeenMm = 0.1

// Shape draws the piece in a state of its forging. Within a cell it follows the
// forged outline as far as the cell has come from the bar's section toward it.
func Shape(cells []Cell, from forge.Cell, bar forge.Bar) []plan.Station {
	out := make([]plan.Station, 0, len(cells)*perCell)
	x := 0.0
	barCentre := (cells[0].CentreMm + cells[len(cells)-1].CentreMm) / 2
	even := blended(cells, bar)
	for i := range bar.Cells {
		c, f := &even[i], &cells[i]
		l := bar.Cells[i].LengthMm()
		done := come(c, &forge.Cell{WidthMm: f.Final.WidthMm, ThicknessMm: f.Final.ThicknessMm}, &from)
		seen, under := done, 0.0
		switch whole := f.Bevelled.WidthMm; { // a notch is not seen before it is driven in
		case f.Zone == plan.ZoneRicasso && whole > f.Final.WidthMm:
			done = progress(c.WidthMm, whole, f.Final.WidthMm)
			seen = done
		case f.Zone == plan.ZoneTang && whole > f.Final.WidthMm+notchSeenMm:
			seen = progress(c.WidthMm, whole, f.Final.WidthMm)
			under = math.Max(0, math.Min(whole, c.WidthMm)-f.Final.WidthMm) / 2 * done
		}
		for _, d := range f.Drawn {
			h := c.WidthMm * (1 + (d.HeightMm/f.Final.WidthMm-1)*seen)
			t := c.SpineMm * (1 + (d.SpineMm/f.Final.SpineMm-1)*done)
			y := barCentre + (d.CentreMm-barCentre)*done - under
			st := plan.Station{XMm: micron(x + d.Share*l), SpineY: micron(y + h/2), EdgeY: micron(y - h/2), ThicknessMm: micron(t), Zone: c.Zone, TempC: math.Round(c.TempC)}
			if c.EdgeMm < c.SpineMm*.995 {
				st.EdgeMm = micron(t * c.EdgeMm / c.SpineMm)
			}
			wedge := (c.SpineMm + math.Min(c.EdgeMm, c.SpineMm)) / 2
			if math.Abs(c.ThicknessMm/wedge-1) > seenMean {
				st.MeanMm = micron(t * c.ThicknessMm / c.SpineMm)
			}
			out = append(out, st)
		}
		if i > 0 && runsOn(cells[i-1].Zone, f.Zone) {
			blend(&out[len(out)-len(f.Drawn)-1], &out[len(out)-len(f.Drawn)])
		}
		x += l
	}
	bendAsItIs(cells, out, bar)
	return out
}

// seenMean is by what share a section may differ from a wedge and be drawn as one.
const seenMean = 0.003

// blendMm is how far the steel beside a worked stretch is drawn along with it (judgement:
// about half a face of the hammer).
const blendMm = 12.0

// blended are the cells as they are drawn: how far each still is from its final section is
// the mean of what lies within reach of it, the nearer the more, so that a few millimetres
// that are left for another heat do not stand up like a fin; never beyond what the steel within reach is.
func blended(cells []Cell, bar forge.Bar) []forge.Cell {
	out := slices.Clone(bar.Cells)
	is, owed := make([][4]float64, len(out)), make([][4]float64, len(out)) // width, spine, edge and area, and over those of the end
	at := make([]float64, len(out))
	x := 0.0
	for i := range out {
		c, f := &out[i], &cells[i].Final
		is[i] = [4]float64{c.WidthMm, c.SpineMm, c.EdgeMm, c.WidthMm * c.ThicknessMm}
		for d, end := range [4]float64{f.WidthMm, f.SpineMm, f.EdgeMm, f.WidthMm * f.ThicknessMm} {
			owed[i][d] = is[i][d] / end
		}
		l := c.LengthMm()
		at[i], x = x+l/2, x+l
	}
	for i := range out {
		var sum [4]float64
		low, high, all := is[i], is[i], 0.0
		add := func(k int) bool {
			w := (1 - math.Abs(at[k]-at[i])/blendMm) * bar.Cells[k].LengthMm()
			if w <= 0 {
				return false
			}
			for d := range sum {
				sum[d] += w * owed[k][d]
				low[d], high[d] = math.Min(low[d], is[k][d]), math.Max(high[d], is[k][d])
			}
			all += w
			return true
		}
		add(i)
		for k := i - 1; k >= 0 && runsOn(cells[k].Zone, cells[k+1].Zone) && add(k); k-- {
			continue
		}
		for k := i + 1; k < len(out) && runsOn(cells[k-1].Zone, cells[k].Zone) && add(k); k++ {
			continue
		}
		drawn := func(d int) float64 { return math.Max(low[d], math.Min(high[d], is[i][d]/owed[i][d]*sum[d]/all)) }
		c := &out[i]
		c.WidthMm, c.SpineMm, c.EdgeMm, c.ThicknessMm = drawn(0), drawn(1), drawn(2), drawn(3)/drawn(0)
	}
	keepVolume(cells, bar, out)
	return out
}

// keepVolume makes what is drawn as heavy as the steel is, run by run.
func keepVolume(cells []Cell, bar forge.Bar, drawn []forge.Cell) {
	for from := 0; from < len(drawn); {
		to, is, as := from, 0.0, 0.0
		for ; to < len(drawn) && (to == from || runsOn(cells[to-1].Zone, cells[to].Zone)); to++ {
			is += bar.Cells[to].VolumeMm3
			as += bar.Cells[to].LengthMm() * drawn[to].WidthMm * drawn[to].ThicknessMm
		}
		for i := from; i < to; i++ {
			c := &drawn[i]
			c.ThicknessMm, c.SpineMm, c.EdgeMm = c.ThicknessMm*is/as, c.SpineMm*is/as, c.EdgeMm*is/as
		}
		from = to
	}
}

// runsOn tells whether steel of one zone goes over into the next without a shoulder.
func runsOn(a, b string) bool {
	return a == b || a == plan.ZonePoint && b == plan.ZoneBlade
}

// blend brings two stations that meet to one section: where one stretch has been worked and
// the next not yet, the steel between them runs from one to the other.
func blend(a, b *plan.Station) {
	mean := func(x, y *float64) {
		m := micron((*x + *y) / 2)
		*x, *y = m, m
	}
	mean(&a.SpineY, &b.SpineY)
	mean(&a.EdgeY, &b.EdgeY)
	if a.EdgeMm > 0 && b.EdgeMm > 0 {
		mean(&a.EdgeMm, &b.EdgeMm)
	}
	mean(&a.ThicknessMm, &b.ThicknessMm)
}

// micron rounds a drawn figure: a plan carries thousands of them.
func micron(mm float64) float64 { return math.Round(mm*1000) / 1000 }

// wellTold is the change of an area, as a true strain, from which it alone tells how far a section has come.
const wellTold = 0.1

// come is how far a section has come from the bar's to the final one, 0–1: by its area, which width and thickness
// alike lead to; where that hardly changes, by both of them, since a hundredth of a millimetre would make a half of it.
func come(c, final, bar *forge.Cell) float64 {
	area := func(c *forge.Cell) float64 { return c.WidthMm * c.ThicknessMm }
	byArea, whole := progress(area(c), area(bar), area(final)), math.Abs(math.Log(area(final)/area(bar)))
	if whole >= wellTold {
		return byArea
	}
	off := func(c *forge.Cell) float64 {
		return math.Hypot(math.Log(c.WidthMm/final.WidthMm), math.Log(c.ThicknessMm/final.ThicknessMm))
	}
	bySides := math.Max(0, 1-off(c)/math.Max(off(bar), 1e-3))
	return bySides + whole/wellTold*(byArea-bySides)
}

// progress is how far an area or a width has come from the bar's to the final one, 0–1.
func progress(area, from, to float64) float64 {
	whole := math.Log(to / from)
	if math.Abs(whole) < 1e-3 {
		return 1
	}
	return math.Max(0, math.Min(1, math.Log(area/from)/whole))
}
