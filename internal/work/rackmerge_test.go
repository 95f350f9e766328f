package work_test

import (
	"strings"
	"testing"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestATableOfTheRackIsTheRack: its own table changes nothing, a changed line changes that
// piece and nothing that the table has no column for, and looking does neither.
func TestATableOfTheRackIsTheRack(t *testing.T) {
	w, _ := fresh(t)
	a := shelf(t, w, doc.Stock{Name: "=Bar", Piece: bar(40, 6, 610), SteelID: "1084", Place: "left wall", Cost: 12.5})
	disc := stock.Item{Form: stock.Disc, DiameterMm: 400, ThicknessMm: 5, ShareFraction: .5, StripWidthMm: 40, Dead: []stock.Dead{{FromMm: 10, ToMm: 30, Why: "hole"}}}
	b := shelf(t, w, doc.Stock{Name: "Half a disc", Piece: disc, SteelID: "1018", Origin: "disc", Believed: true, Hazards: []string{"coating", "cracks"}})
	// a share that is not the same again as a percentage
	shelf(t, w, doc.Stock{Name: "Rope", Piece: stock.Item{Form: stock.Cable, DiameterMm: 24.3, LengthMm: 250, SolidFraction: .57}, SteelID: "1084", WeighedKg: .3217})
	raw, err := w.RackCSV(ctx)
	require.NoError(t, err)
	for range 2 {
		done, err := w.ImportRackCSV(ctx, raw)
		require.NoError(t, err)
		for _, c := range done {
			assert.NotEmpty(t, c.ID)
			assert.Empty(t, c.Changes, c.Name)
		}
	}
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	require.Len(t, rack, 3, "the rack is not doubled")
	for _, s := range rack {
		if was, ok := map[string]work.Stock{a.ID: a, b.ID: b}[s.ID]; ok {
			assert.Equal(t, was.Doc, s.Doc)
		}
		assert.Equal(t, 1, s.Version, "what stays is not written")
	}

	table := strings.NewReplacer("left wall", "rafters", "coating cracks", "coating", "12.5", "").Replace(string(raw))
	want := map[string][]work.FieldChange{
		"=Bar":        {{Column: "place", Was: "left wall", Is: "rafters"}, {Column: "cost", Was: "12.5", Is: ""}},
		"Half a disc": {{Column: "hazards", Was: "coating cracks", Is: "coating"}},
	}
	for _, read := range []func() ([]work.RackChange, error){
		func() ([]work.RackChange, error) { return w.ReadRackTable(ctx, []byte(table)) },
		func() ([]work.RackChange, error) { return w.ImportRackCSV(ctx, []byte(table)) },
	} {
		s, err := w.StockItem(ctx, a.ID)
		require.NoError(t, err)
		assert.Equal(t, "left wall", s.Doc.Place, "looking changes nothing")
		done, err := read()
		require.NoError(t, err)
		require.Len(t, done, 3)
		for _, c := range done {
			assert.Equal(t, want[c.Name], c.Changes, c.Name)
		}
	}
	s, err := w.StockItem(ctx, b.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{"coating"}, s.Doc.Hazards)
	assert.Equal(t, disc.Dead, s.Doc.Piece.Dead, "there is no column for them")

	for code, text := range map[string]string{
		"csv.idTwice":   "id,name,form\n" + a.ID + ",A,flat\n" + a.ID + ",B,flat\n",
		"csv.otherForm": "id,name,form\n" + a.ID + ",A,square\n",
	} {
		_, err := w.ImportRackCSV(ctx, []byte(text))
		var ce *work.CSVError
		require.ErrorAs(t, err, &ce, code)
		assert.Equal(t, code, ce.Code)
	}
	_, err = w.ArchiveStock(ctx, a.ID, s.Version, true)
	require.NoError(t, err)
	_, err = w.ImportRackCSV(ctx, []byte("id,name,form\n"+a.ID+",A,flat\n"))
	var ce *work.CSVError
	require.ErrorAs(t, err, &ce)
	assert.Equal(t, "csv.offRack", ce.Code)
}

// TestSalvageIsPresumed whatever way it comes in, unless its steel is said to be known.
func TestSalvageIsPresumed(t *testing.T) {
	w, _ := fresh(t)
	leaf := []edit.Edit{{Field: "name", Text: "Leaf"}, {Field: "piece.widthMm", Text: "60"}, {Field: "piece.thicknessMm", Text: "8"}, {Field: "piece.chordMm", Text: "700"}}
	with := func(more ...edit.Edit) []edit.Edit { return append(append([]edit.Edit{}, leaf...), more...) }
	s, err := w.NewStock(ctx, stock.Leaf, leaf)
	require.NoError(t, err)
	assert.Equal(t, "leafSpring", s.Doc.Origin)
	assert.True(t, s.Doc.Believed)
	assert.Equal(t, "unknown-spring", s.Doc.SteelID)
	assert.Equal(t, []string{"tension", "coating"}, s.Doc.Hazards)
	_, err = w.NewStock(ctx, stock.Leaf, with(edit.Edit{Field: "steelId", Text: "1084"}, edit.Edit{Field: "origin", Text: "bar"}))
	assert.Contains(t, fields(t, err), "steelId", "nor is a leaf new bar")
	p := start(t, w)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("bar.form", "leaf"))
	require.NoError(t, err)
	assert.Equal(t, "leafSpring", p.Doc.Request.Origin.ID, "on a piece as on the rack")
	assert.Equal(t, []string{"tension", "coating"}, p.Doc.Request.Origin.Hazards)
	assert.Equal(t, "unknown-spring", p.Doc.Request.SteelID)
	_, err = w.NewStock(ctx, stock.Leaf, with(edit.Edit{Field: "steelId", Text: "1084"}))
	assert.Contains(t, fields(t, err), "steelId", "a steel alone is not known to be one")
	for _, known := range []edit.Edit{{Field: "known", Text: "yes"}, {Field: "certificate", Text: "stamped 51CrV4"}} {
		s, err = w.NewStock(ctx, stock.Leaf, with(edit.Edit{Field: "steelId", Text: "5160"}, known))
		require.NoError(t, err, known.Field)
		assert.False(t, s.Doc.Believed, known.Field)
		assert.Equal(t, "5160", s.Doc.SteelID)
		assert.Equal(t, []string{"tension", "coating"}, s.Doc.Hazards, "the hazards are there all the same")
	}
	_, err = w.NewStock(ctx, stock.Flat, []edit.Edit{{Field: "name", Text: "Bar"}, {Field: "piece.widthMm", Text: "25"}, {Field: "piece.thicknessMm", Text: "5"}, {Field: "piece.lengthMm", Text: "900"}})
	assert.Equal(t, "field.steelMissing", fields(t, err)["steelId"].Code)
	_, err = w.EditStock(ctx, s.ID, s.Version, typed("dead.add", "5; 9000; wear"))
	assert.Equal(t, "stock.deadBeyond", fields(t, err)["piece.dead.0.toMm"].Code)
}

