package export

import (
	"fmt"
	"slices"
	"strings"
)

// DXF writes a drawing as release 12 text, in millimetres: closed polylines, a
// layer each.
func DXF(ls []Loop) []byte {
	var b strings.Builder
	pair := func(code int, value any) { fmt.Fprintf(&b, "%3d\r\n%v\r\n", code, value) }
	num := func(code int, v float64) { fmt.Fprintf(&b, "%3d\r\n%.6f\r\n", code, v) }
	lo, hi := bounds(ls)
	pair(0, "SECTION")
	pair(2, "HEADER")
	pair(9, "$ACADVER")
	pair(1, "AC1009")
	pair(9, "$INSUNITS")
	pair(70, 4)
	for i, p := range []Point{lo, hi} {
		pair(9, []string{"$EXTMIN", "$EXTMAX"}[i])
		num(10, p[0])
		num(20, p[1])
		num(30, 0)
	}
	pair(0, "ENDSEC")
	pair(0, "SECTION")
	pair(2, "TABLES")
	pair(0, "TABLE")
	pair(2, "LAYER")
	var layers []string // each once, however many loops lie on it
	for _, l := range ls {
		if name := strings.ToUpper(l.Layer); !slices.Contains(layers, name) {
			layers = append(layers, name)
		}
	}
	pair(70, len(layers))
	for i, name := range layers {
		pair(0, "LAYER")
		pair(2, name)
		pair(70, 0)
		pair(62, i+1)
		pair(6, "CONTINUOUS")
	}
	pair(0, "ENDTAB")
	pair(0, "ENDSEC")
	pair(0, "SECTION")
	pair(2, "ENTITIES")
	for _, l := range ls {
		layer := strings.ToUpper(l.Layer)
		pair(0, "POLYLINE")
		pair(8, layer)
		pair(66, 1)
		num(10, 0)
		num(20, 0)
		num(30, 0)
		pair(70, 1)
		for _, p := range l.Points {
			pair(0, "VERTEX")
			pair(8, layer)
			num(10, p[0])
			num(20, p[1])
			num(30, 0)
		}
		pair(0, "SEQEND")
		pair(8, layer)
	}
	pair(0, "ENDSEC")
	pair(0, "EOF")
	return []byte(b.String())
}
