package plan_test

import (
	"context"
	"testing"

	"coldember/core/plan"

	"github.com/stretchr/testify/require"
)

// BenchmarkMake is the plan of a small knife and of a large one, as previewed.
func BenchmarkMake(b *testing.B) {
	for name, req := range map[string]plan.Request{"reference": sanityRequest(25, 5), "slicer": slicer(flat(40, 6, 610))} {
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				_, err := plan.Make(context.Background(), req)
				require.NoError(b, err)
			}
		})
	}
}
