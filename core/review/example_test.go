package review_test

import (
	"context"
	"fmt"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
)

// What a smith should know comes with the edit that mends it.
func Example() {
	bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 100}
	p, err := planner.Make(context.Background(), plan.NewRequest(blade.Starters()[0].Design, "80CrV2", bar, forge.Steady))
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, w := range p.Warnings {
		if w.Code == "warn.volumeShort" {
			fmt.Printf("%s: has %.0f mm, needs %.0f mm\n", w.Severity, w.Figures["haveMm"], w.Figures["needMm"])
		}
	}
	// Output: stop: has 100 mm, needs 131 mm
}
