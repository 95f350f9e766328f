package shelf

import (
	"fmt"
	"strings"

	"rsc.io/qr"
)

// quietZone is the white margin that readers want, in squares.
const quietZone = 4

// squares is a text as a code of squares, in SVG, one unit a square.
func squares(text string) (string, error) {
	c, err := qr.Encode(text, qr.M)
	if err != nil {
		return "", fmt.Errorf("shelf: %w", err)
	}
	var b strings.Builder
	n := c.Size + 2*quietZone
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" shape-rendering="crispEdges"><path fill="#fff" d="M0 0h%dv%dH0z"/><path d="`, n, n, n, n)
	for y := range c.Size {
		for x := 0; x < c.Size; x++ {
			if !c.Black(x, y) {
				continue
			}
			from := x
			for x+1 < c.Size && c.Black(x+1, y) {
				x++
			}
			fmt.Fprintf(&b, "M%d %dh%dv1h-%dz", from+quietZone, y+quietZone, x-from+1, x-from+1)
		}
	}
	b.WriteString(`"/></svg>`)
	return b.String(), nil
}
