package colour

import "math"

// films are how thick the skin of oxide on bright steel is after an hour at a temperature, nm: such that the light that is
// lost in it goes from violet (straw) over green (purple) to red (blue) at the temperatures that the trade gives those colours
// (judgement; skins are told to be about half as thick again where the turn at the steel is left out).
var films = [][2]float64{{190, 20}, {205, 25}, {225, 30}, {255, 34.5}, {270, 36.5}, {285, 39}, {300, 42}, {315, 46}, {335, 52}, {360, 60}}

// FilmNm is that thickness. Valid for 190 to 360 °C.
func FilmNm(oneHourC float64) float64 {
	for i := 1; i < len(films); i++ {
		a, b := films[i-1], films[i]
		if oneHourC <= b[0] || i == len(films)-1 {
			return math.Max(0, a[1]+(oneHourC-a[0])/(b[0]-a[0])*(b[1]-a[1]))
		}
	}
	return 0
}

// Refraction of the skin and of the steel under it, about the middle of the visible (judgement, between magnetite and
// haematite).
const (
	filmN, filmK   = 2.6, .30
	steelN, steelK = 2.9, 3.1
)

// Tempered is the colour of bright steel after an hour at a temperature, in a room: light that is thrown back from both
// faces of the skin of oxide and meets itself (Airy's sum for one film, straight on).
func Tempered(oneHourC float64, room Room) RGB {
	white := room.white()
	d := FilmNm(oneHourC)
	r01 := fresnel(complex(1, 0), complex(filmN, -filmK))
	r12 := fresnel(complex(filmN, -filmK), complex(steelN, -steelK))
	l := lights[room]
	of := over(func(nm float64) float64 {
		b := 2 * math.Pi * d / nm
		// e^(-2iβ) of a film that takes some of the light
		turn := cexp(-2*b*filmN, -2*b*filmK)
		r := (r01 + r12*turn) / (1 + r01*r12*turn)
		return (real(r)*real(r) + imag(r)*imag(r)) * planck(nm, l[1])
	})
	paper := BlackBody(l[1])
	return of.adapted(white).times(1.35 / paper.Y).rgb() // bright steel throws some of it straight at the eye
}

func fresnel(a, b complex128) complex128 { return (a - b) / (a + b) }

// cexp is the exponential of a number with such a turn and such a fall.
func cexp(turn, fall float64) complex128 {
	sin, cos := math.Sincos(turn)
	return complex(math.Exp(fall)*cos, math.Exp(fall)*sin)
}
