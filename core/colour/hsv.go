package colour

import "math"

// hsv are hue (degrees), saturation and value of a colour of a screen: A. R. Smith 1978.
func (c RGB) hsv() (h, s, v float64) {
	r, g, b := float64(c[0])/255, float64(c[1])/255, float64(c[2])/255
	most, least := max(r, g, b), min(r, g, b)
	d := most - least
	if d == 0 {
		return 0, 0, most
	}
	switch most {
	case r:
		h = math.Mod((g-b)/d+6, 6)
	case g:
		h = (b-r)/d + 2
	default:
		h = (r-g)/d + 4
	}
	return h * 60, d / most, most
}

// fromHSV is the other way round.
func fromHSV(h, s, v float64) RGB {
	at := func(n float64) int {
		k := math.Mod(n+h/60, 6)
		return int(math.Round(255 * (v - v*s*math.Max(0, min(k, 4-k, 1)))))
	}
	return RGB{at(5), at(3), at(1)}
}
