package work_test

import (
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/nest"
	"coldember/core/plan"
	"coldember/core/planner"
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
	order := work.SheetOrder{StockID: plate.ID, Laying: doc.Laying{Parts: []doc.SheetWanted{{PatternID: utility, Count: 4}}, Way: doc.CutToForge, KerfMm: 1.5, GapMm: 1, MarginMm: 4, MostTurnDeg: 20}}
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
	ground.Way = doc.CutToGrind
	q, err := w.LaySheet(ctx, ground)
	require.NoError(t, err)
	assert.Greater(t, q.Parts[0].MassG, p.Parts[0].MassG, "what is ground away has to be cut out first")
	assert.Greater(t, q.Parts[0].GrindG, p.Parts[0].GrindG)

	hot := order
	hot.Cut = doc.CutHot
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
		o.Parts = []doc.SheetWanted{{PatternID: patternOf(t, w, "integral"), Count: 1}}
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

// TestALayoutIsKeptAndSawn: what is laid stays with its sheet, takes its length, is refused where it has become another
// sheet, and leaves, sawn, pieces that have their steel and a sheet that is shorter by it; two plates become two.
func TestALayoutIsKeptAndSawn(t *testing.T) {
	w, _ := fresh(t)
	add := func(count int, p stock.Item) work.Stock {
		s, err := w.AddStock(ctx, doc.Stock{Name: "Plate", SteelID: "1084", Count: count, Piece: p})
		require.NoError(t, err)
		return s
	}
	plate := stock.Item{Form: stock.Flat, WidthMm: 160, ThicknessMm: 6, LengthMm: 500, Dead: []stock.Dead{{FromMm: 380, ToMm: 400, Why: "crack", FromAcrossMm: 20, ToAcrossMm: 90}}}
	one := add(1, plate)
	knife := start(t, w)
	order := work.SheetOrder{Laying: doc.Laying{Parts: []doc.SheetWanted{{PieceID: knife.ID, Count: 2}, {PatternID: patternOf(t, w, "utility"), Count: 1}}, Way: doc.CutToForge, KerfMm: 1.5, GapMm: 1, MarginMm: 4, MostTurnDeg: 20}}
	kept, err := w.KeepLayout(ctx, one.ID, one.Version, order)
	require.NoError(t, err)
	require.NotNil(t, kept.Doc.Layout)
	l := kept.Doc.Layout
	assert.Len(t, l.Held, 3)
	assert.Equal(t, []string{"Knife", "utility"}, l.Names)
	if l.Across {
		assert.InDelta(t, 0, kept.FreeMm, 1e-9)
	} else {
		assert.InDelta(t, one.FreeMm-l.UsedMm, kept.FreeMm, 1e-9)
	}
	_, err = w.KeepLayout(ctx, one.ID, one.Version, order)
	var stale *work.StaleError
	require.ErrorAs(t, err, &stale, "somebody else was first")
	faulty := order
	faulty.Held = []nest.Placed{l.Held[0], l.Held[0]}
	_, err = w.KeepLayout(ctx, one.ID, kept.Version, faulty)
	var bad *edit.InvalidError
	require.ErrorAs(t, err, &bad)
	assert.Equal(t, "nest.faulty", bad.Fields[0].Code)

	sawn, err := w.SawLayout(ctx, one.ID, kept.Version)
	require.NoError(t, err)
	assert.Nil(t, sawn.Doc.Layout)
	off, was, is := l.UsedMm+1.5, plate.LengthMm, sawn.Doc.Piece.LengthMm
	if l.Across {
		was, is = plate.WidthMm, sawn.Doc.Piece.WidthMm
	}
	assert.InDelta(t, was-off, is, 1e-9)
	require.Len(t, sawn.Doc.Piece.Dead, 1)
	assert.Equal(t, "crack", sawn.Doc.Piece.Dead[0].Why)
	assert.Len(t, sawn.History, 3)
	cuts, err := w.Cuts(ctx, knife.ID)
	require.NoError(t, err)
	require.Len(t, cuts, 2)
	for _, c := range cuts {
		assert.Equal(t, work.CutMadeNow, c.State)
		assert.Equal(t, one.ID, c.StockID)
	}
	_, err = w.SawLayout(ctx, one.ID, sawn.Version)
	var state *work.StateError
	require.ErrorAs(t, err, &state)
	assert.Equal(t, "problem.noLayout", state.Code)
	again, err := w.KeepLayout(ctx, one.ID, sawn.Version, order)
	require.NoError(t, err)
	_, err = w.SawLayout(ctx, one.ID, again.Version)
	require.ErrorAs(t, err, &state, "that piece has its steel")
	forgot, err := w.ForgetLayout(ctx, one.ID, again.Version)
	require.NoError(t, err)
	assert.Nil(t, forgot.Doc.Layout)
	assert.InDelta(t, sawn.FreeMm, forgot.FreeMm, 1e-9)

	disc := add(2, stock.Item{Form: stock.Disc, DiameterMm: 420, ThicknessMm: 6, ShareFraction: 1, InnerDiameterMm: 40, StripWidthMm: 45})
	order.Parts = order.Parts[1:]
	kept, err = w.KeepLayout(ctx, disc.ID, disc.Version, order)
	require.NoError(t, err)
	left, err := w.SawLayout(ctx, disc.ID, kept.Version)
	require.NoError(t, err)
	assert.Equal(t, 1, left.Doc.Count)
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	for _, s := range rack {
		if s.Doc.ParentID == disc.ID {
			require.Len(t, s.Doc.Piece.Dead, 1)
			assert.Equal(t, "sawn", s.Doc.Piece.Dead[0].Why)
			p, err := w.LaySheet(ctx, work.SheetOrder{StockID: s.ID, Laying: order.Laying})
			require.NoError(t, err)
			assert.Positive(t, nest.Apart(p.Outlines[0], p.Bad[1].Outline, 50), "beside what was sawn out")
			return
		}
	}
	assert.Fail(t, "the disc that was sawn is not on the rack")
}

// TestABlankIsASheet as it is forged so far: what is cut out of it lies inside of it, and not where it is too thin.
func TestABlankIsASheet(t *testing.T) {
	w, _ := fresh(t)
	knife := start(t, w)
	made, err := w.Plan(ctx, knife.Doc)
	require.NoError(t, err)
	low, high := 99., 0.
	for _, s := range made.Drawing.Forged {
		low, high = min(low, s.ThicknessMm), max(high, s.ThicknessMm)
	}
	design := blade.Starters()[0].Design
	design = design.Scaled(.4, .4, (.8*low+.2*high)/design.SpineMm)
	small, err := w.AddPattern(ctx, doc.Pattern{Name: "Small", Tags: []string{}, Design: design, Allowances: blade.ThickAndGrind.Allowances()})
	require.NoError(t, err)
	order := work.SheetOrder{BlankID: knife.ID, Laying: doc.Laying{Parts: []doc.SheetWanted{{PatternID: small.ID, Count: 1}}, Way: doc.CutToGrind, KerfMm: .5, MarginMm: .5, MostTurnDeg: 90}}
	p, err := w.LaySheet(ctx, order)
	require.NoError(t, err)
	assert.Equal(t, "Knife", p.Name)
	require.Len(t, p.Layout.Placed, 1)
	for _, b := range p.Bad {
		assert.Equal(t, "thin", b.Why)
		assert.Positive(t, nest.Apart(p.Outlines[0], b.Outline, 50))
	}
	assert.NotEmpty(t, p.Bad, "its point is thinner than that")
	assert.True(t, p.Sheet.Has(p.Outlines[0][0]))
	order.BlankID = "none"
	_, err = w.LaySheet(ctx, order)
	var bad *edit.InvalidError
	require.ErrorAs(t, err, &bad)
	assert.Equal(t, "blankId", bad.Fields[0].Field)
}

// TestCutOutStandsBesideForged: every part is told both ways; a pattern is forged from a flat as it is sold, a piece from its own
// bar, and what no bar forges says why.
func TestCutOutStandsBesideForged(t *testing.T) {
	w, _ := fresh(t)
	plate, err := w.AddStock(ctx, doc.Stock{Name: "Plate", SteelID: "1075", Piece: stock.Item{Form: stock.Flat, WidthMm: 300, ThicknessMm: 6, LengthMm: 900}})
	require.NoError(t, err)
	knife := start(t, w)
	order := work.SheetOrder{StockID: plate.ID, Laying: doc.Laying{
		Parts: []doc.SheetWanted{{PatternID: patternOf(t, w, "utility"), Count: 1}, {PieceID: knife.ID, Count: 1}, {PatternID: patternOf(t, w, "cleaver"), Count: 1}},
		Way:   doc.CutToForge, KerfMm: 1.5, GapMm: 1, MarginMm: 4, MostTurnDeg: 20,
	}}
	p, err := w.LaySheet(ctx, order)
	require.NoError(t, err)
	pattern, piece, cleaver := p.Parts[0], p.Parts[1], p.Parts[2]

	require.NotNil(t, pattern.Bar)
	assert.True(t, pattern.Bar.Sold)
	assert.Contains(t, stock.Sold(), pattern.Bar.Stock)
	sold := plan.NewRequest(blade.Starters()[0].Design, "1075", pattern.Bar.Stock, forge.Steady)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	sold.Allowances, sold.Smith, sold.Fire = blade.ThickAndGrind.Allowances(), shop.Doc.Smiths[0].Smith, shop.Doc.Fire
	made, err := planner.Make(ctx, sold)
	require.NoError(t, err)
	assert.Equal(t, made.Totals.Heats, pattern.Bar.Heats)
	assert.InDelta(t, made.Bar.StartMm3*steel.DensityGPerCm3/1000, pattern.Bar.MassG, 1e-9)
	require.NotNil(t, pattern.Sawn, "bevels and taper are forged, sawn out or not")
	assert.Less(t, pattern.Sawn.FireS, pattern.Bar.FireS*1.5)
	assert.Less(t, pattern.ForgedGrindG, pattern.GrindG+1)

	require.NotNil(t, piece.Bar)
	assert.False(t, piece.Bar.Sold)
	assert.Equal(t, knife.Doc.Request.Bar, piece.Bar.Stock)

	assert.Nil(t, cleaver.Bar, "broader than any flat that is sold reaches")
	require.NotNil(t, cleaver.NoBar)
	assert.NotEmpty(t, cleaver.NoBar.Code)
	assert.NotNil(t, cleaver.Sawn)

	order.Way = doc.CutToGrind
	p, err = w.LaySheet(ctx, order)
	require.NoError(t, err)
	assert.Nil(t, p.Parts[0].Sawn, "nothing is left to forge")
	assert.NotNil(t, p.Parts[0].Bar)
}
