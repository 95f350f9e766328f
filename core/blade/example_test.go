package blade_test

import (
	"fmt"

	"coldember/core/blade"
)

func Example() {
	d := blade.Starters()[0].Design
	body, _ := blade.New(d.Blade())
	m := body.Measure()
	fmt.Printf("%.0f g, balances %.0f mm from the point\n", m.MassG, m.BalanceFromPointMm)
	// Output: 70 g, balances 104 mm from the point
}
