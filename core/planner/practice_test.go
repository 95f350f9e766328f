package planner_test

import (
	"encoding/json"
	"os"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// practised is a piece with what working smiths take for it.
type practised struct {
	Name    string
	Heats   [2]float64
	Loss    [2]float64
	Request plan.Request
}

// TestPractice plans every piece of the list: all of them take what working smiths take. With -v (make practice)
// it prints planned, range and whether it lies inside.
func TestPractice(t *testing.T) {
	raw, err := os.ReadFile("testdata/practice.json")
	require.NoError(t, err)
	var list struct{ Pieces []practised }
	require.NoError(t, json.Unmarshal(raw, &list))
	require.Len(t, list.Pieces, 14)
	inside := 0
	for _, row := range list.Pieces {
		p, err := planner.Make(t.Context(), row.Request)
		require.NoError(t, err, row.Name)
		trips, loss := float64(p.Totals.Heats), p.Bar.ScaleShare
		in := map[string]bool{"heats": trips >= row.Heats[0] && trips <= row.Heats[1], "loss": loss >= row.Loss[0] && loss <= row.Loss[1]}
		mark := map[bool]string{true: "inside", false: "OUTSIDE"}
		t.Logf("%-22s heats %3.0f of %2.0f–%2.0f %-7s  loss %4.1f %% of %2.0f–%2.0f %% %s", row.Name, trips, row.Heats[0], row.Heats[1], mark[in["heats"]], loss*100, row.Loss[0]*100, row.Loss[1]*100, mark[in["loss"]])
		for what, ok := range in {
			if ok {
				inside++
			}
			assert.True(t, ok, "%s: %s", row.Name, what)
		}
	}
	t.Logf("%d of %d inside", inside, 2*len(list.Pieces))
}
