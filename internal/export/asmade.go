package export

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/session"
	"coldember/internal/text"
)

// AsMade is one printed page of what became of a piece: its drawing as planned with what was
// measured, the totals against the plan, each operation, faults, notes, sittings. It shrinks
// its type until it fits.
func AsMade(m Made, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	for scale := 1.0; ; scale *= .94 {
		b := newBook(m.Name, size)
		p := &asMade{sheet: b.page(scale), m: &m, units: units}
		p.draw()
		if p.y <= size.HeightMm-p.margin-8 || scale < .45 {
			p.text(p.margin, size.HeightMm-p.margin-6, p.width(), p.face("sans", 7.5, quiet), text.Say("caution.general", nil))
			return b.bytes()
		}
	}
}

type asMade struct {
	*sheet
	m     *Made
	units quantity.System
}

func (p *asMade) draw() {
	m, x, w := p.m, p.margin, p.width()
	p.y += p.text(x, p.y, w, p.face("label", 20, ink), text.Say("log.title", map[string]string{"name": m.Name}))
	var head []string
	head = append(head, m.Steel)
	if m.Hand != "" {
		head = append(head, m.Hand)
	}
	if m.Book.StartedMs > 0 {
		head = append(head, text.Day(m.when(m.Book.StartedMs))+" – "+text.Day(m.when(m.Book.LastMs)))
	}
	p.y += p.text(x, p.y, w, p.face("sans", 9.5, quiet), strings.Join(head, " · ")) + 3
	p.overlay()
	p.totals()
	p.operations()
	p.list(text.Say("log.faults", nil), m.Book.Faults, text.Say("log.noFaults", nil))
	p.list(text.Say("log.notes", nil), m.Book.Notes, "")
	p.treatment()
	p.list(text.Say("log.readings", nil), m.Book.Readings, "")
	p.sittings()
}

// overlay is the piece as planned, dashed, with what was measured on it.
func (p *asMade) overlay() {
	c, b := p.m.Course, &p.m.Book
	if b.Step == 0 || len(c.Heats) == 0 {
		return
	}
	st := c.HeatOf(b.Step - 1).Shape
	if len(st) == 0 {
		return
	}
	top, bottom := extent(st)
	long := st[len(st)-1].XMm
	k := math.Min(p.width()/math.Max(1, long), 1)
	x0, base := p.margin, p.y+4+top*k
	p.polyline(round(st, x0, base, k), .25, ink, true, none, 2, 1)
	for _, r := range b.Measured {
		if r.Quantity != session.Quantity(plan.Height) && r.Quantity != session.Quantity(plan.Thickness) && r.Quantity != session.Quantity(plan.EdgeThickness) {
			continue
		}
		s := between(st, r.AtMm)
		x := x0 + r.AtMm*k
		y0, y1 := base-s.SpineY*k, base-s.EdgeY*k
		p.line(x, y0-1, x, y1+1, .2, quiet)
		p.label(x, y1+1.5, p.face("narrow", 7.5, ink), quantity.FormatThickness(r.Mm, p.units))
	}
	p.y = base - bottom*k + 7
	p.y += p.text(p.margin, p.y, p.width(), p.face("sans", 7.5, quiet), text.Say("log.overlayKey", map[string]string{"n": strconv.Itoa(c.Steps[b.Step-1].Heat)})) + 2
}

// row is one line of a table: words, then figures to the right of their columns.
func (p *asMade) row(f face, first string, rest ...string) {
	x, w := p.margin, p.width()
	h := p.text(x, p.y, w*.5, f, first)
	wide := w * .5 / float64(max(1, len(rest)))
	for i, s := range rest {
		ascent, _ := p.use(f)
		s = text.Local(s)
		p.pdf.Text(x+w*.5+wide*float64(i+1)-p.pdf.GetStringWidth(s), p.y+ascent, s)
	}
	p.y += math.Max(h, 3.6*p.scale)
}

func (p *asMade) totals() {
	t := &p.m.Book.Totals
	if p.m.Book.Simulated {
		p.y += p.text(p.margin, p.y, p.width(), p.face("sans", 9, quiet), text.Say("log.simulated", nil)) + 1
	}
	head, f := p.face("label", 10, ink), p.face("sans", 9, ink)
	p.row(head, text.Say("log.whole", nil), text.Say("log.planned", nil), text.Say("log.was", nil))
	num := strconv.Itoa
	p.row(f, text.Say("log.heats", nil), num(t.PlanHeats), num(t.Heats))
	p.row(f, text.Say("log.blows", nil), num(t.PlanBlows), num(t.Blows))
	p.row(f, text.Say("log.atAnvil", nil), lasted(t.PlanS), lasted(t.WorkS))
	p.row(f, text.Say("log.fuel", nil), quantity.FormatMass(t.PlanFuelG, p.units), quantity.FormatMass(t.FuelG, p.units))
	if t.WeightG > 0 {
		p.row(f, text.Say("measure.weight", nil), quantity.FormatMass(t.PlanG, p.units), quantity.FormatMass(t.WeightG, p.units))
	}
	p.row(f, text.Say("log.near", nil), "", text.Say("log.nearOf", map[string]string{"n": num(t.Near), "of": num(t.Readings)}))
	p.y += 2
}

