package whatif_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/stock"
	"coldember/core/whatif"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheBandOfEveryPlanIsThatOfTheDraws: what every plan says of its length at once is the middle four fifths that thousands of draws come
// to, within an eighth of half of it on either side; never less than what is forged, and 95 % sure is more.
func TestTheBandOfEveryPlanIsThatOfTheDraws(t *testing.T) {
	compared := 0
	for i, s := range blade.Starters() {
		bar := stock.Item{Form: stock.Flat, WidthMm: 40, ThicknessMm: 8, LengthMm: 1500}
		req := plan.NewRequest(s.Design, "1084", bar, forge.Skills()[i%len(forge.Skills())])
		if i%5 == 0 {
			req.Sizing.LossMode = plan.ThumbLoss
		}
		p, err := planner.Make(t.Context(), req)
		if err != nil {
			continue
		}
		sure, err := whatif.BeSure(t.Context(), req, plan.UsualTolerances(req), 2000, 1)
		if err != nil {
			continue
		}
		compared++
		half := (sure.HighMm - sure.LowMm) / 2
		assert.InDelta(t, sure.LowMm, p.Bar.LowMm, .125*half, "%s: %.1f mm", s.ID, p.Bar.CutLengthMm)
		assert.InDelta(t, sure.HighMm, p.Bar.HighMm, .125*half, "%s: %.1f mm", s.ID, p.Bar.CutLengthMm)
		assert.GreaterOrEqual(t, p.Bar.LowMm, p.Bar.CutLengthMm*(1-p.Bar.LossFraction), "%s: what is forged has to be there", s.ID)
		assert.Greater(t, sure.P95Mm, p.Bar.HighMm, "%s: surer is longer", s.ID)
	}
	require.Greater(t, compared, 20)
	sawn := plan.NewRequest(blade.Starters()[0].Design, "1084", stock.Usual(stock.Flat), forge.Steady)
	sawn.Choices.Start = plan.FromSheet
	p, err := planner.Make(t.Context(), sawn)
	require.NoError(t, err)
	assert.InDelta(t, p.Bar.CutLengthMm, p.Bar.LowMm, 1e-9)
	assert.InDelta(t, p.Bar.CutLengthMm, p.Bar.HighMm, 1e-9)
}
