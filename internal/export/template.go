package export

import (
	"fmt"
	"image/color"
	"math"

	"coldember/core/photo"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// Overlap of two tiles, and the bar to check the print by, mm.
const (
	tileOverlapMm = 10.0
	checkBarMm    = 50.0
)

// Template is the card to pin by the anvil and to cut out: outlines at exactly
// 1:1 on as many sheets as the blade is long, with marks where the sheets meet,
// edge ticks, stations with height and thickness, the lengths to chalk on the
// anvil, and a bar of 50 mm to check the print by.
func Template(name string, ls []Loop, d plan.Drawing, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	size = Paper{size.HeightMm, size.WidthMm} // lying
	lo, hi := bounds(ls)
	const margin = 11.0
	room := size.WidthMm - 2*margin
	tiles := max(1, int(math.Ceil((hi[0]-lo[0]-tileOverlapMm)/(room-tileOverlapMm))))
	b := newBook(name, size)
	for i := range tiles {
		s := b.page(1)
		from := lo[0] + float64(i)*(room-tileOverlapMm)
		t := tile{sheet: s, drawing: d, units: units, from: from, to: from + room}
		t.draw(name, i, tiles, ls, hi[1])
	}
	return b.bytes()
}

// tile is one sheet of a template: what lies between from and to along the
// blade.
type tile struct {
	*sheet
	drawing  plan.Drawing
	units    quantity.System
	from, to float64
}

func (t *tile) x(mm float64) float64 { return t.margin + mm - t.from }

func (t *tile) inside(mm float64) bool { return mm >= t.from-1e-9 && mm <= t.to+1e-9 }

func (t *tile) draw(name string, i, tiles int, ls []Loop, top float64) {
	t.y += t.text(t.margin+afterMarkMm, t.y, t.width()-2*afterMarkMm, t.face("label", 16, ink), name)
	if tiles > 1 {
		t.label(t.margin+t.width()-20, t.margin, t.face("narrow", 11, quiet), text.Say("card.tile", map[string]string{"n": fmt.Sprint(i + 1), "of": fmt.Sprint(tiles)}))
	}
	base := t.y + top + 16
	for _, l := range ls {
		col, width := ink, .2
		var dashes []float64
		if l.Layer == LayerForged {
			col, dashes = quiet, []float64{2, 1}
		}
		for _, run := range t.clip(l.Points) {
			var pts [][2]float64
			for _, p := range run {
				pts = append(pts, [2]float64{t.x(p[0]), base - p[1]})
			}
			t.polyline(pts, width, col, false, none, dashes...)
		}
	}
	t.ticks(ls[0], base)
	lo, _ := bounds(ls)
	t.stations(base, base-lo[1]+6)
	if tiles > 1 {
		for _, at := range []float64{t.from, t.from + tileOverlapMm, t.to - tileOverlapMm, t.to} {
			t.line(t.x(at), base-top-8, t.x(at), base-top-3, .2, quiet)
			t.line(t.x(at), base-lo[1]+3, t.x(at), base-lo[1]+8, .2, quiet)
		}
	}
	t.anvilMarks(base - lo[1] + 30)
	t.photoMarks()
	t.checkBar()
}

// afterMarkMm keeps what is written at the top clear of the marks.
const afterMarkMm = 5.0

// photoMarks are the four rings by which a photograph of a blank on the sheet is squared, the first with its dot.
func (t *tile) photoMarks() {
	white := color.RGBA{0xff, 0xff, 0xff, 0xff}
	disc := func(x, y, d float64, col color.RGBA) {
		const corners = 48
		pts := make([][2]float64, corners)
		for k := range pts {
			sin, cos := math.Sincos(2 * math.Pi * float64(k) / corners)
			pts[k] = [2]float64{x + d/2*cos, y + d/2*sin}
		}
		t.polyline(pts, .01, col, true, col)
	}
	in := photo.InsetMm
	for k, c := range [4][2]float64{{in, in}, {t.paper.WidthMm - in, in}, {t.paper.WidthMm - in, t.paper.HeightMm - in}, {in, t.paper.HeightMm - in}} {
		disc(c[0], c[1], photo.RingMm, ink)
		disc(c[0], c[1], photo.WhiteMm, white)
		if k == 0 {
			disc(c[0], c[1], photo.DotMm, ink)
		}
	}
}

// PhotoSheet is the rectangle between the marks of a template on this paper.
func PhotoSheet(paper string) photo.Sheet {
	p := PaperOf(paper)
	return photo.Sheet{WideMm: p.HeightMm - 2*photo.InsetMm, HighMm: p.WidthMm - 2*photo.InsetMm}
}

// checkBar is what the print is checked by.
func (t *tile) checkBar() {
	y := t.paper.HeightMm - t.margin - 8
	t.line(t.margin, y, t.margin+checkBarMm, y, .3, ink)
	t.line(t.margin, y-2, t.margin, y+2, .3, ink)
	t.line(t.margin+checkBarMm, y-2, t.margin+checkBarMm, y+2, .3, ink)
	t.text(t.margin+checkBarMm+4, y-2, t.width()-checkBarMm-4, t.face("sans", 8.5, ink), text.Say("card.checkBar", nil))
}

// clip cuts a closed outline to the tile, as open runs.
func (t *tile) clip(points []Point) [][]Point {
	var out [][]Point
	var run []Point
	for i := range len(points) {
		a, b := points[i], points[(i+1)%len(points)]
		p, q, ok := segment(a, b, t.from, t.to)
		if !ok {
			continue
		}
		if len(run) == 0 || run[len(run)-1] != p {
			if len(run) > 0 {
				out = append(out, run)
			}
			run = []Point{p}
		}
		run = append(run, q)
	}
	if len(run) > 0 {
		out = append(out, run)
	}
	return out
}

// segment is the part of a–b with x between from and to.
func segment(a, b Point, from, to float64) (p, q Point, ok bool) {
	lo, hi := 0.0, 1.0
	dx := b[0] - a[0]
	if math.Abs(dx) < 1e-12 {
		return a, b, a[0] >= from && a[0] <= to
	}
	f, g := (from-a[0])/dx, (to-a[0])/dx
	lo, hi = max(lo, min(f, g)), min(hi, max(f, g))
	if lo >= hi {
		return p, q, false
	}
	at := func(k float64) Point {
		if k == 0 {
			return a
		}
		if k == 1 {
			return b
		}
		return Point{a[0] + k*dx, a[1] + k*(b[1]-a[1])}
	}
	return at(lo), at(hi), true
}

// ticks mark the edge side, from the finished outline's lower curve.
func (t *tile) ticks(l Loop, base float64) {
	next := 0.0
	for i := len(l.Points) - 1; i > len(l.Points)/2; i-- {
		p := l.Points[i]
		if p[0] >= next && t.inside(p[0]) {
			t.line(t.x(p[0]), base-p[1]+.6, t.x(p[0]), base-p[1]+1.8, .2, ink)
			next = p[0] + 5
		}
	}
}

// stations every 25 mm or inch: height × thickness.
func (t *tile) stations(base, y float64) {
	step := 25.0
	if t.units.Inches() {
		step = 25.4
	}
	st := t.drawing.Finished
	for k := 1; float64(k)*step < st[len(st)-1].XMm; k++ {
		x := float64(k) * step
		if !t.inside(x) {
			continue
		}
		s := between(st, x)
		t.line(t.x(x), base-s.SpineY-.5, t.x(x), base-s.EdgeY+.5, .12, hair)
		t.line(t.x(x), base-s.EdgeY+2, t.x(x), y-1, .12, hair)
		f := t.face("narrow", 8.5, ink)
		t.label(t.x(x), y, f, quantity.FormatLength(s.SpineY-s.EdgeY, t.units))
		t.label(t.x(x), y+3.6, f, "× "+quantity.FormatThickness(s.ThicknessMm, t.units))
		t.label(t.x(x), y+8, t.face("narrow", 8, quiet), quantity.FormatLength(x, t.units))
	}
}

// between interpolates the station at x.
func between(st []plan.Station, x float64) plan.Station {
	for i := 1; i < len(st); i++ {
		a, b := st[i-1], st[i]
		if x > b.XMm || b.XMm-a.XMm < 1e-6 {
			continue
		}
		f := (x - a.XMm) / (b.XMm - a.XMm)
		mix := func(p, q float64) float64 { return p + (q-p)*f }
		return plan.Station{XMm: x, SpineY: mix(a.SpineY, b.SpineY), EdgeY: mix(a.EdgeY, b.EdgeY), ThicknessMm: mix(a.ThicknessMm, b.ThicknessMm), Zone: b.Zone}
	}
	return st[len(st)-1]
}

// anvilMarks are the lengths to chalk on the anvil, from a common start.
func (t *tile) anvilMarks(y float64) {
	y += t.text(t.margin, y, t.width(), t.face("label", 10, ink), text.Say("card.anvilMarks", nil)) + 1
	for _, z := range t.drawing.ForgedZones {
		words := text.Say("zone."+z.Zone, nil) + ": " + quantity.FormatLength(z.ToMm, t.units)
		y += t.text(t.margin, y, t.width(), t.face("narrow", 9.5, ink), words)
	}
}
