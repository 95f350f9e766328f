package export_test

import (
	"bytes"
	"testing"

	"coldember/core/quantity"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestACutSheetHasAPageForAsManyBarsAsItTakes(t *testing.T) {
	bar := export.CutBar{Group: "1084 25 × 5", Name: "Yard bar", LengthMm: 1000, RemnantMm: 340, Parts: []export.CutPart{
		{Name: "Rigging knife", LengthMm: 327}, {Name: "A knife with a name that is longer than its part", FromMm: 328.5, LengthMm: 40}, {Name: "Boat", FromMm: 370, LengthMm: 288.5},
	}}
	one, err := export.CutSheet([]export.CutBar{bar}, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.True(t, bytes.HasPrefix(one, []byte("%PDF")))
	pages := func(pdf []byte) int { return len(page.FindAll(pdf, -1)) }
	assert.Equal(t, 1, pages(one))
	bars := make([]export.CutBar, 30)
	for i := range bars {
		bars[i] = bar
	}
	many, err := export.CutSheet(bars, quantity.Imperial, "letter")
	require.NoError(t, err)
	assert.Equal(t, 3, pages(many))
	none, err := export.CutSheet(nil, quantity.Metric, "a4")
	require.NoError(t, err)
	assert.True(t, bytes.HasPrefix(none, []byte("%PDF")))
}
