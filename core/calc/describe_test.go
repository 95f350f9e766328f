package calc_test

import (
	"encoding/json"
	"strings"
	"testing"

	"coldember/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryKindSaysWhatItTakes: its example has an answer, and no field that is not listed.
func TestEveryKindSaysWhatItTakes(t *testing.T) {
	for _, kind := range calc.Kinds() {
		_, err := calc.Run(t.Context(), kind, json.RawMessage(calc.Example(kind)))
		require.NoError(t, err, kind)
		listed := map[string]bool{}
		for _, f := range calc.Fields(kind) {
			assert.NotEmpty(t, f.Holds, f.Name)
			listed[f.Name] = true
		}
		var in map[string]any
		require.NoError(t, json.Unmarshal([]byte(calc.Example(kind)), &in))
		for name := range in {
			found := listed[name]
			for l := range listed {
				found = found || strings.HasPrefix(l, name+".") || strings.HasPrefix(l, name+"[].")
			}
			assert.True(t, found, "%s takes %s, and does not say so", kind, name)
		}
	}
	assert.Empty(t, calc.Fields("moonphase"))
}
