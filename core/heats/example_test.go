package heats_test

import (
	"context"
	"fmt"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
)

// A plan has the heats that a smith counts, each with the operations that share it.
func Example() {
	bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}
	p, err := planner.Make(context.Background(), plan.NewRequest(blade.Starters()[0].Design, "80CrV2", bar, forge.Steady))
	if err != nil {
		fmt.Println(err)
		return
	}
	h := p.Heats[0]
	fmt.Printf("heat 1 of %d: from %.0f °C", len(p.Heats), h.StartC)
	for _, part := range h.Parts {
		fmt.Printf(", %s", part.Operation)
	}
	// Output: heat 1 of 15: from 1037 °C, corners
}
