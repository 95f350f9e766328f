package work_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAFinishedKnifeSpeaksForItsBar: what it came to is in the book, and the file at its edge is a
// test of the stock that it was cut from, where nobody knew its steel.
func TestAFinishedKnifeSpeaksForItsBar(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	s, err := w.AddStock(ctx, doc.Stock{Name: "Spring", Piece: stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 600}, SteelID: "unknown-spring", Origin: "leafSpring", Believed: true, Count: 1})
	require.NoError(t, err)
	p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("stockId", s.ID))
	require.NoError(t, err)
	for field, text := range map[string]string{"massG": "heavy", "balanceMm": "", "edge": "1"} {
		err := w.NoteFinished(ctx, p.ID, work.FinalTyped{Texts: map[string]string{field: text}, Units: quantity.Metric})
		assert.Contains(t, fields(t, err), "final."+field)
	}
	assert.Contains(t, fields(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{})), "final", "nothing was said")
	assert.Contains(t, fields(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{Texts: map[string]string{"behindMm": "40 mm"}, Units: quantity.Metric})), "final.behindMm")
	require.NoError(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{Texts: map[string]string{"massG": "120", "warpMm": "1/64 in"}, File: "bites", Cuts: "failed", Units: quantity.Metric}))
	f, err := w.FireOf(ctx, p.ID)
	require.NoError(t, err)
	_, b, err := w.BookOf(ctx, f.ID)
	require.NoError(t, err)
	require.Len(t, b.Final, 1)
	assert.InDelta(t, .397, b.Final[0].Final.WarpMm, .001)
	assert.Positive(t, b.Aim.MassG)
	s, err = w.StockItem(ctx, s.ID)
	require.NoError(t, err)
	assert.Equal(t, []stock.Finding{{Test: "oilQuench", Result: "bites"}}, s.Doc.Findings)
	require.NoError(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{File: "skates", Units: quantity.Metric}))
	s, err = w.StockItem(ctx, s.ID)
	require.NoError(t, err)
	assert.Equal(t, "bites", s.Doc.Findings[0].Result, "the first test stands")
	pr, err := w.Promise(ctx, p.ID)
	require.NoError(t, err)
	assert.Zero(t, pr.Days, "the shop does not say how much it works")
}

// TestAPromiseWaitsForWhatIsInHand before it, and not for what is done.
func TestAPromiseWaitsForWhatIsInHand(t *testing.T) {
	w, _ := fresh(t)
	first := start(t, w)
	second, _, err := w.DuplicatePiece(ctx, first.ID, "Second")
	require.NoError(t, err)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	_, err = w.EditShop(ctx, shop.Version, typed("hoursPerWeek", "10"))
	require.NoError(t, err)
	second, _, err = w.SavePiece(ctx, second.ID, second.Version, []edit.Edit{{Field: "prices.hourPrice", Text: "30"}, {Field: "finish.prices.marginShare", Text: "20"}})
	require.NoError(t, err)
	one, err := w.Promise(ctx, first.ID)
	require.NoError(t, err)
	assert.Zero(t, one.Ahead)
	two, err := w.Promise(ctx, second.ID)
	require.NoError(t, err)
	assert.Equal(t, 1, two.Ahead)
	assert.Greater(t, two.Days, one.Days)
	assert.GreaterOrEqual(t, two.Price, two.Cost*1.2)
	require.NoError(t, w.NoteFinished(ctx, first.ID, work.FinalTyped{File: "skates"}))
	two, err = w.Promise(ctx, second.ID)
	require.NoError(t, err)
	assert.Zero(t, two.Ahead, "the first is done")
}

// TestThreeKnivesTellAGrindersPace: hidden grinders, .6 to 1.5 times as slow as the table has them
// and not the same every day, time their steps on three knives; the fourth is then estimated within a
// quarter. A step that there is not is refused by its name.
func TestThreeKnivesTellAGrindersPace(t *testing.T) {
	draws := rand.New(rand.NewPCG(3, 5))
	for _, hidden := range []float64{.6, .8, 1, 1.25, 1.5} {
		w, _ := fresh(t)
		first := start(t, w)
		assert.Contains(t, fields(t, w.NoteFinished(ctx, first.ID, work.FinalTyped{Took: map[string]string{"hard-61": "5"}, Units: quantity.Metric})), "final.took")
		assert.Contains(t, fields(t, w.NoteFinished(ctx, first.ID, work.FinalTyped{Took: map[string]string{"hard-60": "soon"}, Units: quantity.Metric})), "final.took")
		law, err := w.Finish(ctx, first.Doc)
		require.NoError(t, err)
		for i := range 3 {
			p := first
			if i > 0 {
				p, _, err = w.DuplicatePiece(ctx, first.ID, fmt.Sprint("Knife ", i+1))
				require.NoError(t, err)
			}
			took := map[string]string{}
			for _, s := range law.Steps {
				took[s.ID] = fmt.Sprintf("%.1f", math.Max(.1, s.Minutes*hidden*math.Exp(.15*draws.NormFloat64())))
			}
			require.NoError(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{Took: took, Units: quantity.Metric}))
		}
		next, _, err := w.DuplicatePiece(ctx, first.ID, "Fourth")
		require.NoError(t, err)
		next, _, err = w.SavePiece(ctx, next.ID, next.Version, typed("design.lengthMm", "95"))
		require.NoError(t, err)
		next, _, err = w.SavePiece(ctx, next.ID, next.Version, typed("design.lengthMm", fmt.Sprint(first.Doc.Request.Design.LengthMm)))
		require.NoError(t, err)
		told, err := w.Finish(ctx, next.Doc)
		require.NoError(t, err)
		for i, s := range told.Steps {
			assert.InEpsilon(t, hidden*law.Steps[i].Minutes, s.Minutes, .25, "%v: %s", hidden, s.ID)
			assert.True(t, s.LowMin < hidden*law.Steps[i].Minutes && hidden*law.Steps[i].Minutes < s.HighMin, "%v: %s lies in its range", hidden, s.ID)
		}
	}
}

// TestATimedStepDoesNotFinishTheKnife: it is in the book, and the knife stays in hand until it is said
// what it came to.
func TestATimedStepDoesNotFinishTheKnife(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	require.NoError(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{Took: map[string]string{"bevels": "25"}, Units: quantity.Metric}))
	fires, err := w.AllFires(ctx)
	require.NoError(t, err)
	require.Len(t, fires, 1)
	assert.False(t, fires[0].Completed)
	require.NoError(t, w.NoteFinished(ctx, p.ID, work.FinalTyped{File: "skates", Units: quantity.Metric}))
	fires, err = w.AllFires(ctx)
	require.NoError(t, err)
	assert.True(t, fires[0].Completed)
}
