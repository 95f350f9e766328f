package thermal

import "math"

// table holds a rate at every degree, since the forging loop asks for it some
// hundred thousand times a plan. Between degrees it is interpolated: within
// 3e-5 of the law, which is itself an order of magnitude.
type table []float64

// Span of the tables, °C; outside it the law itself is asked.
const tableFromC, tableToC = 400, 1500

func tabulate(law func(tempC float64) float64) table {
	t := make(table, tableToC-tableFromC+2)
	for i := range t {
		t[i] = law(tableFromC + float64(i))
	}
	return t
}

func (t table) at(tempC float64, law func(tempC float64) float64) float64 {
	x := tempC - tableFromC
	if !(x >= 0 && x < tableToC-tableFromC) {
		return law(tempC)
	}
	i := math.Floor(x)
	a, b := t[int(i)], t[int(i)+1]
	return a + (b-a)*(x-i)
}

var scaleTable, decarbTable = tabulate(ScaleRate), tabulate(DecarbDiffusivity)
