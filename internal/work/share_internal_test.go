package work

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
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
		_, _, err = w.sharedIn(f.Context(), text, nil)
		require.NoError(f, err)
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		s, _, err := w.sharedIn(t.Context(), text, nil)
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

// TestALongLogIsDrawnSmaller: its photographs together keep to the bound, alike; what lies behind an outline keeps its size.
func TestALongLogIsDrawnSmaller(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, image.NewRGBA(image.Rect(0, 0, 100, 40)), nil))
	named := func(n int) string { return fmt.Sprintf("%024x", n) }
	photo := func(n, w, h int) store.Picture {
		return store.Picture{ID: named(n), Mime: "image/jpeg", WidthPx: w, HeightPx: h, Data: b.Bytes()}
	}
	var s Shared
	s.Piece.Doc = json.RawMessage(`{"id": "` + named(1) + `"}`)
	s.Piece.Sessions = []ArchivedSession{{Doc: json.RawMessage(`{"id": "` + named(2) + `"}`)}}
	out, err := s.asPNG(t.Context(), []store.Picture{photo(1, 100, 40), photo(2, 20_000, 8_000), photo(3, 20_000, 8_000)})
	require.NoError(t, err)
	require.Equal(t, []string{named(1), named(2), named(3)}, s.Photographs)
	require.Equal(t, []int{100, 50, 50}, []int{out[0].WidthPx, out[1].WidthPx, out[2].WidthPx})
	require.Equal(t, []int{40, 20, 20}, []int{out[0].HeightPx, out[1].HeightPx, out[2].HeightPx})
	stopped, stop := context.WithCancel(t.Context())
	stop()
	_, err = s.asPNG(stopped, []store.Picture{photo(1, 100, 40)})
	require.ErrorIs(t, err, context.Canceled)
}
