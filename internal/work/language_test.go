package work_test

import (
	"testing"

	"coldember/internal/edit"
	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestNoNameIsStoredInOneLanguage: starter patterns and the first smith are read in the language of the shop, what was made of
// them too; a piece still finds its smith; names that somebody gave are theirs.
func TestNoNameIsStoredInOneLanguage(t *testing.T) {
	t.Cleanup(func() { text.Use(text.English) })
	w, _ := fresh(t)
	called := func(id string) string {
		p, err := w.Pattern(ctx, id)
		require.NoError(t, err)
		return p.Doc.Name
	}
	all, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	byName := map[string]string{}
	for _, p := range all {
		byName[p.Doc.Name] = p.ID
	}
	require.Contains(t, byName, "Camp knife")
	twin, err := w.DuplicatePattern(ctx, byName["Camp knife"])
	require.NoError(t, err)
	assert.Equal(t, "Camp knife 2", twin.Doc.Name)
	own, err := w.EditPattern(ctx, byName["Cleaver"], 1, []edit.Edit{{Field: "name", Text: "The cook's"}})
	require.NoError(t, err)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	assert.Equal(t, "My hammer", shop.Doc.Smiths[0].Name)
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "smiths.add", Text: "Smith 2"}})
	require.NoError(t, err)
	begun := start(t, w)
	piece, _, err := w.StartPiece(ctx, work.NewPiece{Name: "Cleaver", PatternID: own.ID, StockID: begun.Doc.StockID, Hand: "Smith 2"})
	require.NoError(t, err)
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "language", Text: "es"}})
	require.NoError(t, err)
	assert.Equal(t, "Mi martillo", shop.Doc.Smiths[0].Name)
	assert.Equal(t, "Herrero 2", shop.Doc.Smiths[1].Name)
	assert.Equal(t, "Cuchillo de campo 2", called(twin.ID))
	assert.Equal(t, "The cook's", called(own.ID))
	back, err := w.Piece(ctx, piece.ID)
	require.NoError(t, err)
	assert.Equal(t, "Herrero 2", back.Doc.Hand, "a piece still finds who works it")
	assert.NotEqual(t, "Cleaver", back.Doc.Name)
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "theme", Text: "day"}})
	require.NoError(t, err)
	_, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "language", Text: "en"}})
	require.NoError(t, err)
	assert.Equal(t, "Camp knife 2", called(twin.ID))
}
