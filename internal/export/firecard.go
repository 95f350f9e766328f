package export

import (
	"fmt"
	"math"
	"strings"

	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/core/whatif"
	"coldember/internal/text"
)

// FireCard is the one page to take to the fire: what to cut, where to chalk,
// the heats with their targets, the cautions. It shrinks its type until it fits
// one page of the paper. Within, where it is given, stands beside the totals.
func FireCard(name string, req plan.Request, p *plan.Plan, within *whatif.Within, units quantity.System, paper string) ([]byte, error) {
	size := PaperOf(paper)
	for scale := 1.0; ; scale *= 0.95 {
		b := newBook(name, size)
		s := b.page(scale)
		(&fireCard{sheet: s, req: &req, plan: p, within: within, units: units}).draw(name)
		if s.y <= size.HeightMm-s.margin || scale < 0.5 {
			return b.bytes()
		}
	}
}

type fireCard struct {
	*sheet
	req  *plan.Request
	plan *plan.Plan

	within *whatif.Within
	units  quantity.System
}

func (f *fireCard) say(code string, with map[string]string) string { return text.Say(code, with) }

func (f *fireCard) len(mm float64) string { return quantity.FormatLength(mm, f.units) }

func (f *fireCard) thick(mm float64) string { return quantity.FormatThickness(mm, f.units) }

func (f *fireCard) temp(c float64) string { return quantity.FormatTemperature(c, f.units) }

func (f *fireCard) draw(name string) {
	f.head(name)
	f.drawings()
	f.prep()
	f.steps()
	f.warnings()
	f.cautions()
}

func (f *fireCard) head(name string) {
	x, w := f.margin, f.width()
	f.y += f.text(x, f.y, w*.62, f.face("label", 21, ink), name)
	f.label(x+w-16*f.scale, f.margin, f.face("narrow", 11, quiet), f.say("card.page", nil))
	b := f.plan.Bar
	bar := f.say("form."+string(f.req.Bar.Form), nil) + " " + BarSize(f.req.Bar, f.units) + ", " + text.Steel(f.plan.Steel.ID)
	cut := "card.cut"
	if f.req.Choices.Holding != plan.Tongs {
		cut = "card.cutLast"
	}
	takes := quantity.FormatReckoned(b.CutLengthMm, b.LowMm, b.HighMm, f.units)
	if f.req.Bar.Form == stock.Ball { // it is weighed, not measured off
		cut, takes = "cut.weigh", quantity.FormatMass(math.Round(b.StartMm3*steel.DensityGPerCm3/1000), f.units)
	}
	f.y += f.text(x, f.y+1, w, f.face("bold", 12.5, ink),
		f.say(cut, nil)+" "+takes+" "+f.say("card.fromBar", map[string]string{"bar": bar})) + 1.5
	t := f.plan.Totals
	f.y += f.text(x, f.y, w, f.face("sans", 9.5, ink), f.say("card.window", map[string]string{"low": f.temp(t.LowC), "soak": f.temp(t.SoakC)})+
		" ("+f.say("card.colours", map[string]string{"from": text.HeatColour(t.SoakC, f.units), "to": text.HeatColour(t.LowC, f.units)})+"). "+
		f.say("card.totals", map[string]string{
			"heats":   fmt.Sprint(t.Heats) + f.fromTo(func(w *whatif.Within) whatif.Band { return w.Heats }, 1, 1),
			"blows":   fmt.Sprint(round5(t.Blows)) + f.fromTo(func(w *whatif.Within) whatif.Band { return w.Blows }, 1, 5),
			"minutes": fmt.Sprint(int(math.Round(t.TimeS/60))) + f.fromTo(func(w *whatif.Within) whatif.Band { return w.TimeS }, 60, 1),
			"cycles":  fmt.Sprint(t.Cycles),
		})) + 2
	f.line(x, f.y, x+w, f.y, .3, ink)
	f.y += 2.5
}

// fromTo is between what a total lies in four of five cases, in steps of so many of a unit.
func (f *fireCard) fromTo(of func(*whatif.Within) whatif.Band, unit, step float64) string {
	if f.within == nil {
		return ""
	}
	b := of(f.within)
	return fmt.Sprintf(" (%.0f–%.0f)", math.Round(b.Low/unit/step)*step, math.Round(b.High/unit/step)*step)
}

func round5(n int) int { return int(math.Round(float64(n)/5)) * 5 }

