package section_test

import (
	"fmt"

	"coldember/core/section"
)

func Example() {
	s := section.Section{Kind: section.Flat, HeightMm: 30, SpineMm: 4, EdgeMm: .5, BevelHeightMm: 30}
	fmt.Printf("%.1f mm² of %.2f mm a third up\n", s.AreaMm2(), s.ThicknessAt(10))
	// Output: 67.5 mm² of 1.67 mm a third up
}
