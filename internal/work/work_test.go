package work_test

import (
	"context"
	"errors"
	"path/filepath"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var ctx = context.Background()

// clock is a clock that the test turns.
type clock struct{ at time.Time }

func (c *clock) now() time.Time {
	c.at = c.at.Add(time.Millisecond) // no two things are made at once
	return c.at
}

func (c *clock) later(d time.Duration) { c.at = c.at.Add(d) }

func open(t *testing.T, file string) (*work.Work, *clock) {
	t.Helper()
	st, err := store.Open(ctx, file, nil)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	c := &clock{at: time.Date(2026, 5, 1, 9, 0, 0, 0, time.UTC)}
	w := work.New(st, c.now, work.RandomID)
	require.NoError(t, w.Ensure(ctx))
	return w, c
}

func fresh(t *testing.T) (*work.Work, *clock) {
	t.Helper()
	return open(t, filepath.Join(t.TempDir(), "work.db"))
}

func start(t *testing.T, w *work.Work) work.Piece {
	t.Helper()
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	s, err := w.AddStock(ctx, doc.Stock{Name: "Bar", Piece: stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}, SteelID: "80CrV2"})
	require.NoError(t, err)
	p, _, err := w.StartPiece(ctx, work.NewPiece{Name: "Knife", PatternID: patterns[0].ID, StockID: s.ID})
	require.NoError(t, err)
	return p
}

func typed(field, text string) []edit.Edit {
	return []edit.Edit{{Field: field, Text: text, Units: quantity.Metric}}
}

func TestStartTakesBladeBarAndHand(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	r := p.Doc.Request
	assert.Equal(t, "80CrV2", r.SteelID)
	assert.InDelta(t, 25, r.Bar.WidthMm, 1e-9)
	assert.Equal(t, forge.Steady, r.Smith.Skill)
	assert.Positive(t, p.Summary.Heats)
	assert.NotEmpty(t, p.Summary.Sketch)
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	own, _, err := w.StartPiece(ctx, work.NewPiece{Name: "From my own bar", PatternID: patterns[1].ID, BarForm: stock.Round, Skill: forge.Sure, Edits: []edit.Edit{
		{Field: "bar.diameterMm", Text: "5/8 in", Units: quantity.Metric}, {Field: "bar.lengthMm", Text: "300"}, {Field: "steelId", Text: "W1"},
	}})
	require.NoError(t, err)
	assert.InDelta(t, 15.875, own.Doc.Request.Bar.DiameterMm, 1e-9)
	assert.Equal(t, forge.Sure, own.Doc.Request.Smith.Skill)
}

func TestStartNamesWhatIsMissing(t *testing.T) {
	w, _ := fresh(t)
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	for field, in := range map[string]work.NewPiece{
		"patternId":   {Name: "x", PatternID: "nothing"},
		"stockId":     {Name: "x", PatternID: patterns[0].ID, StockID: "nothing"},
		"bar.widthMm": {Name: "x", PatternID: patterns[0].ID, BarForm: stock.Flat, Edits: typed("steelId", "1084")},
		"steelId":     {Name: "x", PatternID: patterns[0].ID, BarForm: stock.Round, Edits: []edit.Edit{{Field: "bar.diameterMm", Text: "12"}, {Field: "bar.lengthMm", Text: "300"}, {Field: "steelId", Text: "butter"}}},
	} {
		_, _, err := w.StartPiece(ctx, in)
		assert.Contains(t, fields(t, err), field)
	}
}

func fields(t *testing.T, err error) map[string]edit.Problem {
	t.Helper()
	var inv *edit.InvalidError
	require.True(t, errors.As(err, &inv), "%v", err)
	out := map[string]edit.Problem{}
	for _, f := range inv.Fields {
		out[f.Field] = f
	}
	return out
}

