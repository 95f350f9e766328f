package export

import (
	"fmt"
	"html"
	"math"
	"slices"
	"strings"

	"coldember/core/plan"
	"coldember/internal/text"
)

// HelpDrawings lists the drawings of the handbook, each made from a plan.
func HelpDrawings() []string { return []string{"bar", "heats", "profile", "cooling"} }

// Of a drawing of the handbook, in its own units.
const (
	helpWide  = 640.0
	helpEdge  = 12.0
	helpInk   = "#8f9692" // to be seen by night and by day
	helpText  = 15.0
	helpHeats = 8 // heats that are drawn, from the first to the last
)

// help is a drawing that is being made.
type help struct {
	b    strings.Builder
	y    float64
	k, x float64
}

// HelpDrawing draws one page of the handbook from a plan; ok is false where there is none of that name.
func HelpDrawing(name string, p *plan.Plan) (svg []byte, ok bool) {
	if !slices.Contains(HelpDrawings(), name) {
		return nil, false
	}
	h := help{y: helpEdge, x: helpEdge}
	long := p.Bar.CutLengthMm
	for _, s := range append(slices.Clone(p.Drawing.Finished), p.Drawing.Forged...) {
		long = math.Max(long, s.XMm)
	}
	h.k = (helpWide - 2*helpEdge) / math.Max(1, long)
	switch name {
	case "bar":
		h.bar(p)
	case "heats":
		h.heats(p)
	case "profile":
		h.profile(p)
	case "cooling":
		h.cooling(p)
	}
	title := html.EscapeString(text.Say("help.drawing."+name, nil))
	return fmt.Appendf(nil, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %.0f %.0f" font-family="sans-serif" font-size="%.0f" role="img"><title>%s</title>%s</svg>`,
		helpWide, h.y+helpEdge, helpText, title, h.b.String()), true
}

func hex(zone string) string {
	c := zoneInk[zone]
	return fmt.Sprintf("#%02x%02x%02x", c.R, c.G, c.B)
}

func (h *help) path(pts [][2]float64, fill string) {
	if len(pts) < 2 {
		return
	}
	h.b.WriteString(`<path fill="` + fill + `" stroke="` + helpInk + `" stroke-width="1.5" stroke-linejoin="round" d="`)
	for i, p := range pts {
		fmt.Fprintf(&h.b, "%c%.1f %.1f", "ML"[min(i, 1)], p[0], p[1])
	}
	h.b.WriteString(`Z"/>`)
}

func (h *help) say(x float64, anchor, words string) {
	fmt.Fprintf(&h.b, `<text x="%.1f" y="%.1f" fill="%s" text-anchor="%s">%s</text>`, x, h.y, helpInk, anchor, html.EscapeString(text.Local(words)))
}

// outline draws a piece in the colours of its zones, its top at y.
func (h *help) outline(st []plan.Station) {
	top, bottom := extent(st)
	from := 0
	for i := 1; i <= len(st); i++ {
		if i < len(st) && st[i].Zone == st[from].Zone {
			continue
		}
		h.path(round(st[from:min(i+1, len(st))], h.x, h.y+top*h.k, h.k), hex(st[from].Zone))
		from = i
	}
	h.y += (top - bottom) * h.k
}

// bar is the bar with its chalk marks, what is forged of it, and the blade.
func (h *help) bar(p *plan.Plan) {
	line := func(code string) {
		h.y += helpText
		h.say(h.x, "start", text.Say(code, nil))
		h.y += 6
	}
	line("help.drawing.bar")
	tall := p.Bar.WidthMm * h.k
	for _, m := range p.Bar.Marks {
		x0, x1 := h.x+m.FromMm*h.k, h.x+m.ToMm*h.k
		h.path([][2]float64{{x0, h.y}, {x1, h.y}, {x1, h.y + tall}, {x0, h.y + tall}}, hex(m.Zone))
	}
	h.y += tall + 8
	line("card.forged")
	h.outline(p.Drawing.Forged)
	h.y += 8
	line("card.finished")
	h.outline(p.Drawing.Finished)
}

// heats are the piece after some of its heats, from the first to the last.
func (h *help) heats(p *plan.Plan) {
	n := min(helpHeats, len(p.Heats))
	k := h.k
	h.k *= .62
	for i := range n {
		s := p.Heats[0]
		if n > 1 {
			s = p.Heats[i*(len(p.Heats)-1)/(n-1)]
		}
		at := h.y
		h.outline(s.Shape)
		end := math.Max(h.y, at+helpText+4)
		h.y = (at+h.y)/2 + helpText/3
		h.say(helpWide-helpEdge, "end", fmt.Sprintf("%d · %s", s.Number, text.Say("op."+kindOf(p, s), nil)))
		h.y = end + 8
	}
	h.k = k
}

// kindOf is what most of a heat is for.
func kindOf(p *plan.Plan, s plan.HeatStep) string {
	if len(s.Parts) > 0 {
		for _, st := range p.Operations {
			if st.ID == s.Parts[0].Operation {
				return st.Kind
			}
		}
	}
	return "straighten"
}

// profile is the blade's thickness along it, ten times as thick as it is.
func (h *help) profile(p *plan.Plan) {
	const times = 10
	h.y += helpText
	h.say(h.x, "start", text.Say("help.drawing.profile", nil))
	h.y += 6
	most := 0.0
	var up, down [][2]float64
	for _, s := range p.Drawing.Finished {
		most = math.Max(most, s.ThicknessMm)
	}
	middle := h.y + most*times/2
	for _, s := range p.Drawing.Finished {
		up = append(up, [2]float64{h.x + s.XMm*h.k, middle - s.ThicknessMm*times/2})
		down = append(down, [2]float64{h.x + s.XMm*h.k, middle + s.ThicknessMm*times/2})
	}
	slices.Reverse(down)
	h.path(append(up, down...), hex("blade"))
	h.y = middle + most*times/2
}

// cooling is how hot the coldest worked spot is in the heat that lasts longest, until the piece is too
// cold to go on.
func (h *help) cooling(p *plan.Plan) {
	h.y += helpText
	h.say(h.x, "start", text.Say("help.drawing.cooling", nil))
	h.y += 8
	var curve []plan.Moment
	for _, s := range p.Heats {
		if len(s.Curve) > 0 && (len(curve) == 0 || s.Curve[len(s.Curve)-1].S > curve[len(curve)-1].S) {
			curve = s.Curve
		}
	}
	if len(curve) < 2 {
		return
	}
	low, high := math.Inf(1), 0.0
	for _, m := range curve {
		low, high = math.Min(low, m.C), math.Max(high, m.C)
	}
	const tall = 150.0
	last := curve[len(curve)-1].S
	pts := make([][2]float64, len(curve))
	for i, m := range curve {
		pts[i] = [2]float64{h.x + (helpWide-2*helpEdge)*m.S/last, h.y + tall*(high-m.C)/math.Max(1, high-low)}
	}
	floor := h.y + tall
	h.path(append(append([][2]float64{{h.x, floor}}, pts...), [2]float64{pts[len(pts)-1][0], floor}), fmt.Sprintf("#%02x%02x%02x", ember.R, ember.G, ember.B))
	h.y = floor + helpText + 2
	h.say(h.x, "start", fmt.Sprintf("0 s, %.0f °C", high))
	h.say(helpWide-helpEdge, "end", fmt.Sprintf("%.0f s, %.0f °C", last, low))
}
