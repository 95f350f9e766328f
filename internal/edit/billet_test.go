package edit_test

import (
	"testing"

	"coldember/core/billet"
	"coldember/core/forge"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestABilletIsTyped in inches: lengths are lengths and turns are turns; steps are moved; what to lay
// is asked for by the bar; what cannot be keeps what was.
func TestABilletIsTyped(t *testing.T) {
	d, err := edit.Stock(doc.Stock{Name: "Twist", Origin: "new", SteelID: "1084", Piece: stock.Usual(stock.Flat), Count: 1}, []edit.Edit{
		{Field: "billet.lay", Units: quantity.Imperial},
		{Field: "billet.widthMm", Text: "1 1/2", Units: quantity.Imperial},
		{Field: "billet.turnsPer100Mm", Text: "7", Units: quantity.Imperial},
		{Field: "billet.step.move", Text: "3; 1", Units: quantity.Imperial},
	}, forge.NewFire())
	require.NoError(t, err)
	assert.InDelta(t, 38.1, d.Billet.WidthMm, 1e-9)
	assert.InDelta(t, 7, d.Billet.Turns, 0, "turns have no unit")
	kinds := func(r *billet.Recipe) (out []billet.Kind) {
		for _, s := range r.Steps {
			out = append(out, s.Kind)
		}
		return out
	}
	assert.Equal(t, []billet.Kind{billet.Clean, billet.Crop, billet.Weld, billet.Draw}, kinds(d.Billet))

	laid, err := edit.Stock(d, []edit.Edit{{Field: "billet.for", Text: "41; 8 1/4", Units: quantity.Imperial}}, forge.NewFire())
	require.NoError(t, err)
	assert.GreaterOrEqual(t, laid.Piece.LengthMm, 8.25*25.4)
	assert.Less(t, laid.Piece.LengthMm, 8.25*25.4+10)
	assert.Equal(t, []billet.Kind{billet.Clean, billet.Crop, billet.Weld, billet.Draw}, kinds(d.Billet), "and what was is as it was")

	for text, code := range map[string]string{"41": "billet.wantParts", "many; 200": "billet.wantParts", "0; 200": "billet.wantLayers", "41; 4000": "billet.wantLong"} {
		_, err := edit.Stock(d, one("billet.for", text), forge.NewFire())
		assert.Equal(t, code, problem(t, err).Code, text)
	}
	_, err = edit.Stock(d, one("billet.step.move", "3; 9"), forge.NewFire())
	assert.Equal(t, "billet.step.move", problem(t, err).Field)
}
