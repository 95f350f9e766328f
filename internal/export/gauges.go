package export

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"

	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/text"
)

// Gauges is the sheet to take to the anvil, exactly 1:1: a strip with the lengths of each step
// in order, slots that a thickness or height has to go into and slots that it must not, the
// template with its edge ticks, and a bar of 50 mm to check the print by. What is longer than
// the sheet goes on over the next, with marks where they meet.
func Gauges(name string, c *session.Course, s Subject, units quantity.System, paper string) ([]byte, error) {
	fin, fog, drawn, err := s.bodies()
	if err != nil {
		return nil, err
	}
	ls := Drawing(fin, fog, s.Design.TangKind)
	size := PaperOf(paper)
	size = Paper{size.HeightMm, size.WidthMm} // lying
	lo, hi := bounds(ls)
	marks := lengthsOf(c)
	right := hi[0]
	if n := len(marks); n > 0 {
		right = math.Max(right, marks[n-1].mm)
	}
	const margin = 11.0
	room := size.WidthMm - 2*margin
	tiles := max(1, int(math.Ceil((right-lo[0]-tileOverlapMm)/(room-tileOverlapMm))))
	b := newBook(name, size)
	slots := slotsOf(c)
	for i := range tiles {
		from := lo[0] + float64(i)*(room-tileOverlapMm)
		g := &gauges{tile: tile{sheet: b.page(1), drawing: drawn, units: units, from: from, to: from + room}}
		g.head(name, i, tiles)
		g.strip(marks)
		g.card(ls, lo, hi)
		slots = g.slots(slots)
		g.checkBar()
	}
	for len(slots) > 0 {
		g := &gauges{tile: tile{sheet: b.page(1), drawing: drawn, units: units}}
		g.head(name, 0, 1)
		slots = g.slots(slots)
		g.checkBar()
	}
	return b.bytes()
}

// gauges is one sheet of them.
type gauges struct{ tile }

// lengthMark is how far the piece, or a place of it, reaches once a step is done.
type lengthMark struct {
	mm    float64
	words []string
}

// leastApartMm is by how little two lengths differ on a strip of chalk marks.
const leastApartMm = .8

// lengthsOf are the lengths that the piece has after each heat, and where the zones of the
// forged shape end, in order along the strip: as they read on the hot piece, but for the bar.
func lengthsOf(c *session.Course) (out []lengthMark) {
	add := func(mm float64, words string) {
		for i := range out {
			if math.Abs(out[i].mm-mm) < leastApartMm {
				out[i].words = append(out[i].words, words)
				return
			}
		}
		out = append(out, lengthMark{mm, []string{words}})
	}
	add(c.Bar.LengthMm, text.Say("gauges.bar", nil))
	was := c.Bar.LengthMm
	last := 0
	for i := range c.Heats {
		h := &c.Heats[i]
		if !c.Cycles(h.Number) {
			last = h.Number
		}
		if math.Abs(h.LengthMm-was) >= leastApartMm {
			add(math.Max(h.LengthMm, h.LongHot), strconv.Itoa(h.Number))
			was = h.LengthMm
		}
	}
	zone := ""
	for i := range c.Forged {
		if s := &c.Forged[i]; s.Zone != zone {
			if zone != "" {
				add(c.HotAtMm(last, s.XMm), text.Say("zone."+zone, nil))
			}
			zone = s.Zone
		}
	}
	sort.Slice(out, func(i, j int) bool { return out[i].mm < out[j].mm })
	return out
}

// slot is a pair of slots: the piece goes into the one and not into the other.
type slot struct {
	goes, not float64
	words     string
}

// slotsOf are the figures that operations end with, thin ones first.
func slotsOf(c *session.Course) (out []slot) {
	last := map[string]int{}
	for i := range c.Steps {
		if g := c.Steps[i].Goal; g != nil && g.Measure != plan.Rise {
			last[c.Steps[i].Operation] = i
		}
	}
	for _, i := range last {
		st := &c.Steps[i]
		g := st.Goal
		mm := math.Max(g.Mm, g.HotMm) // it is tried on the hot steel
		out = append(out, slot{mm + g.WithinMm, math.Max(.3, mm-g.WithinMm), text.Say("op."+st.Kind, nil) + ", " + strings.ToLower(text.Say("measure."+string(g.Measure), nil))})
	}
	sort.Slice(out, func(i, j int) bool {
		if out[i].goes != out[j].goes {
			return out[i].goes < out[j].goes
		}
		return out[i].words < out[j].words
	})
	return out
}

