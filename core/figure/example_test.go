package figure_test

import (
	"fmt"

	"coldember/core/blade"
	"coldember/core/figure"
)

func Example() {
	st, _ := figure.Sketch(blade.Starters()[0].Design)
	fmt.Printf("%s to %s, %.0f mm\n", st[0].Zone, st[len(st)-1].Zone, st[len(st)-1].XMm)
	// Output: point to tang, 219 mm
}