func (p *asMade) operations() {
	head, f := p.face("label", 10, ink), p.face("sans", 8.6, ink)
	p.row(head, text.Say("log.operation", nil), text.Say("log.heats", nil), text.Say("log.blows", nil), text.Say("log.atAnvil", nil))
	for _, o := range p.m.Book.Operations {
		against := func(was, planned string) string { return was + " / " + planned }
		p.row(f, text.Say("op."+o.Kind, nil), against(fmt.Sprintf("%.1f", o.Heats), fmt.Sprintf("%.1f", o.PlanHeats)), against(strconv.Itoa(o.Blows), strconv.Itoa(o.PlanBlows)), against(lasted(o.S), lasted(o.PlanS)))
	}
	p.y += 2
}

func (p *asMade) list(title string, items []session.Told, empty string) {
	if len(items) == 0 && empty == "" {
		return
	}
	p.y += p.text(p.margin, p.y, p.width(), p.face("label", 10, ink), title)
	f := p.face("sans", 8.6, ink)
	if len(items) == 0 {
		p.y += p.text(p.margin, p.y, p.width(), f, empty)
	}
	for i := range items {
		p.y += p.text(p.margin, p.y, p.width(), f, p.told(&items[i]))
	}
	p.y += 1.5
}

// treatment is what was done and seen of hardening and tempering, a line each.
func (p *asMade) treatment() {
	items := p.m.Book.Treatment
	if len(items) == 0 {
		return
	}
	p.y += p.text(p.margin, p.y, p.width(), p.face("label", 10, ink), text.Say("log.treatment", nil))
	f := p.face("sans", 8.6, ink)
	for i := range items {
		t := &items[i]
		line := p.m.when(t.OnMs).Format("2006-01-02 15:04") + " "
		if t.Step != "" {
			line += treatName(t.Step) + ": "
		}
		p.y += p.text(p.margin, p.y, p.width(), f, strings.TrimSuffix(strings.TrimSpace(line+seenWords(t.Seen, p.units)+" "+t.Text), ":"))
	}
	p.y += 1.5
}

// told is a reading, fault or note in a line.
func (p *asMade) told(t *session.Told) string {
	out := []string{text.Say("log.inHeat", map[string]string{"n": strconv.Itoa(t.OfTrip)}) + ":"}
	place := func(mm float64) string {
		return text.Say("anvil.at", map[string]string{"at": quantity.FormatLength(mm, p.units)})
	}
	if r := t.Reading; r != nil {
		v := quantity.FormatThickness(r.Mm, p.units)
		switch r.Quantity {
		case session.Weight, session.Fuel:
			v = quantity.FormatMass(r.MassG, p.units)
		case session.Temperature:
			v = quantity.FormatTemperature(r.TempC, p.units)
		}
		out = append(out, text.Say("measure."+string(r.Quantity), nil), v)
		if r.AtMm > 0 {
			out = append(out, place(r.AtMm))
		}
		if t.Wanted {
			out = append(out, "("+text.Say("log.planned", nil)+" "+quantity.FormatThickness(t.WantMm, p.units)+")")
		}
	}
	if f := t.Fault; f != nil {
		out = append(out, text.Say("fault."+string(f.Kind), nil))
		if f.AtMm > 0 {
			out = append(out, place(f.AtMm))
		}
		if f.DepthMm > 0 {
			out = append(out, text.Say("log.deep", map[string]string{"deep": quantity.FormatThickness(f.DepthMm, p.units)}))
		}
	}
	if t.Picture != "" {
		out = append(out, "("+text.Say("event.picture", nil)+")")
	}
	return strings.Join(append(out, t.Text), " ")
}

func (p *asMade) sittings() {
	p.y += p.text(p.margin, p.y, p.width(), p.face("label", 10, ink), text.Say("log.sittings", nil))
	for _, s := range p.m.Book.Sittings {
		to := s.ToMs
		if to == 0 {
			to = p.m.Book.LastMs
		}
		words := text.DayTime(p.m.when(s.FromMs)) + " · " + text.Say("log.sat", map[string]string{"heats": strconv.Itoa(s.Heats), "time": lasted(float64(to-s.FromMs) / 1000)})
		p.y += p.text(p.margin, p.y, p.width(), p.face("sans", 8.6, ink), words)
	}
}

// lasted is a stretch of time: "48 s", "12 min", "2 h 5 min".
func lasted(s float64) string {
	switch minutes := int(math.Round(s / 60)); {
	case s < 90:
		return strconv.Itoa(int(math.Round(s))) + " s"
	case s < 5400:
		return strconv.Itoa(minutes) + " min"
	default:
		return fmt.Sprintf("%d h %d min", minutes/60, minutes%60)
	}
}
