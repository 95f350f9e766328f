package cutting_test

import (
	"context"
	"fmt"

	"coldember/core/cutting"
)

func Example() {
	l, _ := cutting.Lay(context.Background(), cutting.Job{
		KerfMm: 2,
		Bars:   []cutting.Run{{LengthMm: 1000, Count: 1}, {LengthMm: 610, Count: 1}},
		Parts:  []cutting.Run{{LengthMm: 300, Count: 3}},
	})
	fmt.Println(len(l.Bars), l.Bars[0].LengthMm, l.Bars[0].Parts, l.Optimal)
	// Output: 1 1000 [300 300 300] true
}
