package finish

import "math"

// grainUm is the mean grain of FEPA's P grits, µm.
var grainUm = map[int]float64{36: 538, 60: 269, 80: 201, 120: 125, 220: 68, 320: 46.2, 400: 35, 600: 25.8, 800: 21.8, 1000: 18.3}

// A belt by its grit: how fast it takes soft steel off, and how much before it is used up
// (judgement until it is logged; good to a half).
var beltOf = map[int]struct{ mm3PerS, lifeMm3 float64 }{
	36: {45, 60_000}, 60: {28, 50_000}, 80: {18, 35_000}, 120: {9, 20_000}, 220: {3.5, 9_000}, 400: {1.2, 4_000},
}

// Hand sanding: so much of a face a second, cm² (judgement).
var sandedCm2PerS = map[int]float64{320: .035, 400: .04, 600: .045}

// Of the work at the grinder (judgement): hardened steel comes off slower, a worn grain scratches
// and cuts less, each pass asks to look, cool and turn.
const (
	hardShare   = .7
	wornShare   = 1.0 / 3
	lookShare   = 1.6 // of the time at the belt, in all
	minutesDoub = 1.6 // ×/÷: the time is known no better
)

// scratchMm is how deep a grit's scratches are.
func scratchMm(grit int, worn bool) float64 {
	d := grainUm[grit] / 1000
	if worn {
		d *= wornShare
	}
	return d
}

// pass is what one belt does.
type pass struct {
	minutes, belts float64
}

// grind is the time and the belts that a volume takes.
func grind(grit int, mm3 float64, hard, worn bool) pass {
	b := beltOf[grit]
	rate := b.mm3PerS
	if hard {
		rate *= hardShare
	}
	if worn {
		rate *= wornShare
	}
	mm3 = math.Max(0, mm3)
	return pass{mm3 / rate / 60 * lookShare, mm3 / b.lifeMm3}
}

// ladder are the grits after the first, up to the last, each of which takes the scratches of the
// one before out.
func ladder(from, to int) (out []int) {
	for _, g := range []int{36, 60, 80, 120, 220, 400} {
		if g > from && g <= to && (g != 80 || from == 36) {
			out = append(out, g)
		}
	}
	return out
}