// drawings: the bar with its chalk marks, the forged shape and the finished
// outline on one scale, 1:1 where the page allows.
func (f *fireCard) drawings() {
	b, d := f.plan.Bar, f.plan.Drawing
	longest := b.CutLengthMm
	for _, z := range append(d.ForgedZones, d.FinishedZones...) {
		longest = math.Max(longest, z.ToMm)
	}
	room := f.width() - 14
	k := 1.0
	for _, step := range []float64{1, 1. / 2, 1. / 3, 1. / 4, 1. / 5, 1. / 10} {
		if k = step; longest*step <= room {
			break
		}
	}
	x0 := f.margin + 2
	small, quietF := f.face("narrow", 9, ink), f.face("narrow", 8.5, quiet)
	f.y += f.text(x0-2, f.y, f.width(), f.face("label", 10, ink),
		f.say("card.chalk", nil)+"   "+f.say("card.scale", map[string]string{"scale": scaleName(k)})) + 1
	h := math.Max(b.WidthMm*k, 5)
	// a label that would run into the one before goes a line lower
	const lineMm = 3.6
	row, right, deepest := 0, math.Inf(-1), 0
	under := func(at float64, with face, words string) {
		f.use(with)
		half := f.pdf.GetStringWidth(words) / 2
		if row++; at-half > right+1 {
			row = 0
		}
		right, deepest = at+half, max(deepest, row)
		f.label(at, f.y+h+2+float64(row)*lineMm*f.scale, with, words)
	}
	for _, m := range b.Marks {
		x, to := x0+m.FromMm*k, x0+m.ToMm*k
		f.polyline([][2]float64{{x, f.y}, {to, f.y}, {to, f.y + h}, {x, f.y + h}}, .35, ink, true, tint(m.Zone))
		f.label((x+to)/2, f.y+h/2-2*f.scale, small, f.say("letter."+m.Zone, nil))
		f.line(to, f.y-1.5, to, f.y+h+1.5, .5, ink)
		under(to, small, f.len(m.ToMm))
	}
	end := x0 + b.CutLengthMm*k
	f.line(end, f.y-3, end, f.y+h+1.5, .6, ember, 1.5, 1)
	under(end, f.face("label", 9, ember), quantity.FormatReckoned(b.CutLengthMm, 0, 0, f.units))
	f.edgeTicks(x0, end, f.y+h)
	f.y += h + (6.4+lineMm*float64(max(1, deepest)))*f.scale
	for _, s := range []struct {
		code     string
		stations []plan.Station
	}{{"card.forged", d.Forged}, {"card.finished", d.Finished}} {
		top, bottom := extent(s.stations)
		f.y += f.text(x0-2, f.y, f.width(), quietF, f.say(s.code, nil)) + .5
		f.outline(s.stations, x0, f.y+top*k, k)
		f.y += (top-bottom)*k + 2.5
	}
	f.y += 1
}

// edgeTicks mark the edge side, so that nobody loses it.
func (f *fireCard) edgeTicks(x0, x1, y float64) {
	for x := x0 + 2; x < x1-1; x += 4 {
		f.line(x, y, x, y+1.1, .25, quiet)
	}
}

func (f *fireCard) outline(st []plan.Station, x0, y0, k float64) {
	from := 0
	for i := 1; i <= len(st); i++ {
		if i < len(st) && st[i].Zone == st[from].Zone {
			continue
		}
		to := min(i, len(st)-1)
		if to < len(st) && st[to].Zone != st[from].Zone && math.Abs(st[to].XMm-st[to-1].XMm) < 1e-3 {
			to-- // a step, such as the shoulder
		}
		f.polyline(round(st[from:to+1], x0, y0, k), .3, ink, true, tint(st[from].Zone))
		from = i
	}
}

// round goes round a stretch: along its spine, and back along its edge.
func round(st []plan.Station, x0, y0, k float64) [][2]float64 {
	pts := make([][2]float64, 2*len(st))
	for i := range st {
		x, y := st[i].Spine()
		pts[i] = [2]float64{x0 + x*k, y0 - y*k}
		x, y = st[i].Edge()
		pts[len(pts)-1-i] = [2]float64{x0 + x*k, y0 - y*k}
	}
	return pts
}

func extent(st []plan.Station) (top, bottom float64) {
	for _, s := range st {
		top, bottom = math.Max(top, math.Max(s.SpineY, s.EdgeY)), math.Min(bottom, math.Min(s.SpineY, s.EdgeY))
	}
	return top, bottom
}

func scaleName(k float64) string {
	if k == 1 {
		return "1:1"
	}
	return "1:" + strings.TrimSuffix(fmt.Sprintf("%.3g", 1/k), ".0")
}

// prep is what is done to the piece before the first heat.
func (f *fireCard) prep() {
	for _, p := range f.plan.Prep {
		with := map[string]string{}
		for k, v := range text.Figures(p.Figures, f.units) {
			with[k] = v
		}
		f.y += f.text(f.margin, f.y, f.width(), f.face("sans", 9, ink), f.say(p.Code, with))
		for _, c := range p.CautionCodes {
			f.y += f.text(f.margin+4, f.y, f.width()-4, f.face("sans", 8, ember), f.say(c, nil))
		}
	}
	if len(f.plan.Prep) > 0 {
		f.y += 2
	}
}

