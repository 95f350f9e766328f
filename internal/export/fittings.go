package export

import (
	"fmt"
	"math"

	"coldember/core/blade"
	"coldember/core/finish"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// Layers of a fittings sheet.
const (
	LayerBlock   = "block"
	LayerSlot    = "slot"
	LayerDrill   = "drill"
	LayerScale   = "scale"
	LayerPin     = "pin"
	LayerGrip    = "grip"
	LayerBore    = "bore"
	LayerSection = "section"
	LayerSheath  = "sheath"
	LayerFold    = "fold"
)

// group is one thing to be cut, drawn from its own corner.
type group struct {
	words string
	loops []Loop
}

// Apart are the groups of a sheet, mm.
const groupGapMm = 12.0

// Fittings is everything that is cut for handle and sheath as closed outlines, each beside the
// other.
func Fittings(d blade.Design, f *planner.Finished) []Loop {
	var out []Loop
	x := 0.0
	for _, g := range groupsOf(d, f, quantity.Metric) {
		lo, hi := bounds(g.loops)
		for _, l := range g.loops {
			moved := Loop{Layer: l.Layer}
			for _, p := range l.Points {
				moved.Points = append(moved.Points, Point{p[0] - lo[0] + x, p[1] - lo[1]})
			}
			out = append(out, moved)
		}
		x += hi[0] - lo[0] + groupGapMm
	}
	return out
}

func groupsOf(d blade.Design, f *planner.Finished, units quantity.System) (out []group) {
	mm := func(v float64) string { return quantity.FormatThickness(v, units) }
	for i := range f.Handle.Slots {
		s := &f.Handle.Slots[i]
		out = append(out, group{text.Say("fittings."+s.What, map[string]string{"long": mm(s.LengthMm), "wide": mm(s.WidthMm), "drill": mm(s.DrillMm), "holes": fmt.Sprint(s.Holes), "pitch": mm(s.PitchMm)}), slotLoops(s)})
	}
	if b := f.Handle.Bore; b != nil && d.Handle != nil {
		out = append(out, group{text.Say("fittings.bore", map[string]string{"deep": mm(b.DepthMm), "drill": mm(b.DrillMm), "holes": fmt.Sprint(b.Holes)}), boreLoops(d, b)})
	}
	if s := f.Handle.Scales; s != nil {
		out = append(out, group{text.Say("fittings.scale", map[string]string{"thick": mm(s.ThicknessMm)}), scaleLoops(d, s)})
	}
	for i := range f.Handle.Sections {
		s := &f.Handle.Sections[i]
		out = append(out, group{text.Say("fittings.section", map[string]string{"at": quantity.FormatLength(s.AtMm, units)}), sectionLoops(s)})
	}
	if s := &f.Sheath; len(s.Template) > 0 {
		out = append(out, group{text.Say("fittings.sheath", map[string]string{"wrap": quantity.FormatLength(s.WrapMm, units), "welt": mm(s.WeltMm)}), sheathLoops(s)})
	}
	return out
}

func rectangle(layer string, x0, y0, x1, y1 float64) Loop {
	return Loop{layer, []Point{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}}
}

func circle(layer string, x, y, d float64) Loop {
	const n = 72
	l := Loop{Layer: layer}
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		l.Points = append(l.Points, Point{x + d/2*c, y + d/2*s})
	}
	return l
}

// slotLoops is a block from its front: its slot, and the chain of holes.
func slotLoops(s *finish.Slot) []Loop {
	w, h := s.Fitting.WidthMm, s.Fitting.HeightMm
	top := h - s.TopMm
	out := []Loop{rectangle(LayerBlock, 0, 0, w, h), rectangle(LayerSlot, (w-s.WidthMm)/2, top-s.LengthMm, (w+s.WidthMm)/2, top)}
	for i := range s.Holes {
		y := top - s.LengthMm/2
		if s.Holes > 1 {
			y = top - .1 - s.DrillMm/2 - float64(i)*s.PitchMm
		}
		out = append(out, circle(LayerDrill, w/2, y, s.DrillMm))
	}
	return out
}

// gripSide is the grip from the side: x behind its front, y above its middle there.
func gripSide(d blade.Design) Loop {
	h, grip := d.Handle, d.Grip()
	axis0, _ := grip(0)
	var up, down []Point
	const n = 60
	for i := range n + 1 {
		at := h.LengthMm * float64(i) / n
		axis, high := grip(at)
		up = append(up, Point{at, axis0 - axis + high/2})
		down = append(down, Point{at, axis0 - axis - high/2})
	}
	for i := len(down) - 1; i >= 0; i-- {
		up = append(up, down[i])
	}
	return Loop{LayerGrip, up}
}

