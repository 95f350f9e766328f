package review_test

import (
	"encoding/json"
	"strconv"
	"strings"
	"testing"

	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// clears proves a warning's remedy: with it the warning is gone.
func clears(t *testing.T, r plan.Request, w fact.Warning) {
	t.Helper()
	if w.Remedy == nil {
		return
	}
	r = with(t, r, w.Remedy.Field, w.Remedy.Mm, w.Remedy.Text)
	for _, s := range w.Remedy.And {
		r = with(t, r, s.Field, s.Mm, "")
	}
	assert.Empty(t, plantest.Warning(plantest.Make(t, r), w.Code).Code, "%s: its remedy clears it", w.Code)
}

// with is the request with one field set, as one press sets it.
func with(t *testing.T, r plan.Request, field string, mm float64, text string) plan.Request {
	t.Helper()
	if field == "smith.machine" {
		r.Smith.Machine = forge.NewMachine(forge.MachineKind(text))
		return r
	}
	if field == "choices.order" {
		r.Choices.Order, r.Choices.Forced = nil, false
		return r
	}
	if _, ok := strings.CutPrefix(field, "tool."); ok {
		r.Choices.Tools = nil
		return r
	}
	raw, err := json.Marshal(r)
	require.NoError(t, err)
	var all any
	require.NoError(t, json.Unmarshal(raw, &all))
	at, parts := all, strings.Split(field, ".")
	for _, p := range parts[:len(parts)-1] {
		if list, ok := at.([]any); ok {
			i, err := strconv.Atoi(p)
			require.NoError(t, err)
			at = list[i]
			continue
		}
		at = at.(map[string]any)[p]
		require.NotNil(t, at, field)
	}
	last := parts[len(parts)-1]
	switch {
	case text == "":
		at.(map[string]any)[last] = mm
	case strings.HasSuffix(last, "Mm"):
		at.(map[string]any)[last] = parsed(t, text, quantity.Length)
	case strings.HasSuffix(last, "C"):
		at.(map[string]any)[last] = parsed(t, text, quantity.Temperature)
	default:
		at.(map[string]any)[last] = text
	}
	raw, err = json.Marshal(all)
	require.NoError(t, err)
	out := plan.Request{Forged: r.Forged, Steel: r.Steel, CellCount: r.CellCount}
	require.NoError(t, json.Unmarshal(raw, &out))
	return out
}

func parsed(t *testing.T, text string, k quantity.Kind) float64 {
	t.Helper()
	v, err := quantity.Parse(text, k, quantity.Metric)
	require.NoError(t, err)
	return v
}

func degrees(t *testing.T, text string) float64 {
	t.Helper()
	return parsed(t, text, quantity.Temperature)
}
