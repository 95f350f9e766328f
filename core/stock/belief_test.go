package stock_test

import (
	"math"
	"testing"

	"coldember/core/fact"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestTheTableOfSalvageHoldsTogether(t *testing.T) {
	families := map[string]bool{}
	for _, f := range stock.Families() {
		families[f.ID] = true
		_, err := steel.Find(f.SteelID)
		require.NoError(t, err, f.ID)
		assert.Less(t, f.ForgeLowC+50, f.ForgeHighC, f.ID)
	}
	for _, test := range stock.Tests() {
		assert.Contains(t, test.Source, "judgement", "where the figures come from is said")
		for f := range families {
			sum := 0.0
			for _, r := range test.Results {
				require.Contains(t, r.P, f)
				sum += r.P[f]
			}
			assert.InDelta(t, 1, sum, 1e-9, "%s of %s", test.ID, f)
		}
	}
	for _, o := range stock.Origins() {
		assert.Contains(t, stock.Forms(), o.Form, o.ID)
		for f := range o.Prior {
			assert.True(t, families[f], o.ID)
		}
		for _, h := range o.Hazards {
			_, ok := stock.FindHazard(h)
			assert.True(t, ok, "%s of %s", h, o.ID)
		}
	}
}

func believe(t require.TestingT, origin string, f ...stock.Finding) stock.Belief {
	b, err := stock.Believe(origin, f, nil)
	require.NoError(t, err)
	return b
}

func TestFindingsShiftTheBelief(t *testing.T) {
	b := believe(t, "coilSpring")
	assert.Equal(t, "spring", b.Shares[0].Family)
	assert.Equal(t, stock.Likely, b.Verdict)
	sure := believe(t, "coilSpring", stock.Finding{Test: "spark", Result: "manyForks"}, stock.Finding{Test: "oilQuench", Result: "skates"})
	assert.Greater(t, sure.Shares[0].Now, b.Shares[0].Now)
	require.Len(t, sure.Steps, 2)
	// by hand: 0.9 : 0.05 : … times the likelihoods
	prior, after := b.Shares[0].Prior, sure.Steps[0].After["spring"]
	odds := 0.0
	for _, s := range b.Shares {
		odds += s.Prior * sure.Steps[0].P[s.Family]
	}
	assert.InDelta(t, prior*sure.Steps[0].P["spring"]/odds, after, 1e-12)
	assert.Equal(t, "unknown-spring", sure.SteelID)
}

func TestContradictionsNameNoWinner(t *testing.T) {
	b := believe(t, "leafSpring", stock.Finding{Test: "oilQuench", Result: "skates"}, stock.Finding{Test: "snap", Result: "bends"})
	assert.Equal(t, stock.Contradictory, b.Verdict)
	assert.True(t, b.Steps[1].Odd, "and say which finding does not fit")
	open := believe(t, "mowerBlade")
	assert.Equal(t, stock.Open, open.Verdict)
	low, high := 0.0, math.Inf(1)
	for _, s := range open.Shares {
		for _, f := range stock.Families() {
			if f.ID == s.Family && s.Now >= .05 {
				low, high = math.Max(low, f.ForgeLowC), math.Min(high, f.ForgeHighC)
			}
		}
	}
	assert.InDelta(t, low, open.ForgeLowC, 1e-9, "the window is safe for every family still likely")
	assert.InDelta(t, high, open.ForgeHighC, 1e-9)
}

func TestTheOrderOfFindingsDoesNotMatterAndSharesSumToOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		o := rapid.SampledFrom(stock.Origins()).Draw(t, "origin")
		var f []stock.Finding
		for _, test := range stock.Tests() {
			if rapid.Bool().Draw(t, test.ID) {
				f = append(f, stock.Finding{Test: test.ID, Result: rapid.SampledFrom(test.Results).Draw(t, "result").ID})
			}
		}
		b := believe(t, o.ID, f...)
		back := append([]stock.Finding(nil), f...)
		for i, j := 0, len(back)-1; i < j; i, j = i+1, j-1 {
			back[i], back[j] = back[j], back[i]
		}
		other := believe(t, o.ID, back...)
		sum := 0.0
		for i, s := range b.Shares {
			sum += s.Now
			require.InDelta(t, s.Now, other.Shares[i].Now, 1e-9)
			require.True(t, i == 0 || s.Now <= b.Shares[i-1].Now)
		}
		require.InDelta(t, 1, sum, 1e-9)
	})
}

func TestOwnLikelihoodsReplaceTheTables(t *testing.T) {
	f := []stock.Finding{{Test: "magnet", Result: "weak"}}
	own := []stock.Likelihood{{Test: "magnet", Result: "weak", Family: "mild", P: .9}}
	b, err := stock.Believe("chain", f, own)
	require.NoError(t, err)
	table := believe(t, "chain", f...)
	share := func(b stock.Belief, family string) float64 {
		for _, s := range b.Shares {
			if s.Family == family {
				return s.Now
			}
		}
		return 0
	}
	assert.Greater(t, share(b, "mild"), share(table, "mild"))
	for field, bad := range map[string]struct {
		origin string
		f      stock.Finding
	}{
		"origin":     {"moonrock", f[0]},
		"findings.0": {"chain", stock.Finding{Test: "magnet", Result: "sings"}},
	} {
		_, err := stock.Believe(bad.origin, []stock.Finding{bad.f}, nil)
		var fe fact.FieldErrors
		require.ErrorAs(t, err, &fe)
		assert.Equal(t, field, fe[0].Field)
	}
}
