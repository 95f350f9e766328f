package work_test

import (
	"context"
	"testing"

	"coldember/core/hour"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAnHourEntersThePlans of its smith, at the law and narrower; switched off it does not, and another smith has none.
func TestAnHourEntersThePlans(t *testing.T) {
	w, _ := fresh(t)
	ctx := context.Background()
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	name := shop.Doc.Smiths[0].Name
	set := func(edits ...edit.Edit) {
		shop, err := w.Shop(ctx)
		require.NoError(t, err)
		for i := range edits {
			edits[i].Units = "mm"
		}
		_, err = w.EditShop(ctx, shop.Version, edits)
		require.NoError(t, err)
	}
	set(edit.Edit{Field: "hours.add", Text: name})
	for f, text := range map[string]string{"stretchMm": "30", "blows": "30", "lastedS": "17", "afterWidthMm": "20.2", "afterThicknessMm": "7.4"} {
		set(edit.Edit{Field: "hours.0." + f, Text: text})
	}
	all, err := w.Hours(ctx)
	require.NoError(t, err)
	require.Len(t, all, 1)
	require.NotNil(t, all[0].Found.Blow)
	assert.Less(t, all[0].Found.Blow.Factor, .95, "fewer millimetres for thirty blows than the law has")
	b, a := all[0].Before.Heats, all[0].After.Heats
	assert.Less(t, (a.High-a.Low)/a.Mid, (b.High-b.Low)/b.Mid, "what became narrower")

	said, err := w.Said(ctx)
	require.NoError(t, err)
	require.NotEmpty(t, said.Learned)
	assert.Equal(t, 0, said.Learned[0].N)
	assert.InDelta(t, all[0].Found.Blow.Factor, said.Learned[0].Factor.Factor, 1e-9)
	set(edit.Edit{Field: "hours.0.off", Text: "yes"})
	said, err = w.Said(ctx)
	require.NoError(t, err)
	assert.Empty(t, said.Learned)

	shop, err = w.Shop(ctx)
	require.NoError(t, err)
	for _, bad := range []edit.Edit{{Field: "hours.add", Text: "nobody"}, {Field: "hours.add", Text: name}, {Field: "hours.0.smith", Text: "x"}, {Field: "hours.0.blows", Text: "1e308"}, {Field: "hours.7.blows", Text: "9"}} {
		_, err := w.EditShop(ctx, shop.Version, []edit.Edit{bad})
		require.Error(t, err, bad.Field)
	}
	assert.Equal(t, hour.New(name).WidthMm, shop.Doc.Hours[0].WidthMm)
}