// TestAStackIsPutOnTheRack layer by layer, as it is typed.
func TestAStackIsPutOnTheRack(t *testing.T) {
	w, _ := fresh(t)
	stack := func(layers ...string) []edit.Edit {
		edits := []edit.Edit{{Field: "origin", Text: "stack"}, {Field: "name", Text: "Billet"}, {Field: "piece.widthMm", Text: "40"}, {Field: "piece.lengthMm", Text: "120"}}
		for _, l := range layers {
			edits = append(edits, edit.Edit{Field: "layer.add", Text: l})
		}
		return edits
	}
	s, err := w.NewStock(ctx, stock.Layers, stack("4; 3", "3; 1/16 in"))
	require.NoError(t, err)
	assert.Equal(t, []stock.Layer{{Count: 4, ThicknessMm: 3}, {Count: 3, ThicknessMm: 1.5875}}, s.Doc.Piece.Layers)
	assert.InDelta(t, 40*120*(12+3*1.5875)*7.85/1000, s.MassG, 2)
	for text, code := range map[string]string{"4.5; 3": "field.whole", "4": "stock.layerText", "0; 3": "stock.layerText", "x; 3": "quantity.missingNumber"} {
		_, err = w.NewStock(ctx, stock.Layers, stack(text))
		assert.Equal(t, code, fields(t, err)["layer.add"].Code, text)
	}
	s, err = w.EditStock(ctx, s.ID, s.Version, typed("layer.delete", "0"))
	require.NoError(t, err)
	assert.Len(t, s.Doc.Piece.Layers, 1)
}
