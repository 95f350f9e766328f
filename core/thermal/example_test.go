package thermal_test

import (
	"fmt"

	"coldember/core/thermal"
)

func Example() {
	s, _ := thermal.OnAnvil().TimeTo(25, 5, 1050, 850)
	fmt.Printf("%.1f s from 1050 to 850 °C under the hammer\n", s)
	_, err := thermal.Forge(1000).TimeTo(25, 5, 20, 1100)
	fmt.Println(err)
	// Output:
	// 15.6 s from 1050 to 850 °C under the hammer
	// thermal: 1100 °C cannot be reached in surroundings at 1000 °C
}
