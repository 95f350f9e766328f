package plan_test

import (
	"context"
	"testing"

	"coldember/core/plan"

	"github.com/stretchr/testify/require"
)

// BenchmarkSettled is a whole plan, fixed point included, by how finely the
// piece is simulated.
func BenchmarkSettled(b *testing.B) {
	for _, cells := range []int{40, 200} {
		b.Run(map[int]string{40: "40cells", 200: "200cells"}[cells], func(b *testing.B) {
			r := slicer(flat(40, 6, 610))
			r.CellCount = cells
			b.ReportAllocs()
			for b.Loop() {
				_, err := plan.Make(context.Background(), r)
				require.NoError(b, err)
			}
		})
	}
}
