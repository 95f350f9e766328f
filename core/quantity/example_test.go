package quantity_test

import (
	"fmt"

	"coldember/core/quantity"
)

func Example() {
	mm, _ := quantity.Parse("1 1/4 in + 3", quantity.Length, quantity.Metric)
	fmt.Println(mm, quantity.FormatLength(mm, quantity.Imperial))
	_, err := quantity.Parse("12 furlongs", quantity.Length, quantity.Metric)
	fmt.Println(err)
	// Output:
	// 34.75 1 3/8 in
	// quantity.unit at 3 in "12 furlongs"
}
