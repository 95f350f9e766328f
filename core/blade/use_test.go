package blade_test

import (
	"testing"

	"coldember/core/blade"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestEveryStarterIsUsualForItsUse: the designs that are offered keep to the
// guidance that is given.
func TestEveryStarterIsUsualForItsUse(t *testing.T) {
	seen := map[blade.Use]bool{}
	for _, s := range blade.Starters() {
		seen[s.Design.Use] = true
		body, err := blade.New(s.Design.Blade())
		require.NoError(t, err)
		found := body.Judge(s.Design.Use)
		require.Len(t, found, 4, s.ID)
		for _, f := range found {
			assert.True(t, f.Usual, "%s, %s: %.2f is not within %.2f–%.2f", s.ID, f.What, f.Value, f.Lowest, f.High)
		}
	}
	for _, u := range blade.Uses() {
		_, ok := u.Guide()
		assert.True(t, ok, u)
		assert.True(t, seen[u], "a starter for %s", u)
	}
}

func TestJudgeKnowsItsLimits(t *testing.T) {
	d := starterDesign("utility")
	find := func(d blade.Design, what string) blade.Finding {
		body, err := blade.New(d.Blade())
		require.NoError(t, err)
		for _, f := range body.Judge(d.Use) {
			if f.What == what {
				return f
			}
		}
		t.Fatal(what)
		return blade.Finding{}
	}
	thick := d
	thick.SpineMm, thick.TipMm, thick.Grind.EdgeMm = 8, 7, 3
	for _, what := range []string{"weight", "behind", "stiff"} {
		assert.True(t, find(d, what).Usual, what)
		f := find(thick, what)
		assert.False(t, f.Usual, what)
		assert.Greater(t, f.Value, f.High, what)
	}
	light := d
	light.Tang.LengthMm = 20
	light.Ricasso.LengthMm = 2
	assert.False(t, find(light, "balance").Usual, "nothing behind the heel to balance it")
	d.Use = "spoon carving"
	body, err := blade.New(d.Blade())
	require.NoError(t, err)
	assert.Empty(t, body.Judge(d.Use))
}
