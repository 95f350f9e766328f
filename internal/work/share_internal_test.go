package work

import (
	"encoding/json"
	"errors"
	"slices"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"

	"github.com/stretchr/testify/require"
)

// FuzzReadShared: whatever stands in the file of a shared piece, every document of it meets the rules of what is typed, or it is
// refused in words.
func FuzzReadShared(f *testing.F) {
	w := &Work{now: time.Now, newID: RandomID}
	for _, s := range blade.Starters()[:3] {
		bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}
		p := json.RawMessage(doc.Encode(doc.Piece{Name: s.ID, StockID: "stock-1", Request: plan.NewRequest(s.Design, "1084", bar, forge.Steady)}))
		text, err := json.Marshal(Shared{
			Format: SharedFormat, Version: SharedVersion,
			Piece: ArchivedPiece{ID: "piece-1", Doc: p, Summary: json.RawMessage("{}"), Version: 1, Cursor: 1, Steps: []ArchivedState{{N: 1, Doc: p}}},
			Stock: []ArchivedStock{{ID: "stock-1", Doc: json.RawMessage(doc.Encode(doc.Stock{Name: "Bar", Piece: bar, SteelID: "1084", Count: 1}))}},
		})
		require.NoError(f, err)
		_, _, err = w.sharedIn(text, nil)
		require.NoError(f, err)
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		s, _, err := w.sharedIn(text, nil)
		if err == nil {
			_, err = (&Archive{Pieces: []ArchivedPiece{s.Piece}, Stock: s.Stock}).rows()
		}
		var wrong *edit.InvalidError
		if err != nil && !errors.As(err, &wrong) {
			t.Fatalf("%T %v", err, err)
		}
		if err == nil && (s.Piece.ID == "piece-1" || len(s.Piece.ID) != len(RandomID())) {
			t.Fatalf("id %q", s.Piece.ID)
		}
	})
}

// TestWhatCannotBeReadIsNotWritten: a file is bounded where it is made as where it is read.
func TestWhatCannotBeReadIsNotWritten(t *testing.T) {
	large := make([]byte, MaxSharedBytes/2)
	few := func(n int, data []byte) []store.Picture {
		return slices.Repeat([]store.Picture{{Mime: "image/png", Data: data}}, n)
	}
	var s Shared
	require.NoError(t, s.fits(few(mostSharedPictures, nil)))
	require.NoError(t, s.fits(few(2, large)))
	s.Piece.Steps = make([]ArchivedState, mostSharedSteps)
	require.NoError(t, s.fits(nil))
	var wrong *edit.InvalidError
	require.ErrorAs(t, s.fits(few(mostSharedPictures+1, nil)), &wrong)
	require.Equal(t, "share.tooMuch", wrong.Fields[0].Code)
	require.Error(t, s.fits(few(3, large)))
	s.Piece.Named = make([]ArchivedState, 1)
	require.Error(t, s.fits(nil))
}
