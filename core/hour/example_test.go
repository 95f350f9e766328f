package hour_test

import (
	"fmt"

	"coldember/core/forge"
	"coldember/core/hour"
)

func Example() {
	h := hour.New("Ida")
	h.StretchMm, h.Blows, h.LastedS, h.AfterWidthMm, h.AfterThicknessMm = 30, 30, 17, 19.8, 6.6
	h.HotKg, h.WaterKg, h.WaterRiseK = .35, 2.5, 26
	t := hour.Read(&h, forge.NewSmith(forge.Steady), forge.NewFire())
	fmt.Printf("fire %.0f °C ± %.0f, a blow × %.2f\n", t.TempC.Is, t.TempC.Sd, t.Blow.Factor)
	// Output: fire 1195 °C ± 24, a blow × 1.12
}
