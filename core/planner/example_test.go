package planner_test

import (
	"context"
	"fmt"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
)

func Example() {
	bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}
	p, err := planner.Make(context.Background(), plan.NewRequest(blade.Starters()[0].Design, "80CrV2", bar, forge.Steady))
	fmt.Printf("%v, cut %.0f mm, first %s\n", err, p.Bar.CutLengthMm, p.Operations[0].Kind)
	// Output: <nil>, cut 131 mm, first corners
}
