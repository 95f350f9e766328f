package fact_test

import (
	"fmt"

	"coldember/core/fact"
)

func Example() {
	c := fact.NewCheck()
	c.Within("bar").Range("widthMm", 500, 3, 200)
	fmt.Println(c.Err())
	// Output: bar.widthMm: field.rangeLength map[highest:200 lowest:3]
}
