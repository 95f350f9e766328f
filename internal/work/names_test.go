package work_test

import (
	"testing"

	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestWhatIsNotSaidIsUsual: a piece without a name is its pattern's, counted; a bar without a
// length is one as sold; copies are counted from the name that was counted.
func TestWhatIsNotSaidIsUsual(t *testing.T) {
	w, _ := fresh(t)
	patterns, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	in := work.NewPiece{PatternID: patterns[0].ID, BarForm: stock.Flat, Edits: []edit.Edit{{Field: "bar.widthMm", Text: "30"}, {Field: "bar.thicknessMm", Text: "6"}, {Field: "steelId", Text: "1084"}}}
	name := patterns[0].Doc.Name
	for _, want := range []string{name, name + " 2", name + " 3"} {
		p, _, err := w.StartPiece(ctx, in)
		require.NoError(t, err)
		assert.Equal(t, want, p.Doc.Name)
		assert.InDelta(t, 1000, p.Doc.Request.Bar.LengthMm, 0)
		if want == name+" 2" {
			_, err = w.ArchivePiece(ctx, p.ID, true)
			require.NoError(t, err)
		}
	}
	all, _, err := w.Pieces(ctx, false)
	require.NoError(t, err)
	for _, p := range all {
		again, _, err := w.DuplicatePiece(ctx, p.ID, "")
		require.NoError(t, err)
		assert.Contains(t, []string{name + " 4", name + " 5"}, again.Doc.Name)
	}
	copied, err := w.DuplicatePattern(ctx, patterns[0].ID)
	require.NoError(t, err)
	assert.Equal(t, name+" 2", copied.Doc.Name)
	assert.Equal(t, patterns[0].Doc.Design, copied.Doc.Design)
}

// TestAPatternIsFittedToABar that it is too large for: it becomes what the rack says of it.
func TestAPatternIsFittedToABar(t *testing.T) {
	w, _ := fresh(t)
	s := shelf(t, w, doc.Stock{Name: "Short", Piece: bar(25, 5, 60), SteelID: "1084"})
	fits, err := w.Fits(ctx, s.ID)
	require.NoError(t, err)
	tried := false
	for _, f := range fits {
		if f.Feasible || f.Factor == 0 {
			continue
		}
		tried = true
		p, made, err := w.StartPiece(ctx, work.NewPiece{PatternID: f.Pattern.ID, StockID: s.ID, Fitted: true})
		require.NoError(t, err, f.Pattern.Doc.Name)
		assert.InDelta(t, f.LengthMm, p.Doc.Request.Design.LengthMm, f.LengthMm*.02, f.Pattern.Doc.Name)
		assert.LessOrEqual(t, made.Bar.CutLengthMm, 60.0+1e-6)
		break
	}
	assert.True(t, tried, "something is too large for it")
}
