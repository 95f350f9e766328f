package stock_test

import (
	"fmt"

	"coldember/core/stock"
)

func Example() {
	p := stock.Item{Form: stock.Coil, WireDiameterMm: 13, MeanDiameterMm: 112, PitchMm: 38, Turns: 2.5}
	s, _ := p.Even()
	fmt.Printf("%.0f mm of bar, to be straightened from a radius of %.0f mm\n", s.WholeMm, s.BendRadiusMm)
	// Output: 885 mm of bar, to be straightened from a radius of 56 mm
}