// boreLoops is the grip with what is bored and opened in it.
func boreLoops(d blade.Design, b *finish.Bore) []Loop {
	t, grip := d.MadeTang(), d.Grip()
	axis0, _ := grip(0)
	front := d.Handle.Guard.LengthMm + d.Handle.Bolster.LengthMm
	var up, down []Point
	const n = 40
	deep := math.Min(b.DepthMm, t.LengthMm-front)
	for i := range n + 1 {
		s := deep * float64(i) / n
		high, _ := t.At(front + s)
		mid := axis0 + t.CentreMm(front+s)
		up, down = append(up, Point{s, mid + high/2}), append(down, Point{s, mid - high/2})
	}
	for i := len(down) - 1; i >= 0; i-- {
		up = append(up, down[i])
	}
	return []Loop{gripSide(d), {LayerBore, up}}
}

// scaleLoops is a scale with its pins.
func scaleLoops(d blade.Design, s *finish.Scales) []Loop {
	side := gripSide(d)
	side.Layer = LayerScale
	out := []Loop{side}
	t, grip := d.MadeTang(), d.Grip()
	axis0, _ := grip(0)
	front := d.Handle.Guard.LengthMm + d.Handle.Bolster.LengthMm
	for _, p := range s.Pins {
		out = append(out, circle(LayerPin, p.AtMm-front, axis0+t.CentreMm(p.AtMm)+p.OffMm, p.DiameterMm))
	}
	return out
}

// sectionLoops is the grip across, with the tang in it.
func sectionLoops(s *finish.GripSection) []Loop {
	l := Loop{Layer: LayerSection}
	for _, n := range s.Outline {
		l.Points = append(l.Points, Point{n[0], n[1]})
	}
	for i := len(s.Outline) - 2; i > 0; i-- {
		l.Points = append(l.Points, Point{-s.Outline[i][0], s.Outline[i][1]})
	}
	out := []Loop{l}
	if s.TangHeightMm > 0 {
		out = append(out, rectangle(LayerTang, -s.TangThicknessMm/2, s.TangUpMm-s.TangHeightMm/2, s.TangThicknessMm/2, s.TangUpMm+s.TangHeightMm/2))
	}
	return out
}

func sheathLoops(s *finish.Sheath) []Loop {
	l := Loop{Layer: LayerSheath}
	for _, n := range s.Template {
		l.Points = append(l.Points, Point{n[0], n[1]})
	}
	return []Loop{l, rectangle(LayerFold, 0, s.Fold[0], s.LongMm, s.Fold[1])}
}

// FittingsSheet is the same at exactly 1:1 on paper, with a bar of 50 mm to check the print by;
// what is longer than a sheet goes on over the next.
func FittingsSheet(name string, d blade.Design, f *planner.Finished, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	size = Paper{size.HeightMm, size.WidthMm} // lying
	b := newBook(name, size)
	var s *tile
	turn := func() {
		s = &tile{sheet: b.page(1), units: units}
		s.y += s.text(s.margin, s.y, s.width(), s.face("label", 15, ink), text.Say("fittings.title", map[string]string{"name": name}))
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 8.5, quiet), text.Say("fittings.note", nil)) + 3
		s.checkBar()
	}
	turn()
	const wordsMm, footMm = 11.0, 16.0
	x, rowMm := s.margin, 0.0
	groups := groupsOf(d, f, units)
	if len(groups) == 0 {
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 11, ink), text.Say("fittings.none", nil))
	}
	for _, g := range groups {
		lo, hi := bounds(g.loops)
		wide, high := hi[0]-lo[0], hi[1]-lo[1]
		room := s.width()
		need := math.Max(wide, 42)
		if x > s.margin && x+need > s.margin+room {
			x, s.y, rowMm = s.margin, s.y+rowMm, 0
		}
		if s.y+high+wordsMm > size.HeightMm-s.margin-footMm && (s.y > 40 || x > s.margin) {
			turn()
			x, rowMm = s.margin, 0
		}
		for from := lo[0]; ; from += room - tileOverlapMm {
			s.group(g, x, from, math.Min(room, wide), hi[1])
			if from+room >= hi[0] {
				break
			}
			turn()
			x, rowMm = s.margin, 0
		}
		x += need + groupGapMm
		rowMm = math.Max(rowMm, high+wordsMm+4)
	}
	s.text(s.margin, size.HeightMm-s.margin-3, s.width(), s.face("sans", 7.5, quiet), text.Say("caution.general", nil))
	return b.bytes()
}

// group draws what of one thing lies between from and so far along it, its top at the sheet's
// height.
func (t *tile) group(g group, x, from, wideMm, top float64) {
	t.from, t.to = from, from+wideMm
	for _, l := range g.loops {
		col, dashes := ink, []float64(nil)
		if l.Layer == LayerFold || l.Layer == LayerTang || l.Layer == LayerDrill {
			col, dashes = quiet, []float64{2, 1}
		}
		for _, run := range t.clip(l.Points) {
			var pts [][2]float64
			for _, p := range run {
				pts = append(pts, [2]float64{x + p[0] - from, t.y + top - p[1]})
			}
			t.polyline(pts, .2, col, false, none, dashes...)
		}
	}
	lo, _ := bounds(g.loops)
	t.text(x, t.y+top-lo[1]+1.5, math.Max(42, wideMm), t.face("narrow", 8, ink), g.words)
}
