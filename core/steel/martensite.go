package steel

import "math"

// Hardness of tempered martensite by composition, after Grange, Hribal and Porter (Metallurgical
// Transactions A 8, 1977): the hardness of iron–carbon martensite tempered one hour, and what each
// element adds to it. The figures stand for the paper's curves, rounded to 5 HV: good to ± 2 HRC
// (judgement). Carbon counts to .8 %; what is more stays as carbide.
var (
	temperedAtC = []float64{205, 260, 315, 370, 425, 480, 540, 595}
	carbonAtPct = []float64{.2, .4, .6, .8}
	// carbonHV is by carbon, then by temperature.
	carbonHV = [][]float64{
		{400, 370, 335, 300, 265, 230, 190, 165},
		{530, 480, 425, 370, 320, 275, 215, 190},
		{630, 560, 490, 425, 360, 305, 240, 205},
		{700, 630, 550, 470, 395, 330, 260, 220},
	}
	// What 1 % of an element adds, HV, by temperature.
	manganeseHV  = []float64{8, 15, 25, 35, 42, 46, 48, 48}
	siliconHV    = []float64{35, 45, 55, 50, 40, 32, 27, 25}
	nickelHV     = []float64{3, 4, 5, 6, 7, 7, 7, 7}
	chromiumHV   = []float64{10, 15, 25, 35, 45, 50, 52, 52}
	molybdenumHV = []float64{20, 30, 50, 80, 120, 170, 220, 250}
	vanadiumHV   = []float64{30, 40, 60, 100, 170, 260, 350, 380}
)

// mostVanadiumPct is what of it counts: more stays in carbides.
const mostVanadiumPct = .2

// martensiteHRC is the hardness of martensite of a composition after one hour at tempC, 205 to 595 °C.
func martensiteHRC(g *Grade, tempC float64) float64 {
	i, f := between(temperedAtC, tempC)
	at := func(row []float64) float64 { return row[i]*(1-f) + row[i+1]*f }
	k, c := between(carbonAtPct, math.Max(carbonAtPct[0], math.Min(carbonAtPct[3], g.CarbonPct)))
	hv := at(carbonHV[k])*(1-c) + at(carbonHV[k+1])*c
	hv += g.ManganesePct*at(manganeseHV) + g.SiliconPct*at(siliconHV) + g.NickelPct*at(nickelHV) + g.ChromiumPct*at(chromiumHV) +
		g.MolybdenumPct*at(molybdenumHV) + math.Min(mostVanadiumPct, g.VanadiumPct)*at(vanadiumHV)
	return RockwellC(hv)
}

// between is the place in a rising list below a value, and how far on to the next it lies.
func between(list []float64, v float64) (i int, share float64) {
	for i < len(list)-2 && v > list[i+1] {
		i++
	}
	return i, math.Max(0, math.Min(1, (v-list[i])/(list[i+1]-list[i])))
}

// vickers is what each HRC from 20 on is in HV: ASTM E140, table 1, non-austenitic steels.
var vickers = []float64{
	238, 243, 248, 254, 260, 266, 272, 279, 286, 294, 302, 310, 318, 327, 336, 345, 354, 363, 372, 382, 392, 402, 412, 423, 434,
	446, 458, 471, 484, 498, 513, 528, 544, 560, 577, 595, 613, 633, 653, 674, 697, 720, 746, 772, 800, 832, 865, 900, 940,
}

// RockwellC is HRC of a Vickers hardness, 238 to 940 HV; beyond, that of the nearer end.
func RockwellC(hv float64) float64 {
	i, f := between(vickers, hv)
	return 20 + float64(i) + f
}