func TestEditsAreParsedAndKept(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	q, pl, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{
		{Field: "design.lengthMm", Text: "4 3/8", Units: quantity.Imperial},
		{Field: "smith.hammerKg", Text: "1.5"},
		{Field: "fire.tempC", Text: "2150 °F"},
		{Field: "sizing.thumbLossFraction", Text: "8"},
		{Field: "allowances.school", Text: "close"},
		{Field: "design.tangKind", Text: "full"},
		{Field: "name", Text: "  Renamed "},
	})
	require.NoError(t, err)
	r := q.Doc.Request
	assert.InDelta(t, 111.125, r.Design.LengthMm, 1e-9)
	assert.InDelta(t, 1.5, r.Smith.HammerKg, 1e-9)
	assert.InDelta(t, 1176.7, r.Fire.TempC, .1)
	assert.InDelta(t, .08, r.Sizing.ThumbLossFraction, 1e-12)
	assert.Equal(t, blade.ForgeClose.Allowances(), r.Allowances)
	assert.Equal(t, "Renamed", q.Doc.Name)
	assert.InDelta(t, r.Design.Ricasso.HeightMm, r.Design.Tang.HeightAtShoulderMm, 1e-9, "a full tang is as high as the ricasso")
	assert.InDelta(t, pl.Bar.CutLengthMm, q.Summary.CutLengthMm, 1e-9)
	again, err := w.Piece(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, q.Doc, again.Doc)
}

func TestBadTextIsPointedAtAndNothingChanges(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	_, _, err := w.SavePiece(ctx, p.ID, p.Version, []edit.Edit{
		{Field: "design.heightMm", Text: "30"},
		{Field: "design.lengthMm", Text: "12 furlongs"},
		{Field: "design.spineMm", Text: "1/0"},
		{Field: "smith.skill", Text: "wizard"},
		{Field: "design.colour", Text: "red"},
	})
	got := fields(t, err)
	assert.Equal(t, 3, got["design.lengthMm"].Offset)
	assert.Equal(t, "12 furlongs", got["design.lengthMm"].Text)
	assert.Equal(t, "quantity.zeroDivisor", got["design.spineMm"].Code)
	assert.Contains(t, got, "smith.skill")
	assert.Contains(t, got, "design.colour")
	assert.NotContains(t, got, "design.heightMm")
	same, err := w.Piece(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Doc, same.Doc)
	assert.Equal(t, p.Version, same.Version)
}

func TestMeasuringTheBarTakesItOffTheRackItem(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	require.NotEmpty(t, p.Doc.StockID)
	p, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("bar.widthMm", "27"))
	require.NoError(t, err)
	assert.Empty(t, p.Doc.StockID)
}

func TestUndoSurvivesAReload(t *testing.T) {
	file := filepath.Join(t.TempDir(), "work.db")
	w, c := open(t, file)
	p := start(t, w)
	first := p.Doc.Request.Design.LengthMm
	for _, l := range []string{"110", "120"} {
		var err error
		c.later(time.Minute)
		p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("design.lengthMm", l))
		require.NoError(t, err)
	}
	again, _ := open(t, file)
	step := func(by int) float64 {
		var err error
		p, _, err = again.Undo(ctx, p.ID, p.Version, by)
		require.NoError(t, err)
		return p.Doc.Request.Design.LengthMm
	}
	assert.InDelta(t, 110, step(-1), 1e-9)
	assert.InDelta(t, first, step(-1), 1e-9)
	assert.False(t, p.CanUndo)
	assert.True(t, p.CanRedo)
	assert.InDelta(t, 110, step(1), 1e-9)
	var err error
	p, _, err = again.SavePiece(ctx, p.ID, p.Version, typed("design.heightMm", "31"))
	require.NoError(t, err)
	assert.False(t, p.CanRedo, "a new edit ends what had been undone")
	_, _, err = again.Undo(ctx, p.ID, p.Version, 1)
	var se *work.StateError
	require.True(t, errors.As(err, &se))
	assert.Equal(t, "problem.nothingToRedo", se.Code)
}

