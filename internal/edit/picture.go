package edit

import (
	"math"
	"reflect"
	"strconv"
	"strings"

	"coldember/core/blade"
	"coldember/internal/doc"
)

// picture changes how the picture of a piece lies.
func picture(d *doc.Piece, what string, e Edit) *Problem {
	if d.Picture == nil {
		return problemAt(e, "field.unknown", -1)
	}
	switch what {
	case "remove":
		d.Picture = nil
		return nil
	case "scale":
		return scalePicture(d.Picture, e)
	case "widthMm":
		mm, bad := figure(what, e)
		if bad == nil {
			d.Picture.MmPerPx = mm / float64(d.Picture.WidthPx)
		}
		return bad
	}
	if !strings.HasSuffix(what, "Mm") && what != "turnDeg" && what != "strengthShare" {
		return problemAt(e, "field.unknown", -1)
	}
	v, f, ok := member(reflect.ValueOf(d.Picture).Elem(), what)
	if !ok {
		return problemAt(e, "field.unknown", -1)
	}
	n, bad := figure(f.Name, e)
	if bad == nil {
		v.SetFloat(n)
	}
	return bad
}

// scalePicture makes the distance of two points of the picture what it is in truth; the
// first point stays where it lies.
func scalePicture(p *doc.Picture, e Edit) *Problem {
	parts := strings.Split(e.Text, ";")
	if len(parts) != 3 {
		return problemAt(e, "picture.points", -1)
	}
	a, okA := pixel(parts[0])
	b, okB := pixel(parts[1])
	px := math.Hypot(b[0]-a[0], b[1]-a[1])
	if !okA || !okB || px < 2 {
		return problemAt(e, "picture.points", -1)
	}
	mm, bad := Length(e, parts[2], len(parts[0])+len(parts[1])+2)
	if bad != nil {
		return bad
	}
	if !(mm >= 1 && mm <= 3000) {
		return outside(e, "field.rangeLength", 1, 3000)
	}
	before := pixelAt(p, a)
	p.MmPerPx = mm / px
	after := pixelAt(p, a)
	p.XMm += before[0] - after[0]
	p.YMm += before[1] - after[1]
	return nil
}

func pixel(s string) (at [2]float64, ok bool) {
	f := strings.Fields(s)
	if len(f) != 2 {
		return at, false
	}
	for i, t := range f {
		v, err := strconv.ParseFloat(t, 64)
		if err != nil {
			return at, false
		}
		at[i] = v
	}
	return at, true
}

// pixelAt is where a pixel of the picture lies, mm from the point and up from the
// spine of the heel.
func pixelAt(p *doc.Picture, px [2]float64) blade.Node {
	s, c := math.Sincos(p.TurnDeg * math.Pi / 180)
	x, y := px[0]*p.MmPerPx, px[1]*p.MmPerPx
	return blade.Node{p.XMm + x*c - y*s, p.YMm - (x*s + y*c)}
}
