package heats_test

import (
	"context"
	"testing"
	"time"

	"coldember/core/planner"
	"coldember/core/planner/plantest"

	"github.com/stretchr/testify/require"
)

// BenchmarkSettled is a whole plan, fixed point included, by how finely the
// piece is simulated.
func BenchmarkSettled(b *testing.B) {
	for _, cells := range []int{40, 200} {
		b.Run(map[int]string{40: "40cells", 200: "200cells"}[cells], func(b *testing.B) {
			r := plantest.Slicer(plantest.Flat(40, 6, 610))
			r.CellCount = cells
			b.ReportAllocs()
			for b.Loop() {
				_, err := planner.Make(context.Background(), r)
				require.NoError(b, err)
			}
		})
	}
}

// BenchmarkLetsGo is how long a plan of many hundreds of heats goes on after it was
// cancelled.
func BenchmarkLetsGo(b *testing.B) {
	worst := time.Duration(0)
	for b.Loop() {
		ctx, cancel := context.WithCancel(context.Background())
		done := make(chan error)
		go func() {
			_, err := planner.Make(ctx, slow())
			done <- err
		}()
		time.Sleep(20 * time.Millisecond)
		cancel()
		left := time.Now()
		require.ErrorIs(b, <-done, context.Canceled)
		worst = max(worst, time.Since(left))
	}
	b.ReportMetric(float64(worst.Microseconds())/1000, "ms-worst")
}
