package export

import (
	"math"
	"strconv"
	"strings"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// Promise is what a customer is told beside the knife itself; what is empty is left out.
type Promise struct {
	Price string
	Day   string
}

// Customer is one page for whoever the knife is for: the knife drawn, its sizes, its steel and how
// it wants to be kept, the price and the day. Nothing of the shop's own figures is on it.
func Customer(name string, req *plan.Request, p *plan.Plan, f *planner.Finished, promise Promise, units quantity.System, paper string) ([]byte, error) {
	b := newBook(name, PaperOf(paper))
	s := b.page(1)
	s.y += s.text(s.margin, s.y, s.width(), s.face("label", 22, ink), name) + 6
	s.knife(p)
	row := func(code, value string) {
		if value == "" {
			return
		}
		s.text(s.margin, s.y, 46, s.face("sans", 10, quiet), text.Say(code, nil))
		s.y += math.Max(5.5, s.text(s.margin+48, s.y, s.width()-48, s.face("sans", 10, ink), value)+1)
	}
	d := &req.Design
	row("customer.blade", quantity.FormatLength(d.LengthMm, units)+" × "+quantity.FormatLength(d.HeightMm, units)+" × "+quantity.FormatThickness(d.SpineMm, units))
	row("customer.overall", quantity.FormatLength(overall(p), units))
	row("customer.weight", quantity.FormatMass(p.Whole.MassG, units))
	row("customer.steel", text.Steel(p.Steel.ID))
	if hrc := planner.Treat(req, p).Temper.HRC; hrc > 0 {
		row("customer.hardness", strconv.FormatFloat(math.Round(hrc), 'f', 0, 64)+" HRC")
	}
	row("customer.edge", strconv.FormatFloat(f.Edge.AngleDeg, 'f', -1, 64)+"°")
	if h := d.Handle; h != nil {
		materials := []string{text.Say("material."+string(h.Material), nil)}
		if h.Guard.LengthMm > 0 {
			materials = appendNew(materials, text.Say("material."+string(h.Guard.Material), nil))
		}
		row("customer.handle", strings.Join(materials, ", "))
	}
	if f.Sheath.Cover != "none" {
		row("customer.sheath", text.Say("cover."+string(f.Sheath.Cover), nil))
	}
	row("customer.price", promise.Price)
	row("customer.day", promise.Day)
	s.y += 4
	s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 9, ink), text.Say("customer.care", nil)) + 2
	s.text(s.margin, s.y, s.width(), s.face("sans", 8, quiet), text.Say("customer.law", nil))
	return b.bytes()
}

func overall(p *plan.Plan) float64 {
	most := p.Finished.OverallLengthMm
	for _, h := range p.Drawing.Handle {
		most = math.Max(most, h.ToMm)
	}
	return most
}

// knife draws the finished knife over the width of the page.
func (s *sheet) knife(p *plan.Plan) {
	long := overall(p)
	k := math.Min(1, s.width()/math.Max(1, long))
	top, bottom := extent(p.Drawing.Finished)
	for _, h := range p.Drawing.Handle {
		for _, n := range h.Outline {
			top, bottom = math.Max(top, n[1]), math.Min(bottom, n[1])
		}
	}
	base := s.y + top*k
	s.polyline(round(p.Drawing.Finished, s.margin, base, k), .3, ink, true, none)
	for _, h := range p.Drawing.Handle {
		var pts [][2]float64
		for _, n := range h.Outline {
			pts = append(pts, [2]float64{s.margin + n[0]*k, base - n[1]*k})
		}
		s.polyline(pts, .3, ink, true, white) // what is in the handle is not seen
	}
	s.y = base - bottom*k + 8
}