func TestQuickEditsOfOneFieldAreOneStep(t *testing.T) {
	w, c := fresh(t)
	p := start(t, w)
	first := p.Doc.Request.Design.LengthMm
	c.later(time.Minute)
	for _, l := range []string{"101", "102", "103"} {
		var err error
		c.later(300 * time.Millisecond)
		p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("design.lengthMm", l))
		require.NoError(t, err)
	}
	p, _, err := w.Undo(ctx, p.ID, p.Version, -1)
	require.NoError(t, err)
	assert.InDelta(t, first, p.Doc.Request.Design.LengthMm, 1e-9)
}

func TestTheSecondSaveIsTold(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	now, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("design.lengthMm", "111"))
	require.NoError(t, err)
	for _, call := range []func() error{
		func() error {
			_, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("design.lengthMm", "99"))
			return err
		},
		func() error { _, _, err := w.Undo(ctx, p.ID, p.Version, -1); return err },
	} {
		var stale *work.StaleError
		require.True(t, errors.As(call(), &stale))
		assert.Equal(t, now.Doc, stale.Current.(work.Piece).Doc, "what is there now comes along")
	}
}

func TestArchiveAndRestoreAndDuplicate(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	d, _, err := w.DuplicatePiece(ctx, p.ID, "Second")
	require.NoError(t, err)
	assert.Equal(t, p.Doc.Request, d.Doc.Request)
	_, err = w.ArchivePiece(ctx, p.ID, true)
	require.NoError(t, err)
	list, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, d.ID, list[0].ID)
	gone, _, err := w.Pieces(ctx, true)
	require.NoError(t, err)
	require.Len(t, gone, 1)
	_, err = w.ArchivePiece(ctx, p.ID, false)
	require.NoError(t, err)
	list, _, err = w.Pieces(ctx, false)
	require.NoError(t, err)
	assert.Len(t, list, 2)
	_, err = w.Piece(ctx, "nothing")
	require.ErrorIs(t, err, work.ErrNotFound)
}

func TestTheRackKnowsWhatIsAskedOfIt(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	s, err := w.StockItem(ctx, p.Doc.StockID)
	require.NoError(t, err)
	assert.InDelta(t, 1000-p.Summary.CutLengthMm, s.FreeMm, 1e-6)
	_, err = w.ArchivePiece(ctx, p.ID, true)
	require.NoError(t, err)
	s, err = w.StockItem(ctx, p.Doc.StockID)
	require.NoError(t, err)
	assert.InDelta(t, 1000, s.FreeMm, 1e-9, "an archived piece asks for nothing")
}

func TestStockIsTypedAndChecked(t *testing.T) {
	w, _ := fresh(t)
	s, err := w.NewStock(ctx, stock.Hex, []edit.Edit{
		{Field: "name", Text: "Hexagon"},
		{Field: "piece.acrossFlatsMm", Text: "3/4", Units: quantity.Imperial},
		{Field: "piece.lengthMm", Text: "12", Units: quantity.Imperial},
		{Field: "steelId", Text: "w1"},
		{Field: "count", Text: "3"},
	})
	require.NoError(t, err)
	assert.Equal(t, 3, s.Doc.Count)
	assert.InDelta(t, 3*304.8, s.FreeMm, 1e-9)
	s, err = w.EditStock(ctx, s.ID, s.Version, []edit.Edit{{Field: "notes", Text: "rusty"}, {Field: "piece.lengthMm", Text: "200"}})
	require.NoError(t, err)
	assert.Equal(t, "rusty", s.Doc.Notes)
	_, err = w.EditStock(ctx, s.ID, s.Version-1, typed("notes", "late"))
	var stale *work.StaleError
	require.True(t, errors.As(err, &stale))
	_, err = w.NewStock(ctx, stock.Flat, typed("piece.widthMm", "20"))
	assert.Contains(t, fields(t, err), "name")
	_, err = w.ArchiveStock(ctx, s.ID, s.Version, true)
	require.NoError(t, err)
	rack, _, err := w.Rack(ctx, false)
	require.NoError(t, err)
	assert.Empty(t, rack)
}

