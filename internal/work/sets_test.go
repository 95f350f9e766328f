package work_test

import (
	"testing"

	"coldember/core/forge"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAShopHasItsHammersAndForges: added from the usual ones, changed, taken
// away; names are told apart.
func TestAShopHasItsHammersAndForges(t *testing.T) {
	w, _ := fresh(t)
	s, err := w.Shop(ctx)
	require.NoError(t, err)
	require.Len(t, s.Doc.Hammers, 3)
	require.Len(t, s.Doc.Hearths, 1)
	s, err = w.EditShop(ctx, s.Version, []edit.Edit{
		{Field: "hammers.add", Text: "heavy"},
		{Field: "hammers.3.hammerKg", Text: "4 lb"},
		{Field: "hearths.add", Text: "coke"},
		{Field: "hearths.add", Text: "coke"},
		{Field: "hearths.1.tempC", Text: "1280"},
	})
	require.NoError(t, err)
	assert.InDelta(t, 1.8144, s.Doc.Hammers[3].HammerKg, 1e-3)
	assert.Equal(t, s.Doc.Hammers[2].Name+" 2", s.Doc.Hammers[3].Name)
	assert.InDelta(t, 1280, s.Doc.Hearths[1].TempC, 0)
	assert.Equal(t, s.Doc.Hearths[1].Name+" 2", s.Doc.Hearths[2].Name)
	for field, text := range map[string]string{
		"hammers.add": "golden", "hearths.add": "volcano", "hammers.remove": "9", "hearths.remove": "one",
		"hammers.0.hammerKg": "90", "hearths.0.tempC": "20", "hammers.1.name": s.Doc.Hammers[0].Name,
	} {
		_, err := w.EditShop(ctx, s.Version, typed(field, text))
		assert.Contains(t, fields(t, err), field, field)
	}
	s, err = w.EditShop(ctx, s.Version, []edit.Edit{{Field: "hammers.remove", Text: "0"}, {Field: "hearths.remove", Text: "2"}})
	require.NoError(t, err)
	assert.Len(t, s.Doc.Hammers, 3)
	assert.Len(t, s.Doc.Hearths, 2)
	s, err = w.EditShop(ctx, s.Version, []edit.Edit{{Field: "hearths.remove", Text: "1"}, {Field: "hearths.remove", Text: "0"}})
	require.NoError(t, err)
	again, err := w.Shop(ctx)
	require.NoError(t, err)
	assert.Empty(t, again.Doc.Hearths, "none is none: %v", s.Doc.Hearths)
}

// TestASetIsTakenUpWhole by a piece: smith, hammer, forge, dies.
func TestASetIsTakenUpWhole(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	do := func(field, text string) {
		t.Helper()
		next, _, err := w.SavePiece(ctx, p.ID, p.Version, typed(field, text))
		require.NoError(t, err)
		p = next
	}
	heats := p.Summary.Heats
	do("smith.hammer", `{"hammerKg":1.7,"faceMm":42,"peenBiteMm":18,"peenLengthMm":46}`)
	assert.InDelta(t, 1.7, p.Doc.Request.Smith.HammerKg, 0)
	assert.LessOrEqual(t, p.Summary.Heats, heats)
	carry := p.Doc.Request.Fire.CarryS
	do("fire.hearth", `{"tempC":1250,"atmosphere":0.2,"hotLengthMm":140,"fuelKgPerH":3}`)
	assert.InDelta(t, 140, p.Doc.Request.Fire.HotLengthMm, 0)
	assert.InDelta(t, carry, p.Doc.Request.Fire.CarryS, 0)
	do("smith.hand", `{"skill":"sure","hammerKg":1.4,"speedMPerS":6.4,"ratePerS":1.4,"landShare":0.95,"restitution":0.4,"anvilKg":150,"faceMm":36,"peenBiteMm":15,"peenLengthMm":40,"machine":{"kind":"press","tupKg":0,"speedMPerS":0.03,"ratePerS":0.5,"forceKN":200,"dies":"drawing","biteMm":20}}`)
	assert.Equal(t, forge.Sure, p.Doc.Request.Smith.Skill)
	do("smith.machine.dies", "flat")
	assert.InDelta(t, 70, p.Doc.Request.Smith.Machine.BiteMm, 0)
	for field, text := range map[string]string{
		"smith.hammer": `{"hammerKg":1.7,"handle":"ash"}`, "fire.hearth": "hot", "smith.hand": `{"skill":"sure"}`, "smith.machine.dies": "gold",
	} {
		_, _, err := w.SavePiece(ctx, p.ID, p.Version, typed(field, text))
		assert.Error(t, err, field)
	}
	do("smith.machine", "none")
	_, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("smith.machine.dies", "flat"))
	assert.Contains(t, fields(t, err), "smith.machine.dies")
}
