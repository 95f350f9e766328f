package route_test

import (
	"fmt"

	"coldember/core/route"
)

func Example() {
	r := route.ReachOf(25, 5, 32, 3, .45) // a bar of 25 × 5, to be 32 high and 3 thick on the mean
	fmt.Printf("%s: needs %.2f, reaches %.1f mm\n", r.Way, r.SpreadNeeded, r.ReachableHeightMm)
	// Output: tooNarrow: needs 0.48, reaches 31.5 mm
}
