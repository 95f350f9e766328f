package export

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"math"
	"strconv"
	"strings"

	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// heatLine is one heat in words, the same on the card and in the table.
type heatLine struct {
	work, face, zones, heat, blows, targets string
	cautions                                []string
}

// lineOf puts one heat into words.
func lineOf(p *plan.Plan, h plan.HeatStep, units quantity.System) heatLine {
	var l heatLine
	var work, faces, zones, codes []string
	strokes := true
	for _, part := range h.Parts {
		op := operation(p, part.Operation)
		if op == nil {
			continue
		}
		strokes = strokes && op.Hammer().Strokes > 0
		name := operationName(op, units)
		if part.ToShare < .995 {
			name += " " + text.Say("heats.share", map[string]string{"share": strconv.Itoa(int(math.Round(part.ToShare * 100)))})
		}
		work = append(work, name)
		if f := faceOf(op); f != "" {
			faces = appendNew(faces, f)
		}
		for _, z := range op.Zones {
			zones = appendNew(zones, text.Say("zone."+z, nil))
		}
		for _, c := range op.CautionCodes {
			codes = appendNew(codes, c)
		}
	}
	if h.Rest {
		codes = append(codes, "heat.rest")
	}
	for _, c := range codes {
		l.cautions = append(l.cautions, text.Say(c, nil))
	}
	l.work, l.face, l.zones = strings.Join(work, "; "), strings.Join(faces, "; "), strings.Join(zones, ", ")
	l.heat = heatOf(p, h, units)
	if h.Blows > 0 {
		code := "heats.cardBlows"
		if strokes {
			code = "heats.cardStrokes"
		}
		l.blows = text.Count(code, h.Blows, map[string]string{"seconds": strconv.Itoa(int(math.Ceil(h.WorkS)))})
	}
	var targets []string
	for _, r := range h.Readings {
		t := quantity.FormatLength(r.HeightMm, units) + " × " + quantity.FormatThickness(r.ThicknessMm, units)
		targets = append(targets, t+" @ "+quantity.FormatLength(r.AtMm, units))
	}
	l.targets = strings.Join(targets, "; ")
	return l
}

// faceOf names what strikes in an operation, and over what.
func faceOf(op *plan.Step) string {
	f := op.Hammer()
	switch {
	case f.Face == "":
		return ""
	case f.Machine != "":
		return text.Say("machine."+f.Machine, nil)
	case f.Support != "":
		return text.Say("face."+string(f.Face), nil) + ", " + text.Say("support."+f.Support, nil)
	}
	return text.Say("face."+string(f.Face), nil)
}

// heatOf says how hot a heat begins and where it ends, or how it cools.
func heatOf(p *plan.Plan, h plan.HeatStep, units quantity.System) string {
	first := operation(p, h.Parts[0].Operation)
	if first == nil {
		first = &p.Operations[0]
	}
	soak := p.Totals.SoakC
	if first.TargetC > 0 {
		soak = first.TargetC
	}
	// how hot it is brought is a set figure, where it ends a reckoned one
	hot := quantity.FormatTemperature(soak, units) + ", " + text.HeatColour(soak, units)
	code, with := "heats.cardHeat", map[string]string{"heat": hot, "stop": quantity.FormatFireTemperature(h.EndC, units) + ", " + text.HeatColour(h.EndC, units)}
	switch first.Kind {
	case "normalise":
		code = "heats.cardAir"
	case "anneal", "soften":
		code = "heats.cardSlow"
	case "harden":
		f := first.Fire()
		code, with["hold"], with["bath"] = "heats.cardQuench", text.Figure("holdS", f.SoakS, units), text.Say("quench."+string(p.Steel.Quench), nil)
		with["low"], with["high"] = quantity.FormatTemperature(f.BathLowC, units), quantity.FormatTemperature(f.BathHighC, units)
	}
	return text.Say(code, with)
}

// operationName is what a step is called; a break-down by what it comes to.
func operationName(op *plan.Step, units quantity.System) string {
	f := op.Hammer()
	if op.Kind != string(forge.BreakDown) || f.PreformThicknessMm == 0 {
		return text.Say("op."+op.Kind, nil)
	}
	code := "op.breakDown.flat"
	if math.Abs(f.PreformWidthMm-f.PreformThicknessMm) < preformAlikeMm {
		code = "op.breakDown.square"
	}
	return text.Say(code, map[string]string{
		"width": bareLength(f.PreformWidthMm, units), "thickness": quantity.FormatLength(f.PreformThicknessMm, units),
	})
}

// bareLength is a length without its unit, which stands behind the one that follows.
func bareLength(mm float64, units quantity.System) string {
	text := quantity.FormatLength(mm, units)
	return text[:strings.LastIndex(text, " ")]
}

// preformAlikeMm: sides that differ by less are those of a square.
const preformAlikeMm = .25

// operation is the step with this id, or nil.
func operation(p *plan.Plan, id string) *plan.Step {
	for i := range p.Operations {
		if p.Operations[i].ID == id {
			return &p.Operations[i]
		}
	}
	return nil
}

func appendNew(list []string, s string) []string {
	for _, x := range list {
		if x == s {
			return list
		}
	}
	return append(list, s)
}

