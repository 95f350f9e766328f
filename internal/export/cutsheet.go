package export

import (
	"fmt"

	"coldember/core/quantity"
	"coldember/internal/text"
)

// CutBar is one bar of a cut sheet, its parts from the start of the bar.
type CutBar struct {
	Group     string // steel and section
	Name      string
	LengthMm  float64
	Parts     []CutPart
	RemnantMm float64
}

// CutPart is one part on a bar.
type CutPart struct {
	Name     string
	FromMm   float64
	LengthMm float64
}

// CutSheet draws the bars of a cut plan, all on one scale, with where to saw.
func CutSheet(bars []CutBar, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	title := text.Say("cuts.title", nil)
	b := newBook(title, size)
	s := b.page(1)
	s.y += s.text(s.margin, s.y, s.width(), s.face("label", 21, ink), title) + 2
	longest, group := 1.0, ""
	for _, bar := range bars {
		longest = max(longest, bar.LengthMm)
	}
	for _, bar := range bars {
		if s.y > size.HeightMm-s.margin-34 {
			s = b.page(1)
		}
		if bar.Group != group {
			group = bar.Group
			s.y += s.text(s.margin, s.y, s.width(), s.face("label", 14, ink), group) + 1
		}
		s.bar(bar, s.width()/longest, units)
	}
	if s.y > size.HeightMm-s.margin-20 {
		s = b.page(1)
	}
	for _, code := range []string{"caution.grinder", "caution.general"} {
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 9, quiet), text.Say(code, nil)) + 1
	}
	return b.bytes()
}

// bar draws one bar: its parts, and under each where it ends.
func (s *sheet) bar(b CutBar, scale float64, units quantity.System) {
	const high = 11
	left := text.Say("cuts.usedUp", nil)
	if b.RemnantMm > 0 {
		left = text.Say("cuts.left", map[string]string{"length": quantity.FormatLength(b.RemnantMm, units)})
	}
	s.y += s.text(s.margin, s.y, s.width(), s.face("narrow", 10, quiet), fmt.Sprintf("%s · %s · %s", b.Name, quantity.FormatLength(b.LengthMm, units), left)) + .6
	box := func(from, length float64) [][2]float64 {
		x0, x1 := s.margin+from*scale, s.margin+(from+length)*scale
		return [][2]float64{{x0, s.y}, {x1, s.y}, {x1, s.y + high}, {x0, s.y + high}}
	}
	s.polyline(box(0, b.LengthMm), .25, quiet, true, none, 1.5, 1)
	for _, p := range b.Parts {
		s.polyline(box(p.FromMm, p.LengthMm), .35, ink, true, tint("blade"))
		name := []rune(p.Name)
		if room := int(p.LengthMm * scale / 1.9); len(name) > room {
			name = append(name[:max(0, room-1)], '…')
		}
		s.label(s.margin+(p.FromMm+p.LengthMm/2)*scale, s.y+3, s.face("narrow", 10, ink), string(name))
		s.label(s.margin+(p.FromMm+p.LengthMm)*scale-4, s.y+high+.6, s.face("narrow", 8, quiet), quantity.FormatLength(p.FromMm+p.LengthMm, units))
	}
	s.y += high + 6
}
