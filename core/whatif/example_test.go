package whatif_test

import (
	"fmt"

	"coldember/core/whatif"
)

func Example() {
	factor, used := whatif.UniformFactor(13_500, 30_000, .1)
	fmt.Printf("%.2f times as large in every direction, from %.0f mm³\n", factor, used)
	// Output: 1.26 times as large in every direction, from 27000 mm³
}
