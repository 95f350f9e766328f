package harden_test

import (
	"fmt"

	"coldember/core/harden"
	"coldember/core/steel"
)

// Does a plain steel harden through in a fast oil, and how long can it be straightened?
func Example() {
	g, err := steel.Find("1084")
	if err != nil {
		panic(err)
	}
	s := harden.SteelOf(g)
	thick, err := harden.CriticalThicknessMm(harden.IdealDiameterMm(s), .5, harden.Hard, harden.OilFluid)
	if err != nil {
		panic(err)
	}
	seconds, _ := harden.StraightenS(s, 30, 3, 200, harden.Half)
	fmt.Printf("hard through up to %.1f mm; %.0f s to straighten\n", thick, seconds)
	// Output: hard through up to 5.5 mm; 67 s to straighten
}