// steps lists the operations with the heats they fall in.
func (f *fireCard) steps() {
	x, w := f.margin, f.width()
	cols := []float64{6, w * .43, w * .25}
	f.text(x+cols[0], f.y, cols[1], f.face("label", 10, ink), f.say("card.heats", nil))
	f.y += f.text(x+cols[0]+cols[1]+cols[2]+2, f.y, w, f.face("label", 10, ink), f.say("card.targets", nil)) + .8
	bold, body, narrow, caution := f.face("bold", 9.3, ink), f.face("sans", 8.2, ink), f.face("narrow", 9.3, ink), f.face("sans", 8, ember)
	for i, op := range f.plan.Operations {
		top := f.y
		f.text(x, top, cols[0], f.face("label", 10, ink), fmt.Sprint(i+1))
		y := top + f.text(x+cols[0], top, cols[1], bold, f.opName(op))
		y += f.text(x+cols[0], y, cols[1], body, f.say("how."+op.Kind, nil))
		for _, c := range op.CautionCodes {
			y += f.text(x+cols[0], y, cols[1], caution, f.say(c, nil))
		}
		y2 := top + f.text(x+cols[0]+cols[1]+1, top, cols[2], narrow, f.effort(op))
		y3 := top + f.text(x+cols[0]+cols[1]+cols[2]+2, top, w-cols[0]-cols[1]-cols[2]-2, narrow, f.calipers(op))
		f.y = math.Max(y, math.Max(y2, y3)) + .7
		f.line(x, f.y, x+w, f.y, .12, hair)
		f.y += .7
	}
}

func (f *fireCard) opName(op plan.Step) string {
	n := operationName(&op, f.units)
	if op.Hammer().Machine != "" {
		n += ", " + f.say("machine."+op.Hammer().Machine, nil)
	} else if op.Hammer().Face != "" {
		n += ", " + f.say("face."+string(op.Hammer().Face), nil)
		if op.Hammer().Support != "" {
			n += ", " + f.say("support."+op.Hammer().Support, nil)
		}
	}
	if op.TargetC > 0 {
		n += ", " + f.temp(op.TargetC) + " (" + text.HeatColour(op.TargetC, f.units) + ")"
		if op.Fire().SoakS > 0 {
			n += ", " + f.say("heat.soaks", map[string]string{"time": text.Figure("soakS", op.Fire().SoakS, f.units)})
		}
	}
	if op.Hammer().BendRiseMm > 0 {
		n += ", " + f.say("card.riseGive", map[string]string{"rise": f.len(op.Hammer().BendRiseMm)})
	}
	return n
}

func (f *fireCard) effort(op plan.Step) string {
	first, last := 0, 0
	for _, h := range f.plan.Heats {
		for _, part := range h.Parts {
			if part.Operation == op.ID {
				if first == 0 {
					first = h.Number
				}
				last = h.Number
			}
		}
	}
	span := f.say("card.heatOne", map[string]string{"from": fmt.Sprint(first)})
	if last > first {
		span = f.say("card.heatSpan", map[string]string{"from": fmt.Sprint(first), "to": fmt.Sprint(last)})
	}
	low := f.plan.Totals.LowC
	switch {
	case op.Hammer().LowC > 0:
		low = op.Hammer().LowC
	case op.TargetC > 0:
		return span
	}
	return span + " · " + f.say("card.blows", map[string]string{"blows": fmt.Sprint(int(math.Ceil(op.Hammer().Blows)))}) + "\n" +
		f.say("card.stopAt", map[string]string{"low": f.temp(low), "colour": text.HeatColour(low, f.units)})
}

func (f *fireCard) calipers(op plan.Step) string {
	var lines []string
	for _, r := range op.Readings {
		lines = append(lines, f.say("card.reading", map[string]string{"at": f.len(r.AtMm), "height": f.len(r.HeightMm), "thick": f.thick(r.ThicknessMm)}))
	}
	return strings.Join(lines, "\n")
}

func (f *fireCard) warnings() {
	lines := text.Warnings(f.plan.Warnings, f.units)
	if len(lines) == 0 {
		return
	}
	x, w := f.margin, f.width()
	f.y += f.text(x, f.y+1, w, f.face("label", 10, ink), f.say("card.warnings", nil)) + 1
	for _, l := range lines {
		kind, col := "sans", ink
		if l.Stop {
			kind, col = "bold", ember
		}
		f.y += f.text(x, f.y, w, f.face(kind, 8.2, col), l.Words)
	}
}

func (f *fireCard) cautions() {
	x, w := f.margin, f.width()
	f.y += 1
	f.y += f.text(x, f.y, w, f.face("bold", 8.2, ink), f.say("caution.eyesEars", nil)+" "+f.say("caution.fire", nil)+" "+f.say("caution.general", nil))
	f.y += f.text(x, f.y, w, f.face("sans", 7.6, quiet), f.say("card.estimate", nil))
}