func TestShopIsEditedFieldByField(t *testing.T) {
	w, _ := fresh(t)
	s, err := w.EditShop(ctx, 0, []edit.Edit{{Field: "units", Text: "in"}, {Field: "smiths.0.hammerKg", Text: "3 lb"}, {Field: "smiths.add", Text: "Apprentice"}, {Field: "smiths.1.skill", Text: "learning"}})
	require.NoError(t, err)
	assert.Equal(t, quantity.Imperial, s.Doc.Units)
	assert.InDelta(t, 1.3608, s.Doc.Smiths[0].HammerKg, 1e-3)
	require.Len(t, s.Doc.Smiths, 2)
	assert.Equal(t, forge.Learning, s.Doc.Smiths[1].Skill)
	assert.Less(t, s.Doc.Smiths[1].LandShare, s.Doc.Smiths[0].LandShare)
	_, err = w.EditShop(ctx, 0, typed("theme", "day"))
	var stale *work.StaleError
	require.True(t, errors.As(err, &stale))
	for field, text := range map[string]string{"theme": "pink", "units": "cubits", "fire.tempC": "90", "smiths.1.name": s.Doc.Smiths[0].Name, "version": "7", "smiths.remove": "9", "smiths.9.skill": "sure"} {
		_, err := w.EditShop(ctx, s.Version, typed(field, text))
		assert.Contains(t, fields(t, err), field, field)
	}
	s, err = w.EditShop(ctx, s.Version, typed("smiths.remove", "1"))
	require.NoError(t, err)
	_, err = w.EditShop(ctx, s.Version, typed("smiths.remove", "0"))
	assert.Contains(t, fields(t, err), "smiths", "one smith must be left")
}

func TestPreviewKeepsNothing(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	d, pl, err := w.Preview(ctx, p.Doc, typed("design.lengthMm", "140"))
	require.NoError(t, err)
	assert.InDelta(t, 140, d.Request.Design.LengthMm, 1e-9)
	assert.Greater(t, pl.Bar.CutLengthMm, p.Summary.CutLengthMm)
	same, err := w.Piece(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Doc, same.Doc)
}

func TestTheShopHasItsOwnLikelihoods(t *testing.T) {
	w, _ := fresh(t)
	s, err := w.NewStock(ctx, stock.Round, []edit.Edit{
		{Field: "name", Text: "Pin"},
		{Field: "origin", Text: "offcut"},
		{Field: "test.spark", Text: "manyForks"},
		{Field: "piece.diameterMm", Text: "20"},
		{Field: "piece.lengthMm", Text: "100"},
	})
	require.NoError(t, err)
	share := func() float64 {
		now, err := w.StockItem(ctx, s.ID)
		require.NoError(t, err)
		for _, f := range now.Belief.Shares {
			if f.Family == "bearing" {
				return f.Now
			}
		}
		return 0
	}
	before := share()
	shop, err := w.EditShop(ctx, 0, []edit.Edit{{Field: "likelihood.spark.manyForks.bearing", Text: "90 %"}})
	require.NoError(t, err)
	require.Len(t, shop.Doc.Likelihoods, 1)
	assert.Greater(t, share(), before)
	for field, text := range map[string]string{
		"likelihood.spark.purple.bearing": "50 %", "likelihood.spark.manyForks.cheese": "50 %", "likelihood.spark.manyForks.iron": "300 %", "likelihood.spark.manyForks.mild": "lots",
	} {
		_, err := w.EditShop(ctx, shop.Version, []edit.Edit{{Field: field, Text: text}})
		require.Error(t, err, field)
	}
	shop, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "likelihood.spark.manyForks.bearing", Text: ""}})
	require.NoError(t, err)
	assert.Empty(t, shop.Doc.Likelihoods)
	assert.InDelta(t, before, share(), 1e-12, "and the table's again")
}