// HeatsCSV is the heats in order, a line each, with the figures as numbers, and after them the
// steps of hardening and tempering where they are known.
func HeatsCSV(p *plan.Plan, h *Hardening, units quantity.System) ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	rows := [][]string{{"heat", "work", "face", "zones", "hotFromMm", "hotToMm", "fireS", "startC", "endC", "workS", "blows", "scaleG", "fuelG", "targets", "cautions"}}
	num := func(v float64) string { return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) }
	for _, h := range p.Heats {
		l := lineOf(p, h, units)
		rows = append(rows, []string{
			strconv.Itoa(h.Number), l.work, l.face, l.zones, num(h.HotFrom), num(h.HotTo), num(h.FireS), num(h.StartC), num(h.EndC), num(h.WorkS),
			strconv.Itoa(h.Blows), num(h.ScaleG), num(h.FuelG), l.targets, strings.Join(l.cautions, " "),
		})
	}
	if h != nil {
		for i := range h.Advice.Steps {
			row := make([]string, len(rows[0]))
			st := &h.Advice.Steps[i]
			row[1], row[13] = treatName(st.ID), TreatWords(st, units)
			var told []string
			for _, c := range st.Cautions {
				told = append(told, text.Say(c, nil))
			}
			row[14] = strings.Join(told, " ")
			rows = append(rows, row)
		}
	}
	if err := w.WriteAll(rows); err != nil {
		return nil, fmt.Errorf("export: csv: %w", err)
	}
	return b.Bytes(), nil
}

// Rows of the bench card, mm.
const (
	heatRowMm    = 12.4
	heatSketchMm = 34.0
	hardeningMm  = 50.0 // that the beginning of the treatment takes
	treatRowMm   = 16.0 // and any line of it, with the foot of the page
)

// BenchCard is every heat in order, a line each with its sketch, and the treatment after them
// where it is known: twenty fit two pages.
func BenchCard(name string, p *plan.Plan, h *Hardening, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	b := newBook(name, size)
	var s *sheet
	turn := func() {
		s = b.page(1)
		s.y += s.text(s.margin, s.y, s.width(), s.face("label", 15, ink), name+" · "+text.Say("heats.cardTitle", nil)) + 1
		s.line(s.margin, s.y, s.margin+s.width(), s.y, .3, ink)
		s.y += 1.2
	}
	turn()
	longest := 1.0
	for _, h := range p.Heats {
		for i := range h.Shape {
			longest = math.Max(longest, h.Shape[i].XMm)
		}
	}
	for _, h := range p.Heats {
		if s.y > size.HeightMm-s.margin-heatRowMm-6 {
			turn()
		}
		s.heatRow(p, h, longest, units)
	}
	if h != nil {
		if s.y > size.HeightMm-s.margin-hardeningMm {
			turn()
		}
		h.write(units, func() *sheet {
			if s.y > size.HeightMm-s.margin-treatRowMm {
				turn()
			}
			return s
		})
	}
	s.text(s.margin, size.HeightMm-s.margin-6, s.width(), s.face("sans", 7.5, quiet), text.Say("caution.general", nil))
	return b.bytes()
}

func (s *sheet) heatRow(p *plan.Plan, h plan.HeatStep, longest float64, units quantity.System) {
	l := lineOf(p, h, units)
	x, top := s.margin, s.y
	s.text(x, top+1, 8, s.face("label", 14, ink), strconv.Itoa(h.Number))
	s.sketch(h.Shape, x+9, top+heatRowMm/2, math.Min(heatSketchMm/longest, .6))
	left := x + 9 + heatSketchMm + 2
	wide := s.width() - 9 - heatSketchMm - 2
	half := wide * .54
	words := l.work
	if l.face != "" {
		words += ", " + l.face
	}
	y := top + s.text(left, top, half, s.face("bold", 8.6, ink), words)
	y += s.text(left, y, half, s.face("sans", 7.4, quiet), l.zones)
	for _, c := range l.cautions {
		y += s.text(left, y, half, s.face("sans", 6.8, ember), c)
	}
	right := left + half + 2
	z := top + s.text(right, top, wide-half-2, s.face("narrow", 8.8, ink), l.heat)
	z += s.text(right, z, wide-half-2, s.face("narrow", 8.6, ink), l.targets)
	if l.blows != "" {
		z += s.text(right, z, wide-half-2, s.face("narrow", 8, quiet), l.blows)
	}
	s.y = math.Max(top+heatRowMm-1.4, math.Max(y, z)) + .7
	s.line(x, s.y, x+s.width(), s.y, .12, hair)
	s.y += .7
}

// sketch draws the piece as it is after a heat, in its zones' tints.
func (s *sheet) sketch(st []plan.Station, x0, middle, k float64) {
	if len(st) == 0 {
		return
	}
	top, bottom := extent(st)
	y0 := middle + (top+bottom)/2*k
	from := 0
	for i := 1; i <= len(st); i++ {
		if i < len(st) && st[i].Zone == st[from].Zone {
			continue
		}
		s.polyline(round(st[from:i], x0, y0, k), .25, ink, true, tint(st[from].Zone))
		from = i
	}
}
