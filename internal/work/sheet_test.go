package work_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/nest"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestPartsAreCutOutOfASheet: around a worn corner that is dead only from one side, with every
// gram of the sheet accounted for; what does not go is refused where it is asked.
func TestPartsAreCutOutOfASheet(t *testing.T) {
	w, _ := fresh(t)
	plate, err := w.AddStock(ctx, doc.Stock{Name: "Plate", SteelID: "1084", Piece: stock.Item{
		Form: stock.Flat, WidthMm: 160, ThicknessMm: 6, LengthMm: 500,
		Dead: []stock.Dead{{FromMm: 0, ToMm: 60, Why: "wear", FromAcrossMm: 100, ToAcrossMm: 160}},
	}})
	require.NoError(t, err)
	utility := patternOf(t, w, "utility")
	order := work.SheetOrder{StockID: plate.ID, Parts: []work.SheetWanted{{PatternID: utility, Count: 4}}, Way: work.CutToForge, KerfMm: 1.5, GapMm: 1, MarginMm: 4, MostTurnDeg: 20}
	p, err := w.LaySheet(ctx, order)
	require.NoError(t, err)
	require.Len(t, p.Layout.Placed, 4)
	require.Len(t, p.Bad, 1)
	for _, o := range p.Outlines {
		assert.GreaterOrEqual(t, nest.Apart(o, p.Bad[0].Outline, 50), 4-1e-6)
	}
	g := func(mm2 float64) float64 { return mm2 * 6 * steel.DensityGPerCm3 / 1000 }
	assert.InEpsilon(t, g(500*160-60*60), p.UsedG+p.RestG, 1e-9)
	assert.InEpsilon(t, p.UsedG, p.WasteG+4*p.Parts[0].MassG, 1e-6)

	ground := order
	ground.Way = work.CutToGrind
	q, err := w.LaySheet(ctx, ground)
	require.NoError(t, err)
	assert.Greater(t, q.Parts[0].MassG, p.Parts[0].MassG, "what is ground away has to be cut out first")
	assert.Greater(t, q.Parts[0].GrindG, p.Parts[0].GrindG)

	hot := order
	hot.Cut = work.CutHot
	h, err := w.LaySheet(ctx, hot)
	require.NoError(t, err)
	assert.Greater(t, h.SawS, p.SawS)
	assert.Equal(t, 4*h.Parts[0].CutHeats, h.Heats)
	for i, a := range h.Outlines {
		for _, b := range h.Outlines[:i] {
			assert.GreaterOrEqual(t, nest.Apart(a, b, 20), 1.5+1+2-1e-6, "room for burr and scale")
		}
	}

	// by hand: it stays, and is told of
	held := order
	held.Held = []nest.Placed{p.Layout.Placed[0], p.Layout.Placed[0]}
	held.Held[1].XMm += 5
	p, err = w.LaySheet(ctx, held)
	require.NoError(t, err)
	assert.Equal(t, held.Held, p.Layout.Placed[:2])
	assert.NotEmpty(t, p.Faults)

	refused := func(change func(o *work.SheetOrder), field, code string) {
		o := order
		change(&o)
		_, err := w.LaySheet(ctx, o)
		var bad *edit.InvalidError
		require.ErrorAs(t, err, &bad)
		assert.Equal(t, field, bad.Fields[0].Field)
		assert.Equal(t, code, bad.Fields[0].Code)
	}
	refused(func(o *work.SheetOrder) { o.KerfMm = 0 }, "kerfMm", "field.rangeLength")
	refused(func(o *work.SheetOrder) { o.Parts = nil }, "parts", "cutplan.nothing")
	refused(func(o *work.SheetOrder) { o.Edits = []edit.Edit{{Field: "gapMm", Text: "a lot"}} }, "gapMm", "quantity.missingNumber")
	refused(func(o *work.SheetOrder) {
		o.Parts = []work.SheetWanted{{PatternID: patternOf(t, w, "integral"), Count: 1}}
	}, "parts", "nest.thin")
	ball, err := w.AddStock(ctx, doc.Stock{Name: "Ball", SteelID: "52100", Piece: stock.Item{Form: stock.Ball, DiameterMm: 40}})
	require.NoError(t, err)
	refused(func(o *work.SheetOrder) { o.StockID = ball.ID }, "stockId", "stock.noSheet")
	disc, err := w.AddStock(ctx, doc.Stock{Name: "Disc", SteelID: "1084", Piece: stock.Item{Form: stock.Disc, DiameterMm: 420, ThicknessMm: 6, ShareFraction: .5, InnerDiameterMm: 40, StripWidthMm: 45}})
	require.NoError(t, err)
	o := order
	o.StockID = disc.ID
	p, err = w.LaySheet(ctx, o)
	require.NoError(t, err)
	assert.Len(t, p.Layout.Placed, 4)
}

// patternOf is a pattern of a starter's design.
func patternOf(t *testing.T, w *work.Work, id string) string {
	for _, s := range blade.Starters() {
		if s.ID == id {
			p, err := w.AddPattern(ctx, doc.Pattern{Name: id, Tags: []string{}, Design: s.Design, Allowances: blade.ThickAndGrind.Allowances()})
			require.NoError(t, err)
			return p.ID
		}
	}
	t.Fatal("no starter " + id)
	return ""
}
