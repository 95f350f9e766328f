package colour

import "math"

// Constants of Planck's law (CODATA 2018, exact), and of photometry.
const (
	planckJs    = 6.62607015e-34
	lightMPerS  = 2.99792458e8
	boltzJPerK  = 1.380649e-23
	lumenPerW   = 683.002
	kelvinAt0C  = 273.15
	stepNm      = 10.0
	fromNm      = 380.0
	emissivity  = 0.8 // of scaly steel in the visible, nearly grey (judgement)
	paperShare  = 0.9 // of the light on it that white paper gives back
	scaleShare  = 0.12
	usualDim    = 0.0008 // cd/m²: what an eye that is used to the dark still sees (of Draper's point, about 525 °C)
	leastShare  = 0.02   // of the light that steel gives back: less glow is lost in it
	selfAdapted = 0.12   // of the glow, that an eye gets used to
	darkCd      = 4.0    // cd/m²: what is dimmer looks dim, however long an eye was in the dark
)

// XYZ is a colour and how bright it is, by the CIE's observer of 1931; Y is in cd/m².
type XYZ struct{ X, Y, Z float64 }

// observer are the colour matching functions of the CIE's standard observer of 1931 (ISO/CIE 11664-1), every ten nanometres
// from 380.
var observer = [][3]float64{
	{.0014, 0, .0065},
	{.0042, .0001, .0201},
	{.0143, .0004, .0679},
	{.0435, .0012, .2074},
	{.1344, .004, .6456},
	{.2839, .0116, 1.3856},
	{.3483, .023, 1.7471},
	{.3362, .038, 1.7721},
	{.2908, .06, 1.6692},
	{.1954, .091, 1.2876},
	{.0956, .139, .813},
	{.032, .208, .4652},
	{.0049, .323, .272},
	{.0093, .503, .1582},
	{.0633, .71, .0782},
	{.1655, .862, .0422},
	{.2904, .954, .0203},
	{.4334, .995, .0087},
	{.5945, .995, .0039},
	{.7621, .952, .0021},
	{.9163, .87, .0017},
	{1.0263, .757, .0011},
	{1.0622, .631, .0008},
	{1.0026, .503, .0003},
	{.8544, .381, .0002},
	{.6424, .265, 0},
	{.4479, .175, 0},
	{.2835, .107, 0},
	{.1649, .061, 0},
	{.0874, .032, 0},
	{.0468, .017, 0},
	{.0227, .0082, 0},
	{.0114, .0041, 0},
	{.0058, .0021, 0},
	{.0029, .001, 0},
	{.0014, .0005, 0},
	{.0007, .0003, 0},
	{.0003, .0001, 0},
	{.0002, .0001, 0},
	{.0001, 0, 0},
}

// over sums a spectrum, in W/(m² sr nm), over what an eye sees.
func over(spectrum func(nm float64) float64) XYZ {
	var c XYZ
	for i, o := range observer {
		w := spectrum(fromNm+float64(i)*stepNm) * stepNm * lumenPerW
		c.X, c.Y, c.Z = c.X+w*o[0], c.Y+w*o[1], c.Z+w*o[2]
	}
	return c
}

// planck is the radiance of a black body at a temperature, W/(m² sr nm).
func planck(nm, kelvin float64) float64 {
	m := nm * 1e-9
	e := planckJs * lightMPerS / (m * boltzJPerK * kelvin)
	if e > 700 {
		return 0
	}
	return 2 * planckJs * lightMPerS * lightMPerS / math.Pow(m, 5) / math.Expm1(e) * 1e-9
}

// BlackBody is a black body at a temperature.
func BlackBody(kelvin float64) XYZ {
	return over(func(nm float64) float64 { return planck(nm, kelvin) })
}

// chromaticity of a colour.
func (c XYZ) chromaticity() (x, y float64) {
	s := c.X + c.Y + c.Z
	return c.X / s, c.Y / s
}

// times scales a colour.
func (c XYZ) times(k float64) XYZ { return XYZ{c.X * k, c.Y * k, c.Z * k} }

func (c XYZ) plus(d XYZ) XYZ { return XYZ{c.X + d.X, c.Y + d.Y, c.Z + d.Z} }

// adapted is a colour as it looks to an eye that takes white for white, on a screen whose white is D65: Bradford's transform
// (K. M. Lam 1985, as CIE 159 gives it).
func (c XYZ) adapted(white XYZ) XYZ {
	lms := func(v XYZ) [3]float64 {
		return [3]float64{.8951*v.X + .2664*v.Y - .1614*v.Z, -.7502*v.X + 1.7135*v.Y + .0367*v.Z, .0389*v.X - .0685*v.Y + 1.0296*v.Z}
	}
	a, w, to := lms(c), lms(white.times(1/white.Y)), lms(XYZ{.95047, 1, 1.08883})
	for i := range a {
		a[i] *= to[i] / w[i]
	}
	return XYZ{
		.9869929*a[0] - .1470543*a[1] + .1599627*a[2],
		.4323053*a[0] + .5183603*a[1] + .0492912*a[2],
		-.0085287*a[0] + .0400428*a[1] + .9684867*a[2],
	}
}

// RGB is a colour of a screen (sRGB, IEC 61966-2-1).
type RGB [3]int

// bright is up to where a screen shows light as it is; what is brighter comes nearer and nearer to all that it has.
const bright = .55

// rgb brings a colour to a screen, where 1 of Y is its white. The brightest of its three lights is held to what there is, and
// the others with it, so that hue is kept; what no screen has, the deepest reds for one, is as near as it comes.
func (c XYZ) rgb() RGB {
	lin := [3]float64{3.2404542*c.X - 1.5371385*c.Y - .4985314*c.Z, -.969266*c.X + 1.8760108*c.Y + .041556*c.Z, .0556434*c.X - .2040259*c.Y + 1.0572252*c.Z}
	k := 1.0
	if m := max(lin[0], lin[1], lin[2]); m > bright {
		over := (m - bright) / (1 - bright)
		k = (bright + (1-bright)*over/(1+over)) / m
	}
	var out RGB
	for i, v := range lin {
		v = math.Max(0, math.Min(1, v*k))
		if v <= .0031308 {
			v *= 12.92
		} else {
			v = 1.055*math.Pow(v, 1/2.4) - .055
		}
		out[i] = int(math.Round(255 * v))
	}
	return out
}
