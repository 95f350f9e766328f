package export

import (
	"math"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// codeMm is how wide the squares are printed: a camera in the hand reads them.
const codeMm = 120

// PatternPage is a pattern on one page: its blade drawn, its sizes, and squares that hold all of it, so
// that a photograph of the page is the pattern. Errors are *FileError where it is too long for that.
func PatternPage(s Subject, units quantity.System, paper string) ([]byte, error) {
	code, err := CodeOf(s)
	if err != nil {
		return nil, err
	}
	drawn, err := figure.Sketch(s.Design)
	if err != nil {
		return nil, err
	}
	b := newBook(s.Name, PaperOf(paper))
	p := b.page(1)
	p.y += p.text(p.margin, p.y, p.width(), p.face("label", 22, ink), s.Name) + 4
	p.bladeOf(drawn)
	for _, row := range sizesOf(&s.Design, units) {
		p.text(p.margin, p.y, 60, p.face("sans", 10, quiet), row[0])
		p.text(p.margin+62, p.y, p.width()-62, p.face("sans", 10, ink), row[1])
		p.y += 5.2
	}
	p.y += 3
	p.y += p.text(p.margin, p.y, p.width(), p.face("sans", 9, quiet), text.Say("patternPage.how", nil)) + 1
	side := math.Min(codeMm, p.paper.HeightMm-p.margin-p.y)
	if err := p.squares(code, p.margin+(p.width()-side)/2, p.y, side); err != nil {
		return nil, err
	}
	return b.bytes()
}

// sizesOf are the sizes of a blade in words and figures.
func sizesOf(d *blade.Design, units quantity.System) [][2]string {
	length := func(mm float64) string { return quantity.FormatLength(mm, units) }
	rows := [][2]string{
		{text.Say("field.name.design.lengthMm", nil), length(d.LengthMm)},
		{text.Say("field.name.design.heightMm", nil), length(d.HeightMm)},
		{text.Say("field.name.design.spineMm", nil), quantity.FormatThickness(d.SpineMm, units)},
		{text.Say("field.name.design.tipMm", nil), quantity.FormatThickness(d.TipMm, units)},
	}
	if mm := d.Ricasso.LengthMm; mm > 0 {
		rows = append(rows, [2]string{text.Say("field.name.design.ricasso.lengthMm", nil), length(mm)})
	}
	return append(rows, [2]string{text.Say("field.name.design.tang.lengthMm", nil), length(d.Tang.LengthMm)})
}

// bladeOf draws a blade over the width of the page, no taller than a third of it.
func (s *sheet) bladeOf(drawn []plan.Station) {
	if len(drawn) == 0 {
		return
	}
	top, bottom := extent(drawn)
	long := drawn[len(drawn)-1].XMm
	k := min(1, s.width()/math.Max(1, long), 70/math.Max(1, top-bottom))
	s.polyline(round(drawn, s.margin, s.y+top*k, k), .35, ink, true, none)
	s.y += (top-bottom)*k + 6
}
