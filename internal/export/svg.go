package export

import (
	"fmt"
	"html"
	"strings"
)

// SVG writes a drawing at true size: one unit is a millimetre, y turned over as
// SVG wants it, with a bar of 50 mm to check the print.
func SVG(title string, ls []Loop) []byte {
	const margin, checkMm = 5.0, 50.0
	lo, hi := bounds(ls)
	w, h := hi[0]-lo[0]+2*margin, hi[1]-lo[1]+2*margin+8
	w = max(w, checkMm+2*margin)
	var b strings.Builder
	fmt.Fprintf(&b, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.3fmm\" height=\"%.3fmm\" viewBox=\"0 0 %.3f %.3f\">\n", w, h, w, h)
	fmt.Fprintf(&b, "<title>%s</title>\n", html.EscapeString(title))
	seen := map[string]int{}
	for _, l := range ls {
		id := l.Layer
		if seen[id]++; seen[l.Layer] > 1 {
			id = fmt.Sprintf("%s-%d", l.Layer, seen[l.Layer])
		}
		stroke, dash := "#20262a", ""
		if l.Layer == LayerForged {
			stroke, dash = "#626a67", " stroke-dasharray=\"2 1\""
		}
		fmt.Fprintf(&b, "<path id=\"%s\" data-layer=\"%s\" fill=\"none\" stroke=\"%s\" stroke-width=\"0.2\"%s d=\"", id, l.Layer, stroke, dash)
		for i, p := range l.Points {
			fmt.Fprintf(&b, "%c%.4f %.4f", "ML"[min(i, 1)], p[0]-lo[0]+margin, hi[1]-p[1]+margin)
		}
		b.WriteString("Z\"/>\n")
	}
	y := h - margin
	fmt.Fprintf(&b, "<path id=\"check-50mm\" fill=\"none\" stroke=\"#20262a\" stroke-width=\"0.2\" d=\"M%.3f %.3fv-3M%.3f %.3fh%.3fM%.3f %.3fv-3\"/>\n", margin, y, margin, y-1.5, checkMm, margin+checkMm, y)
	b.WriteString("</svg>\n")
	return []byte(b.String())
}
