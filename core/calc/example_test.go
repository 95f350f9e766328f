package calc_test

import (
	"context"
	"fmt"

	"coldember/core/calc"
)

func Example() {
	_, err := calc.Run(context.Background(), "moonphase", nil)
	fmt.Println(err)
	// Output: calc: no kind "moonphase"; there are [arm bend billet blade blow cool coverage cutplan decarb dip draw expand flow grain harden heat largest learn nest pattern reach scale section size spread stock stroke temper window]
}
