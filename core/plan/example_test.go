package plan_test

import (
	"fmt"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
)

func Example() {
	bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}
	r := plan.NewRequest(blade.Starters()[0].Design, "80CrV2", bar, forge.Steady)
	r.Choices.Curve = "banana"
	fmt.Println(r.Validate())
	// Output: choices.curve: field.choice map[]
}
