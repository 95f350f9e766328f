package plan_test

import (
	"context"
	"testing"

	"coldember/core/plan"

	"github.com/stretchr/testify/require"
)

func BenchmarkMakePreview(b *testing.B) {
	req := sanityRequest(25, 5)
	b.ReportAllocs()
	for b.Loop() {
		_, err := plan.Make(context.Background(), req)
		require.NoError(b, err)
	}
}
