package plan_test

import (
	"reflect"
	"strings"
	"testing"

	"coldember/core/forge"
	"coldember/core/plan"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryKindOfStepIsInTheContract: the page learns the kinds from the tag, which knows
// those of the hammer and those of the fire, and no others.
func TestEveryKindOfStepIsInTheContract(t *testing.T) {
	f, ok := reflect.TypeFor[plan.Step]().FieldByName("Kind")
	require.True(t, ok)
	want := []string{"normalise", "anneal", "soften"}
	for _, k := range forge.Kinds() {
		want = append(want, string(k))
	}
	assert.ElementsMatch(t, want, strings.Split(f.Tag.Get("enum"), ","))
}

// TestAnOperationHasAnIDOfItsOwn, from which its kind can be told again.
func TestAnOperationHasAnIDOfItsOwn(t *testing.T) {
	seen := map[string]bool{}
	for _, k := range forge.Kinds() {
		for n := 1; n <= 12; n++ {
			id := plan.OperationID(k, n)
			assert.False(t, seen[id], id)
			seen[id] = true
			assert.Equal(t, k, plan.KindOf(id))
		}
	}
}