func (g *gauges) head(name string, i, tiles int) {
	x := g.margin
	g.y += g.text(x, g.y, g.width(), g.face("label", 15, ink), text.Say("gauges.title", map[string]string{"name": name}))
	if tiles > 1 {
		g.label(x+g.width()-20, g.margin, g.face("narrow", 11, quiet), text.Say("card.tile", map[string]string{"n": fmt.Sprint(i + 1), "of": fmt.Sprint(tiles)}))
	}
	g.y += g.text(x, g.y, g.width(), g.face("sans", 8.5, quiet), text.Say("gauges.note", nil)) + 2
}

// The words of a strip stand on end, so far apart and so high.
const (
	stripApartMm = 3.4
	stripWordsMm = 24.0
	stripTickMm  = 6.0
)

// strip is laid along the anvil: from the point, where each heat's length ends.
func (g *gauges) strip(marks []lengthMark) {
	base := g.y + stripWordsMm + stripTickMm
	g.line(g.x(math.Max(g.from, 0)), base, g.x(g.to), base, .35, ink)
	if g.inside(0) {
		g.line(g.x(0), base-stripTickMm, g.x(0), base+2, .5, ink)
	}
	end := math.Inf(-1)
	for _, m := range marks {
		if !g.inside(m.mm) {
			continue
		}
		x := g.x(m.mm)
		at := math.Min(math.Max(x, end+stripApartMm), g.margin+g.width())
		end = at
		g.line(x, base, x, base-stripTickMm/2, .25, ink)
		g.line(x, base-stripTickMm/2, at, base-stripTickMm+.5, .2, ink)
		g.onEnd(at, base-stripTickMm, g.face("narrow", 8.5, ink), strings.Join(m.words, " ")+": "+quantity.FormatLength(m.mm, g.units))
	}
	g.y = base + 5
}

// onEnd writes one line upward from a place.
func (g *gauges) onEnd(x, y float64, f face, words string) {
	ascent, _ := g.use(f)
	g.pdf.TransformBegin()
	g.pdf.TransformRotate(90, x, y)
	g.pdf.Text(x, y+ascent*.36, words)
	g.pdf.TransformEnd()
}

// card is the template: what is finished, and dashed what is forged, with its edge ticks.
func (g *gauges) card(ls []Loop, lo, hi Point) {
	base := g.y + hi[1] + 2
	for _, l := range ls {
		col, width := ink, .2
		var dashes []float64
		if l.Layer == LayerForged {
			col, dashes = quiet, []float64{2, 1}
		}
		for _, run := range g.clip(l.Points) {
			var pts [][2]float64
			for _, p := range run {
				pts = append(pts, [2]float64{g.x(p[0]), base - p[1]})
			}
			g.polyline(pts, width, col, false, none, dashes...)
		}
	}
	g.ticks(ls[0], base)
	g.y = base - lo[1] + 8
}

// Slots are so deep, and their words need so much room.
const (
	slotDeepMm  = 14.0
	slotGapMm   = 5.0
	slotWordsMm = 11.0
	slotFootMm  = 16.0 // for the bar to check by
)

// slots draws as many pairs as the sheet has room for, and returns the rest.
func (g *gauges) slots(all []slot) []slot {
	x := g.margin
	for len(all) > 0 {
		k := all[0]
		words := g.face("narrow", 8.5, ink)
		g.use(words)
		need := math.Max(k.goes+k.not+slotGapMm, 30) + slotGapMm
		if x+need > g.margin+g.width() && x > g.margin {
			x, g.y = g.margin, g.y+slotDeepMm+slotWordsMm
		}
		if g.y+slotDeepMm+slotWordsMm > g.paper.HeightMm-g.margin-slotFootMm {
			break
		}
		g.notch(x, k.goes, text.Say("gauges.goes", nil))
		g.notch(x+k.goes+slotGapMm, k.not, text.Say("gauges.not", nil))
		g.text(x, g.y+slotDeepMm+3.6, need-1, words, k.words+" "+quantity.FormatThickness((k.goes+k.not)/2, g.units))
		x += need
		all = all[1:]
	}
	g.y += slotDeepMm + slotWordsMm
	return all
}

// notch is a slot, open at the top, with a word in it.
func (g *gauges) notch(x, wide float64, word string) {
	g.polyline([][2]float64{{x, g.y}, {x, g.y + slotDeepMm}, {x + wide, g.y + slotDeepMm}, {x + wide, g.y}}, .2, ink, false, none)
	g.label(x+wide/2, g.y+slotDeepMm+.4, g.face("narrow", 6.5, quiet), word)
}
